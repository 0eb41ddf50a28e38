// Graphs: what they remember, and how they show it.
#include <cmath>

#include "pixels.hpp"

namespace rapido::test {
namespace graph_test {

/// Columns of 10 by 100 pixels, one for each second.
Graph columns(Source value) {
    Graph graph{.id = "g", .value = std::move(value), .place = {.size = {100, 100}}};
    graph.span = 10s;
    graph.resolution = 10;
    graph.type = GraphType::columns;
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

TEST(Graph, keeps_what_it_remembers_through_a_change) {
    double value = 10;
    Graph graph = columns(watch(value));
    graph.max = 100;
    Stage stage(graph);
    stage.pass(0s);
    for (int second = 0; second < 10; ++second) {
        value = 10 * (second + 1);
        stage.pass(1s);
    }
    const std::vector<int> before = heights(stage);
    const auto change = [&](Seconds span, double min) {
        EXPECT_TRUE(stage.hud.change<Graph>(stage.element, [&](Graph& changed) {
            changed.span = span;
            changed.min = min;
        }));
        stage.pass(0s);
    };
    change(10s, 0);
    EXPECT_EQ(heights(stage), before);
    // Two seconds each: what was higher of two, and nothing older than ten seconds.
    change(20s, 0);
    std::vector<int> expected(5, 0);
    for (std::size_t i = 0; i < 10; i += 2)
        expected.push_back(std::max(before[i], before[i + 1]));
    EXPECT_EQ(heights(stage), expected);
    change(10s, 0);
    EXPECT_EQ(heights(stage), before) << "changed back it is what it was";
    change(10s, -100);
    const std::vector<int> raised = heights(stage);
    for (std::size_t i = 0; i < 10; ++i)
        EXPECT_EQ(raised[i], (before[i] + 100) / 2) << "another lower edge, the same values";
    // Also where it went on in between, beside a twin that was never changed.
    double other = value;
    Graph twin = columns(watch(other));
    twin.max = 100;
    Stage unchanged(twin);
    change(10s, 0);
    unchanged.pass(0s);
    for (int second = 0; second < 37; ++second) {
        value = other = second * 17 % 90 + 5;
        stage.pass(1s);
        unchanged.pass(1s);
        if (second == 20) change(40s, 0);
        if (second == 24) change(15s, 0);
        if (second < 31) continue;
        if (second == 31) change(10s, 0);
        EXPECT_EQ(heights(stage), heights(unchanged)) << second;
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
    graph.ticks = {.at = {{.at = 1}}};
    graph.ticks.format = "{:.1f} ms";
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
    for (const GraphType style : {GraphType::line, GraphType::area}) {
        graph.type = style;
        graph.resolution = 100;
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
        EXPECT_EQ(picture.pixel(80, 60).red > 0, style == GraphType::area) << "below it, the area";
    }
}

TEST(FrameMeter, tells_how_long_a_frame_took) {
    HudDefinition definition;
    definition.frame_meters.push_back({.id = "f"});
    definition.elements.push_back(Text{.id = "t", .value = Source("f.frame_time") / 1ms, .format = "{:.0f} ms"});
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

}  // namespace graph_test
}  // namespace rapido::test
