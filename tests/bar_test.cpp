// Bars and rings as a player sees them: what is lit, counted in pixels.
#include <cmath>
#include <numbers>

#include "pixels.hpp"
#include "rapido/file.hpp"

namespace rapido::test {
namespace bar_test {

/// A picture of one element on black.
Picture picture_of(const Element& element) {
    return Stage(element).first();
}

TEST(Ring, lights_the_area_that_its_fill_says) {
    for (const float start : {0.0F, 210.0F})
        for (const float sweep : {360.0F, 300.0F, -360.0F, -120.0F, 45.0F})
            for (const float thickness : {12.0F, 500.0F})
                for (const double fill : {0.25, 0.731, 1.0}) {
                    const Picture picture = picture_of(Ring{.id = "r",
                                                            .value = constant(fill),
                                                            .place = {.offset = {20, 10}, .size = {170, 180}},
                                                            .start = start,
                                                            .sweep = sweep,
                                                            .thickness = thickness,
                                                            .color = white,
                                                            .background = black});
                    // A sector of a ring: half the angle times the difference of the squares.
                    const double outer = 85;
                    const double inner = std::max(0.0, outer - static_cast<double>(thickness));
                    const double angle = std::abs(static_cast<double>(sweep)) * std::numbers::pi / 180 * fill;
                    const double area = angle / 2 * (outer * outer - inner * inner);
                    EXPECT_NEAR(lit(picture), area, 0.004 * area + 1) << start << " " << sweep << " " << fill;
                }
}

TEST(Ring, ends_exactly_at_each_quarter) {
    for (const float way : {1.0F, -1.0F})
        for (int quarters = 1; quarters <= 3; ++quarters) {
            const Picture picture = picture_of(Ring{.id = "r",
                                                    .value = constant(quarters),
                                                    .max = 4,
                                                    .place = {.size = {200, 200}},
                                                    .sweep = 360 * way,
                                                    .thickness = 30,
                                                    .color = white,
                                                    .background = black});
            // On the middle of the ring, a pixel before and a pixel behind each quarter.
            const auto is_lit = [&](int x, int y) { return picture.pixel(x, y).red > 250; };
            const std::array<std::array<bool, 2>, 4> at{{{is_lit(100, 15), is_lit(99, 15)},
                                                         {is_lit(184, 100), is_lit(184, 99)},
                                                         {is_lit(99, 184), is_lit(100, 184)},
                                                         {is_lit(15, 99), is_lit(15, 100)}}};
            for (std::size_t quarter = 0; quarter < 4; ++quarter) {
                // Clockwise, [0] is behind a quarter and [1] before it.
                const std::size_t n = way > 0 ? quarter : (4 - quarter) % 4;
                const bool behind = static_cast<int>(n) < quarters;
                const bool before = n == 0 ? false : static_cast<int>(n) - 1 < quarters;
                EXPECT_EQ(at[quarter][way > 0 ? 0 : 1], behind) << quarters << " " << quarter << " " << way;
                EXPECT_EQ(at[quarter][way > 0 ? 1 : 0], before) << quarters << " " << quarter << " " << way;
            }
        }
}

/// The lengths of the runs of lit pixels in a row of a picture.
std::vector<int> runs(const Picture& picture, int y) {
    std::vector<int> lengths;
    bool in_run = false;
    for (int x = 0; x < picture.width(); ++x) {
        const bool is_lit = picture.pixel(x, y).red > 127;
        if (is_lit && !in_run) lengths.push_back(0);
        if (is_lit) ++lengths.back();
        in_run = is_lit;
    }
    return lengths;
}

TEST(Bar, lights_the_area_that_its_fill_says) {
    for (const Size size : {Size{200, 30}, Size{30, 160}, Size{61, 47}})
        for (const Direction direction : {Direction::right, Direction::left, Direction::up, Direction::down})
            for (const double fill : {0.2, 0.5, 0.731, 1.0}) {
                const Picture picture = picture_of(Bar{.id = "b",
                                                       .value = constant(fill),
                                                       .place = {.offset = {10, 10}, .size = size},
                                                       .direction = direction,
                                                       .color = white,
                                                       .background = black,
                                                       .radius = 0});
                const double area = static_cast<double>(size.width * size.height) * fill;
                EXPECT_NEAR(lit(picture), area, 0.002 * area + 1) << fill << " " << static_cast<int>(direction);
                // At the empty end it is lit.
                const float far = 0.1F;
                const Point at = direction == Direction::right  ? Point{size.width * far, size.height / 2}
                                 : direction == Direction::left ? Point{size.width * (1 - far), size.height / 2}
                                 : direction == Direction::up   ? Point{size.width / 2, size.height * (1 - far)}
                                                                : Point{size.width / 2, size.height * far};
                EXPECT_EQ(picture.pixel(10 + static_cast<int>(at.x), 10 + static_cast<int>(at.y)).red, 255);
            }
}

TEST(Bar, of_segments_lights_whole_ones_and_honestly) {
    struct Row {
        double value;
        std::size_t lit;
    };
    for (const Row& row : std::vector<Row>{
             {0, 0}, {0.4, 1}, {10, 1}, {14.9, 1}, {15.1, 2}, {50, 5}, {94, 9}, {99.6, 9}, {100, 10}, {NAN, 0}}) {
        const Picture picture = picture_of(Bar{.id = "b",
                                               .value = constant(row.value),
                                               .max = 100,
                                               .place = {.offset = {10, 10}, .size = {203, 20}},
                                               .color = white,
                                               .background = black,
                                               .radius = 0,
                                               .segments = 10,
                                               .segment_gap = 3});
        const std::vector<int> found = runs(picture, 20);
        ASSERT_EQ(found.size(), row.lit) << row.value;
        for (const int length : found)
            EXPECT_NEAR(length, 17.6, 1) << "203 = 10 x 17.6 + 9 x 3: no sliver";
    }
    // So many that a segment has no room: something is still lit, and it ends.
    EXPECT_GE(lit(picture_of(Bar{.id = "b", .value = 0.5, .color = white, .segments = 1000})), 1);
}

TEST(Bar, shows_parts_ticks_and_a_border) {
    double shield = 20;
    const auto color_at = [&](const Picture& picture, int percent) {
        return to_string(picture.pixel(50 + percent, 20));
    };
    const Color red = rgb(0xff0000), green = rgb(0x00ff00), blue = rgb(0x0000ff);
    Bar bar{.id = "b",
            .value = 50,
            .max = 100,
            .place = {.offset = {50, 10}, .size = {100, 20}},
            .color = white,
            .background = black,
            .radius = 0,
            .parts = {{.value = watch(shield), .where = PartWhere::rest, .color = red},
                      {.value = 10, .where = PartWhere::fill, .color = green},
                      {.value = 15, .where = PartWhere::end, .color = blue}}};
    const auto check = [&](std::initializer_list<std::pair<int, std::string>> expected) {
        const Picture picture = picture_of(bar);
        for (const auto& [percent, color] : expected)
            EXPECT_EQ(color_at(picture, percent), color) << percent << " with a shield of " << shield;
    };
    check({{0, "#ffffff"},
           {39, "#ffffff"},
           {40, "#00ff00"},
           {49, "#00ff00"},
           {50, "#ff0000"},
           {69, "#ff0000"},
           {70, "#000000"},
           {84, "#000000"},
           {85, "#0000ff"},
           {99, "#0000ff"}});
    shield = 40;  // what is reserved stays free of it
    check({{39, "#ffffff"}, {40, "#00ff00"}, {49, "#00ff00"}, {50, "#ff0000"}, {84, "#ff0000"}, {85, "#0000ff"}});
    bar.parts.resize(1);
    shield = 80;  // it does not fit: it lies over the fill, up to the end
    check({{0, "#ffffff"}, {19, "#ffffff"}, {20, "#ff0000"}, {99, "#ff0000"}});
    shield = NAN;
    check({{49, "#ffffff"}, {50, "#000000"}});
    bar.parts.clear();
    bar.ticks = {.at = {{.at = 30, .thickness = 2, .color = red}, {.at = 100, .color = red}, {.at = -5, .color = red}}};
    bar.border = 4;
    bar.border_color = blue;
    bar.padding = 2;
    bar.value = 100;
    // Inside border and padding there are 88 pixels: 30 % of them ends at 6 + 26.4.
    check({{0, "#0000ff"},
           {3, "#0000ff"},
           {4, "#000000"},
           {5, "#000000"},
           {6, "#ffffff"},
           {32, "#ff0000"},
           {35, "#ffffff"},
           {93, "#ffffff"},
           {94, "#000000"},
           {96, "#0000ff"}});
    bar.border = bar.padding = 0;
    bar.ticks.at.clear();
    bar.color = black;
    bar.end_color = white;
    const Picture shaded = picture_of(bar);
    for (int percent = 5; percent < 100; percent += 10)
        EXPECT_NEAR(shaded.pixel(50 + percent, 20).red, 255 * percent / 100, 5) << percent;
}

TEST(Bands, may_stripe_a_fill) {
    double value = 80;
    std::vector<Element> elements{
        Bar{.id = "e", .value = watch(value), .max = 100, .place = {.size = {200, 40}}, .color = white},
        Ring{.id = "e", .value = watch(value), .max = 100, .place = {.size = {160, 160}}, .color = white},
        Level{.id = "e", .value = watch(value), .max = 100, .place = {.size = {160, 160}}, .color = white}};
    for (Element& element : elements) {
        value = 80;
        edit(element, [](auto& any) {
            if constexpr (requires {
                              any.background;
                              any.bands;
                          })
                any.background = black;
            if constexpr (requires { any.motion; }) any.bands = {{.below = 0.5, .pattern = FillPattern::stripes}};
        });
        Stage stage(element);
        const double high = lit(stage.first());
        value = 40;
        stage.pass(10ms);
        const double low = lit(stage.shot());
        Stage plain(element);
        value = 40.0000001;
        edit(element, [](auto& any) {
            if constexpr (requires { any.bands; }) any.bands.clear();
        });
        const double whole = lit(Stage(element).first());
        EXPECT_LT(low, high);
        // Half of it is under stripes that let 45 % of the light through, and keep a little of their own.
        EXPECT_NEAR(low / whole, 0.5 + 0.5 * 0.48, 0.06) << stage.hud[stage.element].kind;
        value = 80;
        stage.pass(10ms);
        EXPECT_NEAR(lit(stage.shot()), high, 0.5) << "outside it is plain again";
    }
    const Picture bar = picture_of(Bar{.id = "b",
                                       .value = 0.3,
                                       .bands = {{.below = 0.5, .pattern = FillPattern::stripes}},
                                       .place = {.size = {200, 40}},
                                       .color = white,
                                       .background = black,
                                       .radius = 0});
    for (int x = 0; x < 60; ++x)
        EXPECT_EQ(bar.pixel(x, 20).red > 200, x / 4 % 2 == 0) << x << ": four pixels each";
    Hud hud;
    EXPECT_FALSE(hud.add(Text{.id = "t", .value = 1, .bands = {{.below = 2, .pattern = FillPattern::stripes}}}));
    EXPECT_EQ(to_string(hud.problems().at(0)),
              "error: 'bands.0.pattern' of text 't' is of bars, rings and levels only");
}

TEST(HudFile, reads_rings_and_the_parts_of_bars) {
    const Result<HudDefinition> read = read_hud(R"([[element]]
kind = "ring"
id = "fuel"
value = 3
max = 4
start = 225
sweep = 270
thickness = 12
round_ends = true
segments = 4
color = "#ff7a3c"
motion_up = { kind = "tween", duration = 0.5 }

[[element]]
kind = "bar"
id = "hull"
value = 3
end_color = "#ffffff"
ticks = { at = [25, { at = 50, thickness = 4 }] }
parts = [{ value = 2, where = "end" }]
)",
                                                "hud.toml");
    ASSERT_TRUE(read) << to_string(read.problems().front());
    Ring ring{.id = "fuel", .value = 3, .max = 4};
    ring.start = 225;
    ring.sweep = 270;
    ring.thickness = 12;
    ring.round_ends = true;
    ring.segments = 4;
    ring.color = rgb(0xff7a3c);
    ring.motion.up = tween(500ms);
    EXPECT_EQ(*read->elements.at(0).as<Ring>(), ring);
    Bar bar{.id = "hull", .value = 3};
    bar.end_color = white;
    bar.ticks = {.at = {{.at = 25}, {.at = 50, .thickness = 4}}};
    bar.parts = {{.value = 2, .where = PartWhere::end}};
    EXPECT_EQ(*read->elements.at(1).as<Bar>(), bar);
    const Hud text({.elements = {Ring{.id = "r", .value = "name"}}}, [] {
        Sources sources;
        static const std::string name = "Ada";
        sources.set("name", watch(name));
        return sources;
    }());
    ASSERT_EQ(text.problems().size(), 1U);
    EXPECT_EQ(to_string(text.problems()[0]),
              "error: 'value' of ring 'r': a ring needs a number, and this source is a text");
}

}  // namespace bar_test
}  // namespace rapido::test
