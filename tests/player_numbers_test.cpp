// Numbers as players expect them: floats without a spec, signs, columns, large integers, time that is left.
#include <fmt/format.h>

#include <unicode/numberformatter.h>
#include <unicode/unistr.h>
#include "rapido/file.hpp"
#include "rapido/locale.hpp"

#include "rapido/text.hpp"
#include "shown.hpp"

namespace rapido::test {
namespace player_numbers_test {

TEST(Compact, goes_on_beyond_trillions_and_is_never_infinite) {
    for (const auto& [value, text] : std::vector<std::pair<double, std::string>>{{1e12, "1.00T"},
                                                                                 {999.6e12, "1.00Qa"},
                                                                                 {1e15, "1.00Qa"},
                                                                                 {2.5e20, "250Qi"},
                                                                                 {7e33, "7.00Dc"},
                                                                                 {1.5e36, "1.50e+36"},
                                                                                 {-4e300, "-4.00e+300"},
                                                                                 {1.7e308, "1.70e+308"}})
        EXPECT_EQ(shown("{}", {.value = value}, {.compact_digits = 3}), text);
    EXPECT_EQ(shown("{}", {.value = INFINITY}, {.compact_digits = 3}), "∞");
    const Result<NumberStyle> japanese = number_style("ja");
    ASSERT_TRUE(japanese);
    EXPECT_EQ(shown("{}", {.value = 1e16}, {.compact_digits = 3}, &*japanese), "1.00京");
    EXPECT_EQ(shown("{}", {.value = 1e21}, {.compact_digits = 3}, &*japanese).find("∞"), std::string::npos);
}

TEST(Compact, has_names_of_a_hud_and_of_each_of_its_languages) {
    for (const auto& [tag, text] : std::vector<std::pair<std::string, std::string>>{
             {"", "1.23k 45.6M"}, {"de", "1,23Tsd 45,6Mio"}, {"de-AT", "1,23Tsd 45,6Mio"}, {"fr", "1,23k 45,6M"}}) {
        const Result<HudDefinition> definition = read_hud(R"(compact_names = ["k", "M"]
            [[language]]
            language = "de"
            compact_names = ["Tsd", "Mio"]
            [[element]]
            kind = "text"
            id = "t"
            value = 1234
            max = 45600000
            format = "{} {max}"
            compact_digits = 3)",
                                                          "hud.toml");
        ASSERT_TRUE(definition) << to_string(definition.problems().front());
        Hud hud(*definition, {});
        if (!tag.empty()) hud.set_language(*language(tag));
        update(hud, 16ms);
        EXPECT_EQ(hud.text_of(hud.find("t")), text) << tag;
    }
}

TEST(Money, is_written_as_icu_does_in_every_language) {
    int checked = 0;
    for (const char* const tag : {"en", "de", "fr", "ja", "de-CH", "nl", "pt-BR", "hi", "ar-EG", "sv", "lv", "en-IN"}) {
        const NumberStyle style = *number_style(tag);
        for (const char* const currency : {"USD", "EUR", "JPY", "KWD", "CHF"}) {
            const Result<std::string> pattern = currency_format(tag, currency);
            ASSERT_TRUE(pattern) << to_string(pattern.problems().front());
            UErrorCode status = U_ZERO_ERROR;
            const auto icu = icu::number::NumberFormatter::withLocale(icu::Locale::forLanguageTag(tag, status))
                                 .unit(icu::CurrencyUnit(currency, status));
            for (const double amount : {0.0, 20.0, -20.0, 7.125, 1234.5, -1234567.75, 99999999.0}) {
                std::string expected;
                // The space for a sign is one of ISO, not the wider choice of CLDR.
                const icu::UnicodeString icu_text = icu.formatDouble(amount, status).toString(status);
                const bool has_space = pattern->find("{sign: }") != std::string::npos;
                icu::UnicodeString(icu_text).findAndReplace(has_space ? u"\u00a0" : u" ", u" ").toUTF8String(expected);
                EXPECT_EQ(shown(*pattern, {.value = amount}, {.rounding = Rounding::nearest}, &style), expected)
                    << tag << " " << currency << " " << *pattern;
                ++checked;
            }
            ASSERT_TRUE(U_SUCCESS(status));
        }
    }
    EXPECT_EQ(checked, 12 * 5 * 7);
    EXPECT_EQ(*currency_format("en", "USD"), "{sign}${:.2Lf}");
    EXPECT_EQ(to_string(currency_format("en", "EURO").problems().front()),
              "error: 'EURO' is not a currency code of ISO 4217; write 'EUR', 'USD' or 'JPY'");
    EXPECT_FALSE(currency_format("nonsense-", "EUR"));
}

/// What a person would write, by way of fmt: two digits after the point or two significant ones, and no zeros at the end.
std::string by_hand(double value) {
    const double size = std::abs(value);
    int places = 2;
    if (size > 0 && size < 0.01)
        for (double least = 0.01; size < least && places < 18; least /= 10)
            ++places;
    std::string text = fmt::format("{:.{}f}", value, size < 0.01 && size > 0 ? places + 1 - (places > 2 ? 0 : 1) : 2);
    while (text.find('.') != std::string::npos && (text.back() == '0' || text.back() == '.')) {
        const bool point = text.back() == '.';
        text.pop_back();
        if (point) break;
    }
    return text == "-0" ? "0" : text;
}

TEST(Format, of_a_float_without_a_spec_is_fit_for_a_player) {
    for (const auto& [value, text] : std::vector<std::pair<double, std::string>>{{200000.0, "200000"},
                                                                                 {0.1 + 0.2, "0.3"},
                                                                                 {629.58636, "629.59"},
                                                                                 {2.5, "2.5"},
                                                                                 {-2.0, "-2"},
                                                                                 {0.01, "0.01"},
                                                                                 {0.0042, "0.0042"},
                                                                                 {0.00999, "0.01"},
                                                                                 {0.000123456, "0.00012"},
                                                                                 {-0.0, "0"},
                                                                                 {1e20, "100000000000000000000"},
                                                                                 {1e-300, "0"}})
        EXPECT_EQ(shown("{}", {.value = value}), text);
    EXPECT_EQ(shown("{}", {.value = 0.1F}), "0.1") << "a float by its own shortest decimal";
    Random random(5);
    for (int i = 0; i < 20000; ++i) {
        const double value = random.between(-1e6, 1e6) * std::pow(10.0, -random.below(6));
        if (std::abs(value) < 0.0101) continue;
        ASSERT_EQ(shown("{}", {.value = value}), by_hand(value)) << value;
    }
    // On its way it keeps the digits of its ends.
    for (const auto& [start, target, now, text] : std::vector<std::tuple<double, double, double, std::string>>{
             {0, 100, 37.4182, "37"}, {0.5, 2, 1.2345, "1.2"}, {1, 2.25, 2.0, "2.00"}})
        EXPECT_EQ(shown("{}", {.value = now, .start = start, .target = target}), text);
    double score = 0;
    Hud hud;
    const auto text = hud.add(Text{.id = "s", .value = watch(score), .motion = tween(1s)});
    update(hud, 0s);
    score = 5000;
    for (int i = 0; i < 70; ++i) {
        update(hud, 16ms);
        EXPECT_EQ(hud.text_of(text).find('.'), std::string_view::npos) << hud.text_of(text);
    }
    EXPECT_EQ(hud.text_of(text), "5000");
}

TEST(Format, puts_the_sign_where_the_pattern_says) {
    EXPECT_EQ(shown("{sign}${:.2f}", {.value = -20.0}), "-$20.00");
    EXPECT_EQ(shown("{sign}${:.2f}", {.value = 20.0}), "$20.00");
    EXPECT_EQ(shown("{sign}${:.2f}", {.value = -0.001}), "$0.00") << "what rounds to zero has none";
    EXPECT_EQ(shown("{sign:+}€{:L} of {max}", {.value = 1480, .max = -7}), "+€1,480 of -7");
    EXPECT_EQ(shown("({:d}{sign})", {.value = -3}), "(3-)") << "it may stand behind, too";
    EXPECT_FALSE(Format::parse("{sign}{sign}{}"));
    EXPECT_FALSE(Format::parse("{sign:>4}{}"));
    int budget = 5;
    Hud hud;
    const auto text = hud.add(Text{.id = "b", .value = watch(budget), .format = "{sign}${}"});
    update(hud, 0s);
    budget = -5;
    update(hud, 0s);
    EXPECT_EQ(hud.text_of(text), "-$5");
    EXPECT_TRUE(hud.text_changed(text));
}

TEST(Source, may_be_the_time_that_is_left) {
    double fuse = 2.2;
    Sources sources;
    sources.set("fuse", watch(fuse));
    const Result<HudDefinition> read = read_hud(
        "[[element]]\nkind = \"text\"\nid = \"named\"\nformat = \"{:%S}\"\nvalue = { source = \"fuse\", "
        "time_left = true }\n",
        "h.toml");
    ASSERT_TRUE(read);
    Hud hud(*read, sources);
    const auto watched = hud.add(Text{.id = "watched", .value = watch(fuse).as_time_left(), .format = "{:%S}"});
    const auto plain = hud.add(Text{.id = "plain", .value = watch(fuse), .format = "{:%S}"});
    const auto named = hud.find("named");
    int ends = 0;
    for (const auto& [value, left] : std::vector<std::pair<double, std::string>>{
             {2.2, "03"}, {1.0, "01"}, {0.1, "01"}, {0.0, "00"}, {-0.7, "00"}, {-3.0, "00"}}) {
        fuse = value;
        update(hud, 16ms);
        EXPECT_EQ(hud.text_of(watched), left) << value;
        EXPECT_EQ(hud.text_of(named), left) << value;
        for (const Event& event : hud.events())
            if (event.id == "watched") ends += event.kind == EventKind::empty ? 1 : 100;
    }
    EXPECT_EQ(ends, 1);
    EXPECT_EQ(hud.text_of(plain), "-03");
}

TEST(Format, counts_columns_as_iso_does) {
    EXPECT_EQ(shown("[{:6}]", {.value = Value("水位")}), "[水位  ]");
    EXPECT_EQ(shown("[{:>5}]", {.value = Value("é")}), "[    é]");
    EXPECT_EQ(shown("[{:>5}]", {.value = Value("e\u0301")}), "[    e\u0301]") << "a mark takes no column";
    EXPECT_EQ(shown("[{:.3}]", {.value = Value("水位計")}), "[水]");
    EXPECT_EQ(shown("[{:4}]", {.value = Value("🔥")}), "[🔥  ]");
}

TEST(Format, refuses_a_rounding_that_it_cannot_keep) {
    for (const auto& [format, fine] : std::vector<std::pair<std::string, bool>>{
             {"{:.3e}", false}, {"{:g}", false}, {"{:.3}", false}, {"{:.3f}", true}, {"{}", true}, {"{:.1%S}", true}}) {
        Hud hud;
        EXPECT_EQ(static_cast<bool>(hud.add(Text{.id = "t", .value = 2.5, .format = format, .rounding = Rounding::up})),
                  fine)
            << format;
        EXPECT_TRUE(hud.add(Text{.id = "n", .value = 2.5, .format = format})) << format;
    }
}

TEST(Format, of_integers_is_exact_over_all_of_64_bits) {
    constexpr std::int64_t most = std::numeric_limits<std::int64_t>::max();
    EXPECT_EQ(shown("{:.0f}", {.value = most}), "9223372036854775807");
    EXPECT_EQ(shown("{:.2f}", {.value = std::numeric_limits<std::int64_t>::min()}), "-9223372036854775808.00");
    EXPECT_EQ(shown("{:f}", {.value = std::numeric_limits<std::uint64_t>::max()}), "18446744073709551615.000000");
    EXPECT_EQ(shown("{:.12f}", {.value = 12345678}), "12345678.000000000000");
    EXPECT_EQ(shown("{ratio:.1f}", {.value = most, .max = most - 1}, {.rounding = Rounding::up}), "1.1");
    EXPECT_EQ(shown("{ratio:.0f}", {.value = most - 1, .max = most}, {.rounding = Rounding::down}), "0");
    EXPECT_EQ(shown("{:010.0e}", {.value = 200000.0}), "000002e+05");
    EXPECT_EQ(shown("{:010.0e}", {.value = 0.0}), "000000e+00");
    EXPECT_EQ(shown("{:.20f}", {.value = -1e-30}), "0.00000000000000000000");
    EXPECT_EQ(shown("{:.0f}", {.value = -0.4}), "0");
    char grade = 'B';
    Hud hud;
    const auto text = hud.add(Text{.id = "g", .value = watch(grade), .format = "grade {}"});
    const auto made = hud.add(Text{.id = "h", .value = watch([&] { return grade; })});
    update(hud, 0s);
    EXPECT_EQ(hud.text_of(text), "grade B");
    grade = 'A';
    update(hud, 0s);
    EXPECT_EQ(hud.text_of(text), "grade A");
    EXPECT_EQ(hud.text_of(made), "A");
}

}  // namespace player_numbers_test
}  // namespace rapido::test
