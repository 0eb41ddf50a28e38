// Frames a second: frames counted, divided by the time that really passed.
#pragma once

#include <optional>

#include "rapido/time/clock.hpp"

namespace rapido {

/// Counts frames over an interval. The interval is a fixed grid (T, 2T, 3T, ...): the remainder of a frame
/// that crosses a grid point is carried over, and a hitch that crosses several closes once.
class FrameMeter {
 public:
    /// An interval below a millisecond, or not a number, counts as a millisecond; one above `Clock::longest` as that.
    explicit FrameMeter(Seconds interval);

    /// Counts one frame of this real length. Returns whether it closed an interval, so that `rate` is new.
    bool advance(Seconds frame);

    /// Returns the frames a second over the last closed interval; nothing until the first has closed.
    std::optional<double> rate() const { return rate_; }

 private:
    Nanoseconds interval_;
    Clock clock_;
    Nanoseconds last_close_{0};
    Nanoseconds next_close_;
    std::int64_t frames_ = 0;
    std::optional<double> rate_;
};

}  // namespace rapido
