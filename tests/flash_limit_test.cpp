// What counts as a flash, how many there may be, and what is asked for no more.
#include "pixels.hpp"
#include "rapido/look.hpp"

namespace rapido::test {
namespace flash_limit_test {

/// When changes of 10 % and more, each in the way against the one before, are complete, in milliseconds.
std::vector<int> opposing_changes(const std::vector<double>& light) {
    std::vector<int> changes;
    double low = light[0], high = light[0];
    int way = 0;
    for (std::size_t i = 1; i < light.size(); ++i) {
        low = std::min(low, light[i]);
        high = std::max(high, light[i]);
        const bool rises = way <= 0 && light[i] - low >= 0.1 && low < 0.8;
        const bool falls = way >= 0 && high - light[i] >= 0.1 && light[i] < 0.8;
        if (!rises && !falls) continue;
        way = rises ? 1 : -1;
        low = high = light[i];
        changes.push_back(static_cast<int>(i));
    }
    return changes;
}

TEST(FlashLimit, holds_under_a_storm_of_hits_over_three_huds) {
    FlashLimit limit;
    double hull = 100;
    HudDefinition definition;
    definition.effects = {{.id = "strobe", .duration = 90ms, .keyframes = {{.at = 0.3, .color = rgb(0xffffff)}}}};
    std::vector<Hud> huds;
    std::vector<ElementRef> bars;
    std::vector<std::vector<double>> light(3);
    std::size_t events = 0;
    for (int i = 0; i < 3; ++i) {
        huds.emplace_back(definition);
        huds[static_cast<std::size_t>(i)].set_flash_limit(limit);
        Bar bar{.id = "hull",
                .value = watch(hull),
                .max = 100,
                .bands = {{.id = "hit", .below = 0.5}},
                .color = rgb(0x202020)};
        if (i < 2)
            bar.triggers = {{.on = TriggerOn::loss, .effect = i == 0 ? "flash" : "strobe"}};
        else
            bar.bands[0].color = rgb(0xffffff);  // the color of a band flashes as well
        bars.push_back(huds.back().add(bar));
    }
    for (int ms = 0; ms < 7000; ++ms) {
        // A thousand changes a second, then bursts of them, then single ones.
        const bool quiet = ms > 2500 && ms % 150 > (ms < 4500 ? 40 : 2);
        hull = quiet || ms % 2 == 0 ? 100 : 10;
        for (std::size_t i = 0; i < 3; ++i) {
            update(huds[i], 1ms);
            events += huds[i].events().size();
            light[i].push_back(relative_luminance(huds[i][bars[i]].color));
        }
    }
    // Three pairs in a second, and the half of one that is there before or behind. What two HUDs do within two frames is seen at once.
    std::vector<int> all;
    for (const auto& of_hud : light) {
        const std::vector<int> own = opposing_changes(of_hud);
        EXPECT_GE(own.size(), 6U) << "some are seen";
        for (std::size_t i = 7; i < own.size(); ++i)
            EXPECT_GE(own[i] - own[i - 7], 999) << "more than three in a second, up to " << own[i] << " ms";
        all.insert(all.end(), own.begin(), own.end());
    }
    std::sort(all.begin(), all.end());
    std::vector<int> seen;
    for (const int at : all)
        if (seen.empty() || at > seen.back() + 34) seen.push_back(at);
    for (std::size_t i = 7; i < seen.size(); ++i)
        EXPECT_GE(seen[i] - seen[i - 7], 999) << "more than three in a second of all, up to " << seen[i] << " ms";
    EXPECT_GE(events, 3U * 2500U) << "every event is still reported";
    for (std::size_t i = 0; i < huds.size(); ++i) {
        update(huds[i], 3s);
        EXPECT_EQ(huds[i][bars[i]].color, rgb(0x202020)) << "at rest";
    }
}

TEST(FlashLimit, counts_saturated_red) {
    // Red on dark gray is no change of luminance of 10 %, and counts all the same.
    const auto flash_to = [](std::uint32_t color) {
        return Effect{.id = "e", .keyframes = {{.at = 0.5, .color = rgb(color), .easing = Easing::steps(1)}}};
    };
    struct Row {
        std::uint32_t from, to;
        std::size_t flashes;
    };
    for (const Row& row : std::vector<Row>{{0x606060, 0xc00000, 1},
                                           {0xc00000, 0x606060, 1},
                                           {0x606060, 0x5f6861, 0},
                                           {0xc00000, 0xb80000, 0},
                                           {0x202020, 0xff0000, 1},     // both: one flash
                                           {0xff8080, 0xff7070, 0}}) {  // red, and not saturated
        EXPECT_EQ(flashes_of(flash_to(row.to), rgb(row.from)).size(), row.flashes)
            << std::hex << row.from << " " << row.to;
        EXPECT_EQ(is_flash_change(rgb(row.from), rgb(row.to)), row.flashes > 0);
    }
}

TEST(FlashLimit, counts_the_light_of_a_glow) {
    const auto glows = [](float strength, int times) {
        Effect effect{.id = "e"};
        for (int i = 0; i < times; ++i)
            effect.keyframes.push_back({.at = (i + 0.5) / times, .glow = strength}),
                effect.keyframes.push_back({.at = (i + 1.0) / times, .glow = 0.0F});
        return effect;
    };
    EXPECT_EQ(flashes_of(glows(1, 1), rgb(0xffffff)).size(), 1U);
    EXPECT_GE(flashes_of(glows(1, 3), rgb(0xffffff)).size(), 3U);
    EXPECT_EQ(flashes_of(glows(0.09F, 3), rgb(0xffffff)).size(), 0U) << "less than a tenth";
    EXPECT_EQ(flashes_of(glows(1, 3), rgb(0x404040)).size(), 0U) << "of a dark element";
    Effect both = glows(1, 1);
    both.keyframes[0].color = rgb(0xffffff);
    EXPECT_EQ(flashes_of(both, rgb(0x303030)).size(), 1U) << "with a color it is one flash";
}

TEST(FlashLimit, knows_the_luminance_of_colors) {
    // WCAG 2.x: contrast of #777777 on white is 4.48, of #ff0000 on black 5.25.
    EXPECT_NEAR((relative_luminance(rgb(0xffffff)) + 0.05) / (relative_luminance(rgb(0x777777)) + 0.05), 4.48, 0.01);
    EXPECT_NEAR((relative_luminance(rgb(0xff0000)) + 0.05) / 0.05, 5.25, 0.01);
    EXPECT_EQ(flashes_of(built_in_effects()[1], rgb(0x202020)).size(), 1U) << "flash";
    EXPECT_EQ(flashes_of(built_in_effects()[0], rgb(0x202020)).size(), 0U) << "swell";
    EXPECT_EQ(flashes_of(built_in_effects()[1], rgb(0xffffff)).size(), 0U) << "white on white";
    EXPECT_EQ(flashes_of(built_in_effects()[3], rgb(0xffffff)).size(), 1U) << "fade";
    EXPECT_EQ(flashes_of(built_in_effects()[3], rgb(0xffffff), false).size(), 0U) << "appearing by fade";
}

/// A banner over most of the screen.
Bar banner(const std::string& id) {
    return {.id = id, .value = 1, .max = 1, .place = {.size = {800, 500}}, .color = rgb(0x406080)};
}
HudDefinition large() {
    return {.design = {1024, 768},
            .effects = {{.id = "thrice",
                         .duration = 1s,
                         .keyframes = {{.at = 0.15, .color = rgb(0x406080)},  // nothing is seen up to here
                                       {.at = 0.2, .color = rgb(0xffffff)},
                                       {.at = 0.3, .color = rgb(0x000000)},
                                       {.at = 0.5, .color = rgb(0xffffff)},
                                       {.at = 0.6, .color = rgb(0x000000)},
                                       {.at = 0.8, .color = rgb(0xffffff)},
                                       {.at = 0.9, .color = rgb(0x000000)}}}}};
}

TEST(FlashLimit, forgets_what_was_to_come_of_what_has_gone) {
    for (const bool snaps : {false, true}) {
        Hud hud(large(), {}, &Stage::fonts());
        hud.resize({.size = {1024, 768}});
        const ElementRef gone = hud.add(banner("gone")), other = hud.add(banner("other"));
        update(hud, 16ms);
        ASSERT_TRUE(hud.play(gone, "thrice"));
        update(hud, 50ms);
        if (snaps)
            hud.snap(gone);
        else
            hud.remove(gone);
        update(hud, 16ms);
        ASSERT_TRUE(hud.play(other, "thrice"));
        for (int i = 0; i < 60; ++i) {
            update(hud, 16ms);
            EXPECT_FALSE(hud.flash_limited()) << i;
        }
    }
}

TEST(FlashLimit, counts_what_appears_and_disappears_as_one_flash) {
    // Shown and hidden four times in two seconds: two flashes a second. Six times in a second, it is held.
    for (const auto& [every, is_held] : std::vector<std::pair<int, bool>>{{15, false}, {5, true}}) {
        bool visible = false;
        Hud hud(large(), {}, &Stage::fonts());
        hud.resize({.size = {1024, 768}});
        Bar bar = banner("b");
        bar.visible = watch(visible);
        bar.enter = bar.leave = "quick";
        hud.add(Effect{.id = "quick", .duration = 80ms, .keyframes = {{.at = 0, .opacity = 0.0F}}});
        hud.add(bar);
        int held = 0;
        for (int frame = 0; frame < 120; ++frame) {
            visible = frame / every % 2 == 1;
            update(hud, Seconds{1.0 / 60});
            held += hud.flash_limited() ? 1 : 0;
        }
        EXPECT_EQ(held > 0, is_held) << every << ": " << held;
    }
}

TEST(FlashLimit, counts_what_is_gone_at_the_end_of_an_effect_that_does_not_fade) {
    // Three times there and gone again in a second, of which no pose says anything; then another one may not flash.
    for (const bool comes : {false, true}) {
        bool visible = false;
        Hud hud(large(), {}, &Stage::fonts());
        hud.resize({.size = {1024, 768}});
        hud.add(Effect{.id = "slide", .duration = 50ms, .keyframes = {{.at = 0, .offset = Point{0, 2}}}});
        Bar bar = banner("b");
        bar.visible = watch(visible);
        bar.enter = bar.leave = "slide";
        hud.add(bar);
        const ElementRef other = hud.add(banner("other"));
        int held = 0;
        for (int frame = 0; frame < 110; ++frame) {
            visible = comes && frame >= 20 && frame < 65 && frame / 8 % 2 == 1;
            if (frame == 66) hud.play(other, "flash");
            update(hud, Seconds{1.0 / 60});
            held += hud.flash_limited() ? 1 : 0;
        }
        EXPECT_EQ(held > 0, comes) << held;
    }
}

TEST(FlashLimit, follows_its_settings_while_an_effect_runs) {
    Hud hud(large(), {}, &Stage::fonts());
    hud.resize({.size = {1024, 768}});
    hud.set_flash_settings({.ground = rgb(0x000000)});
    Bar small = banner("small");
    small.place.size = {60, 60};
    const ElementRef bar = hud.add(small);
    const auto held = [&] {
        int count = 0;
        for (int frame = 0; frame < 90; ++frame) {
            if (frame % 6 == 0) hud.play(bar, "flash");
            update(hud, 1.0 / 60);
            count += hud.flash_limited() ? 1 : 0;
        }
        return count > 0;
    };
    EXPECT_FALSE(held());
    hud.set_flash_settings({.rule = FlashRule::any_size, .ground = rgb(0x000000)});
    EXPECT_TRUE(held());
}

TEST(FlashLimit, keeps_the_rule_of_the_file_where_the_game_says_nothing_of_it) {
    const auto held = [](FlashRule of_file, const FlashSettings& of_game, bool reloads) {
        HudDefinition definition = large();
        definition.flash_limit = reloads ? FlashRule::area : of_file;
        Hud hud(definition, {}, &Stage::fonts());
        hud.resize({.size = {1024, 768}});
        hud.set_flash_settings(of_game);
        if (reloads) {
            definition.flash_limit = of_file;
            EXPECT_TRUE(hud.reload(definition).empty());
        }
        Bar small = banner("small");
        small.place.size = {60, 60};
        const ElementRef bar = hud.add(small);
        int count = 0;
        for (int frame = 0; frame < 90; ++frame) {
            if (frame % 6 == 0) hud.play(bar, "flash");
            update(hud, Seconds{1.0 / 60});
            count += hud.flash_limited() ? 1 : 0;
        }
        return count > 0;
    };
    const FlashSettings ground{.ground = rgb(0x000000)}, area{.rule = FlashRule::area};
    for (const bool reloads : {false, true}) {
        EXPECT_TRUE(held(FlashRule::any_size, ground, reloads));
        EXPECT_FALSE(held(FlashRule::area, ground, reloads));
        EXPECT_FALSE(held(FlashRule::any_size, area, reloads)) << "the game knows best";
    }
}

}  // namespace flash_limit_test
}  // namespace rapido::test
