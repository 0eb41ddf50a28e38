// Looks of all elements: plates, shadows, light, blending, and how an element is turned and scaled by itself.
#include <cmath>
#include <numbers>

#include "rapido/file.hpp"
#include "rapido/picture.hpp"
#include "support.hpp"

namespace rapido::test {
namespace look_test {

constexpr Color black = rgb(0x000000), white = rgb(0xffffff);

/// What a Gaussian makes of the edge of an area: the error function (its standard deviation is half the radius).
double soft_edge(double inside, double radius) {
    return 0.5 * (1 + std::erf(inside / (radius / 2 * std::sqrt(2))));
}

TEST(Picture, blurs_as_a_gaussian_does) {
    const Fonts fonts;
    for (const float radius : {3.0F, 8.0F, 9.0F, 20.0F, 41.0F}) {
        Picture picture(400, 300, fonts);
        picture.fill(black);
        DisplayGroup group;
        group.begin();
        group.rect({150, 100, 300, 400}, 0,
                   white);  // its left and its upper edge are far from the others
        group.blur_last(radius);
        picture.draw(group);
        for (int step = -40; step <= 40; ++step) {
            const double across = soft_edge(step + 0.5, static_cast<double>(radius));
            EXPECT_NEAR(picture.pixel(150 + step, 250).red, 255 * across, 255 * 0.03) << radius << " " << step;
            EXPECT_NEAR(picture.pixel(150 + step, 100 + step).red, 255 * across * across, 255 * 0.04) << radius;
        }
        EXPECT_EQ(picture.pixel(10, 10).red, 0);
        EXPECT_EQ(picture.pixel(300, 250).red, 255);
    }
}

TEST(Picture, keeps_what_it_has_blurred_and_draws_it_as_the_first_time) {
    const Fonts fonts;
    const auto drawn = [&](Picture& picture, float x) {
        DisplayGroup group;
        group.begin();
        group.rect({x, 20, 30, 20}, 4, white);
        group.blur_last(6);
        picture.fill(black);
        picture.draw(group);
        std::vector<int> pixels;
        for (int i = 0; i < 100; ++i)
            pixels.push_back(picture.pixel(i, 30).red);
        return pixels;
    };
    Picture kept(100, 60, fonts), fresh(100, 60, fonts), other(100, 60, fonts);
    const auto first = drawn(kept, 20);
    drawn(kept, 40.5F);
    EXPECT_EQ(drawn(kept, 20), first);
    EXPECT_EQ(drawn(kept, 40.5F), drawn(fresh, 40.5F));
    EXPECT_NE(drawn(other, 41), drawn(fresh, 40.5F));
}

/// White letters on white are read by their outline alone: WCAG 2.x asks for a contrast of 4.5.
TEST(Picture, of_outlined_text_is_read_on_every_ground) {
    Fonts fonts;
    const auto luminance = [](Color color) {
        const auto linear = [](int channel) {
            const double c = channel / 255.0;
            return c <= 0.04045 ? c / 12.92 : std::pow((c + 0.055) / 1.055, 2.4);
        };
        return 0.2126 * linear(color.red) + 0.7152 * linear(color.green) + 0.0722 * linear(color.blue);
    };
    for (const Color ground : {white, black, rgb(0x808080)}) {
        for (const bool outlined : {true, false}) {
            Hud hud{HudDefinition{.design = {200, 60}, .font = "Inter"}, {}, &fonts};
            hud.resize({.size = {200, 60}});
            hud.add(Text{.id = "t",
                         .format = "HULL",
                         .color = white,
                         .weight = 700,
                         .size = 32,
                         .outline = outlined ? std::optional(Outline{2, black}) : std::nullopt});
            update(hud, 16ms);
            DisplayList list;
            hud.draw(list);
            Picture picture(200, 60, fonts);
            picture.fill(ground);
            picture.draw(list);
            // Along a row through the stems of the letters: the largest contrast between near pixels.
            double best = 0;
            for (int x = 0; x < 90; ++x)
                for (int near = 1; near <= 4; ++near) {
                    const double a = luminance(picture.pixel(x, 20)), b = luminance(picture.pixel(x + near, 20));
                    best = std::max(best, (std::max(a, b) + 0.05) / (std::min(a, b) + 0.05));
                }
            if (outlined || ground == black)
                EXPECT_GT(best, 4.5) << to_string(ground);
            else
                EXPECT_LT(best, 4.5) << to_string(ground);
        }
    }
}

TEST(Look, is_turned_scaled_and_dimmed_with_its_panel) {
    BoxMeasurer measurer;
    Hud hud{HudDefinition{}, {}, &measurer};
    hud.resize({.size = {1280, 720}});
    const ElementRef panel =
        hud.add(Panel{.id = "p",
                      .place = {.anchor = Anchor::top_left, .offset = {100, 100}, .size = {200, 100}},
                      .opacity = 0.5F,
                      .rotation = 90,
                      .scale = 2});
    const ElementRef text = hud.add(Text{.id = "t",
                                         .format = "abcd",
                                         .place = {.anchor = Anchor::top_left},
                                         .inside = "p",
                                         .size = 20,
                                         .opacity = 0.5F,
                                         .rotation = -90});
    update(hud, 16ms);
    EXPECT_FLOAT_EQ(hud[text].opacity, 0.25F);
    EXPECT_FLOAT_EQ(hud[text].rotation, 0);
    EXPECT_FLOAT_EQ(hud[text].scale, 2);
    EXPECT_FLOAT_EQ(hud[panel].rotation, 90);
    DisplayList list;
    hud.draw(list);
    // The text is turned around its own middle, then scaled by 2 from the upper left corner of the panel, then turned by a
    // quarter around the middle of the panel.
    const Rect box = hud[text].box;
    const auto by_hand = [&](double x, double y) {
        const double mx = static_cast<double>(box.x + box.width / 2), my = static_cast<double>(box.y + box.height / 2);
        double px = mx + (y - my), py = my - (x - mx);         // a quarter to the left
        px = 100 + 2 * (px - 100), py = 100 + 2 * (py - 100);  // scaled
        return Point{static_cast<float>(200 - (py - 150)),
                     static_cast<float>(150 + (px - 200))};  // a quarter to the right
    };
    for (const DisplayGroup& group : list.groups())
        for (const DisplayItem& item : group.items())
            if (item.kind == DisplayItem::Kind::text) {
                for (const Point corner : {Point{box.x, box.y}, Point{box.right(), box.bottom()}}) {
                    const Point seen = group.transform().apply(corner);
                    const Point expected = by_hand(static_cast<double>(corner.x), static_cast<double>(corner.y));
                    EXPECT_NEAR(seen.x, expected.x, 0.01F);
                    EXPECT_NEAR(seen.y, expected.y, 0.01F);
                }
                EXPECT_EQ(item.color.alpha, 64);
            }
    hud.change<Panel>(panel, [](Panel& upright) { upright.rotation = 0; });
    update(hud, 16ms);
    EXPECT_FLOAT_EQ(hud[text].rotation, -90);
    EXPECT_TRUE(hud[text].changed);
}

TEST(Look, glows_below_itself_and_adds_light) {
    const Fonts fonts;
    BoxMeasurer measurer;
    Hud hud{HudDefinition{.design = {100, 60}}, {}, &measurer};
    hud.resize({.size = {100, 60}});
    hud.add(Bar{.id = "b",
                .value = 1,
                .max = 1,
                .place = {.anchor = Anchor::center, .size = {40, 20}},
                .color = rgb(0x00ff00),
                .background = rgb(0, 0),
                .radius = 0,
                .glow = Glow{10, 1, rgb(0xff0000)}});
    update(hud, 16ms);
    DisplayList list;
    hud.draw(list);
    Picture picture(100, 60, fonts);
    picture.fill(black);
    picture.draw(list);
    EXPECT_EQ(picture.pixel(50, 30), rgb(0x00ff00)) << "itself";
    EXPECT_NEAR(picture.pixel(26, 30).red, 255 * soft_edge(-3.5, 10), 20) << "its light";
    EXPECT_EQ(picture.pixel(26, 30).green, 0);

    Hud added{HudDefinition{.design = {100, 60}}, {}, &measurer};
    added.resize({.size = {100, 60}});
    added.add(Panel{.id = "p", .place = {.size = {100, 60}}, .color = rgb(0x203040), .radius = 0, .blend = Blend::add});
    update(added, 16ms);
    added.draw(list);
    picture.fill(rgb(0x105080));
    picture.draw(list);
    EXPECT_EQ(picture.pixel(50, 30), rgb(0x3080c0));
}

TEST(Panel, has_a_gradient_a_shadow_or_a_picture_of_nine_slices) {
    BoxMeasurer measurer;
    Fonts fonts;
    Images images;
    // Nine pixels of nine colors.
    std::vector<Color> pixels;
    for (std::uint8_t i = 0; i < 9; ++i)
        pixels.push_back({static_cast<std::uint8_t>(20 * i), 100, 200, 255});
    ASSERT_TRUE(images.add("plate", 3, 3, pixels));
    Hud hud{HudDefinition{.design = {200, 100}}, {}, &measurer, &images};
    hud.resize({.size = {200, 100}});
    hud.add(
        Panel{.id = "sliced", .place = {.size = {60, 40}}, .image = "plate", .slice = {1, 1, 1, 1}, .smooth = false});
    hud.add(Panel{.id = "shaded",
                  .place = {.anchor = Anchor::top_right, .size = {100, 40}},
                  .color = black,
                  .end_color = white,
                  .gradient = Direction::right,
                  .radius = 0});
    hud.add(Panel{.id = "shadowed",
                  .place = {.anchor = Anchor::bottom, .offset = {0, 10}, .size = {100, 20}},
                  .color = white,
                  .shadow = Shadow{{0, 8}, 0, rgb(0xff0000)},
                  .radius = 0});
    update(hud, 16ms);
    DisplayList list;
    hud.draw(list);
    Picture picture(200, 100, fonts, &images);
    picture.fill(black);
    picture.draw(list);
    for (const auto& [x, y, slice] : std::vector<std::array<int, 3>>{{0, 0, 0},
                                                                     {30, 0, 1},
                                                                     {59, 0, 2},
                                                                     {0, 20, 3},
                                                                     {30, 20, 4},
                                                                     {59, 20, 5},
                                                                     {0, 39, 6},
                                                                     {30, 39, 7},
                                                                     {59, 39, 8}})
        EXPECT_EQ(picture.pixel(x, y), pixels[static_cast<std::size_t>(slice)]) << slice;
    EXPECT_NEAR(picture.pixel(125, 20).red, 64, 2);
    EXPECT_NEAR(picture.pixel(175, 20).red, 191, 2);
    EXPECT_EQ(picture.pixel(100, 72), white);
    EXPECT_EQ(picture.pixel(100, 95), rgb(0xff0000));
    EXPECT_TRUE(hud.problems().empty());
}

TEST(Panel, fits_its_picture_as_an_image_does) {
    // Two pixels beside each other over a plate of 40 by 40.
    Images images;
    ASSERT_TRUE(images.add("two.png", 2, 1, std::vector<Color>{rgb(0xff0000), rgb(0x00ff00)}));
    Fonts fonts;
    for (const auto& [fit, top, middle_left, corner] :
         std::vector<std::tuple<ImageFit, std::string, std::string, std::string>>{
             {ImageFit::fill, "#ff0000", "#ff0000", "#00ff00"},
             {ImageFit::contain, "#000000", "#ff0000", "#000000"},
             {ImageFit::cover, "#ff0000", "#ff0000", "#00ff00"},
             {ImageFit::none, "#000000", "#000000", "#000000"}}) {
        Hud hud{HudDefinition{.design = {40, 40}}, {}, &fonts, &images};
        hud.resize({.size = {40, 40}});
        hud.add(Panel{.id = "p",
                      .place = {.size = {40, 40}},
                      .padding = {},
                      .image = "two.png",
                      .image_fit = fit,
                      .smooth = false});
        EXPECT_EQ(hud.problems(), Problems{});
        hud.update(0.0);
        DisplayList list;
        hud.draw(list);
        Picture picture(40, 40, fonts, &images);
        picture.fill(rgb(0x000000));
        picture.draw(list);
        EXPECT_EQ(to_string(picture.pixel(5, 3)), top) << static_cast<int>(fit);
        EXPECT_EQ(to_string(picture.pixel(5, 20)), middle_left) << static_cast<int>(fit);
        EXPECT_EQ(to_string(picture.pixel(37, 37)), corner) << static_cast<int>(fit);
    }
}

TEST(Samples, of_demo_and_docs_are_all_read_without_a_problem) {
    int files = 0;
    for (const char* const folder : {"demo", "docs"})
        for (const auto& entry :
             std::filesystem::recursive_directory_iterator(std::string(RAPIDO_SOURCE_DIR) + "/" + folder)) {
            const std::string path = entry.path().string();
            if (!entry.is_regular_file()) continue;
            std::ifstream file(path);
            const std::string text{std::istreambuf_iterator<char>(file), std::istreambuf_iterator<char>()};
            if (!path.ends_with(".toml") || text.find("[element]") == std::string::npos) continue;
            const auto definition = read_hud_file(path);
            EXPECT_TRUE(definition) << to_string(definition.problems().front());
            ++files;
            // Written, and read again.
            const auto written = write_hud(*definition);
            ASSERT_TRUE(written) << path << ": " << to_string(written.problems().front());
            const auto again = read_hud(*written, path);
            ASSERT_TRUE(again) << to_string(again.problems().front());
            EXPECT_TRUE(*again == *definition) << path;
            EXPECT_EQ(*write_hud(*again), *written);
        }
    EXPECT_GE(files, 11);
}

TEST(Looks, of_the_demo_show_the_same_six_readouts_without_a_problem) {
    const std::string folder = std::string(RAPIDO_SOURCE_DIR) + "/demo/looks";
    Fonts fonts;
    Images images(folder);
    std::int64_t score = 48200;
    double water = 1920, fuel = 72;
    int crew = 4;
    Seconds time_left{67.4};
    Sources sources;
    sources.set("score", watch(score));
    sources.set("water", watch(water));
    sources.set("fuel", watch(fuel));
    sources.set("crew", watch(crew));
    sources.set("time_left", watch(time_left));
    for (const char* const look : {"slate", "paper", "neon", "pixel"}) {
        const Result<HudDefinition> definition = read_hud_file(folder + "/" + look + ".toml");
        ASSERT_TRUE(definition) << to_string(definition.problems().front());
        Hud hud(*definition, sources, &fonts, &images);
        hud.resize({.size = {600, 240}});
        update(hud, 16ms);
        EXPECT_TRUE(hud.problems().empty()) << look << ": " << to_string(hud.problems().front());
        EXPECT_EQ(hud.text_of(hud.find("board.score.amount")), "48,200") << look;
        EXPECT_EQ(hud.text_of(hud.find("board.score.time")), "01:07");
        EXPECT_EQ(hud.text_of(hud.find("board.fuel.amount")), "72");
        EXPECT_DOUBLE_EQ(*hud[hud.find("board.tanks.water")].fill, 0.64);
        const Rect board = hud[hud.find("board")].box;
        const float high = hud[hud.find("board")].box.height;
        EXPECT_GT(board.x, 0) << look;
        EXPECT_LT(high, definition->design.height) << look << ": it fits";
    }
}

TEST(Level, fills_along_a_map_to_a_gray_level_at_every_quarter) {
    BoxMeasurer measurer;
    Fonts fonts;
    Images images;
    // A way that is no line: from the left to the right in the upper half, and back in the lower one.
    constexpr int across = 128, half = 8;
    std::vector<Color> map;
    for (int y = 0; y < 2 * half; ++y)
        for (int x = 0; x < across; ++x) {
            const auto gray = static_cast<std::uint8_t>(y < half ? x : 255 - x);
            map.push_back({gray, gray, gray, 255});
        }
    ASSERT_TRUE(images.add("way", across, 2 * half, map));
    double value = 0;
    Hud hud{HudDefinition{.design = {across, 2 * half}}, {}, &measurer, &images};
    hud.resize({.size = {across, 2 * half}});
    hud.add(Level{.id = "l",
                  .value = watch(value),
                  .max = 100,
                  .place = {.size = {across, 2 * half}},
                  .fill_map = "way",
                  .fill_map_softness = 0,
                  .color = white,
                  .background = black});
    for (const double fill : {0.0, 0.1, 25.0, 50.0, 75.0, 99.99, 100.0}) {
        value = fill;
        update(hud, 16ms);
        DisplayList list;
        hud.draw(list);
        Picture picture(across, 2 * half, fonts, &images);
        picture.fill(black);
        picture.draw(list);
        int shown = 0;
        for (int gray = 0; gray < 256; ++gray) {
            const int x = gray < across ? gray : 255 - gray, y = gray < across ? half / 2 : half + half / 2;
            const bool is_shown = picture.pixel(x, y).red > 127;
            shown += is_shown ? 1 : 0;
            if (std::abs(gray - fill / 100 * 255) > 1) {
                EXPECT_EQ(is_shown, gray < fill / 100 * 255) << fill << " " << gray;
            }
        }
        // A little is never nothing, and nearly all never all.
        EXPECT_EQ(shown > 0, fill > 0) << fill;
        EXPECT_EQ(shown == 256, fill == 100) << fill;
    }
    // A soft edge goes through half where the fill is.
    hud.change<Level>(hud.find("l"), [](Level& level) { level.fill_map_softness = 0.2F; });
    value = 25;
    update(hud, 16ms);
    DisplayList list;
    hud.draw(list);
    Picture picture(across, 2 * half, fonts, &images);
    picture.fill(black);
    picture.draw(list);
    // The edge is 0.2 wide around 0.25 * 1.2 - 0.1 = 0.2 of the way.
    for (const auto& [gray, light] :
         std::vector<std::pair<int, double>>{{25, 1}, {38, 0.75}, {51, 0.5}, {64, 0.25}, {77, 0}})
        EXPECT_NEAR(picture.pixel(gray, 3).red, 255 * light, 6) << gray;
}

/// The light of what changes is made anew with it, and that of what is longer than any picture does no harm.
TEST(Picture, lets_what_fills_along_a_map_glow_and_survives_endless_light) {
    BoxMeasurer measurer;
    Fonts fonts;
    Images images;
    std::vector<Color> map;
    for (int i = 0; i < 1000; ++i) {
        const auto gray = static_cast<std::uint8_t>(i % 100 * 2);
        map.push_back({gray, gray, gray, 255});
    }
    ASSERT_TRUE(images.add("way", 100, 10, map));
    double value = 20;
    Hud hud{HudDefinition{.design = {100, 40}}, {}, &measurer, &images};
    hud.resize({.size = {100, 40}});
    hud.add(Level{.id = "l",
                  .value = watch(value),
                  .max = 100,
                  .place = {.offset = {0, 15}, .size = {100, 10}},
                  .fill_map = "way",
                  .fill_map_softness = 0,
                  .color = white,
                  .background = rgb(0, 0),
                  .glow = Glow{8, 1, rgb(0xff0000)}});
    hud.add(Panel{.id = "endless", .place = {.offset = {-90000, 0}, .size = {90000, 1}}, .glow = Glow{4, 1, white}});
    Picture picture(100, 40, fonts, &images);
    const auto light_at = [&](int x) {
        update(hud, 16ms);
        DisplayList list;
        hud.draw(list);
        picture.fill(black);
        picture.draw(list);
        return static_cast<int>(picture.pixel(x, 27).red);
    };
    EXPECT_EQ(light_at(60), 0);
    value = 60;
    EXPECT_GT(light_at(60), 40);
    value = 20;
    EXPECT_EQ(light_at(60), 0);
}

TEST(Image, is_chosen_by_a_value_and_covered_by_a_part_of_a_circle) {
    BoxMeasurer measurer;
    Fonts fonts;
    Images images;
    const std::vector<Color> red(16, rgb(0xff0000)), green(16, rgb(0x00ff00)), blue(32, rgb(0x0000ff));
    ASSERT_TRUE(images.add("none", 4, 4, red));
    ASSERT_TRUE(images.add("one", 4, 4, green));
    ASSERT_TRUE(images.add("two", 8, 4, blue));
    std::optional<double> rank;
    double cooling = 30;
    Hud hud{HudDefinition{.design = {100, 100}}, {}, &measurer, &images};
    hud.resize({.size = {100, 100}});
    const ElementRef badge =
        hud.add(Image{.id = "badge", .image = "none", .value = watch(rank), .images = {"one", "two"}});
    const ElementRef icon = hud.add(Image{.id = "icon",
                                          .image = "one",
                                          .value = watch(cooling),
                                          .max = 40,
                                          .place = {.anchor = Anchor::bottom_right, .size = {60, 60}},
                                          .lid = Lid{black}});
    const auto shown_image = [&] {
        DisplayList list;
        hud.draw(list);
        return list.groups()[0].items()[0].image;
    };
    for (const auto& [value, image] :
         std::vector<std::pair<double, ImageId>>{{-3, 1}, {0, 1}, {0.9, 1}, {1, 2}, {7, 2}}) {
        rank = value;
        update(hud, 16ms);
        EXPECT_EQ(shown_image(), image) << value;
        EXPECT_EQ(hud[badge].box.width, image == 2 ? 8 : 4) << "as large as the one that is shown";
    }
    EXPECT_DOUBLE_EQ(*hud[icon].fill, 0.75);
    for (const double left : {40.0, 30.0, 10.0, 0.0}) {
        cooling = left;
        update(hud, 16ms);
        DisplayList list;
        hud.draw(list);
        Picture picture(100, 100, fonts, &images);
        picture.fill(white);
        picture.draw(list);
        // It is uncovered clockwise from the top: what is left is the end of the way round.
        for (const int degrees : {20, 70, 110, 160, 200, 250, 290, 340}) {
            const double angle = degrees * std::acos(-1) / 180;
            const Color seen =
                picture.pixel(static_cast<int>(70 + 20 * std::sin(angle)), static_cast<int>(70 - 20 * std::cos(angle)));
            EXPECT_EQ(seen, degrees >= 360 - 360 * left / 40 ? black : rgb(0x00ff00)) << left << " " << degrees;
        }
    }
}

TEST(Image, does_not_shine_through_its_cover_at_soft_edges) {
    BoxMeasurer measurer;
    Fonts fonts;
    Images images;
    // A white disc with a soft edge, on black and under black: all that is covered is black.
    std::vector<Color> disc;
    for (int y = 0; y < 40; ++y)
        for (int x = 0; x < 40; ++x)
            disc.push_back(rgb(0xffffff, std::clamp((18 - std::hypot(x - 19.5, y - 19.5)) / 4, 0.0, 1.0)));
    ASSERT_TRUE(images.add("disc", 40, 40, disc));
    double cooling = 0;
    Hud hud{HudDefinition{.design = {100, 100}}, {}, &measurer, &images};
    hud.resize({.size = {100, 100}});
    const ElementRef icon = hud.add(Image{.id = "icon",
                                          .image = "disc",
                                          .value = watch(cooling),
                                          .max = 100,
                                          .place = {.anchor = Anchor::center, .size = {80, 80}},
                                          .lid = Lid{black}});
    for (const ImageFit fit : {ImageFit::contain, ImageFit::cover})
        for (const double left : {100.0, 70.0, 50.0, 20.0}) {
            hud.change<Image>(icon, [fit](Image& image) {
                image.fit = fit;
                image.place.size = fit == ImageFit::cover ? Size{80, 50} : Size{80, 80};
            });
            cooling = left;
            update(hud, 16ms);
            DisplayList list;
            hud.draw(list);
            Picture picture(100, 100, fonts, &images);
            picture.fill(black);
            picture.draw(list);
            int open = 0;
            for (int y = 0; y < 100; ++y)
                for (int x = 0; x < 100; ++x) {
                    const int light = picture.pixel(x, y).green;
                    const double degrees = std::atan2(x - 49.5, 49.5 - y) * 180 / std::numbers::pi;
                    const double turned = degrees < 0 ? degrees + 360 : degrees;
                    // Beside the hand, which is soft itself, and not in the middle.
                    const double begin = 360 - 360 * left / 100, away = std::hypot(x - 49.5, y - 49.5);
                    const double room = 120 / std::max(away, 1.0);
                    const bool is_covered = turned > begin + room && turned < 360 - room && away > 3;
                    const bool is_outside = fit == ImageFit::cover && (y < 25 || y >= 75);
                    if (left == 100 || is_covered || is_outside)
                        ASSERT_LE(light, 2) << left << " " << x << "," << y;
                    else
                        open += light > 250;
                }
            EXPECT_EQ(open > 200, left < 100) << left;
        }
    // A tint of its own lies below the one of the group.
    DisplayGroup group;
    group.begin(1, {white, 0.5F});
    group.image(0, {0, 0, 1, 1}, {0, 0, 1, 1}, white);
    group.tint_last({black, 1});
    EXPECT_EQ(group.items()[0].tint.part, 1);
    EXPECT_NEAR(group.items()[0].tint.color.red, 128, 1);
}

TEST(Bar, is_filled_by_a_picture_that_is_revealed_stretched_or_repeated) {
    BoxMeasurer measurer;
    Fonts fonts;
    Images images;
    // Two pixels: red before green.
    ASSERT_TRUE(images.add("two", 2, 1, std::vector<Color>{rgb(0xff0000), rgb(0x00ff00)}));
    struct Case {
        const char* what;
        ImageFill fill;
        Direction direction;
        int segments;
        const char* seen;  ///< in ten parts of the bar, from the left: red, green, or empty
    };
    for (const Case& row : {
             Case{"revealed", ImageFill::reveal, Direction::right, 0, "rrrrrgg..."},
             Case{"stretched", ImageFill::stretch, Direction::right, 0, "rrr?ggg..."},
             Case{"repeated: a tile is two tenths long", ImageFill::tile, Direction::right, 0, "rgrgrgr..."},
             Case{"from the other side", ImageFill::reveal, Direction::left, 0, "...rrggggg"},
             Case{"as far as segments are lit", ImageFill::reveal, Direction::right, 5, "rrrrrggg.."},
         }) {
        Hud hud{HudDefinition{.design = {200, 20}}, {}, &measurer, &images};
        hud.resize({.size = {200, 20}});
        hud.add(Bar{.id = "b",
                    .value = row.segments > 0 ? 8 : 7,
                    .max = 10,
                    .place = {.size = {200, 20}},
                    .direction = row.direction,
                    .image = "two",
                    .image_fill = row.fill,
                    .smooth = false,
                    .background = black,
                    .radius = 0,
                    .segments = row.segments});
        update(hud, 16ms);
        DisplayList list;
        hud.draw(list);
        Picture picture(200, 20, fonts, &images);
        picture.fill(black);
        picture.draw(list);
        std::string seen;
        for (int i = 0; i < 10; ++i) {
            const Color color = picture.pixel(i * 20 + 10, 10);
            seen += row.seen[i] == '?' ? '?' : color.red > 200 ? 'r' : color.green > 200 ? 'g' : '.';
        }
        EXPECT_EQ(seen, row.seen) << row.what;
        EXPECT_TRUE(hud.problems().empty());
    }
}

TEST(Effect, lets_an_element_glow) {
    BoxMeasurer measurer;
    Hud hud{HudDefinition{.design = {100, 100},
                          .effects = {{.id = "light",
                                       .duration = 1s,
                                       .easing = Easing::linear(),
                                       .keyframes = {{.at = 0.5, .glow = 1.0F}, {.at = 1, .glow = 0.0F}}}}},
            {},
            &measurer};
    hud.resize({.size = {100, 100}});
    const ElementRef bar = hud.add(Bar{.id = "b", .value = 1, .max = 1, .color = rgb(0x00ff00)});
    update(hud, 16ms);
    const auto light = [&] {
        DisplayList list;
        hud.draw(list);
        const DisplayItem& first = list.groups()[0].items()[0];
        return first.blur > 0 ? static_cast<int>(first.color.alpha) : 0;
    };
    EXPECT_EQ(light(), 0);
    hud.play(bar, "light");
    update(hud, 250ms);
    const int quarter = light();
    update(hud, 250ms);
    const int full = light();
    EXPECT_NEAR(full, 2 * quarter, 3);
    EXPECT_GT(full, 100);
    update(hud, 2s);
    EXPECT_EQ(light(), 0);
}

TEST(TextScale, enlarges_texts_and_what_stands_around_them) {
    BoxMeasurer measurer;
    Hud hud{HudDefinition{}, {}, &measurer};
    hud.resize({.size = {1280, 720}});
    const ElementRef panel = hud.add(Panel{.id = "p", .padding = {10, 10, 10, 10}});
    const ElementRef text = hud.add(Text{.id = "t", .format = "ridge", .inside = "p", .size = 20});
    const ElementRef bar = hud.add(Bar{.id = "b", .value = 1});
    update(hud, 16ms);
    hud.set_text_scale(1.5F);
    update(hud, 16ms);
    EXPECT_EQ(hud[text].box.width, 75);
    EXPECT_EQ(hud[panel].box.width, 95);
    EXPECT_EQ(hud[bar].box.width, 160);
    hud.set_text_scale(100);
    const ElementRef later = hud.add(Text{.id = "l", .format = "ab", .size = 20});
    update(hud, 16ms);
    EXPECT_EQ(hud[later].box.width, 60) << "at most three times";
}

}  // namespace look_test
}  // namespace rapido::test
