#include "support.hpp"

namespace rapido::test {
namespace {

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
    for (const Curve& curve : curves) {
        const auto easing = Easing::parse(curve.name);
        ASSERT_TRUE(easing) << curve.name;
        for (int i = 0; i <= 200; ++i) {
            const double x = i / 200.0;
            EXPECT_NEAR(easing->at(x), solve(curve, x), 1e-6) << curve.name << " at " << x;
            if (i == 0 || i == 200) continue;
            const double slope = (solve(curve, x + 1e-6) - solve(curve, x - 1e-6)) / 2e-6;
            EXPECT_NEAR(easing->slope(x), slope, 1e-4) << curve.name << " at " << x;
        }
        EXPECT_EQ(easing->at(-1), 0);
        EXPECT_EQ(easing->at(0), 0);
        EXPECT_EQ(easing->at(1), 1);
        EXPECT_EQ(easing->at(7), 1);
        EXPECT_EQ(easing->at(NAN), 0);
    }
    for (const char* name : {"", "Ease", "ease_in", "bounce", "ease-in "})
        EXPECT_FALSE(Easing::parse(name)) << name;
}

TEST(Tween, from_rest_follows_its_easing) {
    for (const Curve& curve : curves) {
        Tween tween_value{10, tween(2s, *Easing::parse(curve.name))};
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
    std::vector<std::pair<double, double>> targets;  // moment in seconds, target
    Motion motion;
};

Script random_script(Random& random) {
    Script script;
    script.motion = tween(Seconds{random.between(0.05, 2)}, *Easing::parse(curves[random.below(5)].name));
    double moment = 0;
    for (int i = 0; i < 8; ++i) {
        script.targets.emplace_back(std::round(moment * 1e6) / 1e6, std::round(random.between(-100, 100)));
        moment += random.below(3) == 0 ? random.between(0, 3) : random.between(0, 0.4);
    }
    return script;
}

/// The position at every moment of `probes`, reached through frames of random length.
std::vector<double> positions(const Script& script, const std::vector<double>& probes, double longest_frame,
                              Random& random) {
    Tween moving{0, script.motion};
    std::vector<double> found;
    double now = 0;
    const auto go_to = [&](double moment) {
        while (now < moment) {
            const double step = std::min(moment - now, random.between(0, longest_frame));
            // The clock rounds to nanoseconds: land on the moment itself, whatever was lost on the way.
            moving.advance(Seconds{step});
            now += step;
        }
    };
    std::size_t next = 0;
    for (const double probe : probes) {
        for (; next < script.targets.size() && script.targets[next].first <= probe; ++next) {
            go_to(script.targets[next].first);
            moving.set_target(script.targets[next].second);
        }
        go_to(probe);
        found.push_back(moving.value());
    }
    return found;
}

TEST(Tween, is_the_same_at_every_frame_rate) {
    Random random(2);
    for (int round = 0; round < 40; ++round) {
        const Script script = random_script(random);
        std::vector<double> probes;
        for (int i = 0; i <= 400; ++i)
            probes.push_back(i * 0.025);
        const auto slow = positions(script, probes, 5, random);
        for (const double longest : {0.001, 1.0 / 60, 0.3}) {
            const auto fast = positions(script, probes, longest, random);
            for (std::size_t i = 0; i < probes.size(); ++i)
                // 2 ns of slack in time at the fastest speed that occurs.
                ASSERT_NEAR(fast[i], slow[i], 2e-5) << "round " << round << " at " << probes[i];
        }
    }
}

TEST(Tween, neither_jumps_nor_passes_its_target_when_retargeted) {
    Random random(3);
    for (int round = 0; round < 200; ++round) {
        const Script script = random_script(random);
        Tween moving{0, script.motion};
        double low = 0, high = 0;
        std::size_t next = 0;
        double last = 0;
        constexpr double step = 0.0005;
        for (int frame = 0; frame < 12000; ++frame) {
            for (; next < script.targets.size() && script.targets[next].first <= frame * step; ++next) {
                const double before = moving.value(), speed = moving.velocity();
                const double old_target = moving.target();
                const bool resting = moving.resting();
                moving.set_target(script.targets[next].second);
                EXPECT_NEAR(moving.value(), before, 1e-9);
                const bool in_flight = !resting && moving.target() != old_target;
                EXPECT_NEAR(moving.velocity(), in_flight ? speed : moving.velocity(),
                            1e-6 * (1 + std::abs(speed)));
                // One that was still braking turns where it would have turned, inside the span before.
                const bool braking = (old_target - before) * speed < 0;
                low = std::min({old_target, before, moving.target(), braking ? low : before});
                high = std::max({old_target, before, moving.target(), braking ? high : before});
            }
            moving.advance(Seconds{step});
            const double value = moving.value();
            ASSERT_GE(value, low - 1e-9) << "round " << round << " frame " << frame;
            ASSERT_LE(value, high + 1e-9) << "round " << round << " frame " << frame;
            // The steepest of these curves passes 200 units in 50 ms at three times the mean speed.
            ASSERT_LE(std::abs(value - last), 3 * 200 / script.motion.duration.count() * step * 1.4 + 1e-9);
            last = value;
        }
        moving.advance(10s);
        EXPECT_EQ(moving.value(), moving.target());
    }
}

TEST(Tween, keeps_its_speed_when_its_target_moves_ahead_in_every_frame) {
    Tween moving{0, tween(400ms)};
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

TEST(Tween, takes_at_once_what_cannot_be_travelled) {
    Tween moving{5, tween(1s)};
    moving.set_target(INFINITY);
    EXPECT_EQ(moving.value(), INFINITY);
    moving.set_target(7);
    EXPECT_EQ(moving.value(), 7);
    Tween at_once{5, tween(0s)};
    at_once.set_target(9);
    EXPECT_EQ(at_once.value(), 9);
    Tween same{5, instant()};
    same.set_target(9);
    EXPECT_TRUE(same.resting());
    EXPECT_EQ(same.value(), 9);
}

/// What a text shows in each frame on the way from one value to another.
template <class T>
std::vector<std::string> shown_on_the_way(T from, T to, int frames) {
    T value = from;
    Hud hud;
    const auto text =
        hud.add(Text{.id = "n", .value = watch(value), .motion = tween(frames * 20ms, Easing::linear())});
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
    EXPECT_EQ(near_the_top, (std::vector<std::string>{"18446744073709551000", "18446744073709551153",
                                                      "18446744073709551307", "18446744073709551461",
                                                      "18446744073709551615"}));
}

}  // namespace
}  // namespace rapido::test
