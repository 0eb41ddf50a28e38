#include "text/decimal.hpp"

#include <array>
#include <charconv>
#include <cmath>

namespace rapido {
namespace {

// Powers of ten up to 10^22 are exact in a double.
constexpr std::array<double, 19> powers{1e0,  1e1,  1e2,  1e3,  1e4,  1e5,  1e6,  1e7,  1e8, 1e9,
                                        1e10, 1e11, 1e12, 1e13, 1e14, 1e15, 1e16, 1e17, 1e18};
constexpr double exact_integers = 9007199254740992.0;  // 2^53

std::optional<Decimal> round_exact(double value, int places) {
    const double magnitude = std::abs(value);
    const double scale = powers[static_cast<std::size_t>(places)];
    const double product = magnitude * scale;
    if (!(product < exact_integers)) return std::nullopt;
    // product + rest is the exact product: the rest decides only where the fraction seems to be a half
    // exactly.
    const double rest = std::fma(magnitude, scale, -product);
    const double whole = std::floor(product);
    const double fraction = product - whole;
    auto digits = static_cast<std::uint64_t>(whole);
    const bool tie_up = rest > 0 || (rest == 0 && digits % 2 == 1);
    if (fraction > 0.5 || (fraction == 0.5 && tie_up)) ++digits;
    return Decimal{digits, std::signbit(value) && digits != 0};
}

/// Whether the digits that are left out add one to the last digit that is kept.
bool rounds_away(Rounding rounding, bool negative, int first_left_out, bool more_left_out, bool odd) {
    switch (rounding) {
        case Rounding::down:
            return negative;
        case Rounding::up:
            return !negative;
        case Rounding::nearest:
            break;
    }
    if (first_left_out != 5) return first_left_out > 5;
    return more_left_out || odd;
}

}  // namespace

std::optional<Decimal> round_shortest(double value, bool is_float32, int places, Rounding rounding) {
    if (!std::isfinite(value)) return std::nullopt;
    const bool negative = std::signbit(value);
    const double magnitude = std::abs(value);
    if (magnitude == 0) return Decimal{};
    // d.ddde+xx, the shortest that reads back.
    std::array<char, 32> buffer;
    const auto [end, error] =
        is_float32 ? std::to_chars(buffer.data(), buffer.data() + buffer.size(),
                                   static_cast<float>(magnitude), std::chars_format::scientific)
                   : std::to_chars(buffer.data(), buffer.data() + buffer.size(), magnitude,
                                   std::chars_format::scientific);
    std::array<char, 20> digits{};
    int count = 0;
    const char* at = buffer.data();
    for (; *at != 'e'; ++at)
        if (*at != '.') digits[static_cast<std::size_t>(count++)] = *at;
    int exponent = 0;
    std::from_chars(at[1] == '+' ? at + 2 : at + 1, end, exponent);

    const int keep = exponent + 1 + places;  // so many of the digits stay
    if (keep > 18) return std::nullopt;
    std::uint64_t kept = 0;
    for (int i = 0; i < keep; ++i)
        kept = kept * 10 +
               (i < count ? static_cast<std::uint64_t>(digits[static_cast<std::size_t>(i)] - '0') : 0);
    if (keep < count) {
        const int first = keep < 0 ? 0 : digits[static_cast<std::size_t>(keep)] - '0';
        if (rounds_away(rounding, negative, first, keep < 0 || keep + 1 < count, kept % 2 == 1)) ++kept;
    }
    return Decimal{kept, negative && kept != 0};
}

std::optional<Decimal> round_decimal(double value, bool is_float32, int places, Rounding rounding) {
    if (places > 18) return std::nullopt;
    if (rounding == Rounding::nearest) return round_exact(value, places);
    return round_shortest(value, is_float32, places, rounding);
}

std::int64_t round_division(std::int64_t count, std::int64_t unit, Rounding rounding) {
    std::int64_t quotient = count / unit;
    std::int64_t rest = count % unit;
    if (rest < 0) {  // towards minus infinity
        rest += unit;
        --quotient;
    }
    if (rest == 0 || rounding == Rounding::down) return quotient;
    if (rounding == Rounding::up) return quotient + 1;
    if (rest != unit - rest) return rest > unit - rest ? quotient + 1 : quotient;
    return quotient % 2 == 0 ? quotient : quotient + 1;
}

}  // namespace rapido
