// A HUD over a game that draws with the renderer of SDL 2.
//
//     08_sdl [FRAMES PICTURE]      a window; or so many frames without one, and a picture (BMP) of the last
#include <rapido/rapido.hpp>
#include <rapido/sdl.hpp>

#include <cmath>
#include <cstdio>
#include <cstdlib>

using namespace std::chrono_literals;

/// The game: a plane over a lake.
struct Plane {
    double water = 900, speed = 80;
    int drops = 0;
    float x = 0;

    void step(double seconds, bool scoops, bool drops_water) {
        x = std::fmod(x + static_cast<float>(speed * seconds) * 2, 1280.0F);
        speed += ((scoops ? 60 : 90) - speed) * seconds;
        if (scoops) water = std::min(water + 500 * seconds, 3000.0);
        if (drops_water && water >= 600) {
            water -= 600;
            ++drops;
        }
    }
};

void draw_scene(SDL_Renderer* renderer, const Plane& plane, int width, int height) {
    SDL_SetRenderDrawColor(renderer, 70, 110, 140, 255);
    SDL_RenderClear(renderer);
    SDL_SetRenderDrawColor(renderer, 32, 60, 84, 255);
    const SDL_Rect lake{0, height * 2 / 3, width, height / 3};
    SDL_RenderFillRect(renderer, &lake);
    SDL_SetRenderDrawColor(renderer, 240, 236, 220, 255);
    const SDL_Rect body{static_cast<int>(plane.x) * width / 1280, height / 2, 60, 12};
    SDL_RenderFillRect(renderer, &body);
}

int main(int count, char** arguments) {
    const int frames = count > 2 ? std::atoi(arguments[1]) : 0;  // without a window
    SDL_Window* window = nullptr;
    SDL_Renderer* renderer = nullptr;
    SDL_Surface* surface = nullptr;
    if (frames > 0) {
        surface = SDL_CreateRGBSurfaceWithFormat(0, 1280, 720, 32, SDL_PIXELFORMAT_RGBA32);
        renderer = SDL_CreateSoftwareRenderer(surface);
    } else if (SDL_Init(SDL_INIT_VIDEO) == 0) {
        window = SDL_CreateWindow("Ember Ridge", SDL_WINDOWPOS_CENTERED, SDL_WINDOWPOS_CENTERED, 1280, 720,
                                  SDL_WINDOW_RESIZABLE | SDL_WINDOW_ALLOW_HIGHDPI);
        renderer = SDL_CreateRenderer(window, -1, SDL_RENDERER_PRESENTVSYNC);
    }
    if (renderer == nullptr) {
        std::fprintf(stderr, "%s\n", SDL_GetError());
        return 1;
    }
    Plane plane;
    rapido::Fonts fonts;
    rapido::Hud hud({.font = "Inter, sans-serif"}, {}, &fonts);
    const auto drops = hud.add(rapido::Text{.id = "drops",
                                            .value = rapido::watch(plane.drops),
                                            .format = "{} drops",
                                            .plural = {.one = "{} drop"},
                                            .triggers = {{.on = rapido::TriggerOn::gain, .effect = "swell"}},
                                            .place = {.anchor = rapido::Anchor::top_right, .offset = {32, 24}},
                                            .size = 40,
                                            .shadow = rapido::Shadow{.offset = {0, 2}, .blur = 6}});
    hud.add(rapido::Bar{.id = "water",
                        .value = rapido::watch(plane.water),
                        .max = 3000,
                        .motion = rapido::tween(300ms),
                        .bands = {{.below = 600, .color = rapido::rgb(0xffc24a)}},
                        .place = {.anchor = rapido::Anchor::bottom_left, .offset = {32, 32}, .size = {320, 18}},
                        .radius = 9});
    hud.add(rapido::Text{.id = "speed",
                         .value = rapido::watch(plane.speed) * 3.6,
                         .format = "{:.0f} km/h",
                         .place = {.anchor = rapido::Anchor::bottom_left, .offset = {32, 60}}});
    rapido::SdlDrawer drawer(renderer, fonts);
    rapido::DisplayList list;
    for (int frame = 0; frames == 0 || frame < frames; ++frame) {
        bool quits = false, drops_water = frames > 0 && frame % 90 == 45;
        for (SDL_Event event; SDL_PollEvent(&event) != 0;) {
            quits = quits || event.type == SDL_QUIT;
            drops_water = drops_water || (event.type == SDL_KEYDOWN && event.key.keysym.sym == SDLK_SPACE);
            if (event.type == SDL_RENDER_DEVICE_RESET) drawer.reset();
        }
        if (quits) break;
        const bool scoops = SDL_GetKeyboardState(nullptr)[SDL_SCANCODE_DOWN] != 0;
        plane.step(1 / 60.0, scoops, drops_water);
        int width = 0, height = 0;
        SDL_GetRendererOutputSize(renderer, &width, &height);
        hud.resize({.size = {static_cast<float>(width), static_cast<float>(height)}});
        hud.update(1 / 60.0);
        hud.draw(list);
        draw_scene(renderer, plane, width, height);
        if (const rapido::Status drawn = drawer.draw(list); !drawn)
            std::fprintf(stderr, "%s\n", to_string(drawn.problem()).c_str());
        SDL_RenderPresent(renderer);
    }
    std::printf("%s\n", std::string(hud.text_of(drops)).c_str());
    return surface == nullptr || SDL_SaveBMP(surface, arguments[2]) == 0 ? 0 : 1;
}
