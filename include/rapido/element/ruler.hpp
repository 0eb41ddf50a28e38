// A straight scale with a pointer, between two ends.
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

/// Another pointer on a scale: a target, the best so far.
struct RulerPointer {
    Source value{};
    Themed<Color> color = rgb(0xf2efe6, 0.6);
    float length = 7;  ///< the length of the triangle, design pixels; zero draws the line alone
    friend RAPIDO_EXPORTED bool operator==(const RulerPointer&, const RulerPointer&);
};

/// A straight scale with a pointer: cold to hot, back to front, early to late. A value outside of the scale is shown at its end;
/// without a value there is no pointer.
///
/// With `visible_span` it is a tape, such as that of a compass or an altitude: the pointer stays in the middle, and the scale runs below it. With
/// a `cycle` of the motion the tape goes round: behind 350 comes 0.
struct Ruler {
    std::string id{};
    Source value{};
    double min = 0;             ///< the value at which the scale begins
    Source max = 1;             ///< the value at which the scale ends
    Pace pace{};                ///< when the shown value may change
    Motions motion{};           ///< how value and maximum follow, in units of the value: a growing maximum is no loss
    std::vector<Band> bands{};  ///< ranges of the value in which the pointer looks different
    std::vector<Trigger> triggers{};    ///< what starts effects
    ClockKind clock = ClockKind::real;  ///< the clock that pace, motion and fades follow
    WhenNoValue when_no_value = WhenNoValue::placeholder;
    Place place{};                           ///< by itself 200 along its strip
    std::string inside{};                    ///< the panel that the element stands in; empty is the screen
    std::string group{};                     ///< the group that it is shown, hidden, dimmed and snapped with
    Direction direction = Direction::right;  ///< the direction in which the scale ends
    double visible_span =
        0;  ///< how much of the scale is seen at once, in units of the value; zero is all of it, at rest
    /// The value from which a fill reaches to the value, in both directions: 0 of -10 to 10. Without it there is no fill.
    std::optional<double> neutral{};
    /// Colors along the whole scale; with `neutral`, the color of the fill at the value.
    std::vector<ColorStop> colors{};
    float thickness = 10;      ///< the thickness of the strip, design pixels
    Themed<float> radius = 3;  ///< the radius of its corners
    float pointer = 9;         ///< the length of the triangle that points at the value; zero draws none
    /// Further pointers, below the one of the value; they do not move by `motion`.
    std::vector<RulerPointer> pointers{};
    Ticks ticks{};
    Themed<Color> color = rgb(0xf2efe6);             ///< the color of the pointer, and of the fill
    Themed<Color> background = rgb(0x000000, 0.45);  ///< the color of the strip where it has no other
    Amount opacity = 1;                              ///< 0 to 1, of it and of what stands inside
    Amount rotation = 0;  ///< degrees clockwise around its middle, of it and of what stands inside
    Amount scale = 1;     ///< of it and of what stands inside, around the point by which it is held in its place
    Shift shift{};        ///< how far it is drawn from its place, to the right and down, design pixels
    Blend blend = Blend::normal;  ///< how its colors are put over those below
    std::optional<Glow> glow{};   ///< a soft light around it
    int layer = 0;                ///< among siblings, a higher layer is drawn later
    Source visible{};             ///< the element is shown while this is true; without a source, always
    std::string enter{};          ///< the effect with which it becomes visible; empty means at once
    std::string leave{};          ///< the effect with which it becomes hidden; empty is `enter`, backwards
    friend RAPIDO_EXPORTED bool operator==(const Ruler&, const Ruler&);
};

}  // namespace rapido
