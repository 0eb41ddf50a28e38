// The scene behind the sample HUD: ridges at dusk, a bright sky at one end and smoke at the other, because a
// HUD that reads well on a flat color proves nothing. Usage: ember_ridge_scene FILE.png
#include <cairo.h>

#include <array>
#include <cmath>
#include <iostream>
#include <numbers>
#include <random>
#include <vector>

namespace {

constexpr double width = 2560;
constexpr double height = 1440;

struct Tint {
    double red, green, blue, alpha = 1;
};

Tint mix(Tint a, Tint b, double part) {
    return {a.red + (b.red - a.red) * part, a.green + (b.green - a.green) * part, a.blue + (b.blue - a.blue) * part,
            a.alpha + (b.alpha - a.alpha) * part};
}

void add_stop(cairo_pattern_t* pattern, double at, Tint tint) {
    cairo_pattern_add_color_stop_rgba(pattern, at, tint.red, tint.green, tint.blue, tint.alpha);
}

void paint(cairo_t* context, cairo_pattern_t* pattern) {
    cairo_set_source(context, pattern);
    cairo_paint(context);
    cairo_pattern_destroy(pattern);
}

void glow(cairo_t* context, double x, double y, double radius, Tint tint) {
    cairo_pattern_t* pattern = cairo_pattern_create_radial(x, y, 0, x, y, radius);
    add_stop(pattern, 0, tint);
    add_stop(pattern, 0.35, {tint.red, tint.green, tint.blue, tint.alpha * 0.45});
    add_stop(pattern, 1, {tint.red, tint.green, tint.blue, 0});
    paint(context, pattern);
}

/// The height of a ridge line at x: a few waves of falling size.
double ridge_line(double x, double base, double rise, double seed) {
    double y = 0;
    double size = 1;
    double length = 900;
    for (int octave = 0; octave < 7; ++octave) {
        y += size * std::sin(x / length * 2 * std::numbers::pi + seed * (octave + 1) * 1.7);
        size *= 0.52;
        length *= 0.47;
    }
    return base - rise * y;
}

void draw_sky(cairo_t* context) {
    cairo_pattern_t* sky = cairo_pattern_create_linear(0, 0, 0, height * 0.72);
    add_stop(sky, 0.0, {0.13, 0.19, 0.33});
    add_stop(sky, 0.45, {0.42, 0.36, 0.46});
    add_stop(sky, 0.78, {0.93, 0.55, 0.36});
    add_stop(sky, 1.0, {1.0, 0.80, 0.52});
    paint(context, sky);
    glow(context, width * 0.80, height * 0.46, 1100, {1.0, 0.86, 0.58, 0.95});
    glow(context, width * 0.80, height * 0.46, 190, {1.0, 0.98, 0.90, 1.0});
}

void draw_smoke(cairo_t* context, std::mt19937& random) {
    const auto unit = [&] { return static_cast<double>(random() % 10000) / 10000; };
    for (int i = 0; i < 150; ++i) {
        const double rise = unit();
        const double x = width * (0.10 + 0.16 * rise + 0.10 * (unit() - 0.5));
        const double y = height * (0.58 - 0.62 * rise);
        const double shade = 0.10 + 0.16 * unit();
        glow(context, x, y, 120 + 330 * rise, {shade + 0.06 * (1 - rise), shade, shade * 1.05, 0.22});
    }
}

void draw_ridge(cairo_t* context, double base, double rise, double seed, Tint top, Tint bottom) {
    cairo_move_to(context, 0, height);
    for (double x = 0; x <= width; x += 4)
        cairo_line_to(context, x, ridge_line(x, base, rise, seed));
    cairo_line_to(context, width, height);
    cairo_close_path(context);
    cairo_pattern_t* slope = cairo_pattern_create_linear(0, base - rise * 1.6, 0, base + rise * 3.2);
    add_stop(slope, 0, top);
    add_stop(slope, 1, bottom);
    cairo_set_source(context, slope);
    cairo_fill(context);
    cairo_pattern_destroy(slope);
}

void draw_trees(cairo_t* context, double base, double rise, double seed, Tint tint, double size, std::mt19937& random) {
    cairo_set_source_rgb(context, tint.red, tint.green, tint.blue);
    for (double x = 0; x < width; x += size * 0.32) {
        const double tall = size * (0.6 + static_cast<double>(random() % 1000) / 1000);
        const double y = ridge_line(x, base, rise, seed) + size * 0.2;
        cairo_move_to(context, x - size * 0.2, y);
        cairo_line_to(context, x, y - tall);
        cairo_line_to(context, x + size * 0.2, y);
        cairo_close_path(context);
    }
    cairo_fill(context);
}

void draw_fires(cairo_t* context, double base, double rise, double seed, std::mt19937& random) {
    for (int i = 0; i < 60; ++i) {
        const double x = width * (0.02 + 0.34 * static_cast<double>(random() % 1000) / 1000);
        const double y = ridge_line(x, base, rise, seed) + 6;
        glow(context, x, y, 40 + static_cast<double>(random() % 60), {1.0, 0.42, 0.14, 0.5});
        glow(context, x, y, 10 + static_cast<double>(random() % 12), {1.0, 0.85, 0.45, 0.9});
    }
}

void draw_embers(cairo_t* context, std::mt19937& random) {
    for (int i = 0; i < 160; ++i) {
        const double x = width * 0.55 * static_cast<double>(random() % 1000) / 1000;
        const double y = height * (0.10 + 0.60 * static_cast<double>(random() % 1000) / 1000);
        const double radius = 1.0 + static_cast<double>(random() % 100) / 60;
        cairo_set_source_rgba(context, 1.0, 0.55, 0.25, 0.35 + static_cast<double>(random() % 60) / 100);
        cairo_arc(context, x, y, radius, 0, 2 * std::numbers::pi);
        cairo_fill(context);
    }
}

void draw_lake(cairo_t* context) {
    const double top = height * 0.80;
    cairo_rectangle(context, 0, top, width, height - top);
    cairo_pattern_t* water = cairo_pattern_create_linear(0, top, 0, height);
    add_stop(water, 0, {0.62, 0.45, 0.40});
    add_stop(water, 0.35, {0.25, 0.27, 0.36});
    add_stop(water, 1, {0.07, 0.10, 0.15});
    cairo_set_source(context, water);
    cairo_fill(context);
    cairo_pattern_destroy(water);
    for (int i = 0; i < 90; ++i) {
        const double y = top + 4 + std::pow(i / 90.0, 1.6) * (height - top);
        const double half = 60 + i * 3.2 + 40 * std::sin(i * 2.1);
        cairo_rectangle(context, width * 0.80 - half + 30 * std::sin(i * 1.3), y, 2 * half, 1.5 + i * 0.03);
        cairo_set_source_rgba(context, 1.0, 0.82, 0.58, 0.34 * (1 - i / 100.0));
        cairo_fill(context);
    }
}

/// The water-bomber from behind: two floats, high wings, two engines, a tail.
void draw_plane(cairo_t* context, double x, double y, double size) {
    cairo_save(context);
    cairo_translate(context, x, y);
    cairo_rotate(context, -0.09);
    cairo_scale(context, size, size);
    const auto fill = [&](Tint tint) {
        cairo_set_source_rgba(context, tint.red, tint.green, tint.blue, tint.alpha);
        cairo_fill(context);
    };
    const auto ellipse = [&](double cx, double cy, double rx, double ry) {
        cairo_save(context);
        cairo_translate(context, cx, cy);
        cairo_scale(context, rx, ry);
        cairo_arc(context, 0, 0, 1, 0, 2 * std::numbers::pi);
        cairo_restore(context);
    };
    const Tint body{0.74, 0.23, 0.13};
    const Tint dark{0.20, 0.10, 0.10};
    for (const double side : {-1.0, 1.0}) {
        cairo_move_to(context, side * 0.06, -0.10);
        cairo_line_to(context, side * 1.02, -0.17);
        cairo_line_to(context, side * 1.06, -0.145);
        cairo_line_to(context, side * 1.00, -0.125);
        cairo_line_to(context, side * 0.06, -0.02);
        cairo_close_path(context);
        fill(mix(body, {1, 0.75, 0.5}, side > 0 ? 0.35 : 0.0));
        cairo_rectangle(context, side * 0.22 - 0.012, -0.05, 0.024, 0.24);
        fill(dark);
        ellipse(side * 0.22, 0.21, 0.055, 0.035);
        fill(dark);
        ellipse(side * 0.36, -0.10, 0.06, 0.055);
        fill(mix(dark, body, 0.25));
        ellipse(side * 0.36, -0.10, 0.035, 0.032);
        fill({0.08, 0.05, 0.06});
    }
    ellipse(0, 0.02, 0.125, 0.15);
    fill(body);
    ellipse(0.03, -0.02, 0.075, 0.09);
    fill(mix(body, {1, 0.75, 0.5}, 0.25));
    cairo_move_to(context, -0.02, -0.05);
    cairo_line_to(context, -0.012, -0.40);
    cairo_line_to(context, 0.012, -0.40);
    cairo_line_to(context, 0.02, -0.05);
    cairo_close_path(context);
    fill(dark);
    cairo_rectangle(context, -0.30, -0.385, 0.60, 0.026);
    fill(mix(body, dark, 0.4));
    cairo_restore(context);
}

}  // namespace

int main(int count, char** arguments) {
    if (count != 2) {
        std::cerr << "usage: ember_ridge_scene FILE.png\n";
        return 2;
    }
    std::mt19937 random(7);
    cairo_surface_t* surface =
        cairo_image_surface_create(CAIRO_FORMAT_RGB24, static_cast<int>(width), static_cast<int>(height));
    cairo_t* context = cairo_create(surface);

    draw_sky(context);
    const Tint haze{0.86, 0.56, 0.44};
    const Tint night{0.09, 0.10, 0.15};
    draw_ridge(context, height * 0.56, 46, 1.0, mix(haze, night, 0.30), haze);
    draw_ridge(context, height * 0.61, 60, 2.3, mix(haze, night, 0.52), mix(haze, night, 0.25));
    draw_smoke(context, random);
    draw_ridge(context, height * 0.67, 58, 4.1, mix(haze, night, 0.72), mix(haze, night, 0.42));
    draw_fires(context, height * 0.67, 58, 4.1, random);
    draw_ridge(context, height * 0.735, 44, 5.7, mix(haze, night, 0.86), mix(haze, night, 0.66));
    draw_trees(context, height * 0.735, 44, 5.7, mix(haze, night, 0.87), 15, random);
    draw_lake(context);
    draw_plane(context, width * 0.5, height * 0.60, 330);
    draw_ridge(context, height * 1.01, 70, 8.4, night, {0.03, 0.04, 0.06});
    draw_trees(context, height * 1.01, 70, 8.4, mix(night, {0, 0, 0}, 0.35), 64, random);
    draw_embers(context, random);

    const cairo_status_t status = cairo_surface_write_to_png(surface, arguments[1]);
    cairo_destroy(context);
    cairo_surface_destroy(surface);
    if (status != CAIRO_STATUS_SUCCESS)
        std::cerr << arguments[1] << ": error: " << cairo_status_to_string(status) << '\n';
    return status == CAIRO_STATUS_SUCCESS ? 0 : 1;
}
