// What enters a HUD, for whoever writes it down.
#pragma once

#include <cstdint>
#include <optional>
#include <span>
#include <string>
#include <string_view>
#include <variant>
#include <vector>

#include "rapido/hud/definition.hpp"
#include "rapido/layout/camera.hpp"
#include "rapido/layout/place.hpp"
#include "rapido/text/language.hpp"
#include "rapido/time/game_timer.hpp"
#include "rapido/value/entries.hpp"

namespace rapido {

struct FrameCost;

/// A name that a HUD reads from now on: one that the game has set, or one that a recording gives to what is bound, `path.field`. A name
/// that is told again is bound anew.
struct RecordedName {
    std::string name{};
    std::optional<Value::Type> type{};  ///< where it is fixed
    detail::ValueUse use = detail::ValueUse::amount;
    /// The fields of a container; nothing for all else.
    std::optional<std::vector<detail::EntryReader::Field>> fields{};
    bool has_places = false;  ///< whether its entries stand somewhere in the world
    /// Of a timer of the game; nothing for all else.
    std::optional<TimerKind> timer{};
    ClockKind clock = ClockKind::game;
};

/// One call of the game that has been obeyed. What it points at is valid in `Recorder::call` alone.
struct RecordedCall {
    std::string_view name{};     ///< of the function, such as `play`
    std::string_view element{};  ///< its path; empty where the call is of no element
    std::string_view
        text{};  ///< the effect, group, message, theme, format, language or timer that the call names
    std::optional<double> number{};  ///< the strength, opacity or scale
    std::optional<bool> flag{};      ///< whether something is visible, or motion reduced
    std::optional<std::uint64_t>
        thing{};                        ///< the number of a thing that is tagged: they are counted from 0 on
    Value value{};                      ///< what a message or a number that pops up shows
    std::optional<Value::Type> type{};  ///< of the source of that value, where it is fixed
    detail::ValueUse use = detail::ValueUse::amount;  ///< what the value is for
    /// The rest of what it was given. A definition holds what `add` adds, or the one element of `change`, with names in place of what is
    /// bound.
    std::variant<std::monostate, const HudDefinition*, const Message*, const Place*, const Viewport*,
                 const Camera*, const Themed<Color>*, const Pop*, const FrameCost*, const TimerState*,
                 const FlashSettings*>
        detail{};
    std::span<const RecordedName> names{};  ///< that are there from now on
};

/// What one frame has read.
struct RecordedFrame {
    struct Changed {
        std::string_view name;
        Value value;
        bool snaps = false;  ///< the value came with a snap
    };
    struct Entries {
        std::string_view name;
        std::size_t count = 0;
        std::span<const KeptValue> values;  ///< entry by entry, all fields of each
        std::span<const WorldPoint> places;
    };
    struct Thing {
        std::uint64_t number = 0;
        WorldPoint place;
        std::span<const KeptValue> values;
    };
    /// What the game has done to a timer since the last frame.
    struct TimerChange {
        std::string_view name;
        detail::TimerNumbers numbers;
        std::span<const TimerEvent> events;
    };
    Nanoseconds time{0}, game_time{0};  ///< of both clocks, at the end of the frame
    std::span<const RecordedName> names{};
    std::span<const TimerChange> timers{};  ///< these come before all else
    std::span<const Changed> values{};      ///< that are other than in the frame before
    std::span<const Entries> entries{};
    std::span<const Thing> things{};
};

/// Is told all that enters a HUD: see `Hud::record`. `RecordingWriter` of rapido/recording.hpp writes it into a file.
class Recorder {
 public:
    virtual ~Recorder() = default;
    /// The HUD as it was made, with names in place of what is bound.
    virtual void begin(const HudDefinition& definition, std::span<const RecordedName> names) = 0;
    virtual void call(const RecordedCall& call) = 0;
    virtual void frame(const RecordedFrame& frame) = 0;
};

}  // namespace rapido
