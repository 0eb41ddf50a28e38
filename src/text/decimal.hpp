// Numbers rounded to what is visible of them.
#pragma once

#include <array>
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

/// value / max * 100 * 10^places, exactly; max is positive. Nothing if it does not fit.
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
