#include "rapido/picture.hpp"
#include "support.hpp"

namespace rapido::test {
namespace {

TEST(Hud, shows_every_type_of_source_on_the_first_frame) {
    bool flag = true;
    signed char small = -7;
    unsigned short port = 65535;
    std::uint64_t large = 18446744073709551615U;
    float water = 640.5F;
    double fuel = 0.1;
    long double wide = 2.5L;
    std::string village = "Pine Hollow";
    std::string_view view = "Alder Creek";
    std::chrono::milliseconds time = 67'400ms;
    std::chrono::duration<float> seconds{90.0F};
    Value dynamic = "any";
    Hud hud;
    const std::vector<std::pair<ElementRef, std::string>> expected{
        {hud.add(Text{.id = "flag", .value = watch(flag)}), "true"},
        {hud.add(Text{.id = "small", .value = watch(small)}), "-7"},
        {hud.add(Text{.id = "port", .value = watch(port)}), "65535"},
        {hud.add(Text{.id = "large", .value = watch(large)}), "18446744073709551615"},
        {hud.add(Text{.id = "water", .value = watch(water)}), "640.5"},
        {hud.add(Text{.id = "fuel", .value = watch(fuel)}), "0.1"},
        {hud.add(Text{.id = "wide", .value = watch(wide)}), "2.5"},
        {hud.add(Text{.id = "village", .value = watch(village)}), "Pine Hollow"},
        {hud.add(Text{.id = "view", .value = watch(view)}), "Alder Creek"},
        {hud.add(Text{.id = "time", .value = watch(time), .format = "{:.1%M:%S}"}), "01:07.4"},
        {hud.add(Text{.id = "seconds", .value = watch(seconds), .format = "{:%M:%S}"}), "01:30"},
        {hud.add(Text{.id = "dynamic", .value = watch(dynamic)}), "any"},
        {hud.add(Text{.id = "number", .value = watch([&] { return port + 1; })}), "65536"},
        {hud.add(Text{.id = "text", .value = watch([&] { return village + "!"; })}), "Pine Hollow!"},
        {hud.add(Text{.id = "constant", .value = 12}), "12"},
        {hud.add(Text{.id = "caption", .format = "ACRES"}), "ACRES"},
    };
    update(hud, 0s);
    ASSERT_EQ(hud.problems(), Problems{});
    for (const auto& [element, text] : expected) {
        EXPECT_EQ(hud[element].text, text) << hud[element].id;
        EXPECT_TRUE(hud[element].text_changed && hud[element].visible);
    }
    update(hud, 0s);
    for (const auto& [element, text] : expected)
        EXPECT_FALSE(hud[element].changed) << hud[element].id;

    // Each is seen in the frame in which it changes, with no call from the game.
    flag = false, small = 8, large = 3, fuel = 0.2, village = "Stonebridge", time = 1s, dynamic = 5, port = 9;
    update(hud, 0s);
    const std::vector<std::pair<std::size_t, std::string>> after{
        {0, "false"},   {1, "8"},  {3, "3"},   {5, "0.2"},          {7, "Stonebridge"},
        {9, "00:01.0"}, {11, "5"}, {12, "10"}, {13, "Stonebridge!"}};
    for (const auto& [index, text] : after)
        EXPECT_EQ(hud[expected[index].first].text, text);
    EXPECT_FALSE(hud[expected[4].first].changed) << "water did not change";
}

TEST(Hud, calls_a_getter_once_an_update_for_all_who_show_it) {
    int calls = 0;
    const Source acres = watch([&calls] { return ++calls; });
    Hud hud;
    for (const char* id : {"a", "b", "c"})
        hud.add(Text{.id = id, .value = acres, .max = acres, .format = "{} {max}"});
    for (int frame = 1; frame <= 5; ++frame) {
        update(hud, 1s);
        EXPECT_EQ(calls, frame);
    }
}

TEST(Hud, tells_a_changed_text_only_when_its_characters_differ) {
    double water = 640.2;
    Hud hud;
    const auto text = hud.add(Text{.id = "water", .value = watch(water), .format = "{:.0f}"});
    update(hud, 0s);
    water = 640.4;
    update(hud, 0s);
    EXPECT_FALSE(hud[text].changed);
    water = 640.6;
    update(hud, 0s);
    EXPECT_TRUE(hud[text].text_changed);
    EXPECT_EQ(hud[text].text, "641");
}

TEST(Hud, fills_a_bar_with_a_part_of_a_live_maximum) {
    struct Case {
        double value, max, fill;
    };
    constexpr double nan = std::numeric_limits<double>::quiet_NaN();
    constexpr double infinity = std::numeric_limits<double>::infinity();
    for (const Case& row :
         {Case{25, 100, 0.25}, Case{0, 100, 0}, Case{100, 100, 1}, Case{130, 100, 1}, Case{-5, 100, 0},
          Case{5, 0, 0}, Case{0, 0, 0}, Case{5, -1, 0}, Case{-5, -10, 0}, Case{5, nan, 0}, Case{nan, 100, 0},
          Case{5, infinity, 0}, Case{infinity, infinity, 0}, Case{infinity, 9, 1}}) {
        double value = row.value, max = row.max;
        Hud hud;
        const auto bar = hud.add(Bar{.id = "bar", .value = watch(value), .max = watch(max)});
        update(hud, 0s);
        EXPECT_EQ(hud[bar].fill, row.fill) << row.value << " of " << row.max;
    }
}

TEST(Hud, moves_in_the_units_of_the_value_so_that_a_growing_maximum_is_no_loss) {
    float water = 500, tank = 1000;
    Hud hud;
    const auto bar = hud.add(
        Bar{.id = "water", .value = watch(water), .max = watch(tank), .motion = tween(1s, Easing::linear())});
    update(hud, 0s);
    tank = 2000;
    update(hud, 100ms);
    EXPECT_EQ(hud[bar].fill, 0.25);
    water = 1500;
    update(hud, 0s);
    EXPECT_EQ(hud[bar].fill, 0.25) << "it has not moved yet";
    update(hud, 500ms);
    EXPECT_DOUBLE_EQ(*hud[bar].fill, 0.5);
    update(hud, 500ms);
    EXPECT_EQ(hud[bar].fill, 0.75);
}

TEST(Hud, reports_empty_and_full_from_the_true_value_while_the_bar_still_moves) {
    float hull = 100;
    Hud hud;
    const auto bar = hud.add(Bar{.id = "hull", .value = watch(hull), .max = 100, .motion = tween(2s)});
    update(hud, 0s);
    EXPECT_TRUE(hud.events().empty()) << "the first frame is silent";
    hull = 0;
    update(hud, 1s);
    ASSERT_EQ(hud.events().size(), 1U);
    EXPECT_EQ(hud.events()[0], (Event{1s, "hull", EventKind::empty}));
    EXPECT_EQ(hud[bar].fill, 1.0);
    hull = 100;
    update(hud, 1s);
    ASSERT_EQ(hud.events().size(), 1U);
    EXPECT_EQ(hud.events()[0], (Event{2s, "hull", EventKind::full}));
    update(hud, 1s);
    EXPECT_TRUE(hud.events().empty());
}

TEST(Hud, returns_at_once_from_no_value) {
    Value value = 10;
    Hud hud;
    const auto text =
        hud.add(Text{.id = "n", .value = watch(value), .placeholder = "?", .motion = tween(1s)});
    update(hud, 0s);
    value = {};
    update(hud, 16ms);
    EXPECT_EQ(hud[text].text, "?");
    value = 90;
    update(hud, 16ms);
    EXPECT_EQ(hud[text].text, "90");
}

TEST(Hud, hides_a_panel_with_what_stands_inside_and_leaves_it_current) {
    bool evacuating = false;
    int seconds = 45;
    Hud hud;
    const auto panel = hud.add(Panel{.id = "warning", .visible = watch(evacuating)});
    const auto text = hud.add(Text{.id = "left", .value = watch(seconds), .inside = "warning"});
    const auto other = hud.add(Text{.id = "calm", .format = "calm", .visible = watch(evacuating).negated()});
    update(hud, 0s);
    EXPECT_FALSE(hud[panel].visible || hud[text].visible);
    EXPECT_TRUE(hud[other].visible);
    EXPECT_EQ(hud[text].id, "warning.left");
    seconds = 44;
    update(hud, 1s);
    evacuating = true;
    update(hud, 1s);
    EXPECT_TRUE(hud[panel].visible && hud[text].visible && hud[text].changed);
    EXPECT_FALSE(hud[other].visible);
    EXPECT_EQ(hud[text].text, "44");
}

HudDefinition with_timer() {
    HudDefinition definition;
    definition.timers.push_back(
        {.id = "evacuation", .duration = 45s, .start = "evacuating", .pause = "held"});
    definition.meters.push_back({.id = "frames"});
    definition.elements = {
        Text{.id = "left", .value = "evacuation.left", .format = "{:%M:%S}", .rounding = Rounding::up},
        Bar{.id = "bar", .value = "evacuation.left", .max = "evacuation.duration"},
        Text{.id = "fps", .value = "frames.rate", .format = "{:.0f} FPS"},
        Text{.id = "calm", .format = "calm", .visible = "!evacuation.running"}};
    return definition;
}

TEST(Timer, of_a_hud_ends_at_its_exact_time_at_every_frame_rate) {
    for (const double rate : {5.0, 24.0, 60.0, 144.0, 0.3}) {
        bool evacuating = false, held = false;
        Sources sources;
        sources.set("evacuating", watch(evacuating));
        sources.set("held", watch(held));
        Result<Hud> made = Hud::make(with_timer(), sources);
        ASSERT_TRUE(made);
        Hud& hud = *made;
        const ElementRef left = hud.find("left"), bar = hud.find("bar"), calm = hud.find("calm");
        update(hud, 0s);
        EXPECT_EQ(hud[left].text, "00:45");
        EXPECT_TRUE(hud[calm].visible);
        evacuating = true;
        std::vector<Event> events;
        const int frames = static_cast<int>(std::ceil(60 * rate));
        for (int frame = 1; frame <= frames; ++frame) {
            update(hud, Seconds{1 / rate});
            for (const Event& event : hud.events())
                if (event.id == "evacuation") events.push_back(event);
            EXPECT_NE(hud[left].text[0], '-');
            EXPECT_EQ(hud[calm].visible, !(hud[left].text != "00:00")) << hud[left].text;
        }
        ASSERT_EQ(events.size(), 2U) << rate;
        EXPECT_EQ(events[0].kind, EventKind::start);
        EXPECT_EQ(events[1].kind, EventKind::end);
        EXPECT_NEAR(to_seconds(events[1].time - events[0].time).count(), 45, 2e-9) << rate;
        EXPECT_EQ(hud[left].text, "00:00");
        EXPECT_EQ(hud[bar].fill, 0.0);
    }
}

TEST(Timer, follows_the_game_clock_and_its_end_lies_at_the_same_fraction_of_the_real_step) {
    bool evacuating = true, held = false;
    Sources sources;
    sources.set("evacuating", watch(evacuating));
    sources.set("held", watch(held));
    Hud hud(with_timer(), sources);
    update(hud, 0s);
    hud.update({.real = 10s, .game = 0s});  // the game is paused
    EXPECT_EQ(hud[hud.find("left")].text, "00:45");
    hud.update({.real = 20s, .game = 40s});
    held = true;
    update(hud, 0s);
    update(hud, 100s);
    EXPECT_EQ(hud[hud.find("left")].text, "00:05");
    held = false;
    update(hud, 0s);
    hud.update({.real = 40s, .game = 20s});  // slow motion: 5 s of game are a quarter of this step
    ASSERT_EQ(hud.events().size(), 3U);
    EXPECT_EQ(hud.events()[0], (Event{140s, "evacuation", EventKind::end}));
    EXPECT_EQ(hud.events()[1], (Event{170s, "left", EventKind::empty})) << "timers come before values";
    EXPECT_EQ(hud.timer("evacuation")->left(), 0s);
    hud.timer("evacuation")->start();
    update(hud, 1s);
    EXPECT_EQ(hud[hud.find("left")].text, "00:44");
    EXPECT_EQ(hud.timer("evacuaton"), nullptr);
    EXPECT_EQ(hud.problems().back().hint, "did you mean 'evacuation'?");
}

TEST(Meter, of_a_hud_shows_its_placeholder_until_the_first_interval) {
    bool no = false;
    Sources sources;
    sources.set("evacuating", watch(no));
    sources.set("held", watch(no));
    Hud hud(with_timer(), sources);
    const ElementRef fps = hud.find("fps");
    int changes = 0;
    update(hud, 0s);
    for (int frame = 0; frame < 240; ++frame) {
        EXPECT_EQ(hud[fps].text == "-- FPS", frame < 30) << frame;
        update(hud, Seconds{1.0 / 60 + 1e-9});
        changes += hud[fps].text_changed ? 1 : 0;
    }
    EXPECT_EQ(hud[fps].text, "60 FPS");
    EXPECT_EQ(changes, 1);
}

TEST(Hud, reports_every_fault_of_a_definition_and_makes_the_rest) {
    HudDefinition definition;
    definition.elements = {Text{.id = "good", .value = 1},
                           Text{.id = "a", .value = "mission.acers"},
                           Text{.id = "b", .format = "{}"},
                           Text{.id = "b b", .format = "x"},
                           Text{.id = "good", .format = "x"},
                           Text{.id = "c", .format = "x", .inside = "panle"},
                           Text{.id = "d", .value = "name", .format = "{:.1f}"},
                           Bar{.id = "e", .value = "name"},
                           Panel{.id = "panel"},
                           Text{.id = "f", .value = 1, .format = "{:%M:%S} {:s}"},
                           Text{.id = "g", .format = "x", .font = "missing"}};
    int acres = 1;
    std::string name;
    Sources inner, sources;
    inner.set("acres", watch(acres));
    sources.set("mission", inner);
    sources.set("name", watch(name));
    BoxMeasurer measurer;
    const Hud hud(definition, sources, &measurer);
    const std::vector<std::string> expected{
        "error: 'value' of text 'a': unknown source 'mission.acers'; did you mean 'mission.acres'?",
        "error: 'format' of text 'b' shows {} but has no 'value'",
        "error: 'id' of text 'b b': an id is made of letters, digits, '_' and '-'",
        "error: 'id' of text 'good' is that of an element before it, 'good'",
        "error: 'inside' of text 'c': no panel 'panle'; did you mean 'panel'?",
        "error: 'format' of text 'd': spec '.1f' of {}: type 'f' does not suit a text",
        "error: 'value' of bar 'e': a bar needs a number, and this source is a text",
        "error: 'format' of text 'f': spec 's' of {}: type 's' does not suit an integer",
        "error: 'font' of text 'g': no font family 'missing' is installed",
    };
    std::vector<std::string> found;
    for (const Problem& problem : hud.problems())
        found.push_back(to_string(problem));
    EXPECT_EQ(found, expected);
    EXPECT_EQ(hud.elements().size(), 2U);
    EXPECT_FALSE(Hud::make(definition, sources, &measurer));
}

TEST(Hud, reads_a_dead_reference_as_an_empty_element) {
    Hud hud, other;
    hud.add(Text{.id = "n", .value = 1});
    const ElementRef foreign = other.add(Text{.id = "n", .value = 2});
    const ElementRef missing = hud.find("m");
    EXPECT_EQ(hud.problems().size(), 1U);
    const ElementRef failed = hud.add(Text{.id = "n", .value = 1});
    update(hud, 0s);
    for (const ElementRef dead : {foreign, missing, failed, ElementRef{}}) {
        EXPECT_EQ(hud[dead].text, "");
        EXPECT_FALSE(hud[dead].visible);
    }
}

TEST(Hud, counts_a_step_that_is_none_as_zero_with_one_problem) {
    Hud hud;
    for (int i = 0; i < 3; ++i)
        hud.update({.real = Seconds{-1}, .game = Seconds{NAN}});
    EXPECT_EQ(hud.now(), 0s);
    EXPECT_EQ(hud.problems().size(), 1U);
}

TEST(Hud, gives_two_instances_of_one_definition_a_life_of_their_own) {
    HudDefinition definition;
    definition.elements = {Text{.id = "score", .value = "score"}};
    int first = 1, second = 2;
    Sources of_first, of_second;
    of_first.set("score", watch(first));
    of_second.set("score", watch(second));
    Hud a(definition, of_first), b(definition, of_second);
    update(a, 0s);
    update(b, 0s);
    EXPECT_EQ(a[a.find("score")].text, "1");
    EXPECT_EQ(b[b.find("score")].text, "2");
}

// --- Layout
// --------------------------------------------------------------------------------------------------------

TEST(Layout, hangs_a_text_on_each_of_nine_anchors) {
    struct Case {
        Anchor anchor;
        float x, y;
    };
    // A text of 4 characters at size 20 is 40 wide and 20 high; the screen is 1280 x 800, the offset (10, 6).
    for (const Case& row :
         {Case{Anchor::top_left, 10, 6}, Case{Anchor::top, 630, 6}, Case{Anchor::top_right, 1230, 6},
          Case{Anchor::left, 10, 396}, Case{Anchor::center, 630, 396}, Case{Anchor::right, 1230, 396},
          Case{Anchor::bottom_left, 10, 774}, Case{Anchor::bottom, 630, 774},
          Case{Anchor::bottom_right, 1230, 774}}) {
        BoxMeasurer measurer;
        Hud hud({.design = {1280, 800},
                 .elements = {Text{.id = "t",
                                   .format = "1480",
                                   .place = {.anchor = row.anchor, .offset = {10, 6}},
                                   .size = 20}}},
                {}, &measurer);
        hud.resize({.size = {1280, 800}});
        update(hud, 0s);
        EXPECT_EQ(hud[hud.find("t")].box, (Rect{row.x, row.y, 40, 20})) << static_cast<int>(row.anchor);
    }
}

TEST(Layout, follows_the_real_edges_at_a_scale_that_shows_the_whole_design) {
    struct Case {
        Size window;
        float width, height;  // of the screen in design pixels
    };
    for (const Case& row : {Case{{1280, 800}, 1280, 800}, Case{{640, 400}, 1280, 800},
                            Case{{2560, 1080}, 1896.2963F, 800}, Case{{800, 600}, 1280, 960},
                            Case{{3840, 2160}, 1422.2222F, 800}, Case{{1080, 1920}, 1280, 2275.5556F}}) {
        BoxMeasurer measurer;
        Hud hud({.design = {1280, 800},
                 .elements = {Text{
                     .id = "t", .format = "ab", .place = {.anchor = Anchor::bottom_right}, .size = 20}}},
                {}, &measurer);
        hud.resize({.size = row.window});
        update(hud, 0s);
        const Rect box = hud[hud.find("t")].box;
        EXPECT_NEAR(box.right(), row.width, 0.001F);
        EXPECT_NEAR(box.bottom(), row.height, 0.001F);
        EXPECT_EQ(box.width, 20);
        DrawList list;
        hud.draw(list);
        const DrawCommand& command = list.groups()[0].commands()[0];
        const float scale = row.window.width / row.width;
        EXPECT_NEAR(command.size, 20 * scale, 1e-3F);
        EXPECT_NEAR(command.baseline.x + command.width, row.window.width, 0.01F);
    }
}

TEST(Layout, sizes_a_panel_by_what_it_holds_in_every_frame) {
    int score = 7;
    bool shown = true;
    BoxMeasurer measurer;
    Hud hud({.design = {1280, 800}}, {}, &measurer);
    hud.resize({.size = {1280, 800}});
    const auto panel = hud.add(Panel{
        .id = "p", .place = {.anchor = Anchor::top_right, .offset = {8, 8}}, .padding = {4, 10, 6, 20}});
    const auto text = hud.add(Text{.id = "t",
                                   .value = watch(score),
                                   .place = {.anchor = Anchor::top_right, .offset = {0, 30}},
                                   .inside = "p",
                                   .size = 40});
    hud.add(Text{.id = "c", .format = "ABCDEF", .inside = "p", .size = 10, .visible = watch(shown)});
    update(hud, 0s);
    // The caption is 30 x 10; the number 20 x 40 under an offset of 30.
    EXPECT_EQ(hud[panel].box, (Rect{1280 - 8 - 60, 8, 60, 80}));
    score = 1480;
    update(hud, 0s);
    EXPECT_EQ(hud[panel].box, (Rect{1280 - 8 - 110, 8, 110, 80}));
    EXPECT_EQ(hud[text].box, (Rect{1280 - 8 - 10 - 80, 8 + 4 + 30, 80, 40}));
    score = 7;
    shown = false;
    update(hud, 0s);
    EXPECT_EQ(hud[panel].box.width, 50) << "what is hidden takes no room";
    const int shaped = measurer.shaped;
    update(hud, 0s);
    hud.resize({.size = {640, 400}});
    update(hud, 0s);
    EXPECT_EQ(measurer.shaped, shaped) << "nothing is measured again for a new scale";
}

TEST(Layout, draws_nothing_in_a_window_that_is_none) {
    BoxMeasurer measurer;
    Hud hud({.elements = {Panel{.id = "p"}, Text{.id = "t", .format = "x", .inside = "p"}}}, {}, &measurer);
    for (const Size size : {Size{0, 0}, Size{-5, 100}, Size{NAN, 100}, Size{INFINITY, 1}, Size{1, 1}}) {
        hud.resize({.size = size});
        update(hud, 0s);
        DrawList list;
        hud.draw(list);
        for (const DrawGroup& group : list.groups())
            for (const DrawCommand& command : group.commands())
                EXPECT_TRUE(std::isfinite(command.rect.x) && std::isfinite(command.baseline.x) &&
                            command.size < 2);
    }
}

// --- The draw list and pictures
// ------------------------------------------------------------------------------------

TEST(DrawList, rewrites_only_what_changed_since_it_was_last_drawn) {
    int a = 1, b = 2;
    BoxMeasurer measurer;
    Hud hud({}, {}, &measurer);
    hud.add(Text{.id = "a", .value = watch(a)});
    hud.add(Text{.id = "b", .value = watch(b), .layer = -1});
    DrawList first, second;
    update(hud, 0s);
    hud.draw(first);
    ASSERT_EQ(first.groups().size(), 2U);
    const auto text = [](const DrawList& list, std::size_t i) {
        return std::string(list.groups()[i].text_of(list.groups()[i].commands()[0]));
    };
    EXPECT_EQ(text(first, 0), "2") << "a lower layer is drawn before";
    a = 5;
    update(hud, 0s);
    const std::uint64_t revision_b = first.groups()[0].revision;
    hud.draw(second);
    hud.draw(first);
    EXPECT_EQ(first.groups()[0].revision, revision_b);
    for (const DrawList* list : {&first, &second}) {
        EXPECT_EQ(text(*list, 1), "5");
        EXPECT_EQ(list->groups()[1].glyphs_of(list->groups()[1].commands()[0]).size(), 1U);
    }
}

/// How much of a row or column of pixels is lit, in pixels.
double lit(const Picture& picture) {
    double sum = 0;
    for (int y = 0; y < picture.height(); ++y)
        for (int x = 0; x < picture.width(); ++x)
            sum += picture.pixel(x, y).red / 255.0;
    return sum;
}

TEST(Picture, fills_as_many_pixels_of_a_bar_as_its_fill_says) {
    Fonts fonts;
    for (const Direction direction : {Direction::right, Direction::left, Direction::up, Direction::down})
        for (const double fill : {0.0, 0.004, 0.1, 0.25, 0.5, 0.731, 0.996, 1.0})
            for (const float scale : {1.0F, 1.7F}) {
                Hud hud({.design = {200, 100}}, {}, &fonts);
                hud.add(Bar{.id = "b",
                            .value = fill,
                            .place = {.offset = {20, 10}, .size = {150, 60}},
                            .direction = direction,
                            .color = rgb(0xffffff),
                            .background = rgb(0x000000),
                            .radius = 0});
                hud.resize({.size = {200 * scale, 100 * scale}});
                update(hud, 0s);
                DrawList list;
                hud.draw(list);
                Picture picture(static_cast<int>(200 * scale), static_cast<int>(100 * scale), fonts);
                picture.draw(list);
                const double whole = static_cast<double>(std::round(170 * scale) - std::round(20 * scale)) *
                                     (std::round(70 * scale) - std::round(10 * scale));
                EXPECT_NEAR(lit(picture), whole * fill, whole * 0.003)
                    << fill << " " << static_cast<int>(direction);
                // A pixel near the left edge is lit by the first of the fill, or by the last of it.
                const Color near_left =
                    picture.pixel(static_cast<int>(22 * scale), static_cast<int>(11 * scale));
                const bool first = direction == Direction::right || direction == Direction::down;
                const bool across = direction == Direction::right || direction == Direction::left;
                if (across) {
                    EXPECT_EQ(near_left.red == 255, fill >= (first ? 0.1 : 0.996)) << fill;
                }
            }
}

TEST(Fonts, measure_in_proportion_and_with_digits_of_one_width) {
    Fonts fonts;
    const auto font = fonts.find("Inter", 700);
    ASSERT_TRUE(font);
    std::vector<Glyph> glyphs;
    const float one = fonts.shape(*font, 16, "Acres 1,480", glyphs);
    EXPECT_EQ(glyphs.size(), 11U);
    EXPECT_NEAR(fonts.shape(*font, 48, "Acres 1,480", glyphs), 3 * one, 1e-3F);
    const float zero = fonts.shape(*font, 16, "0", glyphs);
    for (const char* digit : {"1", "2", "3", "4", "5", "6", "7", "8", "9"})
        EXPECT_EQ(fonts.shape(*font, 16, digit, glyphs), zero) << digit;
    EXPECT_EQ(fonts.find("Inter", 700), font) << "the same font is the same number";
    EXPECT_NE(fonts.find("Inter", 400), font);
    EXPECT_TRUE(fonts.find("sans-serif", 400));
    EXPECT_EQ(fonts.find("No Such Family", 400), std::nullopt);
    EXPECT_EQ(fonts.shape(*font, 16, "", glyphs), 0);
}

TEST(Picture, says_why_a_file_cannot_be_read_or_written) {
    Fonts fonts;
    Picture picture(8, 8, fonts);
    EXPECT_NE(to_string(*picture.draw_image("/nowhere/at/all.png"))
                  .find("/nowhere/at/all.png: error: cannot be read"),
              std::string::npos);
    EXPECT_TRUE(picture.write_png("/nowhere/at/all.png"));
    EXPECT_EQ(Picture(-3, 900000, fonts).height(), 16384);
}

}  // namespace
}  // namespace rapido::test
