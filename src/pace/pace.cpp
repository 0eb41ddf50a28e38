#include "rapido/pace/pace.hpp"

#include <cmath>
#include <cstdint>
#include <limits>
#include <optional>

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

/// How many digits a decimal step has after its point; nothing for one that has more than nine.
std::optional<int> places_of(double step) {
    double scale = 1;
    for (int places = 0; places <= 9; ++places, scale *= 10)
        if (const double units = step * scale; std::nearbyint(units) / scale == step && units < 1e15) return places;
    return std::nullopt;
}

/// The nearest multiple of a whole step, ties to even; an integer beyond what a double holds stays exact.
std::uint64_t nearest_multiple(std::uint64_t amount, std::uint64_t step, std::uint64_t most) {
    const std::uint64_t count = amount / step, rest = amount % step;
    const bool up = rest > step - rest || (rest == step - rest && count % 2 == 1);
    const std::uint64_t multiple = count * step;
    return up && multiple <= most - step ? multiple + step : multiple;
}

}  // namespace

Value quantize(const Value& value, double step, const Value& max) {
    if (!(step > 0) || !std::isfinite(step)) return value;
    if (!value.is_integer() && !value.is_real() && value.type() != Value::Type::duration) return value;
    const double amount = value.number();
    if (!std::isfinite(amount)) return value;
    constexpr double exact = 9007199254740992.0;  // 2^53
    if (value.is_integer() && std::abs(amount) >= exact && step == std::nearbyint(step) && step < exact) {
        const auto whole = static_cast<std::uint64_t>(step);
        const bool negative = value.type() == Value::Type::int64 && value.int64() < 0;
        if (value.type() == Value::Type::uint64)
            return Value(nearest_multiple(value.uint64(), whole, std::numeric_limits<std::uint64_t>::max()));
        const auto most = static_cast<std::uint64_t>(std::numeric_limits<std::int64_t>::max());
        const std::uint64_t multiple = nearest_multiple(negative ? 0 - value.uint64() : value.uint64(), whole, most);
        return Value(static_cast<std::int64_t>(negative ? 0 - multiple : multiple));
    }
    const double count = honest_count(amount, step, max.number());
    if (std::isnan(count)) return value;
    // Of a decimal step the multiple is the nearest number to the decimal: 3 times 0.1 is 0.3.
    if (const std::optional<int> places = places_of(step); places && value.is_real()) {
        const double scale = std::pow(10.0, *places);
        const double units = std::nearbyint(count * step * scale);
        if (std::abs(units) < exact) return amount_like(value, units / scale);
    }
    return amount_like(value, count * step);
}

}  // namespace rapido
