// Cairo's objects with owners.
#pragma once

#include <cairo.h>

#include "render/fonts/owner.hpp"

namespace rapido {

using Surface = std::unique_ptr<cairo_surface_t, Destroyer<cairo_surface_t, cairo_surface_destroy>>;
using Context = std::unique_ptr<cairo_t, Destroyer<cairo_t, cairo_destroy>>;
using Pattern = std::unique_ptr<cairo_pattern_t, Destroyer<cairo_pattern_t, cairo_pattern_destroy>>;
using FontFace = std::unique_ptr<cairo_font_face_t, Destroyer<cairo_font_face_t, cairo_font_face_destroy>>;

}  // namespace rapido
