// Numbers that pop up where something happened.
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "rapido/base/exported.hpp"
#include "rapido/base/themed.hpp"
#include "rapido/element/common.hpp"
#include "rapido/element/text.hpp"
#include "rapido/element/trigger.hpp"
#include "rapido/layout/place.hpp"
#include "rapido/time/clock.hpp"
#include "rapido/value/source.hpp"

namespace rapido RAPIDO_EXPORTED {

/// Which amounts are meant: all, those above zero, those below.
enum class Sign : std::uint8_t { any, positive, negative };

/// How amounts in a range look: a critical hit. Of those that an amount is in, the last counts, field by field.
struct PopUpBand {
    Sign sign = Sign::any;
    std::optional<double> above{};  ///< amounts of this and more, without their sign
    std::optional<double> below{};  ///< amounts of this and less
    std::optional<Themed<Color>> color{};
    std::string format{};  ///< replaces the format
    float scale = 1;       ///< how much larger
    friend RAPIDO_EXPORTED bool operator==(const PopUpBand&, const PopUpBand&);
};

/// Damage, gains, scores: numbers that appear at a point of the world or of the screen by `Hud::pop_up`, rise, and fade. However many there
/// are in a frame, no more than `at_most` are drawn: the oldest make room. Amounts of one sign that come nearly at once and nearly at one place
/// are one number, which counts up.
struct PopUps {
    std::string id{};
    std::string format = "{}";  ///< a pattern, see `Format`; a key into the translations
    int at_most = 64;           ///< 1 to 500
    Seconds show_for{1};        ///< how long a number is seen
    float rise = 48;            ///< how far it rises in that time, design pixels; below zero it falls
    float spread = 12;          ///< how far to the sides numbers start, so that they do not cover each other
    float start_scale = 1.3F;   ///< how much larger a number is when it appears, for a tenth of its time
    Seconds merge_time{0.15};   ///< within this time
    float merge_distance = 24;  ///< and this distance on the screen, design pixels, amounts become one
    std::vector<PopUpBand> bands{};
    ClockKind clock = ClockKind::real;  ///< the clock on which they rise
    Themed<Color> color = rgb(0xf2efe6);
    Themed<std::string> font{};  ///< a family; empty is the HUD's
    int weight = 700;            ///< 1 to 1000, as in CSS
    bool italic = false;
    float size = 20;                                ///< design pixels per em
    float letter_spacing = 0;                       ///< design pixels more between two characters
    float line_height = 0;                          ///< in sizes of the font, as in CSS; zero is that of the font
    TextTransform transform = TextTransform::none;  ///< letters as they are drawn, by the rules of the language
    Wrap wrap = Wrap::nowrap;                       ///< whether lines are broken where `max_size` ends
    int max_lines = 0;  ///< up to 100, and the last one ends with an ellipsis; zero is as many as there are
    std::optional<Outline> outline{};
    std::optional<Shadow> shadow{};
    std::vector<Trigger> triggers{};  ///< what starts effects, which move all of them
    Place place{};                    ///< does not count: they stand where the world is seen
    std::string inside{};             ///< the panel that the element stands in; empty is the screen
    std::string group{};              ///< the group that it is shown, hidden and dimmed with
    Amount opacity = 1;               ///< 0 to 1, of all of them
    Amount rotation = 0;              ///< degrees clockwise around its middle
    Amount scale = 1;                 ///< of all of them, around the point by which it is held in its place
    Shift shift{};                    ///< how far it is drawn from its place, to the right and down, design pixels
    Blend blend = Blend::normal;      ///< how its colors are put over those below
    std::optional<Glow> glow{};       ///< a soft light around it
    int layer = 0;                    ///< among siblings, a higher layer is drawn later
    Source visible{};                 ///< they are shown while this is true; without a source, always
    std::string enter{};              ///< the effect with which it becomes visible; empty means at once
    std::string leave{};              ///< the effect with which it becomes hidden; empty is `enter`, backwards
    friend RAPIDO_EXPORTED bool operator==(const PopUps&, const PopUps&);
};

/// One amount, for `Hud::pop_up`.
struct PopUp {
    WorldPoint at{};                   ///< where it happened in the world: `world_point(hit)`
    std::optional<Point> on_screen{};  ///< replaces `at` by a point of the screen, design pixels
    Value value{};                     ///< a text is shown as it is, and is not merged
    friend RAPIDO_EXPORTED bool operator==(const PopUp&, const PopUp&);
};

}  // namespace rapido
