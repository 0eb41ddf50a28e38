// How a shown value travels to a new target: the choice, as it stands in a description.
#pragma once

#include <cstdint>

#include "rapido/base/units.hpp"
#include "rapido/motion/easing.hpp"

namespace rapido {

enum class MotionKind : std::uint8_t { instant, tween };

/// `.motion = tween(600ms)`, or in a file `motion = { kind = "tween", duration = 0.6, easing = "ease-out" }`.
struct Motion {
    MotionKind kind = MotionKind::instant;
    Seconds duration{0.3};               ///< of a flight from rest; zero is instant
    Easing easing = Easing::ease_out();  ///< the shape of a flight from rest
    friend bool operator==(const Motion&, const Motion&) = default;
};

constexpr Motion instant() {
    return {};
}
constexpr Motion tween(Seconds duration, Easing easing = Easing::ease_out()) {
    return {.kind = MotionKind::tween, .duration = duration, .easing = easing};
}

}  // namespace rapido
