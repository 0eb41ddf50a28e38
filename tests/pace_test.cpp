// When a shown value may change, and what a HUD makes of it.
#include <deque>
#include <set>

#include "rapido/pace.hpp"
#include "support.hpp"

namespace rapido::test {
namespace pace_test {

Nanoseconds ms(std::int64_t count) {
    return Nanoseconds{count * 1'000'000};
}

/// A change of the source, and what has passed by then.
struct Row {
    int at;
    double source;
    double passed;
};

void expect_rows(const Pace& pace, const std::vector<Row>& rows, double max = 1000) {
    Pacer pacer{pace};
    for (const Row& row : rows) {
        pacer.set(row.source, ms(row.at), max);
        while (pacer.take(ms(row.at))) {
        }
        EXPECT_EQ(pacer.passed().number(), row.passed) << "at " << row.at << " ms";
    }
}

TEST(Pace, settles_when_it_is_quiet_or_has_waited_long_enough) {
    expect_rows({.settle = 100ms, .settle_cap = 250ms}, {{0, 5, 5},  // the first value at once
                                                         {10, 7, 5},
                                                         {109, 7, 5},
                                                         {110, 7, 7},
                                                         {200, 8, 7},
                                                         {280, 9, 7},
                                                         {360, 10, 7},
                                                         {440, 11, 7},
                                                         {449, 12, 7},
                                                         {451, 12, 12},  // its first change waits since 200
                                                         {500, 0, 0},    // zero does not wait
                                                         {510, 3, 0},
                                                         {520, 1000, 1000},  // nor does the maximum
                                                         {530, 999, 1000},
                                                         {629, 999, 1000},
                                                         {630, 999, 999}});
}

TEST(Pace, passes_at_even_intervals_whatever_the_frames_are) {
    expect_rows({.interval = 100ms}, {{7, 1, 1},
                                      {60, 2, 1},
                                      {99, 3, 1},
                                      {130, 4, 3},  // what it was at 100
                                      {190, 4, 3},
                                      {200, 5, 5},  // a change at the very end belongs to it
                                      {250, 6, 5},
                                      {920, 7, 6},  // one refresh for all that a hitch jumps over
                                      {999, 7, 6},
                                      {1000, 7, 7}});
}

TEST(Pace, holds_back_small_changes_until_the_value_rests) {
    expect_rows({.smallest_change = 5}, {{0, 100, 100},
                                         {10, 104, 100},
                                         {20, 105, 105},
                                         {30, 101, 105},
                                         {529, 101, 105},
                                         {530, 101, 101},  // half a second of quiet
                                         {600, 98, 101},
                                         {610, 0, 0},
                                         {620, 2, 0},
                                         {630, 1000, 1000},
                                         {640, 998, 1000}});
    expect_rows({.quantize = 25}, {{0, 30, 30},  // the first value as it is
                                   {10, 38, 50},
                                   {20, 37.5, 50},  // ties to even: two steps
                                   {30, 12, 25},    // no amount is shown as none
                                   {40, 999, 975},  // nor as all of it
                                   {50, 1000, 1000},
                                   {60, 0, 0},
                                   {70, -3, -25},
                                   {80, 61, 50},
                                   {579, 61, 50},
                                   {580, 61, 61}});
}

TEST(Pace, quantizes_in_the_values_own_type) {
    const std::vector<std::tuple<Value, double, Value, Value>> rows{
        {7, 5, {}, 5},
        {std::int64_t{-8}, 5, {}, -10},
        {std::uint64_t{18446744073709551615U}, 0, {}, std::uint64_t{18446744073709551615U}},
        {12.3F, 0.5, {}, 12.5F},
        {1.25, 0.5, {}, 1.0},
        {2, 5, {}, 5},
        {2, 5, 4, 2},  // between nothing and the maximum there is no step: as it is
        {98, 10, 95, 100},
        {94, 10, 95, 90},
        {Nanoseconds(1'400ms), 1, {}, Nanoseconds(1s)},
        {"Alder Creek", 5, {}, "Alder Creek"},
        {true, 5, {}, true},
        {double(INFINITY), 5, {}, double(INFINITY)},
        {7, -1, {}, 7},
        {7, NAN, {}, 7},
        {Value(), 5, {}, Value()},
    };
    for (const auto& [value, step, max, expected] : rows)
        EXPECT_TRUE(quantize(value, step, max) == expected)
            << value.number() << " by " << step << " gives " << quantize(value, step, max).number();
}

/// One sample a millisecond, kept; windows are looked up in them.
double window_by_hand(const std::deque<double>& samples, int end, Pick kind) {
    // samples[i] holds from i ms on; the window is (end - 100, end].
    const int start = end - 100;
    double sum = 0;
    double least = samples[static_cast<std::size_t>(start)], most = least;
    for (int i = start; i < end; ++i) {
        sum += samples[static_cast<std::size_t>(i)];
        for (const int at : {i, i + 1}) {
            least = std::min(least, samples[static_cast<std::size_t>(at)]);
            most = std::max(most, samples[static_cast<std::size_t>(at)]);
        }
    }
    switch (kind) {
        case Pick::average:
            return sum / 100;
        case Pick::minimum:
            return least;
        case Pick::maximum:
            return most;
        default:
            return samples[static_cast<std::size_t>(end)];
    }
}

TEST(Pace, quantizes_decimals_and_large_integers_exactly) {
    constexpr std::int64_t most = std::numeric_limits<std::int64_t>::max();
    EXPECT_EQ(quantize(0.31, 0.1), Value(0.3));
    EXPECT_EQ(quantize(1.17, 0.05), Value(1.15));
    EXPECT_EQ(quantize(most, 5), Value(std::int64_t{9223372036854775805}));
    EXPECT_EQ(quantize(-most, 10), Value(std::int64_t{-9223372036854775800})) << "one more would not fit";
    EXPECT_EQ(quantize(std::numeric_limits<std::uint64_t>::max(), 1000), Value(std::uint64_t{18446744073709551000U}));
}

TEST(Pace, averages_leave_out_the_time_without_a_number) {
    for (const double gap : {static_cast<double>(NAN), static_cast<double>(INFINITY)}) {
        Pacer pacer({.interval = 1s, .pick = Pick::average});
        pacer.snap(10.0, 0ns);
        pacer.set(gap, 200ms);
        const auto at_once = pacer.take(400ms);
        ASSERT_TRUE(at_once);
        EXPECT_EQ(at_once->time, 200ms);
        EXPECT_FALSE(std::isfinite(at_once->value.number()));
        EXPECT_FALSE(pacer.take(400ms));
        pacer.set(10.0, 600ms);
        while (const auto value = pacer.take(2s))
            EXPECT_EQ(value->value.number(), 10) << "nothing between";
    }
}

TEST(Pace, windows_give_what_the_samples_in_them_say) {
    Random random(44);
    for (const Pick kind : {Pick::last, Pick::average, Pick::minimum, Pick::maximum}) {
        for (int round = 0; round < 20; ++round) {
            Pacer pacer{{.interval = 100ms, .pick = kind}};
            std::deque<double> samples;
            double source = 50;
            for (int now = 0; now <= 3000; ++now) {
                // Frames of one millisecond up to long ones; what the clock jumps over is closed all the same.
                const bool frame = now == 0 || random.below(round % 3 == 0 ? 150 : 3) == 0;
                if (frame && random.below(round % 2 == 0 ? 3 : 20) == 0) source = random.between(1, 100);
                samples.push_back(source);
                if (!frame) continue;
                pacer.set(source, ms(now));
                while (const auto passed = pacer.take(ms(now)))
                    EXPECT_TRUE(now == 0 || passed->time.count() % 100'000'000 == 0);
                if (now < 100) continue;
                ASSERT_NEAR(pacer.passed().number(), window_by_hand(samples, now / 100 * 100, kind), 1e-9)
                    << static_cast<int>(kind) << " at " << now;
            }
        }
    }
}

/// A game of one value, played in frames of random length; its changes are at moments common to all.
struct Game {
    std::vector<std::pair<Nanoseconds, double>> changes;
    double value = 100;

    explicit Game(Random& random, double step) {
        Nanoseconds moment{0};
        for (int i = 0; i < 40; ++i) {
            moment += ms(1 + random.below(random.below(4) == 0 ? 900 : 60));
            const double next = std::round(random.between(0, 200)) * step;
            changes.emplace_back(moment, random.below(9) == 0 ? 0 : next);
        }
    }

    /// Calls `probe` every 50 ms.
    template <class Probe>
    void play(Hud& hud, Random& random, Nanoseconds longest, Probe probe) {
        value = 100;
        update(hud, 0s);
        std::size_t next = 0;
        Nanoseconds now{0};
        for (int i = 1; i <= 300; ++i) {
            while (now < ms(50 * i)) {
                Nanoseconds until = ms(50 * i);
                if (next < changes.size()) until = std::min(until, changes[next].first);
                const double most = static_cast<double>(std::min(until - now, longest).count());
                const Nanoseconds step{1 + static_cast<std::int64_t>(random.unit() * (most - 1))};
                now += step;
                if (next < changes.size() && changes[next].first == now) value = changes[next++].second;
                update(hud, step);
                probe(false);
            }
            probe(true);
        }
    }
};

TEST(Pace, and_motion_are_the_same_at_every_frame_rate) {
    Random random(45);
    for (int round = 0; round < 24; ++round) {
        Game game(random, 1);
        const std::vector<Pace> paces{
            {},
            {.settle = 120ms},
            {.interval = 70ms, .pick = static_cast<Pick>(random.below(4))},
            {.settle = 30ms, .interval = 45ms, .quantize = 5, .smallest_change = 7},
        };
        const Pace pace = paces[static_cast<std::size_t>(round) % paces.size()];
        const Motion motion = round % 3 == 0 ? tween(200ms) : round % 3 == 1 ? spring(150ms) : roll(300ms);
        std::vector<std::vector<double>> runs;
        for (const Nanoseconds longest : {ms(1), ms(17), ms(50), ms(5000)}) {
            Hud hud;
            const auto bar = hud.add(
                Bar{.id = "b",
                    .value = watch(game.value),
                    .max = 250,
                    .pace = pace,
                    .motion = {.both = motion, .down = round % 2 == 0 ? std::optional(tween(80ms)) : std::nullopt},
                    .trail = {.delay = 150ms, .duration = 200ms}});
            auto& run = runs.emplace_back();
            game.play(hud, random, longest, [&](bool at_probe) {
                if (!at_probe) return;
                run.push_back(*hud[bar].fill);
                run.push_back(*hud[bar].trail);
                run.push_back(hud[bar].target.number());
            });
            update(hud, 20s);
            EXPECT_EQ(*hud[bar].fill, game.value / 250);
            EXPECT_EQ(*hud[bar].trail, game.value / 250);
        }
        for (std::size_t other = 1; other < runs.size(); ++other)
            for (std::size_t i = 0; i < runs[0].size(); ++i)
                ASSERT_NEAR(runs[other][i], runs[0][i], i % 3 == 2 ? 1e-9 * 250 : 1e-9)
                    << "round " << round << ", value " << i;
    }
}

TEST(Pending, and_the_total_shown_are_the_true_value_on_every_frame) {
    Random random(46);
    for (int round = 0; round < 16; ++round) {
        const bool tenths = round % 2 == 1;
        Game game(random, tenths ? 0.7 : 1);
        Hud hud;
        const Motion motions[]{roll(400ms), tween(200ms), spring(300ms, 0.5F), instant()};
        const auto total = hud.add(Text{.id = "score",
                                        .value = watch(game.value),
                                        .format = tenths ? "{:.1f}" : "{:.0f}",
                                        .pace = {.settle = Seconds{random.between(0, 0.2)}},
                                        .motion = motions[round / 2 % 4],
                                        .text_interval = Seconds{round % 3 * 0.04}});
        const auto part = [&](const char* id) {
            const Source source = rapido::by_name("score." + std::string(id));
            const auto added = hud.add(Text{.id = id, .value = source, .format = tenths ? "{:.1f}" : "{:d}"});
            return added;
        };
        const auto pending = part("pending"), gain = part("gain"), loss = part("loss");
        ASSERT_TRUE(hud.problems().empty()) << to_string(hud.problems()[0]);
        const auto units = [&](ElementRef element) {
            return std::llround(std::stod(text_of(hud, element)) * (tenths ? 10 : 1));
        };
        game.play(hud, random, ms(20), [&](bool) {
            const long long truth = tenths ? std::llround(game.value * 10) : std::llround(game.value);
            ASSERT_EQ(units(total) + units(pending), truth);
            ASSERT_EQ(units(gain) + units(loss), units(pending));
            ASSERT_GE(units(gain), 0);
            ASSERT_LE(units(loss), 0);
        });
        update(hud, 20s);
        EXPECT_EQ(units(pending), 0);
        EXPECT_EQ(units(gain), 0);
    }
}

TEST(Pending, says_what_it_was_while_it_leaves) {
    int score = 0;
    Hud hud;
    hud.add(Text{.id = "score", .value = watch(score), .pace = {.settle = 300ms}});
    const auto gain = hud.add(Text{.id = "gain",
                                   .value = "score.pending",
                                   .format = "{:+}",
                                   .visible = "score.pending",
                                   .enter = "fade",
                                   .leave = "fade"});
    update(hud, 0s);
    score = 250;
    std::set<std::string> seen;
    for (int i = 0; i < 60; ++i) {
        update(hud, 20ms);
        if (hud[gain].visible) seen.emplace(hud.text_of(gain));
    }
    EXPECT_EQ(seen, std::set<std::string>{"+250"});
    EXPECT_FALSE(hud[gain].visible);
    score = 255;
    update(hud, 20ms);
    EXPECT_EQ(hud.text_of(gain), "+5");
}

TEST(Pending, gathers_pick_ups_and_flows_when_no_more_come) {
    int score = 100;
    Hud hud;
    const auto early =
        hud.add(Text{.id = "gain", .value = "score.pending", .format = "{:+}", .visible = "score.pending"});
    EXPECT_EQ(hud.problems().size(), 2U) << "nobody counts yet";
    hud.remove(early);
    const auto total =
        hud.add(Text{.id = "score", .value = watch(score), .format = "{} ({delta:+})", .pace = {.settle = 300ms}});
    EXPECT_TRUE(total);
    hud.remove(total);
    const auto counter = hud.add(Text{.id = "count",
                                      .value = watch(score),
                                      .pace = {.settle = 300ms, .settle_cap = 1s},
                                      .motion = tween(200ms, Easing::linear())});
    const auto gain =
        hud.add(Text{.id = "gain", .value = "count.pending", .format = "{:+}", .visible = "count.pending"});
    update(hud, 0s);
    EXPECT_FALSE(hud[gain].visible);
    for (int i = 0; i < 40; ++i) {  // forty pick-ups within 0.8 s
        ++score;
        update(hud, 20ms);
        EXPECT_EQ(text_of(hud, counter), "100");
        EXPECT_EQ(text_of(hud, gain), "+" + std::to_string(i + 1));
        EXPECT_TRUE(hud[gain].visible);
    }
    update(hud,
           200ms);  // the cap: 1 s after the first one, which came at 20 ms; half of the flight is done at 1.1 s
    update(hud, 120ms);
    EXPECT_EQ(text_of(hud, counter), "120");
    EXPECT_EQ(text_of(hud, gain), "+20");
    update(hud, 100ms);
    EXPECT_EQ(text_of(hud, counter), "140");
    EXPECT_FALSE(hud[gain].visible);

    score -= 40;
    hud.snap();
    update(hud, 1ms);
    EXPECT_EQ(text_of(hud, counter), "100");
    EXPECT_FALSE(hud[gain].visible);
}

TEST(Pending, needs_a_fixed_count_of_digits) {
    double fuel = 1;
    const auto problems = [&](const char* format, const char* source, int compact = 0) {
        Hud hud;
        hud.add(Text{.id = "fuel", .value = watch(fuel), .format = format, .compact_digits = compact});
        hud.add(Text{.id = "p", .value = rapido::by_name(source)});
        return hud.problems().empty() ? "" : hud.problems()[0].message;
    };
    EXPECT_EQ(problems("{:.2f}", "fuel.pending"), "");
    EXPECT_EQ(problems("{}", "fuel.pending"),
              "'value' of text 'p': 'fuel' must show one number with a fixed count of digits for 'fuel.pending'");
    EXPECT_NE(problems("{:.1e}", "fuel.gain"), "");
    EXPECT_NE(problems("FUEL", "fuel.loss"), "");
    EXPECT_NE(problems("{:.1f}", "fuel.pending", 3), "");
    EXPECT_EQ(problems("{:.1f}", "fuel.pendin"), "'value' of text 'p': unknown source 'fuel.pendin'");

    // Of one in a panel, the end of its path will do, as long as no other has it.
    HudDefinition nested;
    nested.elements = {
        Text{.id = "p", .value = "plane.fuel.gain"},
        Text{.id = "q", .value = "fuel.gain"},
        Text{.id = "near", .value = "ful.gain"},
        Panel{.id = "hud"},
        Panel{.id = "plane", .inside = "hud"},
        Text{.id = "fuel", .value = watch(fuel), .format = "{:.0f}", .pace = {.settle = 1s}, .inside = "plane"}};
    Hud inside(nested);
    ASSERT_EQ(inside.problems().size(), 1U);
    EXPECT_EQ(to_string(inside.problems()[0]),
              "error: 'value' of text 'near': unknown source 'ful.gain'; did you mean 'fuel.gain'?");
    update(inside, 16ms);
    fuel += 3;
    update(inside, 16ms);
    EXPECT_EQ(inside.text_of(inside.find("p")), "3");
    EXPECT_EQ(inside.text_of(inside.find("q")), "3");
    // A reload puts it into another panel, and the end of its path means that one.
    for (Element& element : nested.elements) {
        if (element.id() == "hud") element.set_id("ui");
        if (element.inside() == "hud") element.set_inside("ui");
    }
    inside.reload(nested);
    update(inside, 16ms);
    fuel += 4;
    update(inside, 16ms);
    EXPECT_EQ(inside.text_of(inside.find("q")), "4");

    HudDefinition definition;  // in any order
    definition.elements = {Text{.id = "p", .value = "fuel.pending", .format = "{:+.1f}"},
                           Text{.id = "fuel", .value = watch(fuel), .format = "{}"}};
    const Hud hud(definition);
    ASSERT_EQ(hud.problems().size(), 1U);
    EXPECT_EQ(hud.problems()[0].message,
              "'format' of text 'fuel' must show one number with a fixed count of digits, as 'fuel.pending' is "
              "shown");
}

TEST(Motion, may_differ_for_rising_and_falling) {
    float hull = 50;
    Hud hud;
    const auto bar = hud.add(Bar{.id = "hull",
                                 .value = watch(hull),
                                 .max = 100,
                                 .motion = {.both = tween(1s, Easing::linear()), .down = instant()}});
    update(hud, 0s);
    hull = 90;
    update(hud, 10ms);
    EXPECT_EQ(*hud[bar].fill, 0.5);
    update(hud, 500ms);
    EXPECT_NEAR(*hud[bar].fill, 0.7, 1e-6);
    EXPECT_EQ(hud[bar].truth.number(), 90);
    EXPECT_NEAR(hud[bar].shown.number(), 70, 1e-4);
    hull = 20;
    update(hud, 10ms);
    EXPECT_NEAR(*hud[bar].fill, 0.2, 1e-6) << "damage drops at once";
}

TEST(Motion, of_an_integer_goes_on_between_two_of_them_where_a_shape_shows_it) {
    int crew = 3;
    Hud hud;
    const Motion slow = tween(1s, Easing::linear());
    const Source value = watch(crew);
    const std::vector<ElementRef> shapes{
        hud.add(Bar{.id = "bar", .value = value, .max = 5, .motion = slow}),
        hud.add(Bar{.id = "trailed", .value = value, .max = 5, .motion = slow, .trail = {.delay = 100ms}}),
        hud.add(Ring{.id = "ring", .value = value, .max = 5, .motion = slow}),
        hud.add(Level{.id = "level", .value = value, .max = 5, .motion = slow}),
        hud.add(Dial{.id = "dial", .value = value, .max = 5, .motion = slow}),
        hud.add(Ruler{.id = "ruler", .value = value, .max = 5, .motion = slow}),
        hud.add(Pips{.id = "halves", .value = value, .max = 5, .motion = slow, .steps = 2})};
    const auto text = hud.add(Text{.id = "text", .value = value, .motion = slow});
    const auto change = hud.add(Text{.id = "change", .value = value, .format = "{} ({delta:+})", .motion = slow});
    const auto whole = hud.add(Pips{.id = "whole", .value = value, .max = 5, .motion = slow});
    const auto part = hud.add(Text{.id = "part", .value = value, .max = 5, .format = "{percent}%", .motion = slow});
    update(hud, 0s);
    crew = 2;
    update(hud, 0s);
    update(hud, 250ms);
    for (const ElementRef shape : shapes)
        EXPECT_NEAR(*hud[shape].fill, 2.75 / 5, 1e-9) << hud[shape].id;
    EXPECT_EQ(hud[text].text, "3") << "a text never shows the target too soon";
    EXPECT_EQ(hud[part].text, "55%");
    crew = 1;
    update(hud, 0s);
    EXPECT_EQ(hud[change].text, "3 (-1)") << "the change is told though the number stands";
    EXPECT_EQ(*hud[whole].fill, 0.6) << "whole pips are counted";
    crew = 2;
    update(hud, 0s);
    EXPECT_EQ(hud[change].text, "3 (+1)");
    update(hud, 1s);
    for (const ElementRef shape : shapes)
        EXPECT_EQ(*hud[shape].fill, 0.4) << hud[shape].id;
    EXPECT_EQ(hud[text].text, "2");
    EXPECT_EQ(hud[part].text, "40%");
}

TEST(Motion, is_drawn_on_a_grid_and_asks_for_nothing_between_its_steps) {
    double fuel = 0;
    BoxMeasurer measurer;
    Hud hud({.design = {1280, 720}}, {}, &measurer);
    const auto bar = hud.add(Bar{.id = "fuel",
                                 .value = watch(fuel),
                                 .max = 1,
                                 .motion = tween(1h, Easing::linear()),
                                 .place = {.size = {300, 12}}});
    hud.resize({1280, 720});
    update(hud, 0s);
    fuel = 1;
    update(hud, 0s);
    int changes = 0;
    std::set<double> seen;
    for (int frame = 1; frame <= 120; ++frame) {
        update(hud, 1s);
        changes += hud[bar].changed ? 1 : 0;
        seen.insert(*hud[bar].fill);
        // 300 device pixels of 64 steps each, in tens of thousands.
        EXPECT_DOUBLE_EQ(*hud[bar].fill, std::round(frame / 3600.0 * 20'000) / 20'000);
    }
    EXPECT_EQ(changes, 120) << "five steps a second";
    changes = 0;
    for (int frame = 1; frame <= 120; ++frame) {
        update(hud, Nanoseconds{1'000'000'000 / 60});
        changes += hud[bar].changed ? 1 : 0;
        seen.insert(*hud[bar].fill);
        EXPECT_NEAR(*hud[bar].fill, (120 + frame / 60.0) / 3600, 0.5001 / 20'000);
    }
    EXPECT_EQ(changes, 11);
    hud.resize({2560, 1440});
    update(hud, 0s);
    update(hud, 0s);
    EXPECT_DOUBLE_EQ(*hud[bar].fill, std::round(122 / 3600.0 * 40'000) / 40'000) << "finer where there are more pixels";
    update(hud, 1h);
    EXPECT_EQ(*hud[bar].fill, 1.0) << "exact at rest";
}

TEST(Motion, of_a_maximum_is_neither_gain_nor_loss) {
    float hull = 80, most = 100;
    Hud hud;
    const auto bar = hud.add(Bar{.id = "hull",
                                 .value = watch(hull),
                                 .max = watch(most),
                                 .motion = {.both = tween(1s), .max = tween(1s, Easing::linear())},
                                 .trail = {.delay = 500ms}});
    update(hud, 0s);
    most = 200;
    update(hud, 0s);
    EXPECT_NEAR(*hud[bar].fill, 0.8, 1e-6);
    update(hud, 500ms);
    EXPECT_NEAR(*hud[bar].fill, 80 / 150.0, 0.5 / 10'000);  // on the grid of what moves
    EXPECT_EQ(hud[bar].fill, hud[bar].trail) << "nothing was lost";
    EXPECT_TRUE(hud.events().empty());
    update(hud, 600ms);
    EXPECT_NEAR(*hud[bar].fill, 0.4, 1e-6);
}

TEST(TextInterval, keeps_a_rolling_number_readable_and_its_end_prompt) {
    int score = 0;
    Hud hud;
    const auto text = hud.add(
        Text{.id = "score", .value = watch(score), .motion = tween(1s, Easing::linear()), .text_interval = 250ms});
    update(hud, 0s);
    score = 1000;
    update(hud, 100ms);
    std::vector<std::string> seen;
    for (int i = 0; i < 100; ++i) {
        update(hud, 10ms);
        if (seen.empty() || seen.back() != text_of(hud, text)) seen.push_back(text_of(hud, text));
    }
    // At 0.25, 0.5, 0.75 and 1.0 s of the clock, and when it rests, at 1.1 s.
    EXPECT_EQ(seen, (std::vector<std::string>{"0", "150", "400", "650", "900", "1000"}));
}

TEST(ReducedMotion, makes_plain_changes_and_loses_nothing) {
    float hull = 100;
    int score = 0;
    Hud hud;
    const auto bar = hud.add(Bar{.id = "hull",
                                 .value = watch(hull),
                                 .max = 100,
                                 .motion = tween(1s),
                                 .trail = {.delay = 300ms, .duration = 1s}});
    const auto total =
        hud.add(Text{.id = "score", .value = watch(score), .pace = {.settle = 200ms}, .motion = roll(2s)});
    const auto gain = hud.add(Text{.id = "gain", .value = "score.pending"});
    update(hud, 0s);
    hull = 80;
    score = 50;
    update(hud, 100ms);
    update(hud, 250ms);
    EXPECT_GT(*hud[bar].fill, 0.8);
    EXPECT_NE(text_of(hud, total), "50");
    hud.set_reduced_motion(true);
    update(hud, 1ms);
    EXPECT_NEAR(*hud[bar].fill, 0.8, 1e-6) << "what was in flight has landed";
    EXPECT_EQ(text_of(hud, total), "50");
    hull = 60;
    score = 70;
    update(hud, 10ms);
    EXPECT_NEAR(*hud[bar].fill, 0.6, 1e-6);
    EXPECT_GE(*hud[bar].trail, 0.8) << "the loss is still shown";
    EXPECT_EQ(text_of(hud, total), "50");
    EXPECT_EQ(text_of(hud, gain), "20") << "the gain still gathers";
    update(hud, 310ms);
    EXPECT_EQ(hud[bar].trail, hud[bar].fill) << "and goes without travelling";
    EXPECT_EQ(text_of(hud, total), "70");
    EXPECT_EQ(text_of(hud, gain), "0");
}

TEST(Pace, of_a_text_waits_and_keeps_its_characters) {
    std::string village = "Alder Creek";
    Hud hud;
    const auto text = hud.add(Text{.id = "v", .value = watch(village), .pace = {.settle = 100ms}});
    hud.add(Text{.id = "w", .value = watch(village), .pace = {.pick = Pick::average, .quantize = 5}});
    ASSERT_EQ(hud.problems().size(), 2U);
    EXPECT_EQ(hud.problems()[0].message, "'pace.quantize' of text 'w' needs a number, and this source is a text");
    update(hud, 0s);
    for (const char* next : {"Birch Hollow, by the old mill and the two bridges", "Cedar Flats"}) {
        const std::string before = text_of(hud, text);
        village = next;
        update(hud, 50ms);
        village.assign(64, 'x');
        update(hud, 10ms);
        village = next;
        update(hud, 10ms);
        EXPECT_EQ(text_of(hud, text), before);
        update(hud, 100ms);
        EXPECT_EQ(text_of(hud, text), next);
    }
}

TEST(Pace, and_motion_keep_a_text_that_its_source_has_left) {
    for (const Pace& pace : {Pace{}, Pace{.settle = 10ms}}) {
        std::string name(40, 'a');
        Hud hud;
        const auto text = hud.add(Text{.id = "n", .value = watch(name), .pace = pace, .motion = tween(1s)});
        update(hud, 0s);
        for (std::size_t length : {60U, 500U, 3U, 4000U}) {
            name = std::string(length, 'b');
            update(hud, 20ms);
            update(hud, 20ms);
            EXPECT_EQ(text_of(hud, text), name);
        }
    }
}

}  // namespace pace_test
}  // namespace rapido::test
