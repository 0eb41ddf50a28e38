// Effects from rest, beside stronger ones, and turned round.
#include "rapido/file.hpp"
#include "rapido/look.hpp"
#include "support.hpp"

namespace rapido::test {
namespace effect_lives_test {

constexpr Color white = rgb(0xffffff);

TEST(Effect, from_rest_is_exactly_its_keyframes) {
    for (const Effect& effect : built_in_effects()) {
        if (effect.dots.count > 0 || effect.beat > Seconds{0}) continue;
        EffectPlayer player;
        ASSERT_TRUE(player.play(effect, 1s, {.seed = 7}));
        for (int i = 0; i < 100; ++i) {
            const Nanoseconds now = 1s + to_nanoseconds(effect.duration * (i / 100.0));
            player.advance(now);
            const Pose expected = pose_of(effect, i / 100.0, 1, 7), seen = player.pose(now);
            EXPECT_FLOAT_EQ(seen.opacity, expected.opacity) << effect.id << " " << i;
            EXPECT_FLOAT_EQ(seen.scale, expected.scale) << effect.id << " " << i;
            EXPECT_FLOAT_EQ(seen.offset.x, expected.offset.x) << effect.id << " " << i;
        }
    }
}

TEST(Effect, with_a_delay_is_the_same_effect_so_much_later) {
    constexpr Seconds delay{0.4};
    for (const Effect& plain : built_in_effects()) {
        if (plain.dots.count > 0 || plain.particles.burst > 0 || plain.beat > Seconds{0}) continue;
        Effect late = plain;
        late.delay = delay;
        for (const PlayAs as : {PlayAs::effect, PlayAs::enter, PlayAs::leave}) {
            EffectPlayer soon, later;
            const EffectCause cause = as == PlayAs::effect ? EffectCause::trigger : EffectCause::visibility;
            ASSERT_TRUE(soon.play(plain, 1s, {.seed = 5, .as = as, .cause = cause}));
            ASSERT_TRUE(later.play(late, 1s, {.seed = 5, .as = as, .cause = cause}));
            for (int ms = 0; ms < 2000; ms += 7) {
                const Nanoseconds now = 1s + std::chrono::milliseconds(ms);
                later.advance(now);
                if (now < 1s + to_nanoseconds(delay)) {
                    // It waits at rest; what is not there yet waits as it comes in.
                    const Pose waits = as == PlayAs::enter ? pose_of(plain, 0, 1, 5) : Pose{};
                    EXPECT_FLOAT_EQ(later.pose(now).opacity, waits.opacity) << plain.id << ms;
                    EXPECT_FLOAT_EQ(later.pose(now).scale, waits.scale) << plain.id << ms;
                    EXPECT_FLOAT_EQ(later.pose(now).offset.y, waits.offset.y) << plain.id << ms;
                    continue;
                }
                const Nanoseconds before = now - to_nanoseconds(delay);
                soon.advance(before);
                const Pose a = soon.pose(before), b = later.pose(now);
                EXPECT_FLOAT_EQ(a.opacity, b.opacity) << plain.id << ms;
                EXPECT_FLOAT_EQ(a.scale, b.scale) << plain.id << ms;
                EXPECT_FLOAT_EQ(a.offset.x, b.offset.x) << plain.id << ms;
                EXPECT_FLOAT_EQ(a.color_part, b.color_part) << plain.id << ms;
            }
        }
    }
}

TEST(Effect, with_a_delay_lets_elements_come_and_go_one_after_the_other) {
    std::string text;
    for (const char* const id : {"first", "second", "third"})
        text += std::string("[[effect]]\nid = \"") + id + "\"\nduration = 0.4\ndelay = " +
                (*id == 'f'   ? "0"
                 : *id == 's' ? "0.2"
                              : "0.4") +
                "\nkeyframes = [{ at = 0, opacity = 0 }]\n";
    for (const char* const id : {"first", "second", "third"})
        text += std::string("[[element]]\nkind = \"text\"\nid = \"") + id +
                "\"\nformat = \"x\"\nvisible = \"on\"\nenter = \"" + id + "\"\n";
    const Result<HudDefinition> read = read_hud(text, "hud.toml");
    ASSERT_TRUE(read) << to_string(read.problems().front());
    bool on = false;
    Sources sources;
    sources.set("on", watch(on));
    BoxMeasurer measurer;
    Hud hud(*read, sources, &measurer);
    hud.resize({.size = {1280, 720}});
    update(hud, 16ms);
    const auto opacities = [&] {
        std::vector<float> all;
        for (const char* const id : {"first", "second", "third"})
            all.push_back(hud[hud.find(id)].visible ? std::round(hud[hud.find(id)].opacity * 1000) / 1000 : -1);
        return all;
    };
    on = true;
    update(hud, 0s);
    EXPECT_EQ(opacities(), (std::vector<float>{0, 0, 0})) << "none is seen before its time";
    update(hud, 200ms);
    EXPECT_EQ(opacities(), (std::vector<float>{0.5, 0, 0}));
    update(hud, 200ms);
    EXPECT_EQ(opacities(), (std::vector<float>{1, 0.5, 0}));
    update(hud, 5s);
    EXPECT_EQ(opacities(), (std::vector<float>{1, 1, 1}));
    on = false;
    update(hud, 0s);
    update(hud, 200ms);
    EXPECT_EQ(opacities(), (std::vector<float>{0.5, 1, 1}));
    update(hud, 300ms);
    EXPECT_EQ(opacities(), (std::vector<float>{-1, 0.25, 0.75}));
    // It turns round at once, from where it is.
    on = true;
    update(hud, 0s);
    EXPECT_EQ(opacities()[1], 0.25F);
    update(hud, 100ms);
    EXPECT_GT(opacities()[1], 0.3F);
    update(hud, 5s);
    EXPECT_EQ(opacities(), (std::vector<float>{1, 1, 1}));
    // What is hidden while it waits to come is gone at once.
    on = false;
    update(hud, 0s);
    update(hud, 5s);
    on = true;
    update(hud, 100ms);
    EXPECT_EQ(opacities(), (std::vector<float>{0, 0, 0}));
    on = false;
    update(hud, 0s);
    update(hud, 16ms);
    EXPECT_EQ(opacities()[2], -1);
}

TEST(Effect, of_a_group_is_one_for_each_way_unless_an_element_has_its_own) {
    const Effect in{
        .id = "in", .duration = 1s, .keyframes = {{.at = 0, .offset = Point{0, -20}, .easing = Easing::linear()}}};
    const Effect out{
        .id = "out", .duration = 1s, .keyframes = {{.at = 0, .offset = Point{30, 0}, .easing = Easing::linear()}}};
    HudDefinition definition;
    definition.effects = {in, out};
    bool visible = true;
    definition.groups = {{.id = "g", .visible = watch(visible), .enter = "in", .leave = "out"}};
    BoxMeasurer measurer;
    Hud hud(definition, {}, &measurer);
    hud.resize({.size = {1280, 720}});
    const auto text = hud.add(Text{.id = "t", .format = "x", .group = "g"});
    const auto own = hud.add(Text{.id = "own", .format = "x", .group = "g", .enter = "in"});
    update(hud, 16ms);
    visible = false;
    update(hud, 0s);
    update(hud, 500ms);
    EXPECT_EQ(hud[text].offset, (Point{15, 0}));
    EXPECT_EQ(hud[own].offset, (Point{0, -10})) << "the effect with which it enters, backwards";
    update(hud, 600ms);
    EXPECT_FALSE(hud[text].visible);
    visible = true;
    update(hud, 0s);
    update(hud, 500ms);
    EXPECT_EQ(hud[text].offset, (Point{0, -10}));
}

TEST(Effect, of_a_stronger_cause_does_not_disturb_what_it_does_not_name) {
    // A pulse of a band, with and without hits that change nothing but color, opacity or place.
    const Effect pulse{.id = "pulse", .duration = 1s, .repeat = 0, .keyframes = {{.at = 0.5, .scale = 1.3F}}};
    const Effect hit{.id = "hit",
                     .duration = 300ms,
                     .keyframes = {{.at = 0, .opacity = 0.3F, .color = white}, {.at = 0.5, .offset = Point{9, 3}}}};
    EffectPlayer alone, both;
    for (EffectPlayer* const player : {&alone, &both})
        player->play(pulse, 0s, {.cause = EffectCause::band});
    Random random(4);
    Nanoseconds now{0};
    for (int i = 0; i < 2000; ++i) {
        now += std::chrono::microseconds(random.below(30'000));
        if (i % 7 == 0) both.play(hit, now);
        alone.advance(now);
        both.advance(now);
        EXPECT_NEAR(both.pose(now).scale, alone.pose(now).scale, 1e-6) << i;
    }
}

TEST(Effect, turns_round_from_what_is_seen_whatever_the_two_effects_are) {
    const Effect slow{.id = "slow", .duration = 1s, .keyframes = {{.at = 0, .opacity = 0.0F}}};
    const Effect quick{.id = "quick",
                       .duration = 300ms,
                       .easing = Easing::ease_out(),
                       .keyframes = {{.at = 0, .scale = 0.5F, .opacity = 0.0F}}};
    for (const auto& [enter, leave] : {std::pair(&slow, &quick), std::pair(&quick, &slow), std::pair(&slow, &slow)})
        for (int turn = 20; turn < 280; turn += 20) {
            EffectPlayer player;
            const auto play = [&, &in = *enter, &out = *leave](bool enters, Nanoseconds at) {
                player.play(enters ? in : out, at,
                            {.as = enters ? PlayAs::enter : PlayAs::leave, .cause = EffectCause::visibility});
            };
            play(true, 0s);
            bool enters = true;
            float last = 0;
            for (int ms = 0; ms < 1500; ++ms) {
                const Nanoseconds now = std::chrono::milliseconds(ms);
                if (ms > 0 && ms < 1000 && ms % turn == 0) play(enters = !enters, now);
                player.advance(now);
                const float opacity = player.running() != nullptr || enters ? player.pose(now).opacity : 0;
                EXPECT_LT(std::abs(opacity - last), 0.06F)
                    << enter->id << " " << leave->id << " every " << turn << " at " << ms;
                last = opacity;
            }
        }
}

}  // namespace effect_lives_test
}  // namespace rapido::test
