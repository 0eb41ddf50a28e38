// The images of an `Images`, as a renderer sees them.
#pragma once

#include <filesystem>
#include <istream>
#include <mutex>
#include <string>
#include <unordered_map>
#include <vector>

#include "rapido/images.hpp"
#include "render/picture/cairo_types.hpp"

namespace rapido {

struct Images::State {
    std::filesystem::path folder;
    std::unordered_map<std::string, Result<ImageId>> known;  ///< by name
    std::unordered_map<std::string, Result<ImageId>> files;  ///< by path: one file may have several names
    std::size_t pixels = 0;                                  ///< of all files that were read
    std::size_t summed = 0;                                  ///< pixels that `opacity` has looked at
    std::size_t slices = 0;                                  ///< numbers that it gave

    Result<std::filesystem::path> file_of(const std::string& name) const;
    Result<ImageId> read(const std::filesystem::path& path);
    ImageId keep(Surface surface);
    /// The pixels of an image, 32 bits each, premultiplied; null for an unknown one. They stay as they are, so that one thread may draw them
    /// while another finds more.
    cairo_surface_t* surface(ImageId image) const;

 private:
    mutable std::mutex mutex_;
    std::vector<Surface> surfaces_;  ///< by image
};

struct PixelSize {
    std::size_t width = 0, height = 0;
    std::size_t pixels() const { return width * height; }
    std::string text() const { return std::to_string(width) + " by " + std::to_string(height); }
};

/// A PNG image of at most so many pixels; the stream is at its beginning.
Result<Surface> read_png(std::istream& file, std::size_t most);

/// How opaque a picture is that is drawn by a map: see `DisplayItem::map`.
Surface between_grays(cairo_surface_t* map, float from, float to, float softness);

/// A part of an image, its colors multiplied and then mixed with a tint.
Surface recolored(cairo_surface_t* image, const Rect& part, Color color, Color tint, float tint_part);

}  // namespace rapido
