// The scene behind the sample HUD: an overcast noon over limestone terraces and a jade-green bay, with a column of smoke. It is bright nearly
// everywhere and dark at one end, because a HUD that reads well on a flat color proves nothing. Usage: ember_ridge_scene FILE.png
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
constexpr double horizon = height * 0.53;
constexpr double full_turn = 2 * std::numbers::pi;

struct Tint {
    double red, green, blue, alpha = 1;
};
constexpr Tint limestone{0.90, 0.87, 0.79}, shaded_stone{0.66, 0.63, 0.57}, scrub{0.40, 0.45, 0.29},
    haze{0.85, 0.88, 0.88};
constexpr Tint white{0.97, 0.97, 0.95}, teal{0.05, 0.52, 0.54}, ember{1.0, 0.45, 0.14};

Tint mix(Tint a, Tint b, double part) {
    return {a.red + (b.red - a.red) * part, a.green + (b.green - a.green) * part, a.blue + (b.blue - a.blue) * part,
            a.alpha + (b.alpha - a.alpha) * part};
}

/// A painter with dice of its own.
class Painter {
 public:
    Painter(cairo_t* context, unsigned seed) : context_(context), random_(seed) {}

    double unit() { return static_cast<double>(random_() % 10000) / 10000; }
    double between(double low, double high) { return low + (high - low) * unit(); }

    void use(Tint tint) { cairo_set_source_rgba(context_, tint.red, tint.green, tint.blue, tint.alpha); }
    void fill(Tint tint) {
        use(tint);
        cairo_fill(context_);
    }
    /// Fills the path with a gradient from one height to another.
    void fill_down(double from, Tint top, double to, Tint bottom) {
        cairo_pattern_t* const pattern = cairo_pattern_create_linear(0, from, 0, to);
        add_stop(pattern, 0, top);
        add_stop(pattern, 1, bottom);
        cairo_set_source(context_, pattern);
        cairo_fill(context_);
        cairo_pattern_destroy(pattern);
    }
    void ellipse(double x, double y, double across, double down) {
        cairo_save(context_);
        cairo_translate(context_, x, y);
        cairo_scale(context_, across, down);
        cairo_arc(context_, 0, 0, 1, 0, full_turn);
        cairo_restore(context_);
    }
    /// A soft patch: opaque in the middle, and nothing at its edge.
    void patch(double x, double y, double across, double down, Tint tint) {
        cairo_save(context_);
        cairo_translate(context_, x, y);
        cairo_scale(context_, across, down);
        cairo_pattern_t* const pattern = cairo_pattern_create_radial(0, 0, 0, 0, 0, 1);
        add_stop(pattern, 0, tint);
        add_stop(pattern, 0.5, {tint.red, tint.green, tint.blue, tint.alpha * 0.5});
        add_stop(pattern, 1, {tint.red, tint.green, tint.blue, 0});
        cairo_set_source(context_, pattern);
        cairo_arc(context_, 0, 0, 1, 0, full_turn);
        cairo_fill(context_);
        cairo_pattern_destroy(pattern);
        cairo_restore(context_);
    }

 private:
    static void add_stop(cairo_pattern_t* pattern, double at, Tint tint) {
        cairo_pattern_add_color_stop_rgba(pattern, at, tint.red, tint.green, tint.blue, tint.alpha);
    }

 protected:
    cairo_t* context_;

 private:
    std::mt19937 random_;
};

/// Waves of falling size, about -1 to 1.
double rough(double x, double length, double seed) {
    double sum = 0, size = 0.55;
    for (int octave = 0; octave < 5; ++octave, size *= 0.55, length *= 0.46)
        sum += size * std::sin(x / length * full_turn + seed * (octave + 1) * 1.7);
    return sum;
}

class Scene : Painter {
 public:
    explicit Scene(cairo_t* context) : Painter(context, 11) {}

    void paint() {
        sky();
        // Far headlands, nearly as light as the sky.
        cliff({.from = width * 1.02,
               .to = width * 0.52,
               .top = horizon - 84,
               .bottom = horizon + 4,
               .levels = 2,
               .far = 0.72});
        cliff({.from = -60, .to = width * 0.44, .top = horizon - 130, .bottom = horizon + 6, .levels = 2, .far = 0.58});
        bay();
        cliff({.from = width * 1.03,
               .to = width * 0.78,
               .top = horizon - 260,
               .bottom = horizon + 120,
               .levels = 4,
               .far = 0.26});
        cliff(
            {.from = -80, .to = width * 0.27, .top = horizon - 240, .bottom = horizon + 150, .levels = 4, .far = 0.20});
        village(width * 0.83, horizon - 96);
        fires();
        smoke();
        flying_boat(width * 0.5, height * 0.56, 330);
        ledge();
    }

 private:
    struct Cliff {
        double from, to;  ///< from outside of the picture to its foot in the water
        double top, bottom;
        int levels;
        double far;  ///< how much of the haze lies before it, 0 to 1
    };

    void sky() {
        cairo_rectangle(context_, 0, 0, width, height);
        fill_down(0, {0.73, 0.77, 0.80}, horizon, {0.93, 0.93, 0.91});
        // Banks of cloud, flatter and closer together towards the horizon.
        for (int i = 0; i < 150; ++i) {
            const double down = std::pow(unit(), 0.8), y = horizon * 0.96 * down;
            const double across = between(180, 620) * (1.1 - 0.5 * down), light = between(0.70, 0.99);
            patch(between(-200, width + 200), y, across, across * (0.26 - 0.16 * down),
                  {light, light, light * 0.995, 0.20});
        }
    }

    void bay() {
        cairo_rectangle(context_, 0, horizon, width, height - horizon);
        fill_down(horizon, {0.67, 0.82, 0.76}, height, {0.09, 0.40, 0.36});
        for (int i = 0; i < 46; ++i) {
            const double down = unit();
            const double y = horizon + 14 + down * down * (height - horizon);
            patch(between(0, width), y, between(150, 520), 5 + 26 * down,
                  mix({0.86, 0.95, 0.90, 0.20}, {0.05, 0.30, 0.28, 0.22}, unit()));
        }
        // Ripples of the wind.
        for (int i = 0; i < 900; ++i) {
            const double down = unit(), y = horizon + 4 + std::pow(down, 1.7) * (height - horizon);
            const double long_by = between(8, 40) * (0.3 + 2 * down);
            cairo_rectangle(context_, between(-20, width), y, long_by, 0.8 + 1.8 * down);
            fill({0.93, 0.98, 0.94, 0.10 + 0.16 * unit()});
        }
    }

    /// What is seen of a cliff in the water, broken by ripples.
    void reflection(const Cliff& all) {
        const double deep = (all.bottom - all.top) * 0.55;
        for (double y = all.bottom; y < all.bottom + deep; y += 3) {
            const double part = (y - all.bottom) / deep,
                         end = all.to + (all.to > all.from ? 1 : -1) * 24 * rough(y, 46, all.top);
            cairo_rectangle(context_, std::min(all.from, end), y, std::abs(end - all.from), 2.2);
            fill({0.72, 0.76, 0.68, 0.42 * (1 - part) * (1 - all.far)});
        }
    }

    /// Terraces of limestone: the highest stands back, and scrub grows on each.
    void cliff(const Cliff& all) {
        if (all.bottom > horizon + 20) reflection(all);
        const double tall = (all.bottom - all.top) / all.levels, way = all.to > all.from ? 1 : -1;
        for (int level = 0; level < all.levels; ++level) {
            const double seed = all.top + level * 3.7, top = all.top + level * tall;
            const double back = (all.levels - 1 - level) * std::abs(all.to - all.from) * 0.17;
            const double end = all.to - way * back;
            const double grow = 1 - 0.75 * all.far;
            // A face: along its top, and down to the next terrace or the water.
            cairo_new_path(context_);
            cairo_move_to(context_, all.from, all.bottom);
            for (double x = all.from; way * (end - x) > 0; x += way * 6)
                cairo_line_to(context_, x, top + rough(x, 520, seed) * 26 * grow);
            cairo_line_to(context_, end, top + 12 * grow);
            for (double y = top + 12; y < all.bottom; y += 8)
                cairo_line_to(context_, end + way * ((y - top) * 0.16 + rough(y, 130, seed) * 20 * grow), y);
            cairo_line_to(context_, end + way * tall * 0.2, all.bottom);
            cairo_close_path(context_);
            cairo_path_t* const face = cairo_copy_path(context_);
            fill_down(top, mix(limestone, haze, all.far), top + tall * 1.9, mix(shaded_stone, haze, all.far));
            cairo_save(context_);
            cairo_append_path(context_, face);
            cairo_clip(context_);
            const double left = std::min(all.from, end), right = std::max(all.from, end) + tall;
            const Tint line = mix(shaded_stone, haze, all.far);
            for (int i = 0; i < static_cast<int>((right - left) / 7); ++i) {  // cracks
                const double x = between(left, right), y = top + between(0, tall),
                             down = between(tall * 0.1, tall * 0.6);
                cairo_move_to(context_, x, y);
                cairo_line_to(context_, x + between(-6, 6), y + down);
                use({line.red * 0.78, line.green * 0.77, line.blue * 0.75, 0.30});
                cairo_set_line_width(context_, between(0.8, 3.2) * grow);
                cairo_stroke(context_);
            }
            for (double y = top + 16; y < top + tall; y += between(9, 26)) {  // layers of stone
                cairo_move_to(context_, left, y);
                for (double x = left; x < right; x += 24)
                    cairo_line_to(context_, x, y + rough(x, 260, seed + y) * 6);
                use({line.red * 0.9, line.green * 0.88, line.blue * 0.84, 0.35});
                cairo_set_line_width(context_, between(0.8, 2.4) * grow);
                cairo_stroke(context_);
            }
            cairo_restore(context_);
            cairo_path_destroy(face);
            // Scrub along the edge, and in the shade at its foot.
            for (int i = 0; i < static_cast<int>(std::abs(end - all.from) / (3.4 * grow)); ++i) {
                const double x = all.from + (end - all.from) * unit();
                const double size = between(5, 20) * grow,
                             y = top + rough(x, 520, seed) * 26 * grow + between(-3, 9) * grow;
                ellipse(x, y - size * 0.3, size, size * 0.72);
                fill(mix(mix(scrub, {0.25, 0.31, 0.20}, unit()), haze, all.far));
            }
        }
    }

    /// Flat-roofed houses on a terrace.
    void village(double x, double y) {
        for (int i = 0; i < 17; ++i) {
            const double at = x + between(0, 330), wide = between(24, 46), tall = between(22, 44),
                         foot = y + between(-6, 16);
            cairo_rectangle(context_, at, foot - tall, wide, tall);
            fill_down(foot - tall, mix(white, limestone, unit()), foot, {0.80, 0.76, 0.69});
            cairo_rectangle(context_, at - 2, foot - tall - 4, wide + 4, 5);
            fill(mix({0.72, 0.45, 0.33}, {0.62, 0.58, 0.52}, unit()));
            for (double window = at + 6; window + 6 < at + wide; window += 11) {
                cairo_rectangle(context_, window, foot - tall * 0.72, 5, 8);
                fill({0.24, 0.30, 0.32, 0.85});
            }
        }
    }

    void fires() {
        for (int i = 0; i < 46; ++i) {
            const double x = width * between(0.015, 0.24), y = horizon - 20 + between(-14, 96);
            const double size = between(5, 15);
            patch(x, y, size * 3.4, size * 2.2, {ember.red, ember.green, ember.blue, 0.55});
            cairo_move_to(context_, x - size * 0.5, y + size * 0.3);
            cairo_curve_to(context_, x - size * 0.7, y - size * 0.5, x, y - size * 0.6, x + between(-4, 6),
                           y - size * 1.7);
            cairo_curve_to(context_, x + size * 0.2, y - size * 0.7, x + size * 0.8, y - size * 0.4, x + size * 0.5,
                           y + size * 0.3);
            fill(mix(ember, {1, 0.85, 0.42}, unit()));
        }
    }

    /// A column that leans with the wind, and spreads below the clouds.
    void smoke() {
        for (int i = 0; i < 420; ++i) {
            const double risen = std::pow(unit(), 0.8);
            const double x = width * (0.045 + 0.22 * risen * risen + (unit() - 0.5) * (0.05 + 0.11 * risen));
            const double y = horizon + 40 - (horizon + 140) * risen;
            const double shade = between(0.24, 0.46), size = between(50, 110) + 190 * risen;
            patch(x, y, size, size * 0.82, {shade * 1.06, shade * 0.98, shade * 0.90, 0.17});
        }
    }

    /// The bow of a ledge before everything, with scrub and thistles.
    void ledge() {
        cairo_move_to(context_, 0, height);
        for (double x = 0; x <= width; x += 6) {
            const double side = std::abs(x / width - 0.5) * 2;
            cairo_line_to(context_, x, height * 1.015 - 84 * side * side - 18 * rough(x, 430, 2.6));
        }
        cairo_line_to(context_, width, height);
        cairo_close_path(context_);
        fill_down(height - 130, {0.80, 0.76, 0.67}, height, {0.52, 0.48, 0.41});
        for (int i = 0; i < 900; ++i) {
            const double x = between(0, width), side = std::abs(x / width - 0.5) * 2;
            const double foot = height * 1.015 - 84 * side * side - 18 * rough(x, 430, 2.6) + between(-2, 26);
            const double size = between(6, 26);
            ellipse(x, foot - size * 0.2, size, size * 0.62);
            fill(mix(scrub, {0.19, 0.25, 0.15}, unit()));
        }
    }

    /// The flying boat from behind, in a slight turn: a hull, a high wing with two engines and floats, a tail.
    void flying_boat(double x, double y, double size) {
        cairo_save(context_);
        cairo_translate(context_, x, y);
        cairo_rotate(context_, -0.085);
        cairo_scale(context_, size, size);
        const Tint shade{0.66, 0.70, 0.71}, dark{0.17, 0.21, 0.23};
        const auto quad = [&](std::array<double, 8> at, Tint tint) {
            cairo_move_to(context_, at[0], at[1]);
            for (std::size_t i = 2; i < at.size(); i += 2)
                cairo_line_to(context_, at[i], at[i + 1]);
            cairo_close_path(context_);
            fill(tint);
        };
        for (const double side : {-1.0, 1.0}) {
            // A float on its strut.
            quad({side * 0.78, -0.14, side * 0.80, -0.14, side * 0.795, 0.03, side * 0.785, 0.03}, shade);
            ellipse(side * 0.79, 0.05, 0.035, 0.042);
            fill(white);
            ellipse(side * 0.79, 0.068, 0.031, 0.022);
            fill(teal);
            // The wing, with a teal tip.
            quad({side * 0.04, -0.185, side * 1.02, -0.165, side * 1.02, -0.135, side * 0.04, -0.105},
                 side < 0 ? white : mix(white, shade, 0.25));
            quad({side * 0.04, -0.130, side * 1.02, -0.143, side * 1.02, -0.135, side * 0.04, -0.105}, shade);
            quad({side * 0.90, -0.1675, side * 1.03, -0.165, side * 1.03, -0.134, side * 0.90, -0.1305}, teal);
            // An engine, and the disc of its propeller.
            patch(side * 0.34, -0.17, 0.16, 0.16, {0.75, 0.80, 0.80, 0.30});
            ellipse(side * 0.34, -0.165, 0.062, 0.060);
            fill(shade);
            ellipse(side * 0.34, -0.165, 0.034, 0.033);
            fill(dark);
        }
        // The hull with its keel, and the band around it.
        cairo_move_to(context_, -0.115, -0.10);
        cairo_curve_to(context_, -0.135, 0.05, -0.10, 0.13, 0, 0.185);
        cairo_curve_to(context_, 0.10, 0.13, 0.135, 0.05, 0.115, -0.10);
        cairo_curve_to(context_, 0.07, -0.17, -0.07, -0.17, -0.115, -0.10);
        cairo_path_t* const hull = cairo_copy_path(context_);
        fill_down(-0.17, white, 0.19, shade);
        cairo_save(context_);
        cairo_append_path(context_, hull);
        cairo_clip(context_);
        cairo_rectangle(context_, -0.2, 0.005, 0.4, 0.055);
        fill(teal);
        quad({-0.2, 0.10, 0, 0.20, 0.2, 0.10, 0.2, 0.25}, {0.45, 0.50, 0.51});
        cairo_restore(context_);
        cairo_path_destroy(hull);
        // The tail.
        quad({-0.030, -0.10, -0.012, -0.44, 0.012, -0.44, 0.030, -0.10}, mix(white, shade, 0.35));
        quad({-0.0145, -0.39, -0.012, -0.44, 0.012, -0.44, 0.0145, -0.39}, teal);
        quad({-0.34, -0.330, 0.34, -0.330, 0.32, -0.305, -0.32, -0.305}, white);
        quad({-0.335, -0.314, 0.335, -0.314, 0.32, -0.305, -0.32, -0.305}, shade);
        cairo_restore(context_);
    }
};

}  // namespace

int main(int count, char** arguments) {
    if (count != 2) {
        std::cerr << "usage: ember_ridge_scene FILE.png\n";
        return 2;
    }
    cairo_surface_t* surface =
        cairo_image_surface_create(CAIRO_FORMAT_RGB24, static_cast<int>(width), static_cast<int>(height));
    cairo_t* context = cairo_create(surface);
    Scene(context).paint();
    const cairo_status_t status = cairo_surface_write_to_png(surface, arguments[1]);
    cairo_destroy(context);
    cairo_surface_destroy(surface);
    if (status != CAIRO_STATUS_SUCCESS)
        std::cerr << arguments[1] << ": error: " << cairo_status_to_string(status) << '\n';
    return status == CAIRO_STATUS_SUCCESS ? 0 : 1;
}
