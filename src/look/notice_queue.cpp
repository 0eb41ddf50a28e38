#include "rapido/look/notice_queue.hpp"

#include <algorithm>

#include "base/utf8.hpp"
#include "rapido/look/reading_time.hpp"

namespace rapido {

Seconds ReadingTime::of(std::string_view text) const {
    const auto characters = static_cast<double>(utf8::length(text));
    const Seconds read = attention + Seconds{speed > 0 ? characters / speed : 0};
    return std::max(shortest, std::min(read, longest));
}

Nanoseconds NoticeQueue::expiry(const Item& item) const {
    const bool never = item.message.lasting || item.message.expires <= Seconds{0};
    return never ? Nanoseconds::max() : item.posted + to_nanoseconds(item.message.expires);
}

std::vector<NoticeQueue::Item>::iterator NoticeQueue::next_waiting() {
    return std::max_element(waiting_.begin(), waiting_.end(),
                            [](const Item& a, const Item& b) { return a.message.priority < b.message.priority; });
}

void NoticeQueue::post(const PostedMessage& message, Nanoseconds now) {
    advance(now);
    const auto renew = [&](Item& item) {
        item.message = message;
        ++item.count;
    };
    for (Place& place : places_) {
        if (!place.says(message.key) || place.gone_at) continue;
        renew(*place.shown);
        const Nanoseconds appeared = std::max(now, place.entered + enter_);
        place.entered = appeared - enter_;
        place.leaves_at = message.lasting ? Nanoseconds::max() : appeared + to_nanoseconds(message.show_for);
        return;
    }
    const auto same = std::find_if(waiting_.begin(), waiting_.end(),
                                   [&](const Item& item) { return item.message.key == message.key; });
    if (same != waiting_.end()) {
        renew(*same);
        same->posted = now;
    } else {
        waiting_.push_back({message, now, 1});
        make_room(now);
    }
    make_way(message.priority, now);
    advance(now);
}

/// The least urgent message on screen leaves, the oldest one among equals, where one of this priority would have to wait for it.
void NoticeQueue::make_way(int priority, Nanoseconds now) {
    const auto is_usable = [](const Place& place) { return !place.is_closed && !place.holds; };
    const auto becomes_free = std::count_if(places_.begin(), places_.end(), [&](const Place& place) {
        return is_usable(place) && (!place.shown || place.gone_at);
    });
    const auto want_one = std::count_if(waiting_.begin(), waiting_.end(),
                                        [&](const Item& item) { return item.message.priority >= priority; });
    if (want_one <= becomes_free) return;
    Place* least = nullptr;
    for (Place& place : places_) {
        if (!is_usable(place) || !place.shown || place.gone_at) continue;
        const int own = place.shown->message.priority;
        if (own >= priority) continue;
        const int other = least != nullptr ? least->shown->message.priority : own;
        if (least == nullptr || own < other || (own == other && place.entered < least->entered)) least = &place;
    }
    if (least == nullptr) return;
    const bool is_unread =
        least->shown->message.lasting || now - least->entered < (least->leaves_at - least->entered) / 2;
    if (is_unread) waiting_.insert(waiting_.begin(), {least->shown->message, now, least->shown->count});
    begin_leaving(*least, now);
}

bool NoticeQueue::has_room_for(int priority) const {
    return waiting_.size() < most_waiting || std::any_of(waiting_.begin(), waiting_.end(), [&](const Item& item) {
               return item.message.priority < priority;
           });
}

/// The least urgent of those that wait, the latest one among equals, is left out where too many wait.
void NoticeQueue::make_room(Nanoseconds now) {
    if (waiting_.size() <= most_waiting) return;
    auto least = waiting_.begin();
    for (auto item = waiting_.begin(); item != waiting_.end(); ++item)
        if (item->message.priority < least->message.priority ||
            (item->message.priority == least->message.priority && item->posted >= least->posted))
            least = item;
    changes_.push_back({NoticeChange::Kind::skip, least->message.key, now});
    waiting_.erase(least);
}

void NoticeQueue::take_away(std::uint32_t key, Nanoseconds now) {
    advance(now);
    std::erase_if(waiting_, [&](const Item& item) { return item.message.key == key; });
    for (Place& place : places_)
        if (place.says(key) && !place.gone_at) begin_leaving(place, now);
    advance(now);
}

bool NoticeQueue::has(std::uint32_t key) const {
    return std::any_of(places_.begin(), places_.end(), [&](const Place& place) { return place.says(key); }) ||
           std::any_of(waiting_.begin(), waiting_.end(), [&](const Item& item) { return item.message.key == key; });
}

bool NoticeQueue::resting() const {
    return waiting_.empty() &&
           std::none_of(places_.begin(), places_.end(), [](const Place& place) { return place.shown.has_value(); });
}

void NoticeQueue::clear() {
    for (Place& place : places_) {
        place.shown.reset();
        place.gone_at.reset();
        place.free_at = Nanoseconds::min();
    }
    waiting_.clear();
}

void NoticeQueue::hold(bool holds, Nanoseconds now, std::size_t index) {
    Place& place = places_[index];
    if (holds == place.holds) return;
    advance(now);
    place.holds = holds;
    place.free_at = std::max(place.free_at, now);
    advance(now);
}

void NoticeQueue::close(std::size_t index) {
    places_[index] = {};
    places_[index].is_closed = true;
}

void NoticeQueue::tell(NoticeChange::Kind kind, const Place& place, Nanoseconds at) {
    changes_.push_back({kind, place.shown->message.key, at, static_cast<std::uint32_t>(&place - places_.data())});
}

void NoticeQueue::begin(Place& place, Nanoseconds at) {
    const auto next = next_waiting();
    place.shown = *next;
    waiting_.erase(next);
    place.entered = at;
    place.gone_at.reset();
    const PostedMessage& message = place.shown->message;
    place.leaves_at = message.lasting ? Nanoseconds::max() : at + enter_ + to_nanoseconds(message.show_for);
    tell(NoticeChange::Kind::enter, place, at);
}

void NoticeQueue::begin_leaving(Place& place, Nanoseconds at) {
    place.gone_at = at + leave_;
    tell(NoticeChange::Kind::leave, place, at);
}

/// When something happens in a place next.
Nanoseconds NoticeQueue::due(const Place& place) {
    if (place.is_closed) return Nanoseconds::max();
    if (place.shown) return place.gone_at.value_or(place.leaves_at);
    if (waiting_.empty() || place.holds) return Nanoseconds::max();
    return std::max(place.free_at, next_waiting()->posted);
}

/// What happens next, if it is not later than `now`.
bool NoticeQueue::step(Nanoseconds now) {
    Place* next = nullptr;
    Nanoseconds first = Nanoseconds::max();
    for (Place& place : places_) {
        const Nanoseconds at = due(place);
        // Of those that are free, the one that has been so for the longest time.
        const bool is_longer_free =
            next != nullptr && at == first && !place.shown && !next->shown && place.free_at < next->free_at;
        if (at >= first && !is_longer_free) continue;
        first = at;
        next = &place;
    }
    auto expired = waiting_.end();
    for (auto item = waiting_.begin(); item != waiting_.end(); ++item) {
        if (expiry(*item) >= first || expiry(*item) > now) continue;
        first = expiry(*item);
        expired = item;
    }
    if (first > now || (next == nullptr && expired == waiting_.end())) return false;
    if (expired != waiting_.end()) {
        changes_.push_back({NoticeChange::Kind::skip, expired->message.key, first});
        waiting_.erase(expired);
    } else if (next->shown && next->gone_at) {
        tell(NoticeChange::Kind::gone, *next, first);
        next->shown.reset();
        next->gone_at.reset();
        next->free_at = first + gap_;
    } else if (next->shown) {
        begin_leaving(*next, first);
    } else {
        begin(*next, first);
    }
    return true;
}

void NoticeQueue::advance(Nanoseconds now) {
    while (step(now)) {
    }
}

}  // namespace rapido
