#include "rapido/look/flash_limit.hpp"

#include <algorithm>
#include <array>
#include <cmath>
#include <optional>
#include <utility>

#include "look/burst.hpp"

namespace rapido {
namespace {

constexpr double least_change = 0.10;
constexpr double darkest_bright = 0.80;

double linear_part(std::uint8_t channel) {
    const double c = channel / 255.0;
    return c <= 0.04045 ? c / 12.92 : std::pow((c + 0.055) / 1.055, 2.4);
}

bool is_bright_change(double from, double to) {
    return std::abs(from - to) >= least_change && std::min(from, to) < darkest_bright;
}

struct Linear {
    double red, green, blue;
    explicit Linear(Color color)
        : red(linear_part(color.red)), green(linear_part(color.green)), blue(linear_part(color.blue)) {}
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

/// Two opposing changes in one run of an effect: the moments, in samples, at which each is complete.
struct Pair {
    int first, second;
};
constexpr int samples = 128;
using Samples = std::array<Pose, samples + 1>;

/// One run, and rest after it.
Samples sample(const Effect& effect) {
    Samples poses;
    for (int i = 0; i < samples; ++i)
        poses[static_cast<std::size_t>(i)] = light_of(effect, static_cast<double>(i) / samples);
    return poses;
}
Color seen(Color color, const Pose& pose) {
    return mix(color, pose.color, static_cast<double>(pose.color_part));
}

/// Between turning points of the luminance, found on a fine grid. `light_of` is that of a pose.
template <class LightOf>
std::vector<Pair> bright_pairs(const Samples& poses, double before, LightOf light_of) {
    std::vector<Pair> pairs;
    double turn = before;
    double last = turn;
    int way = 0;
    std::optional<int> changed;
    for (int i = 0; i <= samples; ++i) {
        const double light = light_of(poses[static_cast<std::size_t>(i)]);
        const int now = light > last ? 1 : light < last ? -1 : way;
        if (now != way && way != 0) {
            changed = is_bright_change(last, turn) ? std::optional(i) : std::nullopt;
            turn = last;
        }
        way = now;
        last = light;
        if (changed && is_bright_change(light, turn)) {
            pairs.push_back({*changed, i});
            changed.reset();
        }
    }
    return pairs;
}

/// To a saturated red and back, or from it and back.
std::vector<Pair> red_pairs(const Samples& poses, Color color) {
    std::vector<Pair> pairs;
    Color from = color;
    std::optional<int> changed;
    for (int i = 0; i <= samples; ++i) {
        const Color now = seen(color, poses[static_cast<std::size_t>(i)]);
        if (!is_red_change(from, now)) continue;
        from = now;
        if (changed) pairs.push_back({*changed, i});
        changed = changed ? std::nullopt : std::optional(i);
    }
    return pairs;
}

}  // namespace

bool FlashLimit::admit(std::span<const Nanoseconds> flashes) {
    if (flashes.empty()) return true;
    std::erase_if(taken_, [&](Nanoseconds time) { return time + window + window < flashes.front(); });
    std::array<Nanoseconds, 64> all;
    if (taken_.size() + flashes.size() > all.size()) return false;
    const auto end = std::merge(taken_.begin(), taken_.end(), flashes.begin(), flashes.end(), all.begin());
    for (auto at = all.begin() + most; at < end; ++at)
        if (*at - *(at - most) < window) return false;
    taken_.assign(all.begin(), end);
    return true;
}

Nanoseconds FlashLimit::reserve(Nanoseconds earliest) {
    Nanoseconds time = earliest;
    // It fits at once, or a second after one of those before it.
    for (std::size_t i = 0; !admit(std::span(&time, 1)) && i < taken_.size(); ++i)
        time = std::max(earliest, taken_[i] + window);
    return time;
}

void FlashLimit::release(Nanoseconds flash) {
    const auto at = std::find(taken_.begin(), taken_.end(), flash);
    if (at != taken_.end()) taken_.erase(at);
}

double relative_luminance(Color color) {
    return 0.2126 * linear_part(color.red) + 0.7152 * linear_part(color.green) +
           0.0722 * linear_part(color.blue);
}

bool is_flash_change(Color from, Color to) {
    return is_bright_change(relative_luminance(from), relative_luminance(to)) || is_red_change(from, to);
}

/// What is several things at once is one flash.
static void add_others(std::vector<Pair>& pairs, const std::vector<Pair>& others) {
    const std::size_t known = pairs.size();
    for (const Pair& pair : others) {
        const auto overlaps = [&](const Pair& other) {
            return pair.first <= other.second && other.first <= pair.second;
        };
        if (std::none_of(pairs.begin(), pairs.begin() + static_cast<std::ptrdiff_t>(known), overlaps))
            pairs.push_back(pair);
    }
}

bool burst_flashes(const Particles& particles) {
    constexpr float least_area = 341.0F * 256 / 4;
    const float size = std::max(particles.size, particles.end_size);
    const float area = static_cast<float>(particles.burst) * size * size;
    return area >= least_area && is_flash_change(rgb(0x000000), particles.color.value());
}

/// Of the element itself, in one run.
static std::vector<Pair> pairs_of(const Effect& effect, Color color, bool from_rest) {
    if (effect.dots.count > 0) return {};  // the element stays as it is
    const bool changes_light =
        std::any_of(effect.keyframes.begin(), effect.keyframes.end(),
                    [](const Keyframe& frame) { return frame.color || frame.opacity || frame.glow; });
    if (!changes_light && from_rest) return {};
    const Samples poses = sample(effect);
    const double light = relative_luminance(color);
    std::vector<Pair> pairs = bright_pairs(poses, from_rest ? light : 0, [&](const Pose& pose) {
        return relative_luminance(seen(color, pose)) * static_cast<double>(pose.opacity);
    });
    add_others(pairs, red_pairs(poses, color));
    // The light around the element, on a dark ground.
    add_others(pairs, bright_pairs(poses, 0, [light](const Pose& pose) {
                   return light * static_cast<double>(pose.glow);
               }));
    return pairs;
}

std::vector<Nanoseconds> flashes_of(const Effect& effect, Color color, bool from_rest) {
    std::vector<Pair> pairs = pairs_of(effect, color, from_rest);
    // A burst is over when its particles are gone.
    const double part = std::min(1.0, effect.particles.life / effect.duration);
    if (burst_flashes(effect.particles)) add_others(pairs, {{0, static_cast<int>(part * samples)}});
    std::vector<Nanoseconds> flashes;
    for (const Pair& pair : pairs)
        flashes.push_back(to_nanoseconds(effect.duration * (static_cast<double>(pair.second) / samples)));
    std::sort(flashes.begin(), flashes.end());
    return flashes;
}

Pose steady_pose(const Effect& effect) {
    Pose pose;
    for (const Keyframe& frame : effect.keyframes) {
        if (!frame.color) continue;
        pose.color = *frame.color;
        pose.color_part = 1;
        return pose;
    }
    pose.color = rgb(0xffffff);
    pose.color_part = 0.35F;
    return pose;
}

}  // namespace rapido
