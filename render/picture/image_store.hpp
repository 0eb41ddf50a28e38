// The images of an `Images`, as a renderer sees them.
#pragma once

#include <filesystem>
#include <istream>
#include <string>
#include <unordered_map>
#include <vector>

#include "rapido/images.hpp"
#include "render/picture/cairo_types.hpp"

namespace rapido {

struct Images::State {
    std::filesystem::path folder;
    std::unordered_map<std::string, Result<ImageId>> known;
    std::vector<Surface> surfaces;  ///< by image; 32 bits a pixel, premultiplied

    bool has_room(std::size_t width, std::size_t height) const;
    std::optional<Problem> check_header(std::istream& file) const;
    Result<Surface> read(const std::string& name) const;
    ImageId keep(const std::string& name, Surface surface);
};

/// A part of an image, its colors multiplied and then mixed with a tint.
Surface recolored(cairo_surface_t* image, const Rect& part, Color color, Color tint, float tint_part);

}  // namespace rapido
