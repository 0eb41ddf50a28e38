#include "backdrop.hpp"

#include <cairo.h>
#include <algorithm>
#include <cmath>
#include <optional>
#include <utility>

namespace example {
namespace {

using Vector = std::array<float, 3>;

Vector minus(const Vector& a, const Vector& b) {
    return {a[0] - b[0], a[1] - b[1], a[2] - b[2]};
}
float dot(const Vector& a, const Vector& b) {
    return a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
}
Vector unit(const Vector& a) {
    const float length = std::sqrt(dot(a, a));
    return {a[0] / length, a[1] / length, a[2] / length};
}
Vector cross(const Vector& a, const Vector& b) {
    return {a[1] * b[2] - a[2] * b[1], a[2] * b[0] - a[0] * b[2], a[0] * b[1] - a[1] * b[0]};
}

struct Seen {
    double x, y, distance;
};
std::optional<Seen> project(const std::array<float, 16>& m, const Vector& at, int width, int height) {
    std::array<double, 4> clip{};
    for (std::size_t row = 0; row < 4; ++row)
        clip[row] = static_cast<double>(m[row] * at[0] + m[row + 4] * at[1] + m[row + 8] * at[2] + m[row + 12]);
    if (clip[3] < 1) return std::nullopt;
    return Seen{(clip[0] / clip[3] + 1) / 2 * width, (1 - clip[1] / clip[3]) / 2 * height, clip[3]};
}

void draw_sky_and_ridges(cairo_t* context, const std::array<float, 16>& matrix, int width, int height) {
    // Far away on the ground along the middle of the view, so that the horizon is where it belongs.
    double horizon = height * 0.4;
    for (float way = 0; way < 6.28F; way += 0.02F)
        if (const auto far = project(matrix, {9000 * std::cos(way), 0, 9000 * std::sin(way)}, width, height))
            if (far->x > 0 && far->x < width) horizon = far->y;
    cairo_pattern_t* sky = cairo_pattern_create_linear(0, 0, 0, std::max(1.0, horizon));
    cairo_pattern_add_color_stop_rgb(sky, 0, 0.72, 0.76, 0.79);
    cairo_pattern_add_color_stop_rgb(sky, 0.7, 0.85, 0.87, 0.87);
    cairo_pattern_add_color_stop_rgb(sky, 1, 0.95, 0.95, 0.92);
    cairo_set_source(context, sky);
    cairo_paint(context);
    cairo_pattern_destroy(sky);
    cairo_pattern_t* ground = cairo_pattern_create_linear(0, horizon, 0, height);
    cairo_pattern_add_color_stop_rgb(ground, 0, 0.78, 0.77, 0.70);
    cairo_pattern_add_color_stop_rgb(ground, 0.25, 0.62, 0.62, 0.49);
    cairo_pattern_add_color_stop_rgb(ground, 1, 0.43, 0.47, 0.33);
    cairo_rectangle(context, 0, horizon, width, height - horizon);
    cairo_set_source(context, ground);
    cairo_fill(context);
    cairo_pattern_destroy(ground);
    for (int layer = 0; layer < 2; ++layer) {
        cairo_move_to(context, 0, horizon);
        for (int x = 0; x <= width; x += 4) {
            const double at = x * 0.013 + layer * 2.1;
            // Terraces: steps with a slope between them.
            const double steps = 2 + 1.1 * std::sin(at) + 0.8 * std::sin(at * 2.7 + 1), whole = std::floor(steps);
            const double high = (16 - layer * 6) * (whole + std::clamp((steps - whole - 0.8) / 0.2, 0.0, 1.0));
            cairo_line_to(context, x, horizon - std::max(0.0, high));
        }
        cairo_line_to(context, width, horizon);
        cairo_close_path(context);
        cairo_set_source_rgb(context, 0.86 - layer * 0.04, 0.85 - layer * 0.06, 0.80 - layer * 0.09);
        cairo_fill(context);
    }
}

void draw_paths(cairo_t* context, const std::array<float, 16>& matrix, int width, int height) {
    cairo_set_line_width(context, 1);
    for (int i = -12; i <= 12; ++i)
        for (const bool along : {true, false}) {
            bool begun = false;
            for (int j = -60; j <= 60; ++j) {
                const float a = static_cast<float>(i) * 60, b = static_cast<float>(j) * 12;
                const auto seen = project(matrix, along ? Vector{a, 0, b} : Vector{b, 0, a}, width, height);
                if (!seen || seen->distance > 900) {
                    begun = false;
                    continue;
                }
                begun ? cairo_line_to(context, seen->x, seen->y) : cairo_move_to(context, seen->x, seen->y);
                begun = true;
            }
            cairo_set_source_rgba(context, 0.98, 0.97, 0.90, 0.16);
            cairo_stroke(context);
        }
}

void draw_fire(cairo_t* context, const Seen& at, float heat) {
    const double size = (3 + 11 * static_cast<double>(heat)) * 320 / at.distance;
    cairo_pattern_t* glow = cairo_pattern_create_radial(at.x, at.y - size * 0.5, 0, at.x, at.y - size * 0.5, size * 2);
    cairo_pattern_add_color_stop_rgba(glow, 0, 1, 0.86, 0.45, 0.95);
    cairo_pattern_add_color_stop_rgba(glow, 0.25, 1, 0.48, 0.16, 0.8);
    cairo_pattern_add_color_stop_rgba(glow, 1, 1, 0.3, 0.1, 0);
    cairo_set_source(context, glow);
    cairo_arc(context, at.x, at.y - size * 0.5, size * 2, 0, 6.2832);
    cairo_fill(context);
    cairo_pattern_destroy(glow);
}

void draw_houses(cairo_t* context, const Seen& at) {
    const double size = 14 * 320 / at.distance;
    for (const double aside : {-1.1, 0.0, 0.9}) {
        const double x = at.x + aside * size, high = size * (aside == 0 ? 0.9 : 0.65);
        cairo_set_source_rgb(context, 0.95, 0.94, 0.90);
        cairo_rectangle(context, x - size * 0.4, at.y - high * 0.6, size * 0.8, high * 0.6);
        cairo_fill(context);
        cairo_move_to(context, x - size * 0.5, at.y - high * 0.6);
        cairo_line_to(context, x, at.y - high * 1.15);
        cairo_line_to(context, x + size * 0.5, at.y - high * 0.6);
        cairo_set_source_rgb(context, 0.74, 0.46, 0.33);
        cairo_fill(context);
    }
}

}  // namespace

std::array<float, 16> looking(const std::array<float, 3>& from, const std::array<float, 3>& to, float degrees,
                              float aspect) {
    const Vector back = unit(minus(from, to)), right = unit(cross({0, 1, 0}, back)), up = cross(back, right);
    const float f = 1 / std::tan(degrees * 3.14159265F / 360), near = 1, far = 10000;
    const std::array<std::array<float, 4>, 3> view{{{right[0], right[1], right[2], -dot(right, from)},
                                                    {up[0], up[1], up[2], -dot(up, from)},
                                                    {back[0], back[1], back[2], -dot(back, from)}}};
    std::array<float, 16> matrix{};
    for (std::size_t column = 0; column < 4; ++column) {
        matrix[column * 4] = f / aspect * view[0][column];
        matrix[column * 4 + 1] = f * view[1][column];
        matrix[column * 4 + 2] = (far + near) / (near - far) * view[2][column];
        matrix[column * 4 + 3] = -view[2][column];
    }
    matrix[14] += 2 * far * near / (near - far);
    return matrix;
}

void draw_backdrop(const std::string& file, const std::array<float, 16>& matrix, const std::vector<Spot>& spots,
                   int width, int height) {
    cairo_surface_t* surface = cairo_image_surface_create(CAIRO_FORMAT_RGB24, width, height);
    cairo_t* context = cairo_create(surface);
    draw_sky_and_ridges(context, matrix, width, height);
    draw_paths(context, matrix, width, height);
    std::vector<std::pair<Seen, const Spot*>> seen;
    for (const Spot& spot : spots)
        if (const auto at = project(matrix, spot.at, width, height)) seen.emplace_back(*at, &spot);
    std::sort(seen.begin(), seen.end(),
              [](const auto& a, const auto& b) { return a.first.distance > b.first.distance; });
    for (const auto& [at, spot] : seen) {
        if (spot->is_village)
            draw_houses(context, at);
        else if (spot->heat > 0)
            draw_fire(context, at, spot->heat);
    }
    cairo_destroy(context);
    cairo_surface_write_to_png(surface, file.c_str());
    cairo_surface_destroy(surface);
}

}  // namespace example
