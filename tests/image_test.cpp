// Images: what is drawn of them, and what is said of those that cannot be.
#include "pixels.hpp"
#include "rapido/file.hpp"

namespace rapido::test {
namespace image_test {

constexpr Color red = rgb(0xff0000), green = rgb(0x00ff00), blue = rgb(0x0000ff);

/// An image with a stage that has pictures of 4 by 4 pixels: `corners` is blue with red corners, `strip` four frames of
/// 1 by 4 pixels, and `wide` 8 by 4 pixels, green.
struct Shown {
    Stage stage;
    explicit Shown(const Image& image, int width = 100, int height = 100)
        : stage(Panel{.id = "none", .plate = false}, width, height) {
        std::vector<Color> corners(16, blue);
        for (const std::size_t corner : {0U, 3U, 12U, 15U})
            corners[corner] = red;
        stage.image("corners", 4, 4, corners);
        const std::array<Color, 4> of{black, red, green, blue};
        std::vector<Color> strip;
        for (int i = 0; i < 16; ++i)
            strip.push_back(of[static_cast<std::size_t>(i % 4)]);
        stage.image("strip", 4, 4, strip);
        stage.image("wide", 8, 4, std::vector<Color>(32, green));
        stage.element = stage.hud.add(image);
        stage.pass(0s);
    }
    std::string at(int x, int y) { return to_string(stage.shot().pixel(x, y)); }
};

TEST(Image, keeps_its_corners_when_it_is_sliced) {
    Image image{.id = "i", .image = "corners", .place = {.offset = {10, 10}, .size = {60, 40}}};
    image.slice = {1, 1, 1, 1};
    image.smooth = false;
    Shown shown(image);
    EXPECT_TRUE(shown.stage.hud.problems().empty());
    const auto expect = [&](int x, int y, std::string_view color) {
        EXPECT_EQ(shown.at(x, y), color) << x << ", " << y;
    };
    for (const int x : {10, 69})
        for (const int y : {10, 49})
            expect(x, y, "#ff0000");
    for (const auto& [x, y] : {std::pair{11, 10}, {68, 10}, {40, 10}, {10, 30}, {40, 30}, {69, 48}})
        expect(x, y, "#0000ff");
    expect(9, 9, "#000000");
    expect(70, 50, "#000000");
    // A corner pixel is a design pixel.
    shown.stage.hud.resize({.size = {300, 300}});
    shown.stage.width = shown.stage.height = 300;
    shown.stage.pass(0s);
    expect(32, 32, "#ff0000");
    expect(33, 33, "#0000ff");
}

TEST(Image, fits_its_box_as_object_fit_does) {
    struct Row {
        ImageFit fit;
        Rect lit;
    };
    // An image of 8 by 4 in a box of 40 by 40 at (10, 10).
    for (const Row& row : std::vector<Row>{{ImageFit::fill, {10, 10, 40, 40}},
                                           {ImageFit::contain, {10, 20, 40, 20}},
                                           {ImageFit::cover, {10, 10, 40, 40}},
                                           {ImageFit::none, {26, 28, 8, 4}},
                                           {ImageFit::scale_down, {26, 28, 8, 4}}}) {
        Image image{.id = "i", .image = "wide", .place = {.offset = {10, 10}, .size = {40, 40}}};
        image.fit = row.fit;
        Shown shown(image);
        const Picture picture = shown.stage.shot();
        for (int y = 0; y < 100; ++y)
            for (int x = 0; x < 100; ++x) {
                const bool inside = static_cast<float>(x) >= row.lit.x && static_cast<float>(y) >= row.lit.y &&
                                    static_cast<float>(x) < row.lit.right() && static_cast<float>(y) < row.lit.bottom();
                ASSERT_EQ(picture.pixel(x, y).green, inside ? 255 : 0)
                    << x << " " << y << " " << static_cast<int>(row.fit);
            }
    }
}

TEST(Image, plays_its_frames_by_the_clock_or_by_a_value) {
    Image image{.id = "i", .image = "strip", .place = {.size = {10, 40}}};
    image.frames = {.count = 4, .rate = 10};
    const std::vector<std::string> frames{"#000000", "#ff0000", "#00ff00", "#0000ff"};
    for (const int rate : {30, 100}) {
        Shown shown(image);
        for (int i = 1; i <= rate; ++i) {
            shown.stage.hud.update({.real = to_seconds(Nanoseconds{1'000'000'000 / rate})});
            const auto tick = static_cast<std::size_t>(i * (1'000'000'000 / rate) / 100'000'000);
            ASSERT_EQ(shown.at(5, 5), frames[tick % 4]) << i << " of " << rate;
        }
    }
    image.clock = ClockKind::game;
    Shown paused(image);
    paused.stage.hud.update({.real = 150ms});
    EXPECT_EQ(paused.at(5, 5), frames[0]) << "the game stands still";
    Shown calm(image);
    calm.stage.hud.set_reduced_motion(true);
    calm.stage.pass(150ms);
    EXPECT_EQ(calm.at(5, 5), frames[0]);
    for (const auto& [value, frame] : std::vector<std::pair<double, std::size_t>>{
             {0, 0}, {0.4, 1}, {33, 1}, {49, 1}, {52, 2}, {99.6, 2}, {100, 3}, {500, 3}, {NAN, 0}}) {
        image.value = constant(value);
        image.max = 100;
        Shown shown(image);
        EXPECT_EQ(shown.at(5, 5), frames[frame]) << value;
    }
}

TEST(Image, changes_with_bands_colors_and_masks) {
    double heat = 10;
    Image image{.id = "i", .image = "wide", .value = watch(heat), .place = {.size = {40, 20}}};
    image.bands = {{.above = 50, .edge_unit = EdgeUnit::value, .image = "corners"},
                   {.above = 80, .edge_unit = EdgeUnit::value, .color = rgb(0x808080)}};
    image.fit = ImageFit::fill;
    Shown shown(image);
    EXPECT_EQ(shown.at(20, 10), "#00ff00");
    heat = 60;
    shown.stage.pass(10ms);
    EXPECT_EQ(shown.at(20, 10), "#0000ff");
    heat = 90;
    shown.stage.pass(10ms);
    EXPECT_EQ(shown.at(20, 10), "#000080") << "multiplied";
    image.bands.clear();
    image.mask = "strip";  // black and all other colors are opaque: nothing is cut
    EXPECT_EQ(Shown(image).at(39, 10), "#00ff00");
    Shown masked(image);
    std::vector<Color> half(2, white);
    half[1] = rgb(0xffffff, 0);
    masked.stage.image("half", 2, 1, half);
    image.mask = "half";
    image.id = "j";
    masked.stage.hud.remove(masked.stage.element);
    masked.stage.hud.add(image);
    masked.stage.pass(0s);
    EXPECT_EQ(masked.at(5, 10), "#00ff00");
    EXPECT_EQ(masked.at(35, 10), "#000000");
}

/// The bytes of the first chunk of a PNG image of this size.
std::string png_head(std::uint32_t width, std::uint32_t height) {
    std::string bytes("\x89PNG\r\n\x1a\n\0\0\0\rIHDR", 16);
    for (const std::uint32_t number : {width, height})
        for (const int shift : {24, 16, 8, 0})
            bytes += static_cast<char>(number >> shift);
    return bytes + std::string("\x08\x06\0\0\0", 5) + "....";
}

TEST(Image, that_cannot_be_read_is_a_problem_and_a_crossed_box) {
    const TemporaryFolder folder;
    namespace fs = std::filesystem;
    const std::string inner = folder.path("hud");
    fs::create_directories(inner + "/sub.png");
    Picture small(4, 4, Stage::fonts());
    small.fill(red);
    ASSERT_TRUE(small.write_png(folder.path("outside.png")));
    ASSERT_TRUE(small.write_png(inner + "/good.png"));
    std::ofstream(inner + "/text.png") << "not an image at all, but longer than a head";
    std::ofstream(inner + "/short.png", std::ios::binary) << "\x89PNG";
    std::ofstream(inner + "/wide.png", std::ios::binary) << png_head(40'000, 10);
    std::ofstream(inner + "/damaged.png", std::ios::binary) << png_head(100, 100);
    std::error_code no_links;  // under Wine
    fs::create_symlink(folder.path("outside.png"), inner + "/link.png", no_links);
    const std::vector<std::pair<std::string, std::string>> rows{
        {"missing.png", "'missing.png' is not there; it is looked for in the folder of the HUD file"},
        {"text.png", "'text.png' is not a PNG image"},
        {"short.png", "'short.png' is not a PNG image"},
        {"wide.png", "'wide.png' is an image of 40000 by 10 pixels; at most 4096 each way are read; make it smaller"},
        {"damaged.png", "'damaged.png' is a damaged PNG image"},
        {"sub.png", "'sub.png' is not a file"},
        {"../outside.png", "'../outside.png' is not a path inside the folder of the HUD; put the image beside"},
        {"a/../../outside.png", "'a/../../outside.png' is not a path inside the folder"},
        {folder.path("outside.png"), "is not a path inside the folder of the HUD"},
        {"link.png", "'link.png' leads out of the folder of the HUD"}};
    for (const auto& [name, says] : rows) {
        if (no_links && name == "link.png") continue;
        Images images(inner);
        const std::string text = "[[element]]\nkind = \"image\"\nid = \"i\"\nimage = '" + name + "'\n";
        const Problems found = check_hud(text, "hud.toml", {}, &Stage::fonts(), &images);
        ASSERT_EQ(found.size(), 1U) << name;
        const std::string message = to_string(found[0]);
        EXPECT_TRUE(message.starts_with("hud.toml:4:10: warning: 'image' of image 'i': ")) << message;
        EXPECT_NE(message.find(says), std::string::npos) << message;
        // It stands there all the same, and is seen.
        Stage stage(Image{.id = "i", .image = name}, 100, 100, inner);
        stage.pass(0s);
        EXPECT_EQ(stage.hud[stage.element].box, (Rect{0, 0, 32, 32}));
        EXPECT_GT(lit(stage.shot()), 60);
    }
    Stage good(Image{.id = "i", .image = "good.png"}, 100, 100, inner);
    EXPECT_EQ(to_string(good.first().pixel(2, 2)), "#ff0000");
    // The same by every other field that names one, and by frames that are not there.
    for (const Element& element : std::vector<Element>{
             Level{.id = "e", .value = 1, .image = "x.png"}, Level{.id = "e", .value = 1, .mask = "x.png"},
             Pips{.id = "e", .value = 2, .max = 3, .image = "x.png"},
             Pips{.id = "e", .value = 2, .max = 3, .extra = {{.value = 1, .image = "x.png"}}},
             Image{.id = "e", .image = "good.png", .frames = {.count = 5}}}) {
        Stage stage(element, 100, 100, inner);
        stage.pass(0s);
        EXPECT_EQ(stage.hud.problems().size(), 1U);
        EXPECT_GT(lit(stage.shot()), 60);
    }
}

TEST(Images, give_a_renderer_the_pixels_to_upload) {
    Images images;
    const std::array<Color, 6> given{rgb(0x112233), rgb(0xff0000), {255, 128, 0, 128},
                                     rgb(0xffffff), {9, 9, 9, 0},  rgb(0x00ff00)};
    const Result<ImageId> image = images.add("flag", 3, 2, given);
    ASSERT_TRUE(image);
    const std::vector<std::uint8_t> pixels = images.pixels(*image);
    ASSERT_EQ(pixels.size(), 4 * given.size());
    for (std::size_t i = 0; i < given.size(); ++i) {
        const Color& color = given[i];
        const std::array<int, 4> expected{color.red * color.alpha / 255, color.green * color.alpha / 255,
                                          color.blue * color.alpha / 255, color.alpha};
        for (std::size_t part = 0; part < 4; ++part)
            EXPECT_NEAR(pixels[4 * i + part], expected[part], 1) << i << " " << part;
    }
    EXPECT_TRUE(images.pixels(99).empty());
}

}  // namespace image_test
}  // namespace rapido::test
