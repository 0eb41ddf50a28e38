#include "rapido/motion/tween.hpp"

namespace rapido {

void Tween::set_target(double target) {
    if (target == target_) return;
    flight_.retarget(target_ - target, clock_.now(), motion_);
    target_ = target;
}

void Tween::snap(double value) {
    target_ = value;
    flight_.land();
}

}  // namespace rapido
