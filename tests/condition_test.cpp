// Sources that are computed from others: by operators, and as HUD files write them.
#include <cmath>
#include <functional>
#include <map>
#include <memory>

#include "rapido/file.hpp"
#include "rapido/value/expression.hpp"
#include "support.hpp"

namespace rapido::test {
namespace condition_test {

/// The value that a HUD has for a source.
Value value_of(const Source& source) {
    static std::unique_ptr<Hud> hud;
    hud = std::make_unique<Hud>();
    const ElementRef text = hud->add(Text{.id = "t", .value = source});
    update(*hud, 0s);
    EXPECT_TRUE(hud->problems().empty());
    return (*hud)[text].truth;
}

struct Plain {
    static double least(double a, double b) { return std::min(a, b); }
    static double greatest(double a, double b) { return std::max(a, b); }
    static double size(double a) { return std::abs(a); }
    static double rest(double a, double b) { return a - b * std::floor(a / b); }
};
struct Watched {
    static Source least(const Source& a, const Source& b) { return (min)(a, b); }
    static Source greatest(const Source& a, const Source& b) { return (max)(a, b); }
    static Source size(const Source& a) { return abs(a); }
    static Source rest(const Source& a, const Source& b) { return a % b; }
};

/// One formula, of plain numbers and of sources, and as a file writes it.
#define FORMULA(text, ...)                                                                                  \
    Formula {                                                                                               \
        text,                                                                                               \
            []([[maybe_unused]] double a, [[maybe_unused]] double b, [[maybe_unused]] double c) -> double { \
                using F [[maybe_unused]] = Plain;                                                           \
                return static_cast<double>(__VA_ARGS__);                                                    \
            },                                                                                              \
            []([[maybe_unused]] const Source& a, [[maybe_unused]] const Source& b,                          \
               [[maybe_unused]] const Source& c) -> Source {                                                \
                using F [[maybe_unused]] = Watched;                                                         \
                return __VA_ARGS__;                                                                         \
            }                                                                                               \
    }
struct Formula {
    std::string text;
    double (*plain)(double, double, double);
    Source (*watched)(const Source&, const Source&, const Source&);
};
const std::vector<Formula>& formulas() {
    static const std::vector<Formula> all{
        FORMULA("a + b * c", a + b * c),
        FORMULA("(a + b) * c", (a + b) * c),
        FORMULA("a - b - c", a - b - c),
        FORMULA("a - (b - c)", a - (b - c)),
        FORMULA("a / (b + 0.3) / 2", a / (b + 0.3) / 2),
        FORMULA("-a * -b - -c", -a * -b - -c),
        FORMULA("a % 7", F::rest(a, 7)),
        FORMULA("min(a, b) + max(b, c) * abs(a - c)", F::least(a, b) + F::greatest(b, c) * F::size(a - c)),
        FORMULA("a > b and b >= c", a > b && b >= c),
        FORMULA("a < b or b <= c and not a == c", a < b || (b <= c && !(a == c))),
        FORMULA("not (a < b or c != 3)", !(a < b || c != 3)),
        FORMULA("2 * a - 1 > b + c", 2 * a - 1 > b + c),
        FORMULA("!a and b", !(a != 0) && b != 0),
    };
    return all;
}

TEST(Condition, is_what_the_operators_say_in_a_program_and_in_a_file) {
    Random random(34);
    for (int round = 0; round < 60; ++round) {
        double a = random.below(9) - 4, b = random.below(9) - 4, c = random.below(9) - 4;
        int whole[3] = {static_cast<int>(a), static_cast<int>(b), static_cast<int>(c)};
        if (round % 2 == 0) a += 0.25, b += 0.5;
        Sources sources;
        const bool integers = round % 2 == 1;
        const Source named[3] = {integers ? watch(whole[0]) : watch(a), integers ? watch(whole[1]) : watch(b),
                                 integers ? watch(whole[2]) : watch(c)};
        for (int i = 0; i < 3; ++i)
            sources.set(std::string(1, static_cast<char>('a' + i)), named[i]);
        Hud hud({}, sources);
        for (const Formula& formula : formulas()) {
            const double expected = formula.plain(a, b, c);
            EXPECT_NEAR(value_of(formula.watched(named[0], named[1], named[2])).number(), expected, 1e-12)
                << formula.text;
            const Result<Source> read = parse_expression(formula.text);
            ASSERT_TRUE(read) << formula.text << ": " << read.problems()[0].message;
            const ElementRef text = hud.add(Text{.id = "t", .value = *read});
            update(hud, 0s);
            EXPECT_NEAR(hud[text].truth.number(), expected, 1e-12) << formula.text;
            hud.remove(text);
            update(hud, 0s);
            EXPECT_EQ(write_expression(*read), formula.text);
        }
        EXPECT_TRUE(hud.problems().empty());
    }
}

TEST(Condition, keeps_types_and_the_absence_of_a_value) {
    struct Row {
        std::string text;
        Value expected;
    };
    std::int64_t huge = 9007199254740993;  // 2^53 + 1
    std::int64_t close = 9007199254740992;
    std::uint64_t most = UINT64_MAX;
    std::optional<int> nothing;
    std::string rank = "Skimmer";
    Nanoseconds left = 90s;
    float water = 0.5F;
    bool flag = true;
    double zero = 0;
    int seven = 7;
    Sources sources;
    sources.set("huge", watch(huge));
    sources.set("close", watch(close));
    sources.set("most", watch(most));
    sources.set("nothing", watch(nothing));
    sources.set("rank", watch(rank));
    sources.set("left", watch(left));
    sources.set("water", watch(water));
    sources.set("flag", watch(flag));
    sources.set("zero", watch(zero));
    sources.set("seven", watch(seven));
    sources.set("a-b", watch(seven));
    Hud hud({}, sources);
    for (const Row& row : {
             Row{"huge > close", Value(true)},
             Row{"huge - close", Value(std::int64_t{1})},
             Row{"huge + 1", Value(huge + 1)},
             Row{"most > huge", Value(true)},
             Row{"seven * 1000000000000000000000.0", Value(7e21)},
             Row{"huge * huge", Value(static_cast<double>(huge) * static_cast<double>(huge))},
             Row{"seven / 2", Value(3.5)},
             Row{"seven % 4", Value(std::int64_t{3})},
             Row{"-seven % 4", Value(std::int64_t{1})},
             Row{"seven % -4", Value(std::int64_t{-1})},
             Row{"seven % 0", Value()},
             Row{"seven / zero", Value()},
             Row{"nothing + 1", Value()},
             Row{"nothing > 1", Value(false)},
             Row{"nothing <= 1", Value(false)},
             Row{"nothing == 1", Value(false)},
             Row{"nothing != 1", Value(false)},
             Row{"not nothing", Value(true)},
             Row{"nothing == none", Value(true)},
             Row{"none != seven", Value(true)},
             Row{"min(nothing, 3)", Value()},
             Row{"rank == 'Skimmer'", Value(true)},
             Row{"rank != 'it''s'", Value(true)},
             Row{"rank < 'T'", Value(true)},
             Row{"rank == 7", Value(false)},
             Row{"rank > 7", Value(false)},
             Row{"rank + 7", Value()},
             Row{"left < 90.5", Value(true)},
             Row{"left <= 90", Value(true)},
             Row{"left - 30", Value(Nanoseconds{60s})},
             Row{"left * 2", Value(Nanoseconds{180s})},
             Row{"left / 2", Value(Nanoseconds{45s})},
             Row{"left / left", Value(1.0)},
             Row{"-left", Value(Nanoseconds{-90s})},
             Row{"clamp(left, 10, 20)", Value(std::int64_t{20})},
             Row{"water * 2", Value(1.0F)},
             Row{"water * 2.0", Value(1.0)},
             Row{"flag + flag", Value(std::int64_t{2})},
             Row{"flag == true", Value(true)},
             Row{"!flag or seven > 6", Value(true)},
             Row{"a-b - seven", Value(std::int64_t{0})},
             Row{"clamp(seven, 1, 5)", Value(std::int64_t{5})},
         }) {
        const Result<Source> read = parse_expression(row.text);
        ASSERT_TRUE(read) << row.text << ": " << read.problems()[0].message;
        const ElementRef text = hud.add(Text{.id = "t", .value = *read});
        update(hud, 0s);
        EXPECT_EQ(hud[text].truth, row.expected) << row.text << " is " << hud[text].truth.number();
        hud.remove(text);
        update(hud, 0s);
    }
    EXPECT_TRUE(hud.problems().empty());
    EXPECT_TRUE(value_of(watch(rank) == "Skimmer").flag()) << "a literal operand is a text";
    EXPECT_TRUE(value_of(watch(left) > 1min).flag());
}

TEST(Condition, says_what_is_wrong_and_where) {
    const std::string deep = std::string(40, '(') + "a" + std::string(40, ')');
    std::string long_sum = "a", deep_sum = "a", same_sum = "a";
    for (int i = 0; i < 100'000; ++i)
        same_sum += " + a";
    for (int i = 0; i < 64; ++i)
        long_sum += " + " + std::to_string(i);
    for (int i = 0; i < 17; ++i)
        deep_sum = "a + (" + deep_sum + ")";
    EXPECT_TRUE(parse_expression(deep)) << "brackets alone are no depth";
    for (const auto& [text, message] : std::vector<std::pair<std::string, std::string>>{
             {"", "ends where a value is wanted, at character 1"},
             {"a <", "ends where a value is wanted, at character 4"},
             {"a < b < c", "compares three values in a row, at character 7 (write 'a < b and b < c')"},
             {"a b", "has 'b' where a sign or the end is wanted, at character 3"},
             {"a adn b", "has 'adn' where a sign or the end is wanted, at character 3 (did you mean 'and'?)"},
             {"a and nt b", "has 'b' where a sign or the end is wanted, at character 10 (did you mean 'not'?)"},
             {"(a", "lacks a ')', at character 3"},
             {"a)", "has a ')' without a '(', at character 2"},
             {"a -b", "has a '-' without blanks around it, at character 3 (write 'a - b'; 'a-b' is a name)"},
             {"a && b", "has '&', which is no sign, at character 3 (write 'and')"},
             {"a = b", "has '=', which is no sign, at character 3 (write '==' to ask whether two are equal)"},
             {"é > 1", "has 'é', which is no sign, at character 1"},
             {"a == 'x", "has a text without a quote at its end, at character 6"},
             {"mim(a, b)", "has an unknown function 'mim', at character 1 (did you mean 'min'?)"},
             {"min(a)", "gives min 1 values; it takes 2, at character 6"},
             {"since(a + b)",
              "asks since when something computed has changed, at character 12 ('since' takes the name of "
              "a source)"},
             {"5s > a", "has a number with letters behind it, at character 1 (a time is written in seconds)"},
             {"a..b", "has the name 'a..b', which lacks a part, at character 1"},
             {"a > and.b",
              "has the name 'and.b', which begins with a word that has a meaning of its own, at character 5"},
             {"!screen.width",
              "has the name '!screen.width', which begins with a word that has a meaning of its own, at character 1"},
             {"a > none",
              "compares with 'none', which is neither less nor more than anything, at character 9 (write '== "
              "none' or '!= none')"},
             {"and a", "has 'and' where a value is wanted, at character 1"},
             {long_sum,
              "is computed from more than 64 terms, or more than 16 deep, at character 312 (give a part of it a "
              "name in 'Sources')"},
             {same_sum,
              "is computed from more than 64 terms, or more than 16 deep, at character 259 (give a part of it a name "
              "in "
              "'Sources')"},
             {deep_sum,
              "is computed from more than 64 terms, or more than 16 deep, at character 103 (give a part of it a "
              "name in 'Sources')"},
         }) {
        const Result<Source> read = parse_expression(text);
        ASSERT_FALSE(read) << text;
        const Problem& problem = read.problems()[0];
        EXPECT_EQ(problem.message + (problem.hint.empty() ? "" : " (" + problem.hint + ")"), message) << text;
    }
    int a = 1;
    Source sum = watch(a);
    for (int i = 0; i < 100; ++i)
        sum = sum + constant(i);
    Hud hud;
    hud.add(Text{.id = "t", .value = sum});
    ASSERT_EQ(hud.problems().size(), 1U);
    EXPECT_EQ(hud.problems()[0].message,
              "'value' of text 't' is computed from more than 64 terms, or more than 16 deep");
}

TEST(Sources, warn_of_names_that_no_file_can_ask_for) {
    struct Row {
        const char* name;
        const char* fault;  ///< null for a good one
    };
    const std::vector<Row> rows{
        {"plane.water", nullptr},
        {"_a-b.2", nullptr},
        {"andes.or", nullptr},
        {"min", nullptr},
        {"timer:fire.start_when#2", nullptr},
        {"", "is empty"},
        {"2nd", "does not begin with a letter or '_'"},
        {"my score", "has other signs than letters, digits, '_' and '-', and '.' between its parts"},
        {"h\u00f6he", "has other signs than letters, digits, '_' and '-', and '.' between its parts"},
        {"a.", "lacks a part"},
        {"not.b", "begins with a word that has a meaning of its own"},
        {"screen", "begins with a word that has a meaning of its own"}};
    int value = 3;
    for (const Row& row : rows) {
        Sources before;
        before.set(row.name, watch(value));
        Sources later;
        const Hud hud({}, before);
        Hud follows({}, later);
        later.set(row.name, watch(value));
        update(follows, 0s);
        for (const Hud* const told : {&hud, static_cast<const Hud*>(&follows)}) {
            if (row.fault == nullptr) {
                EXPECT_EQ(told->problems(), Problems{}) << row.name;
                continue;
            }
            ASSERT_EQ(told->problems().size(), 1U) << row.name;
            EXPECT_EQ(told->problems()[0].message, "the name of source '" + std::string(row.name) + "' " + row.fault);
            EXPECT_EQ(told->problems()[0].severity, Severity::warning);
        }
    }
    // It can be shown all the same.
    Sources odd;
    odd.set("my score", watch(value));
    Hud hud({.elements = {Text{.id = "t", .value = by_name("my score")}}}, odd);
    update(hud, 0s);
    EXPECT_EQ(hud.text_of(hud.find("t")), "3");
}

TEST(Condition, counts_seconds_as_a_number_and_says_so) {
    Nanoseconds time = 90s;
    int count = 7;
    Sources sources;
    sources.set("t", watch(time));
    sources.set("n", watch(count));
    struct Row {
        Source source;
        const char* text;  ///< as a file writes it; null where it cannot
        double value;
    };
    for (const Row& row : std::vector<Row>{{Source("t") / 1s, "seconds(t)", 90},
                                           {Source("t") / 500ms + 1, "seconds(t) / 0.5 + 1", 181},
                                           {Source("n") / 1s * 2, "seconds(n) * 2", 14},
                                           {(Source("t") - Source("n")) / 1s, "seconds(t - n)", 83},
                                           {Source("t") > 80s && Source("n") < 8, "t > 80 and n < 8", 1},
                                           {Source("n") + 2s, nullptr, 9},
                                           {Source("n") * 2s, nullptr, 14},
                                           {Source("n") * 0.1F, nullptr, 0.7F}}) {
        Hud hud({}, sources);
        const ElementRef shown = hud.add(Text{.id = "t", .value = row.source});
        update(hud, 0s);
        EXPECT_NEAR(hud[shown].truth.number(), row.value, 1e-6);
        EXPECT_EQ(write_expression(row.source), row.text != nullptr ? row.text : "");
        if (row.text == nullptr) continue;
        const Result<Source> read = parse_expression(row.text);
        ASSERT_TRUE(read) << row.text;
        EXPECT_TRUE(read->is_same(row.source) || write_expression(*read) == row.text);
        const ElementRef again = hud.add(Text{.id = "u", .value = *read});
        update(hud, 0s);
        EXPECT_EQ(hud[again].truth.number(), hud[shown].truth.number()) << row.text;
    }
}

TEST(Condition, follows_its_inputs_wherever_they_come_from) {
    int cost = 3, mana = 5;
    Sources sources;
    sources.set("mana", watch(mana));
    sources.set("is_poor", by_name("card.cost") > by_name("mana"));
    sources.set("is_very_poor", by_name("is_poor") && by_name("mana") < 2);
    HudDefinition definition;
    definition.timers = {{.id = "bomb", .duration = 10s, .start_when = by_name("is_poor")}};
    Hud hud(definition, sources);
    const ElementRef warning = hud.add(Text{.id = "w", .format = "POOR", .visible = by_name("is_poor")});
    const ElementRef very =
        hud.add(Text{.id = "v", .format = "VERY", .visible = !by_name("is_poor") || by_name("is_very_poor")});
    const ElementRef gap = hud.add(Text{.id = "g", .value = by_name("mana") - by_name("card.cost")});
    const ElementRef urgent =
        hud.add(Text{.id = "u", .format = "!", .visible = by_name("bomb.left") < 8 && by_name("is_poor")});
    update(hud, 0s);
    EXPECT_FALSE(hud[warning].visible) << "nobody has offered the cost";
    EXPECT_EQ(to_string(hud.problems().at(1)), "error: source 'is_poor': unknown source 'card.cost'");
    EXPECT_EQ(hud[gap].text, "--");
    sources.set("card.cost", watch(cost));
    update(hud, 0s);
    EXPECT_EQ(hud[gap].text, "2");
    EXPECT_TRUE(hud[very].visible);
    cost = 6;
    update(hud, 1s);
    EXPECT_TRUE(hud[warning].visible);
    EXPECT_FALSE(hud[very].visible);
    EXPECT_EQ(hud[gap].text, "-1");
    EXPECT_FALSE(hud[urgent].visible);
    update(hud, 2500ms);
    EXPECT_TRUE(hud[urgent].visible) << "the timer began with the condition, in the same frame";
    mana = 1;
    update(hud, 0s);
    EXPECT_TRUE(hud[very].visible);
    sources.set("is_poor", constant(false));
    update(hud, 0s);
    EXPECT_FALSE(hud[warning].visible);
    sources.set("is_poor", by_name("card.cost") > 100 || by_name("is_very_poor"));
    update(hud, 0s);
    EXPECT_FALSE(hud[warning].visible) << "what is made of itself has no value";
    bool told = false;
    for (const Problem& problem : hud.problems())
        told = told || problem.message == "source 'is_poor' is computed from itself";
    EXPECT_TRUE(told);
    sources.set("is_poor", by_name("card.cost") > 5);
    update(hud, 0s);
    EXPECT_TRUE(hud[warning].visible);
    hud.remove(warning);
    hud.remove(gap);
    cost = 1;
    update(hud, 0s);
    update(hud, 0s);
    EXPECT_TRUE(hud[very].visible);
}

/// Names that mean a number, nothing, or a sum of two others, and what each of them is then.
struct Web {
    struct Meaning {
        enum class Kind { nothing, number, sum } kind = Kind::nothing;
        int number = 0;
        std::string first, second;
    };
    std::map<std::string, Meaning> names;

    std::optional<int> value(const std::string& name, int depth = 0) const {
        const auto known = names.find(name);
        if (known == names.end() || known->second.kind == Meaning::Kind::nothing || depth > 6) return std::nullopt;
        if (known->second.kind == Meaning::Kind::number) return known->second.number;
        const std::optional<int> a = value(known->second.first, depth + 1), b = value(known->second.second, depth + 1);
        return a && b ? std::optional(*a + *b) : std::nullopt;
    }
};

TEST(Condition, is_right_whatever_names_come_to_mean_and_whoever_comes_and_goes) {
    Random random(61);
    for (int run = 0; run < 40; ++run) {
        Web web;
        Sources sources;
        Hud hud({}, sources);
        std::map<std::string, ElementRef> shown;
        const auto any_name = [&] { return "n" + std::to_string(random.below(6)); };
        for (int step = 0; step < 120; ++step) {
            const std::string name = any_name();
            switch (random.below(5)) {
                case 0: {
                    const int number = random.below(100);
                    web.names[name] = {Web::Meaning::Kind::number, number, "", ""};
                    sources.set(name, constant(number));
                    break;
                }
                case 1: {
                    const std::string first = any_name(), second = any_name();
                    web.names[name] = {Web::Meaning::Kind::sum, 0, first, second};
                    sources.set(name, by_name(first) + by_name(second));
                    break;
                }
                case 2: {
                    const std::string id = "e" + std::to_string(step);
                    shown[name] =
                        hud.alive(shown[name]) ? shown[name] : hud.add(Text{.id = id, .value = by_name(name)});
                    break;
                }
                case 3:
                    hud.remove(shown[name]);
                    break;
                default:
                    hud.change(shown[name], Text{.id = std::string(hud[shown[name]].id), .value = by_name(name) + 0});
                    break;
            }
            update(hud, 16ms);
            for (const auto& [asked, element] : shown) {
                if (!hud.alive(element)) continue;
                const std::optional<int> expected = web.value(asked);
                ASSERT_EQ(hud[element].truth.has_value(), expected.has_value()) << run << " " << step << " " << asked;
                if (expected) {
                    ASSERT_EQ(hud[element].truth.number(), *expected) << run << " " << step << " " << asked;
                }
            }
        }
    }
}

TEST(Condition, gives_gains_snaps_and_empties_as_any_value_does) {
    int tank = 10, water = 4;
    Hud hud;
    const ElementRef bar =
        hud.add(Bar{.id = "b", .value = watch(tank) - watch(water), .max = watch(tank) + 10, .motion = tween(1s)});
    update(hud, 0s);
    EXPECT_EQ(hud[bar].truth, Value(std::int64_t{6}));
    EXPECT_EQ(hud[bar].fill, 0.3);
    water = 10;
    update(hud, 100ms);
    ASSERT_EQ(hud.events().size(), 1U);
    EXPECT_EQ(hud.events()[0].kind, EventKind::empty);
    EXPECT_EQ(hud[bar].fill, 0.3) << "it is on its way";
    water = 0;
    hud.snap();
    update(hud, 100ms);
    EXPECT_EQ(hud[bar].fill, 0.5);
    tank = 0;
    water = -10;
    update(hud, 0s);
    EXPECT_EQ(hud[bar].target, Value(std::int64_t{10})) << "both have changed, and the difference has not";
    EXPECT_TRUE(hud.events().empty() || hud.events()[0].kind == EventKind::full);
}

TEST(Condition, knows_how_long_ago_something_changed) {
    float health = 100;
    Hud hud;
    const ElementRef bar = hud.add(
        Bar{.id = "b", .value = watch(health), .max = 100, .visible = since(watch(health)) < 4 || watch(health) < 30});
    update(hud, 0s);
    EXPECT_FALSE(hud[bar].visible) << "it has not changed yet";
    update(hud, 10s);
    EXPECT_FALSE(hud[bar].visible);
    health = 80;
    update(hud, 16ms);
    EXPECT_TRUE(hud[bar].visible);
    update(hud, 3900ms);
    EXPECT_TRUE(hud[bar].visible);
    update(hud, 200ms);
    EXPECT_FALSE(hud[bar].visible);
    health = 20;
    update(hud, 0s);
    update(hud, 1min);
    EXPECT_TRUE(hud[bar].visible) << "it is low";
    health = 90;
    hud.snap();
    update(hud, 0s);
    update(hud, 1s);
    EXPECT_TRUE(hud[bar].visible) << "the snap of a HUD is one of its elements; the source has changed";
}

TEST(Condition, of_a_time_turns_at_its_exact_moment_whatever_the_frames) {
    for (const double game_speed : {1.0, 0.5})
        for (const Nanoseconds frame : {Nanoseconds{5ms}, Nanoseconds{13ms}, Nanoseconds{100ms}, Nanoseconds{2600ms}}) {
            int hits = 0;
            HudDefinition definition;
            definition.effects = {{.id = "in", .duration = 400ms, .keyframes = {{.at = 0, .opacity = 0.0F}}}};
            definition.timers = {
                {.id = "t", .duration = 10s},
                {.id = "second", .duration = 9s, .start_when = Source("t.left") < 7.5s},
                {.id = "third", .duration = 9s, .start_when = Source("second.elapsed") >= 50ms},
                {.id = "held", .duration = 9s, .start_when = Source("t.left") < 7.5s, .pause_when = watch(hits) < 9}};
            definition.elements = {
                Text{.id = "late", .format = "LATE", .visible = Source("t.elapsed") > 2.5s, .enter = "in"},
                Text{.id = "not", .format = "EARLY", .visible = !(Source("t.left") < 7.5s), .leave = "in"},
                Text{.id = "long", .format = "LONG", .visible = since(watch(hits)) > 1s, .enter = "in"},
                Notice{.id = "news", .messages = {{.id = "a", .text = "HALF", .when = Source("t.left") * 4 <= 30s}}},
                Text{.id = "hot",
                     .format = "HOT",
                     .bands = {{.id = "hot", .when = Source("t.left") < 7.5s, .color = rgb(0xff7a3c)}}},
                // What the game turns is turned when the HUD sees it.
                Text{.id = "both",
                     .format = "x",
                     .visible = Source("t.elapsed") > 2.5s && watch(hits) > 1,
                     .enter = "in"}};
            Hud hud(definition);
            ASSERT_EQ(hud.problems(), Problems{});
            const auto pass = [&](Nanoseconds until, Nanoseconds& now) {
                while (now < until) {
                    const Nanoseconds step = std::min(frame, until - now);
                    now += step;
                    hud.update({.real = to_seconds(step), .game = to_seconds(step) * game_speed});
                    for (const Event& event : hud.events())
                        if (event.kind == EventKind::enter || event.kind == EventKind::band_enter ||
                            (event.kind == EventKind::start && event.id == "second")) {
                            EXPECT_NEAR(static_cast<double>(event.time.count()), 2.5e9 / game_speed, 2) << event.id;
                        }
                }
            };
            Nanoseconds now{0};
            hud.update(0.0);
            EXPECT_EQ(hud[hud.find("hot")].color, rgb(0xf2efe6));
            hits = 1;
            hud.update(0.0);
            const Nanoseconds end = to_nanoseconds(Seconds{2.6 / game_speed});
            pass(1ms, now);
            pass(end, now);
            const double gone = 0.1 / game_speed;
            const std::string where = std::to_string(frame.count()) + " at " + std::to_string(game_speed);
            EXPECT_NEAR(hud[hud.find("late")].opacity, gone / 0.4, 1e-3) << where;
            EXPECT_NEAR(hud[hud.find("not")].opacity, 1 - gone / 0.4, 1e-3) << where;
            EXPECT_EQ(hud[hud.find("long")].opacity, 1) << where;
            EXPECT_NEAR(to_seconds(hud.timer("second")->elapsed()).count(), 0.1, 1e-6) << where;
            EXPECT_NEAR(to_seconds(hud.timer("third")->elapsed()).count(), 0.05, 1e-6) << where;
            EXPECT_EQ(hud.timer("held")->elapsed(), 0s) << where;
            EXPECT_EQ(hud.text_of(hud.find("news")), "HALF");
            EXPECT_EQ(hud[hud.find("hot")].color, rgb(0xff7a3c));
            hits = 2;
            hud.update({.real = 1ms, .game = Seconds{0}});
            EXPECT_TRUE(hud[hud.find("both")].visible);
            EXPECT_NEAR(hud[hud.find("both")].opacity, 0, 0.01) << where;
        }
}

TEST(Condition, stands_in_files_wherever_a_source_does) {
    const auto read = read_hud(R"([component.card]
parameters = { cost = "source", limit = { type = "number", default = 3 }, rank = "text" }

[[component.card.element]]
kind = "text"
id = "warning"
format = "too much"
visible = "$cost > player.mana and not ($cost - $limit < 0) and player.rank == $rank"

[[component.card.element]]
kind = "text"
id = "other"
format = "enough"
visible = "!$cost"

[[element]]
kind = "card"
id = "fire"
cost = "deck.fire * 2"
rank = "it's"

[[element]]
kind = "bar"
id = "gap"
value = "player.tank - player.water"
max = "player.tank"
)",
                               "hud.toml");
    ASSERT_TRUE(read) << read.problems()[0].message;
    int fire = 2, mana = 3;
    double tank = 10, water = 4;
    std::string rank = "it's";
    Sources sources;
    sources.set("deck.fire", watch(fire));
    sources.set("player.mana", watch(mana));
    sources.set("player.tank", watch(tank));
    sources.set("player.water", watch(water));
    sources.set("player.rank", watch(rank));
    Hud hud(*read, sources);
    ASSERT_TRUE(hud.problems().empty()) << hud.problems()[0].message;
    update(hud, 0s);
    EXPECT_EQ(hud[hud.find("gap")].fill, 0.6);
    EXPECT_TRUE(hud[hud.find("fire.warning")].visible);
    EXPECT_FALSE(hud[hud.find("fire.other")].visible);
    mana = 5;
    update(hud, 0s);
    EXPECT_FALSE(hud[hud.find("fire.warning")].visible);
    mana = 0;
    fire = 1;
    update(hud, 0s);
    EXPECT_FALSE(hud[hud.find("fire.warning")].visible) << "2 is less than the limit";
    fire = 0;
    update(hud, 0s);
    EXPECT_TRUE(hud[hud.find("fire.other")].visible);
    const Result<std::string> written = write_hud(*read);
    ASSERT_TRUE(written);
    EXPECT_NE(
        written->find(
            R"~(visible = "deck.fire * 2 > player.mana and not deck.fire * 2 - 3 < 0 and player.rank == 'it''s'")~"),
        std::string::npos)
        << *written;
    EXPECT_NE(written->find(R"~(visible = "not (deck.fire * 2)")~"), std::string::npos) << *written;
    const auto again = read_hud(*written, "hud.toml");
    ASSERT_TRUE(again);
    EXPECT_TRUE(again->elements == read->elements);

    const auto faulty =
        read_hud("[[element]]\nkind = \"text\"\nid = \"t\"\nvisible = \"a < b < c\"\nvalue = \"$cost\"\n", "hud.toml");
    ASSERT_FALSE(faulty);
    ASSERT_EQ(faulty.problems().size(), 2U);
    EXPECT_EQ(
        to_string(faulty.problems()[0]),
        "hud.toml:4:11: error: 'visible' of text 't' compares three values in a row, at character 7; write 'a < b and "
        "b < c'");
    EXPECT_EQ(
        to_string(faulty.problems()[1]),
        "hud.toml:5:9: error: 'value' of text 't' asks for '$cost', which is no parameter of a component around it");
}

TEST(HudFile, takes_as_many_named_values_as_it_says) {
    const auto of = [](int count) {
        std::string text = "[[element]]\nkind = \"text\"\nid = \"t\"\nvalues = { ";
        for (int i = 0; i < count; ++i)
            text += (i > 0 ? ", v" : "v") + std::to_string(i) + " = " + std::to_string(i);
        return read_hud(text + " }\n", "hud.toml");
    };
    EXPECT_TRUE(of(8));
    ASSERT_FALSE(of(9));
    EXPECT_EQ(to_string(of(9).problems()[0]), "hud.toml:4:10: error: 'values' of text 't' has more than 8 entries");
}

}  // namespace condition_test
}  // namespace rapido::test
