// A HUD over a game that draws with OpenGL 3.3. SDL makes the window; any other library that does may take its place.
//
//     09_opengl [FRAMES PICTURE]      a window; or so many frames, and a picture (BMP) of the last
#include <rapido/gl.hpp>
#include <rapido/rapido.hpp>

#include <SDL.h>

#include <cmath>
#include <cstdio>
#include <cstdlib>

using namespace std::chrono_literals;

int main(int count, char** arguments) {
    const int frames = count > 2 ? std::atoi(arguments[1]) : 0;
    SDL_SetMainReady();
    if (SDL_Init(SDL_INIT_VIDEO) != 0) {
        std::fprintf(stderr, "%s\n", SDL_GetError());
        return 1;
    }
    SDL_GL_SetAttribute(SDL_GL_CONTEXT_MAJOR_VERSION, 3);
    SDL_GL_SetAttribute(SDL_GL_CONTEXT_MINOR_VERSION, 3);
    SDL_GL_SetAttribute(SDL_GL_CONTEXT_PROFILE_MASK, SDL_GL_CONTEXT_PROFILE_CORE);
    SDL_Window* const window =
        SDL_CreateWindow("Ember Ridge", SDL_WINDOWPOS_CENTERED, SDL_WINDOWPOS_CENTERED, 1280, 720,
                         SDL_WINDOW_OPENGL | SDL_WINDOW_RESIZABLE | SDL_WINDOW_ALLOW_HIGHDPI);
    const SDL_GLContext context = window != nullptr ? SDL_GL_CreateContext(window) : nullptr;
    if (context == nullptr) {
        std::fprintf(stderr, "%s\n", SDL_GetError());
        return 1;
    }
    const auto clear_color =
        reinterpret_cast<void (*)(float, float, float, float)>(SDL_GL_GetProcAddress("glClearColor"));
    const auto clear = reinterpret_cast<void (*)(unsigned)>(SDL_GL_GetProcAddress("glClear"));
    const auto read_pixels = reinterpret_cast<void (*)(int, int, int, int, unsigned, unsigned, void*)>(
        SDL_GL_GetProcAddress("glReadPixels"));

    double heat = 0;
    int saved = 1200;
    rapido::Fonts fonts;
    rapido::Hud hud({.font = "Inter, sans-serif"}, {}, &fonts);
    hud.add(rapido::Text{.id = "saved",
                         .value = rapido::watch(saved),
                         .format = "{:L} acres saved",
                         .motion = rapido::roll(600ms),
                         .place = {.anchor = rapido::Anchor::top_right, .offset = {32, 24}},
                         .size = 40,
                         .outline = rapido::Outline{.width = 3, .color = rapido::rgb(0x10161c)}});
    hud.add(rapido::Ring{.id = "heat",
                         .value = rapido::watch(heat),
                         .bands = {{.above = 0.85, .color = rapido::rgb(0xff7a3c), .effect = "pulse"}},
                         .place = {.anchor = rapido::Anchor::bottom_right, .offset = {32, 32}, .size = {120, 120}},
                         .glow = rapido::Glow{.radius = 16, .strength = 0.5F}});
    rapido::Status seen;
    {
        rapido::GlDrawer drawer(SDL_GL_GetProcAddress, fonts);
        rapido::DisplayList list;
        for (int frame = 0; frames == 0 || frame < frames; ++frame) {
            bool quits = false;
            for (SDL_Event event; SDL_PollEvent(&event) != 0;)
                quits = quits || event.type == SDL_QUIT;
            if (quits) break;
            heat = 0.6 + 0.4 * std::sin(frame / 60.0);
            if (frame % 90 == 60) saved += 240;
            int width = 0, height = 0;
            SDL_GL_GetDrawableSize(window, &width, &height);
            hud.resize({.size = {static_cast<float>(width), static_cast<float>(height)}});
            hud.update(1 / 60.0);
            hud.draw(list);
            clear_color(0.19F, 0.28F, 0.35F, 1);  // the game draws here
            clear(0x4000);
            seen = drawer.draw(list, width, height);
            if (frames > 0 && frame == frames - 1) {
                SDL_Surface* const shot = SDL_CreateRGBSurfaceWithFormat(0, width, height, 32, SDL_PIXELFORMAT_RGBA32);
                read_pixels(0, 0, width, height, 0x1908, 0x1401, shot->pixels);
                // The first row is the lowest.
                SDL_Surface* const upright =
                    SDL_CreateRGBSurfaceWithFormat(0, width, height, 32, SDL_PIXELFORMAT_RGBA32);
                for (int y = 0; y < height; ++y)
                    SDL_memcpy(static_cast<char*>(upright->pixels) + y * upright->pitch,
                               static_cast<char*>(shot->pixels) + (height - 1 - y) * shot->pitch,
                               static_cast<std::size_t>(width) * 4);
                SDL_SaveBMP(upright, arguments[2]);
            }
            SDL_GL_SwapWindow(window);
        }
    }
    SDL_GL_DeleteContext(context);
    SDL_DestroyWindow(window);
    if (!seen) std::fprintf(stderr, "%s\n", to_string(seen.problem()).c_str());
    std::printf("%s\n", std::string(hud.text_of(hud.find("saved"))).c_str());
    SDL_Quit();
    return seen ? 0 : 1;
}
