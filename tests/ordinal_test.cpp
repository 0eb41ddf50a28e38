// Ordinal numbers, in every language that ICU has.
#include <unicode/locid.h>
#include <unicode/rbnf.h>

#include <set>

#include "rapido/file.hpp"
#include "rapido/locale.hpp"
#include "shown.hpp"

namespace rapido::ordinal_test {

using namespace test;

std::string ordinal(std::int64_t number, const NumberStyle* style = nullptr, const char* pattern = "{ordinal}") {
    return shown(pattern, {.value = number}, {}, style);
}

TEST(Ordinal, is_that_of_english_without_a_language) {
    const std::vector<std::pair<std::int64_t, std::string>> rows{{0, "0th"},
                                                                 {1, "1st"},
                                                                 {2, "2nd"},
                                                                 {3, "3rd"},
                                                                 {4, "4th"},
                                                                 {10, "10th"},
                                                                 {11, "11th"},
                                                                 {12, "12th"},
                                                                 {13, "13th"},
                                                                 {21, "21st"},
                                                                 {22, "22nd"},
                                                                 {23, "23rd"},
                                                                 {101, "101st"},
                                                                 {111, "111th"},
                                                                 {-1, "-1st"},
                                                                 {1000, "1000th"},
                                                                 {1011, "1011th"},
                                                                 {1021, "1021st"},
                                                                 {INT64_MAX, "9223372036854775807th"}};
    for (const auto& [number, expected] : rows)
        EXPECT_EQ(ordinal(number), expected);
    EXPECT_EQ(ordinal(1021, nullptr, "{ordinal:L}"), "1,021st");
    EXPECT_EQ(ordinal(3, nullptr, "[{ordinal:>6}]"), "[   3rd]");
    EXPECT_EQ(ordinal(3, nullptr, "{ordinal} of {max}"), "3rd of --");
    EXPECT_EQ(shown("{ordinal}", {.value = 2.6}), "3rd");
    EXPECT_EQ(shown("{ordinal}", {}), "--");
    EXPECT_EQ(shown("{ordinal}", {.value = 12'400}, {.compact_digits = 3}), "12400th") << "an ordinal is never compact";
}

/// What ICU writes itself, in all of its languages but those whose ordinals its own categories do not tell apart.
TEST(Ordinal, is_what_icu_writes_in_every_language) {
    const std::set<std::string> by_other_rules{"af", "bg", "ee"};
    int32_t count = 0;
    const icu::Locale* const all = icu::Locale::getAvailableLocales(count);
    int languages = 0;
    for (int32_t i = 0; i < count; ++i) {
        if (*all[i].getCountry() != '\0' || *all[i].getScript() != '\0') continue;
        UErrorCode status = U_ZERO_ERROR;
        const std::string tag = all[i].toLanguageTag<std::string>(status);
        const Result<NumberStyle> style = number_style(tag);
        ASSERT_TRUE(style) << tag;
        if (by_other_rules.contains(tag)) {
            EXPECT_EQ(ordinal(2, &*style, "{ordinal:L}"), style->digits[2] + ".") << tag;
            continue;
        }
        const icu::RuleBasedNumberFormat format(icu::URBNF_ORDINAL, all[i], status);
        ASSERT_TRUE(U_SUCCESS(status));
        ++languages;
        // Catalan: the rules of its categories know of 1 to 4 alone, those of what is written go on behind 20.
        for (int number = 1; number <= (tag == "ca" ? 20 : 999); ++number) {
            icu::UnicodeString text;
            format.format(number, text);
            std::string expected;
            text.toUTF8String(expected);
            ASSERT_EQ(ordinal(number, &*style, "{ordinal:L}"), expected) << tag;
        }
    }
    EXPECT_GT(languages, 150);
}

TEST(Ordinal, chooses_a_pattern_by_the_rules_of_ordinals) {
    int place = 1;
    Hud hud;
    hud.add(Text{.id = "p",
                 .value = watch(place),
                 .format = "{ordinal} place",
                 .plural = {.one = "{ordinal}, the winner", .two = "{ordinal}, so near"}});
    const std::vector<std::pair<int, std::string>> rows{{1, "1st, the winner"},   {2, "2nd, so near"},
                                                        {3, "3rd place"},         {11, "11th place"},
                                                        {21, "21st, the winner"}, {22, "22nd, so near"}};
    for (const auto& [number, expected] : rows) {
        place = number;
        update(hud, 16ms);
        EXPECT_EQ(test::text_of(hud, hud.find("p")), expected);
    }
}

TEST(Ordinal, follows_a_value_through_every_count_of_digits) {
    std::int64_t place = 0;
    Hud hud;
    hud.add(Text{.id = "p", .value = watch(place), .format = "{ordinal}"});
    for (place = 0; place < 1200; ++place) {
        update(hud, 16ms);
        EXPECT_EQ(test::text_of(hud, hud.find("p")), ordinal(place));
    }
}

TEST(Ordinal, says_what_it_cannot_be) {
    const Seconds time{90};
    const std::string word = "x";
    const double number = 3;
    Sources sources;
    sources.set("t", watch(time));
    sources.set("w", watch(word));
    sources.set("n", watch(number));
    const auto problem_of = [&](const std::string& keys) {
        const Problems found =
            check_hud("[[element]]\nkind = \"text\"\nid = \"p\"\n" + keys, "hud.toml", sources, nullptr, nullptr);
        return found.empty() ? std::string() : to_string(found.front());
    };
    EXPECT_EQ(problem_of("value = \"n\"\nformat = \"{ordinal}\"\n"), "");
    EXPECT_NE(problem_of("value = \"t\"\nformat = \"{ordinal}\"\n").find("hud.toml:5:"), std::string::npos)
        << problem_of("value = \"t\"\nformat = \"{ordinal}\"\n");
    EXPECT_NE(problem_of("value = \"w\"\nformat = \"{ordinal}\"\n").find("needs a number"), std::string::npos);
    EXPECT_NE(problem_of("format = \"{ordinal}\"\n").find("has no 'value'"), std::string::npos);
    EXPECT_NE(problem_of("value = \"n\"\nformat = \"{ordinal:.1f}\"\n").find("{ordinal} is a whole number"),
              std::string::npos);
    EXPECT_NE(problem_of("value = \"n\"\nformat = \"{ordnal}\"\n").find("did you mean 'ordinal'"), std::string::npos);
}

}  // namespace rapido::ordinal_test
