#include "hud/event_list.hpp"

#include <algorithm>
#include <tuple>

namespace rapido {
namespace {

bool is_of_value(const Event& event) {
    return event.kind >= EventKind::empty;
}

}  // namespace

void EventList::clear() {
    events_.clear();
    is_ordered_ = true;
    overflowed_ = false;
}

void EventList::reserve(std::size_t count) {
    events_.reserve(count);
    ordered_.reserve(count);
    ranks_.reserve(count);
}

void EventList::add(Event event) {
    if (events_.size() == most) {
        overflowed_ = true;
        return;
    }
    if (!events_.empty()) {
        const Event& last = events_.back();
        is_ordered_ = is_ordered_ &&
                      std::pair(last.time, is_of_value(last)) <= std::pair(event.time, is_of_value(event));
    }
    events_.push_back(std::move(event));
}

std::span<const Event> EventList::all() {
    if (is_ordered_) return events_;
    ranks_.clear();
    for (std::uint32_t i = 0; i < events_.size(); ++i)
        ranks_.push_back({events_[i].time, is_of_value(events_[i]), i});
    std::sort(ranks_.begin(), ranks_.end(), [](const Rank& a, const Rank& b) {
        return std::tie(a.time, a.of_value, a.index) < std::tie(b.time, b.of_value, b.index);
    });
    ordered_.clear();
    for (const Rank& rank : ranks_)
        ordered_.push_back(std::move(events_[rank.index]));
    events_.swap(ordered_);
    is_ordered_ = true;
    return events_;
}

}  // namespace rapido
