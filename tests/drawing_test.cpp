// Layout, the display list and pictures.
#include "rapido/file.hpp"
#include "rapido/picture.hpp"
#include "support.hpp"

namespace rapido::test {
namespace drawing_test {

TEST(Layout, hangs_a_text_on_each_of_nine_anchors) {
    struct Case {
        Anchor anchor;
        float x, y;
    };
    // A text of 4 characters at size 20 is 40 wide and 20 high; the screen is 1280 x 800, the offset (10, 6).
    for (const Case& row :
         {Case{Anchor::top_left, 10, 6}, Case{Anchor::top, 630, 6}, Case{Anchor::top_right, 1230, 6},
          Case{Anchor::left, 10, 396}, Case{Anchor::center, 630, 396}, Case{Anchor::right, 1230, 396},
          Case{Anchor::bottom_left, 10, 774}, Case{Anchor::bottom, 630, 774}, Case{Anchor::bottom_right, 1230, 774}}) {
        BoxMeasurer measurer;
        Hud hud({.design = {1280, 800},
                 .elements = {Text{
                     .id = "t", .format = "1480", .place = {.anchor = row.anchor, .offset = {10, 6}}, .size = 20}}},
                {}, &measurer);
        hud.resize({.size = {1280, 800}});
        update(hud, 0s);
        EXPECT_EQ(hud[hud.find("t")].box, (Rect{row.x, row.y, 40, 20})) << static_cast<int>(row.anchor);
    }
}

TEST(Layout, follows_the_real_edges_at_a_scale_that_shows_the_whole_design) {
    struct Case {
        Size window;
        float width, height;  // of the screen in design pixels
    };
    for (const Case& row :
         {Case{{1280, 800}, 1280, 800}, Case{{640, 400}, 1280, 800}, Case{{2560, 1080}, 1896.2963F, 800},
          Case{{800, 600}, 1280, 960}, Case{{3840, 2160}, 1422.2222F, 800}, Case{{1080, 1920}, 1280, 2275.5556F}}) {
        BoxMeasurer measurer;
        Hud hud({.design = {1280, 800},
                 .elements = {Text{.id = "t", .format = "ab", .place = {.anchor = Anchor::bottom_right}, .size = 20}}},
                {}, &measurer);
        hud.resize({.size = row.window});
        update(hud, 0s);
        const Rect box = hud[hud.find("t")].box;
        EXPECT_NEAR(box.right(), row.width, 0.001F);
        EXPECT_NEAR(box.bottom(), row.height, 0.001F);
        EXPECT_EQ(box.width, 20);
        DisplayList list;
        hud.draw(list);
        const DisplayItem& item = list.groups()[0].items()[0];
        const float scale = row.window.width / row.width;
        EXPECT_NEAR(item.size, 20 * scale, 1e-3F);
        EXPECT_NEAR(item.baseline.x + item.width, row.window.width, 0.01F);
    }
}

TEST(Layout, sizes_a_panel_by_what_it_holds_in_every_frame) {
    int score = 7;
    bool shown = true;
    BoxMeasurer measurer;
    Hud hud({.design = {1280, 800}}, {}, &measurer);
    hud.resize({.size = {1280, 800}});
    const auto panel =
        hud.add(Panel{.id = "p", .place = {.anchor = Anchor::top_right, .offset = {8, 8}}, .padding = {4, 10, 6, 20}});
    const auto text = hud.add(Text{.id = "t",
                                   .value = watch(score),
                                   .place = {.anchor = Anchor::top_right, .offset = {0, 30}},
                                   .inside = "p",
                                   .size = 40});
    hud.add(Text{.id = "c", .format = "ABCDEF", .inside = "p", .size = 10, .visible = watch(shown)});
    update(hud, 0s);
    // The caption is 30 x 10; the number 20 x 40 under an offset of 30.
    EXPECT_EQ(hud[panel].box, (Rect{1280 - 8 - 60, 8, 60, 80}));
    score = 1480;
    update(hud, 0s);
    EXPECT_EQ(hud[panel].box, (Rect{1280 - 8 - 110, 8, 110, 80}));
    EXPECT_EQ(hud[text].box, (Rect{1280 - 8 - 10 - 80, 8 + 4 + 30, 80, 40}));
    score = 7;
    shown = false;
    update(hud, 0s);
    EXPECT_EQ(hud[panel].box.width, 50) << "what is hidden takes no room";
    const int shaped = measurer.shaped;
    update(hud, 0s);
    hud.resize({.size = {640, 400}});
    update(hud, 0s);
    EXPECT_EQ(measurer.shaped, shaped) << "nothing is measured again for a new scale";
}

TEST(Layout, gives_each_of_two_players_a_viewport_with_their_own_values) {
    BoxMeasurer measurer;
    HudDefinition definition{.design = {640, 400}};
    definition.elements = {
        Text{.id = "score", .value = "score", .place = {.anchor = Anchor::top_right, .offset = {10, 0}}, .size = 20},
        Panel{.id = "p", .place = {.anchor = Anchor::bottom_left}}};
    std::array<int, 2> scores{7, 42};
    for (std::size_t player = 0; player < 2; ++player) {
        Sources sources;
        sources.set("score", watch(scores[player]));
        Hud hud(definition, sources, &measurer);
        // The right half of a window begins at 1280; both are at twice the design size.
        const float left = player == 0 ? 0.0F : 1280.0F;
        hud.resize({.size = {1280, 800}, .origin = {left, 100}});
        update(hud, 0s);
        DisplayList list;
        hud.draw(list);
        const DisplayItem& text = list.groups()[0].items()[0];
        EXPECT_EQ(list.groups()[0].text_of(text), std::to_string(scores[player]));
        EXPECT_EQ(text.baseline.x + text.width, left + 1280 - 20);
        EXPECT_EQ(text.baseline.y, 100 + 0.75F * 40);
        const Rect& plate = list.groups()[1].items()[0].rect;
        EXPECT_EQ(plate.x, left);
        EXPECT_EQ(plate.bottom(), 100 + 800);
    }
}

TEST(Layout, draws_nothing_in_a_window_that_is_none) {
    BoxMeasurer measurer;
    Hud hud({.elements = {Panel{.id = "p"}, Text{.id = "t", .format = "x", .inside = "p"}}}, {}, &measurer);
    for (const Size size : {Size{0, 0}, Size{-5, 100}, Size{NAN, 100}, Size{INFINITY, 1}, Size{1, 1}}) {
        hud.resize({.size = size});
        update(hud, 0s);
        DisplayList list;
        hud.draw(list);
        for (const DisplayGroup& group : list.groups())
            for (const DisplayItem& item : group.items())
                EXPECT_TRUE(std::isfinite(item.rect.x) && std::isfinite(item.baseline.x) && item.size < 2);
    }
}

TEST(DisplayList, rewrites_only_what_changed_since_it_was_last_drawn) {
    int a = 1, b = 2;
    BoxMeasurer measurer;
    Hud hud({}, {}, &measurer);
    hud.add(Text{.id = "a", .value = watch(a)});
    hud.add(Text{.id = "b", .value = watch(b), .layer = -1});
    DisplayList first, second;
    update(hud, 0s);
    hud.draw(first);
    ASSERT_EQ(first.groups().size(), 2U);
    const auto text = [](const DisplayList& list, std::size_t i) {
        return std::string(list.groups()[i].text_of(list.groups()[i].items()[0]));
    };
    EXPECT_EQ(text(first, 0), "2") << "a lower layer is drawn before";
    a = 5;
    update(hud, 0s);
    const std::uint64_t revision_b = first.groups()[0].revision;
    hud.draw(second);
    hud.draw(first);
    EXPECT_EQ(first.groups()[0].revision, revision_b);
    for (const DisplayList* list : {&first, &second}) {
        EXPECT_EQ(text(*list, 1), "5");
        EXPECT_EQ(list->groups()[1].glyphs_of(list->groups()[1].items()[0]).size(), 1U);
    }
}

/// How much of a row or column of pixels is lit, in pixels.
double lit(const Picture& picture) {
    double sum = 0;
    for (int y = 0; y < picture.height(); ++y)
        for (int x = 0; x < picture.width(); ++x)
            sum += picture.pixel(x, y).red / 255.0;
    return sum;
}

TEST(Picture, fills_as_many_pixels_of_a_bar_as_its_fill_says) {
    Fonts fonts;
    for (const Direction direction : {Direction::right, Direction::left, Direction::up, Direction::down})
        for (const double fill : {0.0, 0.004, 0.1, 0.25, 0.5, 0.731, 0.996, 1.0})
            for (const float scale : {1.0F, 1.7F}) {
                Hud hud({.design = {200, 100}}, {}, &fonts);
                hud.add(Bar{.id = "b",
                            .value = constant(fill),
                            .place = {.offset = {20, 10}, .size = {150, 60}},
                            .direction = direction,
                            .color = rgb(0xffffff),
                            .background = rgb(0x000000),
                            .radius = 0});
                hud.resize({.size = {200 * scale, 100 * scale}});
                update(hud, 0s);
                DisplayList list;
                hud.draw(list);
                Picture picture(static_cast<int>(200 * scale), static_cast<int>(100 * scale), fonts);
                picture.draw(list);
                const double whole = static_cast<double>(std::round(170 * scale) - std::round(20 * scale)) *
                                     (std::round(70 * scale) - std::round(10 * scale));
                // A little is two design pixels at least, and nearly all is two less than all.
                const bool is_wide = direction == Direction::right || direction == Direction::left;
                const auto length = static_cast<double>(is_wide ? std::round(170 * scale) - std::round(20 * scale)
                                                                : std::round(70 * scale) - std::round(10 * scale));
                const double filled =
                    fill > 0 && fill < 1 ? std::clamp(fill * length, 2.0 * scale, length - 2 * scale) / length : fill;
                EXPECT_NEAR(lit(picture), whole * filled, whole * 0.001) << fill << " " << static_cast<int>(direction);
                // A pixel near the left edge is lit by the first of the fill, or by the last of it.
                const Color near_left = picture.pixel(static_cast<int>(26 * scale), static_cast<int>(11 * scale));
                const bool first = direction == Direction::right || direction == Direction::down;
                const bool across = direction == Direction::right || direction == Direction::left;
                if (across) {
                    EXPECT_EQ(near_left.red == 255, fill >= (first ? 0.1 : 0.996)) << fill;
                }
            }
}

TEST(Fonts, measure_in_proportion_and_with_digits_of_one_width) {
    Fonts fonts;
    const auto font = fonts.find("Inter", 700);
    ASSERT_TRUE(font);
    std::vector<Glyph> glyphs;
    const float one = fonts.shape(*font, 16, "Acres 1,480", glyphs);
    EXPECT_EQ(glyphs.size(), 11U);
    EXPECT_NEAR(fonts.shape(*font, 48, "Acres 1,480", glyphs), 3 * one, 1e-3F);
    const float zero = fonts.shape(*font, 16, "0", glyphs);
    for (const char* digit : {"1", "2", "3", "4", "5", "6", "7", "8", "9"})
        EXPECT_EQ(fonts.shape(*font, 16, digit, glyphs), zero) << digit;
    EXPECT_EQ(fonts.find("Inter", 700), font) << "the same font is the same number";
    EXPECT_NE(fonts.find("Inter", 400), font);
    EXPECT_TRUE(fonts.find("sans-serif", 400));
    EXPECT_EQ(fonts.find("No Such Family", 400), std::nullopt);
    EXPECT_EQ(fonts.shape(*font, 16, "", glyphs), 0);
}

TEST(Fonts, take_each_character_from_the_first_family_that_has_it) {
    Fonts fonts;
    std::vector<Glyph> glyphs;
    const auto list = fonts.find("No Such Family, Inter, Noto Sans Arabic UI, VL PGothic", 400);
    const auto inter = fonts.find("Inter", 400);
    const auto arabic = fonts.find("Noto Sans Arabic UI", 400);
    ASSERT_TRUE(list && inter && arabic);
    EXPECT_EQ(fonts.find("No Such Family, Inter, Noto Sans Arabic UI, VL PGothic", 400), list);
    const float plain = fonts.shape(*inter, 20, "Fire 12", glyphs);
    EXPECT_EQ(fonts.shape(*list, 20, "Fire 12", glyphs), plain);
    EXPECT_GT(fonts.shape(*list, 20, "Fire 12 火", glyphs), plain);
    EXPECT_NE(glyphs.back().font, glyphs.front().font);
    EXPECT_TRUE(fonts.take_missing().empty());
    fonts.shape(*inter, 20, "a火a", glyphs);
    EXPECT_EQ(fonts.take_missing(), U"火");
    EXPECT_TRUE(fonts.take_missing().empty());

    // Joined forms: the letters together are not the letters one by one, and they go from right to left.
    float apart = 0;
    std::vector<std::uint32_t> alone;
    for (const char* letter : {"م", "ا", "ء"}) {
        apart += fonts.shape(*arabic, 20, letter, glyphs);
        alone.push_back(glyphs[0].id);
    }
    EXPECT_NE(fonts.shape(*arabic, 20, "ماء", glyphs), apart);
    ASSERT_EQ(glyphs.size(), 3U);
    EXPECT_EQ(glyphs[0].id, alone[2]) << "the last letter stands on the left, and joins nothing";
    // Digits among them stay in their order.
    fonts.shape(*arabic, 20, "ماء 45", glyphs);
    const std::uint32_t last = glyphs.back().id;
    fonts.shape(*arabic, 20, "4", glyphs);
    const std::uint32_t four = glyphs[0].id;
    fonts.shape(*arabic, 20, "ماء 45", glyphs);
    EXPECT_EQ(glyphs[0].id, four) << "45 stands on the left, and begins with its 4";
    EXPECT_NE(last, four);
}

TEST(Fonts, tell_of_a_missing_character_with_its_element) {
    Fonts fonts;
    Hud hud({.font = "Inter"}, {}, &fonts);
    hud.add(Text{.id = "fire", .format = "火 1"});
    update(hud, 0s);
    ASSERT_EQ(hud.problems().size(), 1U);
    EXPECT_EQ(to_string(hud.problems()[0]),
              "warning: text 'fire': no font has '火' (U+706B); add a family that has it to 'font'");
}

TEST(Picture, writes_the_same_as_a_drawing) {
    TemporaryFolder folder;
    Fonts fonts;
    Hud hud({.design = {300, 200}, .font = "Inter"}, {}, &fonts);
    hud.add(Panel{.id = "p", .color = rgb(0x38b6c9), .border = 2, .border_color = rgb(0xff7a3c)});
    hud.add(Text{.id = "t", .format = "Acres", .inside = "p", .color = rgb(0x8fce5a)});
    hud.resize({.size = {300, 200}});
    update(hud, 0s);
    DisplayList list;
    hud.draw(list);
    const std::string path = folder.path("hud.svg");
    ASSERT_TRUE(write_svg(list, 300, 200, fonts, path));
    const std::string svg = *read_text_file(path, 1'000'000);
    EXPECT_NE(svg.find("width=\"300px\" height=\"200px\" viewBox=\"0 0 300 200\""), std::string::npos);
    const auto percent = [](int channel) {
        std::array<char, 32> text;
        std::snprintf(text.data(), text.size(), "%.8g%%", channel * 100 / 255.0);
        return std::string(text.data());
    };
    for (const Color color : {rgb(0x38b6c9), rgb(0xff7a3c), rgb(0x8fce5a)})
        EXPECT_NE(svg.find("rgb(" + percent(color.red)), std::string::npos) << to_string(color);
    EXPECT_EQ(svg.find("<image"), std::string::npos) << "no pixels";
    EXPECT_NE(svg.rfind("</svg>"), std::string::npos);
    EXPECT_FALSE(write_svg(list, 300, 200, fonts, "/nowhere/at/all.svg"));
}

TEST(Picture, says_why_a_file_cannot_be_read_or_written) {
    Fonts fonts;
    Picture picture(8, 8, fonts);
    EXPECT_NE(to_string(picture.draw_image("/nowhere/at/all.png").problem())
                  .find("/nowhere/at/all.png: error: cannot be opened: No such file"),
              std::string::npos);
    EXPECT_FALSE(picture.write_png("/nowhere/at/all.png"));
    EXPECT_EQ(Picture(-3, 900000, fonts).height(), 16384);
}

TEST(Drawing, is_the_same_at_every_scale_but_for_the_scale) {
    const double value = 40;
    const double half = 0.5;
    BoxMeasurer measurer;
    Hud hud(HudDefinition{}, {}, &measurer);
    hud.add(Dial{.id = "dial",
                 .value = watch(value),
                 .max = 100,
                 .place = {.size = {100, 100}},
                 .ticks = {.every = 20, .format = "{:.0f}"}});
    hud.add(Pips{.id = "pips", .value = watch(half), .max = 1, .shape = Shape::diamond, .steps = 2});
    const auto points = [&](float scale) {
        hud.resize({.size = {1280 * scale, 720 * scale}});
        update(hud, 16ms);
        DisplayList list;
        hud.draw(list);
        std::vector<Point> all;
        int full = 0;
        for (const DisplayGroup& group : list.groups())
            for (const DisplayItem& item : group.items()) {
                if (item.kind == DisplayItem::Kind::text)
                    all.push_back({item.baseline.x / scale, item.baseline.y / scale});
                for (const Point& point : group.points_of(item))
                    if (item.kind == DisplayItem::Kind::line) all.push_back({point.x / scale, point.y / scale});
                full += item.color == Pips{}.color && item.kind == DisplayItem::Kind::polygon ? 1 : 0;
            }
        EXPECT_GE(full, 1) << "half a diamond is a triangle";
        return all;
    };
    const std::vector<Point> once = points(1), twice = points(2);
    ASSERT_EQ(once.size(), twice.size());
    ASSERT_GE(once.size(), 6U);
    for (std::size_t i = 0; i < once.size(); ++i) {
        EXPECT_NEAR(once[i].x, twice[i].x, 0.01);
        EXPECT_NEAR(once[i].y, twice[i].y, 0.01);
    }
}

TEST(Drawing, fills_an_outline_over_the_whole_box) {
    BoxMeasurer measurer;
    Hud hud(HudDefinition{}, {}, &measurer);
    hud.add(Level{.id = "tank", .value = 1, .place = {.size = {200, 50}}, .corners = {{0, 0}, {1, 0}, {1, 1}, {0, 1}}});
    update(hud, 16ms);
    DisplayList list;
    hud.draw(list);
    float left = 1e9F, right = 0;
    for (const DisplayItem& item : list.groups()[0].items())
        for (const Point& point : list.groups()[0].points_of(item)) {
            left = std::min(left, point.x);
            right = std::max(right, point.x);
        }
    EXPECT_NEAR(right - left, 200, 0.01) << "corners are parts of the box, whatever its shape";
}

TEST(Layout, moves_an_element_by_its_offset_in_every_arrangement) {
    for (const Layout layout : {Layout::row, Layout::column, Layout::grid}) {
        std::array<Rect, 2> boxes;
        for (const bool moved : {false, true}) {
            BoxMeasurer measurer;
            Hud hud(HudDefinition{}, {}, &measurer);
            hud.add(Panel{.id = "p", .layout = layout});
            hud.add(Text{.id = "a", .format = "first", .inside = "p"});
            const auto text = hud.add(
                Text{.id = "b", .format = "second", .place = {.offset = moved ? Point{3, 5} : Point{}}, .inside = "p"});
            update(hud, 16ms);
            boxes[moved ? 1 : 0] = hud[text].box;
        }
        EXPECT_EQ(boxes[1].x - boxes[0].x, 3);
        EXPECT_EQ(boxes[1].y - boxes[0].y, 5);
    }
}

TEST(Drawing, rounds_the_ends_of_an_arc_outwards) {
    DisplayGroup group;
    group.begin();
    // A quarter from the top to the right, between radii of 8 and 12.
    group.arc({{50, 50}, 12, 8, 0, 90, true}, rgb(0xffffff));
    float left = 50, top = 50, right = 50, bottom = 50;
    for (const Point& point : group.points_of(group.items()[0])) {
        left = std::min(left, point.x);
        top = std::min(top, point.y);
        right = std::max(right, point.x);
        bottom = std::max(bottom, point.y);
    }
    EXPECT_NEAR(left, 48, 0.1) << "half the thickness before its beginning";
    EXPECT_NEAR(bottom, 52, 0.1) << "and behind its end";
    EXPECT_NEAR(top, 38, 0.1);
    EXPECT_NEAR(right, 62, 0.1);
}

TEST(Picture, is_a_layer_over_a_game_that_draws_with_the_processor) {
    constexpr int width = 200, height = 120;
    double fill = 0.4;
    Fonts fonts;
    Hud hud({.design = {width, height}, .font = "Inter"}, {}, &fonts);
    hud.resize({.size = {width, height}});
    hud.add(Text{.id = "text", .value = watch(fill), .place = {.offset = {20, 10}}, .color = rgb(0xff8040, 0.7)});
    hud.add(Ring{.id = "ring", .value = watch(fill), .place = {.offset = {20.5F, 50}, .size = {40, 40}}});
    const Color ground = rgb(0x335577);
    Picture layer(width, height, fonts), expected(width, height, fonts);
    EXPECT_TRUE(layer.drawn().is_empty());
    DisplayList list;
    constexpr int row = width + 3;  // of a game whose rows are longer
    std::vector<std::uint32_t> game(static_cast<std::size_t>(row * height));
    for (int frame = 0; frame < 3; ++frame) {
        std::fill(game.begin(), game.end(), 0xff335577U);
        fill += 0.1;
        hud.update(0.5);
        hud.draw(list);
        layer.clear();
        layer.draw(list);
        layer.blend_onto(game.data(), row * 4);
        expected.fill(ground);
        expected.draw(list);
        int changed = 0;
        for (int y = 0; y < height; ++y)
            for (int x = 0; x < width; ++x) {
                const std::uint32_t pixel = game[static_cast<std::size_t>(y * row + x)];
                const Color seen = expected.pixel(x, y);
                const auto apart = [&](std::uint32_t shift, std::uint8_t channel) {
                    return std::abs(static_cast<int>((pixel >> shift) & 255U) - channel);
                };
                ASSERT_LE(std::max({apart(16, seen.red), apart(8, seen.green), apart(0, seen.blue)}), 1)
                    << x << " " << y;
                const PixelRect drawn = layer.drawn();
                const bool is_inside =
                    x >= drawn.x && y >= drawn.y && x < drawn.x + drawn.width && y < drawn.y + drawn.height;
                ASSERT_TRUE(is_inside || pixel == 0xff335577U);
                changed += pixel != 0xff335577U ? 1 : 0;
            }
        EXPECT_GT(changed, 500);
        EXPECT_LT(layer.drawn().width * layer.drawn().height, 100 * 100) << "and not all of the picture";
    }
    layer.clear();
    for (const std::uint32_t pixel : layer.pixels())
        ASSERT_EQ(pixel, 0U);
    EXPECT_GE(layer.stride(), width);
}

}  // namespace drawing_test
}  // namespace rapido::test
