// What all readouts have in common: files, faults, mirrors, and every number.
#include <cmath>

#include "pixels.hpp"
#include "rapido/file.hpp"

namespace rapido::test {
namespace readout_test {

TEST(HudFile, reads_every_key_of_the_readouts) {
    const Result<HudDefinition> read = read_hud(R"([[element]]
kind = "level"
id = "l"
value = 1
corners = [[0, 0], [1, 0], [0.5, 1]]
direction = "left"
fill_by = "area"
wave = { height = 3, length = 20, period = -1.5 }

[[element]]
kind = "pips"
id = "p"
value = 2
max = 3
shape = "heart"
pip_size = [10, 12]
per_row = 5
steps = 2
extra = [{ value = 1, shape = "drop", color = "#ff0000" }]
loss = "fade"
in_turn = { effect = "shine", every = 3, step = 0.1 }

[[element]]
kind = "dial"
id = "d"
value = 5
min = -5
max = 10
wraps = true
zones = [{ from = 0, to = 3, color = "#ff0000" }]
ticks = { every = 1, long_every = 5, format = "{:.0f}" }
needle = { length = 0.5, width = 3 }

[[element]]
kind = "ruler"
id = "s"
value = 5
max = 10
neutral = 2
colors = [{ at = 0, color = "#00ff00" }]

[[element]]
kind = "graph"
id = "g"
value = 5
span = 4
resolution = 20
type = "line"
ticks = { at = [3], format = "{:.1f}" }

[[element]]
kind = "image"
id = "i"
image = "a.png"
frames = { count = 6, columns = 3, rate = 8 }
slice = [4, 8]
fit = "scale-down"
mask = ""
smooth = false
bands = [{ above = 3, image = "b.png" }]
)",
                                                "hud.toml");
    ASSERT_TRUE(read) << to_string(read.problems().front());
    Level level{.id = "l", .value = 1};
    level.corners = {{0, 0}, {1, 0}, {0.5F, 1}};
    level.direction = Direction::left;
    level.fill_by = FillBy::area;
    level.wave = {.height = 3, .length = 20, .period = -1.5s};
    Pips pips{.id = "p", .value = 2, .max = 3};
    pips.shape = Shape::heart;
    pips.pip_size = {10, 12};
    pips.per_row = 5;
    pips.steps = 2;
    pips.extra = {{.value = 1, .shape = Shape::drop, .color = rgb(0xff0000)}};
    pips.loss = "fade";
    pips.in_turn = {.effect = "shine", .every = 3s, .step = 100ms};
    Dial dial{.id = "d", .value = 5, .min = -5, .max = 10};
    dial.wraps = true;
    dial.zones = {{0, 3, rgb(0xff0000)}};
    dial.ticks = {.every = 1, .long_every = 5, .format = "{:.0f}"};
    dial.needle = {.length = 0.5F, .width = 3};
    Ruler scale{.id = "s", .value = 5, .max = 10};
    scale.neutral = 2;
    scale.colors = {{0, rgb(0x00ff00)}};
    Graph graph{.id = "g", .value = 5};
    graph.span = 4s;
    graph.resolution = 20;
    graph.type = GraphType::line;
    graph.ticks = {.at = {{.at = 3}}};
    graph.ticks.format = "{:.1f}";
    Image image{.id = "i", .image = "a.png"};
    image.frames = {.count = 6, .columns = 3, .rate = 8};
    image.slice = {4, 8, 4, 8};
    image.fit = ImageFit::scale_down;
    image.smooth = false;
    image.bands = {{.above = 3, .image = "b.png"}};
    const std::vector<Element> expected{level, pips, dial, scale, graph, image};
    EXPECT_EQ(read->elements, expected);
    const Problems problems = read_hud(R"([[element]]
kind = "graph"
id = "g"
value = 1
resolution = 1000000
span = 0
[[element]]
kind = "level"
id = "l"
value = 1
shape = "hart"
corners = [[0, 0], [1]]
[[element]]
kind = "pips"
id = "p"
value = 1
per_row = 1000000
in_turn = { efect = "x" }
)",
                                       "hud.toml")
                                  .problems();
    std::string all;
    for (const Problem& problem : problems)
        all += to_string(problem) + "\n";
    EXPECT_EQ(all,
              "hud.toml:5:14: error: 'resolution' of graph 'g' is 1000000; expected 2 to 1000\n"
              "hud.toml:6:8: error: 'span' of graph 'g' is 0; expected 0.01 to 3600 s\n"
              "hud.toml:11:9: error: 'shape' of level 'l' is 'hart'; expected one of box, circle, diamond, "
              "hexagon, drop, heart, person, flask or thermometer; did you mean 'heart'?\n"
              "hud.toml:12:20: error: a point in 'corners' of level 'l' is a list; expected two numbers, [x, y]\n"
              "hud.toml:17:11: error: 'per_row' of pips 'p' is 1000000; expected 0 to 200\n"
              "hud.toml:18:13: error: unknown key 'efect' in 'in_turn' of pips 'p'; did you mean 'effect'?\n");
}

std::vector<Element> readouts(const Source& value, const Source& max) {
    return {Bar{.id = "e", .value = value, .max = max},
            Ring{.id = "e", .value = value, .max = max},
            Level{.id = "e", .value = value, .max = max, .trail = {.delay = 1s}, .fill_by = FillBy::area},
            Level{.id = "e", .value = value, .max = max, .direction = Direction::right, .wave = {.height = 5}},
            Pips{.id = "e", .value = value, .max = max, .steps = 0, .extra = {{.value = value}}},
            Dial{.id = "e", .value = value, .max = max, .wraps = true, .ticks = {.every = 1, .format = "{}"}},
            Ruler{.id = "e", .value = value, .max = max, .neutral = 3, .ticks = {.every = 1, .format = "{}"}},
            Graph{.id = "e", .value = value, .max = max, .ticks = {.at = {{.at = 1}}}},
            Graph{.id = "e", .value = value, .type = GraphType::columns}};
}

TEST(Readouts, survive_every_number) {
    double value = 0, max = 1;
    for (const Element& element : readouts(watch(value), watch(max))) {
        Stage stage(element, 120, 80);
        for (const double most : {0.0, -1.0, 1.0, 7.5, 1e-300, 1e300, 1e308, std::nan(""), HUGE_VAL, -HUGE_VAL})
            for (const double next : {0.0, -1.0, 0.5, 5.0, 1e-310, 1e308, -1e308, std::nan(""), HUGE_VAL, -HUGE_VAL}) {
                value = next;
                max = most;
                stage.pass(1s);
                const double light = lit(stage.shot());
                EXPECT_GE(light, 0) << next << " of " << most;
                const std::optional<double> fill = stage.hud[stage.element].fill;
                EXPECT_TRUE(!fill || (*fill >= 0 && *fill <= 1)) << next << " of " << most;
            }
        EXPECT_LE(stage.hud.problems().size(), 1U) << "nothing but that there are too many pips";
    }
}

TEST(Readouts, are_mirrored_where_the_language_is_but_for_dials_and_graphs) {
    Language mirrored;
    mirrored.right_to_left = true;
    std::vector<Element> elements = readouts(0.3, 2);
    elements.push_back(Level{.id = "e", .value = 0.3, .shape = Shape::flask, .direction = Direction::left});
    elements.push_back(Ruler{.id = "e", .value = 0.3, .colors = {{0, rgb(0xff0000)}, {1, white}}});
    for (const Element& element : elements) {
        Stage there(element), back(element);
        back.hud.set_language(mirrored);
        const Picture one = there.first(), other = back.first();
        const std::string_view kind = there.hud[there.element].kind;
        if (kind == "dial" || kind == "ring" || kind == "graph") continue;
        // Numbers are not read backwards.
        const bool has_numbers = !written(there).empty();
        for (int y = 0; y < (has_numbers ? 18 : 200); ++y)
            for (int x = 0; x < 300; ++x)
                ASSERT_NEAR(one.pixel(x, y).red, other.pixel(299 - x, y).red, 3) << kind << x << " " << y;
    }
}

TEST(Readouts, refuse_what_their_bands_cannot_change) {
    struct Row {
        Element element;
        const char* says;
    };
    for (const Row& row :
         std::vector<Row>{{Bar{.id = "e", .value = 1, .bands = {{.below = 0.3, .format = "{}"}}},
                           "error: 'bands.0.format' of bar 'e' is of texts only"},
                          {Dial{.id = "e", .value = 1, .bands = {{.below = 0.3}, {.below = 0.2, .image = "x.png"}}},
                           "error: 'bands.1.image' of dial 'e' is of images only"}}) {
        Hud hud;
        EXPECT_FALSE(hud.add(row.element));
        ASSERT_EQ(hud.problems().size(), 1U);
        EXPECT_EQ(to_string(hud.problems()[0]), row.says);
    }
}

TEST(HudFile, refuses_lists_without_end) {
    const auto says = [](const std::string& text) {
        const Problems problems = read_hud(text, "hud.toml").problems();
        return problems.size() == 1 ? to_string(problems[0]) : std::to_string(problems.size()) + " problems";
    };
    std::string graphs, ticks, points;
    for (int i = 0; i <= 10'000; ++i) {
        graphs += "[[element]]\nkind = 'graph'\nid = 'g" + std::to_string(i) + "'\nvalue = 1\nresolution = 1000\n";
        ticks += "1,";
        points += "[0,0],";
    }
    EXPECT_EQ(says(graphs), "hud.toml:1:3: error: 10001 of 'element'; at most 4000");
    const std::string bar = "[[element]]\nkind = 'bar'\nid = 'b'\nvalue = 1\nticks = { at = [";
    EXPECT_EQ(says(bar + ticks + "] }\n"),
              "hud.toml:5:16: error: 'ticks.at' of bar 'b' has 10001 entries; at most 1000");
    const std::string level = "[[element]]\nkind = 'level'\nid = 'l'\nvalue = 1\ncorners = [";
    EXPECT_EQ(says(level + points + "]\n"), "hud.toml:5:11: error: 'corners' of level 'l' has more than 10000 entries");
}

TEST(Readouts, need_numbers) {
    const std::string name = "Ada";
    struct Row {
        Element element;
        const char* what;
    };
    for (const Row& row : std::vector<Row>{{Level{.id = "e", .value = watch(name)}, "level 'e': a level"},
                                           {Pips{.id = "e", .value = watch(name)}, "pips 'e': a row of pips"},
                                           {Dial{.id = "e", .value = watch(name)}, "dial 'e': a dial"},
                                           {Ruler{.id = "e", .value = watch(name)}, "ruler 'e': a ruler"},
                                           {Graph{.id = "e", .value = watch(name)}, "graph 'e': a graph"}}) {
        Hud hud;
        EXPECT_FALSE(hud.add(row.element));
        ASSERT_FALSE(hud.problems().empty());
        EXPECT_EQ(to_string(hud.problems()[0]),
                  std::string("error: 'value' of ") + row.what + " needs a number, and this source is a text");
    }
}

}  // namespace readout_test
}  // namespace rapido::test
