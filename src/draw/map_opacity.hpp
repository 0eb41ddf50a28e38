// How far a pixel of an image is drawn by its map.
#pragma once

#include <algorithm>

#include "rapido/base/exported.hpp"

namespace rapido RAPIDO_EXPORTED {

/// See `DisplayItem::has_map`: 0 to 1, by the gray of the map, 0 to 1. At the ends all of it is drawn, or nothing, also without a soft edge.
inline float map_opacity(float gray, float from, float to, float softness) {
    // A hair at least, so that there is something to divide by.
    const float edge = std::max(softness, 1e-6F);
    const auto limited = [](float part) { return std::clamp(part, 0.0F, 1.0F); };
    const float below = to >= 1 + softness / 2 ? 1 : limited((to - gray) / edge + 0.5F);
    const float above = from <= -softness / 2 ? 1 : limited((gray - from) / edge + 0.5F);
    return below * above;
}

}  // namespace rapido
