// The interface through which a HUD finds images. Any image store can implement it.
#pragma once

#include <cstdint>
#include <string>
#include <vector>

#include "rapido/base/exported.hpp"
#include "rapido/base/problem.hpp"
#include "rapido/base/units.hpp"

namespace rapido RAPIDO_EXPORTED {

/// An image of one finder, by its number there.
using ImageId = std::uint32_t;

/// Finds the images that a HUD names. `rapido::Images` implements it over a folder of PNG files; a game with images of its
/// own implements it over those.
class ImageFinder {
 public:
    virtual ~ImageFinder() = default;

    /// Returns the image for a name as it is written in the HUD, or a problem. A HUD calls it while it is made and when an
    /// element is added, never in a frame.
    virtual Result<ImageId> find(const std::string& name) = 0;
    /// Returns the size of an image in its own pixels.
    virtual Size size(ImageId image) const = 0;
    /// Returns the pixels of an image, for a renderer that uploads them: row by row from the top, as many as `size` says, each of four
    /// bytes, red, green, blue and alpha, multiplied by the alpha. A finder whose renderer has them already gives nothing.
    virtual std::vector<std::uint8_t> pixels(ImageId /*image*/) const { return {}; }
    /// Returns the average opacity, 0 to 1, of each row of a part of an image from the top down, or of each column from left
    /// to right. A level that is filled by area asks for it.
    /// Where nothing is given, all count as equal; `Images` gives nothing after it has looked at 256 million pixels, or has
    /// given two million numbers.
    virtual std::vector<float> opacity(ImageId /*image*/, const Rect& /*part*/, bool /*of_columns*/) const {
        return {};
    }
};

}  // namespace rapido
