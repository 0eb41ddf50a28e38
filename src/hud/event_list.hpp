// The events of one frame, in their order.
#pragma once

#include <span>
#include <vector>

#include "rapido/hud/event.hpp"

namespace rapido {

/// Events are ordered by time, timers before values, and then as they came. They are appended as they come and ordered
/// when somebody reads them, so that many of them cost no more than sorting.
class EventList {
 public:
    /// One frame tells so many events; the others are lost, which `overflowed` says.
    static constexpr std::size_t most = 1000;

    void clear();
    void add(Event event);
    /// In order. Valid until the next change.
    std::span<const Event> all();
    std::span<const Event> all() const { return events_; }  ///< after they were put in order
    bool is_full() const { return events_.size() == most; }
    /// One more that is lost: its words need not be made.
    void lose() { overflowed_ = true; }
    bool overflowed() const { return overflowed_; }
    /// Room for a busy frame, so that the first one does not allocate.
    void reserve(std::size_t count);

 private:
    struct Rank {
        Nanoseconds time;
        bool of_value;
        std::uint32_t index;
    };

    std::vector<Event> events_;
    std::vector<Event> ordered_;
    std::vector<Rank> ranks_;
    bool is_ordered_ = true;
    bool overflowed_ = false;
};

}  // namespace rapido
