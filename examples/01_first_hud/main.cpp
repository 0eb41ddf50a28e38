// The shortest whole program: a counter that rolls up, a bar, and a picture of them.
#include <rapido/picture.hpp>
#include <rapido/rapido.hpp>
#include <cstdio>
using namespace rapido;
using namespace std::chrono_literals;

int main() {
    int acres_saved = 1200;
    float water = 640;

    Fonts fonts;
    Hud hud({.font = "Inter"}, {}, &fonts);
    hud.add(Text{.id = "acres", .value = watch(acres_saved), .format = "{} acres saved", .motion = tween(600ms),
                 .place = {.anchor = Anchor::top_right, .offset = {32, 24}}, .size = 48});
    hud.add(Bar{.id = "water", .value = watch(water), .max = 1000,
                .place = {.anchor = Anchor::bottom_left, .offset = {32, 24}, .size = {320, 16}}});

    for (int frame = 0; frame < 60; ++frame) {  // a second of the game
        if (frame == 40) acres_saved += 480;    // nothing else to call: the change is seen
        water -= 2;
        hud.update(1.0 / 60);
        for (const Problem& problem : hud.new_problems()) std::puts(to_string(problem).c_str());
    }
    DisplayList list;
    hud.draw(list);
    Picture picture(1280, 720, fonts);
    picture.fill(rgb(0x10161c));
    picture.draw(list);
    return picture.write_png("first_hud.png") ? 0 : 1;
}
