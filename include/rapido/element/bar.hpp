// A bar that is filled as far as its value goes.
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "rapido/base/color.hpp"
#include "rapido/element/common.hpp"
#include "rapido/element/trigger.hpp"
#include "rapido/layout/place.hpp"
#include "rapido/look/band.hpp"
#include "rapido/motion/motion.hpp"
#include "rapido/pace/pace.hpp"
#include "rapido/time/clock.hpp"
#include "rapido/value/source.hpp"

namespace rapido {

/// Which way a bar grows when its value does.
enum class Direction : std::uint8_t { right, left, up, down };

/// A second bar that shows how much was just lost: it stays for the delay, which each further loss begins anew,
/// and then drains to the value.
struct BarTrail {
    Seconds delay{0};       ///< zero is no trail
    Seconds duration{0.5};  ///< of the drain
    Easing easing = Easing::ease_in_out();
    Color color = rgb(0xff7a3c);
    friend bool operator==(const BarTrail&, const BarTrail&) = default;
};

/// Water, fuel, hull: the part of a maximum that there is. The fill is value over maximum, limited to 0 to 1;
/// no value, NaN, and a maximum that is zero, negative or not finite give an empty bar.
struct Bar {
    std::string id;
    Source value;
    Source max = 1;
    Pace pace;      ///< when it may change
    Motion motion;  ///< how the shown value follows, in the value's units: a growing maximum is no loss
    std::optional<Motion> rise;  ///< instead, upwards
    std::optional<Motion> fall;  ///< instead, downwards
    Motion max_motion;           ///< how the shown maximum follows
    BarTrail trail;
    std::vector<Band> bands;            ///< where it looks different
    std::vector<Trigger> effects;       ///< what starts effects
    ClockKind clock = ClockKind::real;  ///< that pace, motion and fades follow
    WhenNoValue when_no_value = WhenNoValue::placeholder;
    Place place{.size = {160, 12}};
    std::string inside;  ///< the panel that it stands in; empty is the screen
    std::string group;   ///< shown, hidden, dimmed and snapped with it
    Direction direction = Direction::right;
    Color color = rgb(0x38b6c9);
    Color background = rgb(0x000000, 0.45);
    float radius = 3;  ///< of the corners, at most half the smaller side
    int layer = 0;     ///< higher is drawn later
    Source visible;    ///< shown while true; without a source, always
    friend bool operator==(const Bar&, const Bar&) = default;
};

}  // namespace rapido
