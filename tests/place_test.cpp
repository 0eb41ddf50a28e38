// Where elements stand besides the flow: stretched, by layers, kept on the screen.
#include "support.hpp"

namespace rapido::test {
namespace {

TEST(Layout, stretches_to_the_screen_and_the_panel) {
    BoxMeasurer measurer;
    Hud hud{HudDefinition{}, {}, &measurer};
    hud.resize({.size = {1280, 720}});
    const auto strip = hud.add(
        Panel{.id = "strip",
              .place = {.anchor = Anchor::bottom, .stretch = Stretch::width, .margin = {0, 40, 12, 20}},
              .padding = {10, 10, 10, 10}});
    const auto bar =
        hud.add(Bar{.id = "b", .value = 1, .place = {.stretch = Stretch::width}, .inside = "strip"});
    const auto shade = hud.add(Panel{.id = "shade", .place = {.stretch = Stretch::both}});
    const auto limited =
        hud.add(Bar{.id = "l",
                    .value = 1,
                    .place = {.anchor = Anchor::top_right, .max_size = {300, 0}, .stretch = Stretch::width}});
    hud.add(Panel{.id = "row",
                  .place = {.anchor = Anchor::top, .size = {500, 100}},
                  .layout = Layout::row,
                  .plate = false});
    const auto fixed = hud.add(Bar{.id = "fixed", .value = 1, .place = {.size = {100, 20}}, .inside = "row"});
    const auto grows = hud.add(Bar{.id = "grows",
                                   .value = 1,
                                   .place = {.stretch = Stretch::both, .margin = {10, 0, 30, 0}},
                                   .inside = "row"});
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
    const auto notice =
        hud.add(Notice{.id = "n", .place = {.anchor = Anchor::right, .offset = {-50, 0}}, .size = 40});
    EXPECT_TRUE(hud.notify(notice, {.text = std::string(300, 'x')}));
    update(hud, 16ms);
    EXPECT_EQ(hud[notice].box.x, 0);
    EXPECT_EQ(hud[notice].box.width, 1920);
    EXPECT_LT(hud.text(notice).size(), 301U + 10U);
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
    DrawList list;
    hud.draw(list);
    std::vector<Color> order;
    for (const DrawGroup& group : list.groups())
        order.push_back(group.commands().back().color);
    EXPECT_EQ(order, (std::vector<Color>{rgb(0x000001), rgb(0x000003), rgb(0x000002), Panel{}.color}))
        << "what stands in a panel is drawn with it";
    ASSERT_TRUE(list.viewport());
    EXPECT_EQ(list.viewport()->size, (Size{1280, 720}));
}

}  // namespace
}  // namespace rapido::test
