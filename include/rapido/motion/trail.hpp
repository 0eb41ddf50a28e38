// The bar behind the bar: how much was just lost.
#pragma once

#include "rapido/base/exported.hpp"
#include "rapido/base/themed.hpp"
#include "rapido/motion/flight.hpp"

namespace rapido RAPIDO_EXPORTED {

/// A second bar that shows how much was just lost: it stays for the delay, which each further loss restarts,
/// and then drains to the value. Under losses that do not stop, it drains all the same: twice the delay after the first of them at most.
struct Trail {
    Seconds delay{0};       ///< before the trail drains; zero means no trail
    Seconds duration{0.5};  ///< how long the trail takes to drain
    Easing easing = Easing::ease_in_out();
    Themed<Color> color = rgb(0xff7a3c);
    friend RAPIDO_EXPORTED bool operator==(const Trail&, const Trail&);
};

/// A number that stays where the value was, and drains to where the value is once nothing more was lost for a while. Several
/// quick losses join into one; a loss while the trail drains lets it drain on and starts a new delay. A gain changes
/// nothing: the value overtakes the trail, which is never below it. Times that are passed in must not decrease.
class MovingTrail {
 public:
    /// After `delay` the trail travels by the motion `drain`; an instant one makes it disappear at once.
    MovingTrail(Seconds delay, Motion drain) : delay_(to_nanoseconds(delay)), drain_(std::move(drain)) {}

    /// Puts the trail at `value`: nothing was lost.
    void snap(double value);
    /// Tells that the value has a new target at `now`, while `shown` is shown of it. With `instantly` the trail follows at
    /// once.
    void set_target(double target, double shown, Nanoseconds now, bool instantly = false);

    /// Lets the trail begin to drain if its delay is over at `now`; with `instantly` it does not travel.
    void advance(Nanoseconds now, bool instantly = false);

    /// Returns where the trail ends, at least `shown`.
    double at(Nanoseconds now, double shown) const;
    /// Whether the trail has drained.
    bool resting(Nanoseconds now) const { return !waiting_ && flight_.resting(now); }

 private:
    Nanoseconds delay_;
    Motion drain_;
    double target_ = 0;     ///< of the value
    double lost_to_ = 0;    ///< where to drain after the delay
    Nanoseconds due_{0};    ///< when the delay ends
    Nanoseconds first_{0};  ///< when the first of the losses came that have not begun to drain
    bool waiting_ = false;
    double end_ = 0;  ///< where the drain in progress goes
    Flight flight_;
};

}  // namespace rapido
