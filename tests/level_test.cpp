// Levels as a player sees them: how much of a shape is filled, counted in pixels.
#include <cmath>
#include <numbers>

#include "pixels.hpp"

namespace rapido::test {
namespace level_test {

constexpr std::array directions{Direction::right, Direction::left, Direction::up, Direction::down};

Level level_of(Shape shape, double fill, Size size = {150, 150}) {
    Level level{.id = "l", .value = constant(fill), .place = {.offset = {10, 10}, .size = size}};
    level.shape = shape;
    level.color = white;
    level.background = black;
    return level;
}

/// Of a circle of radius 1: the part of its area below a part of its height.
double circle_below(double level) {
    const double h = 2 * level;
    return (std::acos(1 - h) - (1 - h) * std::sqrt(2 * h - h * h)) / std::numbers::pi;
}
/// Of a diamond: two triangles.
double diamond_below(double level) {
    return level <= 0.5 ? 2 * level * level : 1 - 2 * (1 - level) * (1 - level);
}

TEST(Level, fills_every_shape_by_its_area) {
    for (const Size size : {Size{150, 150}, Size{70, 140}})
        for (int shape = 0; shape <= static_cast<int>(Shape::thermometer); ++shape)
            for (const Direction direction : directions) {
                Level level = level_of(static_cast<Shape>(shape), 1, size);
                level.direction = direction;
                level.fill_by = FillBy::area;
                const double whole = lit(Stage(level).first());
                EXPECT_GT(whole, 500) << shape;
                for (const double fill : {0.1, 0.37, 0.5, 0.9}) {
                    level.value = constant(fill);
                    EXPECT_NEAR(lit(Stage(level).first()) / whole, fill, 0.006)
                        << shape << " " << static_cast<int>(direction) << " " << fill;
                }
            }
}

TEST(Level, fills_by_height_what_geometry_says) {
    struct Row {
        Shape shape;
        double whole;  ///< in a box of 150 by 150
        double (*below)(double);
    };
    const std::vector<Row> rows{
        {Shape::box, 150.0 * 150, [](double level) { return level; }},
        {Shape::circle, 75.0 * 75 * std::numbers::pi, circle_below},
        {Shape::diamond, 120.0 * 150 / 2, diamond_below},  // four fifths as wide as it is high
    };
    for (const Row& row : rows)
        for (const Direction direction : directions)
            for (const double fill : {0.08, 0.25, 0.5, 0.831, 1.0}) {
                Level level = level_of(row.shape, fill);
                level.direction = direction;
                const double expected = row.whole * row.below(fill);
                EXPECT_NEAR(lit(Stage(level).first()), expected, 0.004 * row.whole)
                    << static_cast<int>(row.shape) << " " << static_cast<int>(direction) << " " << fill;
            }
    // A polygon of one's own: a triangle, upside down, has a quarter of its area below its half.
    Level level = level_of(Shape::circle, 0.5);
    level.corners = {{0, 0}, {1, 0}, {0.5F, 1}};
    EXPECT_NEAR(lit(Stage(level).first()), 150.0 * 150 / 2 / 4, 40);
}

TEST(Level, is_honest_in_every_shape) {
    for (int shape = 0; shape <= static_cast<int>(Shape::thermometer); ++shape)
        for (const FillBy by : {FillBy::extent, FillBy::area})
            for (const Direction direction : directions)
                for (const float size : {24.0F, 150.0F}) {
                    const auto lit_of = [&](double fill) {
                        Level level = level_of(static_cast<Shape>(shape), fill, {size, size});
                        level.direction = direction;
                        level.fill_by = by;
                        return lit(Stage(level, 165, 165).first());
                    };
                    const double full = lit_of(1);
                    EXPECT_EQ(lit_of(0), 0);
                    EXPECT_GE(lit_of(0.004), 4) << shape << " " << static_cast<int>(direction);
                    EXPECT_LE(lit_of(0.996), full - 4) << shape << " " << static_cast<int>(direction);
                    for (const double nothing : {-1.0, std::nan("")})
                        EXPECT_EQ(lit_of(nothing), 0);
                    EXPECT_EQ(lit_of(7), full);
                }
}

TEST(Level, moves_its_surface_by_the_clock_and_in_no_other_way) {
    Level level = level_of(Shape::circle, 0.5);
    level.wave = {.height = 8, .length = 50, .period = 2s};
    Stage once(level), often(level), calm(level);
    const double flat = lit(Stage(level_of(Shape::circle, 0.5)).first());
    calm.hud.set_reduced_motion(true);
    for (Stage* stage : {&once, &often, &calm})
        stage->pass(0s);
    const Picture begin = once.shot();
    once.pass(700ms);
    for (int i = 0; i < 70; ++i)
        often.pass(10ms);
    EXPECT_TRUE(once.hud[once.element].changed);
    const Picture moved = once.shot();
    EXPECT_TRUE(same_pixels(moved, often.shot())) << "at any frame rate";
    EXPECT_FALSE(same_pixels(begin, moved));
    EXPECT_NEAR(lit(moved), flat, 0.03 * flat) << "as much as without waves";
    once.pass(1300ms);
    EXPECT_TRUE(same_pixels(begin, once.shot())) << "a whole period later";
    calm.pass(300ms);
    EXPECT_FALSE(calm.hud[calm.element].changed) << "with reduced motion it is flat";
    EXPECT_NEAR(lit(calm.shot()), flat, 0.5);
    // Full and empty are still, and nothing of a wave is beyond them.
    for (const double fill : {0.0, 1.0, 0.02, 0.98}) {
        level.value = constant(fill);
        Stage stage(level);
        stage.pass(0s);
        stage.pass(300ms);
        EXPECT_EQ(stage.hud[stage.element].changed, fill > 0 && fill < 1) << fill;
        level.value = 1;
        EXPECT_EQ(lit(stage.shot()) < lit(Stage(level).first()), fill < 1) << fill;
    }
}

TEST(Level, fills_pictures_and_masks) {
    // Opaque are the whole upper half, and the left half of the lower one: 96 of 128 pixels.
    std::vector<Color> pixels;
    for (int i = 0; i < 128; ++i)
        pixels.push_back(i < 64 || i % 8 < 4 ? rgb(0x8080ff) : rgb(0x000000, 0));
    for (const bool as_mask : {false, true})
        for (const auto& [by, fill, expected] : std::vector<std::tuple<FillBy, double, double>>{
                 {FillBy::extent, 0.5, 32}, {FillBy::area, 1.0 / 3, 32}, {FillBy::area, 2.0 / 3, 64}}) {
            Level level = level_of(Shape::circle, fill, {80, 160});
            if (as_mask)
                level.mask = "p";
            else
                level.image = "p";
            level.fill_by = by;
            Stage stage(level, 300, 200);
            stage.image("p", 8, 16, pixels);
            stage.hud.remove(stage.element);
            stage.element = stage.hud.add(level);
            stage.pass(0s);
            const Picture picture = stage.shot();
            double blue = 0, red = 0;
            for (int y = 0; y < 200; ++y)
                for (int x = 0; x < 300; ++x) {
                    blue += picture.pixel(x, y).blue / 255.0;
                    red += picture.pixel(x, y).red / 255.0;
                }
            EXPECT_NEAR(blue / 100, expected, 1.5) << as_mask << fill;
            EXPECT_NEAR(red / blue, as_mask ? 1 : 0.5, 0.02) << "a mask shows the color, a picture its own";
            EXPECT_EQ(stage.hud.problems().size(), 1U) << "it was not there at first";
        }
}

TEST(Level, fits_its_picture_into_its_box) {
    struct Row {
        ImageFit fit;
        FillBy by;
        double fill;
        double lit;  ///< pixels of a box of 80 by 80
    };
    // Eight by four pixels, of which the sixth column and those behind it are transparent. Where they cover the box, the third to the sixth
    // column are seen.
    for (const Row& row : std::vector<Row>{{ImageFit::contain, FillBy::extent, 1, 80 * 40 * 5.0 / 8},
                                           {ImageFit::fill, FillBy::extent, 1, 80 * 80 * 5.0 / 8},
                                           {ImageFit::cover, FillBy::extent, 1, 60 * 80},
                                           {ImageFit::cover, FillBy::extent, 0.5, 40 * 80},
                                           {ImageFit::cover, FillBy::extent, 0.25, 20 * 80},
                                           {ImageFit::cover, FillBy::area, 0.5, 30 * 80},
                                           {ImageFit::cover, FillBy::area, 1.0 / 3, 20 * 80},
                                           {ImageFit::none, FillBy::extent, 1, 5 * 4},
                                           {ImageFit::scale_down, FillBy::extent, 1, 5 * 4}})
        for (const bool as_mask : {false, true}) {
            std::vector<Color> pixels;
            for (int i = 0; i < 32; ++i)
                pixels.push_back(i % 8 < 5 ? white : rgb(0x000000, 0));
            Level level = level_of(Shape::circle, row.fill, {80, 80});
            if (as_mask)
                level.mask = "p";
            else
                level.image = "p";
            level.direction = Direction::right;
            level.image_fit = row.fit;
            level.fill_by = row.by;
            Stage stage(Panel{.id = "none", .plate = false});
            stage.image("p", 8, 4, pixels);
            stage.hud.add(level);
            stage.pass(0s);
            const Picture picture = stage.shot();
            EXPECT_NEAR(lit(picture), row.lit, 0.02 * row.lit + 2)
                << static_cast<int>(row.fit) << " " << row.fill << as_mask;
            for (int y = 0; y < 200; ++y)
                for (int x = 0; x < 300; ++x) {
                    const bool is_inside = x >= 10 && x < 90 && y >= 10 && y < 90;
                    ASSERT_TRUE(is_inside || picture.pixel(x, y).red == 0) << "outside of its box";
                }
        }
    // A fill along a map is cut off in the same way.
    Level mapped = level_of(Shape::circle, 0.5, {80, 80});
    mapped.fill_map = "m";
    mapped.image_fit = ImageFit::cover;
    Stage stage(Panel{.id = "none", .plate = false});
    stage.image("m", 4, 2,
                {rgb(0x000000), rgb(0x404040), rgb(0xc0c0c0), rgb(0xffffff), rgb(0x000000), rgb(0x404040),
                 rgb(0xc0c0c0), rgb(0xffffff)});
    stage.hud.add(mapped);
    stage.pass(0s);
    const Picture picture = stage.shot();
    EXPECT_GT(picture.pixel(20, 50).red, 250);
    EXPECT_EQ(picture.pixel(85, 50).red, 0) << "not reached yet";
    EXPECT_EQ(picture.pixel(5, 50).red, 0) << "outside of its box";
}

TEST(Level, plays_the_frames_of_its_picture) {
    Level level = level_of(Shape::circle, 1, {40, 40});
    level.image = "two";
    level.frames = {.count = 2, .rate = 10};
    Stage stage(Panel{.id = "none", .plate = false});
    stage.image("two", 2, 1, {rgb(0xff0000), rgb(0x0000ff)});
    stage.element = stage.hud.add(level);
    stage.pass(0s);
    for (const std::string_view expected : {"#ff0000", "#0000ff", "#ff0000"}) {
        EXPECT_EQ(to_string(stage.shot().pixel(30, 30)), expected);
        stage.pass(40ms);
        EXPECT_FALSE(stage.hud[stage.element].changed);
        stage.pass(60ms);
        EXPECT_TRUE(stage.hud[stage.element].changed);
    }
}

TEST(Level, fills_along_a_map_by_its_gray_alone) {
    // Left half white, right half black; half transparent: what is drawn is that once, not twice.
    for (const double alpha : {1.0, 0.5}) {
        struct Row {
            double fill;
            float softness;
            double part;  ///< of the area, lit
        };
        for (const Row& row : std::vector<Row>{{1, 0, 1}, {0, 0, 0}, {1, 0.2F, 1}, {0, 0.2F, 0}, {0.5, 0, 0.5}}) {
            Level level = level_of(Shape::box, row.fill, {80, 80});
            level.fill_map = "m";
            level.fill_map_softness = row.softness;
            Stage stage(Panel{.id = "none", .plate = false});
            std::vector<Color> pixels;
            for (int i = 0; i < 64 * 64; ++i)
                pixels.push_back(i % 64 < 32 ? rgb(0xffffff, alpha) : rgb(0x000000, alpha));
            stage.image("m", 64, 64, pixels);
            stage.hud.add(level);
            stage.pass(16ms);
            EXPECT_NEAR(lit(stage.shot()) / (80 * 80), row.part * alpha, 0.03)
                << alpha << " " << row.fill << " " << row.softness;
        }
    }
}

TEST(Level, of_a_picture_keeps_out_of_its_border) {
    for (const auto& [fill, rows] :
         std::vector<std::pair<double, double>>{{0, 0}, {0.001, 22}, {0.5, 80}, {0.999, 138}, {1, 160}}) {
        Level level = level_of(Shape::circle, fill, {80, 160});
        level.mask = "m";
        level.padding = 20;
        Stage stage(Panel{.id = "none", .plate = false});
        stage.image("m", 1, 2, {white, white});
        stage.hud.add(level);
        stage.pass(0s);
        EXPECT_NEAR(lit(stage.shot()) / 80, rows, 0.1) << fill;
    }
}

/// A picture of three by three pixels: red corners, green edges, blue in the middle.
std::vector<Color> framed() {
    const Color r = rgb(0xff0000), g = rgb(0x00ff00), b = rgb(0x0000ff);
    return {r, g, r, g, b, g, r, g, r};
}

TEST(Bar, keeps_the_ends_of_its_picture_where_it_is_sliced) {
    for (const bool stretches : {true, false}) {
        Bar bar{.id = "b", .value = 60, .max = 100, .place = {.size = {100, 10}}};
        bar.image = "f";
        bar.image_fill = stretches ? ImageFill::stretch : ImageFill::reveal;
        bar.slice = {1, 1, 1, 1};
        bar.smooth = false;
        bar.radius = 0;
        bar.background = black;
        Stage stage(Panel{.id = "none", .plate = false});
        stage.image("f", 3, 3, framed());
        stage.hud.add(bar);
        stage.pass(0s);
        const Picture picture = stage.shot();
        EXPECT_EQ(to_string(picture.pixel(0, 0)), "#ff0000");
        EXPECT_EQ(to_string(picture.pixel(30, 0)), "#00ff00");
        EXPECT_EQ(to_string(picture.pixel(30, 5)), "#0000ff");
        EXPECT_EQ(to_string(picture.pixel(59, 5)), stretches ? "#00ff00" : "#0000ff") << "its end";
        EXPECT_EQ(to_string(picture.pixel(59, 9)), stretches ? "#ff0000" : "#00ff00");
        EXPECT_EQ(to_string(picture.pixel(60, 5)), "#000000");
    }
}

TEST(Level, fills_a_picture_of_nine_slices) {
    Level level{.id = "l", .value = 50, .max = 100, .place = {.size = {30, 80}}};
    level.image = "f";
    level.empty_image = "e";
    level.color = white;
    level.slice = {1, 1, 1, 1};
    Stage stage(Panel{.id = "none", .plate = false});
    stage.image("f", 3, 3, framed());
    stage.image("e", 3, 3, std::vector<Color>(9, rgb(0x404040)));
    stage.hud.add(level);
    EXPECT_EQ(stage.hud.problems(), Problems{});
    stage.pass(0s);
    const Picture picture = stage.shot();
    EXPECT_EQ(to_string(picture.pixel(15, 70)), "#0000ff");
    EXPECT_EQ(to_string(picture.pixel(0, 70)), "#00ff00") << "it takes the whole box";
    EXPECT_EQ(to_string(picture.pixel(0, 79)), "#ff0000");
    EXPECT_EQ(to_string(picture.pixel(15, 42)), "#0000ff");
    EXPECT_EQ(to_string(picture.pixel(15, 38)), "#404040");
    level.id = "m";
    level.mask = "e";
    stage.hud.add(level);
    EXPECT_EQ(to_string(stage.hud.problems().front()),
              "error: 'slice' of level 'm' must not be there where there is 'mask' or 'fill_map'");
}

TEST(Level, refuses_outlines_that_are_none) {
    for (const std::vector<Point>& outline : std::vector<std::vector<Point>>{
             {{0, 0}}, {{0, 0}, {1, 1}}, std::vector<Point>(257), {{0, 0}, {1, NAN}, {1, 1}}}) {
        Level level = level_of(Shape::circle, 0.5);
        level.corners = outline;
        const Stage stage(level);
        ASSERT_EQ(stage.hud.problems().size(), 1U);
        EXPECT_EQ(to_string(stage.hud.problems()[0]), "error: 'corners' of level 'l' must be 3 to 256 points, or none");
    }
    // Without an area there is nothing to see, and nothing to divide by.
    Level level = level_of(Shape::circle, 0.5);
    level.corners = {{0.5F, 0.5F}, {0.5F, 0.5F}, {0.5F, 0.5F}};
    EXPECT_EQ(lit(Stage(level).first()), 0);
}

TEST(Level, may_be_empty_at_another_value_than_zero) {
    for (const auto& [value, fill] :
         std::vector<std::pair<double, double>>{{-40, 0}, {-20, 0}, {0, 0.25}, {20, 0.5}, {60, 1}}) {
        Hud hud;
        const auto level = hud.add(Level{.id = "l", .value = constant(value), .min = -20, .max = 60});
        update(hud, 0s);
        EXPECT_EQ(hud.fill_of(level), fill) << value;
    }
    // And its events are about that value.
    double value = 5;
    Hud hud;
    hud.add(Level{.id = "l", .value = watch(value), .min = -5, .max = 10});
    std::string told;
    for (const double next : {5.0, 0.0, -4.0, -5.0, -5.5, 2.0, 10.0}) {
        value = next;
        update(hud, 16ms);
        for (const Event& event : hud.events())
            told += std::string(to_string(event.kind)) + " at " + std::to_string(static_cast<int>(next)) + " ";
    }
    EXPECT_EQ(told, "empty at -5 full at 10 ");
}

}  // namespace level_test
}  // namespace rapido::test
