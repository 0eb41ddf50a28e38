// The lines of a recording, read.
#pragma once

#include <memory>
#include <string>
#include <vector>

#include "file/recording_json.hpp"
#include "hud/call.hpp"
#include "rapido/base/exported.hpp"
#include "rapido/recording.hpp"

namespace rapido RAPIDO_EXPORTED {

/// A call of the game.
struct CallLine {
    const CallKind* kind = nullptr;
    std::shared_ptr<void> given;  ///< the aggregate of that kind
    std::vector<RecordedName> names;
};

/// A frame.
struct FrameLine {
    struct Changed {
        std::string name;
        KeptValue value;
    };
    struct Entries {
        std::string name;
        std::size_t count = 0;
        std::vector<KeptValue> values;
        std::vector<WorldPoint> places;
    };
    struct Thing {
        std::uint64_t number = 0;
        WorldPoint place;
        std::vector<KeptValue> values;
    };
    struct TimerChange {
        std::string name;
        detail::TimerNumbers numbers;
        std::vector<TimerEvent> events;
    };
    Nanoseconds time{0}, game_time{0};
    std::vector<RecordedName> names;
    std::vector<TimerChange> timers;
    std::vector<Changed> values;
    std::vector<std::string> snap;
    std::vector<Entries> entries;
    std::vector<Thing> things;

    bool is_bare() const {
        return names.empty() && timers.empty() && values.empty() && snap.empty() && entries.empty() && things.empty();
    }
};

struct Recording::State {
    HudDefinition definition;
    std::vector<RecordedName> names;  ///< that are there from the beginning
    /// A call, or a frame; what a frame has read stands apart, as most have read little.
    struct Line {
        Nanoseconds time{0}, game_time{0};
        std::unique_ptr<CallLine> call{};
        std::unique_ptr<FrameLine> frame{};
    };
    std::vector<Line> lines;
    std::vector<std::size_t> frames;  ///< the lines that are frames
    Problems warnings;
};

/// Reads a recording of these calls.
Result<Recording> read_recording(std::string_view text, const std::string& name, CallKinds calls);
/// Reads one call, as a line of a recording has it; nothing for a line that is none. Problems have no place.
std::optional<Result<CallLine>> read_call(std::string_view line);

}  // namespace rapido
