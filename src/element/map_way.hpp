// The way along which a map is filled.
#pragma once

#include <array>

#include "rapido/draw/image_finder.hpp"

namespace rapido {

/// Where a fill ends that follows a gray image: the middle of the pixels that are reached at each part of it.
class MapWay {
 public:
    /// An image whose pixels are not known has its way from the middle of the left edge to that of the right one.
    MapWay(ImageId map, const ImageFinder& images);

    struct Place {
        Point at;            ///< parts of the image
        float rotation = 0;  ///< degrees clockwise from the way to the right, on an image of the size that is asked for
    };
    Place at(double fill, Size size) const;

 private:
    static constexpr int steps = 64;
    std::array<Point, steps + 1> points_{};
};

}  // namespace rapido
