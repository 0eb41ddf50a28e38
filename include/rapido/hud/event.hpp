// What happened in a frame.
#pragma once

#include <string>

#include "rapido/base/units.hpp"

namespace rapido {

enum class EventKind : std::uint8_t {
    start,  ///< a timer began to run
    end,    ///< a timer reached its end
    empty,  ///< a value fell to zero or below
    full,   ///< a value reached its maximum
};

/// Something that happened, at its own time inside the frame. Values are the true ones, not the shown ones.
struct Event {
    Nanoseconds time{0};  ///< on the real clock
    std::string id;       ///< of the timer, or the path of the element
    EventKind kind = EventKind::start;
    friend bool operator==(const Event&, const Event&) = default;
};

/// "start", "end", "empty", "full".
std::string_view to_string(EventKind kind);

}  // namespace rapido
