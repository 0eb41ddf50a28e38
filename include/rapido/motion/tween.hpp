// A tween for itself, with no HUD around it.
#pragma once

#include "rapido/motion/flight.hpp"
#include "rapido/time/clock.hpp"

namespace rapido {

/// A number that travels to its target in a given time.
///
///     rapido::Tween height{0.0, rapido::tween(300ms)};
///     height.set_target(120.0);
///     height.advance(frame);
///     draw_at(height.value());
class Tween {
 public:
    explicit Tween(double value, Motion motion) : motion_(motion), target_(value) {}

    /// Travels to `target` from where it is and as fast as it moves now. A target that is not finite is taken
    /// at once.
    void set_target(double target);
    /// Is at `value`, at rest.
    void snap(double value);
    /// Lets time pass; a step that is negative or not finite is none.
    void advance(Seconds step) { clock_.advance(step); }

    double value() const { return target_ + flight_.distance(clock_.now()); }
    /// Units a second.
    double velocity() const { return flight_.velocity(clock_.now()); }
    double target() const { return target_; }
    bool resting() const { return flight_.resting(clock_.now()); }

 private:
    Motion motion_;
    double target_;
    Clock clock_;
    Flight flight_;
};

}  // namespace rapido
