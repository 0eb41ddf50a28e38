// Pips: how many are full, and what becomes of those that are gained and lost.
#include <algorithm>
#include <cmath>

#include "pixels.hpp"

namespace rapido::test {
namespace pips_test {

/// Squares of 20 by 20 pixels, white on black.
Pips squares(Source value, Source max) {
    Pips pips{.id = "p", .value = std::move(value), .max = std::move(max), .place = {.offset = {4, 4}}};
    pips.shape = Shape::box;
    pips.color = white;
    pips.background = black;
    return pips;
}

/// In squares.
double lit_squares(Stage& stage) {
    return lit(stage.shot()) / 400;
}

TEST(Pips, are_full_in_whole_steps_and_honestly) {
    struct Row {
        double value, max;
        int steps;
        double lit;
    };
    for (const Row& row : std::vector<Row>{
             {0, 4, 1, 0},     {1, 4, 1, 1},      {2.4, 4, 1, 2},     {2.6, 4, 1, 3},     {0.01, 4, 1, 1},
             {3.99, 4, 1, 3},  {4, 4, 1, 4},      {9, 4, 1, 4},       {-2, 4, 1, 0},      {NAN, 4, 1, 0},
             {2, NAN, 1, 0},   {2, -1, 1, 0},     {2, 0, 1, 0},       {2.5, 4, 2, 2.5},   {0.1, 4, 2, 0.5},
             {3.9, 4, 2, 3.5}, {2.7, 4, 4, 2.75}, {2.25, 4, 0, 2.25}, {0.001, 4, 0, 0.1}, {3.999, 4, 0, 3.9},
             {3, 3, 0, 3}})
        for (const Direction direction : {Direction::right, Direction::left, Direction::up, Direction::down}) {
            Pips pips = squares(constant(row.value), constant(row.max));
            pips.steps = row.steps;
            pips.direction = direction;
            Stage stage(pips);
            stage.pass(0s);
            EXPECT_NEAR(lit_squares(stage), row.lit, 0.002) << row.value << " of " << row.max;
        }
    Stage alone(squares(3, {}));
    alone.pass(0s);
    EXPECT_NEAR(lit_squares(alone), 3, 0.002) << "without a maximum there are as many as there are";
}

TEST(Pips, may_be_pictures) {
    struct Row {
        double value;
        int steps;
        bool is_strip;
        double red, green;  ///< in squares: of full looks, of empty ones
    };
    for (const Row& row : std::vector<Row>{{2, 1, false, 2, 1},
                                           {1.5, 2, false, 1.5, 1.5},
                                           {0, 1, false, 0, 3},
                                           {1.25, 4, false, 1.25, 1.75},
                                           {3, 1, true, 3, 0},
                                           {0, 1, true, 0, 3},
                                           {1.5, 2, true, 1.5, 1},
                                           {0.1, 2, true, 0.5, 2}}) {
        Pips pips = squares(constant(row.value), 3);
        pips.steps = row.steps;
        pips.image = row.is_strip ? "strip" : "full";
        pips.empty_image = row.is_strip ? "" : "empty";
        pips.frames.count = row.is_strip ? 3 : 1;
        Stage stage(Panel{.id = "none", .plate = false});
        stage.image("full", 1, 1, {rgb(0xff0000)});
        stage.image("empty", 1, 1, {rgb(0x00ff00)});
        stage.image("strip", 3, 1, {rgb(0x00ff00), rgb(0x800000), rgb(0xff0000)});
        stage.hud.add(pips);
        stage.pass(0s);
        const Picture picture = stage.shot();
        double red = 0, green = 0;
        for (int y = 0; y < 40; ++y)
            for (int x = 0; x < 100; ++x) {
                red += picture.pixel(x, y).red / 255.0 / 400;
                green += picture.pixel(x, y).green / 255.0 / 400;
            }
        EXPECT_NEAR(red, row.red, 0.01) << row.value;
        EXPECT_NEAR(green, row.green, 0.01) << row.value;
    }
}

TEST(Pips, fit_their_pictures) {
    // Two by one pixels in squares of 20: both are red, and one of three is empty.
    for (const auto& [fit, red, green] :
         std::vector<std::tuple<ImageFit, double, double>>{{ImageFit::contain, 1.5 * 20 * 10, 1.5 * 20 * 10},
                                                           {ImageFit::fill, 1.5 * 400, 1.5 * 400},
                                                           {ImageFit::cover, 1.5 * 400, 1.5 * 400}}) {
        Pips pips = squares(constant(1.5), 3);
        pips.steps = 2;
        pips.image = "full";
        pips.empty_image = "empty";
        pips.image_fit = fit;
        Stage stage(Panel{.id = "none", .plate = false});
        stage.image("full", 2, 1, {rgb(0xff0000), rgb(0xff0000)});
        stage.image("empty", 2, 1, {rgb(0x00ff00), rgb(0x00ff00)});
        stage.hud.add(pips);
        stage.pass(0s);
        const Picture picture = stage.shot();
        double reds = 0, greens = 0;
        for (int y = 0; y < 40; ++y)
            for (int x = 0; x < 100; ++x) {
                reds += picture.pixel(x, y).red / 255.0;
                greens += picture.pixel(x, y).green / 255.0;
            }
        EXPECT_NEAR(reds, red, 2) << static_cast<int>(fit);
        EXPECT_NEAR(greens, green, 2) << static_cast<int>(fit);
    }
}

TEST(Pips, take_as_much_room_as_there_are) {
    int max = 5, guests = 2;
    Pips pips = squares(4, watch(max));
    pips.per_row = 4;
    pips.extra = {{.value = watch(guests), .color = rgb(0xff0000)}};
    Stage stage(pips);
    const auto expect = [&](float width, float height) {
        stage.pass(10ms);
        EXPECT_EQ(stage.hud[stage.element].box, (Rect{4, 4, width, height})) << max << " and " << guests;
    };
    expect(4 * 20 + 3 * 6, 2 * 20 + 6);
    // The fifth place is the last of five, empty; behind it stand the guests.
    const Picture picture = stage.shot();
    EXPECT_EQ(to_string(picture.pixel(14, 40)), "#000000");
    EXPECT_EQ(to_string(picture.pixel(40, 40)), "#ff0000");
    EXPECT_EQ(to_string(picture.pixel(66, 40)), "#ff0000");
    max = 2;
    guests = 1;
    expect(3 * 20 + 2 * 6, 20);
    max = guests = 0;
    expect(0, 20);
}

TEST(Pips, have_colors_by_their_number_outside_of_bands) {
    int hearts = 4;
    Pips pips = squares(watch(hearts), 5);
    pips.color = rgb(0x0000ff);
    pips.colors = {{2, rgb(0xff0000)}, {4, rgb(0x00ff00)}};
    pips.bands = {{.below = 0.3, .color = white}};
    Stage stage(pips);
    const auto colors = [&] {
        stage.pass(10ms);
        const Picture picture = stage.shot();
        std::string all;
        for (int i = 0; i < 5; ++i)
            all += to_string(picture.pixel(14 + 26 * i, 14)) + " ";
        return all;
    };
    EXPECT_EQ(colors(), "#0000ff #ff0000 #ff0000 #00ff00 #000000 ");
    hearts = 1;
    EXPECT_EQ(colors(), "#ffffff #000000 #000000 #000000 #000000 ");
}

TEST(Pips, play_an_effect_on_the_last_one_that_is_left) {
    for (const bool is_endless : {true, false}) {
        int hearts = 3;
        Pips pips = squares(watch(hearts), 3);
        pips.last = "dim";
        Stage stage(Panel{.id = "none", .plate = false});
        stage.hud.add(Effect{.id = "dim",
                             .duration = 400ms,
                             .repeat = is_endless ? 0 : 1,
                             .keyframes = {{.at = 0, .opacity = 0.5F}, {.at = 1, .opacity = 0.5F}}});
        stage.hud.add(pips);
        const auto expect = [&](int now, double lit, const char* why) {
            hearts = now;
            stage.pass(50ms);
            stage.pass(250ms);  // in which what was before has decayed
            EXPECT_NEAR(lit_squares(stage), lit, 0.02) << why << (is_endless ? ", endless" : "");
        };
        expect(3, 3, "all are there");
        expect(1, 0.5, "one is left");
        for (int i = 0; i < 20; ++i)
            stage.pass(50ms);
        expect(1, is_endless ? 0.5 : 1, "it goes on if it has no end");
        hearts = 2;
        stage.pass(400ms);  // until its run has ended
        expect(2, 2, "two are left");
        expect(0, 0, "none is");
        expect(1, 0.5, "one is there again");
        for (int i = 0; i < 20; ++i)
            stage.pass(50ms);
        hearts = 3;
        stage.pass(200ms);
        expect(3, 3, "all are");
    }
}

TEST(Pips, glow_one_by_one) {
    int hearts = 2;
    Pips pips = squares(watch(hearts), 3);
    pips.gap = 40;
    pips.gain = "light";
    Stage stage(Panel{.id = "none", .plate = false});
    stage.hud.add(
        Effect{.id = "light", .duration = 2s, .keyframes = {{.at = 0, .glow = 1.0F}, {.at = 1, .glow = 1.0F}}});
    stage.hud.add(pips);
    stage.pass(10ms);
    EXPECT_NEAR(lit_squares(stage), 2, 0.01);
    hearts = 3;
    stage.pass(10ms);
    stage.pass(1s);
    const Picture picture = stage.shot();
    const int beside = 4 + 2 * 60 - 4;  // four pixels before the third one
    EXPECT_GT(picture.pixel(beside, 14).red, 40) << "light around the one that was gained";
    EXPECT_EQ(picture.pixel(beside - 60, 14).red, 0) << "and around no other";
}

TEST(Pips, that_nobody_can_count_are_a_problem_and_a_bar) {
    double max = 1'000'000;
    Pips pips = squares(250'000, watch(max));
    pips.place.size = {208, 20};
    Stage stage(pips);
    for (int i = 0; i < 3; ++i)
        stage.pass(10ms);
    ASSERT_EQ(stage.hud.problems().size(), 1U);
    EXPECT_EQ(to_string(stage.hud.problems()[0]),
              "error: pips 'p': more than 200 pips cannot be counted; they are shown as a bar");
    EXPECT_NEAR(lit(stage.shot()), 208 * 20 / 4, 1);
    max = 5;
    stage.pass(10ms);
    EXPECT_NEAR(lit_squares(stage), 5, 0.01) << "as soon as they can be counted, they are";
    for (const double extra : {201.0, 1e300}) {
        pips.max = 3;
        pips.value = 2;
        pips.extra = {{.value = constant(extra)}};
        Stage other(pips);
        other.pass(0s);
        EXPECT_EQ(other.hud.problems().size(), 1U) << extra;
    }
}

Nanoseconds length_of(std::string_view effect) {
    const auto all = built_in_effects();
    const auto found = std::find_if(all.begin(), all.end(), [&](const Effect& e) { return e.id == effect; });
    return to_nanoseconds(found->duration);
}

TEST(Pips, play_an_effect_on_the_one_that_is_lost_or_gained) {
    const Nanoseconds fade = length_of("fade");
    for (const int frames : {1, 7, 40}) {
        double value = 3, max = 4;
        Pips pips = squares(watch(value), watch(max));
        pips.loss = pips.gain = pips.appear = "fade";
        pips.background = rgb(0x400000);
        Stage stage(pips);
        const auto pass = [&](Nanoseconds time) {
            for (int i = 0; i < frames; ++i)
                stage.pass(to_seconds(time * (i + 1) / frames - time * i / frames));
        };
        // The middle of a pip.
        const auto light = [&](int pip) { return int{stage.shot().pixel(14 + 26 * pip, 14).green}; };
        stage.pass(0s);
        EXPECT_EQ(light(2), 255) << "the first frame is silent";
        value = 2;
        stage.pass(0s);
        EXPECT_EQ(light(2), 255) << "it leaves from what it was";
        pass(fade / 2);
        EXPECT_GT(light(2), 20);
        EXPECT_LT(light(2), 235);
        EXPECT_EQ(light(1), 255) << "the others are at rest";
        pass(fade);
        EXPECT_EQ(light(2), 0);
        stage.pass(10ms);
        EXPECT_FALSE(stage.hud[stage.element].changed) << "and so is it now";
        value = 3;
        stage.pass(0s);
        EXPECT_EQ(light(2), 0) << "it comes from nothing";
        pass(fade);
        EXPECT_EQ(light(2), 255);
        value = 0;
        stage.hud.snap();
        stage.pass(0s);
        EXPECT_EQ(light(0) + light(1) + light(2), 0) << "a snap is silent";
        stage.pass(10ms);
        EXPECT_FALSE(stage.hud[stage.element].changed);
        // A place that was not there appears as a whole.
        max = 5;
        stage.pass(0s);
        const auto ground = [&] { return int{stage.shot().pixel(14 + 26 * 4, 14).red}; };
        EXPECT_EQ(ground(), 0);
        pass(fade);
        EXPECT_EQ(ground(), 0x40);
    }
}

TEST(Pips, let_extra_ones_leave_before_their_room_does) {
    const Nanoseconds fade = length_of("fade");
    int guests = 2;
    Pips pips = squares(1, 1);
    pips.extra = {{.value = watch(guests), .color = white}};
    pips.loss = "fade";
    Stage stage(pips);
    const auto width = [&] { return stage.hud[stage.element].box.width; };
    stage.pass(0s);
    EXPECT_EQ(width(), 72);
    guests = 1;
    stage.pass(to_seconds(fade / 4));
    guests = 0;
    stage.pass(to_seconds(fade / 4));
    EXPECT_EQ(width(), 72) << "both are on their way";
    stage.pass(to_seconds(fade * 2));
    EXPECT_EQ(width(), 20);
    EXPECT_NEAR(lit_squares(stage), 1, 0.01);
    // One that comes appears, where there is an effect for that, and is none of the gains.
    int more = 0;
    pips.appear = "fade";
    pips.gain = "swell";
    pips.extra.front().value = watch(more);
    Stage appears(pips);
    appears.pass(0s);
    more = 1;
    appears.pass(0s);
    appears.pass(to_seconds(fade / 4));
    EXPECT_LT(lit_squares(appears), 1.95) << "it fades in";
    // With reduced motion they are gone at once.
    guests = 1;
    stage.hud.set_reduced_motion(true);
    stage.pass(10ms);
    guests = 0;
    stage.pass(10ms);
    stage.pass(0s);
    EXPECT_EQ(width(), 20);
}

TEST(Pips, shine_never_where_no_time_lies_between) {
    Pips pips = squares(3, 4);
    pips.in_turn = {.effect = "shine", .every = Seconds{0}};
    Stage stage(pips);
    stage.pass(0s);
    const double before = lit(stage.shot());
    for (int i = 0; i < 50; ++i) {
        stage.pass(40ms);
        EXPECT_EQ(lit(stage.shot()), before);
    }
}

TEST(Pips, shine_one_after_the_other_in_step_with_all_others) {
    Pips pips = squares(3, 4);
    pips.color = rgb(0x808080);
    pips.in_turn = {.effect = "shine", .every = 4s, .step = 800ms};
    Stage early(pips), late(pips);
    const Nanoseconds length = length_of("shine");
    ASSERT_LT(length, 800ms) << "they would overlap";
    // Which pips are brighter than they are.
    const auto bright = [](Stage& stage) {
        std::string found;
        const Picture picture = stage.shot();
        for (int pip = 0; pip < 4; ++pip) {
            int most = 0;
            for (int x = 4 + 26 * pip; x < 24 + 26 * pip; ++x)
                most = std::max(most, int{picture.pixel(x, 14).red});
            found += most > 0x88 ? '*' : '.';
        }
        return found;
    };
    early.pass(0s);
    for (int i = 0; i < 100; ++i)
        early.pass(40ms);
    late.pass(3900ms);  // it comes later, with one long frame
    late.pass(100ms);
    for (const std::string_view expected : {"*...", ".*..", "..*.", "....", "....", "*..."}) {
        const Seconds half = to_seconds(length / 2);
        early.pass(half);
        late.pass(half / 2);
        late.pass(half / 2);
        EXPECT_EQ(bright(early), expected) << "an empty one does not shine";
        EXPECT_EQ(bright(late), expected);
        early.pass(800ms - half);
        late.pass(800ms - half);
    }
}

}  // namespace pips_test
}  // namespace rapido::test
