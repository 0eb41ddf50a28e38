// The shortest whole program: a counter that rolls up, a bar, and a picture of them.
#include <rapido/picture.hpp>
#include <rapido/rapido.hpp>
#include <cstdio>
using namespace std::chrono_literals;

int main() {
    int acres_saved = 1200;
    float water = 640;

    rapido::Fonts fonts;
    rapido::Hud hud({.font = "Inter"}, {}, &fonts);
    hud.add(rapido::Text{.id = "acres", .value = rapido::watch(acres_saved), .format = "{} acres saved",
                         .motion = rapido::tween(600ms),
                         .place = {.anchor = rapido::Anchor::top_right, .offset = {32, 24}}, .size = 48});
    hud.add(rapido::Bar{.id = "water", .value = rapido::watch(water), .max = 1000,
                        .place = {.anchor = rapido::Anchor::bottom_left, .offset = {32, 24}, .size = {320, 16}}});

    for (int frame = 0; frame < 60; ++frame) {  // a second of the game
        if (frame == 40) acres_saved += 480;    // nothing else to call: the change is seen
        water -= 2;
        hud.update(1.0 / 60);
        for (const rapido::Problem& problem : hud.new_problems()) std::puts(to_string(problem).c_str());
    }
    rapido::DisplayList list;
    hud.draw(list);
    rapido::Picture picture(1280, 720, fonts);
    picture.fill(rapido::rgb(0x10161c));
    picture.draw(list);
    return picture.write_png("first_hud.png") ? 0 : 1;
}
