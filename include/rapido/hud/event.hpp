// What happened in a frame.
#pragma once

#include <string>

#include "rapido/base/exported.hpp"
#include "rapido/base/units.hpp"
#include "rapido/value/kept_value.hpp"

namespace rapido RAPIDO_EXPORTED {

enum class EventKind : std::uint8_t {
    start,       ///< a timer began to run
    mark,        ///< a timer passed a mark; the detail is its time
    end,         ///< a timer reached its end
    skipped,     ///< more than can be told one by one, the detail is how many; or a message that waited too long
    empty,       ///< a value fell to zero or below; also, of markers, the `value_of` of a thing, on the screen or not
    full,        ///< a value reached its maximum
    band_enter,  ///< a value came into a band; the detail is its id
    band_leave,  ///< a value left a band; the detail is its id
    enter,       ///< a notice shows a message; the detail is the id of the message, or its text
    leave,       ///< a message begins to leave; the detail is the same
};

/// Something that happened, at its own time inside the frame. Events follow the truth, not what is shown.
struct Event {
    Nanoseconds time{0};  ///< when it happened, on the real clock
    std::string id{};     ///< the id of the timer, or the path of the element
    EventKind kind = EventKind::start;
    /// The seconds of a mark (`15`, `0.5`), a count, or the id of a band or a message (the text of a message without
    /// an id).
    std::string detail{};
    /// The key of the entry or thing that the element shows in a list or markers with a `key`, as the game gives it; else no value.
    KeptValue key{};
    friend RAPIDO_EXPORTED bool operator==(const Event&, const Event&);
};

/// A message that a notice shows from now on, to be spoken by a screen reader.
struct Announcement {
    std::string id{};    ///< the path of the notice
    std::string text{};  ///< in the language of the HUD; an image in it is its name
    int priority = 0;    ///< of the message: one above zero may interrupt what is being spoken
    friend RAPIDO_EXPORTED bool operator==(const Announcement&, const Announcement&);
};

/// Returns the word for a kind: "band_enter".
std::string_view to_string(EventKind kind);

}  // namespace rapido
