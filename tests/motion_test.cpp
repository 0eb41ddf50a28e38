#include <sstream>

#include "rapido/motion.hpp"
#include "support.hpp"

namespace rapido::test {
namespace motion_test {

struct Curve {
    const char* name;
    double x1, y1, x2, y2;  // control points, CSS Easing Functions Level 1
};
constexpr Curve curves[]{{"linear", 0, 0, 1, 1},
                         {"ease", 0.25, 0.1, 0.25, 1},
                         {"ease-in", 0.42, 0, 1, 1},
                         {"ease-out", 0, 0, 0.58, 1},
                         {"ease-in-out", 0.42, 0, 0.58, 1}};

/// de Casteljau and bisection: slow, and nothing like the code under test.
double solve(const Curve& curve, double x) {
    const auto at = [](double p1, double p2, double t) {
        const double a = p1 * t, b = p1 + (p2 - p1) * t, c = p2 + (1 - p2) * t;
        const double d = a + (b - a) * t, e = b + (c - b) * t;
        return d + (e - d) * t;
    };
    double low = 0, high = 1;
    for (int i = 0; i < 200; ++i)
        (at(curve.x1, curve.x2, (low + high) / 2) < x ? low : high) = (low + high) / 2;
    return at(curve.y1, curve.y2, low);
}

TEST(Easing, follows_the_css_curves) {
    std::vector<std::pair<std::string, Curve>> all;
    for (const Curve& curve : curves)
        all.emplace_back(curve.name, curve);
    Random random(41);
    for (int i = 0; i < 40; ++i) {
        const Curve curve{"", random.unit(), random.between(-2, 3), random.unit(), random.between(-2, 3)};
        std::ostringstream text;
        text.precision(17);
        text << "cubic-bezier(" << curve.x1 << ", " << curve.y1 << ",\t" << curve.x2 << " ," << curve.y2 << ")";
        all.emplace_back(text.str(), curve);
    }
    for (const auto& [text, curve] : all) {
        const auto easing = Easing::parse(text);
        ASSERT_TRUE(easing) << text;
        double peak = 0;
        for (int i = 0; i <= 200; ++i) {
            const double x = i / 200.0;
            EXPECT_NEAR(easing->at(x), solve(curve, x), 1e-6) << text << " at " << x;
            peak = std::max(peak, solve(curve, x));
            if (i == 0 || i == 200) continue;
            const double slope = (solve(curve, x + 1e-7) - solve(curve, x - 1e-7)) / 2e-7;
            EXPECT_NEAR(easing->slope(x), slope, 1e-3 * (1 + std::abs(slope))) << text << " at " << x;
        }
        EXPECT_EQ(easing->at(-1), 0);
        EXPECT_EQ(easing->at(0), 0);
        EXPECT_EQ(easing->at(1), 1);
        EXPECT_EQ(easing->at(7), 1);
        EXPECT_EQ(easing->at(NAN), 0);
        // From the start a curve that goes up first turns where it is highest, or at the end.
        if (curve.y1 > 0 && curve.y2 > curve.y1) {
            EXPECT_NEAR(easing->turn(0), peak, 1e-3) << text;
        }
    }
}

TEST(Easing, steps_jump_where_the_standard_says) {
    // Where it jumps, in parts of a step, and how often.
    struct Row {
        const char* term;
        int first, last_before_end;
    };
    for (const Row& row : {Row{"jump-start", 0, 1}, Row{"start", 0, 1}, Row{"jump-end", 1, 0}, Row{"end", 1, 0},
                           Row{"jump-none", 1, 1}, Row{"jump-both", 0, 0}}) {
        for (int count = 2; count < 9; ++count) {
            const auto easing = Easing::parse("steps(" + std::to_string(count) + ", " + row.term + ")");
            ASSERT_TRUE(easing);
            std::vector<double> jumps;
            for (int i = row.first; i <= count - row.last_before_end; ++i)
                jumps.push_back(static_cast<double>(i) / count);
            for (int i = 0; i <= 200; ++i) {
                const double x = (i + (i < 200 ? 0.25 : 0)) / 200;
                const auto done = std::count_if(jumps.begin(), jumps.end(), [&](double at) { return at <= x; });
                EXPECT_NEAR(easing->at(x), static_cast<double>(done) / static_cast<double>(jumps.size()), 1e-12)
                    << row.term << " " << count << " at " << x;
                EXPECT_EQ(easing->slope(x), 0);
            }
        }
    }
    EXPECT_EQ(*Easing::parse("step-start"), *Easing::parse("steps(1, start)"));
    EXPECT_EQ(*Easing::parse("step-end"), *Easing::parse("steps(1)"));
}

TEST(Easing, linear_with_stops_places_them_as_the_standard_says) {
    using Stops = std::vector<std::pair<double, double>>;  // input, output, all written out
    const std::vector<std::pair<const char*, Stops>> rows{
        {"linear(0, 1)", {{0, 0}, {1, 1}}},
        {"linear(0, 0.25, 1)", {{0, 0}, {0.5, 0.25}, {1, 1}}},
        {"linear(0, 0.25 75%, 1)", {{0, 0}, {0.75, 0.25}, {1, 1}}},
        {"linear(0, 0.25 25% 75%, 1)", {{0, 0}, {0.25, 0.25}, {0.75, 0.25}, {1, 1}}},
        {"linear(0, 25% 75% 0.25, 1)", {{0, 0}, {0.25, 0.25}, {0.75, 0.25}, {1, 1}}},
        {"linear(0, .5 50%, 2 20%, 1)", {{0, 0}, {0.5, 0.5}, {0.5, 2}, {1, 1}}},
        {"LINEAR( 0 , +4e-1, -.2, 0.6 , 1.5, 1 )", {{0, 0}, {0.2, 0.4}, {0.4, -0.2}, {0.6, 0.6}, {0.8, 1.5}, {1, 1}}},
        {"linear(0, 0.1, 0.2, 0.5 80%, 1)", {{0, 0}, {0.8 / 3, 0.1}, {1.6 / 3, 0.2}, {0.8, 0.5}, {1, 1}}},
        {"linear(0.2 20%, 0.8 60%)", {{0, -0.1}, {1, 1.4}}},  // its lines go on at both ends
    };
    for (const auto& [text, stops] : rows) {
        const auto easing = Easing::parse(text);
        ASSERT_TRUE(easing) << text;
        for (int i = 0; i <= 200; ++i) {
            const double x = (i + (i < 200 ? 0.3 : 0)) / 200;
            std::size_t next = 1;
            while (next + 1 < stops.size() && stops[next].first <= x)
                ++next;
            const auto [x1, y1] = stops[next - 1];
            const auto [x2, y2] = stops[next];
            EXPECT_NEAR(easing->at(x), y1 + (y2 - y1) * (x - x1) / (x2 - x1), 1e-12) << text << " at " << x;
            EXPECT_NEAR(easing->slope(x), i < 200 ? (y2 - y1) / (x2 - x1) : easing->slope(x), 1e-9) << text;
        }
    }
    EXPECT_EQ(Easing::parse("linear(0, 2 50%, 1)")->turn(0.1), 2);
    EXPECT_EQ(Easing::parse("linear(0, 2 50%, 1)")->turn(0.6), 1);
}

TEST(Easing, says_what_is_wrong_and_where) {
    const std::vector<std::pair<std::string, std::string>> rows{
        {"", "1: expected one of linear, ease"},
        {"bounce", "1: expected one of linear, ease"},
        {"ease_in", "1: expected one of linear, ease"},
        {"ease-in out", "9: expected nothing behind it, found 'out'"},
        {"cubic-bezier(0.1, 0, 1)", "23: expected ','"},
        {"cubic-bezier(1.1, 0, 1, 1)", "14: the first and the third number, both x, must lie between 0 and 1"},
        {"cubic-bezier(0, nan, 1, 1)", "17: expected a number"},
        {"cubic-bezier(0, 1e999, 1, 1)", "17: expected a number"},
        {"cubic-bezier(0, 0, 1, 1", "24: expected ')'"},
        {"steps(0)", "7: expected a whole number of steps from 1 to 10000"},
        {"steps(1, jump-none)", "7: expected a whole number of steps from 2 to 10000"},
        {"steps(2.5)", "7: expected a whole number of steps from 1 to 10000"},
        {"steps(1e9)", "7: expected a whole number of steps from 1 to 10000"},
        {"steps(3, jump-middle)", "10: unknown jump term 'jump-middle'; expected one of jump-start"},
        {"linear(1)", "8: expected 2 to 256 stops"},
        {"linear(0, 50%)", "14: expected a number"},
        {"linear(0 1% 2% 3%, 1)", "16: expected ')'"},
        {"ease(1)", "1: expected one of linear, ease"},
    };
    for (const auto& [text, message] : rows) {
        const auto easing = Easing::parse(text, {"a", 3, 1});
        ASSERT_EQ(easing.problems().size(), 1U) << text;
        const std::size_t colon = message.find(": ");
        EXPECT_EQ(std::to_string(easing.problems()[0].location.column), message.substr(0, colon)) << text;
        const std::string expected = "easing '" + text + "'" + message.substr(colon);
        EXPECT_EQ(easing.problems()[0].message.substr(0, expected.size()), expected) << text;
    }
    EXPECT_EQ(Easing::parse("easy-in").problems()[0].hint, "did you mean 'ease-in'?");
}

TEST(MovingNumber, from_rest_follows_its_easing) {
    for (const Curve& curve : curves) {
        MovingNumber tween_value{10, tween(2s, *Easing::parse(curve.name))};
        tween_value.set_target(60);
        for (int i = 1; i < 20; ++i) {
            tween_value.advance(100ms);
            EXPECT_NEAR(tween_value.value(), 10 + 50 * solve(curve, i / 20.0), 1e-6) << curve.name;
        }
        tween_value.advance(100ms);
        EXPECT_EQ(tween_value.value(), 60);
        EXPECT_EQ(tween_value.velocity(), 0);
        EXPECT_TRUE(tween_value.resting());
    }
}

/// New targets at given moments, the same for every way to cut time into frames.
struct Script {
    std::vector<std::pair<Nanoseconds, double>> targets;
    Motion motion;
    bool may_pass = false;  ///< its targets
};

Motion random_motion(Random& random, bool& may_pass) {
    const Seconds duration{random.between(0.05, 2)};
    const Easing easing = *Easing::parse(curves[random.below(5)].name);
    may_pass = true;
    switch (random.below(5)) {
        case 0:
            return spring(duration, static_cast<float>(random.between(0.2, 3)));
        case 1:
            return tween(duration, Easing::cubic_bezier(0.3, random.between(-1, 1), 0.4, random.between(1, 2)));
        case 2:
            may_pass = false;
            return {.kind = MotionKind::roll, .duration = duration, .easing = easing, .full_duration_at = 50};
        default:
            may_pass = false;
            return tween(duration, easing);
    }
}

Script random_script(Random& random) {
    Script script;
    script.motion = random_motion(random, script.may_pass);
    double moment = 0;
    for (int i = 0; i < 8; ++i) {
        script.targets.emplace_back(to_nanoseconds(Seconds{moment}), std::round(random.between(-100, 100)));
        moment += random.below(3) == 0 ? random.between(0, 3) : random.between(0, 0.4);
    }
    return script;
}

/// The position at every moment of `probes`, reached through frames of random length.
std::vector<double> positions(const Script& script, const std::vector<Nanoseconds>& probes, Nanoseconds longest_frame,
                              Random& random) {
    MovingNumber moving{0, script.motion};
    std::vector<double> found;
    Nanoseconds now{0};
    const auto go_to = [&](Nanoseconds moment) {
        while (now < moment) {
            const Nanoseconds most = std::min(moment - now, longest_frame);
            const Nanoseconds step{1 + static_cast<std::int64_t>(random.unit() * double(most.count() - 1))};
            moving.advance(to_seconds(step));
            now += step;
        }
    };
    std::size_t next = 0;
    for (const Nanoseconds probe : probes) {
        for (; next < script.targets.size() && script.targets[next].first <= probe; ++next) {
            go_to(script.targets[next].first);
            moving.set_target(script.targets[next].second);
        }
        go_to(probe);
        found.push_back(moving.value());
    }
    return found;
}

TEST(MovingNumber, is_the_same_at_every_frame_rate) {
    Random random(2);
    std::vector<Nanoseconds> probes;
    for (int i = 0; i <= 400; ++i)
        probes.push_back(i * 25ms);
    for (int round = 0; round < 60; ++round) {
        const Script script = random_script(random);
        const auto slow = positions(script, probes, 5s, random);
        for (const Nanoseconds longest : {Nanoseconds{1ms}, Nanoseconds{16'666'667}, Nanoseconds{300ms}}) {
            const auto fast = positions(script, probes, longest, random);
            for (std::size_t i = 0; i < probes.size(); ++i)
                ASSERT_NEAR(fast[i], slow[i], 200 * 1e-9) << "round " << round << " at " << probes[i].count();
        }
    }
}

TEST(MovingNumber, neither_jumps_nor_passes_its_target_when_retargeted) {
    Random random(3);
    for (int round = 0; round < 200; ++round) {
        const Script script = random_script(random);
        MovingNumber moving{0, script.motion};
        double low = 0, high = 0;
        std::size_t next = 0;
        double last = 0, last_speed = 0;
        constexpr Nanoseconds step = 500us;
        for (int frame = 0; frame < 12000; ++frame) {
            for (; next < script.targets.size() && script.targets[next].first <= frame * step; ++next) {
                const double before = moving.value(), speed = moving.velocity();
                const double old_target = moving.target();
                const bool resting = moving.resting();
                moving.set_target(script.targets[next].second);
                EXPECT_NEAR(moving.value(), before, 1e-9);
                const bool in_flight = !resting && moving.target() != old_target;
                EXPECT_NEAR(moving.velocity(), in_flight ? speed : moving.velocity(), 1e-6 * (1 + std::abs(speed)));
                // One that was still braking turns where it would have turned, inside the span before.
                const bool braking = (old_target - before) * speed < 0;
                low = std::min({old_target, before, moving.target(), braking ? low : before});
                high = std::max({old_target, before, moving.target(), braking ? high : before});
                last_speed = moving.velocity();
            }
            moving.advance(step);
            const double value = moving.value();
            if (!script.may_pass) {
                ASSERT_GE(value, low - 1e-9) << "round " << round << " frame " << frame;
                ASSERT_LE(value, high + 1e-9) << "round " << round << " frame " << frame;
            }
            // No jump: the way of half a millisecond is what the speed, and how it may change, allow.
            const double seconds = to_seconds(step).count();
            const double fastest = std::max(std::abs(moving.velocity()), std::abs(last_speed));
            const double shortest = script.motion.kind == MotionKind::roll ? 0.05 : script.motion.length().count();
            const double hardest = 12000 / (shortest * shortest);
            ASSERT_LE(std::abs(value - last), fastest * seconds + hardest * seconds * seconds + 1e-3)
                << "round " << round << " frame " << frame;
            last = value;
            last_speed = moving.velocity();
        }
        moving.advance(60s);
        EXPECT_EQ(moving.value(), moving.target());
        EXPECT_TRUE(moving.resting());
    }
}

/// x'' + 2 r w x' + w^2 x = 0 by steps of a microsecond (Stoermer and Verlet, velocity form, damping implicit).
struct SpringTwin {
    double rate, ratio;
    double x, v = 0;
    void step(double h) {
        const double half = v + h / 2 * (-rate * rate * x - 2 * ratio * rate * v);
        x += h * half;
        v = (half - h / 2 * rate * rate * x) / (1 + h * ratio * rate);
    }
};

TEST(Spring, is_the_solution_of_its_equation) {
    for (const double ratio : {0.1, 0.5, 0.9, 0.999999, 1.0, 1.000001, 1.3, 3.0}) {
        MovingNumber moving{0, spring(500ms, static_cast<float>(ratio))};
        // Its rate from its promise: after the settling time a jump from rest stays within 2 %.
        double product = 0;
        SpringTwin unit{1, ratio, 1};
        for (int i = 1; i <= 400'000; ++i) {
            unit.step(1e-4);
            if (std::abs(unit.x) > 0.02) product = i * 1e-4;
        }
        SpringTwin twin{product / 0.5, ratio, -80};
        moving.set_target(80);
        for (int ms = 1; ms <= 900; ++ms) {
            moving.advance(1ms);
            for (int i = 0; i < 1000; ++i)
                twin.step(1e-6);
            ASSERT_NEAR(moving.value(), 80 + twin.x, 5e-3) << ratio << " at " << ms << " ms";
            ASSERT_NEAR(moving.velocity(), twin.v, 0.3) << ratio << " at " << ms << " ms";
            if (ms == 130) {  // a new target in mid-flight
                moving.set_target(-20);
                twin.x += 100;
                EXPECT_NEAR(moving.value(), -20 + twin.x, 5e-3);
                moving.set_target(80);
                twin.x -= 100;
            }
        }
    }
}

TEST(Spring, settles_in_its_time_and_lands_on_its_target) {
    for (const double ratio : {0.05, 0.3, 0.78, 0.9, 1.0, 2.0, 20.0}) {
        MovingNumber moving{0, spring(400ms, static_cast<float>(ratio))};
        moving.set_target(1);
        double latest = 0;
        bool overshot = false;
        for (int i = 1; i <= 20'000; ++i) {
            moving.advance(100us);
            if (std::abs(moving.value() - 1) > 0.02) latest = i * 1e-4;
            overshot = overshot || moving.value() > 1 + 1e-9;
        }
        EXPECT_NEAR(latest, 0.4, 0.0011) << ratio;
        EXPECT_EQ(overshot, ratio < 1) << ratio;
        moving.advance(30s);
        EXPECT_EQ(moving.value(), 1) << ratio;
        EXPECT_TRUE(moving.resting()) << ratio;
    }
}

TEST(Roll, takes_longer_for_larger_jumps_up_to_its_cap) {
    const std::vector<std::pair<std::int64_t, Nanoseconds>> rows{{1, 100ms},   {-1, 100ms},    {10, 300ms},
                                                                 {100, 500ms}, {-1000, 700ms}, {5'000'000, 700ms}};
    for (const auto& [jump, duration] : rows) {
        Roll score{40, {.kind = MotionKind::roll, .duration = 700ms, .shortest = 100ms, .full_duration_at = 1000}};
        score.set_target(40 + jump);
        EXPECT_EQ(score.value(), 40) << jump;
        score.advance(duration - 1us);
        EXPECT_FALSE(score.resting()) << jump;
        EXPECT_NE(score.value(), 40 + jump);
        score.advance(2us);
        EXPECT_TRUE(score.resting()) << jump;
        EXPECT_EQ(score.value(), 40 + jump);
    }
    Roll large{std::numeric_limits<std::int64_t>::min(), 500ms};
    large.set_target(std::numeric_limits<std::int64_t>::max());
    std::int64_t last = large.value();
    for (int i = 0; i < 600; ++i) {
        large.advance(1ms);
        EXPECT_GE(large.value(), last);
        last = large.value();
    }
    EXPECT_EQ(last, std::numeric_limits<std::int64_t>::max());
}

TEST(MovingTrail, stays_joins_losses_and_drains) {
    // Delay 0.4 s, drain of 0.5 s at even speed; the value drops at once.
    struct Row {
        double at, target;
        const char* what;
        double trail;
    };
    const std::vector<Row> rows{
        {0.0, 80, "a hit", 100},          {0.3, 50, "another, before the delay is over", 100},
        {0.6, 50, "still waits", 100},    {0.7, 50, "sets out", 100},
        {0.95, 50, "half way", 75},       {1.0, 30, "a hit while it drains", 70},
        {1.1, 30, "it drains on", 60},    {1.2, 30, "to where it was going", 50},
        {1.4, 30, "and sets out", 50},    {1.65, 30, "half way again", 40},
        {1.7, 36, "healed below it", 38}, {1.75, 36, "overtaken", 36},
        {2.5, 90, "healed above it", 90}, {2.6, 60, "a hit after that", 90},
        {3.25, 60, "half way", 75},       {4, 60, "all gone", 60},
    };
    MovingTrail trail{400ms, tween(500ms, Easing::linear())};
    trail.snap(100);
    for (const Row& row : rows) {
        const Nanoseconds now = to_nanoseconds(Seconds{row.at});
        static double shown = 100;
        trail.set_target(row.target, shown, now);
        trail.advance(now);
        shown = row.target;
        EXPECT_NEAR(trail.at(now, shown), row.trail, 1e-6) << row.what << " at " << row.at;
    }
    EXPECT_TRUE(trail.resting(4s));
}

TEST(MovingNumber, keeps_its_speed_when_its_target_moves_ahead_in_every_frame) {
    MovingNumber moving{0, tween(400ms)};
    double last = 0;
    for (int frame = 1; frame <= 600; ++frame) {
        moving.set_target(frame);
        moving.advance(Seconds{1.0 / 60});
        EXPECT_GE(moving.value(), last) << "it stalled at frame " << frame;
        EXPECT_LE(moving.value(), frame);
        last = moving.value();
    }
    EXPECT_NEAR(moving.velocity(), 60, 1);
}

TEST(MovingNumber, takes_at_once_what_cannot_be_travelled) {
    MovingNumber moving{5, tween(1s)};
    moving.set_target(INFINITY);
    EXPECT_EQ(moving.value(), INFINITY);
    moving.set_target(7);
    EXPECT_EQ(moving.value(), 7);
    MovingNumber at_once{5, tween(0s)};
    at_once.set_target(9);
    EXPECT_EQ(at_once.value(), 9);
    MovingNumber same{5, instant()};
    same.set_target(9);
    EXPECT_TRUE(same.resting());
    EXPECT_EQ(same.value(), 9);
}

/// What a text shows in each frame on the way from one value to another.
template <class T>
std::vector<std::string> shown_on_the_way(T from, T to, int frames) {
    T value = from;
    Hud hud;
    const auto text = hud.add(Text{.id = "n", .value = watch(value), .motion = tween(frames * 20ms, Easing::linear())});
    update(hud, 0s);
    value = to;
    std::vector<std::string> shown;
    update(hud, 0s);
    shown.push_back(text_of(hud, text));
    for (int i = 0; i < frames; ++i) {
        update(hud, 20ms);
        shown.push_back(text_of(hud, text));
    }
    return shown;
}

TEST(Motion, of_an_integer_starts_on_the_old_one_and_lands_on_the_new_one) {
    EXPECT_EQ(shown_on_the_way(10, 20, 5), (std::vector<std::string>{"10", "12", "14", "16", "18", "20"}));
    EXPECT_EQ(shown_on_the_way(20, 10, 4), (std::vector<std::string>{"20", "18", "15", "13", "10"}));
    EXPECT_EQ(shown_on_the_way(0, 1, 4), (std::vector<std::string>{"0", "0", "0", "0", "1"}));
    EXPECT_EQ(shown_on_the_way<std::uint8_t>(255, 0, 2), (std::vector<std::string>{"255", "128", "0"}));
}

TEST(Motion, of_64_bit_integers_is_exact_at_both_ends) {
    constexpr auto least = std::numeric_limits<std::int64_t>::min();
    constexpr auto most = std::numeric_limits<std::int64_t>::max();
    const auto rise = shown_on_the_way(least, most, 3);
    EXPECT_EQ(rise.front(), "-9223372036854775808");
    EXPECT_EQ(rise.back(), "9223372036854775807");
    const auto near_the_top =
        shown_on_the_way(std::uint64_t{18446744073709551000U}, std::uint64_t{18446744073709551615U}, 4);
    EXPECT_EQ(near_the_top,
              (std::vector<std::string>{"18446744073709551000", "18446744073709551153", "18446744073709551307",
                                        "18446744073709551461", "18446744073709551615"}));
}

/// A compass that turns from 359 to 1 turns by 2, and never the long way round.
TEST(MovingValue, goes_the_short_way_round_a_cycle) {
    const Motions way{.both = tween(Seconds{1}, Easing::linear()), .cycle = 360};
    for (const auto& [from, to, quarter] : std::vector<std::array<double, 3>>{{359, 1, 359.5},
                                                                              {1, 359, 0.5},
                                                                              {10, 50, 20},
                                                                              {50, 10, 40},
                                                                              {90, 271, 45.25},
                                                                              {-170, 170, -175},
                                                                              {170, -170, 175}}) {
        MovingValue value;
        value.snap(Value(from));
        value.set_target(Value(to), Nanoseconds{0}, way);
        EXPECT_NEAR(value.at(250ms).real(), quarter, 1e-9) << from << " to " << to;
        EXPECT_EQ(value.at(1s).real(), to);
        // Continuous: small steps in time are small steps on the circle.
        double before = from;
        for (int i = 1; i <= 100; ++i) {
            const double now = value.at(i * 10ms).real();
            const double step = std::remainder(now - before, 360);
            EXPECT_LT(std::abs(step), 2);
            before = now;
        }
    }
    MovingValue whole;
    whole.snap(Value(std::int64_t{358}));
    whole.set_target(Value(std::int64_t{2}), Nanoseconds{0}, way);
    std::string seen;
    for (int i = 0; i <= 4; ++i)
        seen += std::to_string(whole.at(i * 250ms).int64()) + " ";
    EXPECT_EQ(seen, "358 359 0 1 2 ");
}

}  // namespace motion_test
}  // namespace rapido::test
