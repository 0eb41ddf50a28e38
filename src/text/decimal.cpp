#include "text/decimal.hpp"

#include <algorithm>
#include <array>
#include <charconv>
#include <cmath>

namespace rapido {
namespace {

/// Whether the digits that are left out add one to the last digit that is kept.
bool rounds_away(Rounding rounding, bool negative, int first_left_out, bool more_left_out, bool odd) {
    if (rounding == Rounding::down) return negative;
    if (rounding == Rounding::up) return !negative;
    if (first_left_out != 5) return first_left_out > 5;
    return more_left_out || odd;
}

/// Reads `d.ddde+xx`.
DecimalDigits from_scientific(const char* text, const char* end, bool negative) {
    DecimalDigits found;
    found.negative = negative;
    const char* at = text;
    for (; at != end && *at != 'e'; ++at)
        if (*at != '.') found.digits[static_cast<std::size_t>(found.count++)] = static_cast<std::uint8_t>(*at - '0');
    int exponent = 0;
    if (at != end) std::from_chars(at[1] == '+' ? at + 2 : at + 1, end, exponent);
    found.point = exponent + 1;
    while (found.count > 0 && found.digits[static_cast<std::size_t>(found.count - 1)] == 0)
        --found.count;
    if (found.count == 0) found.point = 0;
    return found;
}

__extension__ using Wide = unsigned __int128;

}  // namespace

DecimalDigits shortest_digits(double value, bool is_float32) {
    std::array<char, 32> buffer;
    char* const end = buffer.data() + buffer.size();
    const double magnitude = std::abs(value);
    const auto made =
        is_float32 ? std::to_chars(buffer.data(), end, static_cast<float>(magnitude), std::chars_format::scientific)
                   : std::to_chars(buffer.data(), end, magnitude, std::chars_format::scientific);
    return from_scientific(buffer.data(), made.ptr, std::signbit(value));
}

DecimalDigits significant_digits(double value, int count) {
    std::array<char, 32> buffer;
    const auto made = std::to_chars(buffer.data(), buffer.data() + buffer.size(), std::abs(value),
                                    std::chars_format::scientific, count - 1);
    return from_scientific(buffer.data(), made.ptr, std::signbit(value));
}

DecimalDigits integer_digits(std::uint64_t magnitude, bool negative) {
    std::array<char, 24> buffer;
    const char* const end = std::to_chars(buffer.data(), buffer.data() + buffer.size(), magnitude).ptr;
    DecimalDigits found;
    found.negative = negative;
    if (magnitude == 0) return found;
    for (const char* at = buffer.data(); at != end; ++at)
        found.digits[static_cast<std::size_t>(found.count++)] = static_cast<std::uint8_t>(*at - '0');
    found.point = found.count;
    while (found.digits[static_cast<std::size_t>(found.count - 1)] == 0)
        --found.count;
    return found;
}

std::optional<Decimal> round_digits(const DecimalDigits& number, int places, Rounding rounding) {
    const int keep = number.point + places;  // so many of the digits stay
    if (keep > 18) return std::nullopt;
    std::uint64_t kept = 0;
    for (int i = 0; i < keep; ++i)
        kept = kept * 10 + (i < number.count ? number.digits[static_cast<std::size_t>(i)] : 0U);
    if (keep < number.count) {
        const int first = keep < 0 ? 0 : number.digits[static_cast<std::size_t>(keep)];
        if (rounds_away(rounding, number.negative, first, keep < 0 || keep + 1 < number.count, kept % 2 == 1)) ++kept;
    }
    return Decimal{kept, number.negative && kept != 0};
}

std::optional<Decimal> round_decimal(double value, bool is_float32, int places, Rounding rounding) {
    if (places > 18) return std::nullopt;
    if (rounding == Rounding::nearest) return round_nearest(value, places);
    return round_digits(shortest_digits(value, is_float32), places, rounding);
}

std::optional<Decimal> round_percent(std::uint64_t value, bool negative, std::uint64_t max, int places,
                                     Rounding rounding) {
    if (places > 9 || places < -2) return std::nullopt;
    Wide product = value;
    for (int i = -2; i < places; ++i)
        product *= 10;
    Wide quotient = product / max;
    const Wide rest = product % max;
    if (quotient >= 1'000'000'000'000'000'000U) return std::nullopt;
    bool away = false;
    if (rounding == Rounding::down || rounding == Rounding::up) {
        away = rest != 0 && (rounding == Rounding::up) != negative;
    } else {
        const Wide twice = rest * 2;
        away = twice > max || (twice == max && quotient % 2 == 1);
    }
    if (away) ++quotient;
    return Decimal{static_cast<std::uint64_t>(quotient), negative && quotient != 0};
}

std::int64_t keep_honest(std::int64_t nearest, bool is_positive, bool is_negative,
                         std::optional<std::int64_t> shown_max) {
    std::int64_t shown = nearest;
    if (is_negative) shown = std::min<std::int64_t>(shown, -1);
    if (shown_max) shown = std::min(shown, *shown_max - 1);
    if (is_positive) shown = std::max<std::int64_t>(shown, 1);
    return shown;
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
