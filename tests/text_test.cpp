#include <fmt/chrono.h>
#include <fmt/format.h>

#include <cinttypes>
#include <limits>

#include "rapido/text.hpp"
#include "support.hpp"

namespace rapido::test {
namespace text_test {

std::string shown(std::string_view pattern, Value value, Rounding rounding = Rounding::nearest, Value max = {}) {
    const Result<Format> format = Format::parse(pattern);
    if (!format) return "problem: " + format.problems().front().message;
    FormattedText text(*format, {.rounding = rounding});
    text.update({.value = value, .max = max});
    return std::string(text.text());
}

TEST(Format, agrees_with_fmt_on_integers) {
    Random random(4);
    const std::vector<std::string> specs{"",  "d",  ">7", "<7", "^7", "*^9", "07", "+",     "+08", " ",   "x",
                                         "X", "#x", "#X", "b",  "#b", "o",   "#o", "#010x", "020", "€>6", "3"};
    const std::vector<std::int64_t> edges{0,
                                          1,
                                          -1,
                                          9,
                                          10,
                                          -10,
                                          99999,
                                          std::numeric_limits<std::int64_t>::max(),
                                          std::numeric_limits<std::int64_t>::min()};
    for (const std::string& spec : specs) {
        const std::string pattern = "{:" + spec + "}";
        const Format format = *Format::parse(pattern);
        FormattedText text(format);
        for (int i = 0; i < 12000; ++i) {
            const auto value = i < 9 ? edges[static_cast<std::size_t>(i)]
                                     : static_cast<std::int64_t>(random.bits()) >> random.below(64);
            text.update({.value = value});
            ASSERT_EQ(text.text(), fmt::format(fmt::runtime(pattern), value)) << pattern;
            const auto natural = static_cast<std::uint64_t>(value);
            text.update({.value = natural});
            if (spec.find_first_of("+ ") != std::string::npos) continue;  // ISO allows it, this fmt does not
            ASSERT_EQ(text.text(), fmt::format(fmt::runtime(pattern), natural)) << pattern;
        }
    }
}

TEST(Format, agrees_with_fmt_on_floating_point) {
    Random random(5);
    const std::vector<std::string> specs{".0f", ".1f", ".2f", ".3f", ".6f",  "f",    "08.2f", "+.1f", ">12.3f",
                                         "e",   ".3e", "g",   ".4g", "#.0f", ".12f", ".20f",  "E",    "G"};
    for (const std::string& spec : specs) {
        const std::string pattern = "{:" + spec + "}";
        FormattedText text(*Format::parse(pattern));
        for (int i = 0; i < 27000; ++i) {
            double value = 0;
            switch (i % 4) {
                case 0:  // any scale
                    value = random.between(-1, 1) * std::pow(10.0, random.below(24) - 6);
                    break;
                case 1:  // ties, exactly representable or nearly
                    value = (random.below(200001) - 100000 + 0.5) / std::pow(10.0, random.below(5));
                    break;
                case 2:
                    value = random.below(100000) / 8.0;
                    break;
                default:
                    value = std::ldexp(random.unit(), random.below(200) - 100);
            }
            std::string expected = fmt::format(fmt::runtime(pattern), value);
            // Stated departure: negative zero shows no sign.
            if (value < 0 && expected.find_first_of("123456789") == std::string::npos)
                expected = fmt::format(fmt::runtime(pattern), 0.0);
            text.update({.value = value});
            ASSERT_EQ(text.text(), expected) << pattern << " of " << fmt::format("{:.20g}", value);
        }
    }
}

/// Down or up on the digits of the shortest decimal, as a person would do it with pencil and paper.
std::string by_hand(double value, int places, bool up) {
    std::string digits = fmt::format("{:f}", 0.0);
    const std::string shortest = fmt::format("{}", std::abs(value));
    if (shortest.find('e') != std::string::npos) return "";
    const std::size_t point = std::min(shortest.find('.'), shortest.size());
    std::string whole = shortest.substr(0, point);
    std::string fraction = point < shortest.size() ? shortest.substr(point + 1) : "";
    const auto count = static_cast<std::size_t>(places);
    const bool rest = fraction.size() > count && fraction.find_first_not_of('0', count) != std::string::npos;
    fraction.resize(count, '0');
    digits = whole + fraction;
    if (rest && (up != (value < 0))) {
        add_one(digits);
    }
    std::string text = digits.substr(0, digits.size() - count);
    if (places > 0) text += "." + digits.substr(digits.size() - count);
    const bool zero = digits.find_first_not_of('0') == std::string::npos;
    return (value < 0 && !zero ? "-" : "") + text;
}

TEST(Rounding, down_and_up_work_on_the_shortest_decimal) {
    Random random(6);
    int checked = 0;
    for (int i = 0; i < 40000; ++i) {
        const double value = std::round(random.between(-1e6, 1e6) * 1000) / 1000 / std::pow(10.0, random.below(3));
        const int places = random.below(4);
        const std::string pattern = "{:." + std::to_string(places) + "f}";
        const std::string down = by_hand(value, places, false);
        if (down.empty()) continue;
        ++checked;
        ASSERT_EQ(shown(pattern, value, Rounding::down), down) << value << " " << places;
        ASSERT_EQ(shown(pattern, value, Rounding::up), by_hand(value, places, true)) << value << " " << places;
    }
    EXPECT_GT(checked, 30000);
    EXPECT_EQ(shown("{:.1f}", 0.1F, Rounding::up), "0.1");
    EXPECT_EQ(shown("{:.1f}", 0.3F, Rounding::down), "0.3");
    EXPECT_EQ(shown("{:.0f}", 1e-300, Rounding::up), "1");
    EXPECT_EQ(shown("{:.2f}", -1e-300, Rounding::down), "-0.01");
}

struct TimeCase {
    const char* pattern;
    Nanoseconds time;
    const char* nearest;
    const char* down;
    const char* up;
};
// Worked out by hand: rounded to the last unit shown, then split; the largest unit is not reduced.
constexpr TimeCase time_cases[]{
    {"{:%M:%S}", 45s, "00:45", "00:45", "00:45"},
    {"{:%M:%S}", 44s + 1ns, "00:44", "00:44", "00:45"},
    {"{:%M:%S}", 59s + 500ms, "01:00", "00:59", "01:00"},  // a tie goes to the even second
    {"{:%M:%S}", 58s + 500ms, "00:58", "00:58", "00:59"},
    {"{:%M:%S}", 75min, "75:00", "75:00", "75:00"},
    {"{:%M:%S}", 0s, "00:00", "00:00", "00:00"},
    {"{:%M:%S}", 1ns, "00:00", "00:00", "00:01"},
    {"{:%M:%S}", -90s, "-01:30", "-01:30", "-01:30"},
    {"{:%M:%S}", -1ns, "00:00", "-00:01", "00:00"},
    {"{:%H:%M:%S}", 25h + 1s, "25:00:01", "25:00:01", "25:00:01"},
    {"{:%T}", 3599s + 999ms, "01:00:00", "00:59:59", "01:00:00"},
    {"{:%R}", 59min + 30s, "01:00", "00:59", "01:00"},
    {"{:%R}", 58min + 30s, "00:58", "00:58", "00:59"},
    {"{:%S}", 200s, "200", "200", "200"},
    {"{:.1%M:%S}", 67s + 449ms, "01:07.4", "01:07.4", "01:07.5"},
    {"{:.1%M:%S}", 59s + 960ms, "01:00.0", "00:59.9", "01:00.0"},
    {"{:.3%S}", 1234567ns, "00.001", "00.001", "00.002"},
    {"{:.9%S}", 1ns, "00.000000001", "00.000000001", "00.000000001"},
    {"{:>8%M:%S}", 45s, "   00:45", "   00:45", "   00:45"},
    {"{:%M min %S s, 100%%}", 61s, "01 min 01 s, 100%", "01 min 01 s, 100%", "01 min 01 s, 100%"},
};

TEST(Durations, are_rounded_before_they_are_split) {
    for (const TimeCase& row : time_cases) {
        EXPECT_EQ(shown(row.pattern, row.time, Rounding::nearest), row.nearest) << row.pattern << row.time.count();
        EXPECT_EQ(shown(row.pattern, row.time, Rounding::down), row.down) << row.pattern << row.time.count();
        EXPECT_EQ(shown(row.pattern, row.time, Rounding::up), row.up) << row.pattern << row.time.count();
    }
    // A plain number is seconds, and means the shortest decimal that it reads as.
    EXPECT_EQ(shown("{:.1%M:%S}", 67.4, Rounding::up), "01:07.4");
    EXPECT_EQ(shown("{:.1%M:%S}", 67.4F, Rounding::up), "01:07.4");
    EXPECT_EQ(shown("{:%M:%S}", 90, Rounding::up), "01:30");
}

TEST(Durations, agree_with_fmt_where_iso_does_not_reduce_either) {
    Random random(7);
    for (int i = 0; i < 20000; ++i) {
        const std::chrono::seconds time{random.below(86400)};
        ASSERT_EQ(shown("{:%H:%M:%S}", time), fmt::format("{:%H:%M:%S}", time));
    }
}

TEST(Format, shows_what_is_not_a_number_in_a_readable_way) {
    constexpr double infinity = std::numeric_limits<double>::infinity();
    EXPECT_EQ(shown("{} L", Value()), "-- L");
    EXPECT_EQ(shown("{:>5}|", Value()), "   --|");
    EXPECT_EQ(shown("{:.1f}", double(NAN)), "--");
    EXPECT_EQ(shown("{:.1f}", infinity), "∞");
    EXPECT_EQ(shown("{:05.1f}", -infinity), "   -∞");
    EXPECT_EQ(shown("{:+.0f}", infinity), "+∞");
    EXPECT_EQ(shown("{:.1f}", -0.0), "0.0");
    EXPECT_EQ(shown("{}", -0.0), "0");
    EXPECT_EQ(shown("{:.1f}", -0.04), "0.0");
    EXPECT_EQ(shown("{:%M:%S}", infinity), "∞");
    EXPECT_EQ(shown("{:%M:%S}", double(NAN)), "--");
    EXPECT_EQ(shown("{:%M:%S}", 1e300), "∞");
}

TEST(Format, joins_literals_fields_texts_and_booleans) {
    EXPECT_EQ(shown("Water {:.0f} / {max:.0f} L", 640.4, Rounding::nearest, 1000), "Water 640 / 1000 L");
    EXPECT_EQ(shown("{{{value}}} €{max}", 7, Rounding::nearest, 1480), "{7} €1480");
    EXPECT_EQ(shown("{:>6}|{:.3}|{:*^9}", "Pine"), "  Pine|Pin|**Pine***");
    EXPECT_EQ(shown("{:.2}", "水火土"), "水");
    EXPECT_EQ(shown("{} {:d} {:6}|", true), "true 1 true  |");
    EXPECT_EQ(shown("{:.1f}", 12), "12.0");
    EXPECT_EQ(shown("plain", Value()), "plain");
    EXPECT_EQ(shown("", 3), "");
}

struct Fault {
    const char* pattern;
    int column;  // of the fault inside the pattern
    const char* says;
};
constexpr Fault faults[]{
    {"{", 1, "without a '}'"},
    {"acres }", 7, "without a '{'"},
    {"{vlaue}", 2, "unknown field 'vlaue'"},
    {"{0}", 2, "unknown field '0'"},
    {"{:.f}", 4, "needs digits"},
    {"{:q}", 3, "'q' is no format type"},
    {"{:a}", 3, "'a' is no format type"},
    {"{:c}", 3, "'c' is no format type"},
    {"{:dd}", 4, "stands after the end"},
    {"{:1000000000}", 3, "width of 1000000000 is more than 256"},
    {"{:99999999999999999999}", 3, "is more than 256"},
    {"{:.31f}", 4, "precision of 31 is more than 30"},
    {"{:%Q}", 3, "'%Q' is no part of a duration"},
    {"{:%}", 3, "is no part of a duration"},
    {"{:.2%M}", 7, "a precision needs '%S'"},
    {"{:%%}", 5, "needs at least one of"},
    {"€ {:.f}", 6, "needs digits"},  // columns count characters, not bytes
    {"{}{}{}{}{}{}{}{}{}", 17, "at most 8 fields"},
};

TEST(Format, names_the_fault_and_its_column) {
    for (const Fault& fault : faults) {
        const Result<Format> format = Format::parse(fault.pattern, {"hud.toml", 3, 1});
        ASSERT_FALSE(format) << fault.pattern;
        EXPECT_EQ(format.problems().size(), 1U);
        EXPECT_NE(format.problems()[0].message.find(fault.says), std::string::npos)
            << fault.pattern << ": " << format.problems()[0].message;
        EXPECT_EQ(format.problems()[0].location.column, fault.column) << fault.pattern;
    }
    EXPECT_EQ(Format::parse("{vlaue}").problems()[0].hint, "did you mean 'value'?");
    EXPECT_FALSE(Format::parse("\xff"));
    EXPECT_FALSE(Format::parse(std::string(5000, 'a')));
}

TEST(FormattedText, changes_only_when_its_visible_characters_do) {
    FormattedText text(*Format::parse("{:.1f} L"));
    EXPECT_TRUE(text.update({.value = 1.04}));
    EXPECT_FALSE(text.update({.value = 1.0}));
    EXPECT_FALSE(text.update({.value = 0.95001}));
    EXPECT_TRUE(text.update({.value = 1.06}));
    EXPECT_EQ(text.text(), "1.1 L");
    FormattedText name(*Format::parse("{:.3}"));
    EXPECT_TRUE(name.update({.value = "Pine Hollow"}));
    EXPECT_FALSE(name.update({.value = "Pine Ridge"}));
}

TEST(Format, survives_any_bytes) {
    Random random(8);
    constexpr std::string_view alphabet = "{}:<>^+- #0.19LdfxeSMHT%s€v\xff";
    int good = 0;
    for (int i = 0; i < 200000; ++i) {
        std::string pattern;
        for (int n = random.below(14); n > 0; --n)
            pattern += alphabet[static_cast<std::size_t>(random.below(static_cast<int>(alphabet.size())))];
        const Result<Format> format = Format::parse(pattern);
        if (!format) continue;
        ++good;
        FormattedText text(*format);
        for (const Value value : {Value(-12), Value(3.7), Value(1e300), Value("x"), Value(90s), Value(true), Value()}) {
            bool suits = true;
            for (std::size_t use = 0; use < format->uses().size(); ++use)
                suits = suits && format->mismatch(use, value.type()).empty();
            if (suits) text.update({.value = value, .max = value});
        }
    }
    EXPECT_GT(good, 10000);
}

}  // namespace text_test
}  // namespace rapido::test
