#include "motion/spring.hpp"

#include <algorithm>
#include <cmath>
#include <numbers>

#include "motion/elementary.hpp"

namespace rapido {
namespace {

constexpr double settled = 0.02;

/// The solution from 1 at rest, with w = 1.
double step_response(double ratio, double t) {
    const double root = std::sqrt(std::abs(1 - ratio * ratio));
    if (root < 1e-5) return exponential(-t) * (1 + t);
    if (ratio < 1) {
        const auto [sine, cosine] = sine_cosine(root * t);
        return exponential(-ratio * t) * (cosine + ratio / root * sine);
    }
    const double slow = exponential((root - ratio) * t);
    const double fast = exponential(-(root + ratio) * t);
    return (slow + fast) / 2 + ratio / root * (slow - fast) / 2;
}

}  // namespace

double settling_product(double damping_ratio) {
    const double ratio = std::clamp(damping_ratio, 0.05, 20.0);
    // The last stretch between two turns that leaves the band: on it |x| falls through it once.
    double low = 0;
    double high = 0;
    const double root = ratio < 1 ? std::sqrt(1 - ratio * ratio) : 0;
    if (root > 1e-5) {
        const double half_swing = std::numbers::pi / root;  // from turn to turn
        while (std::abs(step_response(ratio, low + half_swing)) > settled)
            low += half_swing;
        high = low + half_swing;
    } else {
        high = 1;
        while (step_response(ratio, high) > settled)
            high *= 2;
    }
    const double sign = step_response(ratio, low) < 0 ? -1 : 1;
    for (int i = 0; i < 100; ++i) {
        const double middle = (low + high) / 2;
        (sign * step_response(ratio, middle) > settled ? low : high) = middle;
    }
    return high;
}

}  // namespace rapido
