// The HUD of the game. This file alone is compiled as C++20.
#include "hud.hpp"

#include <rapido/game_hud.hpp>
#include <rapido/rapido.hpp>
#include <rapido/sdl.hpp>

#include "game.hpp"

namespace {

struct Screen {
    rapido::GameHud hud;
    rapido::SdlDrawer drawer;
    Screen(SDL_Renderer* renderer, const rapido::Sources& sources) : hud(HUD_FILE, sources), drawer(renderer, hud) {}
};
std::unique_ptr<Screen> screen;

}  // namespace

void hud_open(SDL_Renderer* renderer) {
    rapido::Sources sources;
    sources.set("plane.water", rapido::watch(plane.water));
    sources.set("plane.speed", rapido::watch(plane.speed));
    sources.set("score", rapido::watch(score));
    sources.set("paused", rapido::watch(paused));
    sources.set("fires", rapido::watch_each<Fire>(
                             [](const auto& see) {
                                 for (const Fire* fire = fires; fire != nullptr; fire = fire->next)
                                     see(*fire);
                             },
                             rapido::entry_address("id"), rapido::entry_field("heat", &Fire::heat),
                             rapido::entry_position([](const Fire& fire) {
                                 return rapido::WorldPoint{fire.x, fire.y};
                             })));
    screen = std::make_unique<Screen>(renderer, sources);
}

void hud_frame(double seconds) {
    screen->hud->set_camera(rapido::Camera::flat({.center = {view_x + 480.0, 270}}));
    screen->drawer.frame(screen->hud, rapido::step(rapido::Seconds{seconds}, rapido::Seconds{paused ? 0 : seconds}));
}

void hud_points(float x, float y, int points) {
    screen->hud->pop_up("points", {.at = {x, y - 52}, .value = points});
}

void hud_say(const char* text) {
    screen->hud->notify("log", {.text = "{}", .value = rapido::constant(text)});
}

void hud_close() {
    screen.reset();
}
