#include "base/nearest.hpp"
#include "base/utf8.hpp"
#include "support.hpp"

namespace rapido::test {
namespace base_test {

TEST(Color, reads_what_it_writes_and_nothing_else) {
    Random random(1);
    for (int i = 0; i < 1000; ++i) {
        const std::uint64_t bits = random.bits();
        const Color color{static_cast<std::uint8_t>(bits), static_cast<std::uint8_t>(bits >> 8),
                          static_cast<std::uint8_t>(bits >> 16),
                          static_cast<std::uint8_t>(i % 3 == 0 ? 255 : bits >> 24)};
        EXPECT_EQ(Color::parse(to_string(color)), color) << to_string(color);
    }
    EXPECT_EQ(Color::parse("#38B6C9"), (Color{0x38, 0xb6, 0xc9}));
    EXPECT_EQ(rgb(0x10161c, 0.8), (Color{0x10, 0x16, 0x1c, 204}));
    for (const char* text :
         {"", "#", "38b6c9", "#38b6c", "#38b6c9f", "#38b6c9ff0", "#38b6cg", "#-1b6c9", "#+1b6c9", "# 8b6c9"})
        EXPECT_EQ(Color::parse(text), std::nullopt) << text;
}

TEST(Nearest, finds_the_word_that_was_meant) {
    constexpr std::array<std::string_view, 5> words{"format", "font", "color", "place", "rounding"};
    EXPECT_EQ(nearest("formt", words), "format");
    EXPECT_EQ(nearest("fromat", words), "format") << "an exchange of neighbors is one slip";
    EXPECT_EQ(nearest("colour", words), "color");
    EXPECT_EQ(nearest("palce", words), "place");
    EXPECT_EQ(nearest("visible", words), "");
    EXPECT_EQ(nearest("", words), "");
    EXPECT_EQ(nearest(std::string(100'000, 'f'), words), "");
    EXPECT_EQ(did_you_mean("formt", words), "did you mean 'format'?");
    EXPECT_EQ(did_you_mean("zzz", words), "");
    EXPECT_EQ(one_of(words), "one of format, font, color, place or rounding");
}

TEST(Utf8, tells_well_formed_text_from_the_rest) {
    for (const char* good : {"", "acres", "€1,480", "∞", "水 640", "\xf0\x9f\x94\xa5", "\xf4\x8f\xbf\xbf"})
        EXPECT_TRUE(utf8::is_valid(good)) << good;
    for (const char* bad :
         {"\x80", "\xc0\x80", "\xe0\x80\x80", "\xed\xa0\x80", "\xf4\x90\x80\x80", "\xe2\x82", "a\xff"})
        EXPECT_FALSE(utf8::is_valid(bad)) << bad;
    EXPECT_EQ(utf8::length("€1,480"), 6U);
    EXPECT_EQ(utf8::length("\xff\xff"), 2U);
    // Messages quote at most eighty bytes, and never half a character.
    EXPECT_EQ(utf8::shortened(std::string(80, 'a')), std::string(80, 'a'));
    EXPECT_EQ(utf8::shortened(std::string(81, 'a')), std::string(80, 'a') + "…");
    EXPECT_EQ(utf8::shortened(std::string(79, 'a') + "€"), std::string(79, 'a') + "…");
}

TEST(Problem, says_where_what_and_what_was_meant) {
    EXPECT_EQ(to_string(Problem{{"hud.toml", 14, 3}, "unknown key 'formt'", "did you mean 'format'?"}),
              "hud.toml:14:3: error: unknown key 'formt'; did you mean 'format'?");
    EXPECT_EQ(to_string(Problem{{"flight.csv", 2, 0}, "torn"}), "flight.csv:2: error: torn");
    EXPECT_EQ(to_string(Problem{{}, "torn"}), "error: torn");
}

TEST(Nanoseconds, are_rounded_and_saturate) {
    EXPECT_EQ(to_nanoseconds(Seconds{1.5e-9}), 2ns);
    EXPECT_EQ(to_nanoseconds(Seconds{-0.25}), -250ms);
    EXPECT_EQ(to_nanoseconds(Seconds{NAN}), 0ns);
    EXPECT_EQ(to_nanoseconds(Seconds{INFINITY}), Nanoseconds::max());
    EXPECT_EQ(to_nanoseconds(Seconds{-1e300}), Nanoseconds::min());
}

}  // namespace base_test
}  // namespace rapido::test
