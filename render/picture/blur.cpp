#include "render/picture/blur.hpp"

namespace rapido {

void blur_opacity(cairo_surface_t* surface, float radius) {
    cairo_surface_flush(surface);
    blur_opacity(cairo_image_surface_get_data(surface), cairo_image_surface_get_width(surface),
                 cairo_image_surface_get_height(surface), cairo_image_surface_get_stride(surface), radius);
    cairo_surface_mark_dirty(surface);
}

}  // namespace rapido
