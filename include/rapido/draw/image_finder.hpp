// What a HUD needs to know about images, and who knows it is not its business.
#pragma once

#include <cstdint>
#include <string>
#include <vector>

#include "rapido/base/problem.hpp"
#include "rapido/base/units.hpp"

namespace rapido {

/// An image of one finder, by its number there.
using ImageId = std::uint32_t;

/// Finds the images that a HUD names. `rapido::Images` is one, over a folder of PNG files; a game with images of its own
/// writes another.
class ImageFinder {
 public:
    virtual ~ImageFinder() = default;

    /// The image of a name, as it is written in the HUD; or what is wrong with it. Asked when a HUD is made, never in a
    /// frame.
    virtual Result<ImageId> find(const std::string& name) = 0;
    /// In pixels of the image.
    virtual Size size(ImageId image) const = 0;
    /// How opaque each row of a part of an image is on average, 0 to 1, from the top down; or each column from the left on.
    /// Where nothing is given, all count as equal; `Images` gives nothing after it has looked at 256 million pixels, or has
    /// given two million numbers.
    virtual std::vector<float> opacity(ImageId /*image*/, const Rect& /*part*/, bool /*of_columns*/) const {
        return {};
    }
};

}  // namespace rapido
