// A straight scale with a pointer, between two ends.
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

/// Cold to hot, back to front, early to late. A value outside of it is shown at its end; without a value there is no
/// pointer.
struct Scale {
    std::string id{};
    Source value{};
    double min = 0;    ///< where the scale begins
    Source max = 1;    ///< where it ends
    Pace pace{};       ///< when it may change
    Motions motion{};  ///< how value and maximum follow, in units of the value: a growing maximum is no loss
    std::vector<Band> bands{};          ///< where the pointer looks different
    std::vector<Trigger> effects{};     ///< what starts effects
    ClockKind clock = ClockKind::real;  ///< that pace, motion and fades follow
    WhenNoValue when_no_value = WhenNoValue::placeholder;
    Place place{.size = {200, 0}};
    std::string inside{};                    ///< the panel that it stands in; empty is the screen
    std::string group{};                     ///< shown, hidden, dimmed and snapped with it
    Direction direction = Direction::right;  ///< where the end is
    /// The other end of a fill that reaches to the value, both ways: 0 of -10 to 10. Without it there is none.
    std::optional<double> neutral{};
    std::vector<ColorStop> colors{};  ///< along the whole; with `neutral`, of the fill at the value
    float thickness = 10;             ///< of the strip, design pixels
    float radius = 3;                 ///< of its corners
    float pointer = 9;                ///< length of the triangle that points at the value; zero draws none
    ScaleMarks marks{};
    Color color = rgb(0xf2efe6);             ///< of the pointer, and of the fill
    Color background = rgb(0x000000, 0.45);  ///< of the strip, where it has no other
    int layer = 0;                           ///< higher is drawn later
    Source visible{};                        ///< shown while true; without a source, always
    friend bool operator==(const Scale&, const Scale&);
};

}  // namespace rapido
