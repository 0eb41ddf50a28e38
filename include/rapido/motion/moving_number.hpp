// Motion without a HUD.
#pragma once

#include "rapido/base/exported.hpp"
#include "rapido/motion/moving_value.hpp"
#include "rapido/time/clock.hpp"

namespace rapido RAPIDO_EXPORTED {

/// A number that travels to its target.
///
///     rapido::MovingNumber height{0.0, rapido::spring(300ms)};
///     height.set_target(120.0);
///     height.advance(frame);
///     draw_at(height.value());
class MovingNumber {
 public:
    MovingNumber(double value, Motion motion) : MovingNumber(value, Motions{.both = std::move(motion)}) {}
    MovingNumber(double value, Motions motions) : motions_(std::move(motions)), target_(value) {}

    /// Lets the number travel to `target`, from its present position and with its present velocity. A target that is not
    /// finite is taken at once.
    void set_target(double target);
    /// Puts the number at `value`, at rest.
    void snap(double value);
    /// Lets time pass. A step that is negative or not finite counts as zero.
    void advance(Seconds step) { clock_.advance(step); }

    double value() const { return target_ + flight_.distance(clock_.now()); }
    /// Returns the velocity in units a second.
    double velocity() const { return flight_.velocity(clock_.now()); }
    double target() const { return target_; }
    bool resting() const { return flight_.resting(clock_.now()); }

 private:
    Motions motions_;
    double target_;
    Clock clock_;
    Flight flight_;
};

/// A whole number that counts up or down to its target, longer for larger jumps; it lands on it exactly.
///
///     rapido::Roll score{0, 600ms};
///     score.set_target(game.score);
///     score.advance(frame);
///     draw(score.value());
class Roll {
 public:
    Roll(std::int64_t value, Seconds longest) : Roll(value, roll(longest)) {}
    Roll(std::int64_t value, Motion motion) : motions_{.both = std::move(motion)} { moving_.snap(value); }

    void set_target(std::int64_t target);
    /// Puts the number at `value`, at rest.
    void snap(std::int64_t value) { moving_.snap(value); }
    /// Lets time pass. A step that is negative or not finite counts as zero.
    void advance(Seconds step) { clock_.advance(step); }

    std::int64_t value() const { return moving_.at(clock_.now()).int64(); }
    std::int64_t target() const { return moving_.target().int64(); }
    bool resting() const { return moving_.resting(clock_.now()); }

 private:
    Motions motions_;
    Clock clock_;
    MovingValue moving_;
};

}  // namespace rapido
