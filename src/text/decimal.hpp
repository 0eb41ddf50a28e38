// Numbers rounded to what is visible of them.
#pragma once

#include <array>
#include <cmath>
#include <cstdint>
#include <optional>

#include "rapido/text/format.hpp"

namespace rapido {

/// Sign and digits, without the point.
struct Decimal {
    std::uint64_t digits = 0;
    bool negative = false;
};

/// A number by its decimal digits: 0.d1d2d3... times 10^point, no zeros at either end; zero has no digits.
struct DecimalDigits {
    std::array<std::uint8_t, 24> digits{};
    int count = 0;
    int point = 0;
    bool negative = false;
};

/// The shortest decimal that reads back as the same number of its own type. The value is finite.
DecimalDigits shortest_digits(double value, bool is_float32);
/// The decimal of so many significant digits that is nearest, at most 17.
DecimalDigits significant_digits(double value, int count);
DecimalDigits integer_digits(std::uint64_t magnitude, bool negative);

/// So many digits after the point; a negative count leaves out digits before it, and counts in units of what
/// stays. Nothing if more than 18 digits would stay. `honest` counts as nearest.
std::optional<Decimal> round_digits(const DecimalDigits& digits, int places, Rounding rounding);

/// A finite number times 10^places, rounded: nearest of the exact value with ties to even, the others of the
/// shortest decimal. Nothing for what does not fit (2^53 for nearest, 10^18 for the others).
std::optional<Decimal> round_decimal(double value, bool is_float32, int places, Rounding rounding);

// Powers of ten up to 10^22 are exact in a double.
inline constexpr std::array<double, 19> exact_powers{1e0,  1e1,  1e2,  1e3,  1e4,  1e5,  1e6,  1e7,  1e8, 1e9,
                                                     1e10, 1e11, 1e12, 1e13, 1e14, 1e15, 1e16, 1e17, 1e18};
inline constexpr double exact_integers = 9007199254740992.0;  // 2^53

/// `round_decimal` to nearest, for what is written most often; at most 18 places.
inline std::optional<Decimal> round_nearest(double value, int places) {
    const double magnitude = std::abs(value);
    const double scale = exact_powers[static_cast<std::size_t>(places)];
    const double product = magnitude * scale;
    if (!(product < exact_integers)) return std::nullopt;
    auto digits = static_cast<std::int64_t>(product);
    const double fraction = product - static_cast<double>(digits);
    if (fraction > 0.5) {
        ++digits;
    } else if (fraction == 0.5) {
        // It seems to be a half exactly: product + rest is the exact product.
        const double rest = std::fma(magnitude, scale, -product);
        if (rest > 0 || (rest == 0 && digits % 2 == 1)) ++digits;
    }
    return Decimal{static_cast<std::uint64_t>(digits), std::signbit(value) && digits != 0};
}

/// value / max * 100 * 10^places, exactly, places from -2 on; max is positive. Nothing if it does not fit.
std::optional<Decimal> round_percent(std::uint64_t value, bool negative, std::uint64_t max, int places,
                                     Rounding rounding);

/// `count` divided by `unit`, rounded; the unit is positive.
std::int64_t round_division(std::int64_t count, std::int64_t unit, Rounding rounding);

/// Limits a count of units that was rounded to nearest: a positive amount shows at least one unit, a negative
/// one at most minus one, and one below its maximum at most one unit below the shown maximum. Where they
/// cross, one unit wins.
std::int64_t keep_honest(std::int64_t nearest, bool is_positive, bool is_negative,
                         std::optional<std::int64_t> shown_max);

}  // namespace rapido
