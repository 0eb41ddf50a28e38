// Which message is on screen when several want to be.
#pragma once

#include <cstdint>
#include <optional>
#include <string_view>
#include <vector>

#include "rapido/base/units.hpp"

namespace rapido {

/// How long a message stays on screen, computed from the length of its text.
struct ReadingTime {
    double speed = 12;     ///< characters a second
    Seconds attention{1};  ///< time until the player has noticed the message
    Seconds shortest{2};
    Seconds longest{8};

    /// `attention` and a second for each `speed` characters (code points, spaces too), within the two limits. Subtitles
    /// are made for 12 to 20 characters a second; a player has other things to look at, hence the slow end.
    Seconds of(std::string_view text) const;
    friend bool operator==(const ReadingTime&, const ReadingTime&) = default;
};

/// One message that is posted to the queue.
struct PostedMessage {
    std::uint32_t key = 0;  ///< messages with the same key are merged
    int priority = 0;       ///< a message of higher priority goes first, and interrupts one of lower priority
    Seconds time{4};        ///< the time on screen between entering and leaving
    bool lasting = false;   ///< stays until it is taken away
    Seconds expires{0};     ///< a message that has waited longer is skipped; zero: never
    friend bool operator==(const PostedMessage&, const PostedMessage&) = default;
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
    friend bool operator==(const NoticeChange&, const NoticeChange&) = default;
};

/// Shows one message at a time. Among those that wait, the highest priority is next, and of equal ones the oldest. One
/// that is posted while an equal one is shown renews its time. One that is sent away in the first half of its time
/// comes again, for all of it; in the second half it has been read. What happens has its exact time, whatever the
/// frames. Moments must not go back.
class NoticeQueue {
 public:
    /// How long a message takes to enter and to leave, and the pause after it has left.
    NoticeQueue(Seconds enter, Seconds leave, Seconds gap)
        : enter_(to_nanoseconds(enter)), leave_(to_nanoseconds(leave)), gap_(to_nanoseconds(gap)) {}

    /// From now on messages take as long as those of another queue; the one on screen keeps its times.
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
    /// Forgets all messages, the one on screen too, without a change.
    void clear();
    /// While the queue is held, no message appears; the one on screen leaves at its time.
    void hold(bool holds, Nanoseconds now);
    void advance(Nanoseconds now);

    /// The message on screen, entering and leaving included; null for none.
    const PostedMessage* shown() const { return shown_ ? &shown_->message : nullptr; }
    /// How many equal messages the one on screen stands for.
    int count() const { return shown_ ? shown_->count : 0; }
    /// Whether the one with this key is shown or waits.
    bool has(std::uint32_t key) const;
    std::size_t waiting() const { return waiting_.size(); }
    /// Nothing is shown and nothing waits.
    bool resting() const { return !shown_ && waiting_.empty(); }

    /// What happened since `forget_changes`, in order of time.
    const std::vector<NoticeChange>& changes() const { return changes_; }
    void forget_changes() { changes_.clear(); }

 private:
    struct Item {
        PostedMessage message;
        Nanoseconds posted{0};
        int count = 1;
    };
    std::vector<Item>::iterator next_waiting();
    void make_room(Nanoseconds now);
    void begin(Nanoseconds at);
    void begin_leaving(Nanoseconds at);
    Nanoseconds expiry(const Item& item) const;
    bool step(Nanoseconds now);

    Nanoseconds enter_, leave_, gap_;
    std::optional<Item> shown_;
    Nanoseconds entered_{0};  ///< when the shown one appeared, or was renewed
    Nanoseconds leaves_at_{0};
    std::optional<Nanoseconds> gone_at_;  ///< while it leaves
    Nanoseconds free_at_{(Nanoseconds::min)()};
    bool holds_ = false;
    std::vector<Item> waiting_;  ///< in the order in which they came
    std::vector<NoticeChange> changes_;
};

}  // namespace rapido
