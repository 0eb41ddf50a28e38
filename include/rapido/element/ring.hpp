// A ring, or a part of one, that is filled as far as its value goes.
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "rapido/base/exported.hpp"
#include "rapido/base/themed.hpp"
#include "rapido/element/at_end.hpp"
#include "rapido/element/bar.hpp"
#include "rapido/element/common.hpp"
#include "rapido/element/trigger.hpp"
#include "rapido/layout/place.hpp"
#include "rapido/look/band.hpp"
#include "rapido/motion/motion.hpp"
#include "rapido/pace/pace.hpp"
#include "rapido/time/clock.hpp"
#include "rapido/value/source.hpp"

namespace rapido RAPIDO_EXPORTED {

/// Fuel, a cool-down, what is left of a countdown. The ring is as large as fits its box, in the middle of the box. The fill, and
/// what is shown without a value, are those of a `Bar`. A mirrored layout does not mirror the ring, as it does not mirror clocks.
struct Ring {
    std::string id{};
    Source value{};
    Source max = 1;
    Pace pace{};       ///< when the shown value may change
    Motions motion{};  ///< how value and maximum follow, in units of the value: a growing maximum is no loss
    Trail trail{};
    AtEnd at_end{};                     ///< an element that rides at the end of the fill
    std::vector<Band> bands{};          ///< ranges of the value in which the element looks different
    std::vector<Trigger> triggers{};    ///< what starts effects
    ClockKind clock = ClockKind::real;  ///< the clock that pace, motion and fades follow
    WhenNoValue when_no_value = WhenNoValue::placeholder;
    Place place{};         ///< by itself 64 x 64
    std::string inside{};  ///< the panel that the element stands in; empty is the screen
    std::string group{};   ///< the group that it is shown, hidden, dimmed and snapped with
    float start = 0;       ///< the angle at which the ring begins, degrees clockwise from the top
    float sweep = 360;     ///< how far the ring reaches, -360 to 360 degrees; below zero it fills anticlockwise
    float thickness = 8;   ///< design pixels, from the outer edge inwards; at most the radius, which makes a disc
    bool round_ends =
        false;  ///< whether the ends of fill and background are round, if the sweep is less than all round
    Themed<Color> color = rgb(0x38b6c9);
    Themed<Color> background = rgb(0x000000, 0.45);
    int segments = 0;       ///< how many segments there are, each lit or not; zero means one piece
    float segment_gap = 3;  ///< the gap between two segments at the outer edge, design pixels
    Amount opacity = 1;     ///< 0 to 1, of it and of what stands inside
    Amount rotation = 0;    ///< degrees clockwise around its middle, of it and of what stands inside
    Amount scale = 1;       ///< of it and of what stands inside, around the point by which it is held in its place
    Shift shift{};          ///< how far it is drawn from its place, to the right and down, design pixels
    Blend blend = Blend::normal;  ///< how its colors are put over those below
    std::optional<Glow> glow{};   ///< a soft light around it
    int layer = 0;                ///< among siblings, a higher layer is drawn later
    Source visible{};             ///< the element is shown while this is true; without a source, always
    std::string enter{};          ///< the effect with which it becomes visible; empty means at once
    std::string leave{};          ///< the effect with which it becomes hidden; empty is `enter`, backwards
    friend RAPIDO_EXPORTED bool operator==(const Ring&, const Ring&);
};

}  // namespace rapido
