#include "rapido/time/clock.hpp"

#include <cmath>

namespace rapido {

bool Clock::advance(Seconds step) {
    const double length = step.count();
    if (!std::isfinite(length) || length < 0) return false;
    const double next = sum_ + length;
    // Whichever of the two is larger kept its leading digits; the other lost some.
    lost_ += sum_ >= length ? (sum_ - next) + length : (length - next) + sum_;
    sum_ = next;
    return true;
}

Nanoseconds Clock::now() const {
    // Whole seconds apart from the rest: beyond 104 days a double no longer tells nanoseconds apart.
    const double whole = std::floor(sum_);
    if (whole >= std::floor(to_seconds(longest).count())) return longest;
    return std::chrono::seconds{static_cast<std::int64_t>(whole)} + to_nanoseconds(Seconds{(sum_ - whole) + lost_});
}

}  // namespace rapido
