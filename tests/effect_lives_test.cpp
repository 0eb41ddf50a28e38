// Effects from rest, beside stronger ones, and turned round.
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
