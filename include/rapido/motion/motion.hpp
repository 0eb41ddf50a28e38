// How a shown value travels to a new target: the choice, as it stands in a description.
#pragma once

#include <cstdint>
#include <optional>
#include <utility>

#include "rapido/base/units.hpp"
#include "rapido/motion/easing.hpp"

namespace rapido {

struct Motions;

enum class MotionKind : std::uint8_t { instant, tween, spring, roll };

/// `.motion = tween(600ms)`, or in a file `motion = { kind = "tween", duration = 0.6, easing = "ease-out" }`.
/// Fields that the kind has no use for are ignored.
struct Motion {
    MotionKind kind = MotionKind::instant;
    /// Of a tween: the length of a flight from rest. Of a spring: its settling time, after which it stays
    /// within 2 % of a jump from rest. Of a roll: the length of a jump of `full_jump` or more. Zero is instant.
    Seconds duration{0.3};
    Easing easing = Easing::ease_out();  ///< the shape of a flight from rest of a tween or a roll
    float damping = 1;  ///< ratio of a spring, 0.05 to 20: below 1 it swings, at 1 it is critically damped
    Seconds shortest{0.1};  ///< of a roll: the length of a jump of one unit or less
    double full_jump =
        1000;  ///< of a roll, in units of the value; in between the logarithm of the jump counts
    /// The same whether the value rises or falls, for `Motions`.
    operator Motions() const;
    friend bool operator==(const Motion&, const Motion&) = default;
};

/// At once.
inline Motion instant() {
    return {};
}
/// In a given time, in the shape of an easing.
inline Motion tween(Seconds duration, Easing easing = Easing::ease_out()) {
    return {.kind = MotionKind::tween, .duration = duration, .easing = std::move(easing)};
}
/// As a damped spring pulls it, by settling time and damping ratio.
inline Motion spring(Seconds settling, float damping = 1) {
    return {.kind = MotionKind::spring, .duration = settling, .damping = damping};
}
/// As a counter counts: longer for larger jumps, up to a cap.
inline Motion roll(Seconds longest) {
    return {.kind = MotionKind::roll, .duration = longest};
}

/// The motions of an element: `.motion = tween(600ms)`, or where value and maximum move in several ways
/// `.motion = {.both = spring(200ms), .fall = instant()}`. In a file they are the keys `motion`, `rise`, `fall` and
/// `max_motion` of the element itself.
struct Motions {
    Motion both{};
    std::optional<Motion> rise{};  ///< replaces `both` to a larger target
    std::optional<Motion> fall{};  ///< replaces `both` to a smaller target
    Motion max{};                  ///< of the shown maximum

    const Motion& towards(bool larger) const {
        const std::optional<Motion>& own = larger ? rise : fall;
        return own ? *own : both;
    }
    /// Whether the value is shown at once, whichever way it goes.
    bool is_instant() const {
        const auto still = [](const Motion& motion) { return motion.kind == MotionKind::instant; };
        return still(towards(true)) && still(towards(false));
    }
    friend bool operator==(const Motions&, const Motions&) = default;
};

inline Motion::operator Motions() const {
    return {.both = *this, .rise = {}, .fall = {}, .max = {}};
}

}  // namespace rapido
