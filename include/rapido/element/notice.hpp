// Messages that appear, stay long enough to be read, and leave.
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
#include "rapido/look/band.hpp"
#include "rapido/look/reading_time.hpp"
#include "rapido/motion/motion.hpp"
#include "rapido/value/source.hpp"

namespace rapido RAPIDO_EXPORTED {

/// One message of a notice. It is posted by `when`, by `on`, or by `Hud::notify`.
struct Message {
    std::string id{};               ///< for `Hud::notify`, `Hud::dismiss` and the events; may be empty
    std::string text{};             ///< a pattern, see `Format`; a key into the translations
    Source value{};                 ///< what `{}` shows, live while it is on screen; of `Hud::notify` as it is then
    Source when{};                  ///< posted each time this becomes true; a lasting one leaves when it is false
    std::optional<TriggerOn> on{};  ///< posted by an event; all but `gain` and `loss`
    /// The path, or the only id, of which element, for `empty`, `full`, `band_enter` and `band_leave`.
    std::string element{};
    std::string band{};           ///< which one, for `band_enter` and `band_leave`; empty is any
    std::string timer{};          ///< which one, for `start`, `mark` and `end`
    std::optional<Seconds> at{};  ///< which mark; without it, any
    int priority = 0;             ///< a message of higher priority goes first, and interrupts one of lower priority
    bool lasting = false;         ///< stays until it is taken away: a banner
    std::optional<Seconds> show_for{};     ///< the time on screen; without it, as long as the text takes to read
    Seconds expires{10};                   ///< it is skipped when it has waited for so long; zero: never
    std::optional<Themed<Color>> color{};  ///< instead of the notice's
    friend RAPIDO_EXPORTED bool operator==(const Message&, const Message&);
};

/// On which side of the messages that are shown already a new one appears.
enum class Newest : std::uint8_t { last, first };

/// A plate that shows messages, one at a time. It is hidden while there is no message, and as large as the message. See
/// `NoticeQueue` for the order of messages.
///
/// With `at_most` it is a log: a column of so many plates, its elements `1`, `2` and so on, each as large as its message. A message is said by a
/// plate that is free, else by one that shows a message of lower priority, else by the one for which the fewest wait. Events have the id
/// of the log. What stands inside besides is above the messages.
struct Notice {
    std::string id{};
    std::vector<Message> messages{};             ///< what it can say of itself
    std::vector<InlineImage> inline_images{};    ///< images of the messages that are chosen by a value
    std::string enter = "fade";                  ///< an effect, on appearing; empty for none
    std::string leave = "fade";                  ///< an effect, backwards, on leaving; empty for none
    Seconds time_between{0.25};                  ///< between two messages of one plate; of a log, none
    ReadingTime reading{};                       ///< how long a message stays
    bool show_count = true;                      ///< ` ×3` behind one that stands for three equal ones
    int at_most = 1;                             ///< how many messages are shown at once, 1 to 50; fixed while it runs
    Newest newest = Newest::last;                ///< of several, where a new one appears
    float gap = 4;                               ///< between two of them, design pixels
    Motion place_motion = tween(Seconds{0.25});  ///< how they make room for each other
    std::vector<Band> bands{};                   ///< conditions in which it looks different
    std::vector<Trigger> triggers{};             ///< what starts effects
    Place place{};                               ///< without an anchor, at the top, 96 design pixels below the edge
    Insets padding{10, 18, 10, 18};              ///< between the edges and the text
    Themed<Color> color = rgb(0xf2efe6);         ///< the color of the text
    Themed<Color> background = rgb(0x10161c, 0.8);
    Themed<float> radius = 6;    ///< the radius of the corners, at most half the smaller side
    float border = 0;            ///< the width of the line along the edge, in the color of the text; zero draws none
    Themed<std::string> font{};  ///< a family; empty is the HUD's
    int weight = 600;            ///< 1 to 1000, as in CSS
    bool italic = false;
    float size = 22;                                ///< design pixels per em
    float letter_spacing = 0;                       ///< design pixels more between two characters
    float line_height = 0;                          ///< in sizes of the font, as in CSS; zero is that of the font
    TextTransform transform = TextTransform::none;  ///< letters as they are drawn, by the rules of the language
    Wrap wrap = Wrap::nowrap;                       ///< whether lines are broken where `max_size` or the panel ends
    int max_lines = 0;  ///< up to 100, and the last one ends with `…`; zero is as many as there are
    std::optional<Outline> outline{};
    std::optional<Shadow> shadow{};
    std::string inside{};  ///< the panel that the element stands in; empty is the screen
    /// The group that it is shown, hidden and dimmed with; while it is hidden nothing new appears.
    std::string group{};
    Amount opacity = 1;   ///< 0 to 1, of it and of what stands inside
    Amount rotation = 0;  ///< degrees clockwise around its middle, of it and of what stands inside
    Amount scale = 1;     ///< of it and of what stands inside, around the point by which it is held in its place
    Shift shift{};        ///< how far it is drawn from its place, to the right and down, design pixels
    Blend blend = Blend::normal;  ///< how its colors are put over those below
    std::optional<Glow> glow{};   ///< a soft light around it
    int layer = 0;                ///< among siblings, a higher layer is drawn later
    Source visible{};             ///< the same for it alone
    friend RAPIDO_EXPORTED bool operator==(const Notice&, const Notice&);
};

}  // namespace rapido
