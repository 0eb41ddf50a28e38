// A HUD that runs gets another definition: of a file that was saved again, or of one that it includes.
#include <thread>

#include "rapido/debug.hpp"
#include "rapido/file.hpp"
#include "rapido/picture.hpp"
#include "rapido/recording.hpp"
#include "support.hpp"

namespace rapido::test {
namespace reload_test {

HudDefinition read(const std::string& text) {
    Result<HudDefinition> made = read_hud(text, "hud.toml");
    EXPECT_TRUE(made) << (made ? "" : to_string(made.problems().front()));
    return made ? *std::move(made) : HudDefinition();
}

/// All that a game could see of a HUD in a frame.
std::string state_of(const Hud& hud) {
    std::string all;
    for (const ElementRef ref : hud.elements()) {
        const Shown shown = hud[ref];
        all += std::string(shown.id) + "|" + std::string(shown.text) + "|" + std::to_string(shown.fill.value_or(-1)) +
               "|" + std::to_string(shown.trail.value_or(-1)) + "|" + to_string(shown.color) + "|" +
               std::to_string(shown.opacity) + "|" + std::to_string(shown.scale) + "|" +
               std::to_string(shown.offset.x) + "," + std::to_string(shown.offset.y) + "|" +
               (shown.visible ? "v" : "-") + "|" + std::to_string(shown.box.x) + "," + std::to_string(shown.box.y) +
               "," + std::to_string(shown.box.width) + "," + std::to_string(shown.box.height) + "\n";
    }
    for (const Event& event : hud.events())
        all += std::to_string(event.time.count()) + " " + event.id + " " + std::string(to_string(event.kind)) + " " +
               event.detail + "\n";
    return all;
}

TEST(Reload, of_the_same_file_changes_nothing_in_any_frame_of_the_flight) {
    // Three HUDs see the flight: one is left alone, one gets its definition again and again, and one a definition in which a style and an effect
    // that nothing uses come and go, so that each element is changed.
    const Result<Trace> flight = Trace::read_file(sample("flight.csv"));
    const Result<HudDefinition> definition = read_hud_file(sample("hud.toml"));
    ASSERT_TRUE(flight && definition);
    HudDefinition other = *definition;
    other.effects.push_back({.id = "unused", .keyframes = {{.at = 0.5, .scale = 2.0F}}});
    Fonts fonts;
    Images images(std::string(sample("")));
    TracePlayer player(*flight);
    Hud alone(*definition, player.sources(), &fonts, &images), again(*definition, player.sources(), &fonts, &images),
        changed(*definition, player.sources(), &fonts, &images);
    Nanoseconds now{0}, game_now = player.seek(now);
    // The evacuation, the hit, the near miss: the busiest part, with a hitch of a second in it.
    for (int frame = 0; now < 150s; ++frame) {
        const Nanoseconds next = now + (now < 95s ? 400ms : frame == 400 ? 1s : 33ms);
        const Nanoseconds game_next = player.seek(next);
        const Step step{to_seconds(next - now), to_seconds(game_next - game_now)};
        now = next;
        game_now = game_next;
        if (frame % 7 == 3) {
            ASSERT_TRUE(again.reload(*definition).empty());
        }
        if (frame % 5 == 2) {
            ASSERT_TRUE(changed.reload(frame % 2 == 0 ? other : *definition).empty());
        }
        for (Hud* const hud : {&alone, &again, &changed})
            hud->update(step);
        const std::string expected = state_of(alone);
        ASSERT_EQ(state_of(again), expected) << "in frame " << frame;
        ASSERT_EQ(state_of(changed), expected) << "in frame " << frame;
    }
    EXPECT_TRUE(changed.problems().empty());
}

TEST(Reload, keeps_what_is_still_there_and_exchanges_the_rest) {
    double water = 100;
    bool burning = false;
    Sources sources;
    sources.set("water", watch(water));
    sources.set("burning", watch(burning));
    const std::string timers = "timer = [{ id = \"drop\", duration = 40, start_when = \"burning\" }]\n";
    const std::string gauge =
        "[[element]]\nkind = \"bar\"\nid = \"tank\"\nvalue = \"water\"\nmax = 100\n"
        "motion = { kind = \"tween\", duration = 1, easing = \"linear\" }\n";
    const std::string text =
        "[[element]]\nkind = \"text\"\nid = \"left\"\nvalue = \"drop.left\"\n"
        "format = \"{:.0f}\"\n";
    BoxMeasurer measurer;
    Hud hud(read(timers + gauge + text), sources, &measurer);
    const ElementRef tank = hud.find("tank"), left = hud.find("left");
    const ElementRef own = hud.add(Text{.id = "own", .format = "from the game"});
    hud.set_color(tank, rgb(0xff7a3c));
    update(hud, 16ms);
    burning = true;
    update(hud, 0s);
    update(hud, 10s);
    water = 0;
    update(hud, 0s);
    update(hud, 500ms);
    ASSERT_DOUBLE_EQ(*hud.fill_of(tank), 0.5);
    ASSERT_EQ(hud.text_of(left), "30");

    // Broken: all is told, and nothing has changed.
    const Result<HudDefinition> broken = read_hud(timers + gauge + "colour = 3\n", "hud.toml");
    ASSERT_FALSE(broken);
    HudDefinition unfit = read(timers + gauge + text);
    edit(unfit.elements.back(), [](auto& any) {
        if constexpr (requires { any.plural; }) any.format = "{:.0f";
    });
    const Problems refused = hud.reload(unfit);
    ASSERT_EQ(refused.size(), 1U);
    EXPECT_EQ(refused.front().code, ProblemCode::bad_format);
    update(hud, 0s);
    EXPECT_EQ(hud.text_of(left), "30");

    // Another order, another size, a new element, a longer timer, and no text any more.
    const std::string fuel = "[[element]]\nkind = \"text\"\nid = \"fuel\"\nformat = \"FUEL\"\n";
    const Problems none =
        hud.reload(read("timer = [{ id = \"drop\", duration = 60, start_when = \"burning\" }]\nmargin = 8\n" + fuel +
                        gauge + "place = { size = [300, 20] }\n"));
    EXPECT_TRUE(none.empty());
    EXPECT_TRUE(hud.alive(tank) && hud.alive(own));
    EXPECT_FALSE(hud.alive(left));
    update(hud, 250ms);
    EXPECT_DOUBLE_EQ(*hud.fill_of(tank), 0.25) << "the motion goes on";
    EXPECT_EQ(hud[tank].color, rgb(0xff7a3c)) << "what the game has set stays";
    EXPECT_EQ(hud[tank].box, (Rect{8, 8, 300, 20}));
    EXPECT_EQ(hud.timer("drop")->left(), 29'250ms) << "a timer goes on where it was";
    EXPECT_EQ(hud.timer("drop")->duration(), 60s);
    std::string order;
    for (const ElementRef ref : hud.elements())
        order += std::string(hud[ref].id) + " ";
    EXPECT_EQ(order, "fuel tank own ") << "what the game has added stands behind";

    // Back again: the text is a new one, which shows the present.
    EXPECT_TRUE(hud.reload(read(timers + gauge + text)).empty());
    update(hud, 250ms);
    EXPECT_EQ(hud.text_of(hud.find("left")), "29");
    EXPECT_EQ(hud.timer("drop")->duration(), 40s);
    EXPECT_DOUBLE_EQ(*hud.fill_of(tank), 0) << "it has landed";
}

TEST(Reload, takes_each_part_of_a_definition) {
    struct Row {
        const char* what;
        const char* before;
        const char* after;
        std::function<std::string(Hud&)> seen;
        const char* shows_before;
        const char* shows_after;
    };
    const std::string text =
        "[[element]]\nkind = \"text\"\nid = \"a\"\nvalue = \"flag\"\nformat = \"12345678\"\nbands = [{ when = \"flag\" "
        "}]\n";
    const auto color = [](Hud& hud) { return to_string(hud[hud.find("a")].color); };
    const auto shown = [](Hud& hud) { return std::string(hud[hud.find("a")].visible ? "yes" : "no"); };
    const auto opacity = [](Hud& hud) { return std::to_string(hud[hud.find("a")].opacity).substr(0, 4); };
    const auto said = [](Hud& hud) { return std::string(hud.text_of(hud.find("a"))); };
    const auto scaled = [](Hud& hud) {
        hud.play(hud.find("a"), "grow");
        update(hud, 500ms);
        const std::string scale = std::to_string(hud[hud.find("a")].scale).substr(0, 3);
        update(hud, 5s);
        return scale;
    };
    const std::vector<Row> rows{
        {"a theme", "theme.dusk.color = { ink = \"#ff0000\" }\nELEMENTcolor = \"ink\"",
         "theme.dusk.color = { ink = \"#00ff00\" }\nELEMENTcolor = \"ink\"", color, "#ff0000", "#00ff00"},
        {"a style", "style.big.color = \"#ff0000\"\nELEMENTstyle = \"big\"",
         "style.big.color = \"#00ff00\"\nELEMENTstyle = \"big\"", color, "#ff0000", "#00ff00"},
        {"a group that hides", "group = [{ id = \"g\" }]\nELEMENTgroup = \"g\"",
         "group = [{ id = \"g\", visible = \"!flag\" }]\nELEMENTgroup = \"g\"", shown, "yes", "no"},
        {"a group that dims", "group = [{ id = \"g\", dimmed = \"flag\", dim = 0.5 }]\nELEMENTgroup = \"g\"",
         "group = [{ id = \"g\", dimmed = \"flag\", dim = 0.25 }]\nELEMENTgroup = \"g\"", opacity, "0.50", "0.25"},
        {"a group that is gone", "group = [{ id = \"g\", visible = \"!flag\" }]\nELEMENTgroup = \"g\"", "ELEMENT",
         shown, "no", "yes"},
        {"an effect", "effect = [{ id = \"grow\", duration = 1, keyframes = [{ at = 0.5, scale = 2 }] }]\nELEMENT",
         "effect = [{ id = \"grow\", duration = 1, keyframes = [{ at = 0.5, scale = 3 }] }]\nELEMENT", scaled, "2.0",
         "3.0"},
        {"a built-in effect that was replaced",
         "effect = [{ id = \"swell\", duration = 1, keyframes = [{ at = 0.5, scale = 4 }] }]\nELEMENT", "ELEMENT",
         [](Hud& hud) {
             hud.play(hud.find("a"), "swell");
             update(hud, 500ms);
             const bool is_own = hud[hud.find("a")].scale > 3.9F;
             update(hud, 5s);
             return std::string(is_own ? "own" : "built-in");
         },
         "own", "built-in"},
        {"names of compact numbers",
         "compact_names = [\"k\"]\nELEMENTvalue = 2500\nformat = \"{}\"\ncompact_digits = 2",
         "compact_names = [\"T\"]\nELEMENTvalue = 2500\nformat = \"{}\"\ncompact_digits = 2", said, "2.5k", "2.5T"},
        {"a language, with what the HUD says of it",
         "language = [{ language = \"de\", compact_names = [\"Tsd\"] }]\nELEMENTvalue = 2500\nformat = \"{} "
         "l\"\ncompact_digits = 2",
         "language = [{ language = \"de\", compact_names = [\"T\"] }]\nELEMENTvalue = 2500\nformat = \"{} "
         "l\"\ncompact_digits = 2",
         said, "2.5Tsd Liter", "2.5T Liter"},
        {"the margin", "margin = 0\nELEMENTplace = { anchor = \"right\" }",
         "margin = 40\nELEMENTplace = { anchor = \"right\" }",
         [](Hud& hud) { return std::to_string(static_cast<int>(hud[hud.find("a")].box.right())); }, "1280", "1240"}};
    for (const Row& row : rows) {
        SCOPED_TRACE(row.what);
        bool flag = true;
        Sources sources;
        sources.set("flag", watch(flag));
        BoxMeasurer measurer;
        const auto with_element = [&](std::string definition) {
            const std::size_t at = definition.find("ELEMENT");
            std::string element = text;
            // What the row says itself replaces what is usual.
            for (const char* const key : {"value", "format"})
                if (definition.find(std::string("\n") + key + " =") != std::string::npos ||
                    definition.find(std::string("ELEMENT") + key + " =") != std::string::npos)
                    element.erase(element.find(std::string(key) + " ="),
                                  element.find('\n', element.find(std::string(key) + " =")) + 1 -
                                      element.find(std::string(key) + " ="));
            return definition.replace(at, 7, element);
        };
        Hud hud(read(with_element(row.before)), sources, &measurer);
        hud.resize({.size = {640, 360}});
        Language german{.tag = "de"};
        german.translations["{} l"] = Translation::of("{} Liter");
        hud.set_language(german);
        update(hud, 16ms);
        EXPECT_EQ(row.seen(hud), row.shows_before);
        EXPECT_TRUE(hud.reload(read(with_element(row.after))).empty());
        update(hud, 16ms);
        EXPECT_EQ(row.seen(hud), row.shows_after);
        EXPECT_TRUE(hud.problems().empty());
    }
}

TEST(Reload, refuses_an_element_where_the_game_has_another_one) {
    Hud hud(read("[[element]]\nkind = \"text\"\nid = \"a\"\nformat = \"A\"\n"));
    hud.add(Bar{.id = "b", .value = 1, .max = 2});
    update(hud, 16ms);
    const Problems refused = hud.reload(read("[[element]]\nkind = \"text\"\nid = \"b\"\nformat = \"B\"\n"));
    ASSERT_EQ(refused.size(), 1U);
    EXPECT_EQ(to_string(refused.front()),
              "error: text 'b' stands where the game has added bar 'b'; give it another id");
    EXPECT_TRUE(hud.alive(hud.find("a")));
}

TEST(Reload, knows_the_timers_of_the_game) {
    Countdown fuse{10s};
    Hud hud;
    hud.add_timer("fuse", fuse);
    const std::string text = "[[element]]\nkind = \"text\"\nid = \"a\"\nvalue = \"fuse.left\"\nformat = \"{:.0f}\"\n";
    EXPECT_TRUE(hud.reload(read(text)).empty());
    const Problems late = hud.reload(read(text + "visible = \"fuze.running\"\n"));
    ASSERT_EQ(late.size(), 1U) << "a name that nobody has yet is told, and may come later";
    EXPECT_EQ(late.front().code, ProblemCode::unknown_source);
    update(hud, 16ms);
    EXPECT_EQ(hud.text_of(hud.find("a")), "10");
}

TEST(Reload, is_part_of_a_recording) {
    std::stringstream file;
    int acres = 7;
    Sources sources;
    sources.set("acres", watch(acres));
    const std::string text = "[[element]]\nkind = \"text\"\nid = \"a\"\nvalue = \"acres\"\nformat = ";
    std::vector<std::string> shown;
    {
        RecordingWriter writer(file);
        Hud hud(read(text + "\"{} acres\"\n"), sources);
        ASSERT_TRUE(record(hud, &writer));
        update(hud, 16ms);
        EXPECT_TRUE(hud.reload(read(text + "\"{} saved\"\n")).empty());
        update(hud, 16ms);
        record(hud, nullptr);
    }
    const Result<Recording> recording = Recording::read(file.str(), "flight.jsonl");
    ASSERT_TRUE(recording) << to_string(recording.problems().front());
    RecordingPlayer player(*recording);
    Hud hud(recording->definition(), player.sources());
    while (player.update(hud))
        shown.emplace_back(hud.text_of(hud.find("a")));
    EXPECT_EQ(shown, (std::vector<std::string>{"7 acres", "7 saved"}));
}

// --- Files

/// A folder whose files differ by the time of their last change, also when they are written in one tick of the clock.
class Saved {
 public:
    Saved() { std::filesystem::create_directories(path("parts")); }
    std::string path(const std::string& name) const { return folder_.path(name); }
    void write(const std::string& name, const std::string& text) {
        folder_.write(name, text);
        ++written_;
        std::filesystem::last_write_time(
            path(name), std::filesystem::file_time_type::clock::now() + std::chrono::milliseconds(written_));
    }

 private:
    TemporaryFolder folder_;
    int written_ = 0;
};

std::string element(const std::string& id, const std::string& rest = {}) {
    return "[[element]]\nkind = \"text\"\nid = \"" + id + "\"\nformat = \"" + id + "\"\n" + rest;
}

TEST(HudFile, is_read_again_when_it_or_what_it_includes_was_saved) {
    Saved folder;
    folder.write("hud.toml", "include = [\"parts/gauges.toml\"]\n" + element("b"));
    folder.write("parts/gauges.toml", element("a"));
    HudFile file(folder.path("hud.toml"));
    EXPECT_TRUE(file.has_changed()) << "it was not read yet";
    // A file is looked at twenty times a second.
    const auto looks = [&] {
        std::this_thread::sleep_for(55ms);
        return file.has_changed();
    };
    const auto saved = [&] { return looks() || looks(); };
    Hud hud;
    EXPECT_TRUE(file.reload(hud).empty());
    const auto ids = [&] {
        std::string all;
        for (const ElementRef ref : hud.elements())
            all += std::string(hud[ref].id);
        return all;
    };
    EXPECT_EQ(ids(), "ab") << "what is included comes first";
    EXPECT_FALSE(saved());
    folder.write("parts/gauges.toml", "");
    EXPECT_FALSE(looks()) << "it is being written";
    folder.write("parts/gauges.toml", element("a") + element("c"));
    EXPECT_FALSE(looks()) << "it may be written still";
    EXPECT_FALSE(file.has_changed()) << "asked again at once, it is not looked at";
    EXPECT_TRUE(looks());
    EXPECT_TRUE(file.reload(hud).empty());
    EXPECT_EQ(ids(), "acb");
    folder.write("parts/gauges.toml", element("a") + element("d", "colour = 1\n"));
    const Problems problems = file.reload(hud);
    ASSERT_EQ(problems.size(), 1U);
    EXPECT_EQ(problems.front().location.file, folder.path("parts/gauges.toml"));
    EXPECT_EQ(problems.front().location.line, 9);
    EXPECT_EQ(ids(), "acb") << "the last good one stays";
    EXPECT_FALSE(saved());
    // A file that comes later is waited for.
    folder.write("hud.toml", "include = [\"parts/more.toml\"]\n" + element("b"));
    EXPECT_EQ(file.reload(hud).front().code, ProblemCode::unreadable);
    EXPECT_FALSE(saved());
    folder.write("parts/more.toml", element("m"));
    EXPECT_TRUE(saved());
    EXPECT_TRUE(file.reload(hud).empty());
    EXPECT_EQ(ids(), "mb");
    std::filesystem::remove(folder.path("hud.toml"));
    EXPECT_TRUE(saved());
    EXPECT_EQ(file.reload(hud).front().code, ProblemCode::unreadable);
    EXPECT_EQ(ids(), "mb");
}

TEST(HudFile, replaces_what_it_includes_under_the_same_name) {
    const std::map<std::string, std::string> files{
        {"base.toml",
         "font_files = [\"a.ttf\"]\n"
         "theme.dusk.color = { ink = \"#111111\" }\ntheme.noon.color = { ink = \"#222222\" }\n"
         "style.caption = { size = 10, color = \"#333333\" }\n"
         "effect = [{ id = \"hit\", duration = 1 }, { id = \"rest\", duration = 2 }]\n"
         "group = [{ id = \"g\", dim = 0.1 }]\n"
         "source.water = { range = [0, 10] }\n"
         "component.gauge = { element = [{ kind = \"text\", id = \"t\", format = \"old\" }] }\n"},
        {"twice.toml", "include = [\"base.toml\"]\n"}};
    const IncludeReader includes = [&](const std::string& path) -> Result<std::string> {
        const auto file = files.find(path);
        if (file == files.end()) return Problem{{}, "is not there", "", ProblemCode::unreadable};
        return file->second;
    };
    const Result<HudDefinition> made = read_hud(
        "include = [\"base.toml\", \"twice.toml\"]\nfont_files = [\"b.ttf\", \"a.ttf\"]\n"
        "theme.dusk.color = { ink = \"#444444\" }\nstyle.caption = { size = 12 }\n"
        "effect = [{ id = \"hit\", duration = 3 }]\ngroup = [{ id = \"g\", dim = 0.2 }]\n"
        "source.water = { range = [0, 20] }\n"
        "component.gauge = { element = [{ kind = \"text\", id = \"t\", format = \"new\" }] }\n"
        "element = [{ kind = \"gauge\", id = \"x\" }, { kind = \"text\", id = \"y\", style = \"caption\" "
        "}]\n",
        "hud/main.toml", includes);
    ASSERT_TRUE(made) << to_string(made.problems().front());
    EXPECT_EQ(made->files, (std::vector<std::string>{"hud/main.toml", "hud/base.toml", "hud/twice.toml"}));
    EXPECT_EQ(made->font_files, (std::vector<std::string>{"a.ttf", "b.ttf"}));
    ASSERT_EQ(made->themes.size(), 2U);
    EXPECT_EQ(made->themes[0].color.at("ink"), rgb(0x444444)) << "in the place of the first";
    ASSERT_EQ(made->effects.size(), 2U);
    EXPECT_EQ(made->effects[0].duration, 3s);
    EXPECT_EQ(made->groups.size(), 1U);
    EXPECT_EQ(made->groups[0].dim, 0.2F);
    EXPECT_EQ(made->sources.at(0).range.high, 20);
    const Text text = *made->elements.at(1).as<Text>();
    EXPECT_EQ(text.format, "new");
    const Text styled = *made->elements.at(2).as<Text>();
    EXPECT_EQ(styled.size, 12);
    EXPECT_EQ(styled.color, Text{}.color) << "a style is replaced as a whole";
}

TEST(HudFile, tells_what_cannot_be_included) {
    Saved folder;
    folder.write("outside.toml", element("a"));
    folder.write("parts/loop.toml", "include = [\"other.toml\"]\n");
    folder.write("parts/other.toml", "include = [\"loop.toml\"]\n");
    folder.write("parts/broken.toml", "x = \n");
    std::error_code error;
    std::filesystem::create_symlink(folder.path("outside.toml"), folder.path("parts/link.toml"), error);
    const std::vector<std::pair<std::string, std::string>> rows{
        {"include = \"a.toml\"", "1:11: error: 'include' is a text; expected a list of HUD files, [\"gauges.toml\"]"},
        {"include = [3]", "1:12: error: 'include' is a number; expected a list of HUD files, [\"gauges.toml\"]"},
        {"include = [\"../outside.toml\"]",
         "1:12: error: 'include' of '../outside.toml': lies outside of the folder of the HUD; a path is "
         "relative to "
         "that folder, and has no '..'"},
        {"include = [\"/etc/passwd\"]",
         "1:12: error: 'include' of '/etc/passwd': lies outside of the folder of the HUD; a path is relative "
         "to that "
         "folder, and has no '..'"},
        {"include = [\"link.toml\"]",
         "1:12: error: 'include' of 'link.toml': lies outside of the folder of the HUD, through a link; put "
         "the file "
         "itself there"},
        {"include = [\"none.toml\"]",
         "1:12: error: 'include' of 'none.toml': cannot be opened: No such file or directory"},
        {"includ = [\"loop.toml\"]", "1:1: error: unknown key 'includ' in the HUD; did you mean 'include'?"}};
    for (const auto& [text, expected] : rows) {
        if (error && text.find("link.toml") != std::string::npos) continue;  // under Wine there are no links
        folder.write("parts/hud.toml", text + "\n");
        const Result<HudDefinition> made = read_hud_file(folder.path("parts/hud.toml"));
        ASSERT_FALSE(made) << text;
        EXPECT_EQ(to_string(made.problems().front()), folder.path("parts/hud.toml") + ":" + expected);
    }
    // What is refused is not looked at again, and does not change with each look.
    folder.write("parts/hud.toml", "include = [\"../outside.toml\"]\n");
    HudFile followed(folder.path("parts/hud.toml"));
    ASSERT_FALSE(followed.read());
    for (int look = 0; look < 4; ++look) {
        EXPECT_FALSE(followed.has_changed());
        std::this_thread::sleep_for(std::chrono::milliseconds(60));
    }
    folder.write("parts/hud.toml", "include = [\"loop.toml\"]\n");
    EXPECT_EQ(
        to_string(read_hud_file(folder.path("parts/hud.toml")).problems().front()),
        folder.path("parts/other.toml") + ":1:12: error: 'include' of 'loop.toml': it includes this file in turn");
    folder.write("parts/hud.toml", "include = [\"broken.toml\"]\n");
    EXPECT_EQ(read_hud_file(folder.path("parts/hud.toml")).problems().front().location,
              (Location{folder.path("parts/broken.toml"), 1, 5}));
    EXPECT_EQ(read_hud("include = [\"a.toml\"]\n", "a").problems().front().message,
              "'include' of 'a.toml': this HUD is no file in a folder");
}

TEST(Reload, lets_a_group_follow_a_timer_that_comes_with_it) {
    Hud hud;
    EXPECT_TRUE(
        hud.reload(read("[[group]]\nid = \"g\"\nvisible = \"t.running\"\n[[timer]]\nid = \"t\"\nduration = 1\n" +
                        std::string("[[element]]\nkind = \"text\"\nid = \"x\"\nformat = \"x\"\ngroup = \"g\"\n")))
            .empty());
    update(hud, 500ms);
    EXPECT_TRUE(hud[hud.find("x")].visible);
    update(hud, 600ms);
    update(hud, 0s);
    EXPECT_FALSE(hud[hud.find("x")].visible);
}

TEST(Reload, gives_what_the_game_has_added_the_effects_and_styles_of_now) {
    BoxMeasurer measurer;
    int water = 1;
    HudDefinition definition;
    definition.effects.push_back({.id = "pop", .duration = Seconds{1}, .keyframes = {{.at = 0.5F, .scale = 2}}});
    definition.styles.push_back({.id = "key", .color = rgb(0xff0000)});
    definition.elements.push_back(
        Text{.id = "own", .value = by_name("water"), .triggers = {{.on = TriggerOn::gain, .effect = "pop"}}});
    Sources sources;
    sources.set("water", watch(water));
    Hud hud(definition, sources, &measurer);
    const Text added{
        .value = watch(water), .format = "{#key}{}{/key}", .triggers = {{.on = TriggerOn::gain, .effect = "pop"}}};
    Text named = added;
    named.id = "game";
    const ElementRef game = hud.add(named);
    const auto scale_after_a_gain = [&] {
        update(hud, 2s);
        ++water;
        update(hud, 16ms);
        update(hud, 500ms);
        return hud[game].scale;
    };
    const auto color = [&] {
        DisplayList list;
        hud.draw(list);
        return list.groups().back().items().front().color;
    };
    EXPECT_GT(scale_after_a_gain(), 1.9F);
    EXPECT_EQ(color(), rgb(0xff0000));
    for (int time = 0; time < 3; ++time) {
        SCOPED_TRACE(time);
        definition.effects[0].keyframes[0].scale = 3;
        definition.styles[0].color = rgb(0x00ff00);
        EXPECT_TRUE(hud.reload(definition).empty());
        EXPECT_GT(scale_after_a_gain(), 2.9F);
        EXPECT_EQ(color(), rgb(0x00ff00));
        // In flight it goes on as it was.
        definition.effects[0].keyframes[0].scale = 5;
        ++water;
        update(hud, 16ms);
        EXPECT_TRUE(hud.reload(definition).empty());
        update(hud, 500ms);
        EXPECT_NEAR(hud[game].scale, 3, 0.1);
    }
    // What names something that is gone stays as it was, and is told.
    definition.effects.clear();
    definition.elements.clear();
    const Problems told = hud.reload(definition);
    ASSERT_EQ(told.size(), 1U);
    EXPECT_EQ(told.front().code, ProblemCode::unknown_name);
    EXPECT_EQ(told.front().severity, Severity::warning);
    EXPECT_EQ(hud.problems().size(), 1U);
    EXPECT_GT(scale_after_a_gain(), 4.9F);
    // A name of the game that is still to come is no fault of the definition, and is told as before.
    hud.remove(game);
    hud.add(Text{.id = "waits", .value = by_name("later")});
    definition.styles.front().size = 40;
    EXPECT_TRUE(hud.reload(definition).empty());
    ASSERT_EQ(hud.problems().size(), 1U);
    EXPECT_EQ(hud.problems().front().code, ProblemCode::unknown_source);
}

}  // namespace reload_test
}  // namespace rapido::test
