// Whole pixels.
#pragma once

#include "rapido/base/exported.hpp"

namespace rapido RAPIDO_EXPORTED {

/// A rectangle of whole pixels, y down.
struct PixelRect {
    int x = 0, y = 0, width = 0, height = 0;
    bool is_empty() const { return width <= 0 || height <= 0; }
    friend bool operator==(const PixelRect&, const PixelRect&) = default;
};

}  // namespace rapido
