// What a HUD is made of, before it runs.
#pragma once

#include <functional>
#include <map>
#include <optional>
#include <string>
#include <utility>
#include <vector>

#include "rapido/base/exported.hpp"
#include "rapido/base/problem.hpp"
#include "rapido/element/common.hpp"
#include "rapido/element/element.hpp"
#include "rapido/element/text_style.hpp"
#include "rapido/layout/place.hpp"
#include "rapido/look/effect.hpp"
#include "rapido/look/flash_settings.hpp"
#include "rapido/time/game_timer.hpp"
#include "rapido/value/kept_value.hpp"

namespace rapido RAPIDO_EXPORTED {

enum class TimerKind : std::uint8_t { countdown, stopwatch };

/// A timer that the HUD advances itself; see `GameTimer`. It gives the sources `ID.left`, `ID.elapsed`,
/// `ID.duration` (durations; a stopwatch without a duration has no time left) and `ID.running` (a flag), and the
/// events `start`, `mark` and `end`, the last two at their exact time.
struct Timer {
    std::string id{};
    TimerKind kind = TimerKind::countdown;
    std::optional<Seconds> duration{};  ///< without it, a countdown takes a minute and a stopwatch has no end
    Seconds elapsed{0};                 ///< the time that a stopwatch begins at
    /// The timer runs from the full duration each time this becomes true; without a source, from the time at which the
    /// HUD was made.
    Source start_when{};
    Source pause_when{};        ///< the timer stands still while this is true
    Source speed{};             ///< how fast the timer runs; without a source, 1
    bool loop = false;          ///< the timer begins again at its end
    std::vector<Mark> marks{};  ///< moments that are reported
    ClockKind clock = ClockKind::game;
    friend RAPIDO_EXPORTED bool operator==(const Timer&, const Timer&);
};

/// Gives the sources `ID.rate`, the frames a second by the real clock, which has no value until the first interval has passed,
/// `ID.frame_time`, the duration of the last frame, `ID.average` and `ID.worst`, the average and the longest of the last interval, and
/// `ID.low`, the frames a second of the frame that is longer than 99 % of the last thousand (the 1 % low).
struct FrameMeter {
    std::string id{};
    Seconds interval{0.5};  ///< the time over which frames are counted, at least a millisecond
    friend RAPIDO_EXPORTED bool operator==(const FrameMeter&, const FrameMeter&);
};

/// Elements that are shown, hidden, dimmed and snapped together: a cutscene, a menu, spectating.
struct Group {
    std::string id{};
    Source visible{};     ///< the elements of the group are shown while this is true; without a source, always
    Source dimmed{};      ///< they are dimmed while this is true
    float dim = 0.35F;    ///< the opacity of dimmed elements, 0 to 1
    std::string enter{};  ///< the effect with which its elements become visible with it
    std::string leave{};  ///< the effect with which they become hidden; empty is `enter`, backwards
    friend RAPIDO_EXPORTED bool operator==(const Group&, const Group&);
};

/// Colors, fonts and radii by name. A field that names one shows the value of the theme that the HUD uses: the first one, until
/// `Hud::set_theme`.
struct Theme {
    std::string id{};
    std::map<std::string, Color, std::less<>> color{};
    std::map<std::string, std::string, std::less<>> font{};  ///< families, or lists of families
    std::map<std::string, float, std::less<>> radius{};      ///< of corners, in design pixels
    friend RAPIDO_EXPORTED bool operator==(const Theme&, const Theme&);
};

/// What is different in the languages of a tag: `ja` counts for `ja-JP`, too.
struct LanguageOptions {
    std::string language{};  ///< a BCP 47 tag
    std::string font{};      ///< a family or a list of families, which replaces the HUD's; empty keeps it
    std::vector<std::string> compact_names{};  ///< replace those of the HUD and of the language, unless empty
    friend RAPIDO_EXPORTED bool operator==(const LanguageOptions&, const LanguageOptions&);
};

/// What a value of the game is.
enum class SourceType : std::uint8_t {
    number,   ///< a real number
    integer,  ///< a whole number
    flag,     ///< true or false
    text,
    time,     ///< a duration or a time of day, in seconds where it is written as a number
    entries,  ///< a container of things, each with the same fields, for lists and markers
    color,    ///< a `Color`, "#rrggbb", or a name of the theme
    image,    ///< the file of an image
};
/// Whether it is given as a text.
constexpr bool is_text(SourceType type) {
    return type == SourceType::text || type == SourceType::color || type == SourceType::image;
}

/// What a HUD expects of the game under a name: `[source."plane.water"]` in a file. From it come a preview without the game (`rapido play
/// --ranges`) and the list of names (`rapido sources`). Until the game offers the name, the readouts that ask for it have no value, and that is no
/// problem.
struct DeclaredSource {
    std::string name{};
    SourceType type = SourceType::number;
    /// What a number, an integer or a time can be, in its own units, and how many entries there can be; equal bounds mean that none is
    /// declared.
    Limits range{};
    std::vector<KeptValue> sample{};  ///< what it may be, the usual one first; of entries, how many there may be
    std::string unit{};               ///< such as `L`, for who reads the list of names
    /// Of entries: what each has. The numbers `x`, `y` and perhaps `z` are its place in the world.
    std::vector<DeclaredSource> fields{};
    friend bool operator==(const DeclaredSource&, const DeclaredSource&) = default;
};

/// What `rapido check` may find, and says no more: it is meant so.
struct Accepted {
    std::string element{};  ///< the path of the element that it is found at; empty for what belongs to no element
    std::string code{};     ///< the word in brackets, such as `overlap`
    std::string why{};      ///< for who reads the list
    friend RAPIDO_EXPORTED bool operator==(const Accepted&, const Accepted&);
};

/// Where something was written, and each of its fields by its name (`motion.easing` for one in a table).
struct Locations {
    Location location{};
    std::vector<std::pair<std::string, Location>> fields{};

    /// Returns the place of a field; if it was not written, that of the table or list around it, or of the whole.
    const Location& of(std::string_view field) const;
};

/// Everything that a HUD file says. A source in it is a name, or bound by `watch`. Two definitions are equal
/// if they say the same, wherever they were written.
struct HudDefinition {
    Size design{1280, 720};    ///< in design pixels: the screen that offsets and sizes were chosen for
    Fit fit = Fit::edges;      ///< how the design is fitted to a window
    bool whole_scale = false;  ///< only whole scales and their reciprocals are used, for pixel art
    Insets margin{};           ///< the distance between the edges and the anchors, in design pixels
    bool mirror = true;        ///< left and right change places in languages that are written from right to left
    FlashRule flash_limit = FlashRule::area;  ///< which flashes count; see docs/effects.md
    Themed<std::string> font = "sans-serif";  ///< the family of texts that name none, or a list: `Inter, Noto Sans`
    /// For each field the last that fits the language and has it counts.
    std::vector<LanguageOptions> languages{};
    /// Names of one's own in compact numbers, each for three more powers of ten: `["k", "M", "G"]`. Empty means those of the
    /// language.
    std::vector<std::string> compact_names{};
    /// In the folder of the HUD, for whoever makes its fonts: see `Fonts::add_files`.
    std::vector<std::string> font_files{};
    std::vector<TextStyle> styles{};  ///< for pieces of texts
    std::vector<Theme> themes{};      ///< a name that one of them lacks is that of the first
    std::vector<DeclaredSource> sources{};
    std::vector<Timer> timers{};
    std::vector<FrameMeter> frame_meters{};
    std::vector<Effect> effects{};  ///< besides the built-in ones; one with the same id replaces it
    std::vector<Group> groups{};
    std::vector<Accepted> accept{};   ///< for `rapido check`; a HUD takes no notice of it
    std::vector<Element> elements{};  ///< their order is the draw order within a layer

    // Where it was written: this does not count where two definitions are compared.
    std::vector<std::string> files{};  ///< the HUD file and those that it includes; empty where it was written in C++
    // As long as what they belong to, or empty where it was written in C++.
    Locations locations{};
    std::vector<Locations> style_locations{};
    std::vector<Locations> theme_locations{};
    std::vector<Locations> source_locations{};
    std::vector<Locations> timer_locations{};
    std::vector<Locations> frame_meter_locations{};
    std::vector<Locations> effect_locations{};
    std::vector<Locations> group_locations{};
    std::vector<Locations> language_locations{};
    std::vector<Locations> accept_locations{};
    std::vector<Locations> element_locations{};

    friend RAPIDO_EXPORTED bool operator==(const HudDefinition& a, const HudDefinition& b);
};

}  // namespace rapido
