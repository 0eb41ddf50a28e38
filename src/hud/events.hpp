// What a frame tells the game.
#pragma once

#include <span>
#include <vector>

#include "hud/elements.hpp"
#include "hud/happenings.hpp"
#include "hud/lists.hpp"
#include "hud/notices.hpp"
#include "hud/readouts.hpp"
#include "hud/timers.hpp"
#include "rapido/hud/event.hpp"

namespace rapido {

/// Writes happenings as events, with the names of what they are about. Room for texts is used again.
class Events {
 public:
    void write(const Happenings& happenings, const Elements& elements, const Readouts& readouts, Timers& timers,
               const Notices& notices, const Lists& lists);
    /// Makes room for so many, so that the first busy frame does not allocate.
    void reserve(std::size_t count);
    /// Valid until the next frame.
    std::span<const Event> all() const { return std::span(events_).first(count_); }

 private:
    std::vector<Event> events_;
    std::size_t count_ = 0;
};

}  // namespace rapido
