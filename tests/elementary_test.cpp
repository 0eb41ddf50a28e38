// The functions that motion is made of, against the C library with more digits.
#include "motion/elementary.hpp"

#include <bit>

#include "support.hpp"

namespace rapido::test {
namespace elementary_test {

/// How far a result is from the true one, in units of its last place.
double units_off(double result, long double truth) {
    const double near = static_cast<double>(truth);
    if (result == near) return 0;
    const double unit = std::max(std::abs(std::nextafter(near, 2 * near) - near), 0x1p-1074);
    return static_cast<double>(std::abs(static_cast<long double>(result) - truth) / static_cast<long double>(unit));
}

TEST(Elementary, is_within_a_unit_of_the_last_place) {
    Random random(77);
    double exponentials = 0, sines = 0, cosines = 0, logarithms = 0;
    for (int i = 0; i < 200'000; ++i) {
        // Of everyday sizes, of the whole range, and close to zero.
        const double size = i % 3 == 0 ? 4 : i % 3 == 1 ? 740 : 1e-6;
        const double x = random.between(-size, i % 3 == 1 ? 709 : size);
        exponentials = std::max(exponentials, units_off(exponential(x), std::exp(static_cast<long double>(x))));
        const double angle = random.between(0, i % 2 == 0 ? 10 : 3e6);
        const auto [sine, cosine] = sine_cosine(i % 5 == 0 ? -angle : angle);
        const long double exact = i % 5 == 0 ? -angle : angle;
        sines = std::max(sines, units_off(sine, std::sin(exact)));
        cosines = std::max(cosines, units_off(cosine, std::cos(exact)));
        const double amount = i % 2 == 0 ? random.between(0.5, 2) : std::exp(random.between(-700, 700));
        logarithms = std::max(logarithms, units_off(logarithm(amount), std::log(static_cast<long double>(amount))));
    }
    EXPECT_LT(exponentials, 1);
#ifndef __MINGW32__  // whose sine of a long double is that of the processor, which knows pi to 66 bits
    EXPECT_LT(sines, 1);
    EXPECT_LT(cosines, 1);
#endif
    EXPECT_LT(logarithms, 1);
}

TEST(Elementary, has_the_ends_of_the_library) {
    constexpr double infinity = std::numeric_limits<double>::infinity();
    EXPECT_EQ(exponential(0), 1);
    EXPECT_EQ(exponential(-infinity), 0);
    EXPECT_EQ(exponential(-800), 0);
    EXPECT_EQ(exponential(infinity), infinity);
    EXPECT_EQ(exponential(711), infinity);
    EXPECT_TRUE(std::isnan(exponential(std::nan(""))));
    EXPECT_EQ(sine_cosine(0).sine, 0);
    EXPECT_EQ(sine_cosine(0).cosine, 1);
    EXPECT_EQ(logarithm(1), 0);
    EXPECT_EQ(logarithm(0), -infinity);
    EXPECT_EQ(logarithm(infinity), infinity);
    EXPECT_TRUE(std::isnan(logarithm(-1)));
    EXPECT_EQ(logarithm(0x1p-1074), std::log(0x1p-1074));
}

}  // namespace elementary_test
}  // namespace rapido::test
