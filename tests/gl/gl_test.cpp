// OpenGL by the software driver of Mesa, and SDL's renderer over it: what is drawn, and what is left behind.
#include "rapido/gl.hpp"

#include <SDL.h>

#include <cmath>

#include "../pixels.hpp"
#include "rapido/sdl.hpp"

namespace rapido::test {
namespace {

constexpr int width = 640, height = 360;

/// A window with a context; tests that find none fail.
struct Window {
    SDL_Window* window = nullptr;
    SDL_GLContext context = nullptr;

    explicit Window(int profile, int major, int minor) {
        SDL_SetMainReady();
        EXPECT_EQ(SDL_Init(SDL_INIT_VIDEO), 0) << SDL_GetError();
        SDL_GL_SetAttribute(SDL_GL_CONTEXT_PROFILE_MASK, profile);
        SDL_GL_SetAttribute(SDL_GL_CONTEXT_MAJOR_VERSION, major);
        SDL_GL_SetAttribute(SDL_GL_CONTEXT_MINOR_VERSION, minor);
        window = SDL_CreateWindow("test", 0, 0, width, height, SDL_WINDOW_OPENGL);
        context = window != nullptr ? SDL_GL_CreateContext(window) : nullptr;
        EXPECT_NE(context, nullptr) << SDL_GetError();
    }
    ~Window() {
        SDL_GL_DeleteContext(context);
        SDL_DestroyWindow(window);
        SDL_Quit();
    }
};

/// The mean and the largest difference from a picture, of 255; something must be drawn.
template <class PixelAt>
std::pair<double, int> apart_from(const Picture& picture, PixelAt pixel_at) {
    double sum = 0;
    int largest = 0, lit = 0;
    for (int y = 0; y < height; ++y)
        for (int x = 0; x < width; ++x) {
            const Color expected = picture.pixel(x, y);
            const std::uint8_t* const pixel = pixel_at(x, y);
            const int apart = std::max({std::abs(pixel[0] - expected.red), std::abs(pixel[1] - expected.green),
                                        std::abs(pixel[2] - expected.blue)});
            sum += apart;
            largest = std::max(largest, apart);
            lit += expected == Color{48, 72, 88, 255} ? 0 : 1;
        }
    EXPECT_GT(lit, 5'000);
    return {sum / (width * height), largest};
}

template <class Function>
Function* gl(const char* name) {
    return reinterpret_cast<Function*>(SDL_GL_GetProcAddress(name));
}

class GlDrawerTest : public testing::TestWithParam<bool> {};

TEST_P(GlDrawerTest, draws_as_a_picture_does_and_leaves_the_state_as_it_was) {
    const bool is_es = GetParam();
    const Window window(is_es ? SDL_GL_CONTEXT_PROFILE_ES : SDL_GL_CONTEXT_PROFILE_CORE, 3, is_es ? 0 : 3);
    ASSERT_NE(window.context, nullptr);
    double value = 0.3;
    Images images;
    ASSERT_TRUE(images.add("p", 2, 2, std::vector<Color>{rgb(0xff0000), rgb(0x00ff00, 0.5), rgb(0x0000ff), white}));
    Hud hud({.design = {width, height}}, {}, &Stage::fonts(), &images);
    hud.resize({.size = {width, height}});
    hud.add(Text{.id = "t",
                 .value = watch(value),
                 .format = "{:.2f} acres",
                 .place = {.offset = {20, 10}},
                 .size = 40,
                 .outline = Outline{.width = 2}});
    hud.add(Ring{.id = "r", .value = watch(value), .place = {.offset = {20, 90}, .size = {120, 120}}, .glow = Glow{}});
    hud.add(Bar{.id = "b", .value = watch(value), .place = {.offset = {200, 100}, .size = {200, 20}}, .radius = 8});
    hud.add(Image{.id = "i", .image = "p", .place = {.offset = {200, 160}, .size = {2, 2}}});
    hud.add(Panel{.id = "p",
                  .place = {.offset = {450, 60}},
                  .padding = {40, 40, 40, 40},
                  .color = rgb(0x8fce5a, 0.6),
                  .radius = 12});

    const auto integer = [get = gl<void(unsigned, int*)>("glGetIntegerv")](unsigned name) {
        std::array<int, 4> values{};
        get(name, values.data());
        return values;
    };
    const auto enable = gl<void(unsigned)>("glEnable");
    const auto is_enabled = gl<unsigned char(unsigned)>("glIsEnabled");
    // A game that left all kinds of things on.
    for (const unsigned on : {0x0B71U, 0x0B44U, 0x0C11U})  // depth test, face culling, scissor test
        enable(on);
    gl<void(int, int, int, int)>("glScissor")(5, 6, 50, 60);
    gl<void(int, int, int, int)>("glViewport")(1, 2, 300, 200);
    gl<void(unsigned, unsigned)>("glBlendFunc")(0x0302, 0x0303);
    gl<void(unsigned, int)>("glPixelStorei")(0x0CF5, 2);
    // What lies further away, and spoils all that is drawn.
    std::vector<unsigned> strange{0x8C89};  // rasterizer discard
    if (!is_es)
        strange.insert(strange.end(),
                       {0x0BF2, 0x0B41, 0x8F9D, 0x3000});  // logic, smooth polygons, restart, a clip plane
    const auto disable = gl<void(unsigned)>("glDisable");
    const auto color_mask = gl<void(unsigned char, unsigned char, unsigned char, unsigned char)>("glColorMask");
    const auto polygon_mode = is_es ? nullptr : gl<void(unsigned, unsigned)>("glPolygonMode");
    unsigned unpack = 0;
    gl<void(int, unsigned*)>("glGenBuffers")(1, &unpack);
    gl<void(unsigned, unsigned)>("glBindBuffer")(0x88EC, unpack);
    gl<void(unsigned, std::ptrdiff_t, const void*, unsigned)>("glBufferData")(0x88EC, 64, nullptr, 0x88E0);
    gl<void(unsigned, int)>("glPixelStorei")(0x0CF3, 3);
    gl<void(unsigned, int)>("glPixelStorei")(0x0CF4, 5);
    if (!is_es) gl<void(unsigned)>("glLogicOp")(0x1506);  // exclusive or
    if (!is_es) gl<void(unsigned)>("glPrimitiveRestartIndex")(2);
    gl<void(float, float, float, float)>("glClearColor")(48 / 255.0F, 72 / 255.0F, 88 / 255.0F, 1);

    GlDrawer drawer(SDL_GL_GetProcAddress, Stage::fonts(), &images, is_es);
    DisplayList list;
    for (int frame = 0; frame < 4; ++frame) {
        value = 0.3 + 0.2 * frame;  // pages and vertices change
        hud.update(0.3);
        hud.draw(list);
        gl<void(unsigned)>("glDisable")(0x0C11);
        gl<void(unsigned)>("glClear")(0x4000);
        enable(0x0C11);
        for (const unsigned on : strange)
            enable(on);
        color_mask(0, 1, 0, 1);
        if (!is_es) polygon_mode(0x0408, 0x1B01);  // lines
        if (frame == 2) drawer.reset();            // as if the context had been lost
        const Status drawn = drawer.draw(list, width, height);
        ASSERT_TRUE(drawn) << to_string(drawn.problem());
        EXPECT_EQ(gl<unsigned()>("glGetError")(), 0U);
        for (const unsigned on : strange) {
            EXPECT_TRUE(is_enabled(on)) << std::hex << on;
            disable(on);
        }
        EXPECT_EQ(integer(0x0C23), (std::array{0, 1, 0, 1})) << "color mask";
        color_mask(1, 1, 1, 1);
        if (is_es) continue;
        EXPECT_EQ(integer(0x0B40)[0], 0x1B01) << "polygon mode";
        polygon_mode(0x0408, 0x1B02);
    }
    EXPECT_EQ(integer(0x88EF)[0], static_cast<int>(unpack)) << "unpack buffer";
    EXPECT_EQ(integer(0x0CF3)[0], 3) << "skipped rows";
    EXPECT_EQ(integer(0x0CF4)[0], 5) << "skipped pixels";
    gl<void(unsigned, unsigned)>("glBindBuffer")(0x88EC, 0);
    for (const unsigned on : {0x0B71U, 0x0B44U, 0x0C11U})
        EXPECT_TRUE(is_enabled(on));
    EXPECT_FALSE(is_enabled(0x0BE2)) << "blending";
    EXPECT_EQ(integer(0x0BA2), (std::array{1, 2, 300, 200})) << "viewport";
    EXPECT_EQ(integer(0x80C9)[0], 0x0302) << "source of colors";
    EXPECT_EQ(integer(0x0CF5)[0], 2) << "alignment";
    for (const unsigned none : {0x8B8DU, 0x85B5U, 0x8894U, 0x8069U})  // program, vertex array, buffer, texture
        EXPECT_EQ(integer(none)[0], 0) << none;

    std::vector<std::uint8_t> pixels(static_cast<std::size_t>(width) * height * 4);
    gl<void(int, int, int, int, unsigned, unsigned, void*)>("glReadPixels")(0, 0, width, height, 0x1908, 0x1401,
                                                                            pixels.data());
    Picture picture(width, height, Stage::fonts(), &images);
    picture.fill({48, 72, 88, 255});
    picture.draw(list);
    const auto [mean, largest] = apart_from(picture, [&](int x, int y) {
        return pixels.data() + (static_cast<std::size_t>(height - 1 - y) * width + static_cast<std::size_t>(x)) * 4;
    });
    EXPECT_LT(mean, 0.4);
    EXPECT_LT(largest, 80);
}
INSTANTIATE_TEST_SUITE_P(Contexts, GlDrawerTest, testing::Bool());

TEST(SdlDrawer, draws_with_a_renderer_that_blends_as_the_atlas_is) {
    SDL_SetMainReady();
    ASSERT_EQ(SDL_Init(SDL_INIT_VIDEO), 0) << SDL_GetError();
    SDL_SetHint(SDL_HINT_RENDER_DRIVER, "opengl");
    SDL_Window* const window = SDL_CreateWindow("test", 0, 0, width, height, SDL_WINDOW_OPENGL);
    SDL_Renderer* const renderer = SDL_CreateRenderer(window, -1, SDL_RENDERER_ACCELERATED);
    ASSERT_NE(renderer, nullptr) << SDL_GetError();
    Hud hud({.design = {width, height}}, {}, &Stage::fonts());
    hud.resize({.size = {width, height}});
    hud.add(Text{.id = "t", .value = 12, .place = {.offset = {20, 10}}, .size = 60, .shadow = Shadow{.blur = 8}});
    hud.add(Panel{.id = "p",
                  .place = {.offset = {250, 60}},
                  .padding = {40, 40, 40, 40},
                  .color = rgb(0x8fce5a, 0.5),
                  .radius = 12,
                  .blend = Blend::add});
    hud.add(Ring{.id = "r", .value = 0.6, .place = {.offset = {20, 190}, .size = {120, 120}}, .rotation = 20});
    hud.update(0.1);
    DisplayList list;
    hud.draw(list);
    {
        SdlDrawer drawer(renderer, Stage::fonts());
        SDL_SetRenderDrawColor(renderer, 48, 72, 88, 255);
        SDL_RenderClear(renderer);
        const Status drawn = drawer.draw(list);
        EXPECT_TRUE(drawn) << to_string(drawn.problem());
    }
    std::vector<std::uint8_t> pixels(static_cast<std::size_t>(width) * height * 4);
    ASSERT_EQ(SDL_RenderReadPixels(renderer, nullptr, SDL_PIXELFORMAT_RGBA32, pixels.data(), width * 4), 0);
    Picture picture(width, height, Stage::fonts());
    picture.fill({48, 72, 88, 255});
    picture.draw(list);
    const auto [mean, largest] = apart_from(picture, [&](int x, int y) { return pixels.data() + (y * width + x) * 4; });
    EXPECT_LT(mean, 0.4);
    EXPECT_LT(largest, 80);
    SDL_DestroyRenderer(renderer);
    SDL_DestroyWindow(window);
    SDL_Quit();
}

TEST(GlDrawer, says_what_a_context_lacks) {
    GlDrawer drawer([](const char*) -> void* { return nullptr; }, Stage::fonts());
    const Status drawn = drawer.draw(DisplayList{}, 10, 10);
    EXPECT_EQ(to_string(drawn.problem()), "error: OpenGL has no glCreateShader; OpenGL 3.3 or OpenGL ES 3 is needed");
}

}  // namespace
}  // namespace rapido::test
