// One mark for each unit: crew, hearts, charges.
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "rapido/base/exported.hpp"
#include "rapido/base/themed.hpp"
#include "rapido/element/common.hpp"
#include "rapido/element/image.hpp"
#include "rapido/element/image_name.hpp"
#include "rapido/element/ticks.hpp"
#include "rapido/element/trigger.hpp"
#include "rapido/layout/place.hpp"
#include "rapido/look/band.hpp"
#include "rapido/motion/motion.hpp"
#include "rapido/pace/pace.hpp"
#include "rapido/time/clock.hpp"
#include "rapido/value/source.hpp"

namespace rapido RAPIDO_EXPORTED {

/// Pips of another kind behind the others, as many as their own value: a bonus, a guest aboard.
struct ExtraPips {
    Source value{};
    std::optional<Shape> shape{};  ///< replaces the shape of the others
    std::string image{};           ///< replaces the shape by an image
    Themed<Color> color = rgb(0xffc24a);
    friend RAPIDO_EXPORTED bool operator==(const ExtraPips&, const ExtraPips&);
};

/// An effect that runs over all full pips one after the other, again and again, in step with all others on this clock.
struct PipsInTurn {
    std::string effect{};  ///< empty for none
    Seconds every{6};      ///< it starts at multiples of this
    Seconds step{0.08};    ///< the time from one pip to the next
    friend RAPIDO_EXPORTED bool operator==(const PipsInTurn&, const PipsInTurn&);
};

/// As many pips as the maximum, as many of them full as the value: honest to a step, as a `Bar` is to its segments. More
/// than 200 cannot be counted by anyone: they are a problem, and shown as a bar.
struct Pips {
    std::string id{};
    Source value{};
    Source max{};               ///< without one there are as many as there are full ones
    Pace pace{};                ///< when the shown value may change
    Motions motion{};           ///< how value and maximum follow, in units of the value: a growing maximum is no loss
    std::vector<Band> bands{};  ///< ranges of the value in which the pips have another color
    std::vector<Trigger> triggers{};    ///< what starts effects on all of them as one
    ClockKind clock = ClockKind::real;  ///< the clock that pace, motion and fades follow
    WhenNoValue when_no_value = WhenNoValue::placeholder;
    Place place{};
    std::string inside{};  ///< the panel that the element stands in; empty is the screen
    std::string group{};   ///< the group that it is shown, hidden, dimmed and snapped with
    Shape shape = Shape::circle;
    ImageName image{};          ///< replaces the shape by an image of a full one; with frames, from empty to full
    std::string empty_image{};  ///< an image of an empty pip
    Frames frames{};            ///< the frames of `image`; their rate does not count
    ImageFit image_fit = ImageFit::contain;  ///< how an image fills `pip_size`; what is outside of it is cut off
    bool smooth = true;                      ///< whether pixels of images are blended; false takes the nearest one
    Size pip_size{20, 20};
    float gap = 6;    ///< between two pips, design pixels
    int per_row = 0;  ///< zero: all in one row
    int steps =
        1;  ///< in how many steps a pip becomes full: 1 for whole ones only, 2 for halves; zero means as far as the value says
    Direction direction = Direction::right;  ///< the way in which one becomes full
    std::vector<ExtraPips> extra{};
    std::string appear{};  ///< an effect on a pip that was not there; empty for none
    std::string gain{};    ///< an effect on what of a pip becomes full
    std::string loss{};    ///< an effect, backwards, on what was full
    PipsInTurn in_turn{};
    std::string last{};  ///< an effect on the one that is full alone, for as long as it is if it has no end
    /// The color of full pips from the pip of a number on, the first is 1; outside of bands.
    std::vector<ColorStop> colors{};
    Themed<Color> color = rgb(0xf2efe6);  ///< the color of full pips, which those of an image are multiplied by
    Themed<Color> background = rgb(0x000000, 0.45);  ///< the color of empty pips
    float border = 0;                                ///< the width of the line along each shape; zero draws none
    Themed<Color> border_color = rgb(0xf2efe6, 0.6);
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
    friend RAPIDO_EXPORTED bool operator==(const Pips&, const Pips&);
};

}  // namespace rapido
