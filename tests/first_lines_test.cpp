// What one writes first, and would do nothing: each is what was meant, or says how it is written.
#include <functional>
#include <set>

#include "rapido/file.hpp"
#include "rapido/images.hpp"
#include "support.hpp"

namespace rapido::test {
namespace first_lines_test {

/// The problems of a HUD, a line each.
std::string said(const Hud& hud) {
    std::string lines;
    for (const Problem& problem : hud.problems())
        lines += to_string(problem) + "\n";
    return lines;
}

TEST(FirstLines, of_an_element_do_what_was_meant_or_say_how_it_is_written) {
    struct Row {
        Element element;
        std::string says;
    };
    int hull = 50;
    for (const Row& row : std::vector<Row>{
             {Bar{.id = "e", .value = watch(hull), .max = 100, .bands = {{.below = 25, .color = rgb(0xff0000)}}},
              "error: 'bands.0.below' of bar 'e' is 25, and with a maximum an edge is a part of it, from 0 to 1; write "
              "0.25 for a quarter of it, or edge_unit = \"value\" for an amount, or \"ratio\" for more than all of "
              "it\n"},
             {Bar{.id = "e", .value = watch(hull), .max = 100, .bands = {{.below = 0.25}, {.above = 1}}}, ""},
             {Bar{.id = "e",
             .value = watch(hull),
             .max = 100,
             .bands = {{.above = 1.5, .edge_unit = EdgeUnit::ratio}, {.below = 25, .edge_unit = EdgeUnit::value}}},
              ""},
             {Text{.id = "e", .value = watch(hull), .bands = {{.below = 25}}}, ""},
             {Bar{.id = "e", .value = watch(hull), .max = 100, .trail = {.color = rgb(0xff0000)}},
              "warning: 'trail' of bar 'e': without a 'delay' there is none; give the time before it drains, such as "
              "0.4\n"},
             {Bar{.id = "e", .value = watch(hull), .max = 100, .motion = Motion{.duration = 400ms}},
              "warning: 'motion' of bar 'e': it is instant, and has a duration or an easing; give its kind, such as "
              "tween(300ms), in a file kind = \"tween\"\n"},
             {Bar{.id = "e", .value = watch(hull), .max = 100, .motion = Motion{.duration = 300ms}},
              "warning: 'motion' of bar 'e': it is instant, and has a duration or an easing; give its kind, such as "
              "tween(300ms), in a file kind = \"tween\"\n"},
             {Bar{.id = "e", .value = watch(hull), .max = 100, .motion = tween(Seconds{350})},
              "warning: 'motion.duration' of bar 'e' is 350 s; durations are in seconds: 350 ms is 0.35\n"},
             {Bar{.id = "e", .value = watch(hull), .max = 100, .trail = {.delay = Seconds{400}}},
              "warning: 'trail.delay' of bar 'e' is 400 s; durations are in seconds: 350 ms is 0.35\n"},
             {Text{.id = "e", .value = watch(hull), .format = "Hull: %d"},
              "warning: 'format' of text 'e' shows nothing of the value; write {} where it stands, as in \"Score: "
              "{}\"\n"},
             {Text{.id = "e", .value = watch(hull), .format = "HULL", .when_no_value = WhenNoValue::hide}, ""},
             {Level{.id = "e", .value = watch(hull), .max = 100, .mask = "a.png", .fill_map = "b.png"},
              "error: 'mask' of level 'e' must not be there where there is 'fill_map'; what the map leaves transparent "
              "is not filled\n"},
             {Bar{.id = "e", .value = watch(hull), .max = 100, .motion = {.down = Motion{.easing = Easing::linear()}}},
              "warning: 'motion_down' of bar 'e': it is instant, and has a duration or an easing; give its kind, such "
              "as tween(300ms), in a file kind = \"tween\"\n"},
             {Bar{.id = "e", .value = watch(hull), .max = 100, .motion = instant()}, ""},
             {Image{.id = "e", .value = watch(hull)}, "error: 'image' of image 'e' must be the name of a file\n"},
         }) {
        Hud hud;
        hud.add(row.element);
        update(hud, 0s);
        EXPECT_EQ(said(hud), row.says);
    }
}

TEST(FirstLines, of_images_take_the_first_of_those_that_a_value_chooses) {
    int number = 0;
    Images images(RAPIDO_SOURCE_DIR "/demo/ember_ridge");
    Hud hud({}, {}, nullptr, &images);
    const auto icon = hud.add(Image{.id = "i", .value = watch(number), .images = {"rank_1.png"}});
    update(hud, 0s);
    EXPECT_TRUE(hud.alive(icon));
    EXPECT_EQ(said(hud), "");
}

TEST(FirstLines, of_times_are_told_apart_from_what_is_meant) {
    HudDefinition definition;
    definition.timers = {{.id = "bomb", .duration = 10s, .marks = {{1s, 1s}, {5s, 1s}}}};
    EXPECT_EQ(said(Hud(definition)),
              "warning: 'marks.0' of timer 'bomb': it comes once, as 'every' goes on from 'at' towards zero; at = 10, "
              "every = 1 is each of the last ten seconds\n");
    for (const auto& [step, count, says] : std::vector<std::tuple<Seconds, int, std::string>>{
             {Seconds{16.7}, 29, ""},  // a game that loads
             {Seconds{16.7}, 40,
              "warning: steps of 16.7 s, one after the other; a step of time is in seconds: write update(0.016), or "
              "update(16ms)\n"},
             {Seconds{0.0167}, 1000, ""},
         }) {
        Hud hud;
        for (int i = 0; i < count; ++i)
            hud.update(step);
        EXPECT_EQ(said(hud), says);
    }
}

TEST(FirstLines, of_padding_mean_all_four_sides) {
    BoxMeasurer measurer;
    Hud hud({}, {}, &measurer);
    hud.resize({.size = {400, 300}});
    hud.add(nest(Panel{.id = "p", .padding = 12}, Text{.id = "t", .format = "x", .size = 20}));
    update(hud, 0s);
    const Rect panel = hud[hud.find("p")].box, text = hud[hud.find("p.t")].box;
    EXPECT_EQ(panel.inset({12, 12, 12, 12}), text);
}

TEST(FirstLines, of_a_timer_that_the_game_starts_start_what_waits_for_it) {
    HudDefinition definition;
    definition.effects = {{.id = "hop", .duration = 200ms, .keyframes = {{.at = 0.5, .scale = 2.0F}}}};
    bool go = false;
    definition.timers = {{.id = "fuse", .duration = 10s, .start_when = watch(go)}};
    Countdown round(20s);
    Hud hud(definition);
    EXPECT_TRUE(hud.add_timer("round", round));
    const auto of_hud = hud.add(
        Text{.id = "f", .format = "x", .triggers = {{.on = TriggerOn::start, .effect = "hop", .timer = "fuse"}}});
    const auto of_game = hud.add(
        Text{.id = "r", .format = "x", .triggers = {{.on = TriggerOn::start, .effect = "hop", .timer = "round"}}});
    EXPECT_EQ(said(hud), "");
    const auto starts = [&] {
        std::string ids;
        for (const Event& event : hud.events())
            if (event.kind == EventKind::start) ids += event.id + " ";
        return ids;
    };
    update(hud, 10ms);
    EXPECT_EQ(starts(), "");
    hud.timer("fuse")->start();
    round.start();
    update(hud, 100ms);
    EXPECT_EQ(starts(), "fuse round ");
    EXPECT_NEAR(hud[of_hud].scale, 2, 1e-4) << "it has run since the beginning of the frame";
    EXPECT_NEAR(hud[of_game].scale, 2, 1e-4);
    update(hud, 1s);
    EXPECT_EQ(starts(), "");
    round.start();
    update(hud, 10ms);
    EXPECT_EQ(starts(), "round ") << "while it runs, too";
    go = true;
    update(hud, 10ms);
    EXPECT_EQ(starts(), "fuse ");
    update(hud, 10ms);
    EXPECT_EQ(starts(), "");
}

TEST(FirstLines, of_a_change_that_what_the_game_has_set_covers_say_so) {
    int hull = 50;
    Hud hud({.elements = {Text{.id = "t", .value = watch(hull), .color = rgb(0xffffff)}}});
    const ElementRef text = hud.find("t");
    hud.set_format(text, "{} set");
    hud.change<Text>(text, [](Text& changed) { changed.size = 30; });
    EXPECT_EQ(said(hud), "");
    hud.change<Text>(text, [](Text& changed) {
        changed.format = "{} changed";
        changed.color = rgb(0xff0000);
    });
    EXPECT_EQ(said(hud),
              "warning: the changed 'format' of text 't' is not seen, as 'set_format' of the game lies over it; call "
              "'reset', or 'set_format' again\n");
    update(hud, 16ms);
    EXPECT_EQ(hud.text_of(text), "50 set");
    hud.reset(text);
    update(hud, 16ms);
    EXPECT_EQ(hud.text_of(text), "50 changed");
}

TEST(FirstLines, of_messages_with_words_for_a_value_are_refused) {
    Hud hud;
    const auto news = hud.add(Notice{.id = "news"});
    EXPECT_FALSE(hud.notify(news, {.text = "Briefing at {}", .value = "5 PM"}));
    EXPECT_EQ(said(hud),
              "error: 'value' of a message of notice 'news': unknown source '5 PM'; a text in quotes is a name: write "
              "rapido::constant(...) for its characters, or give them in 'text'\n");
    EXPECT_TRUE(hud.notify(news, {.text = "Briefing at {}", .value = constant("5 PM")}));
    update(hud, 0s);
    EXPECT_EQ(hud.text_of(news), "Briefing at 5 PM");
}

TEST(FirstLines, of_labels_and_particles_are_drawn) {
    double heading = 10, hearts = 3;
    HudDefinition definition;
    definition.effects = {{.id = "sparks", .duration = 1s, .keyframes = {}, .particles = {.burst = 20}}};
    BoxMeasurer measurer;
    Hud hud(definition, {}, &measurer);
    hud.resize({.size = {600, 400}});
    hud.add(
        Dial{.id = "d", .value = watch(heading), .max = 360, .ticks = {.every = 90, .labels = {{0, "N"}, {90, "E"}}}});
    hud.add(Ruler{.id = "r", .value = watch(heading), .max = 360, .ticks = {.labels = {{180, "S"}}}});
    hud.add(Pips{.id = "p", .value = watch(hearts), .max = 3, .loss = "sparks"});
    EXPECT_EQ(said(hud), "");
    update(hud, 16ms);
    const auto drawn = [&] {
        DisplayList list;
        hud.draw(list);
        std::multiset<std::string> texts;
        int items = 0;
        for (const DisplayGroup& group : list.groups())
            for (const DisplayItem& item : group.items()) {
                ++items;
                if (item.kind == DisplayItem::Kind::text) texts.insert(std::string(group.text_of(item)));
            }
        return std::pair(texts, items);
    };
    const auto [texts, at_rest] = drawn();
    EXPECT_EQ(texts, (std::multiset<std::string>{"N", "E", "S"}));
    hearts = 2;
    update(hud, 16ms);
    update(hud, 200ms);
    EXPECT_GT(drawn().second, at_rest + 5) << "sparks of the one that is lost";
    hud.set_reduced_motion(true);
    update(hud, 16ms);
    EXPECT_LE(drawn().second, at_rest + 1);
}

TEST(FirstLines, of_a_log_write_each_problem_once_and_forget_what_has_mended_itself) {
    Sources sources;
    int score = 5;
    Hud hud({}, sources);
    hud.add(Text{.id = "a", .value = "scroe"});
    hud.add(Text{.id = "b", .value = "late.name"});
    const auto fresh = [&] {
        std::string lines;
        for (const Problem& problem : hud.new_problems())
            lines += problem.message + "\n";
        return lines;
    };
    EXPECT_EQ(fresh(),
              "'value' of text 'a': unknown source 'scroe'\n'value' of text 'b': unknown source 'late.name'\n");
    EXPECT_EQ(fresh(), "");
    sources.set("late.name", watch(score));
    update(hud, 16ms);
    EXPECT_EQ(fresh(), "");
    ASSERT_EQ(hud.problems().size(), 1U);
    EXPECT_EQ(hud.problems()[0].message, "'value' of text 'a': unknown source 'scroe'");
    hud.add(Text{.id = "c", .value = "other"});
    EXPECT_EQ(fresh(), "'value' of text 'c': unknown source 'other'\n");
}

/// What the first problem of a file says, or what its text shows.
std::string first_of(const std::string& file) {
    const Result<HudDefinition> read = read_hud(file, "hud.toml");
    if (!read) return to_string(read.problems()[0]);
    int hp = 7;
    Sources sources;
    sources.set("hp", watch(hp));
    Hud hud(*read, sources);
    update(hud, 16ms);
    if (!hud.problems().empty()) return to_string(hud.problems()[0]);
    return "shows '" + std::string(hud.text_of(hud.find("a"))) + "'";
}

TEST(FirstLines, of_a_file_say_what_was_meant_and_how_it_is_written) {
    struct Row {
        std::string lines;  ///< of a text, or a whole file
        std::string says;
    };
    for (
        const Row& row : std::vector<Row>{
            {"text = \"Hello\"", "hud.toml:4:1: error: unknown key 'text' in text 'a'; write 'format'"},
            {"label = \"Hello\"", "hud.toml:4:1: error: unknown key 'label' in text 'a'; write 'format'"},
            {"format = \"Hello\"\ncolor = \"white\"",
             "hud.toml:5:9: error: 'color' of text 'a' is 'white'; expected a color as \"#rrggbb\" or \"#rrggbbaa\"; "
             "write \"#ffffff\""},
            {"format = \"x\"\ncolor = 0xff0000",
             "hud.toml:5:9: error: 'color' of text 'a' is a number; expected a color as \"#rrggbb\" or \"#rrggbbaa\"; "
             "write \"#ff0000\""},
            {"format = \"x\"\ncolor = \"rgb(255, 0, 0)\"",
             "hud.toml:5:9: error: 'color' of text 'a' is 'rgb(255, 0, 0)'; expected a color as \"#rrggbb\" or "
             "\"#rrggbbaa\"; write \"#ff0000\""},
            {"format = \"x\"\ncolor = \"#f00\"",
             "hud.toml:5:9: error: 'color' of text 'a' is '#f00'; expected a color as \"#rrggbb\" or \"#rrggbbaa\"; "
             "write \"#ff0000\""},
            {"format = \"x\"\nfont_size = 24",
             "hud.toml:5:1: error: unknown key 'font_size' in text 'a'; write 'size'"},
            {"format = \"x\"\nsize = \"24px\"",
             "hud.toml:5:8: error: 'size' of text 'a' is a text; expected a number; write 24: it is in px"},
            {"format = \"x\"\nbold = true", "hud.toml:5:1: error: unknown key 'bold' in text 'a'; write weight = 700"},
            {"format = \"x\"\nweight = \"bold\"",
             "hud.toml:5:10: error: 'weight' of text 'a' is a text; expected a whole number; write 700"},
            {"format = \"x\"\nalign = \"left\"",
             "hud.toml:5:9: error: 'align' of text 'a' is 'left'; expected one of automatic, start, center, end or "
             "digits; write \"start\""},
            {"format = \"x\"\nalpha = 0.5", "hud.toml:5:1: error: unknown key 'alpha' in text 'a'; write 'opacity'"},
            {"format = \"x\"\nopacity = 50", "hud.toml:5:11: error: 'opacity' of text 'a' is 50; expected 0 to 1"},
            {"format = \"x\"\nx = 10",
             "hud.toml:5:1: error: unknown key 'x' in text 'a'; write place = { anchor = \"top_left\", offset = [24, "
             "20] }"},
            {"format = \"x\"\nposition = [10, 10]",
             "hud.toml:5:1: error: unknown key 'position' in text 'a'; write place = { anchor = \"top_left\", offset = "
             "[24, 20] }"},
            {"format = \"x\"\nanchor = \"top_left\"",
             "hud.toml:5:1: error: unknown key 'anchor' in text 'a'; it stands in 'place': place = { anchor = ... }"},
            {"format = \"x\"\nplace = { anchor = \"top-left\" }",
             "hud.toml:5:20: error: 'place.anchor' of text 'a' is 'top-left'; expected one of top_left, top, "
             "top_right, left, center, right, bottom_left, bottom or bottom_right; did you mean 'top_left'?"},
            {"format = \"x\"\nplace = { size = 10 }",
             "hud.toml:5:18: error: 'place.size' of text 'a' is a number; expected two numbers, [width, height]"},
            {"format = \"x\"\nwidth = 200",
             "hud.toml:5:1: error: unknown key 'width' in text 'a'; write place = { size = [200, 24] }"},
            {"format = \"x\"\nplace = {\n  anchor = \"top\"\n}",
             "hud.toml:5:10: error: a table in braces goes on in the next line; write it in one line, or as a table of "
             "its own below, such as [element.place]"},
            {"value = \"hp\"\nformat = \"Score: %d\"",
             "hud.toml:5:11: warning: 'format' of text 'a' shows nothing of the value; write {} where it stands, as in "
             "\"Score: {}\""},
            {"value = \"hp\"\nformat = \"Score: {score}\"",
             "hud.toml:5:19: error: text 'a': format \"Score: {score}\": unknown field 'score'; expected one of value, "
             "max, percent, ratio, left, delta, sign or ordinal; the value itself is {}, and what else is shown has its name in "
             "'values'"},
            {"value = \"hp\"\nrange = \"0-100\"",
             "hud.toml:5:9: error: 'range' of text 'a' is a text; expected two numbers, [low, high]; write [0, 100]"},
            {"value = \"hp\"\nmotion = \"tween\"",
             "hud.toml:5:10: error: 'motion' of text 'a' is a text; expected a table; write { kind = \"tween\" }"},
            {"value = \"hp\"\nmotion = { kind = \"tween\", duration = 350 }",
             "hud.toml:5:39: warning: 'motion.duration' of text 'a' is 350 s; durations are in seconds: 350 ms is "
             "0.35"},
            {"value = \"hp\"\nmotion = { kind = \"tween\", duration = \"300ms\" }",
             "hud.toml:5:39: error: 'motion.duration' of text 'a' is a text; expected a number; write 0.3: it is in s"},
            {"value = \"hp\"\nmotion = { duration = 0.3 }",
             "hud.toml:5:10: warning: 'motion' of text 'a': it is instant, and has a duration or an easing; give its "
             "kind, such as tween(300ms), in a file kind = \"tween\""},
            {"value = \"hp\"\nbands = { below = 5, color = \"#ff0000\" }",
             "hud.toml:5:9: error: 'bands' of text 'a' is a table; expected a list of tables; write bands = [{ ... }], "
             "a list of tables"},
            {"value = \"hp\"\nmax = 100\nbands = [{ below = 25, color = \"#ff0000\" }]",
             "hud.toml:6:20: error: 'bands.0.below' of text 'a' is 25, and with a maximum an edge is a part of it, "
             "from 0 to 1; write 0.25 for a quarter of it, or edge_unit = \"value\" for an amount, or \"ratio\" for "
             "more than all of it"},
            {"value = \"hp\"\nbelow = 5",
             "hud.toml:5:1: error: unknown key 'below' in text 'a'; write bands = [{ below = 0.25, color = \"#ff7a3c\" "
             "}]"},
            {"value = \"hp\"\neffect = \"shake\"",
             "hud.toml:5:1: error: unknown key 'effect' in text 'a'; write triggers = [{ on = \"loss\", effect = "
             "\"shake\" }], or an effect in a band"},
            {"value = \"hp\"\nanimation = \"shake\"",
             "hud.toml:5:1: error: unknown key 'animation' in text 'a'; write 'motion'"},
            {"value = \"hp\"\ndecimals = 1",
             "hud.toml:5:1: error: unknown key 'decimals' in text 'a'; write format = \"{:.1f}\""},
            {"value = \"hp\"\nsuffix = \" km\"",
             "hud.toml:5:1: error: unknown key 'suffix' in text 'a'; write it in the format, as in format = \"{} km\""},
            {"value = \"hpp\"", "hud.toml:4:10: error: 'value' of text 'a': unknown source 'hpp'; did you mean 'hp'?"},
            {"value = \"hp\"\nvisible = \"hp = 5\"",
             "hud.toml:5:11: error: 'visible' of text 'a' has '=', which is no sign, at character 4; write '==' to ask "
             "whether two are equal"},
            {"value = \"hp\"\nvisible = \"hp && hp\"",
             "hud.toml:5:11: error: 'visible' of text 'a' has '&', which is no sign, at character 4; write 'and'"},
            {"value = \"hp\"\nvisible = \"hp > 5 > 2\"",
             "hud.toml:5:11: error: 'visible' of text 'a' compares three values in a row, at character 8; write 'a < b "
             "and b < c'"},
            {"value = \"hp\"\nvisible = \"false\"", "shows '7'"},
            {"value = \"hp\"\nhidden = true",
             "hud.toml:5:1: error: unknown key 'hidden' in text 'a'; write visible = \"!name\", with the source that "
             "hides it"},
            {"value = \"hp\"\nwhen = \"hp > 5\"",
             "hud.toml:5:1: error: unknown key 'when' in text 'a'; write visible = \"a > b\", or bands = [{ when = \"a "
             "> b\", color = \"#ff7a3c\" }]"},
            {"format = \"x\"\ninside = \"panel\"",
             "hud.toml:5:11: error: 'inside' of text 'panel.a': no panel 'panel'"},
            {"format = \"x\"\nname = \"b\"", "hud.toml:5:1: error: unknown key 'name' in text 'a'; write 'id'"},
            {"format = \u201cHello\u201d",
             "hud.toml:4:10: error: a curly quote does not begin a text; write straight quotes, as in \"text\""},
            {"format = \"Hello",
             "hud.toml:4:16: error: a text in this line has no closing quote; a text ends in the line in which it "
             "begins"},
            {"format: \"x\"", "hud.toml:4:7: error: a key is followed by ':'; write '='"},
            {"format = \"x\",\nsize = 5",
             "hud.toml:4:13: error: a comma stands behind a value; commas stand between the parts of a list, and of a "
             "table in braces, only"},
            {"format = 'it''s'",
             "hud.toml:4:14: error: a single quote ends the text before its end; write a text with a single quote in "
             "it in double quotes"},
            {"format = Hello",
             "hud.toml:4:10: error: a word without quotes; a text stands in quotes, as in value = \"plane.water\""},
            {"[element]\nkind = \"text\"\nid = \"a\"\n",
             "hud.toml:1:2: error: 'element' is a table; expected a list of tables; write '[[element]]'"},
            {"[[elements]]\nkind = \"text\"\nid = \"a\"\n",
             "hud.toml:1:3: error: unknown key 'elements' in the HUD; did you mean 'element'?"},
            {"[[element]]\nkind = \"label\"\nid = \"a\"\n",
             "hud.toml:2:8: error: unknown kind 'label'; expected one of panel, text, bar, ring, level, pips, dial, "
             "ruler, graph, image, notice, list, markers or pop_ups; write kind = \"text\""},
            {"[[element]]\ntype = \"text\"\nid = \"a\"\n",
             "hud.toml:1:1: error: an element without a 'kind'; expected one of panel, text, bar, ring, level, pips, "
             "dial, ruler, graph, image, notice, list, markers or pop_ups; write 'kind' in place of 'type'"},
            {"[[element]]\nkind = \"text\"\nformat = \"Hi\"\n", "hud.toml:1:1: error: text has no 'id'"},
            {"[[element]]\nkind = \"progress_bar\"\nid = \"a\"\n",
             "hud.toml:2:8: error: unknown kind 'progress_bar'; expected one of panel, text, bar, ring, level, pips, "
             "dial, ruler, graph, image, notice, list, markers or pop_ups; write kind = \"bar\""},
            {"[[element]]\nkind = \"image\"\nid = \"i\"\nsrc = \"a.png\"\n",
             "hud.toml:4:1: error: unknown key 'src' in image 'i'; write 'image'"},
            {"[[element]]\nkind = \"bar\"\nid = \"b\"\nsource = \"hp\"\nvalue = \"hp\"\n",
             "hud.toml:4:1: error: unknown key 'source' in bar 'b'; write 'value'"},
            {"[[element]]\nkind = \"panel\"\nid = \"p\"\n[[element.text]]\nid = \"t\"\nformat = \"x\"\n",
             "hud.toml:4:11: error: unknown key 'text' in panel 'p'; write [[element.element]] with kind = \"text\""},
            {"[[element]]\nkind = \"panel\"\nid = \"p\"\nbands = [{ below = 5 }]\n",
             "hud.toml:4:10: error: 'bands.0' of panel 'p': reads a value, and the element has none; give it a "
             "'value', or the band a condition: when = \"player.hull < 25\""},
            {"[[element]]\nkind = \"panel\"\nid = \"p\"\ntriggers = [{ on = \"loss\", effect = \"shake\" }]\n",
             "hud.toml:4:13: error: 'triggers.0' of panel 'p': waits for a change of the value, and the element has "
             "none; give it a 'value', or the trigger a 'source'"},
            {"[[timer]]\nid = \"t\"\nduration = \"60\"\n",
             "hud.toml:3:12: error: 'duration' of timer 't' is a text; expected a number; write 60: it is in s"},
            {"[[effect]]\nid = \"e\"\nduration = 350\nkeyframes = [{ at = 0.5, scale = 2.0 }]\n",
             "hud.toml:3:12: warning: 'duration' of effect 'e' is 350 s; durations are in seconds: 350 ms is 0.35"},
        }) {
        const bool is_whole = row.lines.starts_with("[");
        const std::string text = "[[element]]\nkind = \"text\"\nid = \"a\"\n";
        EXPECT_EQ(first_of(is_whole ? row.lines : text + row.lines + "\n"), row.says) << row.lines;
    }
}

TEST(FirstLines, of_a_component_in_a_list_read_the_fields_of_entries) {
    const std::string file = R"([component.row]
parameters = { name = "source", bonus = { type = "source", default = 0 }, title = { type = "text", optional = true } }
element = [
    { kind = "text", id = "name", value = "$name" },
    { kind = "text", id = "bonus", value = "$bonus" },
    { kind = "text", id = "title", format = "$title", when_given = "title" },
]

[[element]]
kind = "list"
id = "all"
entries = "pilots"
component = "row"

[[element]]
kind = "row"
id = "one"
name = "'Ana'"
title = "Captain"
)";
    struct Pilot {
        std::string name;
        int bonus;
    };
    std::vector<Pilot> pilots{{"Bo", 30}};
    Sources sources;
    sources.set("pilots",
                watch_entries(pilots, entry_field("name", &Pilot::name), entry_field("bonus", &Pilot::bonus)));
    const Result<HudDefinition> read = read_hud(file, "hud.toml");
    ASSERT_TRUE(read) << to_string(read.problems()[0]);
    Hud hud(*read, sources);
    update(hud, 16ms);
    EXPECT_EQ(said(hud), "");
    EXPECT_EQ(hud.text_of(hud.find("all.1.bonus")), "30") << "the default is for those who give none";
    EXPECT_EQ(hud.text_of(hud.find("one.bonus")), "0");
    EXPECT_EQ(hud.text_of(hud.find("one.title")), "Captain");
    for (const ElementRef ref : hud.elements())
        EXPECT_NE(hud[ref].id, "all.1.title") << "nobody has given it";

    std::string typed = file;
    typed.replace(typed.find("name = \"source\""), 15, "name = \"number\"");
    const Result<HudDefinition> wrong = read_hud(typed, "hud.toml");
    ASSERT_FALSE(wrong);
    EXPECT_EQ(
        to_string(wrong.problems()[0]),
        "hud.toml:13:13: error: 'with' of list 'all' has no 'name'; give it there, or make it a \"source\" in the "
        "component: then it is the field of that name of each entry");
    std::string asked = file;
    asked.replace(asked.find("when_given = \"title\""), 20, "when_given = \"titel\"");
    const Result<HudDefinition> unknown = read_hud(asked, "hud.toml");
    ASSERT_FALSE(unknown);
    EXPECT_EQ(to_string(unknown.problems()[0]),
              "hud.toml:6:68: error: component 'row' has no parameter 'titel'; did you mean 'title'?");
}

}  // namespace first_lines_test
}  // namespace rapido::test
