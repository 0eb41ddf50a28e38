// Bands: parts of a value's range in which an element looks different.
#include "rapido/file.hpp"
#include "support.hpp"

namespace rapido::test {
namespace band_test {

constexpr Color bone = rgb(0xf2efe6), amber = rgb(0xffc24a), ember = rgb(0xff7a3c), leaf = rgb(0x8fce5a);

std::string told(const Hud& hud) {
    std::string text;
    for (const Event& event : hud.events())
        text += (text.empty() ? "" : " ") + std::string(to_string(event.kind)) + ":" + event.detail;
    return text;
}

TEST(Band, is_entered_at_its_edge_and_left_beyond_it) {
    struct Row {
        double value;
        const char* inside;  // the ids that it is in
        const char* told;
    };
    double value = 24;  // between the edges of `low`: outside
    Hud hud;
    const auto text = hud.add(Text{.id = "t",
                                   .value = watch(value),
                                   .bands = {{.id = "low", .below = 20, .hysteresis = 5, .color = amber},
                                             {.id = "high", .above = 80, .color = leaf},
                                             {.id = "middle", .above = 40, .below = 60, .format = "~{}"}}});
    for (const Row& row : std::vector<Row>{{24, "", ""},
                                           {20, "low", "enter:low"},
                                           {24.9, "low", ""},
                                           {25, "low", ""},
                                           {25.1, "", "leave:low"},
                                           {21, "", ""},
                                           {40, "middle", "enter:middle"},
                                           {60, "middle", ""},
                                           {80, "high", "leave:middle enter:high"},
                                           {79.9, "", "leave:high"},
                                           {-5, "low", "enter:low"},
                                           {double(NAN), "", "leave:low"},
                                           {double(INFINITY), "high", "enter:high"}}) {
        value = row.value;
        update(hud, 10ms);
        std::string events = told(hud);
        if (const auto at = events.find("empty:"); at != std::string::npos) events.erase(at, 7);
        EXPECT_EQ(std::string(row.told).size() > 0, events.size() > 0) << row.value << " " << events;
        for (std::string word : {"enter:low", "leave:low", "enter:middle", "leave:middle", "enter:high", "leave:high"})
            EXPECT_EQ(std::string(row.told).find(word) != std::string::npos, events.find(word) != std::string::npos)
                << row.value << " " << word;
        const std::string inside = row.inside;
        EXPECT_EQ(hud[text].color, inside == "low" ? amber : inside == "high" ? leaf : bone) << row.value;
        EXPECT_EQ(hud[text].text[0] == '~', inside == "middle") << row.value;
    }
}

TEST(Band, changes_once_for_a_value_that_trembles_at_its_edge) {
    Random random(53);
    double fuel = 26;
    Hud hud;
    const auto bar = hud.add(Bar{.id = "fuel",
                                 .value = watch(fuel),
                                 .max = 100,
                                 .bands = {{.id = "low", .below = 0.25, .hysteresis = 0.02, .color = amber}}});
    int changes = 0, events = 0;
    Color last = hud[bar].color;
    for (int frame = 0; frame < 5000; ++frame) {
        fuel = 26 - frame * 0.0004 + random.between(-0.9, 0.9);
        update(hud, 16ms);
        changes += frame > 0 && hud[bar].color != last ? 1 : 0;
        events += static_cast<int>(hud.events().size());
        last = hud[bar].color;
    }
    EXPECT_EQ(changes, 1);
    EXPECT_EQ(events, 1);
    EXPECT_EQ(last, amber);
}

TEST(Band, listed_last_wins_field_by_field) {
    float hull = 10;
    bool visible = false;
    Hud hud;
    const auto text = hud.add(Text{.id = "hull",
                                   .value = watch(hull),
                                   .max = 100,
                                   .format = "{:.0f}",
                                   .bands = {{.below = 0.5, .color = amber, .visible = true, .format = "hull {:.0f}"},
                                             {.below = 0.25, .color = ember},
                                             {.below = 5, .edge_unit = EdgeUnit::value, .visible = false}},
                                   .visible = watch(visible)});
    const auto shown = [&](float value) {
        hull = value;
        update(hud, 1ms);
        return text_of(hud, text) + (hud[text].visible ? " shown " : " hidden ") + to_string(hud[text].color);
    };
    EXPECT_EQ(shown(80), "80 hidden #f2efe6");
    EXPECT_EQ(shown(40), "hull 40 shown #ffc24a");
    EXPECT_EQ(shown(20), "hull 20 shown #ff7a3c");
    EXPECT_EQ(shown(4), "hull 4 hidden #ff7a3c");
    EXPECT_EQ(shown(70), "70 hidden #f2efe6");
}

TEST(Band, fades_its_color_and_is_silent_at_first_and_after_a_snap) {
    std::optional<double> heat = 50;
    Hud hud;
    const Band hot{.id = "hot", .above = 40, .color = rgb(0xff0000), .fade = 1s};
    const auto text = hud.add(Text{.id = "heat", .value = watch(heat), .bands = {hot}, .color = rgb(0x000000)});
    update(hud, 0s);
    EXPECT_EQ(hud[text].color, rgb(0xff0000)) << "the first look is there at once";
    EXPECT_EQ(told(hud), "");
    heat = 20;
    update(hud, 100ms);
    EXPECT_EQ(told(hud), "band_leave:hot");
    update(hud, 500ms);
    EXPECT_EQ(hud[text].color, rgb(0x800000));
    heat = 60;
    update(hud, 0s);
    update(hud, 500ms);
    EXPECT_EQ(hud[text].color, rgb(0xc00000)) << "from where it was";
    update(hud, 500ms);
    EXPECT_EQ(hud[text].color, rgb(0xff0000));
    heat.reset();
    update(hud, 2s);
    EXPECT_EQ(told(hud), "band_leave:hot") << "no value is in no band";
    heat = 60;
    hud.snap();
    update(hud, 1ms);
    EXPECT_EQ(hud[text].color, rgb(0xff0000));
    EXPECT_EQ(told(hud), "");
    hud.set_reduced_motion(true);
    heat = 10;
    update(hud, 1ms);
    EXPECT_EQ(hud[text].color, rgb(0x000000)) << "a plain change";
}

TEST(Band, reads_the_true_the_target_or_the_shown_value) {
    double value = 100;
    Hud hud;
    const auto bar = hud.add(Bar{.id = "b",
                                 .value = watch(value),
                                 .max = 100,
                                 .pace = {.settle = 200ms},
                                 .motion = tween(1s, Easing::linear()),
                                 .bands = {{.id = "true", .below = 0.5, .hysteresis = 0, .reads = BandReads::truth},
                                           {.id = "target", .below = 0.9, .reads = BandReads::target},
                                           {.id = "shown", .below = 0.5, .reads = BandReads::shown}}});
    update(hud, 0s);
    value = 95;
    update(hud, 10ms);
    value = 40;
    update(hud, 10ms);
    // A change of band passes pace at once.
    EXPECT_EQ(told(hud), "band_enter:true band_enter:target");
    EXPECT_EQ(hud[bar].target.number(), 40);
    update(hud, 800ms);
    EXPECT_EQ(told(hud), "");
    update(hud, 100ms);
    EXPECT_EQ(told(hud), "band_enter:shown");
}

TEST(Band, may_change_the_motion) {
    double value = 100;
    Hud hud;
    const auto bar = hud.add(Bar{.id = "b",
                                 .value = watch(value),
                                 .max = 100,
                                 .motion = tween(1s, Easing::linear()),
                                 .bands = {{.below = 0.25, .motion = instant()}}});
    update(hud, 0s);
    value = 50;
    update(hud, 0s);
    update(hud, 500ms);
    EXPECT_NEAR(*hud[bar].fill, 0.75, 1e-9);
    value = 20;
    update(hud, 0s);
    EXPECT_NEAR(*hud[bar].fill, 0.2, 1e-9);
}

TEST(Band, on_a_timer_is_entered_at_its_exact_time) {
    for (const Nanoseconds step : {Nanoseconds(1ms), Nanoseconds(16'666'667), Nanoseconds(700ms), Nanoseconds(5s)}) {
        HudDefinition definition;
        definition.timers = {{.id = "t", .duration = 10s, .loop = true}};
        Hud hud(definition);
        const auto text = hud.add(Text{.id = "left",
                                       .value = "t.left",
                                       .format = "{:%S}",
                                       .bands = {{.id = "late", .below = 2.5, .color = rgb(0xffffff), .fade = 8s}},
                                       .color = rgb(0x000000)});
        const auto bar = hud.add(Bar{.id = "bar",
                                     .value = "t.elapsed",
                                     .max = "t.duration",
                                     .bands = {{.id = "half", .above = 0.5, .hysteresis = 0.1}}});
        ASSERT_TRUE(text && bar);
        update(hud, 0s);
        std::vector<std::string> events;
        for (Nanoseconds now{0}; now < 20s;) {
            const Nanoseconds next = std::min(now + step, Nanoseconds(20s));
            update(hud, next - now);
            now = next;
            for (const Event& event : hud.events())
                events.push_back(std::to_string(event.time.count() / 1'000'000) + " " + event.id + " " +
                                 std::string(to_string(event.kind)));
        }
        EXPECT_EQ(events, (std::vector<std::string>{"5000 bar band_enter", "7500 left band_enter", "10000 t end",
                                                    "10000 left band_leave", "10000 bar band_leave",
                                                    "15000 bar band_enter", "17500 left band_enter", "20000 t end",
                                                    "20000 left band_leave", "20000 bar band_leave"}))
            << step.count();
        // Black to white from 7.5 s on for 2.5 of 8 s, back for 7.5 s, and there again for 2.5 s.
        const double first = 255 * 2.5 / 8, back = first - first * 7.5 / 8, again = back + (255 - back) * 2.5 / 8;
        EXPECT_NEAR(hud[text].color.red, again, 2) << step.count();
    }
}

TEST(Band, says_what_is_wrong) {
    std::string village = "Alder Creek";
    double value = 1;
    Hud hud;
    hud.add(Text{.id = "a", .value = watch(value), .bands = {{.color = amber}}});
    hud.add(Text{.id = "b", .value = watch(value), .bands = {{.below = 1}, {.above = 2, .below = 1}}});
    hud.add(Text{.id = "c", .value = watch(village), .bands = {{.below = 1}}});
    hud.add(Text{.id = "d", .value = watch(value), .bands = {{.below = 1, .format = "{:q}"}}});
    ASSERT_EQ(hud.problems().size(), 4U);
    EXPECT_EQ(hud.problems()[0].message, "'bands.0' of text 'a' needs 'below', 'above', 'is' or 'when'");
    EXPECT_EQ(hud.problems()[1].message, "'bands.1' of text 'b' is empty: 'below' is less than 'above'");
    EXPECT_EQ(hud.problems()[2].message, "'bands.0' of text 'c' needs a number, and this source is a text");
    EXPECT_NE(hud.problems()[3].message.find("{:q}"), std::string::npos);
}

TEST(HudFile, reads_marks_and_bands) {
    const auto read = read_hud(R"([[timer]]
id = "t"
kind = "stopwatch"
duration = 90
loop = true
clock = "real"
speed = 2
marks = [45, 15, { at = 5, every = 1 }]

[[element]]
kind = "text"
id = "a"
value = "t.left"
motion_up = { kind = "spring", duration = 0.5, damping = 0.7 }
bands = [
    { id = "late", below = 10, hysteresis = 1, color = "#ffc24a", fade = 0.2, visible = true },
    { above = 5, edge_unit = "value", reads = "truth", format = "! {}", motion = { kind = "roll" } },
]
)",
                               "hud.toml");
    ASSERT_TRUE(read) << to_string(read.problems()[0]);
    const Timer timer{.id = "t",
                      .kind = TimerKind::stopwatch,
                      .duration = 90s,
                      .speed = 2,
                      .loop = true,
                      .marks = {{45s}, {15s}, {5s, 1s}},
                      .clock = ClockKind::real};
    EXPECT_EQ(read->timers.at(0), timer);
    const Text text{
        .id = "a",
        .value = "t.left",
        .motion = {.up = spring(500ms, 0.7F)},
        .bands = {{.id = "late", .below = 10, .hysteresis = 1, .color = amber, .fade = 200ms, .visible = true},
                  {.above = 5,
                   .edge_unit = EdgeUnit::value,
                   .reads = BandReads::truth,
                   .format = "! {}",
                   .motion = Motion{.kind = MotionKind::roll}}}};
    EXPECT_EQ(read->elements.at(0), Element(text));

    const auto bad = read_hud(R"([[timer]]
id = "t"
marks = [45, "x", { every = 1 }, { at = 5, evry = 1 }, 0]
[[element]]
kind = "bar"
id = "b"
value = "v"
bands = [{ below = [1] }, 7, { reads = "shwon" }]
)",
                              "hud.toml");
    std::vector<std::string> texts;
    for (const Problem& problem : bad.problems())
        texts.push_back(to_string(problem));
    EXPECT_EQ(
        texts,
        (std::vector<std::string>{
            "hud.toml:3:14: error: 'marks.1' of timer 't' is a text; expected a number or a table",
            "hud.toml:3:19: error: 'marks.2' of timer 't' has no 'at'",
            "hud.toml:3:44: error: unknown key 'evry' in 'marks.3' of timer 't'; did you mean 'every'?",
            "hud.toml:3:56: error: 'marks.4' of timer 't' is 0; expected 0.000000001 to 1000000000 s",
            "hud.toml:8:20: error: 'bands.0.below' of bar 'b' is a list; expected a number, or the name of a source",
            "hud.toml:8:27: error: 'bands.1' of bar 'b' is a number; expected a table",
            "hud.toml:8:40: error: 'bands.2.reads' of bar 'b' is 'shwon'; expected one of target, truth or "
            "shown; "
            "did you mean 'shown'?"}));
}

}  // namespace band_test
}  // namespace rapido::test
