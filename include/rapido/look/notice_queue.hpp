// Which message is on screen when several want to be.
#pragma once

#include <cstddef>
#include <cstdint>
#include <optional>
#include <string_view>
#include <vector>

#include "rapido/base/exported.hpp"
#include "rapido/base/units.hpp"

namespace rapido RAPIDO_EXPORTED {

/// One message that is posted to the queue.
struct PostedMessage {
    std::uint32_t key = 0;  ///< messages with the same key are merged
    int priority = 0;       ///< a message of higher priority goes first, and interrupts one of lower priority
    Seconds show_for{4};    ///< the time on screen between entering and leaving
    bool lasting = false;   ///< stays until it is taken away
    Seconds expires{0};     ///< a message that has waited longer is skipped; zero: never
    friend RAPIDO_EXPORTED bool operator==(const PostedMessage&, const PostedMessage&);
};

/// Something that happened to a message.
struct NoticeChange {
    enum class Kind : std::uint8_t {
        enter,  ///< it appears
        leave,  ///< it begins to leave
        gone,   ///< it has left
        skip,   ///< it has waited for too long
    };
    Kind kind = Kind::enter;
    std::uint32_t key = 0;
    Nanoseconds time{0};
    std::uint32_t place = 0;  ///< where it is on screen; of one that is skipped, zero
    friend RAPIDO_EXPORTED bool operator==(const NoticeChange&, const NoticeChange&);
};

/// Shows one message at a time, or as many as it has places. No message waits while a place is free. Among those that wait, the
/// highest priority is next, and of equal ones the oldest. One that is posted while an equal one is shown renews its time. One that
/// is more urgent than another on screen, and finds no place, sends the least urgent one away; if that was in the first half of
/// its time, it comes again, for all of it; in the second half it has been read. What happens has its exact time, whatever the
/// frames. Moments must not go back.
class NoticeQueue {
 public:
    /// How long a message takes to enter and to leave, the pause in a place after it has left, and how many are shown at once.
    NoticeQueue(Seconds enter, Seconds leave, Seconds gap, std::size_t places = 1)
        : enter_(to_nanoseconds(enter)),
          leave_(to_nanoseconds(leave)),
          gap_(to_nanoseconds(gap)),
          places_(places > 0 ? places : 1) {}

    /// From now on messages take as long as those of another queue; those on screen keep their times.
    void take_course(const NoticeQueue& other) {
        enter_ = other.enter_;
        leave_ = other.leave_;
        gap_ = other.gap_;
    }

    void post(const PostedMessage& message, Nanoseconds now);
    /// So many wait at most; then the least urgent one is left out.
    static constexpr std::size_t most_waiting = 256;
    /// Whether a message of this priority would be shown some time.
    bool has_room_for(int priority) const;
    /// The one with this key leaves, or waits no more.
    void take_away(std::uint32_t key, Nanoseconds now);
    /// Forgets all messages, those on screen too, without a change.
    void clear();
    /// While a place is held, no message appears there; the one on screen leaves at its time.
    void hold(bool holds, Nanoseconds now, std::size_t place = 0);
    /// Nothing is shown in this place any more. What was there is forgotten, without a change.
    void close(std::size_t place);
    void advance(Nanoseconds now);

    std::size_t places() const { return places_.size(); }
    /// The message on screen, entering and leaving included; null for none.
    const PostedMessage* shown(std::size_t place = 0) const {
        return places_[place].shown ? &places_[place].shown->message : nullptr;
    }
    /// How many equal messages the one on screen stands for.
    int count(std::size_t place = 0) const { return places_[place].shown ? places_[place].shown->count : 0; }
    /// Whether the one with this key is shown or waits.
    bool has(std::uint32_t key) const;
    std::size_t waiting() const { return waiting_.size(); }
    /// Nothing is shown and nothing waits.
    bool resting() const;

    /// What happened since `forget_changes`, in order of time.
    const std::vector<NoticeChange>& changes() const { return changes_; }
    void forget_changes() { changes_.clear(); }

 private:
    struct Item {
        PostedMessage message;
        Nanoseconds posted{0};
        int count = 1;
    };
    struct Place {
        std::optional<Item> shown{};
        Nanoseconds entered{0};  ///< when the shown one appeared, or was renewed
        Nanoseconds leaves_at{0};
        std::optional<Nanoseconds> gone_at{};  ///< while it leaves
        Nanoseconds free_at{(Nanoseconds::min)()};
        bool holds = false;
        bool is_closed = false;

        bool says(std::uint32_t key) const { return shown && shown->message.key == key; }
    };
    std::vector<Item>::iterator next_waiting();
    void make_room(Nanoseconds now);
    void make_way(int priority, Nanoseconds now);
    void begin(Place& place, Nanoseconds at);
    void begin_leaving(Place& place, Nanoseconds at);
    void tell(NoticeChange::Kind kind, const Place& place, Nanoseconds at);
    Nanoseconds expiry(const Item& item) const;
    Nanoseconds due(const Place& place);
    bool step(Nanoseconds now);

    Nanoseconds enter_, leave_, gap_;
    std::vector<Place> places_;
    std::vector<Item> waiting_;  ///< in the order in which they came
    std::vector<NoticeChange> changes_;
};

}  // namespace rapido
