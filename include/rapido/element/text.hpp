// A text with live values in it.
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "rapido/base/exported.hpp"
#include "rapido/base/themed.hpp"
#include "rapido/element/common.hpp"
#include "rapido/element/image_name.hpp"
#include "rapido/element/trigger.hpp"
#include "rapido/layout/glyph.hpp"
#include "rapido/layout/place.hpp"
#include "rapido/look/band.hpp"
#include "rapido/motion/motion.hpp"
#include "rapido/pace/pace.hpp"
#include "rapido/text/format.hpp"
#include "rapido/time/clock.hpp"
#include "rapido/value/source.hpp"

namespace rapido RAPIDO_EXPORTED {

/// Patterns for the plural categories of the language. The element's `format` is the category `other`; an empty pattern
/// means that `format` is used for that category, too.
struct PluralForms {
    std::string zero{};
    std::string one{};
    std::string two{};
    std::string few{};
    std::string many{};
    friend RAPIDO_EXPORTED bool operator==(const PluralForms&, const PluralForms&);
};

/// Where a text stands in a box that is wider than the text. In a mirrored layout `start` is on the right.
enum class TextAlign : std::uint8_t {
    automatic,  ///< on the side by which the box is anchored
    start,
    center,
    end,
    digits,  ///< decimal points stand below each other, in a column or a column of a grid
};

/// Whether lines are broken where there is no more room, as CSS `text-wrap` says. A line break in the text itself is one always.
enum class Wrap : std::uint8_t {
    nowrap,   ///< only where the text says so
    wrap,     ///< where a line is full
    balance,  ///< the same, with lines that are as equal as they can be
};

/// What happens to a text that is wider than its room (CSS `overflow`, `text-overflow`).
enum class Overflow : std::uint8_t {
    visible,   ///< it goes beyond its box
    clip,      ///< it is cut off at the edge
    ellipsis,  ///< as many characters as fit, and `…`
    shrink,    ///< the whole of it, smaller
};

/// How a digit goes to its next figure.
enum class DigitMotionKind : std::uint8_t {
    wheel,  ///< it turns, by way of the figures in between
    flip,   ///< it tips over like a plate
    slide,  ///< it leaves, and the next one comes behind it
};

/// Digits that move as things, from the one that stood there to the next: of one line in one look. The text itself is always the formatted one; at
/// rest it is drawn as any other. A digit that changes while it moves goes on from where it is. With a `motion` of the text, wheels are those of an
/// odometer: the last one runs with the value, and each other one turns while the one behind it goes from 9 to 0. What the number stands between moves
/// along, and places that come or go fade. With reduced motion, and after a snap, figures stand at once.
struct DigitMotion {
    DigitMotionKind kind = DigitMotionKind::wheel;
    Seconds duration{0.35};                 ///< of one digit, from one figure to the next; zero is at once
    Easing easing = Easing::ease_in_out();  ///< the shape of that
    Seconds stagger{0};                     ///< each digit begins so much later than the one behind it
    friend RAPIDO_EXPORTED bool operator==(const DigitMotion&, const DigitMotion&);
};

/// The image of a piece `{#name/}` by a value or by a source of its own. By a value: 0 is the first one, below it the first and beyond the last the last. The button of the
/// device that the player uses, the rank behind a name.
struct InlineImage {
    std::string name{};
    Source value{};
    std::vector<std::string> images{};  ///< PNG files in the folder of the HUD
    ImageName image{};                  ///< a source that gives the file, in place of value and images
    friend RAPIDO_EXPORTED bool operator==(const InlineImage&, const InlineImage&);
};

/// A counter, a score, a time or a caption: a pattern and the values that it shows. The element is as large as its text.
struct Text {
    std::string id{};
    Source value{};  ///< what `{}` shows; a caption has none
    Source max{};    ///< what `{max}` shows
    /// What other fields show: `{hp}` for `{{"hp", watch(hull)}}`; as they are, without motion.
    std::vector<NamedSource> values{};
    std::vector<InlineImage> inline_images{};  ///< images of the format that are chosen by a value
    std::string format = "{}";                 ///< see `Format`; a key into the translations
    PluralForms plural{};                      ///< other patterns for other plural categories
    std::string placeholder = "--";            ///< stands in place of a field that has no value
    Rounding rounding = Rounding::automatic;   ///< how the digits that are not shown are rounded
    int compact_digits = 0;                    ///< significant digits of `12.3K`, up to 15; zero writes numbers in full
    bool drop_zero_parts = false;              ///< a duration without its leading zero parts: `42`, `1:07`, `1:02:03`
    bool time_of_day = false;                  ///< hours begin again after 24
    Limits range{};    ///< what the value can be: the width of the widest text in it is reserved
    Pace pace{};       ///< when the shown value may change
    Motions motion{};  ///< how value and maximum follow, in units of the value: a growing maximum is no loss
    std::optional<DigitMotion> digit_motion{};  ///< how its digits change; without it, at once
    Seconds text_interval{0};           ///< while it moves, characters change at multiples of it; at rest at once
    std::vector<Band> bands{};          ///< ranges of the value in which the element looks different
    std::vector<Trigger> triggers{};    ///< what starts effects
    ClockKind clock = ClockKind::real;  ///< the clock that pace, motion and fades follow
    WhenNoValue when_no_value = WhenNoValue::placeholder;
    Place place{};
    std::string inside{};  ///< the panel that the element stands in; empty is the screen
    std::string group{};   ///< the group that it is shown, hidden, dimmed and snapped with
    /// The name of a style, or a source that gives one; what the style says counts in place of the fields below.
    Themed<std::string> style{};
    Themed<Color> color = rgb(0xf2efe6);
    Themed<std::string> font{};  ///< a family; empty is the HUD's
    int weight = 400;            ///< 1 to 1000, as in CSS
    bool italic = false;
    float size = 24;                                ///< design pixels per em
    float letter_spacing = 0;                       ///< design pixels more between two characters
    float line_height = 0;                          ///< in sizes of the font, as in CSS; zero is that of the font
    TextTransform transform = TextTransform::none;  ///< letters as they are drawn, by the rules of the language
    Wrap wrap = Wrap::nowrap;                       ///< whether lines are broken where `max_size` or the panel ends
    int max_lines = 0;  ///< up to 100, and the last one ends with `…`; zero is as many as there are
    std::optional<Outline> outline{};
    std::optional<Shadow> shadow{};
    TextAlign align = TextAlign::automatic;
    Overflow overflow = Overflow::visible;  ///< all but `visible` let a row make it narrower
    Amount opacity = 1;                     ///< 0 to 1, of it and of what stands inside
    Amount rotation = 0;                    ///< degrees clockwise around its middle, of it and of what stands inside
    Amount scale = 1;  ///< of it and of what stands inside, around the point by which it is held in its place
    Shift shift{};     ///< how far it is drawn from its place, to the right and down, design pixels
    Blend blend = Blend::normal;  ///< how its colors are put over those below
    std::optional<Glow> glow{};   ///< a soft light around it
    int layer = 0;                ///< among siblings, a higher layer is drawn later
    Source visible{};             ///< the element is shown while this is true; without a source, always
    std::string enter{};          ///< the effect with which it becomes visible; empty means at once
    std::string leave{};          ///< the effect with which it becomes hidden; empty is `enter`, backwards
    friend RAPIDO_EXPORTED bool operator==(const Text&, const Text&);
};

}  // namespace rapido
