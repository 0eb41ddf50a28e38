// What a number on a HUD says: percent, honesty, compact numbers, plural forms, durations, languages.
#include <fmt/format.h>
#include <unicode/numberformatter.h>
#include <unicode/plurrule.h>

#include "rapido/debug.hpp"
#include "rapido/locale.hpp"
#include "shown.hpp"

namespace rapido::test {
namespace numbers_test {

/// Digits of value / max * 100 by long division, nearest with ties to even.
std::string percent_by_hand(std::uint64_t value, std::uint64_t max, int places) {
    const std::uint64_t whole = value / max;
    std::string digits = std::to_string(whole);
    std::uint64_t rest = value % max;
    for (int i = 0; i < places + 2; ++i) {
        rest *= 10;
        digits += static_cast<char>('0' + rest / max);
        rest %= max;
    }
    const bool odd = (digits.back() - '0') % 2 == 1;
    if (rest > max - rest || (rest == max - rest && odd)) {
        add_one(digits);
    }
    digits.erase(0, std::min(digits.find_first_not_of('0'), digits.size() - static_cast<std::size_t>(places) - 1));
    if (places > 0) digits.insert(digits.size() - static_cast<std::size_t>(places), 1, '.');
    return digits;
}

TEST(Percent, of_integers_is_exact) {
    Random random(20);
    for (int i = 0; i < 50000; ++i) {
        const auto max = 1 + (random.bits() >> (5 + random.below(58)));
        const auto value = random.bits() >> (5 + random.below(58));
        if (value / max > 1'000'000) continue;
        const int places = random.below(4);
        ASSERT_EQ(shown("{percent:." + std::to_string(places) + "f}", {.value = value, .max = max},
                        {.rounding = Rounding::nearest}),
                  percent_by_hand(value, max, places))
            << value << " of " << max;
    }
}

struct PartCase {
    const char* pattern;
    Value value, max;
    const char* nearest;
    const char* down;
    const char* up;
    const char* honest;
};
constexpr double infinity = std::numeric_limits<double>::infinity();
const PartCase part_cases[]{
    {"{percent}%", 996, 1000, "100%", "99%", "100%", "99%"},
    {"{percent}%", 4, 1000, "0%", "0%", "1%", "1%"},
    {"{percent}%", 0, 1000, "0%", "0%", "0%", "0%"},
    {"{percent}%", 1000, 1000, "100%", "100%", "100%", "100%"},
    {"{percent}%", 1004, 1000, "100%", "100%", "101%", "100%"},
    {"{percent}%", 995, 1000, "100%", "99%", "100%", "99%"},
    {"{percent}%", 985, 1000, "98%", "98%", "99%", "98%"},
    {"{percent}%", -1, 1000, "0%", "-1%", "0%", "-1%"},
    {"{percent:.1f}%", 9999, 10000, "100.0%", "99.9%", "100.0%", "99.9%"},
    {"{percent:.1f}%", 1, 10000, "0.0%", "0.0%", "0.1%", "0.1%"},
    {"{percent}%", 99.6, 100.0, "100%", "99%", "100%", "99%"},
    {"{percent}%", 0.4, 100.0, "0%", "0%", "1%", "1%"},
    {"{percent}%", 0.29, 1.0, "29%", "29%", "29%", "29%"},
    {"{percent}%", 0.29F, 1.0F, "29%", "29%", "29%", "29%"},
    {"{percent:.1f}%", 0.1F, 1.0F, "10.0%", "10.0%", "10.0%", "10.0%"},
    {"{percent:.2f}%", 1.0, 3.0, "33.33%", "33.33%", "33.34%", "33.33%"},
    {"{percent}%", 1e-300, 1.0, "0%", "0%", "1%", "1%"},
    {"{percent}%", 5, 0, "--%", "--%", "--%", "--%"},
    {"{percent}%", 5, -3, "--%", "--%", "--%", "--%"},
    {"{percent}%", 5, infinity, "--%", "--%", "--%", "--%"},
    {"{percent}%", 5, double(NAN), "--%", "--%", "--%", "--%"},
    {"{percent}%", double(NAN), 5, "--%", "--%", "--%", "--%"},
    {"{percent}%", infinity, 5, "∞%", "∞%", "∞%", "∞%"},
    {"{percent}%", Value(), 5, "--%", "--%", "--%", "--%"},
    {"{percent}%", 30s, 45s, "67%", "66%", "67%", "67%"},
    {"{ratio}", 1, 3, "0.33", "0.33", "0.34", "0.33"},
    {"{ratio:.1f}", 999, 1000, "1.0", "0.9", "1.0", "0.9"},
    {"{ratio}", 2.0, 3.0, "0.67", "0.66", "0.67", "0.67"},
    {"{left}", 3, 10, "7", "7", "7", "7"},
    {"{left}", std::int64_t{-2}, std::numeric_limits<std::uint64_t>::max(), "18446744073709551616",
     "18446744073709551616", "18446744073709551616", "18446744073709551616"},
    {"{left:.0f}", 9.6, 10.0, "0", "0", "1", "1"},
    {"{left:%M:%S}", 14s, 45s, "00:31", "00:31", "00:31", "00:31"},
    // health 99.6 of 100, and the other end
    {"{:.0f}/{max:.0f}", 99.6, 100.0, "100/100", "99/100", "100/100", "99/100"},
    {"{:.0f}/{max:.0f}", 0.2, 100.0, "0/100", "0/100", "1/100", "1/100"},
    {"{:.0f}/{max:.0f}", -0.2, 100.0, "0/100", "-1/100", "0/100", "-1/100"},
    {"{:.0f}/{max:.0f}", 99.2, 99.4, "99/99", "99/99", "100/100", "99/100"},
    {"{:.0f}/{max:.0f}", 0.2, 0.4, "0/0", "0/0", "1/1", "1/1"},  // they cross: one unit wins
    {"{:.1f}", 0.04, 1.0, "0.0", "0.0", "0.1", "0.1"},
    {"{:.0f}", 5.5, Value(), "6", "5", "6", "6"},
    {"{:%M:%S}", 44s + 900ms, 45s, "00:45", "00:44", "00:45", "00:44"},
    {"{:%M:%S}", 1ms, 45s, "00:00", "00:00", "00:01", "00:01"},
    {"{:.1f}", 9.96, 10.0, "10.0", "9.9", "10.0", "9.9"},
    {"{}", 7, 10, "7", "7", "7", "7"},
};

TEST(Rounding, of_parts_and_of_what_has_a_maximum) {
    for (const PartCase& row : part_cases) {
        const FieldValues values{.value = row.value, .max = row.max};
        const std::string name = std::string(row.pattern) + " of " + fmt::format("{}", row.value.number()) + "/" +
                                 fmt::format("{}", row.max.number());
        EXPECT_EQ(shown(row.pattern, values, {.rounding = Rounding::nearest}), row.nearest) << name;
        EXPECT_EQ(shown(row.pattern, values, {.rounding = Rounding::down}), row.down) << name;
        EXPECT_EQ(shown(row.pattern, values, {.rounding = Rounding::up}), row.up) << name;
        EXPECT_EQ(shown(row.pattern, values, {.rounding = Rounding::honest}), row.honest) << name;
    }
}

TEST(Rounding, honest_never_shows_nothing_for_something_nor_all_for_less) {
    Random random(21);
    for (int i = 0; i < 100000; ++i) {
        const double max = std::pow(10, random.between(-2, 5));
        const double value = max * (random.below(3) == 0 ? 1 - std::pow(10, random.between(-9, 0)) : random.unit());
        if (!(value > 0) || !(value < max)) continue;
        const int places = random.below(3);
        const std::string spec = ":." + std::to_string(places) + "f}";
        const TextOptions honest{.rounding = Rounding::honest};
        const FieldValues values{.value = value, .max = max};
        const std::string zero = fmt::format(fmt::runtime("{" + spec), 0.0);
        const std::string text = shown("{" + spec, values, honest), full = shown("{max" + spec, values, honest);
        const double unit = std::pow(10, -places);
        ASSERT_NE(text, zero) << value;
        const bool room = std::stod(full) > unit * 1.5;
        ASSERT_NE(text, room ? full : "") << value << " of " << max;
        ASSERT_NEAR(std::stod(text), value, unit * 1.01) << "one unit off at most";
        ASSERT_NE(shown("{percent" + spec, values, honest), zero);
        ASSERT_NE(shown("{percent" + spec, values, honest), fmt::format(fmt::runtime("{" + spec), 100.0));
    }
}

TEST(Rounding, is_chosen_by_use) {
    HudDefinition definition;
    definition.timers.push_back({.id = "t", .duration = 10s});
    Countdown countdown{10s};
    float hull = 99.7F;
    definition.elements = {Text{.id = "left", .value = "t.left", .format = "{:%S}"},
                           Text{.id = "passed", .value = "t.elapsed", .format = "{:%S}"},
                           Text{.id = "game", .value = watch(countdown), .format = "{:%S}"},
                           Text{.id = "hull", .value = watch(hull), .max = 100, .format = "{:.0f}"},
                           Text{.id = "plain", .value = watch(hull), .format = "{:.0f}"},
                           Text{.id = "asked", .value = "t.left", .format = "{:%S}", .rounding = Rounding::down}};
    Hud hud(definition);
    update(hud, 0s);
    countdown.start();
    countdown.advance(5400ms);
    update(hud, 5400ms);
    std::string all;
    for (const ElementRef element : hud.elements())
        all += std::string(hud[element].text) + " ";
    EXPECT_EQ(all, "05 05 05 99 100 04 ");
}

struct TimeCase {
    const char* pattern;
    Nanoseconds time;
    const char* dropped;  // drop_zero_parts
    const char* time_of_day;
};
constexpr TimeCase time_cases[]{
    {"{:%H:%M:%S}", 42s, "42", "00:00:42"},
    {"{:%H:%M:%S}", 67s, "1:07", "00:01:07"},
    {"{:%H:%M:%S}", 1h + 2min + 3s, "1:02:03", "01:02:03"},
    {"{:%H:%M:%S}", 0s, "0", "00:00:00"},
    {"{:.1%M:%S}", 67s + 400ms, "1:07.4", "01:07.4"},
    {"{:.1%M:%S}", 7s + 400ms, "7.4", "00:07.4"},
    {"{:.1%M:%S}", 59s + 970ms, "1:00.0", "01:00.0"},
    {"{:%H h %M min}", 5min, "5 min", "00 h 05 min"},
    {"{:%H h %M min}", 25h, "25 h 00 min", "01 h 00 min"},
    {"{:%R}", 14h + 5min, "14:05", "14:05"},
    {"{:%R}", 24h + 5min, "24:05", "00:05"},
    {"{:%R}", -1h, "-1:00", "23:00"},
    {"{:%I:%M %p}", 0h, "12:00 AM", "12:00 AM"},
    {"{:%I:%M %p}", 9h + 5min, "9:05 AM", "09:05 AM"},
    {"{:%I:%M %p}", 12h, "12:00 PM", "12:00 PM"},
    {"{:%I:%M %p}", 23h + 59min + 59s, "12:00 AM", "12:00 AM"},  // rounded to the minute first
    {"{:%I:%M %p}", 37h, "1:00 PM", "01:00 PM"},
};

TEST(Durations, drop_their_zero_parts_and_are_times_of_day) {
    for (const TimeCase& row : time_cases) {
        EXPECT_EQ(shown(row.pattern, {.value = row.time}, {.drop_zero_parts = true}), row.dropped) << row.pattern;
        EXPECT_EQ(shown(row.pattern, {.value = row.time}, {.time_of_day = true}), row.time_of_day) << row.pattern;
    }
}

struct CompactCase {
    Value value;
    const char* three;
    const char* two;
    const char* down;  // three digits
    const char* up;
};
const CompactCase compact_cases[]{
    {0, "0", "0", "0", "0"},
    {7, "7", "7", "7", "7"},
    {999, "999", "999", "999", "999"},
    {1000, "1.00K", "1.0K", "1.00K", "1.00K"},
    {1234, "1.23K", "1.2K", "1.23K", "1.24K"},
    {12345, "12.3K", "12K", "12.3K", "12.4K"},
    {999499, "999K", "999K", "999K", "1.00M"},
    {999500, "1.00M", "1.0M", "999K", "1.00M"},
    {999949, "1.00M", "1.0M", "999K", "1.00M"},
    {999950, "1.00M", "1.0M", "999K", "1.00M"},
    {4560000, "4.56M", "4.6M", "4.56M", "4.56M"},
    {9995000, "10.0M", "10M", "9.99M", "10.0M"},
    {-999950, "-1.00M", "-1.0M", "-1.00M", "-999K"},
    {std::numeric_limits<std::int64_t>::max(), "9.22Qi", "9.2Qi", "9.22Qi", "9.23Qi"},
    {std::numeric_limits<std::uint64_t>::max(), "18.4Qi", "18Qi", "18.4Qi", "18.5Qi"},
    {std::numeric_limits<std::int64_t>::min(), "-9.22Qi", "-9.2Qi", "-9.23Qi", "-9.22Qi"},
    {999.4, "999", "999", "999", "1.00K"},
    {999.6, "1.00K", "1.0K", "999", "1.00K"},
    {0.4, "0", "0", "0", "1"},
    {1e300, "1.00e+300", "1.0e+300", "1.00e+300", "1.00e+300"},
};

TEST(Compact, never_widens_at_a_boundary) {
    for (const CompactCase& row : compact_cases) {
        const auto text = [&](int digits, Rounding rounding) {
            std::string shown_text =
                shown("{}", {.value = row.value}, {.rounding = rounding, .compact_digits = digits});
            std::erase(shown_text, ',');
            return shown_text;
        };
        EXPECT_EQ(text(3, Rounding::nearest), row.three) << row.value.number();
        EXPECT_EQ(text(2, Rounding::nearest), row.two) << row.value.number();
        EXPECT_EQ(text(3, Rounding::down), row.down) << row.value.number();
        EXPECT_EQ(text(3, Rounding::up), row.up) << row.value.number();
    }
    Random random(22);
    for (int i = 0; i < 200000; ++i) {
        const auto value = static_cast<std::int64_t>(std::pow(10, random.between(3, 14.9)));
        const std::string text = shown("{}", {.value = value}, {.compact_digits = 3});
        ASSERT_LE(text.size(), 5U) << value;
        const double scale = std::pow(10, 3.0 * (1 + static_cast<double>(std::string("KMBT").find(text.back()))));
        ASSERT_NEAR(std::stod(text) * scale, static_cast<double>(value), 0.00501 * static_cast<double>(value)) << text;
    }
    const TextOptions honest{.rounding = Rounding::honest, .compact_digits = 3};
    EXPECT_EQ(shown("{}/{max}", {.value = 999'999, .max = 1'000'000}, honest), "999K/1.00M");
    EXPECT_EQ(shown("{}/{max}", {.value = 1'000'000, .max = 1'000'000}, honest), "1.00M/1.00M");
    EXPECT_EQ(shown("{}", {.value = 0.3, .max = 1'000'000}, honest), "1");
}

TEST(Compact, with_names_of_its_own_goes_on_beyond_them_and_is_no_wider_than_in_full) {
    NumberStyle style;
    style.compact = NumberStyle::compact_by(std::array<std::string, 2>{"k", "M"});
    for (const auto& [value, digits, text] :
         std::vector<std::tuple<double, int, const char*>>{{999'000, 3, "999k"},
                                                           {999'500'000, 3, "1.00e+09"},  // the form that comes next
                                                           {123'456'789, 3, "123M"},
                                                           {1e9, 3, "1.00e+09"},
                                                           {1e9, 1, "1e+09"},
                                                           {1'234'567'890, 12, "1,234,567,890"},
                                                           {5e15, 2, "5.0e+15"}})
        EXPECT_EQ(shown("{}", {.value = value}, {.rounding = Rounding::nearest, .compact_digits = digits}, &style),
                  text);
}

TEST(Numbers, at_the_ends_of_what_there_is_are_still_numbers) {
    EXPECT_EQ(shown("{percent:.2f}", {.value = 5e-324, .max = 100.0}, {.rounding = Rounding::up}), "0.01");
    EXPECT_EQ(shown("{percent:.2f}", {.value = -5e-324, .max = 100.0}, {.rounding = Rounding::down}), "-0.01");
    EXPECT_EQ(shown("{:%H:%M:%S}", {.value = 1e9}), "277777:46:40");
    EXPECT_EQ(shown("{:%H:%M:%S}", {.value = Nanoseconds{1'000'000'000'000'000'000}}), "277777:46:40");
    EXPECT_EQ(shown("{}", {.value = Nanoseconds{16'666'667}}), "0.02");
    EXPECT_EQ(shown("{}", {.value = Nanoseconds{1'666'667}}), "0.0017");
    EXPECT_EQ(shown("{}", {.value = Nanoseconds{26'300'000'000}}), "26.3");
    Hud timed;
    timed.add(Timer{.id = "t", .duration = 30s});
    const ElementRef counts = timed.add(Text{.id = "left", .value = "t.left", .format = "{}"});
    const ElementRef passed = timed.add(Text{.id = "passed", .value = "t.elapsed", .format = "{}"});
    update(timed, 3700ms);
    EXPECT_EQ(timed.text_of(counts), "27");
    EXPECT_EQ(timed.text_of(passed), "3");
    double fuse = 59.993;
    Hud hud;
    const ElementRef left = hud.add(Text{.id = "left", .value = watch(fuse).as_time_left(), .format = "{}"});
    for (const auto& [seconds, text] :
         std::vector<std::pair<double, const char*>>{{59.993, "60"}, {59, "59"}, {0.001, "1"}, {0, "0"}, {-3, "0"}}) {
        fuse = seconds;
        update(hud, 16ms);
        EXPECT_EQ(hud.text_of(left), text) << seconds;
    }
}

// --- Languages, against ICU itself
// ---------------------------------------------------------------------------------

/// Differing in grouping, decimal mark, plural classes, powers of ten and digits.
constexpr const char* tags[]{"en", "en-IN", "de", "fr", "hi", "ja", "ar-EG", "pl", "es"};

std::string from_icu(const icu::number::FormattedNumber& number, UErrorCode& status) {
    std::string text;
    number.toString(status).toUTF8String(text);
    return text;
}

TEST(Language, groups_and_marks_numbers_as_icu_does) {
    Random random(23);
    for (const char* tag : tags) {
        const NumberStyle style = *number_style(tag);
        UErrorCode status = U_ZERO_ERROR;
        const icu::Locale locale = icu::Locale::forLanguageTag(tag, status);
        const auto whole = icu::number::NumberFormatter::withLocale(locale);
        const auto two = whole.precision(icu::number::Precision::fixedFraction(2));
        for (int i = 0; i < 2000; ++i) {
            const auto value = static_cast<std::int64_t>(random.bits()) >> random.below(64);
            ASSERT_EQ(shown("{:L}", {.value = value}, {}, &style), from_icu(whole.formatInt(value, status), status))
                << tag;
            const double real = random.between(-1, 1) * std::pow(10, random.below(10));
            if (std::abs(real) < 0.005) continue;
            ASSERT_EQ(shown("{:.2Lf}", {.value = real}, {.rounding = Rounding::nearest}, &style),
                      from_icu(two.formatDouble(real, status), status))
                << tag << " " << real;
        }
        ASSERT_TRUE(U_SUCCESS(status));
    }
}

TEST(Language, writes_compact_numbers_as_icu_does) {
    Random random(24);
    for (const char* tag : tags) {
        const NumberStyle style = *number_style(tag);
        UErrorCode status = U_ZERO_ERROR;
        const icu::Locale locale = icu::Locale::forLanguageTag(tag, status);
        const auto compact =
            icu::number::NumberFormatter::withLocale(locale).notation(icu::number::Notation::compactShort());
        int checked = 0;
        for (int i = 0; i < 3000; ++i) {
            const int power = 3 + random.below(12);
            const auto value = static_cast<std::int64_t>(std::pow(10, power + random.unit()));
            if (style.compact.empty()) break;
            const auto form =
                std::min(static_cast<std::size_t>(std::to_string(value).size() - 4), style.compact.size() - 1);
            // Where a language has no word for a power, we write the number in full, ICU rounds it.
            const bool in_full = style.compact[form].drop == 0;
            const auto icu_form = in_full ? compact.precision(icu::number::Precision::integer())
                                          : compact.precision(icu::number::Precision::fixedSignificantDigits(3));
            const std::string expected = from_icu(icu_form.formatInt(value, status), status);
            const int whole = static_cast<int>(std::to_string(value).size()) - style.compact[form].drop;
            if (!in_full && whole > 3) continue;  // beyond three digits ICU shows zeros, we show the digits
            ++checked;
            ASSERT_EQ(shown("{}", {.value = value}, {.rounding = Rounding::nearest, .compact_digits = 3}, &style),
                      expected)
                << tag << " " << value;
        }
        EXPECT_GT(checked, 1000) << tag;
        ASSERT_TRUE(U_SUCCESS(status));
    }
}

TEST(Language, chooses_plural_forms_as_icu_does) {
    Random random(25);
    for (const char* tag : {"en", "de", "fr", "hi", "ja", "ar", "pl", "ru", "lv", "cy", "pt", "he", "lt", "sl"}) {
        const NumberStyle style = *number_style(tag);
        UErrorCode status = U_ZERO_ERROR;
        const icu::Locale locale(tag);
        const std::unique_ptr<icu::PluralRules> rules(icu::PluralRules::forLocale(locale, status));
        for (int i = 0; i < 4000; ++i) {
            const auto digits = i < 1500 ? static_cast<std::uint64_t>(i) : random.bits() >> (20 + random.below(40));
            const int places = i < 1500 ? i % 3 : random.below(4);
            const auto number = icu::number::NumberFormatter::withLocale(locale)
                                    .precision(icu::number::Precision::fixedFraction(places))
                                    .scale(icu::number::Scale::powerOfTen(-places))
                                    .formatInt(static_cast<std::int64_t>(digits), status);
            std::string expected;
            rules->select(number, status).toUTF8String(expected);
            ASSERT_EQ(to_string(style.plurals.select({digits, places, 0})), expected)
                << tag << " " << digits << "e-" << places;
        }
        ASSERT_TRUE(U_SUCCESS(status)) << tag;
    }
}

TEST(Language, reports_what_is_no_language) {
    EXPECT_EQ(
        to_string(number_style("not a tag").problems().at(0)).find("error: 'not a tag' is not a BCP 47 language tag"),
        0U);
    EXPECT_FALSE(number_style(""));
    EXPECT_EQ(to_string(number_style("qqx").problems().at(0)), "error: CLDR knows no language 'qqx'");
    EXPECT_EQ(number_style("en")->plurals, NumberStyle().plurals);
    EXPECT_EQ(number_style("hi-u-nu-deva")->digits[4], "४");
    // Names of locales as operating systems have them mean tags.
    for (const auto& [name, tag] : std::vector<std::pair<const char*, const char*>>{
             {"pt_BR", "pt-BR"}, {"zh_TW", "zh-TW"}, {"de_DE.UTF-8", "de-DE"}, {"de_AT@euro", "de-AT"}}) {
        ASSERT_TRUE(language(name)) << name;
        EXPECT_EQ(language(name)->tag, tag);
        EXPECT_EQ(*number_style(name), *number_style(tag)) << name;
    }
}

TEST(PluralRules, names_a_fault_in_their_syntax) {
    for (const char* bad : {"one", "one:i", "uno: i = 1", "one: x = 1", "one: i = ", "one: i % 0 = 1", "one: i = 1 and",
                            "one: i = 1 few: n = 2"})
        EXPECT_FALSE(PluralRules::parse(bad)) << bad;
    EXPECT_TRUE(PluralRules::parse("one: i = 1 and v = 0 @integer 1; other: @integer 0, 2~16"));
    EXPECT_TRUE(PluralRules::parse(""));
}

TEST(Text, has_plural_forms_and_is_translated_while_it_runs) {
    int acres = 1;
    double water = 1234.5;
    Hud hud;
    const auto text = hud.add(Text{
        .id = "acres", .value = watch(acres), .format = "{} acres", .plural = {.one = "{} acre"}, .motion = tween(1s)});
    const auto caption = hud.add(Text{.id = "caption", .format = "SAVED"});
    const auto number = hud.add(Text{.id = "water", .value = watch(water), .format = "{:.1Lf}", .placeholder = "none"});
    const auto frame = [&] {
        update(hud, 0s);
        return text_of(hud, text) + "|" + text_of(hud, caption) + "|" + text_of(hud, number);
    };
    EXPECT_EQ(frame(), "1 acre|SAVED|1,234.5");
    acres = 0;
    hud.snap();
    EXPECT_EQ(frame(), "0 acres|SAVED|1,234.5");
    acres = 1000;
    update(hud, 0s);
    update(hud, 500ms);
    const std::string in_flight = text_of(hud, text);

    Language polish;
    polish.numbers = *number_style("pl");
    polish.translations["SAVED"].forms.back() = "OCALONE";
    Translation& forms = polish.translations["{} acres"];
    forms.forms = {"", "{} akr", "", "{} akry", "{} akrów", "{} akra"};
    hud.set_language(polish);
    const std::string after = frame();
    EXPECT_EQ(after, in_flight.substr(0, in_flight.find(' ')) +
                         (after.find("akry") != std::string::npos ? " akry" : " akrów") + "|OCALONE|1234,5");
    EXPECT_TRUE(hud.events().empty());
    for (const auto& [count, expected] :
         {std::pair{1, "1 akr"}, {2, "2 akry"}, {5, "5 akrów"}, {22, "22 akry"}, {12, "12 akrów"}}) {
        acres = count;
        hud.snap();
        EXPECT_EQ(frame().substr(0, frame().find('|')), expected);
    }
    polish.translations["SAVED"].forms.back() = "{oops}";
    hud.set_language(polish);
    EXPECT_EQ(hud.problems().size(), 1U);
    EXPECT_EQ(frame(), "12 akrów|SAVED|1234,5") << "a faulty translation is shown untranslated";
    hud.set_language({});
    EXPECT_EQ(frame(), "12 acres|SAVED|1,234.5");
}

TEST(Language, may_be_a_catalogue_of_the_game) {
    struct Words final : Catalogue {
        mutable int asked = 0;
        std::optional<Translation> find(std::string_view text) const override {
            ++asked;
            if (text == "{} acres") return Translation{.forms = {"", "{} Morgen!", "", "", "", "{} Morgen"}};
            if (text == "LOW {}" || text == "low {}") return Translation::of("NIEDRIG {}");
            if (text == "none") return Translation::of("keine");
            return std::nullopt;
        }
    } words;
    std::optional<int> acres = 1;
    Hud hud;
    const auto text = hud.add(Text{.id = "a",
                                   .value = watch(acres),
                                   .format = "{} acres",
                                   .placeholder = "none",
                                   .bands = {{.below = -5, .format = "LOW {}"}}});
    const auto news = hud.add(Notice{.id = "n", .messages = {{.id = "low", .text = "low {}", .value = watch(acres)}}});
    Language german{.tag = "de", .catalogue = &words};
    EXPECT_EQ(german, Language{.tag = "de"}) << "it does not count when two are compared";
    german.translations["none"].forms.back() = "nichts";
    hud.set_language(german);
    const auto frame = [&](std::optional<int> value) {
        acres = value;
        update(hud, 16ms);
        return std::string(hud.text_of(text));
    };
    EXPECT_EQ(frame(1), "1 Morgen!");
    EXPECT_EQ(frame(7), "7 Morgen");
    EXPECT_EQ(frame(-9), "NIEDRIG -9");
    EXPECT_EQ(frame({}), "nichts Morgen") << "a translation of the language goes first";
    hud.notify(news, "low");
    EXPECT_EQ(frame(3), "3 Morgen");
    EXPECT_EQ(hud.text_of(news), "NIEDRIG 3");
    EXPECT_NE(explain(hud, text).text().find("translated into 'de'"), std::string::npos);
    const int asked = words.asked;
    for (int i = 0; i < 50; ++i)
        frame(i);
    EXPECT_EQ(words.asked, asked) << "a frame asks for nothing";
    hud.add(Text{.id = "b", .value = watch(acres), .format = "{} acres"});
    frame(2);
    EXPECT_EQ(hud.text_of(hud.find("b")), "2 Morgen") << "what comes later is asked for";

    const FunctionCatalogue function([](std::string_view of) -> std::optional<std::string> {
        if (of == "{} acres") return "{} Hektar";
        return std::nullopt;
    });
    hud.set_language({.tag = "de", .catalogue = &function});
    EXPECT_EQ(frame(5), "5 Hektar");
    EXPECT_EQ(frame({}), "none Hektar");
}

TEST(Text, is_made_only_when_its_characters_would_differ) {
    double water = 100;
    Hud hud;
    hud.add(Text{.id = "water", .value = watch(water), .format = "{:.0f} L"});
    hud.add(Text{.id = "percent", .value = watch(water), .max = 200, .format = "{percent}%"});
    update(hud, 0s);
    EXPECT_EQ(hud.texts_made(), 2U);
    for (int i = 0; i < 100; ++i) {
        water -= 0.004;
        update(hud, 1ms);
    }
    EXPECT_EQ(hud.texts_made(), 2U) << "99.6 still reads 100, and 50 %";
    water = 98.9;
    update(hud, 1ms);
    EXPECT_EQ(hud.texts_made(), 4U);
}

TEST(Text, of_one_plain_number_is_the_same_by_the_short_way_and_by_the_general_one) {
    Random random(26);
    for (const char* pattern : {"{}", "{} L", "€{}", "{:.0f}", "{:.1f}", "x{:.2f} m/s", "{:.3f}"}) {
        const bool whole = std::string(pattern).find(':') == std::string::npos;
        std::int64_t integer = 0;
        double real = 0;
        Value dynamic = 0;
        Hud hud;
        const auto a = hud.add(Text{.id = "a", .value = watch(integer), .format = whole ? pattern : "{}"});
        const auto b = hud.add(Text{.id = "b", .value = watch(real), .format = whole ? "{:.1f}" : pattern});
        const auto c = hud.add(Text{.id = "c", .value = watch(dynamic), .format = pattern});
        for (int i = 0; i < 20000; ++i) {
            if (random.below(2) == 0) {  // a small step, as most changes are
                integer += static_cast<std::int64_t>(random.below(60)) - (integer > 0 ? 30 : 29);
                real = std::fmod(real, 1e6) + random.between(-0.2, 0.2);
            } else {
                integer = static_cast<std::int64_t>(random.bits()) >> random.below(64);
                real = random.below(4) == 0 ? std::round(random.between(-1000, 1000)) / 8
                                            : random.between(-1, 1) * std::pow(10, random.below(22));
            }
            if (random.below(50) == 0) real = random.below(2) == 0 ? double(NAN) : infinity;
            dynamic = random.below(9) == 0 ? Value() : whole ? Value(integer) : Value(real);
            update(hud, 1ms);
            ASSERT_EQ(hud[a].text, shown(whole ? pattern : "{}", {.value = integer})) << integer;
            ASSERT_EQ(hud[b].text, shown(whole ? "{:.1f}" : pattern, {.value = real})) << real;
            ASSERT_EQ(hud[c].text, shown(pattern, {.value = dynamic})) << pattern;
        }
    }
}

}  // namespace numbers_test
}  // namespace rapido::test
