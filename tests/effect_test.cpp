// Effects: what starts them, what they show, and that they end at rest.
#include <cmath>

#include "rapido/file.hpp"
#include "rapido/look.hpp"
#include "rapido/picture.hpp"
#include "support.hpp"

namespace rapido::test {
namespace effect_test {

TEST(Effect, is_at_every_moment_what_its_keyframes_say) {
    const Effect effect{.id = "e",
                        .duration = 1s,
                        .easing = *Easing::parse("linear(0, 0.5 25%, 1)"),
                        .keyframes = {{.at = 0.2, .scale = 2.0F, .easing = *Easing::parse("steps(2)")},
                                      {.at = 0.4, .offset = Point{10, -20}, .opacity = 0.0F},
                                      {.at = 0.6, .scale = 4.0F, .rotation = 90.0F},
                                      {.at = 0.8, .color = rgb(0xff0000)}}};
    struct Row {
        double at;
        float scale, x, y, rotation, opacity, red;
    };
    // Worked out by hand; before its first keyframe each property follows the effect's own easing.
    for (const Row& row :
         std::vector<Row>{{0, 1, 0, 0, 0, 1, 0},
                          {0.05, 1.5F, 2.5F, -5, 45 / 3.0F, 0.75F, 0.125F},
                          {0.1, 1 + 2 / 3.0F, 5, -10, 30, 0.5F, 0.25F},
                          {0.2, 2, 10 * 2 / 3.0F, -40 / 3.0F, 90 * 5 / 9.0F, 1 / 3.0F, 0.5F},
                          {0.35, 2, 10 * 11 / 12.0F, -20 * 11 / 12.0F, 90 * 13 / 18.0F, 1 / 12.0F, 0.625F},
                          {0.4, 3, 10, -20, 70, 0, 2 / 3.0F},
                          {0.6, 4, 20 / 3.0F, -40 / 3.0F, 90, 1 / 3.0F, 5 / 6.0F},
                          {0.8, 2.5F, 10 / 3.0F, -20 / 3.0F, 45, 2 / 3.0F, 1},
                          {0.9, 1.75F, 10 / 6.0F, -20 / 6.0F, 22.5F, 5 / 6.0F, 0.5F},
                          {1, 1, 0, 0, 0, 1, 0}}) {
        const Pose pose = pose_of(effect, row.at);
        EXPECT_NEAR(pose.scale, row.scale, 1e-5) << row.at;
        EXPECT_NEAR(pose.offset.x, row.x, 1e-4) << row.at;
        EXPECT_NEAR(pose.offset.y, row.y, 1e-4) << row.at;
        EXPECT_NEAR(pose.rotation, row.rotation, 1e-4) << row.at;
        EXPECT_NEAR(pose.opacity, row.opacity, 1e-5) << row.at;
        EXPECT_NEAR(pose.color_part, row.red, 1e-5) << row.at;
        const Pose half = pose_of(effect, row.at, 0.5F);
        EXPECT_NEAR(half.scale, 1 + (row.scale - 1) / 2, 1e-5) << row.at;
        EXPECT_NEAR(half.rotation, row.rotation / 2, 1e-4) << row.at;
    }
}

TEST(Effect, built_in_ones_begin_and_end_at_rest_and_do_something) {
    for (const Effect& effect : built_in_effects()) {
        EffectPlayer player;
        EXPECT_TRUE(player.play(effect, 0s)) << effect.id;
        if (effect.repeat == 0) player.stop(effect, 100ms);
        bool differs = false;
        for (int ms = 0; ms < 4000; ++ms) {
            player.advance(1ms * ms);
            const Pose pose = player.pose(1ms * ms);
            differs = differs || !(pose == Pose{}) || player.dots(1ms * ms);
            EXPECT_TRUE(std::isfinite(pose.scale) && pose.opacity >= 0 && pose.opacity <= 1);
        }
        EXPECT_TRUE(differs) << effect.id;
        EXPECT_EQ(player.pose(4s), Pose{}) << effect.id;
        EXPECT_TRUE(player.resting()) << effect.id;
    }
}

const Effect hit{.id = "hit", .duration = 100ms, .keyframes = {{.at = 0.5, .scale = 2.0F}}};
const Effect polish{
    .id = "polish", .duration = 200ms, .keyframes = {{.at = 0.5, .scale = 2.0F}}, .when_busy = WhenBusy::wait};
const Effect rare{.id = "rare",
                  .duration = 300ms,
                  .keyframes = {{.at = 0.5, .scale = 2.0F}},
                  .when_busy = WhenBusy::drop,
                  .cool_down = 1s};
const Effect glow{.id = "glow",
                  .duration = 100ms,
                  .repeat = 0,
                  .keyframes = {{.at = 0.5, .scale = 2.0F}},
                  .when_busy = WhenBusy::wait,
                  .beat = 250ms};

TEST(Effect, interrupts_waits_or_is_dropped) {
    struct Row {
        int at;               // ms
        const Effect* start;  // null only looks
        bool taken;
        std::string runs;
    };
    EffectPlayer player;
    for (const Row& row : std::vector<Row>{
             {0, &polish, true, "polish"},
             {50, &hit, true, "hit"},      // interrupts
             {60, &polish, true, "hit"},   // waits its turn
             {70, &polish, false, "hit"},  // equal ones are merged
             {80, &rare, false, "hit"},    // dropped
             {149, nullptr, true, "hit"},
             {150, nullptr, true, "polish"},  // since 150
             {349, nullptr, true, "polish"},
             {350, nullptr, true, ""},
             {400, &rare, true, "rare"},
             {800, &rare, false, ""},  // cools down
             {1400, &rare, true, "rare"},
             {1401, &glow, true, "rare"},
             {1700, nullptr, true, "glow"},  // waits for the beat at 1750
             {1749, nullptr, true, "glow"},
             {9000, &glow, false, "glow"},  // it runs until it is stopped
             {9001, &polish, true, "glow"},
             {9020, nullptr, true, "glow"},
         }) {
        player.advance(1ms * row.at);
        if (row.start != nullptr) {
            EXPECT_EQ(player.play(*row.start, 1ms * row.at), row.taken) << row.at;
        }
        EXPECT_EQ(player.running() != nullptr ? player.running()->id : "", row.runs) << row.at;
        if (row.at == 1749) {
            EXPECT_EQ(player.pose(1749ms), Pose{});
        }
    }
    player.stop(glow, 9020ms);  // its run that began at 8950 ends at 9050, and polish has its turn
    player.advance(9049ms);
    EXPECT_EQ(player.running(), &glow);
    player.advance(9060ms);
    EXPECT_EQ(player.running(), &polish);
    EXPECT_NEAR(player.progress(9060ms), 0.05, 1e-9);
    // One that still waits for its beat never begins.
    EffectPlayer other;
    EXPECT_TRUE(other.play(glow, 10ms));
    other.stop(glow, 20ms);
    EXPECT_TRUE(other.resting());
}

TEST(Effect, is_in_the_same_state_at_the_same_time_at_every_frame_rate) {
    Random random(61);
    const std::vector<const Effect*> effects{&hit, &polish, &rare, &glow, &built_in_effects()[2]};
    for (int round = 0; round < 20; ++round) {
        struct Start {
            Nanoseconds time;
            std::size_t effect;
            bool stops;
        };
        std::vector<Start> starts;
        for (int i = 0; i < 25; ++i)
            starts.push_back(
                {1ms * random.below(4000), static_cast<std::size_t>(random.below(5)), random.below(4) == 0});
        std::sort(starts.begin(), starts.end(), [](const Start& a, const Start& b) { return a.time < b.time; });
        std::vector<Pose> first;
        for (const Nanoseconds longest : {Nanoseconds(1ms), Nanoseconds(16'666'667ns), Nanoseconds(5s)}) {
            EffectPlayer player;
            std::vector<Pose> poses;
            Nanoseconds now{0};
            const auto go_to = [&](Nanoseconds until) {
                while (now < until) {
                    const double most = static_cast<double>(std::min(until - now, longest).count());
                    now += Nanoseconds{1 + static_cast<std::int64_t>(random.unit() * (most - 1))};
                    player.advance(now);
                }
            };
            std::size_t next = 0;
            for (Nanoseconds probe{0}; probe < 5s; probe += 13ms) {
                for (; next < starts.size() && starts[next].time <= probe; ++next) {
                    go_to(starts[next].time);
                    const Effect& effect = *effects[starts[next].effect];
                    if (starts[next].stops)
                        player.stop(effect, now);
                    else
                        player.play(effect, now, {.strength = 0.8F, .seed = static_cast<std::uint32_t>(next)});
                }
                go_to(probe);
                poses.push_back(player.pose(probe));
            }
            if (first.empty()) first = poses;
            ASSERT_TRUE(poses == first) << "round " << round;
        }
    }
}

TEST(Effect, starts_by_what_happens_to_a_value_or_a_timer) {
    float hull = 100;
    bool hidden = false;
    HudDefinition definition;
    definition.effects = {hit, glow};
    definition.timers = {{.id = "t", .duration = 10s, .marks = {{9s}, {8s}}}};
    Hud hud(definition);
    const auto bar = hud.add(Bar{.id = "hull",
                                 .value = watch(hull),
                                 .max = 100,
                                 .bands = {{.id = "low", .below = 0.2, .effect = "glow"}},
                                 .triggers = {{.on = TriggerOn::loss, .effect = "hit", .full_strength_at = 40}},
                                 .visible = watch(hidden).negated()});
    const auto panel =
        hud.add(Panel{.id = "p", .triggers = {{.on = TriggerOn::mark, .effect = "hit", .timer = "t", .at = 9s}}});
    ASSERT_TRUE(hud.problems().empty()) << to_string(hud.problems()[0]);
    update(hud, 0s);
    hull = 90;
    update(hud, 100ms);
    EXPECT_EQ(hud[bar].scale, 1) << "it starts at the change";
    update(hud, 50ms);
    EXPECT_NEAR(hud[bar].scale, 1.25, 1e-6) << "a quarter of the full change, a quarter of the way";
    update(hud, 60ms);
    EXPECT_EQ(hud[bar].scale, 1);
    hull = 95;
    update(hud, 10ms);
    update(hud, 50ms);
    EXPECT_EQ(hud[bar].scale, 1) << "a gain is no loss";

    // The mark lies 30 ms before the end of this frame: the effect has run since then.
    update(hud, 760ms);
    EXPECT_NEAR(hud[panel].scale, 1.6, 1e-6);
    update(hud, 970ms);
    update(hud, 30ms);
    EXPECT_EQ(hud[panel].scale, 1) << "it is for the other mark only";

    hidden = true;
    update(hud, 1ms);
    hull = 50;
    update(hud, 1ms);
    hidden = false;
    update(hud, 50ms);
    EXPECT_EQ(hud[bar].scale, 1) << "a hidden element starts no effect";

    hull = 10;
    update(hud, 1ms);
    double most = 1;
    for (int i = 0; i < 100; ++i) {
        update(hud, 10ms);
        most = std::max(most, static_cast<double>(hud[bar].scale));
    }
    EXPECT_GT(most, 1.9) << "the band's effect runs on and on";
    hud.snap();
    update(hud, 1ms);
    EXPECT_EQ(hud[bar].scale, 1);
    hull = 90;
    update(hud, 1ms);
    hull = 10;
    update(hud, 1ms);
    update(hud, 400ms);
    hull = 90;
    update(hud, 1ms);
    update(hud, 110ms);
    for (int i = 0; i < 50; ++i) {
        update(hud, 10ms);
        EXPECT_EQ(hud[bar].scale, 1) << "it ended when the band was left";
    }

    EXPECT_TRUE(hud.play(bar, "swell", 2));
    EXPECT_FALSE(hud.play(bar, "swlle"));
    EXPECT_EQ(hud.problems().back().hint, "did you mean 'swell'?");
    hud.add(Bar{.id = "x",
                .value = watch(hull),
                .bands = {{.id = "low", .below = 1, .effect = "glwo"}},
                .triggers = {{.on = TriggerOn::band_enter, .effect = "hit", .band = "lwo"},
                             {.on = TriggerOn::end, .effect = "hit"}}});
    std::vector<std::string> messages;
    for (std::size_t i = 1; i < hud.problems().size(); ++i)
        messages.push_back(to_string(hud.problems()[i]));
    EXPECT_EQ(messages,
              (std::vector<std::string>{"error: 'triggers.0.band' of bar 'x': no band 'lwo'; did you mean 'low'?",
                                        "error: 'triggers.1' of bar 'x' needs 'timer'",
                                        "error: 'bands.0.effect' of bar 'x': no effect 'glwo'; did you mean 'glow'?"}));
}

TEST(Effect, of_a_group_keeps_one_beat) {
    double a = 1, b = 1;
    Hud hud;
    const auto add = [&](const char* id, double& value) {
        return hud.add(Bar{.id = id, .value = watch(value), .bands = {{.below = 0.5, .effect = "pulse"}}});
    };
    const auto first = add("a", a), second = add("b", b);
    update(hud, 0s);
    a = 0.3;
    update(hud, 370ms);
    b = 0.3;
    update(hud, 210ms);
    for (int i = 0; i < 300; ++i) {
        update(hud, 10ms);
        EXPECT_EQ(hud[first].scale, hud[second].scale) << i;
    }
}

TEST(ReducedMotion, makes_effects_steady) {
    Hud hud;
    const auto bar = hud.add(Bar{.id = "b", .color = rgb(0x000000)});
    update(hud, 0s);
    hud.set_reduced_motion(true);
    ASSERT_TRUE(hud.play(bar, "shake"));
    for (int i = 0; i < 39; ++i) {
        update(hud, 10ms);
        EXPECT_EQ(hud[bar].scale, 1);
        EXPECT_EQ(hud[bar].offset, Point{});
        EXPECT_EQ(hud[bar].rotation, 0);
        EXPECT_GT(hud[bar].color.red, 50) << "that something happened is still seen";
    }
    update(hud, 11ms);
    EXPECT_EQ(hud[bar].color, rgb(0x000000));
}

TEST(Effect, moves_what_is_drawn_and_what_stands_inside) {
    Fonts fonts;
    HudDefinition definition{.design = {200, 200}};
    definition.effects = {{.id = "grow",
                           .duration = 2s,
                           .keyframes = {{.at = 0.5, .scale = 1.5F, .offset = Point{20, 0}, .rotation = 90.0F}}}};
    Hud hud(definition, {}, &fonts);
    hud.resize({.size = {200, 200}});
    const auto panel =
        hud.add(Panel{.id = "p", .place = {.anchor = Anchor::center}, .padding = {}, .color = rgb(0x000000, 0)});
    hud.add(Bar{.id = "b",
                .value = 1,
                .place = {.size = {40, 20}},
                .inside = "p",
                .color = rgb(0xff0000),
                .background = rgb(0xff0000),
                .radius = 0});
    update(hud, 0s);
    DisplayList list;
    const auto area = [&] {
        hud.draw(list);
        Picture picture(200, 200, fonts);
        picture.fill(rgb(0x000000));
        picture.draw(list);
        double count = 0, x = 0, y = 0, left = 200, right = 0;
        for (int row = 0; row < 200; ++row)
            for (int column = 0; column < 200; ++column) {
                const double part = picture.pixel(column, row).red / 255.0;
                count += part;
                x += part * (column + 0.5);
                y += part * (row + 0.5);
                if (part > 0.5) left = std::min<double>(left, column), right = std::max<double>(right, column + 1);
            }
        return std::array{count, x / count, y / count, right - left};
    };
    const auto rest = area();
    EXPECT_NEAR(rest[0], 800, 1);
    ASSERT_TRUE(hud.play(panel, "grow"));
    update(hud, 1s);
    const auto peak = area();
    EXPECT_NEAR(peak[0], 800 * 2.25, 5);
    EXPECT_NEAR(peak[1], rest[1] + 20, 0.1);
    EXPECT_NEAR(peak[2], rest[2], 0.1);
    EXPECT_NEAR(peak[3], 30, 1) << "it stands upright";
    update(hud, 1s);
    EXPECT_NEAR(area()[0], 800, 1);
    EXPECT_NEAR(area()[1], rest[1], 0.01);
}

TEST(HudFile, reads_effects) {
    const auto read = read_hud(R"([[effect]]
id = "lurch"
duration = 0.5
repeat = 2
when_busy = "wait"
scatter = true
dots = { count = 5, color = "#ffc24a" }
keyframes = [
    { at = 0.5, scale = 1.5, offset = [3, -2], easing = "ease-in" },
    { at = 1, opacity = 0, color = "#ff0000" },
]
[[element]]
kind = "bar"
id = "b"
value = 1
triggers = [{ on = "loss", effect = "lurch", full_strength_at = 10 }]
)",
                               "hud.toml");
    ASSERT_TRUE(read) << to_string(read.problems()[0]);
    const Effect effect{.id = "lurch",
                        .duration = 500ms,
                        .repeat = 2,
                        .keyframes = {{.at = 0.5, .scale = 1.5F, .offset = Point{3, -2}, .easing = Easing::ease_in()},
                                      {.at = 1, .opacity = 0.0F, .color = rgb(0xff0000)}},
                        .scatter = true,
                        .dots = {.count = 5},
                        .when_busy = WhenBusy::wait};
    EXPECT_EQ(read->effects.at(0), effect);
    EXPECT_EQ(read->elements.at(0).as<Bar>()->triggers.at(0),
              (Trigger{.on = TriggerOn::loss, .effect = "lurch", .full_strength_at = 10}));

    std::vector<std::string> texts;
    for (const Problem& problem :
         check_hud("[[effect]]\nid = \"e\"\nkeyframes = [{ at = 1 }, { at = 0.5 }]\n"
                   "[[element]]\nkind = \"bar\"\nid = \"b\"\nvalue = 1\ntriggers = [{ effect = \"shaek\" }]\n",
                   "hud.toml", {}, nullptr))
        texts.push_back(to_string(problem));
    EXPECT_EQ(texts, (std::vector<std::string>{
                         "hud.toml:3:13: error: 'keyframes' of effect 'e' must stand in order of 'at'",
                         "hud.toml:8:25: error: 'triggers.0.effect' of bar 'b': no effect 'shaek'; did you "
                         "mean 'shake'?"}));
}

}  // namespace effect_test
}  // namespace rapido::test
