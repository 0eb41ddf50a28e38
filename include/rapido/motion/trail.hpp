// The bar behind the bar: how much was just lost.
#pragma once

#include "rapido/base/color.hpp"
#include "rapido/motion/flight.hpp"

namespace rapido {

/// A second bar that shows how much was just lost: it stays for the delay, which each further loss restarts,
/// and then drains to the value.
struct BarTrail {
    Seconds delay{0};       ///< zero is no trail
    Seconds duration{0.5};  ///< of the drain
    Easing easing = Easing::ease_in_out();
    Color color = rgb(0xff7a3c);
    friend bool operator==(const BarTrail&, const BarTrail&) = default;
};

/// Stays where the value was, and drains to where it is once nothing more was lost for a while. Several quick
/// losses join into one; one that comes while it drains lets it drain on, and starts a new delay. A gain changes
/// nothing: the value overtakes the trail, which is never below it. Moments must not go back.
class Trail {
 public:
    /// `drain` is how it travels after `delay`; instant makes it disappear at once.
    Trail(Seconds delay, Motion drain) : delay_(to_nanoseconds(delay)), drain_(std::move(drain)) {}

    /// Is at `value`, with nothing to show.
    void snap(double value);
    /// The value has a new target at `now`, while `shown` is what is shown of it.
    void set_target(double target, double shown, Nanoseconds now, bool instantly = false);

    /// Lets it set out, if its delay is over at `now`; instantly is without travelling.
    void advance(Nanoseconds now, bool instantly = false);

    /// Where it ends; at least `shown`.
    double at(Nanoseconds now, double shown) const;
    /// Whether it has gone as far as it will.
    bool resting(Nanoseconds now) const { return !waiting_ && flight_.resting(now); }

 private:
    Nanoseconds delay_;
    Motion drain_;
    double target_ = 0;   ///< of the value
    double lost_to_ = 0;  ///< where to drain after the delay
    Nanoseconds due_{0};  ///< when the delay ends
    bool waiting_ = false;
    double end_ = 0;  ///< where the drain in progress goes
    Flight flight_;
};

}  // namespace rapido
