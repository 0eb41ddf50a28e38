// The last seconds of a value.
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

enum class GraphType : std::uint8_t { line, area, columns };

/// A value over time, with the newest at the right end in every layout. The time is divided into `resolution` equal pieces, each of
/// which shows the smallest and the largest value in it, so that a peak of one frame is seen at every frame rate. Where there was
/// no value there is a gap.
struct Graph {
    std::string id{};
    Source value{};
    double min = 0;  ///< the value at the lower edge
    /// The value at the upper edge; without it, the largest in sight, rounded up to 1, 2 or 5 with zeros.
    Source max{};
    Pace pace{};                ///< when the shown value may change
    Motions motion{};           ///< how value and maximum follow, in units of the value: a growing maximum is no loss
    std::vector<Band> bands{};  ///< ranges of the value in which the graph has another color
    std::vector<Trigger> triggers{};    ///< what starts effects
    ClockKind clock = ClockKind::real;  ///< the clock along its lower edge
    WhenNoValue when_no_value = WhenNoValue::placeholder;
    Place place{};         ///< by itself 160 x 48
    std::string inside{};  ///< the panel that the element stands in; empty is the screen
    std::string group{};   ///< the group that it is shown, hidden, dimmed and snapped with
    Seconds span{10};      ///< the time from the left edge to the right edge
    int resolution = 120;  ///< how many pieces that time is divided into, 2 to 1000
    GraphType type = GraphType::area;
    float thickness = 1.5F;  ///< the thickness of the line, design pixels
    Ticks ticks{};           ///< lines across it at values, with numbers
    Themed<Color> color = rgb(0x38b6c9);
    Themed<Color> background = rgb(0x000000, 0.45);
    Amount opacity = 1;   ///< 0 to 1, of it and of what stands inside
    Amount rotation = 0;  ///< degrees clockwise around its middle, of it and of what stands inside
    Amount scale = 1;     ///< of it and of what stands inside, around the point by which it is held in its place
    Shift shift{};        ///< how far it is drawn from its place, to the right and down, design pixels
    Blend blend = Blend::normal;  ///< how its colors are put over those below
    std::optional<Glow> glow{};   ///< a soft light around it
    int layer = 0;                ///< among siblings, a higher layer is drawn later
    /// The graph is shown while this is true; without a source, always; a hidden one goes on recording.
    Source visible{};
    std::string enter{};  ///< the effect with which it becomes visible; empty means at once
    std::string leave{};  ///< the effect with which it becomes hidden; empty is `enter`, backwards
    friend RAPIDO_EXPORTED bool operator==(const Graph&, const Graph&);
};

}  // namespace rapido
