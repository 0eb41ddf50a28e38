// Blurs of the pictures of Cairo.
#pragma once

#include "draw/blur.hpp"
#include "render/picture/cairo_types.hpp"

namespace rapido {

/// Blurs a picture of opacities (`CAIRO_FORMAT_A8`).
void blur_opacity(cairo_surface_t* surface, float radius);

}  // namespace rapido
