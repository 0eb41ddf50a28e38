#include "rapido/look/notice_queue.hpp"

#include <algorithm>

#include "base/utf8.hpp"

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
    return std::max_element(waiting_.begin(), waiting_.end(), [](const Item& a, const Item& b) {
        return a.message.priority < b.message.priority;
    });
}

void NoticeQueue::post(const PostedMessage& message, Nanoseconds now) {
    advance(now);
    const auto renew = [&](Item& item) {
        item.message = message;
        ++item.count;
    };
    if (shown_ && shown_->message.key == message.key && !gone_at_) {
        renew(*shown_);
        const Nanoseconds appeared = std::max(now, entered_ + enter_);
        entered_ = appeared - enter_;
        leaves_at_ = message.lasting ? Nanoseconds::max() : appeared + to_nanoseconds(message.time);
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
    if (shown_ && !gone_at_ && shown_->message.priority < message.priority && !holds_) {
        const bool unread = shown_->message.lasting || now - entered_ < (leaves_at_ - entered_) / 2;
        if (unread) waiting_.insert(waiting_.begin(), {shown_->message, now, shown_->count});
        begin_leaving(now);
    }
    advance(now);
}

bool NoticeQueue::has_room_for(int priority) const {
    return waiting_.size() < most_waiting ||
           std::any_of(waiting_.begin(), waiting_.end(),
                       [&](const Item& item) { return item.message.priority < priority; });
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
    if (shown_ && shown_->message.key == key && !gone_at_) begin_leaving(now);
    advance(now);
}

bool NoticeQueue::has(std::uint32_t key) const {
    return (shown_ && shown_->message.key == key) ||
           std::any_of(waiting_.begin(), waiting_.end(),
                       [&](const Item& item) { return item.message.key == key; });
}

void NoticeQueue::clear() {
    shown_.reset();
    gone_at_.reset();
    waiting_.clear();
    free_at_ = Nanoseconds::min();
}

void NoticeQueue::hold(bool holds, Nanoseconds now) {
    if (holds == holds_) return;
    advance(now);
    holds_ = holds;
    free_at_ = std::max(free_at_, now);
    advance(now);
}

void NoticeQueue::begin(Nanoseconds at) {
    const auto next = next_waiting();
    shown_ = *next;
    waiting_.erase(next);
    entered_ = at;
    gone_at_.reset();
    leaves_at_ =
        shown_->message.lasting ? Nanoseconds::max() : at + enter_ + to_nanoseconds(shown_->message.time);
    changes_.push_back({NoticeChange::Kind::enter, shown_->message.key, at});
}

void NoticeQueue::begin_leaving(Nanoseconds at) {
    gone_at_ = at + leave_;
    changes_.push_back({NoticeChange::Kind::leave, shown_->message.key, at});
}

/// What happens next, if it is not later than `now`.
bool NoticeQueue::step(Nanoseconds now) {
    Nanoseconds due = Nanoseconds::max();
    if (shown_)
        due = gone_at_ ? *gone_at_ : leaves_at_;
    else if (!waiting_.empty() && !holds_)
        due = std::max(free_at_, next_waiting()->posted);
    auto expired = waiting_.end();
    for (auto item = waiting_.begin(); item != waiting_.end(); ++item) {
        if (expiry(*item) >= due || expiry(*item) > now) continue;
        due = expiry(*item);
        expired = item;
    }
    if (due > now) return false;
    if (expired != waiting_.end()) {
        changes_.push_back({NoticeChange::Kind::skip, expired->message.key, due});
        waiting_.erase(expired);
    } else if (shown_ && gone_at_) {
        changes_.push_back({NoticeChange::Kind::gone, shown_->message.key, due});
        shown_.reset();
        gone_at_.reset();
        free_at_ = due + gap_;
    } else if (shown_) {
        begin_leaving(due);
    } else {
        begin(due);
    }
    return true;
}

void NoticeQueue::advance(Nanoseconds now) {
    while (step(now)) {
    }
}

}  // namespace rapido
