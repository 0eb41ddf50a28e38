// Frames a second: frames counted, divided by the time that really passed.
#pragma once

#include <cstddef>
#include <optional>
#include <vector>

#include "rapido/base/exported.hpp"
#include "rapido/time/clock.hpp"

namespace rapido RAPIDO_EXPORTED {

/// Counts frames over an interval. The interval is a fixed grid (T, 2T, 3T, ...): the remainder of a frame
/// that crosses a grid point is carried over, and a hitch that crosses several closes once.
class FrameCounter {
 public:
    /// An interval below a millisecond, or not a number, counts as a millisecond; one above `Clock::longest` as that.
    explicit FrameCounter(Seconds interval);

    /// Counts one frame of this real length. Returns whether it closed an interval, so that `rate` is new.
    bool advance(Seconds frame);

    /// Sets the interval from now on; what was shown stays until the next one closes.
    void set_interval(Seconds interval);

    /// Returns the frames a second over the last closed interval; nothing until the first has closed.
    std::optional<double> rate() const { return rate_; }
    /// Returns the longest frame of the last closed interval, and the average one.
    std::optional<Seconds> worst() const { return worst_; }
    std::optional<Seconds> average() const { return rate_ ? std::optional(Seconds{1 / *rate_}) : std::nullopt; }
    /// Returns the 1 % low: the frames a second of the frame that is longer than 99 % of the last thousand, or of as many as there were
    /// if that is at least a hundred. It is new when an interval closes.
    std::optional<double> low() const { return low_; }

 private:
    void close();

    Nanoseconds interval_;
    Clock clock_;
    Nanoseconds last_close_{0};
    Nanoseconds next_close_;
    std::int64_t frames_ = 0;
    std::optional<double> rate_;
    Seconds longest_{0};  ///< of the interval that is open
    std::optional<Seconds> worst_;
    std::optional<double> low_;
    std::vector<float> frames_seen_, ordered_;  ///< the last ones, in seconds, in a ring
    std::size_t next_seen_ = 0;
};

}  // namespace rapido
