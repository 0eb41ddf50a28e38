// Themes: colors, fonts and radii by name, exchanged while the HUD runs.
#include "rapido/file.hpp"
#include "support.hpp"

namespace rapido::test {
namespace theme_test {

constexpr const char* two_themes = R"toml(font = { theme = "body" }
[theme.dusk.color]
ink = "#f2efe6"
glow = "#ff7a3c"
[theme.dusk.font]
body = "serif"
[theme.dusk.radius]
card = 6
[theme.paper]
color = { ink = "#20242a", glow = "#9c4023" }
font = { body = "monospace" }
radius = { card = 0 }
[[effect]]
id = "light"
duration = 10
keyframes = [{ at = 0, color = "glow", easing = "steps(1, jump-end)" }]
[[element]]
kind = "panel"
id = "p"
radius = "card"
color = "ink"
[[element]]
kind = "text"
id = "t"
inside = "p"
value = "n"
color = "ink"
bands = [{ above = 100, color = "glow" }]
motion = { kind = "tween", duration = 10, easing = "linear" }
triggers = [{ on = "gain", effect = "light" }]
[[element]]
kind = "bar"
id = "b"
value = "n"
max = 200
trail = { delay = 5, color = "glow" }
[[element]]
kind = "notice"
id = "news"
messages = [{ id = "m", text = "hello", color = "glow", lasting = true }]
)toml";

struct Used {
    Color ink, glow;
    float radius;
};
constexpr Used dusk{rgb(0xf2efe6), rgb(0xff7a3c), 6};
constexpr Used paper{rgb(0x20242a), rgb(0x9c4023), 0};

/// All colors and radii of one display list.
std::string drawn(const Hud& hud) {
    DisplayList list;
    hud.draw(list);
    std::string all;
    for (const DisplayGroup& group : list.groups())
        for (const DisplayItem& item : group.items())
            all += to_string(item.color) + "/" + std::to_string(static_cast<int>(item.radius)) + " ";
    return all;
}

TEST(Theme, is_exchanged_without_a_motion_or_an_event) {
    const Result<HudDefinition> definition = read_hud(two_themes, "hud.toml");
    ASSERT_TRUE(definition) << to_string(definition.problems().front());
    double n = 50;
    Sources sources;
    sources.set("n", watch(n));
    BoxMeasurer measurer;
    Hud hud(*definition, sources, &measurer);
    ASSERT_TRUE(hud.problems().empty()) << to_string(hud.problems().front());
    EXPECT_EQ(hud.theme(), "dusk");
    const ElementRef text = hud.find("t");
    const ElementRef news = hud.find("news");
    hud.notify(news, "m");
    update(hud, 16ms);
    n = 150;
    update(hud, 16ms);
    update(hud, 4s);
    const std::string shown(hud.text_of(text));
    EXPECT_EQ(shown, "90");
    const auto check = [&](const Used& used) {
        const std::string all = drawn(hud);
        EXPECT_EQ(hud[text].color, used.glow) << "the band";
        EXPECT_EQ(hud[news].color, used.glow) << "the message";
        const std::string card = to_string(used.ink) + "/" + std::to_string(static_cast<int>(used.radius)) + " ";
        EXPECT_NE(all.find(card), std::string::npos) << "the panel: " << all;
        EXPECT_NE(all.find(to_string(used.glow)), std::string::npos) << "the effect, the trail: " << all;
    };
    check(dusk);
    EXPECT_TRUE(hud.set_theme("paper"));
    EXPECT_TRUE(hud.set_theme("paper"));
    update(hud, 0s);
    EXPECT_EQ(hud.text_of(text), shown) << "its motion goes on from where it was";
    EXPECT_TRUE(hud.events().empty());
    check(paper);
    EXPECT_EQ(drawn(hud).find(to_string(dusk.glow)), std::string::npos) << "nothing is left of the other theme";
    update(hud, 1s);
    EXPECT_EQ(hud.text_of(text), "100");
    EXPECT_TRUE(hud.set_theme("dusk"));
    update(hud, 1s);
    check(dusk);
    // What the game sets by name follows, too, and what it sets by value stays.
    hud.set_color(text, theme("ink"));
    n = 10;
    hud.snap(text);
    update(hud, 16ms);
    EXPECT_EQ(hud[text].color, dusk.ink);
    hud.set_theme("paper");
    update(hud, 16ms);
    EXPECT_EQ(hud[text].color, paper.ink);
    hud.set_color(text, rgb(0x010203));
    hud.set_theme("dusk");
    update(hud, 16ms);
    EXPECT_EQ(hud[text].color, rgb(0x010203));
    EXPECT_TRUE(hud.problems().empty()) << to_string(hud.problems().front());
    EXPECT_FALSE(hud.set_theme("papr"));
    EXPECT_EQ(to_string(hud.problems().back()), "error: no theme 'papr'; did you mean 'paper'?");
}

TEST(Theme, has_faults_at_their_place) {
    const auto told = [](const std::string& text) {
        std::string all;
        for (const Problem& problem : check_hud(text, "h.toml", {}, nullptr))
            all += to_string(problem) + "\n";
        return all;
    };
    EXPECT_EQ(told("[theme.a.color]\nink = '#111111'\n[[element]]\nkind = 'panel'\nid = 'p'\ncolor = "
                   "'inc'\nradius = 'x'"),
              "h.toml:6:10: error: 'color' of panel 'p' is 'inc', and no theme has such a color; did you "
              "mean 'ink'?\n"
              "h.toml:7:11: error: 'radius' of panel 'p' is 'x', and no theme has such a radius\n");
    EXPECT_EQ(told("[theme.a.color]\nink = '#111111'\n[theme.b.radius]\ncard = -1\n[theme.c]\ncolr = "
                   "{}\ncolor = { ink = 'red' }"),
              "h.toml:3:8: warning: theme 'b' has no color 'ink'; that of the first theme stands for it\n"
              "h.toml:4:8: error: 'radius.card' of theme 'b' is -1; expected 0 to 10000\n"
              "h.toml:6:1: error: unknown key 'colr' in theme 'c'; did you mean 'color'?\n"
              "h.toml:7:17: error: 'color.ink' of theme 'c' is 'red'; expected a color as \"#rrggbb\" or "
              "\"#rrggbbaa\"\n");
    EXPECT_EQ(told("[theme.a.color]\nink = '#111111'\n[theme.b.color]\ndim = '#222222'"),
              "h.toml:3:8: warning: theme 'b' has no color 'ink'; that of the first theme stands for it\n");
    EXPECT_EQ(told("[[element]]\nkind = 'panel'\nid = 'p'\ncolor = 'ink'"),
              "h.toml:4:9: error: 'color' of panel 'p' is 'ink'; expected a color as \"#rrggbb\" or "
              "\"#rrggbbaa\"\n");
}

TEST(Nest, puts_elements_inside_a_panel_and_what_another_nest_made) {
    const auto gauge = [](const std::string& id, const Source& value) {
        return nest(Panel{.id = id, .layout = Layout::column}, Text{.id = "amount", .value = value},
                    Bar{.id = "bar", .value = value, .max = 10});
    };
    Hud hud;
    double fuel = 7;
    const ElementRef made =
        hud.add(nest(Panel{.id = "gauges"}, gauge("fuel", watch(fuel)), Text{.id = "note", .format = "x"}));
    update(hud, 16ms);
    EXPECT_EQ(made, hud.find("gauges"));
    EXPECT_EQ(hud.text_of(hud.find("gauges.fuel.amount")), "7");
    EXPECT_TRUE(hud.find("gauges.note"));
    EXPECT_TRUE(hud.problems().empty());
    // All or none.
    EXPECT_FALSE(hud.add(nest(Panel{.id = "other"}, Text{.id = "a", .format = "x"}, Text{.id = "a", .format = "{"})));
    EXPECT_FALSE(hud.find("other"));
}

}  // namespace theme_test
}  // namespace rapido::test
