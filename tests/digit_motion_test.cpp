// Digits that move as things: where each is on its way, beside plain texts and an odometer that is counted by hand.
#include <cmath>
#include <map>
#include <random>
#include <set>

#include "pixels.hpp"
#include "rapido/file.hpp"
#include "rapido/locale.hpp"

namespace rapido::digit_motion_test {

using namespace test;

/// A character as it is drawn, on the device.
struct Seen {
    std::uint32_t glyph = 0;
    float x = 0, middle = 0;  ///< the middle of a capital letter
    float part = 0;           ///< how much is seen of it: its opacity times its height
};

std::vector<Seen> seen_in(Hud& hud) {
    DisplayList list;
    hud.draw(list);
    std::vector<Seen> all;
    for (const DisplayGroup& group : list.groups())
        for (const DisplayItem& item : group.items())
            for (const Glyph& glyph : group.glyphs_of(item))
                all.push_back({glyph.id, item.baseline.x + glyph.offset.x,
                               item.baseline.y + glyph.offset.y - 0.36F * item.size * item.stretch,
                               static_cast<float>(item.color.alpha) / 255 * item.stretch});
    std::sort(all.begin(), all.end(), [](const Seen& a, const Seen& b) { return a.x < b.x; });
    return all;
}

struct One {
    Hud hud{{.design = {600, 200}, .font = "Inter"}, {}, &Stage::fonts()};
    std::optional<std::int64_t> number;
    explicit One(Text text) {
        hud.resize({.size = {600, 200}});
        text.id = "n";
        text.value = watch(number);
        text.size = 40;
        text.color = rgb(0xffffff);
        hud.add(text);
    }
    void pass(Seconds step) { update(hud, step); }
    std::string text() { return test::text_of(hud, hud.find("n")); }
};

const std::vector<DigitMotion> kinds{{.kind = DigitMotionKind::wheel},
                                     {.kind = DigitMotionKind::flip, .stagger = 50ms},
                                     {.kind = DigitMotionKind::slide, .duration = 200ms, .stagger = 30ms}};
const std::vector<Place> places{{.anchor = Anchor::top_left}, {.anchor = Anchor::top_right}, {.anchor = Anchor::top}};

TEST(DigitMotion, says_the_formatted_text_always_and_is_at_rest_drawn_as_any_other) {
    std::mt19937 random(7);
    for (const DigitMotion& kind : kinds)
        for (const Place& place : places)
            for (const char* format : {"{:+Ld} points", "${:06d}", "{:d}"}) {
                One moving({.format = format, .digit_motion = kind, .place = place});
                One plain({.format = format, .place = place});
                const int lengths[] = {1, 10, 1000, 100'000'000};
                bool has_moved = false;
                for (int i = 0; i < 12; ++i) {
                    const auto number = static_cast<std::int64_t>(random() % 2000) - 1000;
                    moving.number = plain.number = number * lengths[random() % 4];
                    if (i == 9) moving.number = plain.number = std::nullopt;
                    for (int frame = 0; frame < 90; ++frame) {
                        moving.pass(16ms);
                        plain.pass(16ms);
                        ASSERT_EQ(moving.text(), plain.text());
                        has_moved = has_moved || seen_in(moving.hud).size() != seen_in(plain.hud).size();
                    }
                    const std::vector<Seen> a = seen_in(moving.hud), b = seen_in(plain.hud);
                    ASSERT_EQ(a.size(), b.size()) << format << plain.text();
                    for (std::size_t k = 0; k < a.size(); ++k) {
                        EXPECT_EQ(a[k].glyph, b[k].glyph);
                        EXPECT_EQ(a[k].x, b[k].x);
                        EXPECT_EQ(a[k].middle, b[k].middle);
                        EXPECT_EQ(a[k].part, b[k].part);
                    }
                }
                EXPECT_TRUE(has_moved);
                EXPECT_TRUE(moving.hud.problems().empty());
            }
}

TEST(DigitMotion, goes_on_from_where_it_is_however_often_it_changes) {
    std::mt19937 random(11);
    for (int way = 0; way < 6; ++way) {
        const DigitMotion& kind = kinds[static_cast<std::size_t>(way % 3)];
        // With a sign always, and with one below zero alone.
        One one(
            {.format = way < 3 ? "{:+Ld} L" : "{:Ld} L", .digit_motion = kind, .place = {.anchor = Anchor::top_right}});
        one.number = 998;
        one.pass(0s);
        std::vector<Seen> before = seen_in(one.hud);
        const std::size_t count = before.size();
        for (int ms = 0; ms < 6000; ++ms) {
            if (random() % 120 == 0)
                one.number =
                    static_cast<std::int64_t>(random() % 3 == 0 ? random() % 2000 : 900 + random() % 200) - 500;
            one.pass(1ms);
            const std::vector<Seen> now = seen_in(one.hud);
            // Each character that is seen was there before, as near and as much as a thousandth of a second allows.
            const auto was_there = [&](const Seen& seen, const std::vector<Seen>& others) {
                return std::any_of(others.begin(), others.end(), [&](const Seen& other) {
                    return other.glyph == seen.glyph && std::abs(other.x - seen.x) < 2 &&
                           std::abs(other.middle - seen.middle) < 2 && std::abs(other.part - seen.part) < 0.1F;
                });
            };
            for (const Seen& seen : now) {
                if (seen.part <= 0.12F) continue;
                ASSERT_TRUE(was_there(seen, before))
                    << "kind " << static_cast<int>(kind.kind) << " at " << ms << " ms: " << one.text();
            }
            for (const Seen& seen : before) {
                if (seen.part <= 0.12F) continue;
                ASSERT_TRUE(was_there(seen, now))
                    << "kind " << static_cast<int>(kind.kind) << " at " << ms << " ms: " << one.text();
            }
            before = now;
        }
        // It comes to rest within two durations of the last change, and the delay of its last digit.
        const double longest = 2 * kind.duration.count() + 6 * kind.stagger.count();
        one.number = 998;
        for (double passed = 0; passed < longest; passed += 0.01)
            one.pass(10ms);
        one.pass(10ms);
        EXPECT_EQ(seen_in(one.hud).size(), count);
    }
}

/// An odometer, wheel by wheel from the last: each stands at its figure, and goes on with the part by which the one behind it is beyond 9.
std::vector<double> odometer(double amount, int wheels) {
    std::vector<double> all;
    double beyond = amount - std::floor(amount);  // of the last one
    double whole = std::floor(amount);
    for (int i = 0; i < wheels; ++i) {
        const double figure = std::fmod(whole, 10);
        all.push_back(figure + beyond);
        beyond = figure == 9 ? beyond : 0;
        whole = std::floor(whole / 10);
    }
    return all;
}

TEST(DigitMotion, of_a_value_that_moves_is_an_odometer) {
    // Where the figures stand in the font, by digits that rest.
    One still({.format = "{:d}"});
    std::map<std::uint32_t, int> digit_of;
    for (int digit = 0; digit < 10; ++digit) {
        still.number = digit;
        still.pass(16ms);
        digit_of[seen_in(still.hud).front().glyph] = digit;
    }
    ASSERT_EQ(digit_of.size(), 10U);
    constexpr int wheels = 5;
    One one({.format = "{:05d}", .motion = tween(1s, Easing::linear()), .digit_motion = DigitMotion{}});
    one.number = 0;
    one.pass(0s);
    const float middle = seen_in(one.hud).front().middle;
    one.number = 1234;
    one.pass(0s);
    int between = 0;
    for (int ms = 1; ms < 1000; ++ms) {
        one.pass(1ms);
        const std::vector<double> expected = odometer(1.234 * ms, wheels);
        // Of each wheel the figure that is seen most, and where it is.
        std::map<int, Seen> most;
        const std::vector<Seen> all = seen_in(one.hud);
        const float first = all.front().x, width = (all.back().x - first) / (wheels - 1);
        for (const Seen& seen : all) {
            Seen& so_far = most[wheels - 1 - static_cast<int>(std::lround((seen.x - first) / width))];
            if (seen.part > so_far.part) so_far = seen;
        }
        for (int wheel = 0; wheel < wheels; ++wheel) {
            const double at = expected[static_cast<std::size_t>(wheel)];
            const double turned = at - std::floor(at);
            if (std::abs(turned - 0.5) < 0.02) continue;  // both are seen as much
            const int figure = static_cast<int>(std::lround(at)) % 10;
            ASSERT_EQ(digit_of[most[wheel].glyph], figure) << ms << " ms, wheel " << wheel;
            // The one that goes is above the middle, the one that comes below it.
            const float away = most[wheel].middle - middle;
            if (turned > 0.02 && turned < 0.98) {
                EXPECT_EQ(away < 0, turned < 0.5) << ms;
            }
            between += turned > 0.02 && turned < 0.98 ? 1 : 0;
        }
    }
    EXPECT_GT(between, 1000);
    // A value that goes on between two figures comes to rest on the one that is written.
    double speed = 0;
    Hud hud({.design = {600, 200}, .font = "Inter"}, {}, &Stage::fonts());
    hud.resize({.size = {600, 200}});
    hud.add(Text{
        .id = "s", .value = watch(speed), .format = "{:.1f}", .motion = tween(300ms), .digit_motion = DigitMotion{}});
    update(hud, 0s);
    const std::size_t at_rest = seen_in(hud).size();
    speed = 7.46;
    for (int i = 0; i < 60; ++i)
        update(hud, 20ms);
    EXPECT_EQ(test::text_of(hud, hud.find("s")), "7.5");
    EXPECT_EQ(seen_in(hud).size(), at_rest);
    // From there by the shortest way, and not once around: of the last wheel, between 4 and 5 now, no third figure is seen.
    speed = 7.44;
    for (int i = 0; i < 20; ++i)
        update(hud, 20ms);
    std::set<int> figures;
    for (int i = 0; i < 40; ++i) {
        update(hud, 10ms);
        const std::vector<Seen> all = seen_in(hud);
        for (const Seen& seen : all)
            if (seen.x > all.back().x - 5) figures.insert(digit_of[seen.glyph]);
    }
    EXPECT_EQ(test::text_of(hud, hud.find("s")), "7.4");
    for (const int figure : figures)
        EXPECT_TRUE(figure == 4 || figure == 5) << figure;
}

TEST(DigitMotion, lets_places_that_leave_go_along_with_those_that_stay) {
    One one({.format = "{:d}", .digit_motion = DigitMotion{.kind = DigitMotionKind::slide}});
    one.number = 77777;
    one.pass(0s);
    const std::vector<Seen> before = seen_in(one.hud);
    const float width = before[1].x - before[0].x;
    one.number = 7;
    one.pass(0s);
    one.pass(120ms);
    const std::vector<Seen> now = seen_in(one.hud);
    ASSERT_EQ(now.size(), 5U);
    EXPECT_LT(now.back().x, before.back().x - 1);
    for (std::size_t i = 1; i < 5; ++i)
        EXPECT_NEAR(now[i].x - now[i - 1].x, width, 0.01F) << i;
}

TEST(DigitMotion, is_the_same_at_any_frame_rate) {
    for (const DigitMotion& kind : kinds) {
        std::vector<Seen> first;
        for (const int step : {5, 10, 25, 50}) {
            One one({.format = "{:Ld}", .digit_motion = kind});
            std::vector<Seen> all;
            for (int ms = 0; ms <= 2000; ms += step) {
                if (ms % 150 == 0) one.number = 950 + ms / 3 * 17 % 400;
                one.pass(ms == 0 ? 0s : Seconds{step / 1000.0});
                if (ms % 50 != 0) continue;
                const std::vector<Seen> now = seen_in(one.hud);
                all.insert(all.end(), now.begin(), now.end());
            }
            if (first.empty()) first = all;
            ASSERT_EQ(all.size(), first.size()) << step;
            for (std::size_t i = 0; i < all.size(); ++i) {
                ASSERT_EQ(all[i].glyph, first[i].glyph);
                ASSERT_NEAR(all[i].middle, first[i].middle, 1e-3F);
                ASSERT_NEAR(all[i].part, first[i].part, 0.005F);
            }
        }
    }
}

TEST(DigitMotion, stands_at_once_where_nothing_should_move) {
    for (const DigitMotion& kind : kinds) {
        One one({.format = "{:d}", .digit_motion = kind});
        one.pass(16ms);
        one.number = 5;
        one.hud.snap();
        const auto is_still = [&] {
            one.pass(16ms);
            one.pass(60ms);
            const std::vector<Seen> all = seen_in(one.hud);
            return all.size() == one.text().size() &&
                   std::all_of(all.begin(), all.end(), [](const Seen& seen) { return seen.part == 1; });
        };
        EXPECT_TRUE(is_still()) << "a snap";
        one.number = 6;
        EXPECT_FALSE(is_still()) << "a change";
        one.hud.snap();
        EXPECT_TRUE(is_still()) << "a snap in flight";
        one.number = 8;
        EXPECT_FALSE(is_still()) << "a change";
        one.hud.set_reduced_motion(true);
        one.number = 17;
        EXPECT_TRUE(is_still()) << "reduced motion";
        one.hud.set_reduced_motion(false);
        EXPECT_TRUE(is_still());
        one.hud.set_visible(one.hud.find("n"), false);
        one.pass(16ms);
        one.number = 18;
        one.pass(16ms);
        one.hud.set_visible(one.hud.find("n"), true);
        EXPECT_TRUE(is_still()) << "what changed while it was hidden";
        one.number = 19;
        EXPECT_FALSE(is_still());
    }
}

TEST(DigitMotion, turns_the_figures_of_every_script_and_times) {
    One one({.format = "{:Ld} نقطة",
             .digit_motion = DigitMotion{.kind = DigitMotionKind::slide},
             .place = {.anchor = Anchor::top}});
    const Result<Language> arabic = language("ar-EG");
    ASSERT_TRUE(arabic);
    one.hud.set_language(*arabic);
    one.number = 128;
    one.pass(16ms);
    const std::size_t rest = seen_in(one.hud).size();
    one.number = 139;
    one.pass(16ms);
    one.pass(100ms);
    EXPECT_EQ(seen_in(one.hud).size(), rest + 2) << "two digits are on their way";
    Seconds left{90.5};
    Hud hud({.design = {600, 200}, .font = "Inter"}, {}, &Stage::fonts());
    hud.resize({.size = {600, 200}});
    hud.add(Text{.id = "t",
                 .value = watch(left).as_time_left(),
                 .format = "{:%M:%S}",
                 .digit_motion = DigitMotion{.kind = DigitMotionKind::flip}});
    update(hud, 16ms);
    left = Seconds{88.9};
    update(hud, 16ms);
    update(hud, 100ms);
    const std::vector<Seen> all = seen_in(hud);
    EXPECT_EQ(all.size(), 5U);
    const auto moving = std::count_if(all.begin(), all.end(), [](const Seen& seen) { return seen.part < 0.99F; });
    EXPECT_EQ(moving, 2) << "01:30 and 01:29: " << test::text_of(hud, hud.find("t"));
}

TEST(DigitMotion, is_read_from_a_file_and_says_what_does_not_go_together) {
    const auto read = [](const std::string& keys) {
        return check_hud("[[element]]\nkind = \"text\"\nid = \"n\"\nformat = \"12\"\n" + keys, "hud.toml", {},
                         &Stage::fonts(), nullptr);
    };
    EXPECT_TRUE(
        read("digit_motion = { kind = \"flip\", duration = 0.5, easing = \"ease-in\", stagger = 0.1 }\n").empty());
    const Problems wrong = read("digit_motion = { kind = \"roll\" }\n");
    ASSERT_EQ(wrong.size(), 1U);
    EXPECT_NE(to_string(wrong[0]).find("wheel"), std::string::npos) << to_string(wrong[0]);
    const Problems lines = read("digit_motion = { kind = \"flip\" }\nwrap = \"wrap\"\n");
    ASSERT_EQ(lines.size(), 1U);
    EXPECT_NE(to_string(lines[0]).find("hud.toml:5:"), std::string::npos) << to_string(lines[0]);
}

}  // namespace rapido::digit_motion_test
