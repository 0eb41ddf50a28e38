// Features beside each other: what one of them does while another runs.
#include "rapido/look.hpp"
#include "rapido/text.hpp"
#include "support.hpp"

namespace rapido::test {
namespace seams_test {

std::string told(const Hud& hud) {
    std::string all;
    for (const Event& event : hud.events())
        all += (all.empty() ? "" : ", ") + event.id + " " + std::string(to_string(event.kind)) +
               (event.detail.empty() ? "" : " " + event.detail);
    return all;
}

/// All that a display list draws, as far as a HUD of texts and bars can differ.
std::string drawn(const DisplayList& list) {
    std::string all;
    for (const DisplayGroup& group : list.groups())
        for (const DisplayItem& item : group.items())
            all += std::to_string(static_cast<int>(item.kind)) + std::string(group.text_of(item)) + "@" +
                   std::to_string(item.rect.width + item.baseline.x) + " ";
    return all;
}

TEST(Effects, played_by_the_game_leave_bands_without_effects_alone) {
    int heat = 0;
    Hud hud;
    const auto text = hud.add(Text{.id = "heat", .value = watch(heat), .bands = {{.id = "hot", .above = 5}}});
    update(hud, 16ms);
    EXPECT_TRUE(hud.play(text, "shake"));
    EXPECT_FALSE(hud.fill_of(text)) << "a text has none";
    const auto bar = hud.add(Bar{.id = "bar", .value = 1, .max = 4});
    EXPECT_EQ(hud.fill_of(bar), 0);
    update(hud, 0s);
    EXPECT_EQ(hud.fill_of(bar), 0.25);
    hud.remove(bar);
    EXPECT_FALSE(hud.fill_of(bar));
    heat = 9;
    update(hud, 16ms);
    EXPECT_EQ(told(hud), "heat band_enter hot");
    heat = 1;
    update(hud, 16ms);
    EXPECT_EQ(told(hud), "heat band_leave hot");
}

TEST(Effects, of_a_timer_do_not_start_in_the_frame_of_a_snap) {
    for (const bool snaps : {false, true}) {
        HudDefinition definition;
        definition.timers = {{.id = "t", .duration = 10s, .marks = {{9s}}}};
        definition.effects = {{.id = "dim", .duration = 5s, .keyframes = {{.at = 0.5, .opacity = 0.F}}}};
        definition.elements = {
            Text{.id = "a", .value = "t.left", .triggers = {{.on = TriggerOn::mark, .effect = "dim", .timer = "t"}}}};
        Hud hud(definition);
        update(hud, 16ms);
        if (snaps) hud.snap();
        update(hud, 1100ms);
        EXPECT_EQ(told(hud), "t mark 9");
        update(hud, 16ms);
        EXPECT_EQ(hud[hud.find("a")].opacity == 1, snaps);
    }
}

TEST(Hud, does_not_read_for_an_element_that_could_not_be_made) {
    Hud hud;
    int reads = 0;
    const Source read = watch([&reads] { return ++reads; });
    EXPECT_FALSE(hud.add(Text{.id = "t", .value = read, .format = "{:"}));
    EXPECT_FALSE(hud.add(Bar{.id = "b", .value = 1, .max = read, .bands = {{.below = 0.2, .format = "{}"}}}));
    update(hud, 10ms);
    EXPECT_EQ(reads, 0);
}

TEST(Effects, that_weigh_a_change_play_at_full_strength_for_anything_else) {
    int hull = 10;
    Hud hud;
    const auto bar = hud.add(Bar{.id = "hull",
                                 .value = watch(hull),
                                 .max = 10,
                                 .triggers = {{.on = TriggerOn::empty, .effect = "swell", .full_strength_at = 100},
                                              {.on = TriggerOn::loss, .effect = "shake", .full_strength_at = 100}}});
    update(hud, 16ms);
    hull = 0;
    update(hud, 16ms);
    update(hud, 80ms);
    EXPECT_GT(hud[bar].scale, 1.1F) << "the last that starts in a frame counts, and it is that of empty";
}

TEST(Effects, of_one_timer_start_on_all_who_wait_for_it) {
    HudDefinition definition;
    definition.timers = {{.id = "t", .duration = 10s, .marks = {{9s}, {8s}}}};
    definition.effects = {{.id = "grow", .duration = 5s, .keyframes = {{.at = 0.5, .scale = 2.F}}}};
    Trigger nine{.on = TriggerOn::mark, .effect = "grow", .timer = "t", .at = 9s};
    for (const char* id : {"a", "b", "c"})
        definition.elements.push_back(Text{.id = id, .format = "x", .triggers = {nine, nine}});
    nine.at = 8s;
    definition.elements.push_back(Text{.id = "later", .format = "x", .triggers = {nine}});
    Hud hud(definition);
    update(hud, 16ms);
    hud.remove(hud.find("b"));
    update(hud, 1500ms);
    for (const ElementRef ref : hud.elements())
        EXPECT_EQ(hud[ref].scale > 1, hud[ref].id != "later") << hud[ref].id;
    EXPECT_EQ(hud.elements().size(), 3U);
}

TEST(Band, on_the_truth_of_a_timer_is_entered_at_its_exact_time) {
    for (const BandReads on : {BandReads::truth, BandReads::target}) {
        HudDefinition definition;
        definition.timers = {{.id = "t", .duration = 10s}};
        definition.elements = {Text{.id = "a", .value = "t.left", .bands = {{.id = "late", .below = 4, .reads = on}}}};
        Hud hud(definition);
        update(hud, 0s);
        update(hud, 9s);
        ASSERT_EQ(told(hud), "a band_enter late");
        EXPECT_EQ(hud.events()[0].time, 6s);
    }
}

TEST(Band, that_changes_with_others_fades_as_long_as_the_slowest) {
    int heat = 0;
    Hud hud;
    const auto text = hud.add(Text{.id = "a",
                                   .value = watch(heat),
                                   .bands = {{.above = 5, .color = rgb(0x808080), .fade = 10ms},
                                             {.above = 6, .color = rgb(0x909090), .fade = 1s}}});
    update(hud, 16ms);
    const Color before = hud[text].color;
    heat = 9;
    update(hud, 16ms);
    update(hud, 500ms);
    EXPECT_NE(hud[text].color, rgb(0x909090)) << "half way";
    EXPECT_NE(hud[text].color, before);
    update(hud, 600ms);
    EXPECT_EQ(hud[text].color, rgb(0x909090));
}

TEST(PopUps, go_on_where_a_name_that_shows_them_is_set_anew) {
    BoxMeasurer measurer;
    Sources sources;
    bool shown = true;
    sources.set("shown", constant(true));
    Hud hud{HudDefinition{}, sources, &measurer};
    const auto hits = hud.add(PopUps{.id = "hits", .visible = by_name("shown")});
    hud.pop_up(hits, {.on_screen = Point{100, 100}, .value = 7});
    update(hud, 16ms);
    sources.set("shown", watch(shown));
    update(hud, 16ms);
    DisplayList list;
    hud.draw(list);
    ASSERT_EQ(list.groups().back().items().size(), 1U);
}

TEST(Leave, takes_no_time_with_reduced_motion) {
    for (const bool reduced : {false, true}) {
        Hud hud;
        const auto text = hud.add(Text{.id = "text", .format = "x"});
        hud.set_reduced_motion(reduced);
        update(hud, 16ms);
        hud.leave(text, "fade");
        update(hud, 16ms);
        EXPECT_EQ(hud.alive(text), !reduced);
    }
}

TEST(Effects, of_an_element_color_it_before_those_of_its_panel) {
    BoxMeasurer measurer;
    HudDefinition definition;
    for (const auto& [id, color] : {std::pair("blue", 0x0000ffU), std::pair("red", 0xff0000U)})
        definition.effects.push_back(
            {.id = id, .duration = 1s, .keyframes = {{.at = 0, .color = rgb(color)}, {.at = 1, .color = rgb(color)}}});
    Hud hud(definition, {}, &measurer);
    const auto panel = hud.add(Panel{.id = "panel", .plate = false});
    const auto text = hud.add(Text{.id = "text", .format = "x", .inside = "panel"});
    update(hud, 16ms);
    hud.play(panel, "blue");
    update(hud, 16ms);
    EXPECT_EQ(hud[text].color, rgb(0x0000ff));
    hud.play(text, "red");
    update(hud, 16ms);
    EXPECT_EQ(hud[text].color, rgb(0xff0000));
}

TEST(Leave, does_not_wait_for_an_effect_that_never_ends) {
    int value = 3;
    Hud hud;
    const auto text = hud.add(Text{.id = "a", .value = watch(value), .motion = tween(100ms)});
    update(hud, 16ms);
    value = 5;
    update(hud, 16ms);
    hud.leave(text, "pulse");
    hud.leave(text, "pulse");
    update(hud, 50ms);
    EXPECT_EQ(hud.elements().size(), 1U) << "its motion is in flight";
    update(hud, 60ms);
    EXPECT_EQ(hud.elements().size(), 0U);
    EXPECT_EQ(hud[text].id, "");
}

TEST(Notice, may_be_removed_while_it_speaks_or_is_spoken_of) {
    int hull = 10;
    bool alarm = false;
    Hud hud;
    hud.add(Panel{.id = "p"});
    hud.add(Bar{.id = "hull", .value = watch(hull), .max = 10, .inside = "p"});
    const auto notice = [&] {
        return hud.add(Notice{.id = "news",
                              .messages = {{.id = "gone", .text = "x", .on = TriggerOn::empty, .element = "p.hull"},
                                           {.id = "alarm", .text = "y", .when = watch(alarm), .lasting = true}}});
    };
    auto news = notice();
    alarm = true;
    update(hud, 16ms);
    EXPECT_EQ(told(hud), "news enter alarm");
    hud.notify(news, {.text = "posted"});
    hud.remove(news);
    hull = 0;
    update(hud, 16ms);
    EXPECT_EQ(told(hud), "p.hull empty");
    EXPECT_FALSE(hud.notify(news, {.text = "late"}));

    // Another one of the same id hears the same element, also when that was removed and is there again.
    alarm = false;
    news = notice();
    hull = 5;
    update(hud, 16ms);
    hud.remove(hud.find("p.hull"));
    update(hud, 16ms);
    hud.add(Bar{.id = "hull", .value = watch(hull), .max = 10, .inside = "p"});
    update(hud, 16ms);
    hull = 0;
    update(hud, 16ms);
    EXPECT_EQ(told(hud), "p.hull empty, news enter gone");
    hud.remove(hud.find("p"));
    hull = 5;
    update(hud, 1s);
    hull = 0;
    update(hud, 16ms);
    EXPECT_EQ(hud.elements().size(), 1U);
}

TEST(Notice, says_in_its_first_frame_only_what_lasts) {
    const bool already = true;
    Hud hud;
    const auto news =
        hud.add(Notice{.id = "news",
                       .messages = {{.id = "once", .text = "once", .when = watch(already), .priority = 9},
                                    {.id = "lasts", .text = "lasts", .when = watch(already), .lasting = true}}});
    update(hud, 16ms);
    EXPECT_EQ(told(hud), "news enter lasts");
    EXPECT_EQ(hud.text_of(news), "lasts");
}

TEST(Bodies, that_live_in_time_may_go_and_others_take_their_places) {
    double value = 1;
    BoxMeasurer measurer;
    Hud hud(HudDefinition{}, {}, &measurer);
    DisplayList list;
    for (int round = 0; round < 5; ++round) {
        value += 10;
        std::vector<ElementRef> made{
            hud.add(Graph{.id = "graph", .value = watch(value), .max = 100, .span = 1s, .resolution = 10}),
            hud.add(Level{.id = "level", .value = watch(value), .max = 100, .wave = {.height = 4}}),
            hud.add(
                Pips{.id = "pips", .value = watch(value), .max = 5, .in_turn = {.effect = "shine", .every = 100ms}}),
        };
        for (int i = 0; i < 3; ++i) {
            update(hud, 60ms);
            hud.draw(list);
        }
        ASSERT_TRUE(hud.problems().empty()) << to_string(hud.problems()[0]);
        for (const ElementRef ref : made)
            EXPECT_TRUE(hud[ref].visible);
        hud.remove(made[static_cast<std::size_t>(round % 3)]);
        update(hud, 60ms);
        hud.draw(list);
        EXPECT_EQ(hud.elements().size(), 2U);
        for (const ElementRef ref : made)
            hud.remove(ref);
    }
}

TEST(FlashLimit, is_shared_by_bands_of_several_huds) {
    // Black and white ten times a second, twice: three flashes of all in any second, and both at once are one.
    bool bright = false;
    FlashLimit limit;
    std::array<Hud, 2> huds;
    std::vector<ElementRef> texts;
    for (Hud& hud : huds) {
        hud.set_flash_limit(limit);
        texts.push_back(hud.add(Bar{.id = "a",
                                    .value = watch(bright),
                                    .bands = {{.above = 1, .edge_unit = EdgeUnit::value, .color = rgb(0xffffff)}},
                                    .color = rgb(0x000000)}));
    }
    int changes = 0;
    std::array<Color, 2> last{rgb(0x000000), rgb(0x000000)};
    for (int i = 0; i < 100; ++i) {
        bright = i / 5 % 2 == 1;
        for (std::size_t h = 0; h < 2; ++h) {
            update(huds[h], 10ms);
            const Color now = huds[h][texts[h]].color;
            changes += now == last[h] ? 0 : 1;
            last[h] = now;
        }
    }
    EXPECT_GE(changes, 4);
    EXPECT_LE(changes, 2 * (3 * 2 + 1)) << "a flash is there and back; what is held back stays as it is";
}

TEST(DisplayList, may_be_used_by_two_huds_in_turn) {
    int first = 1, second = 200;
    BoxMeasurer measurer;
    std::array<Hud, 2> huds{Hud(HudDefinition{}, {}, &measurer), Hud(HudDefinition{}, {}, &measurer)};
    huds[0].add(Text{.id = "a", .value = watch(first)});
    huds[1].add(Text{.id = "b", .value = watch(second)});
    huds[1].add(Bar{.id = "c", .value = 1});
    DisplayList shared;
    for (int i = 0; i < 6; ++i) {
        first += i % 2;
        Hud& hud = huds[static_cast<std::size_t>(i % 2)];
        update(huds[0], 16ms);
        update(huds[1], 16ms);
        DisplayList own;
        hud.draw(own);
        hud.draw(shared);
        EXPECT_EQ(drawn(shared), drawn(own));
        EXPECT_NE(drawn(own), "");
    }
}

TEST(Snap, forgets_the_last_change) {
    int score = 10;
    Hud hud;
    const auto text = hud.add(Text{.id = "a", .value = watch(score), .format = "{delta:+}"});
    const auto moving = hud.add(Text{.id = "b", .value = watch(score), .format = "{delta:+}", .motion = tween(100ms)});
    update(hud, 16ms);
    EXPECT_EQ(hud.text_of(text), "--");
    score = 15;
    update(hud, 16ms);
    EXPECT_EQ(hud.text_of(text), "+5");
    EXPECT_EQ(hud.text_of(moving), "+5");
    score = 100;
    hud.snap();
    update(hud, 16ms);
    EXPECT_EQ(hud.text_of(text), "--");
    EXPECT_EQ(hud.text_of(moving), "--");
}

TEST(Pending, is_right_from_its_first_frame_and_tells_nothing) {
    int score = 0;
    Hud hud;
    hud.add(Text{.id = "score", .value = watch(score), .pace = {.settle = 1s}});
    update(hud, 16ms);
    score = 40;
    update(hud, 16ms);
    const auto gain = hud.add(Text{.id = "gain", .value = "score.pending", .motion = tween(10s)});
    const auto plain = hud.add(
        Text{.id = "plain", .value = "score.pending", .bands = {{.id = "some", .above = 1, .color = rgb(0xff0000)}}});
    update(hud, 16ms);
    EXPECT_EQ(hud.text_of(gain), "40") << "the first value does not travel";
    EXPECT_EQ(hud.text_of(plain), "40");
    EXPECT_EQ(hud[plain].color, rgb(0xff0000));
    EXPECT_EQ(told(hud), "");
    score = 50;
    hud.snap(gain);
    update(hud, 16ms);
    EXPECT_EQ(hud.text_of(gain), "50") << "a snap takes what is pending in the same frame";
    update(hud, 1100ms);
    EXPECT_EQ(hud.text_of(plain), "0");
    EXPECT_EQ(hud[plain].color, Text{}.color);
    EXPECT_EQ(told(hud), "") << "neither empty nor a band that was left";
}

TEST(Pending, of_a_text_that_is_there_already_is_no_gain_of_all_of_it) {
    int score = 70;
    Hud hud;
    const auto total = hud.add(Text{.id = "score", .value = watch(score)});
    update(hud, 16ms);
    score = 90;
    update(hud, 16ms);
    const auto gain = hud.add(Text{.id = "gain", .value = "score.gain"});
    update(hud, 16ms);
    EXPECT_EQ(hud.text_of(gain), "0");
    EXPECT_EQ(hud.text_of(total), "90");
}

TEST(Timer, of_the_game_tells_nothing_of_what_was_before) {
    Countdown round(1s);
    round.start();
    round.advance(2s);
    Hud hud;
    hud.add_timer("round", round);
    update(hud, 16ms);
    EXPECT_EQ(told(hud), "");
    round.start();
    round.advance(1s);
    update(hud, 1s);
    EXPECT_EQ(told(hud), "round start, round end");
}

TEST(Language, translates_placeholders_and_reports_only_texts_that_differ) {
    std::optional<int> village;
    int acres = 1234;
    Hud hud;
    const auto none = hud.add(Text{.id = "a", .value = watch(village), .placeholder = "none"});
    const auto same = hud.add(Text{.id = "b", .value = watch(acres)});
    const auto grouped = hud.add(Text{.id = "c", .value = watch(acres), .format = "{:L}"});
    update(hud, 16ms);
    EXPECT_EQ(hud.text_of(none), "none");
    EXPECT_EQ(hud.text_of(grouped), "1,234");
    Language german{.tag = "de"};
    german.numbers.group = ".";
    german.translations["none"].forms.back() = "keines";
    hud.set_language(german);
    update(hud, 16ms);
    EXPECT_EQ(hud.text_of(none), "keines");
    EXPECT_EQ(hud.text_of(grouped), "1.234");
    EXPECT_TRUE(hud.text_changed(none) && hud.text_changed(grouped));
    acres = 12345;
    update(hud, 16ms);
    EXPECT_EQ(hud.text_of(grouped), "12.345");
    EXPECT_EQ(hud.text_of(same), "12345");
    EXPECT_FALSE(hud.text_changed(none));
}

TEST(Hud, may_be_moved_while_everything_runs) {
    int score = 0;
    HudDefinition definition;
    definition.timers = {{.id = "t", .duration = 5s, .marks = {{4s}}}};
    BoxMeasurer measurer;
    Hud before(definition, {}, &measurer);
    const auto rolling = before.add(Text{.id = "a", .value = watch(score), .motion = tween(1s)});
    update(before, 0s);
    score = 100;
    update(before, 500ms);
    const std::string halfway(before.text_of(rolling));
    Hud hud = std::move(before);
    EXPECT_EQ(hud.text_of(rolling), halfway);
    update(hud, 1100ms);
    EXPECT_EQ(hud.text_of(rolling), "100");
    EXPECT_EQ(told(hud), "t mark 4");
    update(before, 1s);
    EXPECT_TRUE(before.elements().empty());
    EXPECT_EQ(before[rolling].id, "") << "it belongs to the other one now";
    EXPECT_TRUE(before.add(Text{.id = "a", .format = "anew"}));
}

TEST(Text, in_a_hud_writes_what_a_formatted_text_writes) {
    // The short way of one number between two texts, against the general one.
    const std::array<const char*, 16> patterns{
        "{}",   "{} acres", "Water {} L", "{:>8}",      "{:*>7}|",      "{:06}", "{:+}",    "{: }",
        "{:L}", "{:12L}",   "{:+L}",      "{} / {max}", "{max}: {:04}", "{:d}m", "{:010L}", "{:<6}|"};
    const std::array<const char*, 8> fractions{
        "{:.1f}", "{:.2f} s", "{:>9.3f}", "{:+.0f}", "{:08.2f}", "{:.1Lf}", "{:.3f} of {max:.0f}", "{:F}"};
    Random random(11);
    for (std::size_t i = 0; i < patterns.size() + fractions.size(); ++i) {
        const bool whole = i < patterns.size();
        const char* const pattern = whole ? patterns[i] : fractions[i - patterns.size()];
        std::int64_t count = 0;
        double real = 0;
        int max = 500;
        const bool has_max = std::string_view(pattern).find("max") != std::string_view::npos;
        Hud hud;
        const auto text = hud.add(Text{.id = "a",
                                       .value = whole ? watch(count) : watch(real),
                                       .max = has_max ? watch(max) : Source(),
                                       .format = pattern,
                                       .rounding = Rounding::nearest});
        ASSERT_TRUE(text) << pattern;
        FormattedText alone(*Format::parse(pattern), {.rounding = Rounding::nearest});
        std::string last;
        for (int frame = 0; frame < 400; ++frame) {
            const int step = random.below(6);
            if (step == 0) count = static_cast<std::int64_t>(random.bits()) >> random.below(64);
            if (step == 1) count = -count;
            if (step > 1) count += random.below(5);
            real = step == 0 ? random.between(-1e6, 1e6) : step == 1 ? NAN : step == 2 ? 1e300 : real + 0.01;
            if (random.below(10) == 0) max = random.below(2000);
            update(hud, 16ms);
            alone.update(
                {.value = whole ? Value(count) : Value(real), .max = has_max ? Value(max) : Value(), .delta = {}});
            ASSERT_EQ(hud.text_of(text), alone.text()) << pattern;
            ASSERT_EQ(hud.text_changed(text), frame == 0 || last != alone.text()) << pattern << " " << last;
            last = alone.text();
        }
    }
}

TEST(Language, may_show_the_last_change_where_the_pattern_did_not) {
    int score = 10;
    Hud hud;
    const auto text = hud.add(Text{.id = "a", .value = watch(score), .format = "{} points"});
    update(hud, 16ms);
    Language other{.tag = "xx"};
    other.translations["{} points"].forms.back() = "{} ({delta:+})";
    hud.set_language(other);
    update(hud, 16ms);
    score = 15;
    update(hud, 16ms);
    EXPECT_EQ(hud.text_of(text), "15 (+5)");
    score = 12;
    update(hud, 16ms);
    EXPECT_EQ(hud.text_of(text), "12 (-3)");
}

TEST(Language, counts_for_the_width_that_is_reserved) {
    const int acres = 1;
    BoxMeasurer measurer;
    Hud hud(HudDefinition{}, {}, &measurer);
    const auto text = hud.add(Text{.id = "a", .value = watch(acres), .format = "{:L}", .range = {0, 1e6}, .size = 20});
    update(hud, 16ms);
    EXPECT_EQ(hud[text].box.width, 9 * 10) << "1,000,000";
    Language wide{.tag = "xx"};
    wide.numbers.group = "---";
    hud.set_language(wide);
    update(hud, 16ms);
    EXPECT_EQ(hud[text].box.width, 13 * 10) << "1---000---000";
}

TEST(Notice, refuses_a_message_that_cannot_be) {
    std::string village = "Pine Hollow";
    Hud hud;
    EXPECT_FALSE(hud.add(Notice{.id = "a", .messages = {{.text = "{:.1f}", .value = watch(village)}}}));
    const auto news = hud.add(Notice{.id = "b"});
    EXPECT_FALSE(hud.notify(news, {.text = "x", .priority = 5000}));
    EXPECT_EQ(hud.problems().size(), 2U);
    update(hud, 16ms);
    EXPECT_FALSE(hud[news].visible);
    EXPECT_TRUE(hud.notify(news, {.text = "x", .priority = 5}));
}

TEST(Shine, runs_over_the_face_of_an_element_and_not_over_the_corners_of_its_box) {
    struct Row {
        Element element;
        Rect face;
        float radius;
    };
    const Place place{.size = {200, 100}};
    const std::vector<Row> rows{
        {Ring{.id = "a", .value = 50, .max = 100, .place = place}, {50, 0, 100, 100}, 50},
        {Dial{.id = "a", .value = 50, .max = 100, .place = place}, {50, 0, 100, 100}, 50},
        {Level{.id = "a", .value = 50, .max = 100, .place = place, .shape = Shape::circle}, {50, 0, 100, 100}, 50},
        {Level{.id = "a", .value = 50, .max = 100, .place = place, .shape = Shape::box}, {0, 0, 200, 100}, 3},
        {Bar{.id = "a", .value = 50, .max = 100, .place = place, .radius = 12.0F}, {0, 0, 200, 100}, 12},
        {Panel{.id = "a", .place = place, .radius = 20.0F}, {0, 0, 200, 100}, 20},
        {Text{.id = "a", .format = "x", .place = place}, {0, 0, 200, 100}, 3}};
    for (const Row& row : rows) {
        SCOPED_TRACE(std::string(row.element.kind()));
        BoxMeasurer measurer;
        Hud hud({}, {}, &measurer);
        hud.resize({.size = {1280, 720}});
        const ElementRef element = hud.add(row.element);
        update(hud, 16ms);
        ASSERT_TRUE(hud.play(element, "shine"));
        update(hud, 400ms);  // about the middle of its way
        DisplayList list;
        hud.draw(list);
        int stripes = 0;
        for (const DisplayItem& item : list.groups().front().items()) {
            const bool is_stripe = item.kind == DisplayItem::Kind::rect && item.color.red == 255 &&
                                   item.color.green == 255 && item.color.alpha < 64;
            if (!is_stripe) continue;
            ++stripes;
            EXPECT_EQ(item.rect, row.face);
            EXPECT_FLOAT_EQ(item.radius, row.radius);
        }
        EXPECT_GT(stripes, 0);
    }
}

TEST(Snap, forgets_what_was_called_before_it_and_lets_go_on_what_comes_after) {
    for (const bool first : {true, false})
        for (const bool other : {true, false}) {
            SCOPED_TRACE(testing::Message() << "snap first: " << first << ", the value changes: " << other);
            BoxMeasurer measurer;
            int water = 3;
            Hud hud{HudDefinition{}, {}, &measurer};
            const auto news = hud.add(Notice{.id = "news", .enter = "", .leave = ""});
            const auto text = hud.add(Text{.id = "text", .value = watch(water)});
            const auto hits = hud.add(PopUps{.id = "hits"});
            for (const bool fresh : {true, false}) {
                if (first) hud.snap();
                hud.notify(news, Message{.text = "Water ahead"});
                hud.play(text, "swell");
                hud.pop_up(hits, {.on_screen = Point{100, 100}, .value = 7});
                if (!first) hud.snap();
                if (other) water += 20;
                update(hud, 16ms);
                // What was there before the snap is what would have been there without it.
                EXPECT_EQ(hud.text_of(news), first ? "Water ahead" : "");
                EXPECT_EQ(hud[text].scale > 1, first) << fresh;
                DisplayList list;
                hud.draw(list);
                bool popped = false;
                for (const DisplayGroup& group : list.groups())
                    for (const DisplayItem& item : group.items())
                        popped = popped || group.text_of(item) == "7";
                EXPECT_EQ(popped, first);
                hud.snap();
                update(hud, 16ms);
                EXPECT_EQ(hud[text].scale, 1);
            }
        }
}

}  // namespace seams_test
}  // namespace rapido::test
