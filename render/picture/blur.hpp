// Soft edges: shadows and light.
#pragma once

#include "render/picture/cairo_types.hpp"

namespace rapido {

/// How far a blur of this radius reaches beyond what it blurs, in pixels.
int blur_reach(float radius);

/// Blurs a picture of opacities (`CAIRO_FORMAT_A8`) by three box blurs one after the other, which are within three percent of
/// the Gaussian with a standard deviation of half the radius (SVG 1.1, 15.17).
void blur_opacity(cairo_surface_t* surface, float radius);

}  // namespace rapido
