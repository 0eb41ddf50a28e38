// Instants as texts, and the grids that they stand on.
#pragma once

#include <cstdint>
#include <string>

#include "rapido/base/exported.hpp"
#include "rapido/base/units.hpp"

namespace rapido RAPIDO_EXPORTED {

/// Seconds with as many digits after the point as they need, and with at least so many: `45`, `0.5`, `46.000`. The time is not
/// negative.
std::string seconds_text(Nanoseconds time, int least_places = 0);

// Sums of instants at the ends of 64 bits stay there.

constexpr std::int64_t saturated_sum(std::int64_t a, std::int64_t b) {
    if (b > 0 && a > INT64_MAX - b) return INT64_MAX;
    if (b < 0 && a < INT64_MIN - b) return INT64_MIN;
    return a + b;
}
constexpr std::int64_t saturated_difference(std::int64_t a, std::int64_t b) {
    if (b < 0 && a > INT64_MAX + b) return INT64_MAX;
    if (b > 0 && a < INT64_MIN + b) return INT64_MIN;
    return a - b;
}
constexpr Nanoseconds saturated_sum(Nanoseconds a, Nanoseconds b) {
    return Nanoseconds{saturated_sum(a.count(), b.count())};
}
constexpr Nanoseconds saturated_difference(Nanoseconds a, Nanoseconds b) {
    return Nanoseconds{saturated_difference(a.count(), b.count())};
}

// Instants k·T of a grid with an interval T above zero; k is any integer.

/// Returns the last one that is not after `time`.
constexpr Nanoseconds grid_at(Nanoseconds time, Nanoseconds interval) {
    const auto count = time.count() / interval.count();
    return interval * (count * interval.count() > time.count() ? count - 1 : count);
}
/// Returns the last one before `time`.
constexpr Nanoseconds grid_before(Nanoseconds time, Nanoseconds interval) {
    return grid_at(time - Nanoseconds{1}, interval);
}
/// Returns the first one that is not before `time`.
constexpr Nanoseconds grid_from(Nanoseconds time, Nanoseconds interval) {
    return grid_before(time, interval) + interval;
}
/// Returns the first one after `time`.
constexpr Nanoseconds grid_after(Nanoseconds time, Nanoseconds interval) {
    return grid_at(time, interval) + interval;
}

}  // namespace rapido
