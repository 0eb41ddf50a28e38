// Looks that come from the game: colors, images, fonts, how far something is turned, moved, and seen.
#include <cmath>

#include "draw_words.hpp"
#include "pixels.hpp"
#include "rapido/file.hpp"

namespace rapido::test {
namespace data_look_test {

constexpr Color bone = rgb(0xf2efe6), teal = rgb(0x38b6c9), ember = rgb(0xff7a3c), leaf = rgb(0x8fce5a);

TEST(Data, gives_a_color_as_a_color_a_text_or_a_name_of_the_theme) {
    Color team = teal;
    std::string word = "#ff7a3c";
    std::optional<Color> maybe;
    float hull = 50;
    HudDefinition definition;
    definition.themes = {{.id = "day", .color = {{"friend", leaf}}}, {.id = "night", .color = {{"friend", teal}}}};
    Hud hud(definition);
    const auto a = hud.add(Text{.id = "a", .format = "x", .color = watch(team)});
    const auto b = hud.add(Bar{.id = "b",
                               .value = watch(hull),
                               .max = 100,
                               .motion = tween(1s),
                               .bands = {{.id = "low", .below = 0.2, .color = ember}},
                               .color = watch(word)});
    const auto c = hud.add(Panel{.id = "c", .color = watch([&] { return team; })});
    const auto d = hud.add(Text{.id = "d", .format = "x", .color = watch(maybe)});
    ASSERT_TRUE(hud.problems().empty()) << to_string(hud.problems()[0]);
    update(hud, 0s);
    EXPECT_EQ(hud[a].color, teal) << "in the first frame";
    EXPECT_EQ(hud[b].color, ember);
    EXPECT_EQ(hud[c].color, teal);
    EXPECT_EQ(hud[d].color, bone) << "no value is the usual one";
    team = leaf;
    word = "friend";
    maybe = ember;
    hull = 60;
    update(hud, 16ms);
    EXPECT_EQ(hud[a].color, leaf);
    EXPECT_EQ(hud[b].color, leaf) << "a name of the theme";
    EXPECT_EQ(hud[c].color, leaf);
    EXPECT_EQ(hud[d].color, ember);
    EXPECT_NEAR(*hud[b].fill, 0.5, 0.01) << "what is in flight goes on";
    update(hud, 500ms);
    hud.set_theme("night");
    update(hud, 16ms);
    EXPECT_EQ(hud[b].color, teal) << "the other theme";
    hull = 10;
    word = "nobody";
    update(hud, 16ms);
    std::vector<std::string> told;
    for (const Event& event : hud.events())
        told.push_back(event.id + " " + std::string(to_string(event.kind)));
    EXPECT_EQ(told, std::vector<std::string>{"b band_enter"}) << "in the frame in which the color changes, too";
    EXPECT_EQ(hud[b].color, ember) << "bands come first";
    ASSERT_EQ(hud.problems().size(), 1U);
    EXPECT_EQ(hud.problems()[0].message, "'color' of bar 'b' is 'nobody', and no theme has such a color");
    maybe.reset();
    update(hud, 16ms);
    EXPECT_EQ(hud[d].color, bone);
    for (int i = 0; i < 10; ++i)
        update(hud, 16ms);
    EXPECT_EQ(hud.problems().size(), 1U);
}

TEST(Data, turns_moves_scales_and_dims_what_is_drawn) {
    double heading = 90, hour = 6;
    float fog = 0.25F;
    BoxMeasurer measurer;
    Hud hud({}, {}, &measurer);
    hud.resize({.size = {1280, 720}});
    const auto arrow = hud.add(Panel{.id = "arrow",
                                     .place = {.anchor = Anchor::center, .size = {40, 10}},
                                     .opacity = 1 - watch(fog),
                                     .rotation = watch(heading),
                                     .scale = watch(hour) / 12,
                                     .shift = {watch(hour) * 10, -20}});
    const auto inside = hud.add(Text{.id = "t", .format = "x", .inside = "arrow"});
    ASSERT_TRUE(hud.problems().empty()) << to_string(hud.problems()[0]);
    const Rect place = [&] {
        update(hud, 0s);
        return hud[arrow].box;
    }();
    const auto middle = [&] {
        DisplayList list;
        hud.draw(list);
        const Transform& transform = list.groups()[0].transform();
        return transform.apply({place.x + place.width / 2, place.y + place.height / 2});
    };
    for (const auto& [turn, at, dim] :
         std::vector<std::tuple<double, double, float>>{{90, 6, 0.25F}, {10, 12, 0.5F}, {-45, 18, 0}}) {
        heading = turn;
        hour = at;
        fog = dim;
        update(hud, 16ms);
        EXPECT_NEAR(hud[arrow].rotation, turn, 1e-4);
        EXPECT_NEAR(hud[arrow].scale, at / 12, 1e-5);
        EXPECT_NEAR(hud[arrow].opacity, 1 - dim, 1e-5);
        EXPECT_NEAR(hud[inside].opacity, 1 - dim, 1e-5) << "and what stands inside";
        EXPECT_NEAR(middle().x, place.x + place.width / 2 + at * 10, 1e-3);
        EXPECT_NEAR(middle().y, place.y + place.height / 2 - 20, 1e-3);
        EXPECT_EQ(hud[arrow].box, place) << "it stands where it stood";
    }
    heading = double(NAN);
    fog = -3;
    update(hud, 16ms);
    EXPECT_EQ(hud[arrow].rotation, 0) << "no number is the usual one";
    EXPECT_EQ(hud[arrow].opacity, 1) << "limited to its range";
}

TEST(Data, colors_what_stands_in_lists_bands_zones_parts_and_ticks) {
    Color color = leaf;
    std::string word;
    const Place box{.offset = {10, 10}, .size = {80, 80}};
    const auto elements = [&](const Themed<Color>& of) {
        return std::vector<Element>{
            Bar{.id = "e", .value = 0.2, .place = box, .radius = 0, .parts = {{.value = 0.5, .color = of}}},
            Bar{.id = "e",
                .value = 0.2,
                .place = box,
                .radius = 0,
                .ticks = {.at = {{.at = 0.1}, {.at = 0.5, .thickness = 8, .color = of}}}},
            Bar{.id = "e",
                .value = 0.5,
                .bands = {{.below = 0.2}, {.below = 0.9, .color = of}},
                .place = box,
                .radius = 0},
            Dial{.id = "e", .value = 0.5, .place = box, .thickness = 20, .zones = {{.from = 0, .to = 1, .color = of}}},
            Panel{.id = "e", .place = box, .radius = 0, .bands = {{.when = watch([] { return true; }), .color = of}}},
        };
    };
    const auto shows = [](Stage& stage, Color wanted) {
        const Picture picture = stage.shot();
        for (int y = 0; y < 100; ++y)
            for (int x = 0; x < 100; ++x)
                if (picture.pixel(x, y) == wanted) return true;
        return false;
    };
    for (std::size_t i = 0; i < elements(leaf).size(); ++i) {
        color = leaf;
        Stage stage(elements(watch(color))[i], 100, 100);
        stage.first();
        stage.pass(16ms);
        EXPECT_TRUE(shows(stage, leaf)) << i;
        color = ember;
        stage.pass(16ms);
        stage.pass(2s);
        EXPECT_TRUE(shows(stage, ember)) << i;
        EXPECT_FALSE(shows(stage, leaf)) << i;
        // By words, and by none: then it looks as one that says nothing.
        Stage said(elements(watch(word))[i], 100, 100), plain(elements(leaf)[i], 100, 100);
        word.clear();
        said.first();
        EXPECT_FALSE(shows(said, leaf)) << i;
        word = "#8fce5a";
        said.pass(16ms);
        said.pass(2s);
        plain.first();
        plain.pass(2s);
        EXPECT_EQ(shows(said, leaf), shows(plain, leaf)) << i;
    }
    EXPECT_TRUE(
        read_hud("[[element]]\nkind = 'dial'\nid = 'd'\nvalue = 1\nzones = [{ from = 0, to = 1, color = { source = "
                 "'a' } }]\n",
                 "hud.toml"));
}

TEST(Data, says_once_which_image_is_missing_whoever_asks_for_it) {
    Images images("");
    ASSERT_TRUE(images.add("coin.png", 8, 8, std::vector<Color>(64, rgb(0xff0000))));
    int value = 3;
    Hud hud({.elements = {Text{.id = "t", .value = watch(value), .format = "{} {#coin/}"}, Notice{.id = "n"},
                          Image{.id = "i", .image = "coin.png"}}},
            {}, &Stage::fonts(), &images);
    const FunctionCatalogue words([](std::string_view text) -> std::optional<std::string> {
        if (text == "{} gems") return "{} {#gem/}";
        if (text == "hello") return "hallo {#flag/}";
        return std::nullopt;
    });
    const std::vector<std::pair<std::string, std::function<void()>>> calls{
        {"", [] {}},
        {"lamp.png", [&] { hud.set_format(hud.find("t"), "{} {#lamp/}"); }},
        {"", [&] { hud.set_format(hud.find("t"), "{} gems"); }},
        {"gem.png",
         [&] {
             Language german;
             german.tag = "de";
             german.catalogue = &words;
             hud.set_language(german);
         }},
        {"flag.png", [&] { hud.notify(hud.find("n"), {.text = "hello"}); }},
        {"other.png", [&] { hud.change<Image>(hud.find("i"), [](Image& image) { image.image = "other.png"; }); }},
        {"last.png",
         [&] {
             hud.reset(hud.find("t"));
             hud.change<Text>(hud.find("t"), [](Text& text) { text.format = "{#last/}"; });
         }},
    };
    for (const auto& [missing, call] : calls) {
        call();
        for (int i = 0; i < 3; ++i)
            update(hud, 16ms);
        const auto told = hud.new_problems();
        ASSERT_EQ(told.size(), missing.empty() ? 0U : 1U) << missing;
        if (missing.empty()) continue;
        EXPECT_EQ(told[0].code, ProblemCode::missing_image);
        EXPECT_NE(told[0].message.find("'" + missing + "'"), std::string::npos) << told[0].message;
    }
}

TEST(Data, gives_images_and_fonts_and_says_what_is_missing_once) {
    std::string icon = "red", family = "monospace";
    Images images("");
    ASSERT_TRUE(images.add("red", 8, 8, std::vector<Color>(64, rgb(0xff0000))));
    ASSERT_TRUE(images.add("wide", 24, 8, std::vector<Color>(192, rgb(0x00ff00))));
    Hud hud({}, {}, &Stage::fonts(), &images);
    hud.resize({.size = {640, 400}});
    const auto picture = hud.add(Image{.id = "i", .image = watch(icon)});
    const auto text = hud.add(Text{.id = "t", .format = "iiii", .font = watch(family)});
    ASSERT_TRUE(hud.problems().empty()) << to_string(hud.problems()[0]);
    update(hud, 0s);
    EXPECT_EQ(hud[picture].box.width, 8);
    const float wide = hud[text].box.width;
    icon = "wide";
    family = "sans-serif";
    update(hud, 16ms);
    EXPECT_EQ(hud[picture].box.width, 24);
    EXPECT_LT(hud[text].box.width, wide);
    icon = "gone";
    for (int i = 0; i < 3; ++i)
        update(hud, 16ms);
    ASSERT_EQ(hud.problems().size(), 1U);
    EXPECT_EQ(hud.problems()[0].code, ProblemCode::missing_image);
    icon = "red";
    update(hud, 16ms);
    EXPECT_EQ(hud[picture].box.width, 8);
    EXPECT_EQ(hud.problems().size(), 1U);
}

TEST(Data, is_read_from_files_lists_and_declarations) {
    const std::string file = R"([source."wind.heading"]
type = "number"
range = [0, 360]

[source.pilots]
type = "entries"
fields = { tint = { type = "color" }, icon = { type = "image" } }

[theme.plain]
color = { ember = "#ff7a3c" }

[component.row]
parameters = { tint = "source", icon = "source" }
element = [
    { kind = "panel", id = "dot", color = { source = "$tint" }, place = { size = [8, 8] } },
    { kind = "image", id = "icon", image = { source = "$icon" } },
]

[[element]]
kind = "list"
id = "board"
entries = "pilots"
component = "row"

[[element]]
kind = "panel"
id = "vane"
rotation = "wind.heading - 90"
opacity = 0.5
shift = ["wind.heading / 10", 4]
)";
    const Result<HudDefinition> read = read_hud(file, "hud.toml");
    ASSERT_TRUE(read) << to_string(read.problems()[0]);
    const Result<std::string> written = write_hud(*read);
    ASSERT_TRUE(written);
    const Result<HudDefinition> again = read_hud(*written, "again.toml");
    ASSERT_TRUE(again) << to_string(again.problems()[0]) << *written;
    EXPECT_EQ(again->elements, read->elements);
    EXPECT_NE(written->find("shift = [\"wind.heading / 10\", 4]"), std::string::npos) << *written;

    struct Pilot {
        Color color;
        std::string icon;
    };
    std::vector<Pilot> pilots{{teal, ""}, {leaf, ""}};
    double heading = 100;
    Sources sources;
    sources.set("wind.heading", watch(heading));
    sources.set("pilots", watch_entries(pilots, entry_field("tint", &Pilot::color), entry_field("icon", &Pilot::icon)));
    Hud hud(*again, sources);
    ASSERT_TRUE(hud.problems().empty()) << to_string(hud.problems()[0]);
    update(hud, 16ms);
    EXPECT_EQ(hud[hud.find("board.1.dot")].color, teal);
    EXPECT_EQ(hud[hud.find("board.2.dot")].color, leaf);
    EXPECT_NEAR(hud[hud.find("vane")].rotation, 10, 1e-4);
    std::swap(pilots[0], pilots[1]);
    update(hud, 16ms);
    EXPECT_EQ(hud[hud.find("board.1.dot")].color, leaf);

    for (const auto& [lines, says] : std::vector<std::pair<std::string, std::string>>{
             {"color = { source = 'no.name' }", "unknown source 'no.name'"},
             {"rotation = true", "expected a number, or the name of a source"},
             {"shift = 4", "expected two numbers or sources, [x, y]"},
             {"opacity = 2", "expected 0 to 1"},
             {"bands = [{ when = 'wind.heading', color = { source = 'no.color' } }]",
              "'bands.0.color' of panel 'p': unknown source 'no.color'"}}) {
        const Result<HudDefinition> wrong =
            read_hud("[[element]]\nkind = 'panel'\nid = 'p'\n" + lines + "\n", "wrong.toml");
        std::string said;
        if (!wrong) {
            said = to_string(wrong.problems()[0]);
        } else {
            Hud made(*wrong, sources);
            ASSERT_FALSE(made.problems().empty()) << lines;
            said = to_string(made.problems()[0]);
        }
        EXPECT_NE(said.find(says), std::string::npos) << said;
    }
}

TEST(Data, colors_what_is_said_in_a_notice_and_in_a_log) {
    Color team = teal;
    bool alert = false;
    Hud hud;
    const auto notice = hud.add(
        Notice{.id = "n", .messages = {{.id = "m", .text = "ALERT", .when = watch(alert)}}, .color = watch(team)});
    const auto log = hud.add(Notice{.id = "log", .at_most = 3, .color = watch(team)});
    ASSERT_TRUE(hud.problems().empty()) << to_string(hud.problems()[0]);
    update(hud, 16ms);
    alert = true;
    hud.notify(log, {.text = "first", .lasting = true});
    update(hud, 16ms);
    EXPECT_EQ(hud[notice].color, teal);
    for (const Color color : {leaf, ember, teal}) {
        team = color;
        for (int frame = 0; frame < 3; ++frame) {
            update(hud, 16ms);
            EXPECT_EQ(hud[notice].color, color);
            EXPECT_EQ(hud.text_of(notice), "ALERT");
            EXPECT_EQ(hud[hud.find("log.1")].color, color);
            EXPECT_EQ(hud.text_of(hud.find("log.1")), "first");
        }
    }
    hud.notify(log, {.text = "second", .lasting = true});
    update(hud, 16ms);
    EXPECT_EQ(hud.text_of(hud.find("log.2")), "second");
    EXPECT_TRUE(hud.events().size() == 1 && hud.problems().empty());
}

/// A text with a style of its own, a piece of another, and an image, as the game gives them and as a HUD says that has them written out.
struct Styled {
    Color team = teal;
    std::string rarity, icon = "red.png";
    Images images{""};
    HudDefinition definition;

    Styled() {
        EXPECT_TRUE(images.add("red.png", 8, 8, std::vector<Color>(64, rgb(0xff0000))));
        EXPECT_TRUE(images.add("wide.png", 24, 8, std::vector<Color>(192, rgb(0x00ff00))));
        definition.styles = {{.id = "team", .color = Themed<Color>(watch(team)), .weight = 700},
                             {.id = "rare", .color = Themed<Color>(ember), .size = 40},
                             {.id = "epic", .color = Themed<Color>(watch(team)), .italic = true}};
        definition.elements = {
            Text{.id = "t",
                 .inline_images = {{.name = "icon", .image = watch(icon)}},
                 .format = "{#icon/}Axe of {#team}fire{/team}",
                 .style = watch(rarity)},
            Notice{.id = "n",
                   .messages = {{.id = "m", .text = "{#team}ALERT{/team}", .when = constant(true), .lasting = true}}}};
    }
    /// The same with what is given now.
    HudDefinition written_out() const {
        HudDefinition now = definition;
        for (TextStyle& style : now.styles)
            if (style.color && style.color->source() != nullptr) style.color = Themed<Color>(team);
        Text text = *now.elements[0].as<Text>();
        const auto style =
            std::find_if(now.styles.begin(), now.styles.end(), [&](const TextStyle& s) { return s.id == rarity; });
        text.style = {};
        if (style != now.styles.end()) {
            text.color = *style->color;
            text.size = style->size.value_or(text.size);
            text.italic = style->italic.value_or(text.italic);
        }
        if (icon.empty()) {
            text.inline_images = {};
            text.format = text.format.substr(text.format.find('}') + 1);
        } else {
            text.inline_images = {{.name = "icon", .value = constant(0), .images = {icon}}};
        }
        now.elements[0] = text;
        return now;
    }
    void expect_as_written_out(Hud& hud, const std::string& when) {
        Hud twin(written_out(), {}, &Stage::fonts(), &images);
        twin.resize({.size = {640, 400}});
        update(twin, 0s);
        update(twin, 1s);
        DisplayList is, should_be;
        hud.draw(is);
        twin.draw(should_be);
        EXPECT_EQ(words_of(is), words_of(should_be)) << when;
    }
};

TEST(Data, gives_the_style_of_a_text_the_colors_of_its_pieces_and_its_images) {
    Styled given;
    Hud hud(given.definition, {}, &Stage::fonts(), &given.images);
    hud.resize({.size = {640, 400}});
    ASSERT_TRUE(hud.problems().empty()) << to_string(hud.problems()[0]);
    update(hud, 0s);
    update(hud, 1s);
    const auto then = [&](const std::string& what) {
        update(hud, 16ms);
        given.expect_as_written_out(hud, what);
    };
    then("as it is made");
    given.team = leaf;
    then("another color of a piece, and of what a notice says");
    given.rarity = "rare";
    then("a style of all of it");
    given.rarity = "epic";
    then("one that follows the game itself");
    given.team = ember;
    then("which it does");
    given.icon = "wide.png";
    then("another image");
    given.icon.clear();
    then("none");
    given.icon = "red.png";
    given.rarity.clear();
    then("none of all of it");
    const ElementRef text = hud.find("t");
    hud.set_format(text, "{#icon/}Bow of {#epic}ice{/epic}");
    given.definition.elements[0] = [&] {
        Text other = *given.definition.elements[0].as<Text>();
        other.format = "{#icon/}Bow of {#epic}ice{/epic}";
        return other;
    }();
    then("a format of the game with another style");
    given.team = teal;
    then("which is followed, too");
    hud.reset(text);
    hud.reload(given.definition);
    given.team = leaf;
    then("the same by a reload");
    hud.set_text_scale(1);
    given.team = ember;
    then("after a call that measures all anew");
    EXPECT_TRUE(hud.problems().empty()) << to_string(hud.problems()[0]);
    given.rarity = "nobody";
    for (int frame = 0; frame < 3; ++frame)
        then("a style that there is not");
    std::vector<std::string> told;
    for (const Problem& problem : hud.problems())
        told.push_back(problem.message);
    EXPECT_EQ(told, std::vector<std::string>{"'style' of text 't': no style 'nobody'"});
    hud.remove(text);
    update(hud, 16ms);
    given.team = leaf;
    update(hud, 16ms);
}

TEST(Data, names_in_a_file_the_source_of_a_style) {
    const std::string file = R"([style.rare]
color = "#ff7a3c"

[style.team]
color = { source = "team.color" }

[[element]]
kind = "text"
id = "axe"
format = "Axe {#team}of fire{/team} {#icon/}"
style = { source = "item.rarity" }
inline_images = [{ name = "icon", image = { source = "item.icon" } }]
)";
    const Result<HudDefinition> read = read_hud(file, "hud.toml");
    ASSERT_TRUE(read) << to_string(read.problems()[0]);
    const Result<std::string> written = write_hud(*read);
    ASSERT_TRUE(written);
    const Result<HudDefinition> again = read_hud(*written, "again.toml");
    ASSERT_TRUE(again) << to_string(again.problems()[0]) << *written;
    EXPECT_EQ(again->elements, read->elements);
    EXPECT_EQ(again->styles, read->styles);
    std::string rarity = "rare";
    Sources sources;
    sources.set("item.rarity", watch(rarity));
    Hud hud(*again, sources);
    update(hud, 16ms);
    EXPECT_EQ(hud[hud.find("axe")].color, ember);
    std::vector<std::string> told;
    for (const Problem& problem : hud.problems())
        told.push_back(problem.message);
    EXPECT_EQ(told, (std::vector<std::string>{"'inline_images.0.image' of text 'axe': unknown source 'item.icon'",
                                              "'style.team.color' of text 'axe': unknown source 'team.color'"}));
    for (const auto& [lines, says] : std::vector<std::pair<std::string, std::string>>{
             {"[[element]]\nkind = 'bar'\nid = 'b'\nvalue = 1\nstyle = { source = 'item.rarity' }",
              "'style' of bar 'b' is a table; expected the name of a style, or a list of names"},
             {"[style.a]\nstyle = 'rare'", "style 'a' names a style"}}) {
        const Result<HudDefinition> wrong = read_hud(lines + "\n", "wrong.toml");
        ASSERT_FALSE(wrong) << lines;
        EXPECT_NE(to_string(wrong.problems()[0]).find(says), std::string::npos) << to_string(wrong.problems()[0]);
    }
}

TEST(Data, goes_on_through_changes_and_reloads_and_ends_with_its_element) {
    Color team = teal;
    double turn = 10;
    int reads = 0;
    Hud hud;
    const Panel described{.id = "p", .color = watch([&] { return ++reads, team; }), .rotation = watch(turn)};
    const auto panel = hud.add(described);
    update(hud, 16ms);
    hud.change<Panel>(panel, [](Panel& any) { any.gap = 7; });
    EXPECT_EQ(hud[panel].color, teal);
    update(hud, 16ms);
    EXPECT_EQ(hud[panel].color, teal);
    EXPECT_EQ(hud[panel].rotation, 10);
    team = leaf;
    turn = 20;
    update(hud, 16ms);
    EXPECT_EQ(hud[panel].color, leaf);
    EXPECT_EQ(hud[panel].rotation, 20);
    EXPECT_TRUE(hud.description(panel).as<Panel>()->color.source() != nullptr) << "the description keeps the source";
    hud.set_color(panel, ember);
    update(hud, 16ms);
    EXPECT_EQ(hud[panel].color, ember) << "what the game sets lies over it";
    team = teal;
    update(hud, 16ms);
    EXPECT_EQ(hud[panel].color, ember);
    hud.reset(panel);
    update(hud, 16ms);
    EXPECT_EQ(hud[panel].color, teal);
    hud.remove(panel);
    update(hud, 16ms);
    const int before = reads;
    update(hud, 16ms);
    EXPECT_EQ(reads, before) << "nobody asks for it any more";
}

}  // namespace data_look_test
}  // namespace rapido::test
