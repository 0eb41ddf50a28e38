#include "support.hpp"

namespace rapido::test {
namespace hud_test {

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
         {Case{25, 100, 0.25}, Case{0, 100, 0}, Case{100, 100, 1}, Case{130, 100, 1}, Case{-5, 100, 0}, Case{5, 0, 0},
          Case{0, 0, 0}, Case{5, -1, 0}, Case{-5, -10, 0}, Case{5, nan, 0}, Case{nan, 100, 0}, Case{5, infinity, 0},
          Case{infinity, infinity, 0}, Case{infinity, 9, 1}}) {
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
    const auto bar =
        hud.add(Bar{.id = "water", .value = watch(water), .max = watch(tank), .motion = tween(1s, Easing::linear())});
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
    const auto text = hud.add(Text{.id = "n", .value = watch(value), .placeholder = "?", .motion = tween(1s)});
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
        {.id = "evacuation", .duration = 45s, .start_when = "evacuating", .pause_when = "held"});
    definition.frame_meters.push_back({.id = "frames"});
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
    ASSERT_EQ(hud.events().size(), 1U) << "who shows a timer is not told to be empty: the timer tells its end";
    EXPECT_EQ(hud.events()[0], (Event{140s, "evacuation", EventKind::end, ""}));
    EXPECT_EQ(hud.timer("evacuation")->left(), 0s);
    hud.timer("evacuation")->start();
    update(hud, 1s);
    EXPECT_EQ(hud[hud.find("left")].text, "00:44");
    EXPECT_EQ(hud.timer("evacuaton"), nullptr);
    EXPECT_EQ(hud.problems().back().hint, "did you mean 'evacuation'?");
}

TEST(FrameMeter, of_a_hud_shows_its_placeholder_until_the_first_interval) {
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
        "error: 'inside' of text 'panle.c': no panel 'panle'; did you mean 'panel'?",
        "error: 'format' of text 'd': spec '.1f' of {}: type 'f' does not suit a text",
        "error: 'value' of bar 'e': a bar needs a number, and this source is a text",
        "error: 'format' of text 'f': spec 's' of {}: type 's' does not suit an integer",
        "warning: 'font' of text 'g': no font family 'missing' is installed; another one stands for it",
    };
    std::vector<std::string> found;
    for (const Problem& problem : hud.problems())
        found.push_back(to_string(problem));
    EXPECT_EQ(found, expected);
    EXPECT_EQ(hud.elements().size(), 4U) << "what has an unknown source waits for it";
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

}  // namespace hud_test
}  // namespace rapido::test
