// A dial with a needle.
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "rapido/base/exported.hpp"
#include "rapido/base/themed.hpp"
#include "rapido/element/common.hpp"
#include "rapido/element/ticks.hpp"
#include "rapido/element/trigger.hpp"
#include "rapido/layout/place.hpp"
#include "rapido/look/band.hpp"
#include "rapido/motion/motion.hpp"
#include "rapido/pace/pace.hpp"
#include "rapido/time/clock.hpp"
#include "rapido/value/source.hpp"

namespace rapido RAPIDO_EXPORTED {

/// What points at the value.
struct Needle {
    float length = 0.82F;  ///< how far the needle reaches from the middle, in parts of the radius
    float tail = 0.14F;    ///< how far the needle reaches on the other side, in parts of the radius
    float width = 5;       ///< the width of the needle at the middle, design pixels; it ends in a point
    float hub = 5;         ///< the radius of the disc in the middle, design pixels; zero draws none
    friend bool operator==(const Needle&, const Needle&) = default;
};

/// A round scale with a needle: altitude, speed, temperature, the time of day. A value outside of the scale is shown at its end; without a value there is
/// no needle. The dial is as large as fits its box; a mirrored layout does not mirror it.
struct Dial {
    std::string id{};
    Source value{};
    double min = 0;             ///< the value at which the scale begins
    Source max = 1;             ///< the value at which the scale ends
    Pace pace{};                ///< when the shown value may change
    Motions motion{};           ///< how value and maximum follow, in units of the value: a growing maximum is no loss
    std::vector<Band> bands{};  ///< ranges of the value in which the needle looks different
    std::vector<Trigger> triggers{};    ///< what starts effects
    ClockKind clock = ClockKind::real;  ///< the clock that pace, motion and fades follow
    WhenNoValue when_no_value = WhenNoValue::placeholder;
    Place place{};         ///< by itself 120 x 120
    std::string inside{};  ///< the panel that the element stands in; empty is the screen
    std::string group{};   ///< the group that it is shown, hidden, dimmed and snapped with
    float start = -135;    ///< the angle at which the scale begins, degrees clockwise from the top
    float sweep = 270;     ///< how far the scale reaches, -360 to 360 degrees; below zero anticlockwise
    bool wraps = false;    ///< the scale begins again behind its end, as the hands of a clock do
    float thickness = 4;   ///< the thickness of the line along the scale and of its zones, design pixels
    Themed<Color> line_color = rgb(0xf2efe6, 0.35);
    std::vector<Zone> zones{};
    Ticks ticks{};
    Needle needle{};
    Themed<Color> color = rgb(0xff7a3c);  ///< the color of the needle
    Themed<Color> background = rgb(0x000000, 0.45);
    Amount opacity = 1;   ///< 0 to 1, of it and of what stands inside
    Amount rotation = 0;  ///< degrees clockwise around its middle, of it and of what stands inside
    Amount scale = 1;     ///< of it and of what stands inside, around the point by which it is held in its place
    Shift shift{};        ///< how far it is drawn from its place, to the right and down, design pixels
    Blend blend = Blend::normal;  ///< how its colors are put over those below
    std::optional<Glow> glow{};   ///< a soft light around it
    int layer = 0;                ///< among siblings, a higher layer is drawn later
    Source visible{};             ///< the element is shown while this is true; without a source, always
    std::string enter{};          ///< the effect with which it becomes visible; empty means at once
    std::string leave{};          ///< the effect with which it becomes hidden; empty is `enter`, backwards
    friend RAPIDO_EXPORTED bool operator==(const Dial&, const Dial&);
};

}  // namespace rapido
