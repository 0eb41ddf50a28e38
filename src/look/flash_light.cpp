#include "look/flash_light.hpp"

#include <array>
#include <cmath>
#include <utility>

namespace rapido {
namespace {

constexpr double least_change = 0.10;
constexpr double darkest_bright = 0.80;

/// Of each of the 256 levels (IEC 61966-2-1).
const std::array<double, 256>& linear_parts() {
    static const std::array<double, 256> table = [] {
        std::array<double, 256> made{};
        for (std::size_t i = 0; i < made.size(); ++i) {
            const double c = static_cast<double>(i) / 255.0;
            made[i] = c <= 0.04045 ? c / 12.92 : std::pow((c + 0.055) / 1.055, 2.4);
        }
        return made;
    }();
    return table;
}

bool is_bright_change(double from, double to, double margin = 0) {
    return std::abs(from - to) >= least_change - margin && std::min(from, to) < darkest_bright + margin;
}

/// What is drawn differs a little from what is computed here: by edges that are smoothed, and by whole levels of color.
constexpr double margin = 0.006;

struct Linear {
    double red, green, blue;
    explicit Linear(Color color) {
        const std::array<double, 256>& part = linear_parts();
        red = part[color.red], green = part[color.green], blue = part[color.blue];
    }
    bool is_saturated_red() const { return red > 0 && red >= 0.8 * (red + green + blue); }
};

/// How far apart in the u', v' diagram (CIE 015, from XYZ of sRGB with D65); black is of no chromaticity, and near all.
double chromatic_distance(const Linear& a, const Linear& b) {
    const auto uv = [](const Linear& c) -> std::optional<std::pair<double, double>> {
        const double x = 0.4124 * c.red + 0.3576 * c.green + 0.1805 * c.blue;
        const double y = 0.2126 * c.red + 0.7152 * c.green + 0.0722 * c.blue;
        const double z = 0.0193 * c.red + 0.1192 * c.green + 0.9505 * c.blue;
        const double sum = x + 15 * y + 3 * z;
        if (!(sum > 0)) return std::nullopt;
        return std::pair(4 * x / sum, 9 * y / sum);
    };
    const auto from = uv(a);
    const auto to = uv(b);
    return from && to ? std::hypot(from->first - to->first, from->second - to->second) : 0;
}

bool is_red_change(Color from, Color to) {
    if (from == to) return false;
    const Linear a(from);
    const Linear b(to);
    return (a.is_saturated_red() || b.is_saturated_red()) && chromatic_distance(a, b) > 0.2;
}

}  // namespace

std::optional<FlashPair> LightTrack::follow(Nanoseconds now, double light) {
    light_ = light;
    const double before_low = low_, before_high = high_;
    if (light <= low_) low_ = light, low_at_ = now;
    if (light >= high_) high_ = light, high_at_ = now;
    const bool rises = light > before_low && is_bright_change(before_low, light, margin);
    const bool falls = light < before_high && is_bright_change(before_high, light, margin);
    if (way_ == 0) {
        // What goes on after a pair in the way of its second change is no change of its own.
        if (rises && last_ <= 0) {
            way_ = 1;
            pair_ = {low_at_, now, now};
            high_ = light, high_at_ = now;
        } else if (falls && last_ >= 0) {
            way_ = -1;
            pair_ = {high_at_, now, now};
            low_ = light, low_at_ = now;
        }
        return std::nullopt;
    }
    if (way_ > 0 ? !falls : !rises) return std::nullopt;
    // What had changed long before makes a flash when it changes back.
    if (now - FlashLimit::window > pair_.begin) pair_ = {way_ > 0 ? high_at_ : low_at_, now, now};
    pair_.end = now;
    last_ = -way_;
    way_ = 0;
    low_ = high_ = light;
    low_at_ = high_at_ = now;
    return pair_;
}

std::optional<FlashPair> RedTrack::follow(Nanoseconds now, Color color) {
    if (!is_red_change(from_, color)) {
        if (!pair_) from_at_ = now;
        return std::nullopt;
    }
    from_ = color;
    if (!pair_) {
        pair_ = FlashPair{from_at_, now, now};
        return std::nullopt;
    }
    FlashPair made = *pair_;
    if (now - FlashLimit::window > made.begin) made.turned = made.begin = now;
    made.end = now;
    pair_.reset();
    from_at_ = now;
    return made;
}

Color over(Color ground, Color color, float opacity) {
    const float alpha = static_cast<float>(color.alpha) / 255 * opacity;
    const auto channel = [alpha](std::uint8_t below, std::uint8_t above) {
        return static_cast<std::uint8_t>(static_cast<float>(below) * (1 - alpha) + static_cast<float>(above) * alpha +
                                         0.5F);
    };
    return {channel(ground.red, color.red), channel(ground.green, color.green), channel(ground.blue, color.blue), 255};
}

double relative_luminance(Color color) {
    const Linear part(color);
    return 0.2126 * part.red + 0.7152 * part.green + 0.0722 * part.blue;
}

bool is_flash_change(Color from, Color to) {
    return is_bright_change(relative_luminance(from), relative_luminance(to)) || is_red_change(from, to);
}

}  // namespace rapido
