// Dials, scales and graphs: where they point, what they write, and what they remember.
#include <cmath>
#include <numbers>

#include "pixels.hpp"
#include "rapido/file.hpp"
#include "rapido/locale.hpp"

namespace rapido::test {
namespace {

/// Where on average the lit pixels are.
std::optional<Point> center_of(const Picture& picture) {
    double sum = 0, across = 0, down = 0;
    for (int y = 0; y < picture.height(); ++y)
        for (int x = 0; x < picture.width(); ++x) {
            const double light = picture.pixel(x, y).red / 255.0;
            sum += light;
            across += light * (x + 0.5);
            down += light * (y + 0.5);
        }
    if (sum < 1) return std::nullopt;
    return Point{static_cast<float>(across / sum), static_cast<float>(down / sum)};
}

/// A dial of which only the needle is seen.
Dial bare_dial() {
    Dial dial{.id = "d", .place = {.size = {200, 200}}};
    dial.color = white;
    dial.background = black;
    dial.thickness = 0;
    dial.needle = {.length = 0.9F, .tail = 0, .width = 6, .hub = 0};
    return dial;
}

TEST(Dial, points_at_the_angle_of_its_value) {
    struct Row {
        double value, min, max;
        float start, sweep;
        bool wraps;
        std::optional<double> degrees;  ///< clockwise from the top
    };
    for (const Row& row : std::vector<Row>{{0, 0, 100, -135, 270, false, -135},
                                           {50, 0, 100, -135, 270, false, 0},
                                           {100, 0, 100, -135, 270, false, 135},
                                           {500, 0, 100, -135, 270, false, 135},
                                           {-9, 0, 100, -135, 270, false, -135},
                                           {20, -20, 60, -90, 180, false, 0},
                                           {25, 0, 100, 0, -360, false, -90},
                                           {43, 0, 12, 0, 360, true, -150},
                                           {-1, 0, 12, 0, 360, true, -30},
                                           {13, 1, 13, 0, 360, true, 0},
                                           {NAN, 0, 100, 0, 360, false, std::nullopt},
                                           {5, 0, 0, 0, 360, false, std::nullopt},
                                           {5, 0, -1, 0, 360, false, std::nullopt},
                                           {5, 0, NAN, 0, 360, true, std::nullopt}}) {
        Dial dial = bare_dial();
        dial.value = row.value;
        dial.min = row.min;
        dial.max = row.max;
        dial.start = row.start;
        dial.sweep = row.sweep;
        dial.wraps = row.wraps;
        Stage stage(dial);
        const std::optional<Point> center = center_of(stage.first());
        ASSERT_EQ(center.has_value(), row.degrees.has_value()) << row.value << " of " << row.max;
        EXPECT_EQ(stage.hud[stage.element].fill.has_value(), row.degrees.has_value());
        if (!center) continue;
        const double angle =
            std::atan2(static_cast<double>(center->x) - 100, 100 - static_cast<double>(center->y));
        const double off = angle * 180 / std::numbers::pi - *row.degrees;
        EXPECT_NEAR(off - 360 * std::round(off / 360), 0, 0.7) << row.value << " of " << row.max;
    }
}

/// All texts that are drawn, in order.
std::string written(Stage& stage) {
    stage.shot();
    std::string all;
    for (const DrawGroup& group : stage.list.groups())
        for (const DrawCommand& command : group.commands())
            if (command.kind == DrawCommand::Kind::text)
                all += (all.empty() ? "" : " ") + std::string(group.text_of(command));
    return all;
}

int count_polygons(const Stage& stage) {
    int count = 0;
    for (const DrawGroup& group : stage.list.groups())
        for (const DrawCommand& command : group.commands())
            count += command.kind == DrawCommand::Kind::polygon ? 1 : 0;
    return count;
}

TEST(Marks, stand_at_even_steps_with_numbers_in_the_language) {
    double max = 1000;
    Dial dial = bare_dial();
    dial.value = 0;
    dial.max = watch(max);
    dial.marks = {.every = 125, .long_every = 500, .format = "{:L}"};
    Stage stage(dial);
    stage.pass(0s);
    EXPECT_EQ(written(stage), "0 500 1,000");
    EXPECT_EQ(count_polygons(stage), 9 + 1) << "marks, and the needle";
    stage.hud.set_language(*language("de"));
    stage.pass(0s);
    EXPECT_EQ(written(stage), "0 500 1.000");
    max = 1600;
    stage.pass(10ms);
    EXPECT_EQ(written(stage), "0 500 1.000 1.500") << "a maximum that grows has more of them";
    for (const double most : {1e9, 1e300, 0.0, -5.0, std::nan("")}) {
        max = most;
        stage.pass(10ms);
        EXPECT_EQ(written(stage), most == 0 ? "0" : "") << most;
    }
    dial.sweep = 360;
    dial.wraps = true;
    dial.max = 12;
    dial.marks = {.every = 1, .long_every = 3, .format = "{:.0f}"};
    Stage clock(dial);
    clock.pass(0s);
    EXPECT_EQ(written(clock), "0 3 6 9") << "the end is where the beginning is";
    Scale scale{.id = "s", .value = 0, .min = -10, .max = 10};
    scale.marks = {.every = 5, .format = "{:+.0f}"};
    Stage straight(scale);
    straight.pass(0s);
    EXPECT_EQ(written(straight), "-10 -5 +0 +5 +10");
    // What takes time has numbers that do.
    const Nanoseconds passed{0};
    dial.value = watch(passed);
    dial.sweep = 270;
    dial.wraps = false;
    dial.max = 240;
    dial.marks = {.every = 60, .format = "{:%M:%S}"};
    Stage timer(dial);
    timer.pass(0s);
    EXPECT_EQ(written(timer), "00:00 01:00 02:00 03:00 04:00");
    dial.marks.format = "{:q}";
    EXPECT_EQ(Stage(dial).hud.problems().size(), 1U);
}

TEST(Scale, points_at_its_value_in_every_direction) {
    for (const Direction direction : {Direction::right, Direction::left, Direction::up, Direction::down})
        for (const auto& [value, part] : std::vector<std::pair<double, double>>{
                 {40, 0}, {60, 0.25}, {100, 0.75}, {120, 1}, {999, 1}, {-5, 0}, {NAN, -1}}) {
            const bool upright = direction == Direction::up || direction == Direction::down;
            Scale scale{.id = "s", .value = value, .min = 40, .max = 120};
            scale.place = {.offset = {20, 20}, .size = upright ? Size{0, 160} : Size{160, 0}};
            scale.direction = direction;
            scale.thickness = 10;
            scale.pointer = 12;
            scale.color = white;
            scale.background = black;
            Stage stage(scale);
            const std::optional<Point> center = center_of(stage.first());
            const Rect box = stage.hud[stage.element].box;
            EXPECT_EQ(box, (Rect{20, 20, upright ? 22.0F : 160.0F, upright ? 160.0F : 22.0F}));
            ASSERT_EQ(center.has_value(), part >= 0);
            if (!center) continue;
            const bool forwards = direction == Direction::right || direction == Direction::down;
            const double expected = 20 + 160 * (forwards ? part : 1 - part);
            EXPECT_NEAR(static_cast<double>(upright ? center->y : center->x), expected, 1.1) << value;
        }
}

TEST(Scale, fills_from_where_it_rests_both_ways) {
    const auto lit_between = [](double value, double* from, double* to) {
        Scale scale{.id = "s", .value = value, .min = -10, .max = 30};
        scale.place.size = {200, 0};
        scale.neutral = 0;
        scale.pointer = 0;
        scale.color = white;
        scale.background = black;
        scale.radius = 0;
        Stage stage(scale);
        const Picture picture = stage.first();
        *from = 300, *to = 0;
        for (int x = 0; x < 300; ++x)
            if (picture.pixel(x, 5).red > 127) *from = std::min<double>(*from, x), *to = x + 1;
    };
    struct Row {
        double value, from, to;
    };
    for (const Row& row : std::vector<Row>{{10, 50, 100},
                                           {-10, 0, 50},
                                           {-4, 30, 50},
                                           {30, 50, 200},
                                           {0.001, 50, 52},
                                           {-0.001, 48, 50},
                                           {0, 300, 0}}) {
        double from = 0, to = 0;
        lit_between(row.value, &from, &to);
        EXPECT_NEAR(from, row.from, 1) << row.value;
        EXPECT_NEAR(to, row.to, 1) << row.value;
    }
}

TEST(Scale, runs_through_its_colors) {
    Scale scale{.id = "s", .value = NAN, .min = 0, .max = 100};
    scale.place.size = {200, 0};
    scale.pointer = 0;
    scale.radius = 0;
    scale.colors = {{20, rgb(0xff0000)}, {60, rgb(0x00ff00)}};
    Stage stage(scale);
    const Picture picture = stage.first();
    for (int x = 1; x < 200; ++x) {
        const double part = std::clamp(((x + 0.5) / 2 - 20) / 40, 0.0, 1.0);
        EXPECT_NEAR(picture.pixel(x, 5).red, 255 * (1 - part), 5) << x;
        EXPECT_NEAR(picture.pixel(x, 5).green, 255 * part, 5) << x;
    }
    scale.colors = {{60, rgb(0xff0000)}, {20, rgb(0x00ff00)}};
    EXPECT_EQ(to_string(Stage(scale).hud.problems().at(0)),
              "error: 'colors' of scale 's' must stand in order of 'at'");
}

/// Columns of 10 by 100 pixels, one for each second.
Graph columns(Source value) {
    Graph graph{.id = "g", .value = std::move(value), .place = {.size = {100, 100}}};
    graph.span = 10s;
    graph.samples = 10;
    graph.style = GraphStyle::columns;
    graph.color = white;
    graph.background = black;
    return graph;
}

/// Their heights, from the left.
std::vector<int> heights(Stage& stage) {
    const Picture picture = stage.shot();
    std::vector<int> all;
    for (int column = 0; column < 10; ++column) {
        int height = 0;
        for (int y = 0; y < 100; ++y)
            height += picture.pixel(column * 10 + 4, y).red > 127 ? 1 : 0;
        all.push_back(height);
    }
    return all;
}

TEST(Graph, remembers_every_peak_at_every_frame_rate) {
    for (const int rate : {4, 24, 60, 1000}) {
        double value = 10;
        Graph graph = columns(watch(value));
        graph.max = 100;
        Stage stage(graph);
        stage.pass(0s);
        for (std::int64_t frame = 1; frame <= 7 * rate; ++frame) {
            const Nanoseconds second = 1s;
            const Nanoseconds from = second * (frame - 1) / rate, now = second * frame / rate;
            // A quarter of a second high at 2.25 s, one of its fall at 4 s, nothing from 5.5 s to 6.5 s.
            value = now >= 2250ms && now < 2500ms ? 80 : now >= 4s ? 20 : 10;
            if (now >= 5500ms && now < 6500ms) value = NAN;
            stage.pass(to_seconds(now - from));
        }
        EXPECT_EQ(heights(stage), (std::vector<int>{0, 0, 0, 10, 10, 80, 10, 20, 20, 20})) << rate;
        // A hitch of three seconds: what was shown before has lasted.
        value = 50;
        stage.pass(3s);
        EXPECT_EQ(heights(stage), (std::vector<int>{10, 10, 80, 10, 20, 20, 20, 20, 20, 20})) << rate;
        stage.pass(30s);
        EXPECT_EQ(heights(stage), std::vector<int>(10, 50)) << rate;
    }
}

TEST(Graph, shows_a_gap_where_there_was_no_value) {
    std::optional<double> value = 30;
    Graph graph = columns(watch(value));
    graph.max = 100;
    bool visible = false;
    graph.visible = watch(visible);
    Stage stage(graph);
    stage.pass(0s);
    stage.pass(2s);
    value.reset();
    stage.pass(0s);
    stage.pass(3s);
    value = 60;
    visible = true;
    stage.pass(0s);
    stage.pass(2s);
    EXPECT_EQ(heights(stage), (std::vector<int>{0, 0, 0, 30, 30, 30, 0, 0, 60, 60}))
        << "hidden it has recorded, and a piece that has both shows the value";
}

TEST(Graph, fits_what_is_in_sight) {
    double value = 3.7;
    Graph graph = columns(watch(value));
    graph.ticks = {{.at = 1}};
    graph.tick_format = "{:.1f} ms";
    Stage stage(graph);
    const auto top = [&](double next) {
        value = next;
        stage.pass(0s);
        stage.pass(11s);
        return heights(stage).back();
    };
    EXPECT_EQ(top(3.7), 74) << "3.7 of 5";
    EXPECT_EQ(written(stage), "1.0 ms");
    EXPECT_EQ(top(18), 90);
    EXPECT_EQ(top(21), 42);
    EXPECT_EQ(top(0.3), 30) << "the tick is in sight, too";
    EXPECT_EQ(top(0), 0);
    EXPECT_EQ(top(-4), 0);
}

TEST(Graph, draws_a_line_through_what_it_knows) {
    double value = 0;
    Graph graph = columns(watch(value));
    graph.max = 100;
    for (const GraphStyle style : {GraphStyle::line, GraphStyle::area}) {
        graph.style = style;
        graph.samples = 100;
        Stage stage(graph);
        value = 0;
        for (int i = 0; i <= 100; ++i) {
            value = i;
            stage.pass(i == 0 ? 0ms : 100ms);
        }
        const Picture picture = stage.shot();
        for (int x = 5; x < 95; ++x)
            EXPECT_GT(picture.pixel(x, 99 - x).red, 100) << x << " on the way up";
        EXPECT_EQ(picture.pixel(20, 40).red, 0) << "above it there is nothing";
        EXPECT_EQ(picture.pixel(80, 60).red > 0, style == GraphStyle::area) << "below it, the area";
    }
}

TEST(Meter, tells_how_long_a_frame_took) {
    HudDefinition definition;
    definition.meters.push_back({.id = "f"});
    definition.elements.push_back(
        Text{.id = "t", .value = Source("f.frame_time").scaled(1000), .format = "{:.0f} ms"});
    Hud hud(definition);
    ASSERT_TRUE(hud.problems().empty());
    const auto shown = [&](Seconds step) {
        hud.update({.real = step});
        return std::string(hud[hud.find("t")].text);
    };
    EXPECT_EQ(shown(0s), "-- ms");
    EXPECT_EQ(shown(16ms), "16 ms");
    EXPECT_EQ(shown(1s), "1000 ms");
    EXPECT_EQ(shown(0s), "1000 ms") << "no time is no frame";
}

TEST(HudFile, reads_every_key_of_the_readouts) {
    const Result<HudDefinition> read = read_hud(R"([[element]]
kind = "level"
id = "l"
value = 1
outline = [[0, 0], [1, 0], [0.5, 1]]
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
shine = { effect = "shine", every = 3, step = 0.1 }

[[element]]
kind = "dial"
id = "d"
value = 5
min = -5
max = 10
wraps = true
zones = [{ from = 0, to = 3, color = "#ff0000" }]
marks = { every = 1, long_every = 5, format = "{:.0f}" }
needle = { length = 0.5, width = 3 }

[[element]]
kind = "scale"
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
samples = 20
style = "line"
ticks = [3]
tick_format = "{:.1f}"

[[element]]
kind = "image"
id = "i"
image = "a.png"
frames = { count = 6, columns = 3, rate = 8 }
slice = [4, 8]
fit = "scale_down"
mask = ""
smooth = false
bands = [{ above = 3, image = "b.png" }]
)",
                                                "hud.toml");
    ASSERT_TRUE(read) << to_string(read.problems().front());
    Level level{.id = "l", .value = 1};
    level.outline = {{0, 0}, {1, 0}, {0.5F, 1}};
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
    pips.shine = {.effect = "shine", .every = 3s, .step = 100ms};
    Dial dial{.id = "d", .value = 5, .min = -5, .max = 10};
    dial.wraps = true;
    dial.zones = {{0, 3, rgb(0xff0000)}};
    dial.marks = {.every = 1, .long_every = 5, .format = "{:.0f}"};
    dial.needle = {.length = 0.5F, .width = 3};
    Scale scale{.id = "s", .value = 5, .max = 10};
    scale.neutral = 2;
    scale.colors = {{0, rgb(0x00ff00)}};
    Graph graph{.id = "g", .value = 5};
    graph.span = 4s;
    graph.samples = 20;
    graph.style = GraphStyle::line;
    graph.ticks = {{.at = 3}};
    graph.tick_format = "{:.1f}";
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
samples = 1000000
span = 0
[[element]]
kind = "level"
id = "l"
value = 1
shape = "hart"
outline = [[0, 0], [1]]
[[element]]
kind = "pips"
id = "p"
value = 1
per_row = 1000000
shine = { efect = "x" }
)",
                                       "hud.toml")
                                  .problems();
    std::string all;
    for (const Problem& problem : problems)
        all += to_string(problem) + "\n";
    EXPECT_EQ(
        all,
        "hud.toml:5:11: error: 'samples' of graph 'g' is 1000000; expected 2 to 1000\n"
        "hud.toml:6:8: error: 'span' of graph 'g' is 0; expected 0.01 to 3600 s\n"
        "hud.toml:11:9: error: 'shape' of level 'l' is 'hart'; expected one of box, circle, diamond, "
        "hexagon, drop, heart, person, flask or thermometer; did you mean 'heart'?\n"
        "hud.toml:12:20: error: a point in 'outline' of level 'l' is a list; expected two numbers, [x, y]\n"
        "hud.toml:17:11: error: 'per_row' of pips 'p' is 1000000; expected 0 to 200\n"
        "hud.toml:18:11: error: unknown key 'efect' in 'shine' of pips 'p'; did you mean 'effect'?\n");
}

std::vector<Element> readouts(const Source& value, const Source& max) {
    return {
        Bar{.id = "e", .value = value, .max = max},
        Ring{.id = "e", .value = value, .max = max},
        Level{.id = "e", .value = value, .max = max, .trail = {.delay = 1s}, .fill_by = FillBy::area},
        Level{.id = "e", .value = value, .max = max, .direction = Direction::right, .wave = {.height = 5}},
        Pips{.id = "e", .value = value, .max = max, .steps = 0, .extra = {{.value = value}}},
        Dial{.id = "e", .value = value, .max = max, .wraps = true, .marks = {.every = 1, .format = "{}"}},
        Scale{.id = "e", .value = value, .max = max, .neutral = 3, .marks = {.every = 1, .format = "{}"}},
        Graph{.id = "e", .value = value, .max = max, .ticks = {{.at = 1}}},
        Graph{.id = "e", .value = value, .style = GraphStyle::columns}};
}

TEST(Readouts, survive_every_number) {
    double value = 0, max = 1;
    for (const Element& element : readouts(watch(value), watch(max))) {
        Stage stage(element, 120, 80);
        for (const double most :
             {0.0, -1.0, 1.0, 7.5, 1e-300, 1e300, 1e308, std::nan(""), HUGE_VAL, -HUGE_VAL})
            for (const double next :
                 {0.0, -1.0, 0.5, 5.0, 1e-310, 1e308, -1e308, std::nan(""), HUGE_VAL, -HUGE_VAL}) {
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
    elements.push_back(Scale{.id = "e", .value = 0.3, .colors = {{0, rgb(0xff0000)}, {1, white}}});
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
    for (const Row& row : std::vector<Row>{
             {Bar{.id = "e", .value = 1, .bands = {{.below = 3, .format = "{}"}}},
              "error: 'bands.0.format' of bar 'e' is of texts only"},
             {Dial{.id = "e", .value = 1, .bands = {{.below = 3}, {.below = 2, .image = "x.png"}}},
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
        graphs +=
            "[[element]]\nkind = 'graph'\nid = 'g" + std::to_string(i) + "'\nvalue = 1\nsamples = 1000\n";
        ticks += "1,";
        points += "[0,0],";
    }
    EXPECT_EQ(says(graphs), "hud.toml:1:3: error: 10001 of 'element'; at most 10000");
    const std::string bar = "[[element]]\nkind = 'bar'\nid = 'b'\nvalue = 1\nticks = [";
    EXPECT_EQ(says(bar + ticks + "]\n"),
              "hud.toml:5:9: error: 'ticks' of bar 'b' has more than 10000 entries");
    const std::string level = "[[element]]\nkind = 'level'\nid = 'l'\nvalue = 1\noutline = [";
    EXPECT_EQ(says(level + points + "]\n"),
              "hud.toml:5:11: error: 'outline' of level 'l' has more than 10000 entries");
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
                                           {Scale{.id = "e", .value = watch(name)}, "scale 'e': a scale"},
                                           {Graph{.id = "e", .value = watch(name)}, "graph 'e': a graph"}}) {
        Hud hud;
        EXPECT_FALSE(hud.add(row.element));
        ASSERT_FALSE(hud.problems().empty());
        EXPECT_EQ(to_string(hud.problems()[0]), std::string("error: 'value' of ") + row.what +
                                                    " needs a number, and this source is a text");
    }
}

}  // namespace
}  // namespace rapido::test
