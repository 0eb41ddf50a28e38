// How a shown value travels to a new target, as a description says it.
#pragma once

#include <cstdint>
#include <optional>
#include <utility>

#include "rapido/base/exported.hpp"
#include "rapido/base/units.hpp"
#include "rapido/motion/easing.hpp"

namespace rapido RAPIDO_EXPORTED {

struct Motions;

enum class MotionKind : std::uint8_t { instant, tween, spring, roll };

/// `.motion = tween(600ms)`, or in a file `motion = { kind = "tween", duration = 0.6, easing = "ease-out" }`.
/// Fields that the kind has no use for are ignored.
struct Motion {
    MotionKind kind = MotionKind::instant;
    /// The duration of a tween from rest; the settling time of a spring, after which it stays within 2 % of a jump from
    /// rest; the duration of a roll over `full_duration_at` or more. Zero is instant; without one it is 0.3 s.
    std::optional<Seconds> duration{};
    Easing easing = Easing::ease_out();  ///< the shape of a flight from rest of a tween or a roll
    float damping = 1;  ///< the damping ratio of a spring, 0.05 to 20: below 1 it swings, at 1 it is critically damped
    Seconds shortest{0.1};  ///< the duration of a roll over one unit or less
    double full_duration_at =
        1000;  ///< for a roll, in units of the value; between one unit and this the logarithm of the jump counts
    Seconds length() const { return duration.value_or(Seconds{0.3}); }
    /// Converts to the motions of an element whose value rises and falls alike.
    operator Motions() const noexcept;
    friend RAPIDO_EXPORTED bool operator==(const Motion&, const Motion&);
};

/// Returns the motion that shows every target at once.
inline Motion instant() noexcept {
    return {};
}
/// Returns a motion that takes a given time, in the shape of an easing.
inline Motion tween(Seconds duration, Easing easing = Easing::ease_out()) noexcept {
    return {.kind = MotionKind::tween, .duration = duration, .easing = std::move(easing)};
}
/// Returns the motion of a damped spring, by settling time and damping ratio.
inline Motion spring(Seconds settling, float damping = 1) noexcept {
    return {.kind = MotionKind::spring, .duration = settling, .damping = damping};
}
/// Returns the motion of a counter, which takes longer for larger jumps, up to `longest`.
inline Motion roll(Seconds longest) noexcept {
    return {.kind = MotionKind::roll, .duration = longest};
}

/// The motions of an element: `.motion = tween(600ms)`, or where value and maximum move in several ways
/// `.motion = {.both = spring(200ms), .down = instant()}`. In a file they are the keys `motion`, `motion_up`, `motion_down` and
/// `max_motion` of the element itself.
struct Motions {
    Motion both{};
    std::optional<Motion> up{};    ///< replaces `both` to a larger target
    std::optional<Motion> down{};  ///< replaces `both` to a smaller target
    Motion max{};                  ///< the motion of the shown maximum
    /// The values that come round again, such as 360 for a heading in degrees: the way from 359 to 1 is 2. Zero is none. Shown are
    /// values of 0 to `cycle`, or of half of it to either side of 0 where the target or the start is less than 0.
    double cycle = 0;

    const Motion& towards(bool larger) const {
        const std::optional<Motion>& own = larger ? up : down;
        return own ? *own : both;
    }
    /// Whether the value is shown at once, whichever way it goes.
    bool is_instant() const {
        const auto still = [](const Motion& motion) { return motion.kind == MotionKind::instant; };
        return still(towards(true)) && still(towards(false));
    }
    friend RAPIDO_EXPORTED bool operator==(const Motions&, const Motions&);
};

inline Motion::operator Motions() const noexcept {
    return {.both = *this, .up = {}, .down = {}, .max = {}, .cycle = 0};
}

}  // namespace rapido
