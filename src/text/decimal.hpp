// A number rounded to a given count of digits after its point: what is visible of it.
#pragma once

#include <cstdint>
#include <optional>

#include "rapido/text/format.hpp"

namespace rapido {

/// sign and digits, without the point.
struct Decimal {
    std::uint64_t digits = 0;
    bool negative = false;
};

/// `value` times 10^places, rounded to a whole number: nearest of the exact value with ties to even; down and
/// up of the shortest decimal that reads back as the same number of its own type, so that 0.1f rounded up to
/// one place is 0.1. Nothing for NaN, infinities and what does not fit (2^53 for nearest, 10^18 for the
/// others).
std::optional<Decimal> round_decimal(double value, bool is_float32, int places, Rounding rounding);

/// The same for the shortest decimal throughout, nearest too: what a person who typed the number meant by it.
std::optional<Decimal> round_shortest(double value, bool is_float32, int places, Rounding rounding);

/// `count` divided by `unit`, rounded; the unit is positive.
std::int64_t round_division(std::int64_t count, std::int64_t unit, Rounding rounding);

}  // namespace rapido
