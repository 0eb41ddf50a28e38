// The renderer of SDL, on a surface: no monitor is needed.
#include "rapido/sdl.hpp"

#include <cmath>

#include "pixels.hpp"
#include "rapido/file.hpp"

namespace rapido::test {
namespace sdl_test {

TEST(SdlDrawer, draws_the_sample_as_a_picture_does_and_leaves_the_renderer_as_it_was) {
    const std::string folder = std::string(RAPIDO_SOURCE_DIR) + "/demo/ember_ridge";
    const auto definition = read_hud_file(folder + "/hud.toml");
    const auto trace = Trace::read_file(folder + "/flight.csv");
    ASSERT_TRUE(definition && trace);
    TracePlayer player(*trace);
    Images images(folder);
    Hud hud(*definition, player.sources(), &Stage::fonts(), &images);
    constexpr int width = 1280, height = 800;
    hud.resize({.size = {width, height}});
    SDL_Surface* const surface = SDL_CreateRGBSurfaceWithFormat(0, width, height, 32, SDL_PIXELFORMAT_RGBA32);
    SDL_Renderer* const renderer = SDL_CreateSoftwareRenderer(surface);
    ASSERT_NE(renderer, nullptr) << SDL_GetError();
    {
        SdlDrawer drawer(renderer, Stage::fonts(), &images);
        DisplayList list;
        for (int i = 0; i < 60; ++i) {
            player.seek(60s + 16ms * i);
            hud.update(0.016);
        }
        hud.draw(list);
        SDL_SetRenderDrawColor(renderer, 48, 72, 88, 255);
        SDL_RenderClear(renderer);
        const SDL_Rect part{10, 20, 300, 200};
        SDL_RenderSetViewport(renderer, &part);
        SDL_RenderSetClipRect(renderer, &part);
        const Status drawn = drawer.draw(list);
        EXPECT_TRUE(drawn) << to_string(drawn.problem());
        SDL_Rect after;
        SDL_RenderGetViewport(renderer, &after);
        EXPECT_TRUE(SDL_RectEquals(&after, &part));
        SDL_RenderGetClipRect(renderer, &after);
        EXPECT_TRUE(SDL_RectEquals(&after, &part));
        SDL_RenderFlush(renderer);

        Picture picture(width, height, Stage::fonts(), &images);
        picture.fill({48, 72, 88, 255});
        picture.draw(list);
        double sum = 0;
        int far = 0, lit = 0;
        const auto* const pixels = static_cast<const std::uint8_t*>(surface->pixels);
        for (int y = 0; y < height; ++y)
            for (int x = 0; x < width; ++x) {
                const Color expected = picture.pixel(x, y);
                const std::uint8_t* const pixel = pixels + y * surface->pitch + x * 4;
                const int apart = std::max({std::abs(pixel[0] - expected.red), std::abs(pixel[1] - expected.green),
                                            std::abs(pixel[2] - expected.blue)});
                sum += apart;
                far += apart > 60 ? 1 : 0;
                lit += expected == Color{48, 72, 88, 255} ? 0 : 1;
            }
        EXPECT_GT(lit, 50'000) << "there is a HUD";
        EXPECT_LT(sum / (width * height), 1.0) << "of 255";
        EXPECT_LT(far, 1500);
        // Another list beside it, and one that is gone.
        DisplayList other;
        hud.draw(other);
        EXPECT_TRUE(drawer.draw(other));
        drawer.forget(other);
        drawer.reset();
        EXPECT_TRUE(drawer.draw(list)) << "with new textures";
    }
    SDL_DestroyRenderer(renderer);
    SDL_FreeSurface(surface);
}

}  // namespace sdl_test
}  // namespace rapido::test
