// Exponentials, sines, cosines and logarithms that give the same bits with every compiler and C library.
//
// Springs and fades are made of these four, and a recording is to play to the same positions on every machine. Each is within one unit in
// the last place; all are sums and products of doubles in a fixed order, small enough to be compiled into the loop that asks for them.
#pragma once

#include <bit>
#include <cmath>
#include <cstdint>
#include <limits>

namespace rapido {

/// The nearest whole number, of what is below 2^51 in size; ties go to the even one.
inline double nearest_whole(double x) {
    constexpr double shift = 0x1.8p52;
    return (x + shift) - shift;
}

namespace elementary {

// ln 2 in two parts, of which the first has 32 bits, so that its multiples are exact; pi / 2 in three, of 33 bits the first two.
constexpr double ln2_high = 0x1.62e42feep-1, ln2_low = 0x1.a39ef35793c76p-33;
constexpr double quarter_high = 0x1.921fb544p+0, quarter_middle = 0x1.0b4611a6p-34, quarter_low = 0x1.3198a2e037073p-69;

/// x times 2^power, where both may leave the range of normal numbers.
inline double scaled(double x, int power) {
    const auto two_to = [](int n) { return std::bit_cast<double>(static_cast<std::uint64_t>(1023 + n) << 52); };
    if (static_cast<unsigned>(power + 1022) <= 2045) return x * two_to(power);
    return power > 0 ? x * 0x1p1023 * two_to(power - 1023) : x * two_to(power + 54) * 0x1p-54;
}

/// An angle as a multiple of a right angle and the rest, which is the sum of two numbers and within an eighth of a turn.
struct Reduced {
    std::int64_t quarters;
    double rest, tail;
};

inline Reduced reduced(double angle) {
    const double quarters = nearest_whole(angle * 0x1.45f306dc9c883p-1);
    const double first = angle - quarters * quarter_high;
    const double second = first - quarters * quarter_middle;
    const double lost = (first - second) - quarters * quarter_middle;
    const double last = quarters * quarter_low - lost;
    const double rest = second - last;
    return {static_cast<std::int64_t>(quarters), rest, (second - rest) - last};
}

// Taylor's series; within an eighth of a turn the first term that is left out is below 2^-57 of the sum.
inline double sine_near_zero(double x, double tail) {
    const double z = x * x;
    const double far = 1.0 / 6'227'020'800 + z * (-1.0 / 1'307'674'368'000 + z * (1.0 / 355'687'428'096'000));
    const double high = 1.0 / 362'880 + z * (-1.0 / 39'916'800 + z * far);
    const double terms = -1.0 / 6 + z * (1.0 / 120 + z * (-1.0 / 5'040 + z * high));
    return x + (x * z * terms + tail * (1 - z / 2));
}

inline double cosine_near_zero(double x, double tail) {
    const double z = x * x;
    const double high =
        -1.0 / 3'628'800 + z * (1.0 / 479'001'600 + z * (-1.0 / 87'178'291'200 + z * (1.0 / 20'922'789'888'000)));
    const double terms = 1.0 / 24 + z * (-1.0 / 720 + z * (1.0 / 40'320 + z * high));
    const double half = z / 2;
    const double most = 1 - half;
    return most + (((1 - most) - half) + (z * z * terms - x * tail));
}

}  // namespace elementary

/// e^x.
inline double exponential(double x) {
    if (!(std::abs(x) < 710)) {
        if (x > 0) return std::numeric_limits<double>::infinity();
        if (!(x > -746)) return x <= -746 ? 0 : x;
    }
    const double power = nearest_whole(x * 0x1.71547652b82fep+0);
    const double high = x - power * elementary::ln2_high;
    const double low = power * elementary::ln2_low;
    const double r = high - low;
    // r coth(r / 2) = 2 + r^2 / 6 - r^4 / 360 + ..., whose coefficients are 2 B(2n) / (2n)!; and e^r = 1 + 2 r / (r coth(r / 2) - r).
    const double z = r * r, w = z * z;
    const double first = 1.0 / 6 + z * (-1.0 / 360), second = 1.0 / 15'120 + z * (-1.0 / 604'800);
    const double third = 1.0 / 23'950'080 + z * (-691.0 / 653'837'184'000);
    const double c = r - z * (first + w * (second + w * third));
    const double mantissa = 1 - ((low - r * c / (2 - c)) - high);
    return elementary::scaled(mantissa, static_cast<int>(power));
}

/// Sine and cosine of an angle in radians, within 500,000 turns.
struct SineCosine {
    double sine, cosine;
};
inline SineCosine sine_cosine(double angle) {
    const auto [quarters, rest, tail] = elementary::reduced(angle);
    const double s = elementary::sine_near_zero(rest, tail), c = elementary::cosine_near_zero(rest, tail);
    const bool swaps = (quarters & 1) != 0;
    const double sine = swaps ? c : s, cosine = swaps ? s : c;
    return {(quarters & 2) != 0 ? -sine : sine, ((quarters + 1) & 2) != 0 ? -cosine : cosine};
}

/// The natural logarithm of a positive number.
inline double logarithm(double x) {
    if (!(x > 0) || !std::isfinite(x)) return std::log(x);
    int power = 0;
    double part = std::frexp(x, &power);
    if (part < 0x1.6a09e667f3bcdp-1) {  // the root of a half
        part *= 2;
        --power;
    }
    // ln(1 + f) = f - f^2 / 2 + s (f^2 / 2 + 2 (s^3 / 3 + s^5 / 5 + ...) / s) with s = f / (2 + f).
    const double f = part - 1;
    const double s = f / (2 + f);
    const double z = s * s;
    double terms = 0;
    for (int n = 23; n >= 3; n -= 2)
        terms = z * (2.0 / n + terms);
    const double half = f * f / 2;
    const double k = power;
    return k * elementary::ln2_high - ((half - (s * (half + terms) + k * elementary::ln2_low)) - f);
}

}  // namespace rapido
