// The HUD of the game. This file alone is compiled as C++20.
#include "hud.hpp"

#include <rapido/game_hud.hpp>
#include <rapido/gl.hpp>
#include <rapido/rapido.hpp>

#include <SDL.h>
#include <SDL_opengl.h>

#include "game.hpp"

namespace {

struct Screen {
    rapido::GameHud hud;
    rapido::GlDrawer drawer{SDL_GL_GetProcAddress, hud};
    explicit Screen(const rapido::Sources& sources) : hud(HUD_FILE, sources) {}
};
std::unique_ptr<Screen> screen;

}  // namespace

void hud_open() {
    const Game& game = Game::instance();
    rapido::Sources sources;
    sources.set("line", rapido::watch(game, &Game::meters_of_line));
    sources.set("left", rapido::watch([&] { return rapido::Seconds{game.seconds_left()}; }).as_time_left());
    sources.set("crews", rapido::watch_entries(game.crews(), rapido::entry_address("id"),
                                               rapido::entry_field("name", &Crew::name),
                                               rapido::entry_field("stamina", &Crew::stamina),
                                               rapido::entry_position([](const Crew& crew) {
                                                   return rapido::WorldPoint{crew.x(), 0, crew.z()};
                                               })));
    screen = std::make_unique<Screen>(sources);
}

void hud_frame(int width, int height) {
    const auto get = reinterpret_cast<void(APIENTRY*)(GLenum, GLfloat*)>(SDL_GL_GetProcAddress("glGetFloatv"));
    float projection[16], view[16];
    get(GL_PROJECTION_MATRIX, projection);
    get(GL_MODELVIEW_MATRIX, view);
    screen->hud->set_camera(rapido::Camera(projection, view));
    screen->drawer.frame(screen->hud, width, height, {rapido::Seconds{1 / 60.0}, rapido::Seconds{1 / 60.0}});
}

void hud_say(const char* text) {
    screen->hud->notify("log", {.text = "{}", .value = rapido::constant(text)});
}

void hud_close() {
    screen.reset();
}
