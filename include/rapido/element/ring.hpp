// A ring, or a part of one, that is filled as far as its value goes.
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "rapido/base/color.hpp"
#include "rapido/element/bar.hpp"
#include "rapido/element/common.hpp"
#include "rapido/element/trigger.hpp"
#include "rapido/layout/place.hpp"
#include "rapido/look/band.hpp"
#include "rapido/motion/motion.hpp"
#include "rapido/pace/pace.hpp"
#include "rapido/time/clock.hpp"
#include "rapido/value/source.hpp"

namespace rapido {

/// Fuel, a cool-down, what is left of a countdown. It is as large as fits its box, in the middle of it; the fill and what is
/// shown without a value are as of a `Bar`. A layout that is mirrored does not turn it round, as clocks are not, either.
struct Ring {
    std::string id{};
    Source value{};
    Source max = 1;
    Pace pace{};       ///< when it may change
    Motions motion{};  ///< how value and maximum follow, in units of the value: a growing maximum is no loss
    BarTrail trail{};
    std::vector<Band> bands{};          ///< where it looks different
    std::vector<Trigger> effects{};     ///< what starts effects
    ClockKind clock = ClockKind::real;  ///< that pace, motion and fades follow
    WhenNoValue when_no_value = WhenNoValue::placeholder;
    Place place{.size = {64, 64}};
    std::string inside{};  ///< the panel that it stands in; empty is the screen
    std::string group{};   ///< shown, hidden, dimmed and snapped with it
    float start = 0;       ///< where it is empty: degrees clockwise from the top
    float sweep = 360;     ///< how far it reaches, degrees, -360 to 360; below zero it fills anticlockwise
    float thickness = 8;  ///< design pixels, from the outer edge inwards; at most the radius, which is a disc
    bool round_ends = false;  ///< of the fill and the background, where the sweep is less than all round
    Color color = rgb(0x38b6c9);
    Color background = rgb(0x000000, 0.45);
    int segments = 0;       ///< whole ones only, each lit or not; zero: one piece
    float segment_gap = 3;  ///< design pixels, at the outer edge
    int layer = 0;          ///< higher is drawn later
    Source visible{};       ///< shown while true; without a source, always
    friend bool operator==(const Ring&, const Ring&);
};

}  // namespace rapido
