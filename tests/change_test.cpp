// Running elements change: by a new description, by what the game sets, by names that come late.
#include <functional>

#include "rapido/file.hpp"
#include "rapido/images.hpp"
#include "support.hpp"

namespace rapido::test {
namespace change_test {

constexpr Color amber = rgb(0xffc24a), leaf = rgb(0x8fce5a), bone = rgb(0xf2efe6);

TEST(Change, lets_a_value_in_flight_go_on) {
    // A twin that was made with the new description from the beginning shows the same.
    for (const int at : {0, 1, 7, 30}) {
        std::int64_t acres = 0;
        const Text before{.id = "acres", .value = watch(acres), .format = "{}", .motion = tween(600ms)};
        Text after = before;
        after.format = "{} acres";
        after.color = amber;
        after.size = 40;
        Hud hud, twin;
        const auto text = hud.add(before), same = twin.add(after);
        for (int frame = 0; frame < 60; ++frame) {
            if (frame == at) {
                ASSERT_TRUE(hud.change(text, after));
            }
            if (frame == 5) acres = 1000;
            update(hud, 16ms);
            update(twin, 16ms);
            ASSERT_EQ(hud[text].shown, twin[same].shown) << frame;
            if (frame >= at) {
                ASSERT_EQ(hud.text_of(text), twin.text_of(same)) << frame;
            }
            EXPECT_TRUE(hud.events().empty());
        }
        EXPECT_EQ(hud[text].color, amber);
        EXPECT_EQ(*hud.description(text).as<Text>(), after);
        EXPECT_TRUE(hud.problems().empty());
    }
}

TEST(Change, of_a_motion_is_a_new_target_at_that_moment) {
    double fuel = 0;
    Hud hud;
    const auto bar =
        hud.add(Bar{.id = "fuel", .value = watch(fuel), .max = 100, .motion = tween(1s, Easing::linear())});
    update(hud, 0s);
    fuel = 80;
    update(hud, 0s);
    update(hud, 500ms);
    EXPECT_NEAR(hud[bar].shown.number(), 40, 1e-9);
    EXPECT_TRUE(hud.change<Bar>(bar, [](Bar& any) { any.motion = tween(2s); }));
    update(hud, 0s);
    EXPECT_NEAR(hud[bar].shown.number(), 40, 1e-9) << "it goes on from where it is";
    double last = 40;
    for (int i = 0; i < 250; ++i) {
        update(hud, 10ms);
        EXPECT_GE(hud[bar].shown.number(), last - 1e-9);
        EXPECT_LE(hud[bar].shown.number(), 80);
        last = hud[bar].shown.number();
    }
    EXPECT_EQ(last, 80);
    fuel = 20;
    update(hud, 0s);
    update(hud, 100ms);
    EXPECT_TRUE(hud.change<Bar>(bar, [](Bar& any) { any.motion = instant(); }));
    update(hud, 0s);
    EXPECT_EQ(hud[bar].shown.number(), 20) << "an instant one lands";
}

TEST(Change, of_a_source_takes_its_value_as_given) {
    int water = 10, oil = 500;
    Hud hud;
    const auto text = hud.add(Text{.id = "tank",
                                   .value = watch(water),
                                   .format = "{} {delta:+}",
                                   .motion = roll(1s),
                                   .bands = {{.id = "much", .above = 100, .color = amber, .effect = "flash"}},
                                   .triggers = {{.on = TriggerOn::gain, .effect = "swell"}}});
    update(hud, 16ms);
    EXPECT_TRUE(hud.change<Text>(text, [&](Text& any) { any.value = watch(oil); }));
    update(hud, 16ms);
    EXPECT_EQ(hud.text_of(text), "500 --") << "nothing rolls and nothing was gained";
    EXPECT_EQ(hud[text].color, amber);
    EXPECT_TRUE(hud.events().empty());
    update(hud, 50ms);
    EXPECT_EQ(hud[text].scale, 1);
    water = 11;
    update(hud, 16ms);
    EXPECT_FALSE(hud[text].changed) << "it is not read any more";
    oil = 501;
    update(hud, 16ms);
    update(hud, 60ms);
    EXPECT_GT(hud[text].scale, 1) << "and gains of the new one are gains";
}

TEST(Change, keeps_bands_effects_and_trails) {
    double hull = 100;
    Hud hud;
    const auto bar = hud.add(
        Bar{.id = "hull",
            .value = watch(hull),
            .max = 100,
            .trail = {.delay = 400ms},
            .bands = {{.id = "low", .below = 25, .hysteresis = 10, .edge_unit = EdgeUnit::value, .color = amber}}});
    update(hud, 16ms);
    hull = 20;
    update(hud, 16ms);
    ASSERT_EQ(hud.events().size(), 1U);
    hull = 30;
    EXPECT_TRUE(hud.play(bar, "shake"));
    update(hud, 100ms);
    const double trail = *hud[bar].trail;
    EXPECT_GT(trail, 0.9);
    EXPECT_TRUE(hud.change<Bar>(bar, [](Bar& any) { any.radius = 8; }));
    update(hud, 1ms);
    EXPECT_EQ(*hud[bar].trail, trail);
    EXPECT_EQ(hud[bar].color, amber) << "still inside, between its two edges";
    EXPECT_NE(hud[bar].offset, Point{}) << "still shaking";
    EXPECT_TRUE(hud.events().empty());
    EXPECT_TRUE(hud.change<Bar>(bar, [](Bar& any) { any.bands[0].color = leaf; }));
    update(hud, 1ms);
    EXPECT_EQ(hud[bar].color, leaf);
    EXPECT_TRUE(hud.change<Bar>(bar, [](Bar& any) { any.bands.clear(); }));
    update(hud, 1ms);
    EXPECT_EQ(hud[bar].color, Bar{}.color);
    EXPECT_TRUE(hud.events().empty());
}

TEST(Change, that_cannot_be_changes_nothing) {
    int score = 7;
    Hud hud;
    hud.add(Panel{.id = "plate"});
    const auto text = hud.add(Text{.id = "score", .value = watch(score), .format = "{} points", .inside = "plate"});
    update(hud, 16ms);
    const Element before = hud.description(text);
    Text other = *before.as<Text>();
    const auto refused = [&](const Element& element) {
        const std::size_t known = hud.problems().size();
        EXPECT_FALSE(hud.change(text, element));
        EXPECT_GT(hud.problems().size(), known);
        EXPECT_EQ(hud.description(text), before);
        update(hud, 16ms);
        EXPECT_EQ(hud.text_of(text), "7 points");
        return to_string(hud.problems().back());
    };
    EXPECT_EQ(refused(Bar{.id = "score"}),
              "error: text 'plate.score': a running element cannot become a bar; remove it, and add another one");
    EXPECT_FALSE(hud.change<Ring>(text, [](Ring&) { FAIL(); }));
    other.id = "points";
    refused(other);
    EXPECT_EQ(hud.problems().back().code, ProblemCode::fixed);
    other = *before.as<Text>();
    other.inside = "";
    refused(other);
    other = *before.as<Text>();
    other.format = "{:s}";
    refused(other);
    other = *before.as<Text>();
    other.triggers = {{.on = TriggerOn::gain, .effect = "swlel"}};
    EXPECT_EQ(refused(other),
              "error: 'triggers.0.effect' of text 'plate.score': no effect 'swlel'; did you mean 'swell'?");
    hud.remove(text);
    EXPECT_FALSE(hud.alive(text));
    EXPECT_TRUE(text) << "a reference does not know";
    EXPECT_FALSE(hud.change(text, before));
    EXPECT_EQ(hud.description(text), Element());
}

TEST(GameLayer, lies_over_the_description_and_below_bands) {
    int score = 7;
    Hud hud;
    const auto text = hud.add(Text{.id = "score", .value = watch(score), .color = bone});
    const auto banded =
        hud.add(Text{.id = "banded", .value = watch(score), .bands = {{.above = 10, .color = leaf}}, .color = bone});
    const auto panel = hud.add(Panel{.id = "plate"});
    update(hud, 16ms);
    for (const ElementRef ref : {text, banded, panel})
        hud.set_color(ref, amber);
    update(hud, 16ms);
    for (const ElementRef ref : {text, banded, panel})
        EXPECT_EQ(hud[ref].color, amber) << hud[ref].id;
    score = 12;
    update(hud, 16ms);
    EXPECT_EQ(hud[banded].color, leaf);
    score = 7;
    EXPECT_TRUE(hud.change<Text>(banded, [](Text& any) { any.format = "{}!"; }));
    update(hud, 16ms);
    EXPECT_EQ(hud[banded].color, amber) << "it stays when the description changes";
    EXPECT_EQ(hud.text_of(banded), "7!");
    EXPECT_EQ(hud.description(banded).as<Text>()->color, bone) << "which does not know of it";
    EXPECT_TRUE(hud.set_format(text, "{} points"));
    EXPECT_FALSE(hud.set_format(text, "{"));
    EXPECT_FALSE(hud.set_format(panel, "{}"));
    hud.set_opacity(text, 0.5F);
    hud.set_visible(banded, false);
    update(hud, 16ms);
    EXPECT_EQ(hud.text_of(text), "7 points");
    EXPECT_EQ(hud[text].opacity, 0.5F);
    EXPECT_FALSE(hud[banded].visible);
    for (const ElementRef ref : {text, banded, panel})
        hud.reset(ref);
    update(hud, 16ms);
    EXPECT_EQ(hud.text_of(text), "7");
    EXPECT_EQ(hud[text].color, bone);
    EXPECT_EQ(hud[text].opacity, 1);
    EXPECT_TRUE(hud[banded].visible);
    EXPECT_EQ(hud[panel].color, Panel{}.color);
}

TEST(GameLayer, moves_an_element) {
    BoxMeasurer measurer;
    Hud hud{HudDefinition{}, {}, &measurer};
    const auto bar = hud.add(Bar{.id = "b", .value = 1, .place = {.anchor = Anchor::top_left, .offset = {8, 8}}});
    update(hud, 16ms);
    EXPECT_EQ(hud[bar].box, (Rect{8, 8, 160, 12})) << "an anchor alone leaves a bar as large as it is by itself";
    EXPECT_TRUE(hud.set_place(bar, {.anchor = Anchor::bottom_right, .offset = {8, 8}}));
    update(hud, 16ms);
    EXPECT_EQ(hud[bar].box, (Rect{1280 - 168, 720 - 20, 160, 12}));
    EXPECT_FALSE(hud.set_place(bar, {.grow = -1}));
    hud.reset(bar);
    update(hud, 16ms);
    EXPECT_EQ(hud[bar].box, (Rect{8, 8, 160, 12}));
}

TEST(GameLayer, sets_a_format_as_if_it_had_been_there_from_the_beginning) {
    Language german{.tag = "de"};
    german.numbers.group = ".";
    german.translations["{:L} acres, {delta:+}"].forms.back() = "{:L} Morgen, {delta:+}";
    const char* const formats[] = {"{}", "{:L} acres, {delta:+}", "{:.1f}|{max}", "none", "{{}} {:+}"};
    for (const bool speaks_german : {false, true})
        for (const char* const from : formats)
            for (const char* const to : formats) {
                BoxMeasurer measurer;
                std::int64_t acres = 1200;
                const Text text{.id = "t",
                                .value = watch(acres),
                                .max = 5000,
                                .format = from,
                                .plural = {.one = "one"},
                                .range = {0, 90'000},
                                .motion = tween(300ms),
                                .bands = {{.above = 4000, .edge_unit = EdgeUnit::value, .format = "many"}}};
                Text other = text;
                other.format = to;
                Hud hud{HudDefinition{}, {}, &measurer}, twin{HudDefinition{}, {}, &measurer};
                const auto ref = hud.add(text), same = twin.add(other);
                for (Hud* const each : {&hud, &twin})
                    if (speaks_german) each->set_language(german);
                for (int frame = 0; frame < 40; ++frame) {
                    if (frame == 3) acres = 3000;
                    if (frame == 5) {
                        ASSERT_TRUE(hud.set_format(ref, to));
                    }
                    if (frame == 30) acres = 4500;
                    if (frame == 35) acres = 1;
                    update(hud, 16ms);
                    update(twin, 16ms);
                    if (frame < 5) continue;
                    ASSERT_EQ(hud.text_of(ref), twin.text_of(same)) << from << " to " << to << ", " << frame;
                    ASSERT_EQ(hud[ref].box, twin[same].box) << from << " to " << to << ", " << frame;
                }
                EXPECT_TRUE(hud.problems().empty());
            }
}

TEST(GameLayer, moves_an_element_in_every_frame_without_making_it_again) {
    BoxMeasurer measurer;
    Hud hud{HudDefinition{}, {}, &measurer};
    int score = 7;
    const auto panel = hud.add(Panel{.id = "p", .layout = Layout::column, .padding = {}});
    const auto text = hud.add(Text{.id = "t", .value = watch(score), .inside = "p"});
    update(hud, 16ms);
    const Rect at = hud[text].box;
    const std::uint64_t made = hud.texts_made();
    for (int frame = 1; frame < 20; ++frame) {
        const auto x = static_cast<float>(frame);
        ASSERT_TRUE(hud.set_place(panel, {.offset = {x, 2}, .size = {x * 20, 0}}));
        ASSERT_TRUE(hud.set_place(text, {.offset = {0, x}}));
        update(hud, 16ms);
        ASSERT_EQ(hud[text].box, (Rect{at.x + x, at.y + 2 + x, at.width, at.height}));
        ASSERT_EQ(hud[panel].box.width, std::max(x * 20, at.width));
    }
    EXPECT_EQ(hud.texts_made(), made);
    EXPECT_FALSE(hud.set_place(text, {.offset = {0, 1e9F}}));
    update(hud, 16ms);
    EXPECT_EQ(hud[text].box.y, at.y + 2 + 19) << "what is refused changes nothing";
    EXPECT_EQ(hud.problems().size(), 1U);
}

TEST(GameLayer, saves_where_the_player_has_put_elements) {
    const auto made = [] {
        Hud hud;
        hud.add(Panel{.id = "left"});
        hud.add(Text{.id = "score", .value = 7, .inside = "left"});
        hud.add(Bar{.id = "water", .value = 1});
        return hud;
    };
    Hud hud = made();
    EXPECT_TRUE(hud.save_places().empty());
    const Place there{.anchor = Anchor::bottom_right, .offset = {8, 8}};
    hud.set_place(hud.find("left.score"), there);
    hud.set_place(hud.find("water"), {.offset = {1, 2}});
    const std::vector<SavedPlace> saved = hud.save_places();
    EXPECT_EQ(saved, (std::vector<SavedPlace>{{"left.score", there}, {"water", {.offset = {1, 2}}}}));

    Hud other = made();
    EXPECT_TRUE(other.restore_places(saved));
    EXPECT_EQ(other.save_places(), saved);
    other.reset(other.find("water"));
    EXPECT_EQ(other.save_places().size(), 1U);
    EXPECT_FALSE(other.restore_places(std::vector<SavedPlace>{{"watr", {}}, {"water", {.offset = {3, 4}}}}));
    EXPECT_EQ(other.save_places().back(), (SavedPlace{"water", {.offset = {3, 4}}})) << "the others are set";
    EXPECT_EQ(to_string(other.problems().back()), "error: no element 'watr'; did you mean 'water'?");
}

TEST(Names, bind_when_they_come) {
    Sources sources;
    HudDefinition definition;
    definition.elements = {Text{.id = "fuel", .value = "plane.fuel", .format = "{} L", .motion = roll(1s)},
                           Ring{.id = "ring", .value = "plane.fuel", .max = "plane.tank"},
                           Text{.id = "left", .value = "round.left", .format = "{:%M:%S}"},
                           Text{.id = "no", .format = "x", .visible = "!plane.fuel"}};
    Hud hud(definition, sources);
    ASSERT_EQ(hud.problems().size(), 5U);
    EXPECT_EQ(hud.problems()[0].code, ProblemCode::unknown_source);
    const auto fuel = hud.find("fuel"), ring = hud.find("ring"), left = hud.find("left");
    ASSERT_TRUE(hud.alive(fuel) && hud.alive(ring) && hud.alive(left));
    update(hud, 16ms);
    EXPECT_EQ(hud.text_of(fuel), "-- L");
    EXPECT_EQ(hud.text_of(left), "--");
    float litres = 300, tank = 400;
    sources.set("plane.fuel", watch(litres));
    update(hud, 16ms);
    EXPECT_EQ(hud.text_of(fuel), "300 L") << "nothing rolls";
    EXPECT_EQ(hud.fill_of(ring), 0) << "a ring without a maximum is empty";
    sources.set("plane.tank", watch(tank));
    Countdown round(90s);
    sources.set("round", round);
    update(hud, 16ms);
    EXPECT_EQ(hud.fill_of(ring), 0.75);
    EXPECT_EQ(hud.text_of(left), "01:30");
    round.start();
    (void)round.advance(29.5s);
    update(hud, 16ms);
    EXPECT_EQ(hud.text_of(left), "01:01") << "what is left is rounded up, as if it had been known from the beginning";
    float other = 40;
    sources.set("plane.fuel", watch(other));
    update(hud, 16ms);
    EXPECT_EQ(hud.text_of(fuel), "40 L") << "a name that is set again is a snap";
    EXPECT_TRUE(hud.events().empty());
    litres = 1;
    update(hud, 16ms);
    EXPECT_EQ(hud.text_of(fuel), "40 L");
    EXPECT_TRUE(hud.problems().empty()) << "names that have come are no problem any more";
    // Timers and meters of a running HUD are names, too.
    const auto late = hud.add(Text{.id = "late", .value = "fuse.left", .format = "{:%S}"});
    update(hud, 16ms);
    EXPECT_EQ(hud.text_of(late), "--");
    EXPECT_TRUE(hud.add(Timer{.id = "fuse", .duration = 10s}));
    EXPECT_FALSE(hud.add(Timer{.id = "fuse", .duration = 10s}));
    EXPECT_TRUE(hud.add(FrameMeter{.id = "frames"}));
    EXPECT_TRUE(hud.add(Effect{.id = "hop", .keyframes = {{.at = 0.5, .offset = Point{0, -8}}}}));
    update(hud, 2s);
    EXPECT_EQ(hud.text_of(late), "08") << "the first step counts";
    EXPECT_TRUE(hud.play(late, "hop"));
    update(hud, 150ms);
    EXPECT_LT(hud[late].offset.y, -7.9F);
}

TEST(Text, shows_any_number_of_sources_by_name) {
    int hull = 70, most = 100;
    std::string pilot = "Ada";
    Hud hud;
    const auto text = hud.add(Text{.id = "t",
                                   .values = {{"hp", watch(hull)}, {"max", watch(most)}, {"who", watch(pilot)}},
                                   .format = "{who}: {hp:>4} of {max}"});
    update(hud, 16ms);
    EXPECT_EQ(hud.text_of(text), "Ada:   70 of 100");
    hull = 9;
    pilot = "Bea {hp}";
    update(hud, 16ms);
    EXPECT_EQ(hud.text_of(text), "Bea {hp}:    9 of 100") << "what a player is called is never read";
    EXPECT_TRUE(hud[text].text_changed);
    update(hud, 16ms);
    EXPECT_FALSE(hud[text].changed);
    EXPECT_FALSE(hud.add(Text{.id = "u", .values = {{"fuel", watch(hull)}}, .format = "{fule}"}));
    EXPECT_EQ(hud.problems().back().hint, "did you mean 'fuel'?");
    EXPECT_FALSE(hud.add(Text{.id = "v", .values = {{"a", 1}, {"a", 2}}, .format = "{a}"}));
    const Result<HudDefinition> read = read_hud(
        "[[element]]\nkind = \"text\"\nid = \"t\"\nformat = \"{hp}/{max}\"\nvalues = { hp = \"plane.hull\", "
        "max = 9 }\n",
        "h.toml");
    ASSERT_TRUE(read) << to_string(read.problems().front());
    const std::vector<NamedSource> expected{{"hp", "plane.hull"}, {"max", 9}};
    EXPECT_EQ(read->elements.at(0).as<Text>()->values, expected);
    EXPECT_EQ(to_string(Hud(*read).problems().at(0)),
              "h.toml:5:17: error: 'values.hp' of text 't': unknown source 'plane.hull'");
}

TEST(Change, lets_what_is_said_and_how_full_things_are_be_read_until_the_next_frame) {
    BoxMeasurer measurer;
    Images images;
    ASSERT_TRUE(images.add("drop", 1, 1, std::vector<Color>(1)));
    double water = 12.5;
    Hud hud{HudDefinition{}, {}, &measurer, &images};
    const auto text = hud.add(Text{.id = "text", .value = watch(water), .format = "{:.1f} L"});
    const auto news = hud.add(Notice{.id = "news", .enter = "", .leave = ""});
    const std::vector<ElementRef> full{
        hud.add(Bar{.id = "bar", .value = watch(water), .max = 20}),
        hud.add(Ring{.id = "ring", .value = watch(water), .max = 20}),
        hud.add(Level{.id = "level", .value = watch(water), .max = 20}),
        hud.add(Dial{.id = "dial", .value = watch(water), .max = 20}),
        hud.add(Ruler{.id = "scale", .value = watch(water), .max = 20}),
        hud.add(Pips{.id = "pips", .value = watch(water), .max = 20}),
        hud.add(Image{.id = "image", .image = "drop", .value = watch(water), .max = 20, .lid = Lid{}}),
    };
    hud.notify(news, {.text = "Tank full", .show_for = 60s});
    for (int i = 0; i < 3; ++i)
        update(hud, 16ms);
    Language german{.tag = "de"};
    const std::vector<std::pair<const char*, std::function<void()>>> calls{
        {"set_format", [&] { hud.set_format(text, "{:.0f} gal"); }},
        {"set_text_scale", [&] { hud.set_text_scale(1.5F); }},
        {"set_language", [&] { hud.set_language(german); }},
        {"set_color", [&] { hud.set_color(text, rgb(0xff0000)); }},
        {"change",
         [&] {
             hud.change<Text>(text, [](Text& given) { given.size = 30; });
             hud.change<Notice>(news, [](Notice& given) { given.size = 30; });
             hud.change<Bar>(full[0], [](Bar& given) { given.color = rgb(0x00ff00); });
         }},
        {"set_ui_scale", [&] { hud.set_ui_scale(2); }},
        {"resize",
         [&] {
             hud.resize({.size = {640, 360}});
         }},
    };
    for (const auto& [name, call] : calls) {
        call();
        EXPECT_EQ(hud.text_of(text), "12.5 L") << name;
        EXPECT_EQ(hud.text_of(news), "Tank full") << name;
        EXPECT_EQ(hud[text].text, "12.5 L") << name;
        for (const ElementRef ref : full)
            EXPECT_DOUBLE_EQ(*hud.fill_of(ref), 0.625) << name << " " << hud[ref].id;
    }
    water = 5;
    update(hud, 16ms);
    EXPECT_EQ(hud.text_of(text), "5 gal");
    EXPECT_EQ(hud.text_of(news), "Tank full");
    for (const ElementRef ref : full)
        EXPECT_DOUBLE_EQ(*hud.fill_of(ref), 0.25) << hud[ref].id;
    EXPECT_EQ(hud.problems(), Problems{});
}

TEST(Change, of_a_format_is_refused_where_that_of_the_description_is) {
    double value = 5;
    for (const auto& [format, says] : std::vector<std::pair<std::string, std::string>>{
             {"{} of {max}", "{max}"}, {"{#loud}{}{/loud}", "'loud'"}, {"{", "{"}, {"{other}", "other"}}) {
        Hud hud;
        const ElementRef text = hud.add(Text{.id = "t", .value = watch(value), .format = "<{}>"});
        update(hud, 16ms);
        EXPECT_FALSE(hud.set_format(text, format)) << format;
        ASSERT_EQ(hud.problems().size(), 1U) << format;
        EXPECT_NE(hud.problems().front().message.find(says), std::string::npos) << to_string(hud.problems().front());
        Text described{.id = "t", .value = watch(value), .format = format};
        EXPECT_FALSE(hud.change(text, described)) << format;
        update(hud, 16ms);
        EXPECT_EQ(hud.text_of(text), "<5>") << "what it was stays";
        EXPECT_TRUE(hud.set_format(text, "[{}]"));
        update(hud, 16ms);
        EXPECT_EQ(hud.text_of(text), "[5]");
    }
}

}  // namespace change_test
}  // namespace rapido::test
