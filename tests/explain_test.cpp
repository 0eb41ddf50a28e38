// Why does it show that? Explanations in the middle of things.
#include "rapido/debug.hpp"
#include "rapido/file.hpp"
#include "support.hpp"

namespace rapido::test {
namespace explain_test {

std::string line_of(const Explanation& explanation, ExplainedPart part) {
    for (const ExplanationLine& line : explanation.lines)
        if (line.part == part) return line.says;
    return {};
}

TEST(Explain, follows_a_value_on_its_way) {
    BoxMeasurer measurer;
    Sources sources;
    double water = 3000;
    Hud hud{HudDefinition{}, sources, &measurer};
    sources.set("plane.water", watch(water));
    const auto text = hud.add(Text{.id = "water",
                                   .value = "plane.water",
                                   .max = 3000,
                                   .format = "{:.0f}",
                                   .pace = {.settle = 200ms},
                                   .motion = tween(1s),
                                   .bands = {{.id = "low", .below = 0.25, .effect = "pulse"}}});
    update(hud, 100ms);
    EXPECT_EQ(explain(hud, text).text(),
              "text 'water' shows \"3000\"\n"
              "  source     reads 'plane.water': 3000, since 0.1 s, 0 s ago\n"
              "  maximum    has the maximum a constant: 3000, since 0.1 s, 0 s ago\n"
              "  pace       holds nothing back\n"
              "  motion     is at rest at 3000\n"
              "  text       is written by \"{:.0f}\", rounded honestly: a little is never nothing, nearly "
              "all never "
              "all, as it has a maximum\n"
              "  band       is in none of its bands\n"
              "  visibility is shown\n"
              "  layout     stands at 0, 0, 48 wide and 24 high\n");
    water = 1000;
    update(hud, 100ms);
    Explanation held = explain(hud, text);
    EXPECT_EQ(held.changed, 200ms);
    EXPECT_EQ(held.held_until, 400ms);
    EXPECT_EQ(line_of(held, ExplainedPart::pace), "holds 1000 back until 0.4 s, and has let 3000 through");
    update(hud, 200ms);
    update(hud, 500ms);
    Explanation moving = explain(hud, text);
    EXPECT_EQ(moving.moves_until, 1400ms);
    EXPECT_EQ(line_of(moving, ExplainedPart::motion).substr(0, 6), "is at ");
    EXPECT_NE(line_of(moving, ExplainedPart::motion).find("on its way from 3000 to 1000, where it lands at 1.4 s"),
              std::string::npos)
        << line_of(moving, ExplainedPart::motion);
    water = 500;
    update(hud, 200ms);
    update(hud, 300ms);
    Explanation low = explain(hud, text);
    EXPECT_EQ(low.bands, std::vector<std::string>{"low"});
    EXPECT_EQ(line_of(low, ExplainedPart::band), "is in band 'low', at most 0.25, since 1.1 s");
    EXPECT_EQ(low.effects, std::vector<std::string>{"pulse"});
    EXPECT_EQ(line_of(low, ExplainedPart::effect), "plays 'pulse' by a band");
}

TEST(Explain, tells_the_length_of_a_frame_as_players_know_it) {
    Hud hud;
    hud.add(FrameMeter{.id = "fps"});
    const ElementRef text = hud.add(Text{.id = "t", .value = "fps.frame_time"});
    for (const auto& [length, says] : std::vector<std::pair<Seconds, std::string>>{
             {Seconds{1.0 / 60}, "16.7 ms"}, {4ms, "4 ms"}, {250ms, "0.25 s"}}) {
        update(hud, length);
        EXPECT_NE(explain(hud, text).text().find("reads 'fps.frame_time': " + says + ","), std::string::npos)
            << explain(hud, text).text();
    }
}

TEST(Explain, tells_why_something_is_not_seen) {
    BoxMeasurer measurer;
    bool flag = false;
    int value = 0;
    std::optional<int> maybe;
    HudDefinition definition{.design = {200, 100}};
    definition.groups = {{.id = "menu", .visible = watch(flag)}};
    Hud hud{definition, {}, &measurer};
    hud.resize({.size = {200, 100}});
    struct Row {
        Element element;
        std::string says;
        ExplainedPart part = ExplainedPart::visibility;
    };
    hud.add(Panel{.id = "p", .visible = watch(flag)});
    hud.add(Panel{.id = "narrow", .place = {.size = {40, 0}, .max_size = {40, 0}}, .plate = false});
    const std::vector<Row> rows{
        {Text{.id = "a", .format = "x", .visible = watch(flag)}, "is hidden, as its source 'visible' is not true"},
        {Text{.id = "b", .format = "x", .group = "menu"}, "is hidden with group 'menu', whose source is not true"},
        {Text{.id = "c", .format = "x", .inside = "p"},
         "is hidden with panel 'p', which is hidden, as its source 'visible' is not true"},
        {Text{.id = "d", .value = watch(maybe), .when_no_value = WhenNoValue::hide}, "is hidden, as there is no value"},
        {Text{.id = "e", .value = watch(value), .bands = {{.below = 5, .visible = false}}}, "is hidden by a band"},
        {Text{.id = "f", .format = "x", .opacity = 0},
         "cannot be seen, as its opacity, or that of its group or panel, is zero"},
        {Notice{.id = "g"}, "is hidden, as it has nothing to say"},
        {Text{.id = "h", .format = "x", .place = {.anchor = Anchor::top_right, .offset = {-50, 0}}},
         "is outside of the screen, which is 200 by 100", ExplainedPart::layout},
        {Text{.id = "i", .format = "xxxx", .place = {.anchor = Anchor::top_right, .offset = {-20, 0}}},
         "reaches beyond the screen, which is 200 by 100", ExplainedPart::layout},
        {Text{.id = "j", .format = "much too long", .place = {.max_size = {40, 0}}, .overflow = Overflow::ellipsis},
         "ends with an ellipsis, as it has less room than it needs", ExplainedPart::layout},
        {Text{.id = "k", .format = "much too long", .place = {.max_size = {40, 0}}, .overflow = Overflow::shrink},
         "is drawn smaller, as it has less room than it needs", ExplainedPart::layout},
        {Text{.id = "l", .format = "much too long", .place = {.max_size = {40, 0}}, .overflow = Overflow::clip},
         "is cut off, as it has less room than it needs", ExplainedPart::layout}};
    std::vector<ElementRef> refs;
    for (const Row& row : rows)
        refs.push_back(hud.add(row.element));
    EXPECT_EQ(hud.problems(), Problems{});
    update(hud, 16ms);
    for (std::size_t i = 0; i < rows.size(); ++i) {
        const std::string all = explain(hud, refs[i]).text();
        EXPECT_NE(all.find(std::string(to_string(rows[i].part)) +
                           std::string(11 - to_string(rows[i].part).size(), ' ') + rows[i].says),
                  std::string::npos)
            << all;
    }
    flag = true;
    hud.set_visible(refs[0], false);
    update(hud, 16ms);
    EXPECT_EQ(line_of(explain(hud, refs[0]), ExplainedPart::visibility), "is hidden by the game, by set_visible");
    EXPECT_EQ(line_of(explain(hud, refs[2]), ExplainedPart::visibility), "is shown");
    hud.set_visible(false);
    update(hud, 16ms);
    EXPECT_EQ(line_of(explain(hud, refs[1]), ExplainedPart::visibility), "is hidden with the whole HUD, by the game");
    hud.remove(refs[0]);
    EXPECT_EQ(explain(hud, refs[0]).text(), "no such element\n");
}

TEST(Explain, names_what_it_reads) {
    Hud hud;
    int value = 3;
    struct Row {
        Source source;
        std::string says;
    };
    for (const Row& row : std::vector<Row>{{watch(value), "reads a variable of the game: 3"},
                                           {watch([] { return 4; }), "reads a callable or live value of the game: 4"},
                                           {7, "reads a constant: 7"},
                                           {"nobody", "reads 'nobody', a name that nobody has set,: no value"},
                                           {watch(value) * 2, "reads what is computed as `#1 * 2`: 6"}}) {
        const auto text = hud.add(Text{.id = "t", .value = row.source});
        update(hud, 16ms);
        const std::string says = line_of(explain(hud, text), ExplainedPart::source);
        EXPECT_EQ(says.substr(0, row.says.size()), row.says);
        hud.remove(text);
        update(hud, 16ms);
    }
}

}  // namespace explain_test
}  // namespace rapido::test
