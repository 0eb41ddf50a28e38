// Where elements stand besides the flow: stretched, by layers, kept on the screen.
#include "rapido/text/language.hpp"
#include "support.hpp"

namespace rapido::test {
namespace place_test {

TEST(Layout, stretches_to_the_screen_and_the_panel) {
    BoxMeasurer measurer;
    Hud hud{HudDefinition{}, {}, &measurer};
    hud.resize({.size = {1280, 720}});
    const auto strip =
        hud.add(Panel{.id = "strip",
                      .place = {.anchor = Anchor::bottom, .stretch = Stretch::width, .margin = {0, 40, 12, 20}},
                      .padding = {10, 10, 10, 10}});
    const auto bar = hud.add(Bar{.id = "b", .value = 1, .place = {.stretch = Stretch::width}, .inside = "strip"});
    const auto shade = hud.add(Panel{.id = "shade", .place = {.stretch = Stretch::both}});
    const auto limited =
        hud.add(Bar{.id = "l",
                    .value = 1,
                    .place = {.anchor = Anchor::top_right, .max_size = {300, 0}, .stretch = Stretch::width}});
    hud.add(Panel{
        .id = "row", .place = {.anchor = Anchor::top, .size = {500, 100}}, .layout = Layout::row, .plate = false});
    const auto fixed = hud.add(Bar{.id = "fixed", .value = 1, .place = {.size = {100, 20}}, .inside = "row"});
    const auto grows = hud.add(
        Bar{.id = "grows", .value = 1, .place = {.stretch = Stretch::both, .margin = {10, 0, 30, 0}}, .inside = "row"});
    update(hud, 16ms);
    EXPECT_EQ(hud[strip].box, (Rect{20, 720 - 44, 1220, 32}));
    EXPECT_EQ(hud[bar].box, (Rect{30, 720 - 34, 1200, 12}));
    EXPECT_EQ(hud[shade].box, (Rect{0, 0, 1280, 720}));
    EXPECT_EQ(hud[limited].box, (Rect{980, 0, 300, 12}));
    EXPECT_EQ(hud[fixed].box, (Rect{390, 0, 100, 20}));
    EXPECT_EQ(hud[grows].box, (Rect{490, 10, 400, 60}));
    hud.resize({.size = {1920, 720}});
    update(hud, 16ms);
    EXPECT_EQ(hud[shade].box.width, 1920);
    // A notice keeps to the screen, whatever it has to say.
    const auto notice = hud.add(Notice{.id = "n", .place = {.anchor = Anchor::right, .offset = {-50, 0}}, .size = 40});
    EXPECT_TRUE(hud.notify(notice, {.text = std::string(300, 'x')}));
    update(hud, 16ms);
    EXPECT_EQ(hud[notice].box.x, 0);
    EXPECT_EQ(hud[notice].box.width, 1920);
    EXPECT_LT(hud.text_of(notice).size(), 301U + 10U);
}

/// The room that a range reserves is on the side where its column has room to spare.
TEST(Layout, reserves_room_for_a_range_where_its_column_has_it) {
    struct Case {
        const char* what;
        Align align;
        TextAlign text_align;
        bool mirrored;
        std::array<float, 2> starts;  ///< where `7.5` and `10.25` start in a column for `100.25`, in pixels
    };
    // Each character of the measurer is half as wide as it is high: 10 pixels.
    for (const Case& row : {
             Case{"at its start", Align::start, TextAlign::automatic, false, {0, 0}},
             Case{"in its middle", Align::center, TextAlign::automatic, false, {15, 5}},
             Case{"at its end", Align::end, TextAlign::automatic, false, {30, 10}},
             Case{"where the text says", Align::end, TextAlign::start, false, {10, 0}},
             Case{"by digits", Align::start, TextAlign::digits, false, {20, 10}},
             Case{"at its end, mirrored", Align::end, TextAlign::automatic, true, {0, 0}},
             Case{"by digits, mirrored", Align::start, TextAlign::digits, true, {20, 10}},
         }) {
        BoxMeasurer measurer;
        Hud hud{HudDefinition{}, {}, &measurer};
        hud.resize({.size = {1280, 720}});
        if (row.mirrored) hud.set_language({.tag = "ar", .right_to_left = true});
        hud.add(Panel{.id = "p",
                      .place = {.anchor = Anchor::center},
                      .layout = Layout::column,
                      .align = row.align,
                      .plate = false});
        double short_one = 7.5, long_one = 10.25;
        const auto text = [&](const char* id, const double& value, const char* format) {
            return hud.add(Text{.id = id,
                                .value = watch(value),
                                .format = format,
                                .range = {0, 100.25},
                                .inside = "p",
                                .size = 20,
                                .align = row.text_align});
        };
        text("a", short_one, "{:.1f}");
        text("b", long_one, "{:.2f}");
        update(hud, 16ms);
        const float left = hud[hud.find("p")].box.x;
        // `100.25` as one needs 60 pixels; by digits `100` and `.25` are together as wide.
        EXPECT_EQ(hud[hud.find("p")].box.width, 60) << row.what;
        DisplayList list;
        hud.draw(list);
        std::vector<float> starts;
        for (const DisplayGroup& group : list.groups())
            for (const DisplayItem& item : group.items())
                if (item.kind == DisplayItem::Kind::text) starts.push_back(item.baseline.x - left);
        EXPECT_EQ(starts, (std::vector<float>{row.starts.begin(), row.starts.end()})) << row.what;
    }
}

TEST(Layers, order_siblings) {
    BoxMeasurer measurer;
    Hud hud{HudDefinition{}, {}, &measurer};
    hud.resize({.size = {1280, 720}});
    hud.add(Panel{.id = "front", .layer = 1});
    hud.add(Panel{.id = "back", .color = rgb(0x000001)});
    hud.add(Bar{.id = "child", .value = 1, .inside = "back", .color = rgb(0x000002), .layer = 100});
    hud.add(Bar{.id = "under", .value = 1, .inside = "back", .color = rgb(0x000003), .layer = -1});
    update(hud, 16ms);
    DisplayList list;
    hud.draw(list);
    std::vector<Color> order;
    for (const DisplayGroup& group : list.groups())
        order.push_back(group.items().back().color);
    EXPECT_EQ(order, (std::vector<Color>{rgb(0x000001), rgb(0x000003), rgb(0x000002), Panel{}.color}))
        << "what stands in a panel is drawn with it";
    ASSERT_TRUE(list.viewport());
    EXPECT_EQ(list.viewport()->size, (Size{1280, 720}));
}

}  // namespace place_test
}  // namespace rapido::test
