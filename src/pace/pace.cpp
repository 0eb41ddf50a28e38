#include "rapido/pace/pace.hpp"

#include <cmath>
#include <cstdint>
#include <limits>

namespace rapido {
namespace {

/// The nearest count of steps, ties to even, with the two honest exceptions; NaN if there is none.
double honest_count(double amount, double step, double max) {
    double count = std::nearbyint(amount / step);
    if (count == 0 && amount != 0) count = amount > 0 ? 1 : -1;
    if (max > 0 && std::isfinite(max) && amount < max) {
        while (count * step >= max && count > 0)
            count = std::min(count - 1, std::ceil(max / step) - 1);
        if (count == 0 && amount != 0) return std::numeric_limits<double>::quiet_NaN();
    }
    return count;
}

}  // namespace

Value quantize(const Value& value, double step, const Value& max) {
    if (!(step > 0) || !std::isfinite(step)) return value;
    if (!value.is_integer() && !value.is_real() && value.type() != Value::Type::duration) return value;
    const double amount = value.number();
    if (!std::isfinite(amount)) return value;
    const double count = honest_count(amount, step, max.number());
    return std::isnan(count) ? value : amount_like(value, count * step);
}

}  // namespace rapido
