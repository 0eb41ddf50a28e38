// Dials and scales: where they point, and what they write.
#include <cmath>
#include <numbers>

#include "pixels.hpp"
#include "rapido/locale.hpp"

namespace rapido::test {
namespace instrument_test {

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

TEST(Dial, has_a_needle_with_a_tail_as_long_as_it_says) {
    BoxMeasurer measurer;
    Hud hud({.design = {400, 300}}, {}, &measurer);
    Dial dial = bare_dial();
    dial.value = 50;
    dial.max = 100;
    dial.needle.tail = 0.25F;
    dial.place = {.anchor = Anchor::top_left, .size = {200, 200}};
    hud.add(dial);
    hud.resize({400, 300});
    update(hud, 0s);
    DisplayList list;
    hud.draw(list);
    float top = 1000, bottom = 0;
    for (const DisplayGroup& group : list.groups())
        for (const DisplayItem& item : group.items())
            if (item.kind == DisplayItem::Kind::polygon && item.color == white)
                for (const Point& corner : group.points_of(item)) {
                    top = std::min(top, corner.y);
                    bottom = std::max(bottom, corner.y);
                }
    EXPECT_NEAR(top, 100 - 0.9F * 100, 1e-3) << "it points up from the middle";
    EXPECT_NEAR(bottom, 100 + 0.25F * 100, 1e-3);
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
        dial.value = constant(row.value);
        dial.min = row.min;
        dial.max = constant(row.max);
        dial.start = row.start;
        dial.sweep = row.sweep;
        dial.wraps = row.wraps;
        Stage stage(dial);
        const std::optional<Point> center = center_of(stage.first());
        ASSERT_EQ(center.has_value(), row.degrees.has_value()) << row.value << " of " << row.max;
        EXPECT_EQ(stage.hud[stage.element].fill.has_value(), row.degrees.has_value());
        if (!center) continue;
        const double angle = std::atan2(static_cast<double>(center->x) - 100, 100 - static_cast<double>(center->y));
        const double off = angle * 180 / std::numbers::pi - *row.degrees;
        EXPECT_NEAR(off - 360 * std::round(off / 360), 0, 0.7) << row.value << " of " << row.max;
    }
}

int count_polygons(const Stage& stage) {
    int count = 0;
    for (const DisplayGroup& group : stage.list.groups())
        for (const DisplayItem& item : group.items())
            count += item.kind == DisplayItem::Kind::polygon ? 1 : 0;
    return count;
}

TEST(Marks, stand_at_even_steps_with_numbers_in_the_language) {
    double max = 1000;
    Dial dial = bare_dial();
    dial.value = 0;
    dial.max = watch(max);
    dial.ticks = {.every = 125, .long_every = 500, .format = "{:L}"};
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
    dial.ticks = {.every = 1, .long_every = 3, .format = "{:.0f}"};
    Stage clock(dial);
    clock.pass(0s);
    EXPECT_EQ(written(clock), "0 3 6 9") << "the end is where the beginning is";
    Ruler scale{.id = "s", .value = 0, .min = -10, .max = 10};
    scale.ticks = {.every = 5, .format = "{:+.0f}"};
    Stage straight(scale);
    straight.pass(0s);
    EXPECT_EQ(written(straight), "-10 -5 +0 +5 +10");
    // What takes time has numbers that do.
    const Nanoseconds passed{0};
    dial.value = watch(passed);
    dial.sweep = 270;
    dial.wraps = false;
    dial.max = 240;
    dial.ticks = {.every = 60, .format = "{:%M:%S}"};
    Stage timer(dial);
    timer.pass(0s);
    EXPECT_EQ(written(timer), "00:00 01:00 02:00 03:00 04:00");
    dial.ticks.format = "{:q}";
    EXPECT_EQ(Stage(dial).hud.problems().size(), 1U);
}

TEST(Ruler, points_at_its_value_in_every_direction) {
    for (const Direction direction : {Direction::right, Direction::left, Direction::up, Direction::down})
        for (const auto& [value, part] : std::vector<std::pair<double, double>>{
                 {40, 0}, {60, 0.25}, {100, 0.75}, {120, 1}, {999, 1}, {-5, 0}, {NAN, -1}}) {
            const bool upright = direction == Direction::up || direction == Direction::down;
            Ruler scale{.id = "s", .value = constant(value), .min = 40, .max = 120};
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

TEST(Ruler, fills_from_where_it_rests_both_ways) {
    const auto lit_between = [](double value, double* from, double* to) {
        Ruler scale{.id = "s", .value = constant(value), .min = -10, .max = 30};
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

TEST(Ruler, runs_through_its_colors) {
    Ruler scale{.id = "s", .value = NAN, .min = 0, .max = 100};
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
    EXPECT_EQ(to_string(Stage(scale).hud.problems().at(0)), "error: 'colors' of ruler 's' must stand in order of 'at'");
}

/// The long numbers that a tape writes, with where the middle of each is, in order.
std::vector<std::pair<std::string, float>> numbers_of(const Stage& stage) {
    DisplayList list;
    stage.hud.draw(list);
    std::vector<std::pair<std::string, float>> found;
    for (const DisplayGroup& group : list.groups())
        for (const DisplayItem& item : group.items())
            if (item.kind == DisplayItem::Kind::text)
                found.emplace_back(group.text_of(item), item.baseline.x + item.width / 2);
    std::sort(found.begin(), found.end(), [](const auto& a, const auto& b) { return a.second < b.second; });
    return found;
}

TEST(Ruler, is_a_tape_that_runs_below_its_pointer) {
    using Numbers = std::vector<std::string>;
    struct Row {
        double value, cycle;
        Numbers numbers;
    };
    // 200 pixels show 100 degrees.
    for (const Row& row : std::vector<Row>{{180, 360, {"150", "S", "210"}},
                                           {200, 360, {"S", "210", "240"}},
                                           {0, 360, {"330", "N", "30"}},
                                           {359, 360, {"330", "N", "30"}},
                                           {25, 360, {"N", "30", "60"}},
                                           {0, 0, {"N", "30"}},
                                           {350, 0, {"330", "N"}},
                                           {NAN, 360, {}}}) {
        Ruler scale{.id = "s", .value = constant(row.value), .max = 360};
        scale.place.size = {200, 0};
        scale.visible_span = 100;
        scale.motion.cycle = row.cycle;
        scale.ticks = {.every = 10, .long_every = 30, .format = "{:.0f}", .labels = {{0, "N"}, {180, "S"}, {360, "N"}}};
        Stage stage(scale);
        EXPECT_EQ(stage.hud.problems(), Problems{});
        const Picture picture = stage.first();
        Numbers texts;
        for (const auto& [text, x] : numbers_of(stage)) {
            texts.push_back(text);
            double degrees = text == "N" ? 0 : text == "S" ? 180 : std::stod(text);
            double away = degrees - row.value;
            if (row.cycle > 0 || text == "N") away = std::remainder(away, 360);
            EXPECT_NEAR(static_cast<double>(x), 100 + 2 * away, 0.01) << text << " at " << row.value;
        }
        EXPECT_EQ(texts, row.numbers) << row.value << " of a cycle of " << row.cycle;
    }
    Ruler scale{.id = "s", .value = 0, .max = 360, .neutral = 1};
    scale.motion.cycle = 360;
    scale.visible_span = 400;
    const Stage stage(scale);
    ASSERT_EQ(stage.hud.problems().size(), 2U);
    EXPECT_EQ(to_string(stage.hud.problems()[1]), "error: 'visible_span' of ruler 's' must not be more than 'cycle'");
}

TEST(Ruler, that_is_a_tape_shows_its_colors_where_they_are) {
    for (const double value : {10.0, 180.0, 350.0}) {
        Ruler scale{.id = "s", .value = constant(value), .max = 360};
        scale.place.size = {200, 0};
        scale.visible_span = 100;
        scale.motion.cycle = 360;
        scale.pointer = scale.radius = 0;
        scale.colors = {{0, rgb(0x000000)}, {180, rgb(0xff0000)}, {360, rgb(0x000000)}};
        Stage stage(scale);
        const Picture picture = stage.first();
        for (int x = 1; x < 199; ++x) {
            const double at = std::abs(std::remainder(value + (x + 0.5 - 100) / 2, 360));
            EXPECT_NEAR(picture.pixel(x, 5).red, 255 * at / 180, 4) << value << ", " << x;
        }
    }
}

TEST(Ruler, may_have_further_pointers) {
    double target = 25;
    Ruler scale{.id = "s", .value = 75, .max = 100};
    scale.place.size = {200, 0};
    scale.background = black;
    scale.color = rgb(0x0000ff);
    scale.pointers = {{.value = watch(target), .color = white}};
    Stage stage(scale);
    const auto white_at = [&](const Picture& picture) {
        for (int x = 0; x < 200; ++x)
            if (picture.pixel(x, 15).red > 200) return x;
        return -1;
    };
    EXPECT_NEAR(white_at(stage.first()), 50, 1.5);
    target = 50;
    stage.pass(10ms);
    EXPECT_NEAR(white_at(stage.shot()), 100, 1.5);
    target = NAN;
    stage.pass(10ms);
    EXPECT_EQ(white_at(stage.shot()), -1);
}

}  // namespace instrument_test
}  // namespace rapido::test
