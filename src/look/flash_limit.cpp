#include "rapido/look/flash_limit.hpp"

#include <algorithm>
#include <array>
#include <cmath>

namespace rapido {
namespace {

constexpr double least_change = 0.10;
constexpr double darkest_bright = 0.80;

double linear_part(std::uint8_t channel) {
    const double c = channel / 255.0;
    return c <= 0.04045 ? c / 12.92 : std::pow((c + 0.055) / 1.055, 2.4);
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

std::vector<Nanoseconds> flashes_of(const Effect& effect, Color color) {
    // Turning points of the luminance, found on a fine grid.
    constexpr int samples = 128;
    std::vector<Nanoseconds> flashes;
    if (effect.dots.count > 0) return flashes;  // the element stays as it is
    double turn = -1;
    double last = -1;
    int way = 0;
    bool changed = false;
    for (int i = 0; i <= samples; ++i) {
        const Pose pose = i < samples ? pose_of(effect, static_cast<double>(i) / samples) : Pose{};
        const Color seen = mix(color, pose.color, static_cast<double>(pose.color_part));
        const double light = relative_luminance(seen) * static_cast<double>(pose.opacity);
        // The element is at rest before.
        if (i == 0) turn = last = relative_luminance(color);
        const int now = light > last ? 1 : light < last ? -1 : way;
        if (now != way && way != 0) {
            changed = std::abs(last - turn) >= least_change && std::min(last, turn) < darkest_bright;
            turn = last;
        }
        way = now;
        last = light;
        // The way back is long enough: the pair is complete.
        if (changed && std::abs(light - turn) >= least_change && std::min(light, turn) < darkest_bright) {
            flashes.push_back(to_nanoseconds(effect.duration * (static_cast<double>(i) / samples)));
            changed = false;
        }
    }
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
