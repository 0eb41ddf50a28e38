// A water bomber over a burning valley, drawn with the renderer of SDL 2 by a program in C++98. The lines between HAS_HUD are what the HUD adds to it.
//
//     adopted_sdl [FRAMES PICTURE]      a window; or so many frames without one, and a picture (BMP) of the last
#include "game.hpp"

#include <SDL.h>

#include <cstdio>
#include <cstdlib>

#ifdef HAS_HUD
#include "hud.hpp"
#endif

static const int width = 960, height = 540;

Plane plane = {120, 150, 2400, 82};
Fire* fires = 0;
int score = 0;
bool paused = false;
float view_x = 0;

static void light(float x, float y, int heat) {
    Fire* const fire = new Fire;
    fire->x = x;
    fire->y = y;
    fire->heat = heat;
    fire->next = fires;
    fires = fire;
}

// Burned out fires are deleted in the frame of their last drop.
static void drop_water() {
    if (plane.water < 600) {
#ifdef HAS_HUD
        hud_say("No water left: scoop from the lake");
#endif
        return;
    }
    plane.water -= 600;
    for (Fire** link = &fires; *link != 0;) {
        Fire* const fire = *link;
        const float away = fire->x - plane.x;
        if (away < -70 || away > 70) {
            link = &fire->next;
            continue;
        }
        const int cooled = fire->heat < 60 ? fire->heat : 60;
        fire->heat -= cooled;
        score += cooled;
#ifdef HAS_HUD
        hud_points(fire->x, fire->y, cooled);
#endif
        if (fire->heat > 0) {
            link = &fire->next;
            continue;
        }
        *link = fire->next;
        delete fire;
    }
}

static void step(double seconds) {
    plane.x += (float)(plane.speed * seconds) * 2;
    if (plane.x > 1900) plane.x = 60;
    view_x = plane.x - 300 < 0 ? 0 : plane.x - 300;
    if (plane.water < 2400 && plane.x > 1500) plane.water += 900 * seconds;
}

static void fill(SDL_Renderer* renderer, int red, int green, int blue, float x, float y, float w, float h) {
    SDL_Rect rect;
    rect.x = (int)(x - view_x);
    rect.y = (int)y;
    rect.w = (int)w;
    rect.h = (int)h;
    SDL_SetRenderDrawColor(renderer, (Uint8)red, (Uint8)green, (Uint8)blue, 255);
    SDL_RenderFillRect(renderer, &rect);
}

static void draw(SDL_Renderer* renderer) {
    SDL_SetRenderDrawColor(renderer, 58, 74, 92, 255);
    SDL_RenderClear(renderer);
    fill(renderer, 44, 62, 56, view_x, 360, width, 180);
    fill(renderer, 40, 98, 122, 1500, 380, 420, 160);
    for (const Fire* fire = fires; fire != 0; fire = fire->next) {
        const float size = 10 + fire->heat * 0.3f;
        fill(renderer, 226, 92, 44, fire->x - size / 2, fire->y - size, size, size);
        fill(renderer, 255, 194, 74, fire->x - size / 4, fire->y - size / 2, size / 2, size / 2);
    }
    fill(renderer, 236, 232, 220, plane.x - 34, plane.y, 68, 10);
    fill(renderer, 190, 60, 48, plane.x - 38, plane.y - 14, 12, 20);
}

int main(int count, char** arguments) {
    const int frames = count > 2 ? std::atoi(arguments[1]) : 0;
    SDL_Window* window = 0;
    SDL_Renderer* renderer = 0;
    SDL_Surface* surface = 0;
    if (frames > 0) {
        surface = SDL_CreateRGBSurfaceWithFormat(0, width, height, 32, SDL_PIXELFORMAT_RGBA32);
        renderer = SDL_CreateSoftwareRenderer(surface);
    } else if (SDL_Init(SDL_INIT_VIDEO) == 0) {
        window = SDL_CreateWindow("Water bomber", SDL_WINDOWPOS_CENTERED, SDL_WINDOWPOS_CENTERED, width, height, 0);
        renderer = SDL_CreateRenderer(window, -1, SDL_RENDERER_PRESENTVSYNC);
    }
    if (renderer == 0) {
        std::fprintf(stderr, "%s\n", SDL_GetError());
        return 1;
    }
    for (int i = 0; i < 7; ++i)
        light((float)(380 + i * 150), (float)(400 + i % 3 * 40), 40 + i * 23 % 60);
#ifdef HAS_HUD
    hud_open(renderer);
    hud_say("Seven fires in the valley");
#endif
    bool quits = false;
    for (int frame = 0; !quits && (frames == 0 || frame < frames); ++frame) {
        bool drops = frames > 0 && frame % 55 == 50;
        SDL_Event event;
        while (SDL_PollEvent(&event) != 0) {
            quits = quits || event.type == SDL_QUIT;
            if (event.type != SDL_KEYDOWN) continue;
            drops = drops || event.key.keysym.sym == SDLK_SPACE;
            if (event.key.keysym.sym == SDLK_p) paused = !paused;
        }
        if (!paused) {
            step(1 / 60.0);
            if (drops) drop_water();
        }
        draw(renderer);
#ifdef HAS_HUD
        hud_frame(1 / 60.0);
#endif
        SDL_RenderPresent(renderer);
    }
#ifdef HAS_HUD
    hud_close();
#endif
    std::printf("%d points\n", score);
    return surface == 0 || SDL_SaveBMP(surface, arguments[2]) == 0 ? 0 : 1;
}
