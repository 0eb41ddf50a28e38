// A dial with a needle.
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "rapido/base/color.hpp"
#include "rapido/element/common.hpp"
#include "rapido/element/scale_marks.hpp"
#include "rapido/element/trigger.hpp"
#include "rapido/layout/place.hpp"
#include "rapido/look/band.hpp"
#include "rapido/motion/motion.hpp"
#include "rapido/pace/pace.hpp"
#include "rapido/time/clock.hpp"
#include "rapido/value/source.hpp"

namespace rapido {

/// What points at the value.
struct Needle {
    float length = 0.82F;  ///< parts of the radius, from the middle
    float tail = 0.14F;    ///< parts of the radius, on the other side of it
    float width = 5;       ///< at the middle, design pixels; it ends in a point
    float hub = 5;         ///< radius of the disc in the middle, design pixels; zero draws none
    friend bool operator==(const Needle&, const Needle&) = default;
};

/// Altitude, speed, temperature, the time of day. A value outside of the scale is shown at its end; without a value there is
/// no needle. It is as large as fits its box; a layout that is mirrored does not turn it round.
struct Dial {
    std::string id{};
    Source value{};
    double min = 0;    ///< where the scale begins
    Source max = 1;    ///< where it ends
    Pace pace{};       ///< when it may change
    Motions motion{};  ///< how value and maximum follow, in units of the value: a growing maximum is no loss
    std::vector<Band> bands{};          ///< where the needle looks different
    std::vector<Trigger> effects{};     ///< what starts effects
    ClockKind clock = ClockKind::real;  ///< that pace, motion and fades follow
    WhenNoValue when_no_value = WhenNoValue::placeholder;
    Place place{.size = {120, 120}};
    std::string inside{};  ///< the panel that it stands in; empty is the screen
    std::string group{};   ///< shown, hidden, dimmed and snapped with it
    float start = -135;    ///< where the scale begins: degrees clockwise from the top
    float sweep = 270;     ///< how far it reaches, degrees, -360 to 360; below zero anticlockwise
    bool wraps = false;    ///< behind the end it begins again, as the hands of a clock do
    float thickness = 4;   ///< of the line along the scale and of its zones, design pixels
    Color line_color = rgb(0xf2efe6, 0.35);
    std::vector<Zone> zones{};
    ScaleMarks marks{};
    Needle needle{};
    Color color = rgb(0xff7a3c);  ///< of the needle
    Color background = rgb(0x000000, 0.45);
    int layer = 0;     ///< higher is drawn later
    Source visible{};  ///< shown while true; without a source, always
    friend bool operator==(const Dial&, const Dial&);
};

}  // namespace rapido
