#include "rapido/base/units.hpp"

#include <cmath>
#include <limits>

namespace rapido {

Nanoseconds to_nanoseconds(Seconds time) {
    const double nanoseconds = std::round(time.count() * 1e9);
    // The largest double below 2^63: converting anything above would overflow.
    constexpr double limit = 9223372036854774784.0;
    if (std::isnan(nanoseconds)) return Nanoseconds::zero();
    if (nanoseconds > limit) return Nanoseconds::max();
    if (nanoseconds < -limit) return Nanoseconds::min();
    return Nanoseconds{static_cast<std::int64_t>(nanoseconds)};
}

}  // namespace rapido
