// The time that one frame covers, on both clocks.
#pragma once

#include "rapido/time/clock.hpp"

namespace rapido {

/// A frame is the time from `start`, excluded, to `now`, included. Parts of a HUD read it and never change it.
class FrameTime {
 public:
    /// Begins the next frame. Returns false if a step counts as zero because it is negative or not finite.
    bool advance(Step step);

    Nanoseconds now(ClockKind clock = ClockKind::real) const { return of(clock).now; }
    Nanoseconds start(ClockKind clock = ClockKind::real) const { return of(clock).start; }
    Nanoseconds step(ClockKind clock = ClockKind::real) const { return of(clock).now - of(clock).start; }

    /// Returns the real time of what happened `before` the end of this frame by this clock. An event at a fraction of the
    /// game step lies at that fraction of the real step; what is older than the frame lies at its start.
    Nanoseconds real_time(Nanoseconds before, ClockKind clock) const;

 private:
    struct Moments {
        Clock clock;
        Nanoseconds start{0}, now{0};
        bool advance(Seconds step);
    };
    const Moments& of(ClockKind clock) const { return clock == ClockKind::game ? game_ : real_; }

    Moments real_, game_;
};

}  // namespace rapido
