// A bar that is filled as far as its value goes.
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "rapido/base/exported.hpp"
#include "rapido/base/themed.hpp"
#include "rapido/element/at_end.hpp"
#include "rapido/element/common.hpp"
#include "rapido/element/image_name.hpp"
#include "rapido/element/ticks.hpp"
#include "rapido/element/trigger.hpp"
#include "rapido/layout/place.hpp"
#include "rapido/look/band.hpp"
#include "rapido/motion/motion.hpp"
#include "rapido/motion/trail.hpp"
#include "rapido/pace/pace.hpp"
#include "rapido/time/clock.hpp"
#include "rapido/value/source.hpp"

namespace rapido RAPIDO_EXPORTED {

/// Where a part of a bar is.
enum class PartWhere : std::uint8_t {
    rest,  ///< from the end of the fill on: a shield, what a heal would give
    fill,  ///< the last part of the fill: what something would cost
    end,   ///< the last part of the whole bar: what is reserved and cannot be filled
};

/// Another amount in the same bar, in the same units. Parts of the same place follow each other. What does not fit behind
/// the fill lies over the end of it, so that it is always seen.
struct BarPart {
    Source value{};
    PartWhere where = PartWhere::rest;
    Themed<Color> color = rgb(0xf2efe6, 0.5);
    friend RAPIDO_EXPORTED bool operator==(const BarPart&, const BarPart&);
};

/// How an image fills a bar.
enum class ImageFill : std::uint8_t {
    reveal,   ///< it lies over the whole bar and is seen as far as the bar is filled
    stretch,  ///< it lies over the fill and grows with it
    tile,     ///< it is repeated, as high as the bar, as far as the bar is filled
};

/// Water, fuel, hull: a bar that shows the part of a maximum that there is. The fill is value over maximum, limited to 0 to 1;
/// no value, NaN, and a maximum that is zero, negative or not finite give an empty bar. The bar is honest to two design
/// pixels or a segment: a little always shows, and what is not full never looks full.
struct Bar {
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
    Place place{};         ///< by itself 160 x 12; 12 x 160 where it fills upwards or downwards
    std::string inside{};  ///< the panel that the element stands in; empty is the screen
    std::string group{};   ///< the group that it is shown, hidden, dimmed and snapped with
    Direction direction = Direction::right;
    Themed<Color> color = rgb(0x38b6c9);
    /// The color of the full end: a gradient over the whole bar, outside of bands.
    std::optional<Themed<Color>> end_color{};
    ImageName image{};                         ///< an image in place of the color of the fill
    ImageFill image_fill = ImageFill::reveal;  ///< how that image fills
    /// The color that the colors of the image are multiplied by; inside a band with a color it is that one.
    Themed<Color> image_color = rgb(0xffffff);
    /// How many pixels of that image along each edge keep their size: of the fill where it is stretched, of the whole where it is
    /// revealed. A tile has none.
    Insets slice{};
    bool smooth = true;  ///< whether pixels of the image are blended
    Themed<Color> background = rgb(0x000000, 0.45);
    Themed<float> radius = 3;  ///< the radius of the corners, at most half the smaller side
    float border = 0;          ///< the width of the line along the edge; zero draws none
    Themed<Color> border_color = rgb(0xf2efe6, 0.6);
    float padding = 0;      ///< the room between the border and the fill
    int segments = 0;       ///< how many segments there are, each lit or not; zero means one piece
    float segment_gap = 2;  ///< the gap between two segments, design pixels
    Ticks ticks{};          ///< lines across the bar; none is drawn at 0 and at the maximum
    std::vector<BarPart> parts{};
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
    friend RAPIDO_EXPORTED bool operator==(const Bar&, const Bar&);
};

}  // namespace rapido
