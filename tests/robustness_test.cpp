// What no game, mod or trace may do to a HUD: hang it, end it, or make it lie.
#include "rapido/file.hpp"
#include "rapido/fonts.hpp"
#include "rapido/look.hpp"
#include "rapido/text.hpp"
#include "rapido/time.hpp"
#include "support.hpp"

namespace rapido::test {
namespace robustness_test {

constexpr double inf = std::numeric_limits<double>::infinity();
constexpr double nan = std::numeric_limits<double>::quiet_NaN();

std::string all_of(const Problems& problems) {
    std::string text;
    for (const Problem& problem : problems)
        text += to_string(problem) + "\n";
    return text;
}

TEST(GameTimer, ends_at_the_time_of_its_speed_however_slow) {
    struct Case {
        double duration, speed;
    };
    for (const Case& row : {Case{1e9, 0.2}, Case{10, 1e-9}, Case{10, 1e-300}, Case{1, 0.1}, Case{0.001, 1e-7},
                            Case{3, 0.3}, Case{1, 1.0 / 3}, Case{100, 1e6}, Case{7, 0.999999999}}) {
        Countdown timer{Seconds{row.duration}};
        timer.set_speed(row.speed);
        timer.start();
        const double due = row.duration / row.speed;  // seconds, if it is within the life of a clock
        if (due > to_seconds(Clock::longest).count()) {
            EXPECT_FALSE(timer.advance(Seconds{1e300})) << row.duration << " at " << row.speed;
            EXPECT_FALSE(timer.ended());
            continue;
        }
        const double slack = 1e-9 / row.speed + due * 1e-15 + 1e-9;
        EXPECT_FALSE(timer.advance(Seconds{std::max(due - slack - 1e-9, 0.0)})) << row.duration << " " << row.speed;
        EXPECT_TRUE(timer.advance(Seconds{2 * slack + 2e-9})) << row.duration << " at " << row.speed;
        EXPECT_TRUE(timer.ended());
    }
}

TEST(GameTimer, keeps_running_while_the_game_slows_to_a_stop) {
    HudDefinition definition;
    definition.timers = {{.id = "t", .duration = 10s, .speed = "slow", .marks = {{.at = 5s, .every = 1s}}}};
    definition.elements = {Text{.id = "left", .value = "t.left", .format = "{:.3%S}"}};
    double speed = 1;
    Sources sources;
    sources.set("slow", watch(speed));
    Hud hud(definition, sources);
    double passed = 0;
    for (int frame = 0; frame < 3000; ++frame) {
        // What is read at the end of a frame counts from there on, in the first frame for all of it.
        const double before = speed;
        speed *= 0.98;
        update(hud, 16ms);
        passed += 0.016 * (frame == 0 ? speed : before);
    }
    EXPECT_NEAR(to_seconds(hud.timer("t")->left()).count(), 10 - passed, 1e-5);
}

TEST(FrameCounter, survives_any_step_and_interval) {
    for (const double interval : {0.5, 1e300, -1.0, nan})
        for (const double step : {1e9, 1e300, inf, nan}) {
            FrameCounter meter{Seconds{interval}};
            for (int i = 0; i < 5; ++i)
                meter.advance(Seconds{step});
            EXPECT_TRUE(!meter.rate() || std::isfinite(*meter.rate())) << interval << " " << step;
        }
}

struct RuntimeCase {
    const char* format;
    Value value, max;
    const char* text;
};

/// A watched `Value` may turn into what its format was not made for.
TEST(Format, shows_a_defined_text_for_what_it_meets_only_at_run_time) {
    const Value text("Pine");
    for (const RuntimeCase& row : {
             RuntimeCase{"{:d}", Value(12.5), {}, "12"},
             RuntimeCase{"{:x}", Value(255.4), {}, "ff"},
             RuntimeCase{"{:#x}", Value(-255.4), {}, "-0xff"},
             RuntimeCase{"{:b}", Value(5s), {}, "101"},
             RuntimeCase{"{:d}", Value(1.8e19), {}, "18000000000000000000"},
             RuntimeCase{"{:d}", Value(1e300), {}, "1e+300"},
             RuntimeCase{"{:X}", Value(-inf), {}, "-∞"},
             RuntimeCase{"{:d}", Value(nan), {}, "--"},
             RuntimeCase{"{:.1f}", text, {}, "Pine"},
             RuntimeCase{"{:d}", text, {}, "Pine"},
             RuntimeCase{"{:%M:%S}", text, {}, "Pine"},
             RuntimeCase{"{:.2s}", text, {}, "Pi"},
             RuntimeCase{"{left:x}", Value(5), Value(15.6), "b"},
             RuntimeCase{"{left:d}", Value(INT64_MIN), Value(INT64_MAX), "18446744073709551615"},
             RuntimeCase{"{left:d}", Value(INT64_MAX), Value(INT64_MIN), "-18446744073709551616"},
             RuntimeCase{"{:s}", Value(7), {}, "7"},
             RuntimeCase{"{percent:d}", Value(1), Value(3), "33"},
             RuntimeCase{"{percent}%", Value(1e308), Value(0.1), "∞%"},
             RuntimeCase{"{ratio}", Value(-1e308), Value(0.1F), "-∞"},
         }) {
        FormattedText shown(*Format::parse(row.format));
        shown.update({.value = row.value, .max = row.max, .delta = row.value});
        EXPECT_EQ(shown.text(), row.text) << row.format;
    }
    FormattedText delta(*Format::parse("{delta:d}"));
    delta.update({.value = 1, .max = {}, .delta = difference(Value(INT64_MIN), Value(INT64_MAX))});
    EXPECT_EQ(delta.text(), "-18446744073709551616");
}

TEST(Format, is_refused_where_the_types_are_known) {
    Hud hud;
    EXPECT_FALSE(hud.add(Text{.id = "a", .value = 1, .max = 2.5, .format = "{left:x}"}));
    EXPECT_FALSE(hud.add(Text{.id = "b", .value = 1.5, .max = 2, .format = "{left:d}"}));
    EXPECT_TRUE(hud.add(Text{.id = "c", .value = 1, .max = 2, .format = "{left:d}"}));
    EXPECT_TRUE(hud.add(Text{.id = "d", .value = 1, .max = 2.5, .format = "{left:.1f}"}));
    EXPECT_NE(all_of(hud.problems()).find("spec 'x' of {left}: type 'x' does not suit a number"), std::string::npos);
}

TEST(Notice, may_be_told_again_while_it_leaves_in_one_long_frame) {
    for (const Seconds step : {Seconds{0.016}, Seconds{3}, Seconds{60}}) {
        Hud hud;
        const ElementRef notice = hud.add(Notice{.id = "n", .enter = "fade", .leave = "fade"});
        const auto tell = [&] { ASSERT_TRUE(hud.notify(notice, {.text = "Water", .show_for = 1s})); };
        tell();
        for (int i = 0; i < 100; ++i)
            update(hud, 16ms);
        tell();  // it leaves just now
        update(hud, step);
        for (int i = 0; i < 60; ++i) {
            for (const Event& event : hud.events())
                EXPECT_EQ(event.detail, "Water");
            update(hud, 100ms);
        }
        EXPECT_EQ(hud[notice].text, "");
        tell();
        hud.snap();  // forgets it
        update(hud, 16ms);
        EXPECT_EQ(hud[notice].text, "");
    }
}

TEST(Hud, is_not_changed_by_a_getter_that_it_reads) {
    FlashLimit limit;
    Countdown timer{1s};
    Hud hud;
    const ElementRef notice = hud.add(Notice{.id = "n"});
    ElementRef text;
    hud.add(Group{.id = "g"});
    int call = 0;
    text = hud.add(Text{.id = "t", .value = watch([&] {
                                       switch (call) {
                                           case 0:
                                               return hud.update({.real = 1s, .game = 1s}), 1;
                                           case 1:
                                               return hud.add(Text{.id = "x", .format = "x"}) ? 1 : 2;
                                           case 2:
                                               return hud.add(Group{.id = "h"}) ? 1 : 2;
                                           case 3:
                                               return hud.remove(text), 1;
                                           case 4:
                                               return hud.leave(text), 1;
                                           case 5:
                                               return hud.snap(), hud.snap(text), hud.snap("g"), 1;
                                           case 6:
                                               return hud.play(text, "swell") ? 1 : 2;
                                           case 7:
                                               return hud.stop(text, "swell"), 1;
                                           case 8:
                                               return hud.notify(notice, {.text = "a"}) ? 1 : 2;
                                           case 9:
                                               return hud.set_visible("g", false), hud.set_opacity("g", 0), 1;
                                           case 10:
                                               return hud.set_language({}), hud.set_ui_scale(2), hud.resize(Viewport{}),
                                                      1;
                                           case 11:
                                               return hud.set_reduced_motion(true), hud.set_flash_limit(limit), 1;
                                           case 13: {
                                               DisplayList list;
                                               return hud.draw(list), static_cast<int>(list.groups().size());
                                           }
                                           case 12:
                                               return hud.add_timer("timer", timer) ? 1 : 2;
                                           default:
                                               return static_cast<int>(hud[text].text.size());
                                       }
                                   })});
    for (; call < 15; ++call) {
        const auto elements = hud.elements().size();
        update(hud, 16ms);
        EXPECT_EQ(hud.elements().size(), elements) << call;
        EXPECT_EQ(hud.now(), to_nanoseconds(Seconds{0.016 * (call + 1)})) << call;
    }
    for (const std::string name :
         {"update", "add", "remove", "leave", "snap", "play", "stop", "notify", "set_visible", "set_opacity",
          "set_language", "set_ui_scale", "resize", "set_reduced_motion", "set_flash_limit", "add_timer", "draw"})
        EXPECT_NE(all_of(hud.problems())
                      .find("a getter calls '" + name + "' of the HUD that is reading it; nothing was done"),
                  std::string::npos)
            << name;
}

TEST(Hud, plays_no_effect_of_a_strength_that_is_no_number) {
    Hud hud;
    const ElementRef text = hud.add(Text{.id = "t", .format = "x"});
    update(hud, 16ms);
    for (const double strength : {nan, inf, -inf})
        EXPECT_FALSE(hud.play(text, "flash", static_cast<float>(strength)));
    EXPECT_EQ(hud.problems().size(), 1U);
    EXPECT_TRUE(hud.play(text, "swell", 1e38F));
    for (int i = 0; i < 60; ++i) {
        update(hud, 16ms);
        EXPECT_TRUE(std::isfinite(hud[text].scale) && std::isfinite(hud[text].opacity)) << i;
    }
    EXPECT_EQ(hud[text].scale, 1) << "at rest again";
    EffectPlayer player;
    for (const double strength : {nan, inf, -inf}) {
        EXPECT_FALSE(player.play(built_in_effects()[0], 0s, {.strength = static_cast<float>(strength)}));
        EXPECT_TRUE(player.resting());
    }
}

TEST(Hud, that_was_moved_from_is_empty_and_works) {
    Hud first;
    const ElementRef text = first.add(Text{.id = "t", .format = "x"});
    Hud second = std::move(first);
    update(second, 16ms);
    EXPECT_EQ(second[text].text, "x");
    update(first, 16ms);  // NOLINT: this is what is tried
    EXPECT_TRUE(first.elements().empty());
    EXPECT_TRUE(first.add(Text{.id = "t", .format = "y"}));
    first = std::move(second);
    EXPECT_EQ(first[text].text, "x");
    update(second, 16ms);
    EXPECT_TRUE(second.elements().empty());
}

TEST(Live, that_was_moved_from_may_be_used_again) {
    Live<int> first{7};
    Hud hud;
    const ElementRef text = hud.add(Text{.id = "t", .value = watch(first)});
    Live<int> second = std::move(first);
    first = 3;  // NOLINT: this is what is tried
    EXPECT_EQ(first.get(), 3);
    update(hud, 16ms);
    EXPECT_EQ(hud[text].text, "7") << "the value went along";
    second = Live<int>{9};
    update(hud, 16ms);
    EXPECT_EQ(hud[text].text, "--") << "the one that it was bound to has died";
}

TEST(Events, stay_in_order_and_within_their_limit_however_many_timers_loop) {
    HudDefinition definition;
    for (int i = 0; i < 100; ++i)
        definition.timers.push_back({.id = "t" + std::to_string(i),
                                     .duration = Seconds{0.001 * (1 + i % 7)},
                                     .loop = true,
                                     .marks = {{.at = 0.0003s, .every = 0.0001s}}});
    Hud hud(definition);
    update(hud, 0s);
    update(hud, 10ms);
    EXPECT_EQ(hud.events().size(), 1000U);
    EXPECT_TRUE(std::is_sorted(hud.events().begin(), hud.events().end(),
                               [](const Event& a, const Event& b) { return a.time < b.time; }));
    update(hud, 10ms);
    ASSERT_EQ(hud.problems().size(), 1U) << "told once";
    EXPECT_NE(hud.problems()[0].message.find("more than 1000 events"), std::string::npos);
}

TEST(Effect, starts_in_the_frame_in_which_its_element_becomes_visible) {
    for (const TriggerOn on : {TriggerOn::loss, TriggerOn::gain, TriggerOn::empty, TriggerOn::band_enter}) {
        const bool rises = on == TriggerOn::gain;
        int value = rises ? 1 : 9;
        bool shown = false;
        Hud hud;
        const ElementRef bar = hud.add(Bar{.id = "b",
                                           .value = watch(value),
                                           .max = 10,
                                           .bands = {{.id = "low", .below = 0.5}},
                                           .triggers = {{.on = on, .effect = "swell"}},
                                           .visible = watch(shown)});
        update(hud, 16ms);
        value = rises ? 9 : 0;
        shown = true;
        update(hud, 16ms);
        update(hud, 60ms);
        EXPECT_GT(hud[bar].scale, 1) << static_cast<int>(on);
    }
}

TEST(Effect, of_a_band_that_a_timer_passed_ends_with_a_snap) {
    for (const bool snaps : {false, true}) {
        HudDefinition definition;
        definition.timers = {{.id = "t", .duration = 10s}};
        definition.elements = {Text{.id = "left",
                                    .value = "t.left",
                                    .format = "{:%S}",
                                    .bands = {{.id = "low", .below = 5, .effect = "swell"}}}};
        Hud hud(definition);
        const ElementRef text = hud.find("left");
        update(hud, 0s);
        update(hud, 4900ms);
        if (snaps) hud.snap();
        update(hud, 160ms);  // the band is entered at 5 s, inside of this frame
        EXPECT_EQ(hud[text].scale > 1, !snaps);
    }
}

TEST(FontFamilies, fall_back_where_a_family_is_missing) {
    BoxMeasurer measurer;
    HudDefinition definition{.font = "missing"};
    definition.locations.fields = {{"font", {"hud.toml", 1, 9}}};
    definition.elements = {Text{.id = "a", .format = "abcd"}, Text{.id = "b", .format = "x", .font = "missing"}};
    Hud hud(definition, {}, &measurer);
    update(hud, 0s);
    EXPECT_EQ(hud[hud.find("a")].box.width, 4 * 12) << "measured by another family";
    EXPECT_EQ(hud[hud.find("b")].box.width, 12);
    EXPECT_EQ(all_of(hud.problems()),
              "hud.toml:1:9: warning: 'font' of the HUD: no font family 'missing' is installed; another one stands "
              "for it\n"
              "warning: 'font' of text 'b': no font family 'missing' is installed; another one stands for it\n");
    Fonts fonts;
    EXPECT_FALSE(fonts.find("No Such Family", 400));
    EXPECT_EQ(fonts.find("No Such Family, Inter", 400), fonts.find("inter", 400));
}

TEST(Definition, written_in_cpp_is_checked_like_a_file) {
    struct Case {
        HudDefinition definition;
        const char* says;
    };
    for (const Case& row : {
             Case{{.margin = {-1, 0, 0, 0}}, "'margin' of the HUD must be 0 to 100000 px"},
             Case{{.design = {0, 800}}, "'design' of the HUD must be 1 to 100000 px"},
             Case{{.languages = {{.language = "", .font = "x"}}}, "a language without a tag"},
             Case{{.timers = {{.id = "t", .duration = Seconds{nan}}}}, "'duration' of timer 't' must be"},
             Case{{.timers = {{.id = "t", .elapsed = Seconds{-1}}}}, "'elapsed' of timer 't' must be 0 to"},
             Case{{.timers = {{.id = "t", .marks = {{.at = Seconds{1e300}}}}}}, "'marks.0.at' of timer 't' must be"},
             Case{{.frame_meters = {{.id = "m", .interval = 0s}}},
                  "'interval' of frame meter 'm' must be 0.001 to 3600 s"},
             Case{{.effects = {{.id = "e", .duration = Seconds{inf}}}}, "'duration' of effect 'e' must be"},
             Case{{.effects = {{.id = "e", .keyframes = {{.at = 2}}}}},
                  "'keyframes.0.at' of effect 'e' must be 0 to 1"},
             Case{{.effects = {{.id = "e", .keyframes = std::vector<Keyframe>(65)}}},
                  "'keyframes' of effect 'e' must be"},
             Case{{.groups = {{.id = "g", .dim = static_cast<float>(nan)}}}, "'dim' of group 'g' must be 0 to 1"},
             Case{{.elements = {Bar{.id = "b", .value = 1, .bands = std::vector<Band>(33, Band{.below = 1})}}},
                  "'bands' of bar 'b' must be a list of at most 32"},
         }) {
        BoxMeasurer measurer;
        Hud hud(row.definition, {}, &measurer);
        update(hud, 16ms);
        ASSERT_EQ(hud.problems().size(), 1U) << row.says << "\n" << all_of(hud.problems());
        EXPECT_NE(hud.problems()[0].message.find(row.says), std::string::npos) << hud.problems()[0].message;
    }
}

TEST(Sources, may_go_before_the_hud_that_was_made_with_them) {
    int acres = 12;
    std::optional<Hud> hud;
    {
        Sources sources;
        sources.set("mission.acres", watch(acres));
        hud.emplace(HudDefinition{}, sources);
        sources.set("late", watch(acres));
    }
    const ElementRef named = hud->add(Text{.id = "a", .value = "mission.acres"});
    const ElementRef late = hud->add(Text{.id = "b", .value = "late"});
    update(*hud, 16ms);
    EXPECT_EQ(text_of(*hud, named) + text_of(*hud, late), "1212");
}

TEST(Problems, stop_at_a_hundred_and_count_the_rest) {
    std::string text;
    for (int i = 0; i < 250; ++i)
        text += "[[element]]\nkind = \"text\"\nid = \"e" + std::to_string(i) + "\"\nvalue = \"nothing." +
                std::to_string(i) + "\"\nformt = 1\n";
    Problems found = read_hud(text, "h.toml").problems();
    ASSERT_EQ(found.size(), 101U);
    EXPECT_EQ(found[0].location.line, 5);
    EXPECT_EQ(found[99].location.line, 500) << "the first ones of the file";
    EXPECT_EQ(to_string(found[100]), "h.toml: error: and 150 more problems");
    Hud hud;
    for (int i = 0; i < 300; ++i)
        hud.find("x" + std::to_string(i % 200));
    ASSERT_EQ(hud.problems().size(), 101U);
    EXPECT_EQ(hud.problems()[100].message, "and 100 more problems") << "each once";
}

struct MessageCase {
    const char* text;
    const char* says;
};

TEST(HudFile, says_where_it_is_wrong_and_how_to_mend_it) {
    for (const MessageCase& row : {
             MessageCase{"[[element]]\nkind = 7\nid = \"a\"\n",
                         "h.toml:2:8: error: 'kind' of an element is a number; expected one of"},
             MessageCase{"[[element]]\nkind = \"panel\"\nid = \"a\"\ninside = \"a\"\n",
                         "h.toml:4:11: error: 'inside' of panel 'a.a': 'a' stands inside itself"},
             MessageCase{"[[element]]\nkind = \"panel\"\nid = \"a\"\ninside = \"b\"\n[[element]]\nkind = "
                         "\"panel\"\nid = \"b\"\ninside = \"a\"\n",
                         "'inside' of panel 'b.a': 'b' stands inside 'a' in turn: a circle of panels"},
             MessageCase{"[[element]]\nkind = \"level\"\nid = \"a\"\ncorners = [[0, 0], [1, \"x\"], [1, 1]]\n",
                         "h.toml:4:24: error: a point in 'corners' of level 'a' is a text; expected a number"},
             MessageCase{"[[element]]\nkind = \"text\"\nid = \"a\"\nvalue = 1\nmax = 2\nformat = \"{:.0%}\"\n",
                         "'%' alone is no part of a duration; a part of the maximum in hundredths is '{percent}%'"},
             MessageCase{"[[element]]\nkind = \"text\"\nid = \"a\"\nvalue = 1\nplural = { one = \"{}\", other = "
                         "\"{}s\" }\n",
                         "unknown key 'other' in 'plural' of text 'a'; the form 'other' is the element's 'format'"},
             MessageCase{"[[element]]\nkind = \"text\"\nid = \"a\"\nvalue = plane.water\n",
                         "; a text stands in quotes"},
             MessageCase{"# ok\nfont = \"\xff\"\n", "h.toml:2: error: is not valid UTF-8; save it in this encoding"},
             MessageCase{"[[element]]\nkind = \"text\"\nid = \"a\"\nvalue = 1\nbands = [\n{ below = 1 },\n{ "
                         "color = \"#ffffff\" }]\n",
                         "h.toml:7:1: error: 'bands.1' of text 'a' needs 'below', 'above', 'is' or 'when'"},
             MessageCase{"[[element]]\nkind = \"notice\"\nid = \"n\"\nmessages = [\n{ text = \"a {\" }]\n",
                         "h.toml:5:13: error: notice 'n': format \"a {\": '{' without a '}'"},
             MessageCase{"[[timer]]\nid = \"t\"\nduration = -1e300\n",
                         "'duration' of timer 't' is -1e+300; expected 0 to 1000000000 s"},
             MessageCase{"[[element]]\nkind = \"text\"\nid = \"a\"\nmotion = { easing = \"quick\" }\n",
                         "h.toml:4:22: error: 'motion.easing' of text 'a': easing 'quick'"},
         }) {
        const Problems found = check_hud(row.text, "h.toml", {}, nullptr);
        EXPECT_NE(all_of(found).find(row.says), std::string::npos) << row.says << "\n" << all_of(found);
        EXPECT_LE(found.size(), 2U) << all_of(found);
    }
    BoxMeasurer measurer;
    EXPECT_EQ(all_of(check_hud(
                  "design = [9, 9]\nfont = \"missing\"\n[[element]]\nkind = \"text\"\nid = \"a\"\nformat = \"x\"\n",
                  "h.toml", {}, &measurer)),
              "h.toml:2:9: warning: 'font' of the HUD: no font family 'missing' is installed; another one stands "
              "for "
              "it\n");
}

TEST(Trace, reads_json_lines) {
    const auto read = Trace::read(
        "\n{\"time\": 0, \"acres\": 1, \"village\": \"Pine \\\"old\\\"\", \"late\": null}\n"
        "{\"time\": 0.5, \"game_time\": 0.25, \"acres\": 2.5, \"big\": 18446744073709551615}\r\n"
        "{\"village\": null, \"time\": 1}\n",
        "t.jsonl");
    ASSERT_TRUE(read) << all_of(read.problems());
    ASSERT_EQ(read->rows().size(), 3U);
    EXPECT_EQ(read->rows()[1].time, 500ms);
    EXPECT_EQ(read->rows()[1].game_time, 250ms);
    const auto cell = [&](std::size_t column, std::size_t row) { return read->columns()[column].at(row); };
    EXPECT_EQ(cell(0, 0), Value(1.0)) << "a fraction comes later";
    EXPECT_EQ(cell(0, 2), Value(2.5)) << "left out: as before";
    EXPECT_EQ(cell(1, 1), Value("Pine \"old\""));
    EXPECT_EQ(cell(1, 2), Value()) << "null";
    EXPECT_EQ(cell(2, 1), Value());
    EXPECT_EQ(cell(3, 0), Value()) << "not there yet";
    EXPECT_EQ(cell(3, 2), Value(UINT64_MAX));
}

TEST(Trace, names_the_place_of_what_is_wrong_in_json_lines) {
    for (const MessageCase& row : {
             MessageCase{"{\"a\": 1}\n", "t.jsonl:1:1: error: has no 'time'"},
             MessageCase{"{\"time\": 0}\n{\"time\": \"x\"}\n",
                         "t.jsonl:2: error: 'time' is not a time in seconds from 0 to 1e9"},
             MessageCase{"{\"time\": 2}\n{\"time\": 1}\n", "t.jsonl:2:1: error: 'time' goes back from the line before"},
             MessageCase{"{\"time\": 0, \"a\": 1}\n{\"time\": 1, \"a\": \"x\"}\n",
                         "t.jsonl:2: error: 'a' is of type text, and of type integer in a line before"},
             MessageCase{"{\"time\": 0, \"a\": [1]}\n",
                         "t.jsonl:1: error: 'a' is a list of values; expected objects in it"},
             MessageCase{"{\"time\": 0, \"a\": [{\"b\": [1]}]}\n",
                         "t.jsonl:1: error: 'a.1.b' is a list; expected a number"},
             MessageCase{"{\"time\": 0, \"a\": [{\"b\": {}}]}\n",
                         "t.jsonl:1: error: 'a.1.b' is an object; expected a number"},
             MessageCase{"{\"time\": 0, \"a\": {}}\n", "t.jsonl:1: error: 'a' is an object; expected a number"},
             MessageCase{"{\"time\": 0, \"a\": 1, \"a\": 2}\n", "t.jsonl:1: error: 'a' stands twice in this line"},
             MessageCase{"{\"time\": 0}\n[1]\n", "t.jsonl:2: error: expected an object"},
             MessageCase{"{\"time\": 0}\n7\n", "t.jsonl:2:1: error: expected an object"},
             MessageCase{"{\"time\": 0,}\n", "t.jsonl:1:12: error: syntax error"},
             MessageCase{"{\"time\": 0\n", "t.jsonl:1:"},
             MessageCase{"{\"time\": 1e400}\n", "t.jsonl:1:"},
         }) {
        const Problems found = Trace::read(row.text, "t.jsonl").problems();
        EXPECT_NE(all_of(found).find(row.says), std::string::npos) << row.text << all_of(found);
        EXPECT_EQ(found.size(), 1U) << row.text << all_of(found);
    }
    EXPECT_EQ(all_of(Trace::read("Time;x\n0;1\n", "t.csv").problems()),
              "t.csv:1:1: error: has no column 'time'; commas stand between the cells of a trace\n");
    EXPECT_EQ(Trace::read("time,a\n0,5\n1,+7\n", "t.csv")->columns()[0].at(1), Value(7));
}

}  // namespace robustness_test
}  // namespace rapido::test
