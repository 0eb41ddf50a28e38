#include "rapido/motion/trail.hpp"

#include <algorithm>
#include <utility>

namespace rapido {

void MovingTrail::snap(double value) {
    target_ = end_ = value;
    waiting_ = false;
    flight_.land();
}

void MovingTrail::set_target(double target, double shown, Nanoseconds now, bool instantly) {
    advance(now, instantly);
    if (target < target_) {
        if (!(end_ + flight_.distance(now) > shown)) {
            end_ = shown;
            flight_.land();
        }
        lost_to_ = target;
        if (!std::exchange(waiting_, true)) first_ = now;
        due_ = std::min(now + delay_, first_ + delay_ + delay_);
    }
    target_ = target;
}

void MovingTrail::advance(Nanoseconds now, bool instantly) {
    if (instantly) flight_.land();
    if (!waiting_ || now < due_) return;
    waiting_ = false;
    if (!instantly) flight_.retarget(end_ - lost_to_, due_, drain_);
    end_ = lost_to_;
}

double MovingTrail::at(Nanoseconds now, double shown) const {
    return std::max(shown, end_ + flight_.distance(now));
}

}  // namespace rapido
