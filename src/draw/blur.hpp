// Soft edges: shadows and light, for renderers.
#pragma once

#include <cstddef>
#include <cstdint>

#include "rapido/base/exported.hpp"

namespace rapido RAPIDO_EXPORTED {

/// How far a blur of this radius reaches beyond what it blurs, in pixels.
int blur_reach(float radius);

/// Blurs opacities, a byte each, by three box blurs one after the other, which are within three percent of the Gaussian with a standard
/// deviation of half the radius (SVG 1.1, 15.17).
void blur_opacity(std::uint8_t* pixels, int columns, int rows, std::ptrdiff_t stride, float radius);

}  // namespace rapido
