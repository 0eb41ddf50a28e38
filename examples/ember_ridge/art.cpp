// The small pictures of the sample HUD, of the gallery and of the looks: badges, an ember that flickers, a riveted frame, a jar,
// a drop of a few pixels.
// Usage: ember_ridge_art FOLDER_OF_THE_HUD FOLDER_OF_THE_GALLERY FOLDER_OF_THE_LOOKS
#include <cairo.h>

#include <algorithm>
#include <cmath>
#include <cstdint>
#include <functional>
#include <iostream>
#include <numbers>
#include <string>
#include <string_view>

namespace {

struct Tint {
    double red, green, blue, alpha = 1;
};
constexpr Tint bone{0.949, 0.937, 0.902};
constexpr Tint amber{1, 0.761, 0.290};
constexpr Tint orange{1, 0.478, 0.235};
constexpr Tint slate{0.063, 0.086, 0.110};

void use(cairo_t* on, Tint tint) {
    cairo_set_source_rgba(on, tint.red, tint.green, tint.blue, tint.alpha);
}

bool draw_file(const std::string& path, int width, int height, const std::function<void(cairo_t*)>& draw) {
    cairo_surface_t* const surface = cairo_image_surface_create(CAIRO_FORMAT_ARGB32, width, height);
    cairo_t* const on = cairo_create(surface);
    draw(on);
    const bool written = cairo_surface_write_to_png(surface, path.c_str()) == CAIRO_STATUS_SUCCESS;
    cairo_destroy(on);
    cairo_surface_destroy(surface);
    if (!written) std::cerr << "cannot write " << path << '\n';
    return written;
}

/// A shield with as many chevrons.
void badge(cairo_t* on, int chevrons) {
    cairo_move_to(on, 40, 76);
    cairo_curve_to(on, 18, 66, 12, 52, 12, 32);
    cairo_line_to(on, 12, 10);
    cairo_curve_to(on, 24, 12, 32, 9, 40, 4);
    cairo_curve_to(on, 48, 9, 56, 12, 68, 10);
    cairo_line_to(on, 68, 32);
    cairo_curve_to(on, 68, 52, 62, 66, 40, 76);
    cairo_close_path(on);
    use(on, {0.16, 0.21, 0.26});
    cairo_fill_preserve(on);
    use(on, bone);
    cairo_set_line_width(on, 4);
    cairo_set_line_join(on, CAIRO_LINE_JOIN_ROUND);
    cairo_stroke(on);
    cairo_set_line_width(on, 7);
    cairo_set_line_cap(on, CAIRO_LINE_CAP_ROUND);
    for (int i = 0; i < chevrons; ++i) {
        const double y = 40 + 8 * (chevrons - 1) - i * 17;
        use(on, i == 0 ? orange : amber);
        cairo_move_to(on, 26, y + 6);
        cairo_line_to(on, 40, y - 6);
        cairo_line_to(on, 54, y + 6);
        cairo_stroke(on);
    }
}

/// One of the frames of a small flame.
void ember(cairo_t* on, double x, double turn) {
    const auto flame = [&](double size, double sway, Tint tint) {
        const double lean = std::sin(turn + size) * sway;
        const double tall = 50 * size * (1 + 0.07 * std::cos(turn * 2 + size * 3));
        cairo_new_path(on);
        cairo_move_to(on, x + 32 + lean, 60 - tall);
        cairo_curve_to(on, x + 32 + 26 * size + lean / 2, 60 - tall * 0.45, x + 32 + 22 * size, 60, x + 32, 60);
        cairo_curve_to(on, x + 32 - 22 * size, 60, x + 32 - 26 * size + lean / 2, 60 - tall * 0.4, x + 32 + lean,
                       60 - tall);
        use(on, tint);
        cairo_fill(on);
    };
    flame(1, 7, orange);
    flame(0.68, 5, amber);
    flame(0.34, 3, bone);
}

/// Thick lines with rivets in the corners: nine parts of 16 pixels' margin.
void frame(cairo_t* on) {
    use(on, {slate.red, slate.green, slate.blue, 0.85});
    cairo_rectangle(on, 3, 3, 58, 58);
    cairo_fill(on);
    use(on, {0.55, 0.50, 0.44});
    cairo_set_line_width(on, 3);
    cairo_rectangle(on, 4.5, 4.5, 55, 55);
    cairo_stroke(on);
    for (const double x : {8.0, 56.0})
        for (const double y : {8.0, 56.0}) {
            use(on, {0.30, 0.27, 0.24});
            cairo_arc(on, x, y, 7, 0, 2 * std::numbers::pi);
            cairo_fill(on);
            use(on, amber);
            cairo_arc(on, x, y, 3.2, 0, 2 * std::numbers::pi);
            cairo_fill(on);
        }
}

void jar_path(cairo_t* on) {
    cairo_new_path(on);
    cairo_move_to(on, 30, 22);
    cairo_curve_to(on, 6, 40, 6, 50, 6, 60);
    cairo_line_to(on, 6, 104);
    cairo_curve_to(on, 6, 122, 14, 124, 24, 124);
    cairo_line_to(on, 72, 124);
    cairo_curve_to(on, 82, 124, 90, 122, 90, 104);
    cairo_line_to(on, 90, 60);
    cairo_curve_to(on, 90, 50, 90, 40, 66, 22);
    cairo_close_path(on);
}

/// A jar, empty or full of honey.
void jar(cairo_t* on, bool full) {
    jar_path(on);
    if (full) {
        cairo_pattern_t* const honey = cairo_pattern_create_linear(0, 22, 0, 124);
        cairo_pattern_add_color_stop_rgb(honey, 0, 1, 0.83, 0.42);
        cairo_pattern_add_color_stop_rgb(honey, 1, 0.85, 0.42, 0.10);
        cairo_set_source(on, honey);
        cairo_fill_preserve(on);
        cairo_pattern_destroy(honey);
    } else {
        use(on, {0, 0, 0, 0.45});
        cairo_fill_preserve(on);
    }
    use(on, {bone.red, bone.green, bone.blue, full ? 0.95 : 0.7});
    cairo_set_line_width(on, 4);
    cairo_stroke(on);
    use(on, full ? bone : Tint{0.6, 0.6, 0.6});
    cairo_rectangle(on, 26, 6, 44, 14);
    cairo_fill(on);
    use(on, {1, 1, 1, full ? 0.35 : 0.12});
    cairo_rectangle(on, 16, 52, 8, 52);
    cairo_fill(on);
}

/// White where it is: a leaf.
void leaf(cairo_t* on) {
    cairo_move_to(on, 48, 4);
    cairo_curve_to(on, 96, 40, 84, 92, 48, 112);
    cairo_curve_to(on, 12, 92, 0, 40, 48, 4);
    use(on, {1, 1, 1});
    cairo_fill(on);
    cairo_set_line_width(on, 5);
    cairo_move_to(on, 48, 108);
    cairo_line_to(on, 48, 124);
    cairo_stroke(on);
}

/// One square for each character that has a color.
void pixels(cairo_t* on, std::initializer_list<std::string_view> rows,
            const std::function<const Tint*(char)>& tint_of) {
    cairo_set_antialias(on, CAIRO_ANTIALIAS_NONE);
    int y = 0;
    for (const std::string_view row : rows) {
        for (std::size_t x = 0; x < row.size(); ++x)
            if (const Tint* const tint = tint_of(row[x])) {
                use(on, *tint);
                cairo_rectangle(on, static_cast<double>(x), y, 1, 1);
                cairo_fill(on);
            }
        ++y;
    }
}

void pixel_drop(cairo_t* on, Tint body, Tint light) {
    constexpr Tint edge{0.20, 0.13, 0.10};
    pixels(on, {"....#....", "...#o#...", "..#ooo#..", ".#ooooo#.", "#owooooo#", "#owooooo#", ".#ooooo#.", "..#####.."},
           [&](char c) {
               return c == '#' ? &edge : c == 'o' ? &body : c == 'w' ? &light : nullptr;
           });
}

/// A plate of fired clay: corners with a notch of two steps, light from above, and a few grains; its middle is stretched.
void pixel_plate(cairo_t* on) {
    cairo_set_antialias(on, CAIRO_ANTIALIAS_NONE);
    constexpr Tint dark{0.24, 0.13, 0.09}, light{0.86, 0.58, 0.42}, shade{0.42, 0.23, 0.16}, inside{0.34, 0.18, 0.13};
    const auto is_outside = [](int x, int y) {
        const int across = std::min(x, 15 - x), down = std::min(y, 15 - y);
        return std::min(across, down) < 0 || (across < 2 && down < 2) || (across < 3 && down < 1) ||
               (across < 1 && down < 3);
    };
    for (int y = 0; y < 16; ++y)
        for (int x = 0; x < 16; ++x) {
            if (is_outside(x, y)) continue;
            const auto touches = [&](int reach) {
                return is_outside(x - reach, y) || is_outside(x + reach, y) || is_outside(x, y - reach) ||
                       is_outside(x, y + reach);
            };
            const bool is_lit = is_outside(x, y - 2) || is_outside(x - 2, y);
            use(on, touches(1) ? dark : touches(2) ? (is_lit ? light : shade) : inside);
            cairo_rectangle(on, x, y, 1, 1);
            cairo_fill(on);
        }
}

/// A way of two turns outwards, gray by how far along it each pixel is: a map for a level.
void spiral(cairo_t* on, int size) {
    cairo_surface_t* const surface = cairo_get_target(on);
    cairo_surface_flush(surface);
    unsigned char* const pixels = cairo_image_surface_get_data(surface);
    const int stride = cairo_image_surface_get_stride(surface);
    constexpr double turns = 2.25, full = turns * 2 * std::numbers::pi;
    const double middle = (size - 1) / 2.0, first = size * 0.1, grows = size * 0.36 / full, half = size * 0.06;
    for (int y = 0; y < size; ++y)
        for (int x = 0; x < size; ++x) {
            const double away = std::hypot(x - middle, y - middle);
            double turn = std::atan2(x - middle, middle - y);
            if (turn < 0) turn += 2 * std::numbers::pi;
            double nearest = 1e9, along = 0;
            for (; turn <= full; turn += 2 * std::numbers::pi)
                if (const double off = std::abs(away - first - grows * turn); off < nearest) {
                    nearest = off;
                    along = turn / full;
                }
            const double alpha = std::clamp(half - nearest + 0.5, 0.0, 1.0);
            const auto opaque = static_cast<std::uint32_t>(std::lround(alpha * 255));
            const auto gray = static_cast<std::uint32_t>(std::lround(along * 255 * alpha));
            reinterpret_cast<std::uint32_t*>(pixels + static_cast<std::ptrdiff_t>(y) * stride)[x] =
                opaque << 24U | gray << 16U | gray << 8U | gray;
        }
    cairo_surface_mark_dirty(surface);
}

/// Terraces of limestone above a jade-green bay, for bars that a picture fills.
void terraces(cairo_t* on, double width, double height) {
    cairo_pattern_t* const bay = cairo_pattern_create_linear(0, 0, width, 0);
    cairo_pattern_add_color_stop_rgb(bay, 0, 0.05, 0.30, 0.29);
    cairo_pattern_add_color_stop_rgb(bay, 0.55, 0.16, 0.56, 0.50);
    cairo_pattern_add_color_stop_rgb(bay, 1, 0.72, 0.88, 0.80);
    cairo_set_source(on, bay);
    cairo_paint(on);
    cairo_pattern_destroy(bay);
    for (int level = 0; level < 3; ++level) {
        use(on, {0.91 - 0.13 * level, 0.87 - 0.14 * level, 0.78 - 0.15 * level});
        cairo_move_to(on, 0, height);
        double x = 0, y = height * (0.34 + 0.22 * level);
        for (int step = 0; x < width; ++step) {
            cairo_line_to(on, x, y);
            x += 14 + (step * 37 + level * 23) % 34;
            cairo_line_to(on, x, y);
            x += 3;
            y = height * (0.30 + 0.22 * level + 0.05 * ((step * 5 + level * 2) % 4));
        }
        cairo_line_to(on, width, height);
        cairo_fill(on);
    }
}

}  // namespace

int main(int count, char** arguments) {
    if (count != 4) {
        std::cerr << "usage: ember_ridge_art FOLDER_OF_THE_HUD FOLDER_OF_THE_GALLERY FOLDER_OF_THE_LOOKS\n";
        return 2;
    }
    const std::string hud = arguments[1], gallery = arguments[2], looks = arguments[3];
    constexpr int frames = 8;
    bool written = true;
    const auto draw = [&](const std::string& path, int width, int height, const std::function<void(cairo_t*)>& how) {
        written = draw_file(path, width, height, how) && written;
    };
    draw(hud + "/rank_1.png", 80, 80, [](cairo_t* on) { badge(on, 1); });
    draw(hud + "/rank_2.png", 80, 80, [](cairo_t* on) { badge(on, 2); });
    for (const std::string& folder : {hud, gallery})
        draw(folder + "/ember.png", 64 * frames, 64, [](cairo_t* on) {
            for (int i = 0; i < frames; ++i)
                ember(on, 64 * i, i * 2 * std::numbers::pi / frames);
        });
    draw(gallery + "/frame.png", 64, 64, frame);
    draw(gallery + "/jar.png", 96, 128, [](cairo_t* on) { jar(on, true); });
    draw(gallery + "/jar_empty.png", 96, 128, [](cairo_t* on) { jar(on, false); });
    draw(gallery + "/leaf.png", 96, 128, leaf);
    draw(looks + "/plate.png", 16, 16, pixel_plate);
    draw(looks + "/drop.png", 9, 8, [](cairo_t* on) { pixel_drop(on, {0.27, 0.70, 0.75}, {0.80, 0.95, 0.94}); });
    draw(looks + "/drop_empty.png", 9, 8, [](cairo_t* on) { pixel_drop(on, {0.43, 0.26, 0.19}, {0.52, 0.33, 0.25}); });
    draw(looks + "/spiral.png", 260, 260, [](cairo_t* on) { spiral(on, 260); });
    draw(looks + "/terraces.png", 432, 48, [](cairo_t* on) { terraces(on, 432, 48); });
    return written ? 0 : 1;
}
