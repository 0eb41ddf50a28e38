// A countdown for itself, with no HUD around it.
#pragma once

#include <optional>

#include "rapido/time/clock.hpp"

namespace rapido {

/// Counts from its duration down to zero and stays there; it is never negative.
///
///     rapido::Countdown evacuation{45s};
///     evacuation.start();
///     if (const auto overshoot = evacuation.advance(frame)) leave_the_village(*overshoot);
class Countdown {
 public:
    /// Stopped, with all of `duration` left. A duration that is negative or not a number counts as zero.
    explicit Countdown(Seconds duration);

    /// Runs from the full duration, whatever it did before.
    void start();
    /// Stands still until `resume`; nothing if it is not running.
    void pause();
    /// Runs on from where `pause` stopped it; nothing if it has ended or was never started.
    void resume();
    /// Stops with the full duration left.
    void reset();

    /// Moves by a step of the clock it follows. In the one step in which it reaches zero it gives the
    /// overshoot: the part of the step, in seconds, that lies after the end. A countdown that does not run,
    /// and a step that is negative or not finite, change nothing.
    std::optional<Seconds> advance(Seconds step);

    Nanoseconds duration() const { return duration_; }
    Nanoseconds left() const { return duration_ - elapsed(); }
    Nanoseconds elapsed() const;
    bool running() const { return state_ == State::running; }
    bool ended() const { return state_ == State::ended; }

 private:
    enum class State : std::uint8_t { stopped, running, paused, ended };

    Nanoseconds duration_;
    Clock clock_;
    State state_ = State::stopped;
};

}  // namespace rapido
