#include "rapido/motion/moving_number.hpp"

namespace rapido {

void MovingNumber::set_target(double target) {
    if (target == target_) return;
    const Nanoseconds now = clock_.now();
    const double shift = target_ - target;
    flight_.retarget(shift, now, motions_.towards(flight_.distance(now) + shift < 0));
    target_ = target;
}

void MovingNumber::snap(double value) {
    target_ = value;
    flight_.land();
}

void Roll::set_target(std::int64_t target) {
    if (target != this->target()) moving_.set_target(target, clock_.now(), motions_);
}

}  // namespace rapido
