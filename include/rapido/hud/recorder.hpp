// What enters a HUD, for whoever writes it down.
#pragma once

#include <cstdint>
#include <optional>
#include <span>
#include <string>
#include <string_view>
#include <vector>

#include "rapido/base/exported.hpp"
#include "rapido/hud/definition.hpp"
#include "rapido/layout/camera.hpp"
#include "rapido/time/game_timer.hpp"
#include "rapido/value/entries.hpp"

namespace rapido RAPIDO_EXPORTED {

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
    std::uint64_t starts = 0;  ///< how many times that had been started when the HUD came to know it
};

struct CallKind;

/// One call of the game that has been obeyed: a recorder of your own hands it on to a `RecordingWriter`. What it points at is valid in `Recorder::call` alone.
struct RecordedCall {
    const CallKind* kind = nullptr;  ///< which call it is, and what it was given
    const void* given = nullptr;
    std::span<const RecordedName> names{};  ///< that are there from now on

    std::string_view name() const;  ///< of the function, such as `play`
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

/// Is told all that enters a HUD: see `rapido::record`. `RecordingWriter` of rapido/recording.hpp writes it into a file.
class Recorder {
 public:
    virtual ~Recorder() = default;
    /// The HUD as it was made, with names in place of what is bound.
    virtual void begin(const HudDefinition& definition, std::span<const RecordedName> names) = 0;
    virtual void call(const RecordedCall& call) = 0;
    virtual void frame(const RecordedFrame& frame) = 0;
};

}  // namespace rapido
