// Meshes: what their triangles show is what the pictures of Cairo show of the same display list.
#include "rapido/mesh.hpp"

#include <cmath>

#include "pixels.hpp"
#include "rapido/file.hpp"

namespace rapido::test {
namespace mesh_test {

/// A GPU in a few lines: triangles with a texture that is filtered linearly, colors that are multiplied by their alpha.
class Screen {
 public:
    Screen(int wide, int high) : width(wide), height(high), pixels(static_cast<std::size_t>(wide * high)) {}

    int width, height;
    std::vector<std::array<float, 4>> pixels;  ///< 0 to 255, on black

    void draw(const Mesh& mesh, const MeshAtlas& atlas) {
        for (const MeshBatch& batch : mesh.batches()) {
            const MeshAtlas::Page page = atlas.page(batch.page);
            for (std::uint32_t i = 0; i < batch.index_count; i += 3) {
                const auto corner = [&](std::uint32_t k) -> const MeshVertex& {
                    return mesh.vertices()[mesh.indices()[batch.first_index + i + k]];
                };
                triangle(page, corner(0), corner(1), corner(2));
            }
        }
    }

 private:
    /// Twice the area to the right of an edge; a pixel on an edge belongs to one of the triangles beside it.
    static double side(Point a, Point b, double x, double y) {
        return (static_cast<double>(b.x) - static_cast<double>(a.x)) * (y - static_cast<double>(a.y)) -
               (static_cast<double>(b.y) - static_cast<double>(a.y)) * (x - static_cast<double>(a.x));
    }
    static bool is_inside(double area, Point a, Point b) {
        return area > 0 || (area == 0 && (b.y < a.y || (b.y == a.y && b.x > a.x)));
    }
    void triangle(const MeshAtlas::Page& page, MeshVertex a, MeshVertex b, MeshVertex c) {
        const double whole = side(a.at, b.at, static_cast<double>(c.at.x), static_cast<double>(c.at.y));
        if (whole == 0) return;
        if (whole < 0) std::swap(b, c);
        const double area = std::abs(whole);
        const int left = std::max(0, static_cast<int>(std::floor(std::min({a.at.x, b.at.x, c.at.x}))));
        const int right = std::min(width, static_cast<int>(std::ceil(std::max({a.at.x, b.at.x, c.at.x}))) + 1);
        const int top = std::max(0, static_cast<int>(std::floor(std::min({a.at.y, b.at.y, c.at.y}))));
        const int bottom = std::min(height, static_cast<int>(std::ceil(std::max({a.at.y, b.at.y, c.at.y}))) + 1);
        for (int y = top; y < bottom; ++y)
            for (int x = left; x < right; ++x) {
                const double at_x = x + 0.5, at_y = y + 0.5;
                const double of_c = side(a.at, b.at, at_x, at_y), of_a = side(b.at, c.at, at_x, at_y),
                             of_b = side(c.at, a.at, at_x, at_y);
                if (!is_inside(of_c, a.at, b.at) || !is_inside(of_a, b.at, c.at) || !is_inside(of_b, c.at, a.at))
                    continue;
                const auto mixed = [&](auto part) {
                    return (of_a * static_cast<double>(part(a)) + of_b * static_cast<double>(part(b)) +
                            of_c * static_cast<double>(part(c))) /
                           area;
                };
                const auto texel = texel_at(page, mixed([](const MeshVertex& v) { return v.texture.x; }),
                                            mixed([](const MeshVertex& v) { return v.texture.y; }));
                std::array<float, 4>& pixel = pixels[static_cast<std::size_t>(y * width + x)];
                const double alpha = mixed([](const MeshVertex& v) { return v.color[3]; }) / 255 * texel[3] / 255;
                for (std::size_t i = 0; i < 4; ++i) {
                    const double source = mixed([i](const MeshVertex& v) { return v.color[i]; }) * texel[i] / 255;
                    pixel[i] =
                        static_cast<float>(std::min(255.0, source + static_cast<double>(pixel[i]) * (1 - alpha)));
                }
            }
    }
    static std::array<double, 4> texel_at(const MeshAtlas::Page& page, double u, double v) {
        const double x = u * page.width - 0.5, y = v * page.height - 0.5;
        const double left = std::floor(x + 1e-4), top = std::floor(y + 1e-4);
        const double across = std::max(0.0, x - left), down = std::max(0.0, y - top);
        std::array<double, 4> sum{};
        for (int i = 0; i < 4; ++i) {
            const double weight = (i % 2 == 1 ? across : 1 - across) * (i / 2 == 1 ? down : 1 - down);
            const auto column = static_cast<std::size_t>(std::clamp(static_cast<int>(left) + i % 2, 0, page.width - 1));
            const auto row = static_cast<std::size_t>(std::clamp(static_cast<int>(top) + i / 2, 0, page.height - 1));
            for (std::size_t k = 0; k < 4; ++k)
                sum[k] += weight * page.pixels[(row * static_cast<std::size_t>(page.width) + column) * 4 + k];
        }
        return sum;
    }
};

struct Difference {
    double mean = 0;  ///< of all channels, of 255
    int largest = 0;
    int beyond = 0;  ///< pixels that differ by more than 24
    Point where{};   ///< of the largest
};

Difference difference(const Screen& screen, const Picture& picture) {
    Difference found;
    for (int y = 0; y < screen.height; ++y)
        for (int x = 0; x < screen.width; ++x) {
            const Color pixel = picture.pixel(x, y);
            const auto& drawn = screen.pixels[static_cast<std::size_t>(y * screen.width + x)];
            int most = 0;
            const std::array<std::uint8_t, 3> channels{pixel.red, pixel.green, pixel.blue};
            for (std::size_t i = 0; i < 3; ++i) {
                const int apart = static_cast<int>(
                    std::lround(std::abs(static_cast<double>(channels[i]) - static_cast<double>(drawn[i]))));
                most = std::max(most, apart);
                found.mean += apart;
            }
            if (most > 24) ++found.beyond;
            if (most > found.largest) {
                found.largest = most;
                found.where = {static_cast<float>(x), static_cast<float>(y)};
            }
        }
    found.mean /= 3.0 * screen.width * screen.height;
    return found;
}

/// Elements as a picture and as a mesh.
struct Both {
    Images images;
    Hud hud;
    DisplayList list;
    MeshAtlas atlas;
    Mesh mesh;
    int width, height;

    Both(int wide, int high, HudDefinition definition = {}, const Sources& sources = {}, const std::string& folder = {})
        : images(folder),
          hud(sized(std::move(definition), wide, high), sources, &Stage::fonts(), &images),
          atlas(Stage::fonts(), &images),
          mesh(atlas),
          width(wide),
          height(high) {
        hud.resize({.size = {static_cast<float>(wide), static_cast<float>(high)}});
    }
    static HudDefinition sized(HudDefinition definition, int wide, int high) {
        if (definition.elements.empty()) definition.design = {static_cast<float>(wide), static_cast<float>(high)};
        return definition;
    }
    Difference compare() {
        hud.draw(list);
        mesh.draw(list);
        EXPECT_TRUE(mesh.status()) << to_string(mesh.status().problem());
        Screen screen(width, height);
        screen.draw(mesh, atlas);
        Picture picture(width, height, Stage::fonts(), &images);
        picture.fill(black);
        picture.draw(list);
        if (const char* const folder = std::getenv("RAPIDO_MESH_PICTURES")) write(screen, picture, folder);
        return difference(screen, picture);
    }
    void write(const Screen& screen, const Picture& picture, const std::string& folder) {
        static int number = 0;
        std::vector<Color> colors;
        for (const auto& p : screen.pixels)
            colors.push_back({static_cast<std::uint8_t>(std::lround(p[0])),
                              static_cast<std::uint8_t>(std::lround(p[1])),
                              static_cast<std::uint8_t>(std::lround(p[2])), 255});
        Images shown;
        const auto id = shown.add("s", width, height, colors);
        Picture out(width, height, Stage::fonts(), &shown);
        DisplayGroup group;
        group.begin();
        const Rect all{0, 0, static_cast<float>(width), static_cast<float>(height)};
        group.image(*id, all, all, white);
        out.draw(group);
        const std::string name = folder + "/" + std::to_string(number++);
        EXPECT_TRUE(out.write_png(name + "_mesh.png"));
        EXPECT_TRUE(picture.write_png(name + "_cairo.png"));
    }
};

std::vector<Color> checks(int side) {
    std::vector<Color> pixels;
    for (int i = 0; i < side * side; ++i)
        pixels.push_back(rgb(static_cast<std::uint32_t>((i * 7919) % 0xffffff), i % 3 == 0 ? 0.5 : 1));
    return pixels;
}

TEST(Mesh, shows_each_kind_as_a_picture_does) {
    struct Row {
        const char* what;
        Element element;
        double mean;  ///< at most
        int largest = 12;
    };
    const Place place{.anchor = Anchor::top_left, .offset = {20.3F, 14.6F}, .size = {140, 90}};
    const Glow glow{.radius = 14, .strength = 0.8F, .color = rgb(0x38b6c9)};
    Level level{.id = "e", .value = 0.62, .place = place, .shape = Shape::heart, .wave = {}};
    level.border = 3;
    Level masked{.id = "e", .value = 0.62, .place = place};
    masked.mask = "p";
    Level mapped{.id = "e", .value = 0.5, .place = place};
    mapped.fill_map = "m";
    std::vector<Row> rows{
        {"plate",
         Panel{.id = "e", .place = place, .padding = {40, 60, 40, 60}, .color = rgb(0x8fce5a, 0.8), .radius = 9}, 0.03},
        {"whole plate",
         Panel{.id = "e",
               .place = {.offset = {20, 14}},
               .padding = {40, 60, 40, 60},
               .color = rgb(0x8fce5a),
               .radius = 9},
         0.02},
        {"text", Text{.id = "e", .value = 1234, .format = "{:L} ÄgQ fi", .place = place, .size = 31}, 0.5, 60},
        {"outlined text",
         Text{.id = "e",
              .value = 98,
              .format = "{}%",
              .place = place,
              .size = 44,
              .outline = Outline{.width = 3, .color = rgb(0xff0000)}},
         0.3, 90},
        {"shadowed text",
         Text{.id = "e",
              .value = 98,
              .format = "{}%",
              .place = place,
              .color = rgb(0x404040),
              .size = 44,
              .shadow = Shadow{.offset = {2, 2}, .blur = 9, .color = rgb(0x38b6c9)}},
         0.3, 60},
        {"bar",
         Bar{.id = "e",
             .value = 0.37,
             .place = {.offset = {20, 14}, .size = {200, 13}},
             .color = rgb(0xff7a3c),
             .end_color = Themed<Color>(rgb(0x38b6c9)),
             .radius = 5},
         0.05, 26},
        {"ring", Ring{.id = "e", .value = 0.62, .place = place}, 0.1, 24},
        {"dial", Dial{.id = "e", .value = 0.62, .place = place}, 0.12, 40},
        {"level", level, 0.12, 50},
        {"masked", masked, 0.5, 60},
        {"mapped", mapped, 0.5, 60},
        {"pips", Pips{.id = "e", .value = 3.5, .max = 5, .place = place, .shape = Shape::drop, .steps = 2}, 0.1, 30},
        {"scale",
         Ruler{.id = "e",
               .value = 40,
               .max = 100,
               .place = place,
               .ticks = {.every = 10, .long_every = 50, .format = "{}"}},
         0.12, 70},
        {"image", Image{.id = "e", .image = "p", .place = {.offset = {20, 14}, .size = {16, 16}}}, 0.02},
        {"scaled image",
         Image{.id = "e", .image = "p", .place = {.offset = {20, 14}, .size = {80, 64}}, .fit = ImageFit::fill}, 0.9,
         90},
        {"pixel image",
         Image{.id = "e", .image = "p", .place = {.offset = {20, 14}, .size = {64, 64}}, .smooth = false}, 0.02},
        {"colored image",
         Image{.id = "e", .image = "p", .place = {.offset = {20, 14}, .size = {16, 16}}, .color = rgb(0xff8040, 0.7)},
         0.02},
        {"glowing", Ring{.id = "e", .value = 0.62, .place = place, .glow = glow}, 0.3, 40},
        {"turned plate",
         Panel{.id = "e",
               .place = place,
               .padding = {40, 60, 40, 60},
               .color = rgb(0x8fce5a),
               .radius = 9,
               .rotation = 12},
         0.1, 60},
        {"turned text", Text{.id = "e", .value = 1234, .place = place, .size = 40, .rotation = -9}, 0.5, 150},
        {"larger text", Text{.id = "e", .value = 1234, .place = place, .size = 20, .scale = 1.7F}, 0.5, 130},
        {"added",
         Panel{.id = "e",
               .place = {.offset = {20, 14}},
               .padding = {40, 60, 40, 60},
               .color = rgb(0x8fce5a, 0.5),
               .blend = Blend::add},
         0.02},
    };
    for (Row& row : rows) {
        Both both(260, 140);
        ASSERT_TRUE(both.images.add("p", 16, 16, checks(16)));
        std::vector<Color> grays;
        for (int i = 0; i < 64 * 4; ++i)
            grays.push_back(rgb(static_cast<std::uint32_t>(i % 64 * 4) * 0x010101U));
        ASSERT_TRUE(both.images.add("m", 64, 4, grays));
        // Something light below, so that what is seen through shows.
        both.hud.add(Panel{.id = "below",
                           .place = {.offset = {5, 5}},
                           .padding = {60, 100, 60, 100},
                           .color = rgb(0x304858),
                           .radius = 0});
        ASSERT_TRUE(both.hud.add(row.element)) << row.what;
        update(both.hud, 16ms);
        for (const Problem& problem : both.hud.problems())
            ADD_FAILURE() << row.what << ": " << to_string(problem);
        const Difference found = both.compare();
        EXPECT_LE(found.mean, row.mean) << row.what << " largest " << found.largest << " at " << found.where.x << " "
                                        << found.where.y;
        EXPECT_LE(found.largest, row.largest) << row.what << " at " << found.where.x << " " << found.where.y;
    }
}

/// Smooth edges are triangles: of thin lines, of closed outlines, beside each other and seen through, turned, far smaller and far larger.
TEST(Mesh, shows_edges_at_any_scale_and_angle_as_a_picture_does) {
    const Place place{.size = {40, 30}};
    const std::vector<std::pair<const char*, Element>> shapes{
        {"ring", Ring{.id = "e", .value = 0.62, .place = place}},
        {"closed ring", Ring{.id = "e", .value = 1, .place = place}},
        {"hairline", Ring{.id = "e", .value = 0.62, .place = place, .thickness = 0.7F}},
        {"parts", Ring{.id = "e",
                       .value = 0.5,
                       .max = 1,
                       .place = place,
                       .color = rgb(0xff7a3c, 0.5),
                       .background = rgb(0x38b6c9, 0.5)}},
        {"dial", Dial{.id = "e", .value = 0.62, .place = place}},
        {"level", Level{.id = "e", .value = 0.62, .place = place, .shape = Shape::heart}},
        {"drops", Pips{.id = "e", .value = 2.5, .max = 3, .place = place, .shape = Shape::drop, .steps = 2}},
        {"people", Pips{.id = "e", .value = 2, .max = 3, .place = place, .shape = Shape::person}},
        {"bar", Bar{.id = "e", .value = 0.37, .place = place, .color = rgb(0xff7a3c, 0.6), .radius = 6}},
        {"plate",
         Panel{.id = "e", .place = place, .padding = {15, 20, 15, 20}, .color = rgb(0x8fce5a, 0.8), .radius = 9}}};
    for (const auto& [what, shape] : shapes)
        for (const float scale : {0.2F, 1.0F, 4.0F})
            for (const float turn : {0.0F, 17.0F, 45.0F}) {
                Both both(260, 200);
                ASSERT_TRUE(both.hud.add(Panel{
                    .id = "p", .place = {.anchor = Anchor::center}, .plate = false, .rotation = turn, .scale = scale}));
                Element inside = shape;
                inside.set_inside("p");
                ASSERT_TRUE(both.hud.add(inside)) << what;
                update(both.hud, 16ms);
                const Difference found = both.compare();
                EXPECT_LE(found.mean, 0.08) << what << " times " << scale << " at " << turn;
                EXPECT_LE(found.largest, 32) << what << " times " << scale << " at " << turn;
            }
}

/// The sample, played.
struct Flight {
    std::string folder = std::string(RAPIDO_SOURCE_DIR) + "/demo/ember_ridge";
    Result<Trace> trace = Trace::read_file(folder + "/flight.csv");
    TracePlayer player{*trace};
    Both both{1280, 800, *read_hud_file(folder + "/hud.toml"), player.sources(), folder};

    void play(double seconds, int frames, bool with_mesh) {
        for (int i = 0; i < frames; ++i) {
            player.seek(to_nanoseconds(Seconds{seconds + i / 60.0}));
            update(both.hud, 1s / 60.0);
            if (!with_mesh) continue;
            both.hud.draw(both.list);
            both.mesh.draw(both.list);
        }
    }
};

TEST(Mesh, tells_the_frames_of_one_sheet_apart) {
    HudDefinition definition;
    for (int frame = 0; frame < 4; ++frame) {
        Image image{.id = "f" + std::to_string(frame), .image = "p", .value = constant(frame), .max = 3};
        image.place = {
            .anchor = Anchor::top_left, .offset = {static_cast<float>(10 + 40 * frame), 10}, .size = {32, 32}};
        image.frames = {.count = 4, .columns = 2};
        image.smooth = false;
        definition.elements.push_back(image);
    }
    Both both(180, 60, {});
    ASSERT_TRUE(both.images.add("p", 16, 16, checks(16)));
    for (const Element& element : definition.elements)
        ASSERT_TRUE(both.hud.add(element));
    update(both.hud, 0s);
    const Difference found = both.compare();
    EXPECT_LE(found.largest, 12);
    EXPECT_LE(found.mean, 0.1);
}

TEST(Mesh, shows_the_sample_as_a_picture_does) {
    for (const double seconds : {8.0, 62.0, 104.0}) {
        Flight flight;
        flight.play(seconds, 120, false);
        const Difference found = flight.both.compare();
        EXPECT_LT(found.mean, 0.35) << seconds;
        EXPECT_LT(found.largest, 70) << seconds << " at " << found.where.x << " " << found.where.y;
        EXPECT_LT(found.beyond, 2500) << seconds << " of a million";
    }
}

TEST(Mesh, makes_again_only_what_has_changed) {
    Both both(400, 300);
    int number = 10;
    for (int i = 0; i < 20; ++i)
        both.hud.add(Text{.id = "t" + std::to_string(i),
                          .value = constant(i + 100),
                          .place = {.offset = {5, 14.0F * static_cast<float>(i)}}});
    both.hud.add(Text{.id = "number", .value = watch(number), .place = {.offset = {200, 5}}});
    const auto frame = [&] {
        update(both.hud, 16ms);
        both.hud.draw(both.list);
        both.mesh.draw(both.list);
        return both.mesh.changed();
    };
    const auto is_all = [&](const Mesh::Range& range) { return range.count == both.mesh.vertices().size(); };
    EXPECT_TRUE(is_all(frame())) << "at first, all of it";
    const MeshAtlas::Page page = both.atlas.page(0);
    EXPECT_EQ(both.atlas.take_changed(0), (PixelRect{0, 0, page.width, page.height})) << "of a new page all";
    EXPECT_EQ(frame().count, 0U);
    number = 27;
    const Mesh::Range changed = frame();
    EXPECT_EQ(changed.count, 8U) << "two characters";
    EXPECT_EQ(changed.first + changed.count, both.mesh.vertices().size());
    const PixelRect texels = both.atlas.take_changed(0);
    EXPECT_LT(texels.width * texels.height, 128 * 128);
    number = 10;
    const std::uint64_t made = both.atlas.made();
    frame();
    EXPECT_EQ(both.atlas.made(), made) << "known characters stay";
    number = 100;
    EXPECT_TRUE(is_all(frame())) << "what is longer moves what is behind it";
    // Another mesh of another list shares all that is there.
    Mesh second(both.atlas);
    DisplayList other;
    both.hud.draw(other);
    const std::uint64_t before = both.atlas.made();
    second.draw(other);
    EXPECT_EQ(both.atlas.made(), before);
    EXPECT_EQ(second.vertices().size(), both.mesh.vertices().size());
    // One that is taken away, and one of another HUD in the same list.
    both.hud.remove(both.hud.find("t3"));
    EXPECT_TRUE(is_all(frame()));
    Hud empty;
    empty.update(0.1);
    empty.draw(both.list);
    both.mesh.draw(both.list);
    EXPECT_TRUE(both.mesh.vertices().empty());
}

TEST(MeshAtlas, keeps_within_its_pages_however_much_comes_and_goes) {
    Both both(300, 200);
    double number = 0;
    both.hud.add(Text{.id = "t", .value = watch(number), .format = "{:.3f}", .place = {.offset = {3, 3}}, .size = 60});
    both.hud.add(
        Ring{.id = "r", .value = watch(number), .max = 3000, .place = {.offset = {60, 70}, .size = {120, 120}}});
    Random random(4);
    std::size_t most = 0;
    for (int i = 0; i < 3000; ++i) {
        number = random.between(0, 3000);
        both.hud.set_ui_scale(static_cast<float>(0.5 + 0.01 * random.below(100)));  // characters of ever other sizes
        update(both.hud, 16ms);
        both.hud.draw(both.list);
        both.mesh.draw(both.list);
        most = std::max(most, both.atlas.page_count());
    }
    EXPECT_GT(both.atlas.made(), 10'000U);
    EXPECT_GT(both.atlas.evicted(), 5'000U);
    EXPECT_LT(both.atlas.evicted(), both.atlas.made());
    EXPECT_LE(most, 4U);
    EXPECT_TRUE(both.mesh.status());
    const Difference found = both.compare();
    EXPECT_LT(found.mean, 1.2) << "and shows what it should";
    // An image larger than a page has a page of its own, and is gone when it is.
    ASSERT_TRUE(both.images.add("large", 1200, 90, std::vector<Color>(1200 * 90, rgb(0x8fce5a))));
    const ElementRef image =
        both.hud.add(Image{.id = "i", .image = "large", .place = {.size = {300, 20}}, .fit = ImageFit::fill});
    update(both.hud, 16ms);
    EXPECT_LT(both.compare().mean, 1.5);
    EXPECT_EQ(both.atlas.page(both.atlas.page_count() - 1).width, 1204);
    both.hud.remove(image);
}

}  // namespace mesh_test
}  // namespace rapido::test
