// Effects together: how one takes over from another, what bands hold, how elements enter and leave.
#include <cmath>

#include "rapido/look.hpp"
#include "support.hpp"

namespace rapido::test {
namespace together_test {

const Effect open_end{.id = "open_end",
                      .duration = 150ms,
                      .repeat = 2,
                      .keyframes = {{.at = 0.3, .opacity = 0.2F},
                                    {.at = 1, .scale = 1.5F, .offset = Point{10, -4}, .rotation = 8.0F}}};
const Effect dim{.id = "dim", .duration = 300ms, .keyframes = {{.at = 0.6, .opacity = 0.0F}}};
const Effect lean{.id = "lean", .duration = 400ms, .keyframes = {{.at = 0.5, .rotation = 12.0F}}};

const Effect& built_in(std::string_view id) {
    for (const Effect& effect : built_in_effects())
        if (effect.id == id) return effect;
    static const Effect none;
    return none;
}

double jump(const Pose& a, const Pose& b) {
    return std::max({std::abs(static_cast<double>(a.scale - b.scale)) * 20,
                     std::hypot(static_cast<double>(a.offset.x - b.offset.x),
                                static_cast<double>(a.offset.y - b.offset.y)),
                     std::abs(static_cast<double>(a.rotation - b.rotation)) / 2,
                     std::abs(static_cast<double>(a.opacity - b.opacity)) * 10});
}

TEST(EffectPlayer, is_continuous_under_random_retriggers_of_all_causes) {
    const std::vector<const Effect*> effects{&built_in("swell"),
                                             &built_in("shake"),
                                             &dim,
                                             &built_in("pulse"),
                                             &built_in("flash"),
                                             &open_end,
                                             &lean};
    double largest = 0, moved = 0;
    for (std::uint64_t seed = 1; seed <= 40; ++seed) {
        Random random(seed);
        EffectPlayer player;
        Pose last;
        Nanoseconds next{0};
        for (Nanoseconds now{0}; now < 3s; now += 100us) {
            player.advance(now);
            while (next <= now) {
                const Effect& effect =
                    *effects[static_cast<std::size_t>(random.below(static_cast<int>(effects.size())))];
                if (random.below(5) == 0)
                    player.stop(effect, now);
                else
                    player.play(effect, now,
                                {.strength = random.below(2) == 0 ? 1.0F : -0.6F,
                                 .seed = static_cast<std::uint32_t>(random.below(1000)),
                                 .cause = static_cast<EffectCause>(random.below(4))});
                next += 1ms * random.below(160);
            }
            const Pose pose = player.pose(now);
            largest = std::max(largest, jump(last, pose));
            moved = std::max(moved, jump(Pose{}, pose));
            last = pose;
        }
    }
    EXPECT_GT(moved, 8) << "it moves";
    // The steepest way is that of open_end at twice its length in 300 ms, and a residual of all of it.
    EXPECT_LT(largest, 0.3) << "in a tenth of a millisecond";
}

TEST(EffectPlayer, is_at_the_same_pose_at_every_frame_rate) {
    for (std::uint64_t seed = 1; seed <= 20; ++seed) {
        std::vector<Pose> first;
        for (const Nanoseconds step :
             {Nanoseconds{1'000'000}, Nanoseconds{16'000'000}, Nanoseconds{400'000'000}}) {
            Random random(seed);
            EffectPlayer player;
            std::vector<Pose> poses;
            Nanoseconds now{0};
            for (int i = 0; i < 12; ++i) {
                const Nanoseconds at = Nanoseconds{400'000'000} * i + 1ms * random.below(400);
                for (; now + step <= at; now += step)
                    player.advance(now);
                const Effect& effect = random.below(2) == 0   ? lean
                                       : random.below(2) == 0 ? open_end
                                                              : built_in("shake");
                player.play(effect, at, {.seed = 7, .cause = static_cast<EffectCause>(random.below(4))});
                player.advance(at + 90ms);
                poses.push_back(player.pose(at + 90ms));
                now = Nanoseconds{400'000'000} * (i + 1);
                player.advance(std::max(now, at + 90ms));
                now = std::max(now, at + 90ms);
            }
            if (first.empty()) first = poses;
            for (std::size_t i = 0; i < poses.size(); ++i)
                ASSERT_LT(jump(poses[i], first[i]), 1e-4) << seed << " " << i;
        }
    }
}

TEST(EffectPlayer, gives_each_property_to_the_strongest_cause_that_names_it) {
    EffectPlayer player;
    const Effect turn{.id = "turn",
                      .duration = 1s,
                      .keyframes = {{.at = 0, .rotation = 10.0F}, {.at = 1, .rotation = 10.0F}}};
    const Effect grow{
        .id = "grow", .duration = 1s, .keyframes = {{.at = 0, .scale = 2.0F}, {.at = 1, .scale = 2.0F}}};
    const Effect both{.id = "both",
                      .duration = 2s,
                      .keyframes = {{.at = 0, .scale = 3.0F, .rotation = 30.0F},
                                    {.at = 1, .scale = 3.0F, .rotation = 30.0F}}};
    player.play(both, 0s, {.cause = EffectCause::band});
    player.play(grow, 0s, {.cause = EffectCause::call});
    player.advance(500ms);
    EXPECT_NEAR(player.pose(500ms).scale, 2, 1e-5);
    EXPECT_NEAR(player.pose(500ms).rotation, 30, 1e-4) << "what the stronger one does not name stays";
    player.play(turn, 500ms, {.cause = EffectCause::trigger});
    player.advance(900ms);
    EXPECT_NEAR(player.pose(900ms).scale, 2, 1e-5);
    EXPECT_NEAR(player.pose(900ms).rotation, 10, 1e-4);
    player.advance(1400ms);
    EXPECT_NEAR(player.pose(1400ms).scale, 3, 1e-5) << "and comes back";
    player.advance(1900ms);
    EXPECT_NEAR(player.pose(1900ms).rotation, 30, 1e-4);
}

TEST(Effects, of_a_hit_in_mid_effect_start_from_the_present_pose) {
    Hud hud;
    const auto text = hud.add(Text{.id = "t", .format = "9"});
    update(hud, 16ms);
    EXPECT_TRUE(hud.play(text, "swell"));
    update(hud, 84ms);
    const float before = hud[text].scale;
    EXPECT_GT(before, 1.2F);
    EXPECT_TRUE(hud.play(text, "swell"));
    update(hud, 0ms);
    EXPECT_EQ(hud[text].scale, before);
    update(hud, 1ms);
    EXPECT_NEAR(hud[text].scale, before, 0.02);
}

TEST(Effects, of_bands_without_an_end_are_states) {
    double hull = 20;
    bool hidden = false;
    Hud hud;
    const auto bar = hud.add(Bar{.id = "hull",
                                 .value = watch(hull),
                                 .max = 100,
                                 .bands = {{.below = 0.3, .effect = "pulse"}},
                                 .triggers = {{.on = TriggerOn::loss, .effect = "swell"}},
                                 .visible = watch(hidden).negated()});
    const auto most = [&](Seconds over) {
        float scale = 1;
        for (Seconds t{0}; t < over; t += 10ms) {
            update(hud, 10ms);
            scale = std::max(scale, hud[bar].scale);
        }
        return scale;
    };
    EXPECT_NEAR(most(2s), 1.06, 1e-3) << "from the first frame";
    hud.snap();
    EXPECT_NEAR(most(2s), 1.06, 1e-3) << "after a snap";
    hull = 15;
    EXPECT_GT(most(280ms), 1.15) << "a stronger cause plays";
    EXPECT_NEAR(most(2s), 1.06, 1e-3) << "and it comes back";
    hidden = true;
    update(hud, 10ms);
    hud.snap();
    update(hud, 10ms);
    hidden = false;
    EXPECT_NEAR(most(2s), 1.06, 1e-3) << "after having been hidden";
    hull = 90;
    most(1s);
    EXPECT_EQ(most(2s), 1) << "until the value has left";
}

TEST(Effects, play_on_what_was_just_added_or_is_shown_in_this_frame) {
    bool shown = false;
    int fires = 0;
    Hud hud;
    update(hud, 16ms);
    const auto added = hud.add(Text{.id = "a", .format = "x"});
    EXPECT_TRUE(hud.play(added, "swell"));
    const auto late = hud.add(Text{.id = "b", .format = "x", .visible = watch(shown)});
    const auto band = hud.add(Text{.id = "c",
                                   .value = watch(fires),
                                   .bands = {{.above = 1, .visible = true, .effect = "swell"}},
                                   .visible = false});
    update(hud, 80ms);
    EXPECT_GT(hud[added].scale, 1.15F) << "since the call";
    shown = true;
    fires = 3;
    EXPECT_TRUE(hud.play(late, "swell"));
    update(hud, 80ms);
    EXPECT_GT(hud[late].scale, 1.15F);
    update(hud, 80ms);
    EXPECT_TRUE(hud[band].visible);
    EXPECT_GT(hud[band].scale, 1.1F) << "a band that shows an element plays its effect";
}

TEST(Enter, and_leave_play_for_elements_panels_and_groups) {
    bool open = false, grouped = true;
    Hud hud;
    ASSERT_TRUE(hud.add(Group{.id = "menu", .visible = watch(grouped), .enter = "fade"}));
    const auto panel = hud.add(Panel{.id = "panel", .visible = watch(open), .enter = "fade"});
    const auto inside = hud.add(Text{.id = "inside", .format = "x", .inside = "panel"});
    const auto member = hud.add(Text{.id = "member", .format = "x", .group = "menu"});
    const auto plain = hud.add(Text{.id = "plain", .format = "x", .visible = watch(open)});
    update(hud, 16ms);
    EXPECT_EQ(hud[member].opacity, 1) << "in the first frame everything is there";
    open = true;
    update(hud, 16ms);
    EXPECT_EQ(hud[panel].opacity, 0);
    EXPECT_EQ(hud[plain].opacity, 1);
    update(hud, 250ms);
    EXPECT_NEAR(hud[panel].opacity, 0.5, 1e-3);
    EXPECT_NEAR(hud[inside].opacity, 0.5, 1e-3) << "what stands inside enters with it";
    open = false;
    update(hud, 0ms);
    EXPECT_NEAR(hud[panel].opacity, 0.5, 1e-3) << "it turns round where it is";
    EXPECT_TRUE(hud[panel].visible && hud[inside].visible) << "and is drawn as long as it leaves";
    EXPECT_FALSE(hud[plain].visible);
    float last = 0.5F;
    for (int i = 0; i < 24; ++i) {
        update(hud, 10ms);
        EXPECT_TRUE(hud[panel].visible);
        EXPECT_LE(hud[panel].opacity, last + 0.2F);
        last = hud[panel].opacity;
    }
    update(hud, 20ms);
    EXPECT_FALSE(hud[panel].visible || hud[inside].visible);
    EXPECT_EQ(hud[panel].box, Rect{});

    grouped = false;
    update(hud, 0ms);
    update(hud, 250ms);
    EXPECT_NEAR(hud[member].opacity, 0.5, 1e-3);
    grouped = true;
    update(hud, 0ms);
    update(hud, 600ms);
    EXPECT_EQ(hud[member].opacity, 1);
    hud.set_reduced_motion(true);
    open = true;
    update(hud, 0ms);
    update(hud, 100ms);
    EXPECT_LT(hud[panel].opacity, 1) << "reduced motion fades";
    const auto endless = hud.add(Text{.id = "e", .format = "x", .enter = "pulse"});
    EXPECT_FALSE(endless);
    EXPECT_EQ(to_string(hud.problems().back()), "error: 'enter' of text 'e': effect 'pulse' never ends");
}

TEST(Leave, lands_first_then_plays_and_is_never_whole_again) {
    int score = 0;
    Hud hud;
    const auto text = hud.add(Text{.id = "score", .value = watch(score), .motion = tween(300ms)});
    update(hud, 0ms);
    score = 100;
    update(hud, 0ms);
    hud.leave(text, "fade");
    float opacity = 1;
    bool landed = false;
    for (int ms = 0; ms < 900 && hud.alive(text); ms += 10) {
        update(hud, 10ms);
        if (!hud.alive(text)) break;
        if (hud[text].opacity < 1) {
            EXPECT_EQ(hud.text_of(text), "100") << ms;
            landed = true;
        }
        EXPECT_LE(hud[text].opacity, opacity) << ms;
        opacity = hud[text].opacity;
    }
    EXPECT_TRUE(landed);
    EXPECT_FALSE(hud.alive(text));
    EXPECT_LT(opacity, 0.01F);
}

TEST(Pivot, is_where_an_element_is_held) {
    BoxMeasurer measurer;
    Hud hud{HudDefinition{}, {}, &measurer};
    hud.resize({.size = {1280, 720}});
    hud.add(
        Panel{.id = "plate", .place = {.offset = {20, 20}}, .layout = Layout::column, .align = Align::start});
    const auto left = hud.add(Text{.id = "left", .format = "score", .inside = "plate"});
    const auto right = hud.add(
        Text{.id = "right", .format = "1000", .place = {.anchor = Anchor::bottom_right, .offset = {4, 4}}});
    const auto mid = hud.add(Text{.id = "mid", .format = "1000", .place = {.anchor = Anchor::center}});
    ASSERT_TRUE(
        hud.add(Effect{.id = "lift", .keyframes = {{.at = 0.5, .scale = 2.0F}}, .pivot = Anchor::bottom}));
    update(hud, 16ms);
    DisplayList list;
    // Where the corners of an element are drawn while an effect doubles it.
    const auto drawn = [&](ElementRef ref, std::string_view effect) {
        EXPECT_TRUE(hud.play(ref, effect, effect == "lift" ? 1 : 1 / 0.22F));
        update(hud, effect == "lift" ? 150ms : 84ms);
        hud.draw(list);
        const Rect box = hud[ref].box;
        for (const DisplayGroup& group : list.groups()) {
            if (group.items().empty() || group.transform().is_identity()) continue;
            const Point a = group.transform().apply({box.x, box.y}),
                        b = group.transform().apply({box.right(), box.bottom()});
            hud.snap();
            update(hud, 16ms);
            return Rect{a.x - box.x, a.y - box.y, b.x - box.right(), b.y - box.bottom()};
        }
        return Rect{};
    };
    EXPECT_EQ(drawn(left, "swell").x, 0) << "a left-aligned text does not jump out of its plate";
    const Rect corner = drawn(right, "swell");
    EXPECT_NEAR(corner.width, 0, 1e-3) << "a right-anchored one does not leave the screen";
    EXPECT_NEAR(corner.height, 0, 1e-3);
    const Rect middle = drawn(mid, "swell");
    EXPECT_NEAR(middle.x, -middle.width, 1e-3);
    const Rect lifted = drawn(mid, "lift");
    EXPECT_NEAR(lifted.height, 0, 1e-3) << "an effect may say so itself";
    EXPECT_LT(lifted.y, -10);
}

TEST(Shown, of_a_child_holds_what_effects_do_to_its_panels) {
    BoxMeasurer measurer;
    Hud hud{HudDefinition{}, {}, &measurer};
    const auto panel = hud.add(Panel{.id = "p", .place = {.anchor = Anchor::center}});
    const auto text = hud.add(Text{.id = "t", .format = "x", .inside = "p"});
    ASSERT_TRUE(hud.add(Effect{
        .id = "dodge", .keyframes = {{.at = 0.5, .scale = 2.0F, .offset = Point{30, 0}, .opacity = 0.5F}}}));
    update(hud, 16ms);
    EXPECT_TRUE(hud.play(panel, "dodge"));
    EXPECT_TRUE(hud.play(text, "dodge"));
    update(hud, 150ms);
    EXPECT_NEAR(hud[text].scale, 4, 1e-4);
    EXPECT_NEAR(hud[text].opacity, 0.25, 1e-4);
    // Its own 30, doubled by the panel, and the 30 of the panel; what holds it is the upper left of a box around the middle.
    const Rect box = hud[text].box, plate = hud[panel].box;
    const Point held{box.x, box.y}, middle{plate.x + plate.width / 2, plate.y + plate.height / 2};
    EXPECT_NEAR(hud[text].offset.x, 2 * (held.x + 30 - middle.x) + middle.x + 30 - held.x, 1e-3);
}

}  // namespace together_test
}  // namespace rapido::test
