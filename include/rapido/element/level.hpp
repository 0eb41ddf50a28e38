// A shape or an image that is filled up to a level.
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "rapido/base/exported.hpp"
#include "rapido/base/themed.hpp"
#include "rapido/element/at_end.hpp"
#include "rapido/element/bar.hpp"
#include "rapido/element/common.hpp"
#include "rapido/element/image.hpp"
#include "rapido/element/image_name.hpp"
#include "rapido/element/trigger.hpp"
#include "rapido/layout/place.hpp"
#include "rapido/look/band.hpp"
#include "rapido/motion/motion.hpp"
#include "rapido/pace/pace.hpp"
#include "rapido/time/clock.hpp"
#include "rapido/value/source.hpp"

namespace rapido RAPIDO_EXPORTED {

/// How a fill fraction maps to the shape.
enum class FillBy : std::uint8_t {
    extent,  ///< by height: half a fill reaches half of the way from the empty end to the full one, as on a measuring glass
    area,  ///< by area: half a fill covers half of the area of the shape
};

/// A moving surface of the fill. It is flatter near the empty and the full end, and flat with reduced motion.
struct Wave {
    float height = 0;   ///< the height of a crest above rest, design pixels; zero is flat
    float length = 40;  ///< the distance from crest to crest, design pixels
    Seconds period{2};  ///< the time from crest to crest; below zero the wave runs the other way, zero is flat
    friend bool operator==(const Wave&, const Wave&) = default;
};

/// A tank, a drop, a flask, a thermometer: a shape or an image that is filled as far as the value goes. The fill, and what is
/// shown without a value, are those of a `Bar`. The fill is honest to two design pixels, and to as much area as is seen at a
/// glance where the shape is narrow.
struct Level {
    std::string id{};
    Source value{};
    double min = 0;  ///< the value at which the shape is empty
    Source max = 1;
    Pace pace{};       ///< when the shown value may change
    Motions motion{};  ///< how value and maximum follow, in units of the value: a growing maximum is no loss
    Trail trail{};
    AtEnd at_end{};                     ///< an element that rides at the end of the fill
    std::vector<Band> bands{};          ///< ranges of the value in which the element looks different
    std::vector<Trigger> triggers{};    ///< what starts effects
    ClockKind clock = ClockKind::real;  ///< the clock that pace, motion, fades, waves and frames follow
    WhenNoValue when_no_value = WhenNoValue::placeholder;
    Place place{};         ///< by itself 64 x 64
    std::string inside{};  ///< the panel that the element stands in; empty is the screen
    std::string group{};   ///< the group that it is shown, hidden, dimmed and snapped with
    Shape shape = Shape::circle;
    /// Replaces `shape` by a polygon: its 3 to 256 corners as fractions of the box, y down. Empty means `shape` counts.
    std::vector<Point> corners{};
    ImageName image{};          ///< replaces `shape`: an image that is revealed up to the level
    std::string empty_image{};  ///< the same image empty, drawn below it
    ImageFit image_fit =
        ImageFit::contain;  ///< how the image, the mask or the fill map fills the box; what is outside of it is cut off
    /// How many pixels of both along each edge keep their size, so that they fill the whole box, as of an `Image`.
    Insets slice{};
    std::string mask{};  ///< replaces `shape`: an image that is filled with `color` where it is opaque
    /// A gray image that says at which fill each of its pixels is reached: black is empty, white is full. It replaces direction and
    /// shape; what is filled is `image`, or without one `color` as far as the map is opaque.
    std::string fill_map{};
    float fill_map_softness = 0.02F;  ///< how soft the edge of such a fill is, as a part of the way
    Frames frames{};                  ///< the frames of `image`
    Direction direction = Direction::up;
    FillBy fill_by = FillBy::extent;
    Wave wave{};
    Themed<Color> color = rgb(0x38b6c9);  ///< the color of the fill, which those of an image are multiplied by
    /// The color of the full end of a shape: a gradient over the whole shape, outside of bands.
    std::optional<Themed<Color>> end_color{};
    Themed<Color> background = rgb(0x000000, 0.45);  ///< the color of a shape and a mask where they are not filled
    float border = 0;                                ///< the width of the line along a shape; zero draws none
    Themed<Color> border_color = rgb(0xf2efe6, 0.6);
    /// The room between that line and the fill; for an image that fills by level, the room before the empty end and behind
    /// the full one.
    float padding = 0;
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
    friend RAPIDO_EXPORTED bool operator==(const Level&, const Level&);
};

}  // namespace rapido
