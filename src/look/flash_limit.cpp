#include "rapido/look/flash_limit.hpp"

#include <algorithm>
#include <array>
#include <cmath>
#include <utility>

#include "look/burst.hpp"
#include "look/flash_light.hpp"

namespace rapido {
namespace {

/// What begins within two frames of each other is seen at once.
constexpr Nanoseconds same_moment{34'000'000};
/// So many are kept: a screen holds no more that could be told apart.
constexpr std::size_t most_taken = 512;

float part_in(float from, float length, float field_from, float field_length) {
    if (!(length > 0)) return from >= field_from && from <= field_from + field_length ? 1 : 0;
    const float first = std::max(from, field_from), last = std::min(from + length, field_from + field_length);
    return std::max(0.0F, last - first) / length;
}

/// How much of a flash is in a part of the screen.
float area_in(const Rect& part, const Flash& flash) {
    if (std::isinf(flash.area)) return flash.area;
    return flash.area * part_in(flash.box.x, flash.box.width, part.x, part.width) *
           part_in(flash.box.y, flash.box.height, part.y, part.height);
}

}  // namespace

/// Whether a field has room for a flash: there are less than three in each second that holds it, counted from the earliest on. What is
/// seen at the same time is one flash, and only where it is large enough.
bool FlashLimit::has_room_in(const std::vector<Taken>& others, const Rect& degrees, const Flash& flash,
                             std::vector<Flash>& all) {
    all.clear();
    float together = 0;
    const auto take = [&](Flash part) {
        part.area = area_in(degrees, part);
        if (!(part.area > 0)) return;
        if (part.begin <= flash.end && flash.begin <= part.end) together += part.area;
        all.push_back(part);
    };
    bool is_in = false;
    for (const Taken& taken : others) {
        if (taken.flash.begin > flash.begin && !std::exchange(is_in, true)) take(flash);
        if (taken.flash.end + window > flash.begin - window && taken.flash.begin <= flash.end + window)
            take(taken.flash);
    }
    if (!is_in) take(flash);
    if (!(together > least_area)) return true;

    std::array<Nanoseconds, most> last{};  // the moments of the latest flashes, in a ring
    std::size_t count = 0;
    Nanoseconds behind = Nanoseconds::min();
    for (const Flash& one : all) {
        const Nanoseconds at = one.begin;
        if (at <= behind) {
            // It is part of the one before it, as long as that goes on in all its parts.
            if (count > 0) behind = std::max(at, std::min(behind, one.end));
            continue;
        }
        float sum = 0;
        Nanoseconds together_until = at + same_moment;
        for (const Flash& other : all) {
            if (other.begin > at) break;
            if (other.begin <= behind || at > other.end) continue;
            sum += other.area;
            together_until = std::min(together_until, other.end);
        }
        if (!(sum > least_area)) continue;
        if (count >= most && at - last[count % most] < window) return false;
        last[count++ % most] = at;
        behind = std::max(at, together_until);
    }
    return true;
}

bool FlashLimit::has_room(const std::vector<Taken>& all, const Flash& flash, std::vector<Flash>& in_field) {
    if (!(flash.area > 0)) return true;
    // Most of what flashes is small, and alone.
    float together = flash.area;
    for (const Taken& other : all) {
        const bool is_near = std::isinf(other.flash.area) || std::isinf(flash.area) ||
                             (other.flash.box.x < flash.box.right() + field.width &&
                              other.flash.box.right() > flash.box.x - field.width &&
                              other.flash.box.y < flash.box.bottom() + field.height &&
                              other.flash.box.bottom() > flash.box.y - field.height);
        const bool meets = other.flash.begin <= flash.end + same_moment && flash.begin <= other.flash.end + same_moment;
        if (is_near && meets) together += other.flash.area;
    }
    if (!(together > least_area)) return true;
    if (std::isinf(flash.area)) return has_room_in(all, {}, flash, in_field);
    // The fields in which there is some of it, from one in which it begins to one in which it ends.
    const auto steps = [](float from, float length, float wide) {
        return std::array{from, from + length - wide, from + (length - wide) / 2, from + length - wide / 2,
                          from - wide / 2};
    };
    for (const float x : steps(flash.box.x, flash.box.width, field.width))
        for (const float y : steps(flash.box.y, flash.box.height, field.height))
            if (!has_room_in(all, {x, y, field.width, field.height}, flash, in_field)) return false;
    return true;
}

void FlashLimit::insert(std::vector<Taken>& all, const Flash& flash, std::uint32_t owner) {
    // Others may still be asked for that have begun up to a second ago, and this one may be planned for later.
    constexpr Nanoseconds past = 4 * window;
    std::erase_if(all, [&](const Taken& taken) {
        return taken.flash.begin + past < flash.begin && taken.flash.end + past < flash.begin;
    });
    if (all.size() >= most_taken) all.erase(all.begin());
    const auto place = std::upper_bound(all.begin(), all.end(), flash.begin, [](Nanoseconds begin, const Taken& taken) {
        return begin < taken.flash.begin;
    });
    all.insert(place, {flash, owner});
}

void FlashLimit::count(const Flash& flash, std::uint32_t owner) {
    insert(taken_, flash, owner);
}

bool FlashLimit::admit_shown(const Flash& flash) {
    if (!has_room(shown_, flash, in_field_)) return false;
    insert(shown_, flash, 0);
    return true;
}

void FlashLimit::go_on(const Flash& flash, std::uint32_t owner) {
    bool is_known = false;
    for (Taken& taken : taken_) {
        if (taken.owner != owner || taken.flash.begin != flash.begin) continue;
        taken.flash.end = std::max(taken.flash.end, flash.end);
        is_known = true;
    }
    if (!is_known) count(flash, owner);
}

bool FlashLimit::admit(const Flash& flash, std::uint32_t owner) {
    if (!has_room(taken_, flash, in_field_)) return false;
    count(flash, owner);
    return true;
}

void FlashLimit::cut(std::uint32_t owner, Nanoseconds at) {
    std::erase_if(taken_, [&](const Taken& taken) { return taken.owner == owner && taken.flash.begin >= at; });
    for (Taken& taken : taken_)
        if (taken.owner == owner) taken.flash.end = std::min(taken.flash.end, std::max(at, taken.flash.begin));
}

Nanoseconds FlashLimit::room_for(const Flash& flash) const {
    Flash later = flash;
    // It fits at once, or a second after one of those before it.
    for (std::size_t i = 0; !has_room(taken_, later, in_field_) && i < taken_.size(); ++i) {
        later.begin = std::max(flash.begin, taken_[i].flash.begin + window);
        later.end = later.begin + (flash.end - flash.begin);
    }
    return later.begin;
}

bool burst_flashes(const Particles& particles) {
    const float size = std::max(particles.size, particles.end_size);
    return particles.burst > 0 && size > 0 &&
           (is_flash_change(rgb(0x000000), particles.color.value()) ||
            is_flash_change(rgb(0xffffff), particles.color.value()));
}

float burst_area(const Particles& particles) {
    const float size = std::max(particles.size, particles.end_size);
    // Round, and on their way through all sizes.
    return 0.785F * static_cast<float>(particles.burst) * size * size;
}

std::vector<Nanoseconds> flashes_of(const Effect& effect, Color color, bool from_rest) {
    constexpr int samples = 128;
    std::vector<FlashPair> pairs;
    const auto add = [&](const std::optional<FlashPair>& found) {
        // What is several things at once is one flash.
        if (found && std::none_of(pairs.begin(), pairs.end(), [&](const FlashPair& other) {
                return found->begin <= other.end && other.begin <= found->end;
            }))
            pairs.push_back(*found);
    };
    if (effect.dots.count == 0) {  // the element stays as it is
        const double light = relative_luminance(color);
        LightTrack bright(from_rest ? light : 0), glow(0);
        RedTrack red(color);
        for (int i = 0; i <= samples; ++i) {
            const double progress = static_cast<double>(i) / samples;
            const Nanoseconds now = to_nanoseconds(effect.duration * progress);
            const Pose pose = light_of(effect, progress);
            const Color seen = mix(color, pose.color, static_cast<double>(pose.color_part));
            add(bright.follow(now, relative_luminance(seen) * static_cast<double>(pose.opacity)));
            add(red.follow(now, seen));
            // The light around the element, on a dark ground.
            add(glow.follow(now, light * static_cast<double>(pose.glow)));
        }
    }
    // A burst is over when its particles are gone.
    const Seconds over = std::min(effect.particles.life, effect.duration);
    if (burst_flashes(effect.particles) && burst_area(effect.particles) > FlashLimit::least_area)
        add(FlashPair{Nanoseconds{0}, Nanoseconds{0}, to_nanoseconds(over)});
    std::vector<Nanoseconds> flashes;
    for (const FlashPair& pair : pairs)
        flashes.push_back(pair.end);
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
    if (effect.keyframes.empty() || effect.dots.count > 0 || effect.repeat == 0) return pose;
    pose.color = rgb(0xffffff);
    pose.color_part = 0.35F;
    return pose;
}

}  // namespace rapido
