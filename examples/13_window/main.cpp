// A HUD in a window, without a game: click to drop water, hold the space bar to refill, escape to leave.
//
//     13_window [FRAMES]      so many frames, for a test
#include <rapido/rapido.hpp>
#include <rapido/window.hpp>

#include <cstdio>
#include <cstdlib>

using namespace std::chrono_literals;

int main(int count, char** arguments) {
    const int frames = count > 1 ? std::atoi(arguments[1]) : 0;
    int drops = 0;
    double water = 3000;

    rapido::Fonts fonts;
    rapido::Hud hud({.font = "Inter, sans-serif"}, {}, &fonts);
    hud.add(rapido::Text{.id = "drops",
                         .value = rapido::watch(drops),
                         .format = "{} drops",
                         .plural = {.one = "{} drop"},
                         .triggers = {{.on = rapido::TriggerOn::gain, .effect = "swell"}},
                         .place = {.anchor = rapido::Anchor::top, .offset = {0, 40}},
                         .size = 56});
    hud.add(rapido::Bar{.id = "water",
                        .value = rapido::watch(water),
                        .max = 3000,
                        .motion = rapido::tween(300ms),
                        .trail = {.delay = 400ms},
                        .bands = {{.below = 600, .color = rapido::rgb(0xffc24a), .effect = "pulse"}},
                        .place = {.anchor = rapido::Anchor::bottom, .offset = {0, 48}, .size = {480, 24}},
                        .radius = 12});

    rapido::HudWindow window(fonts, nullptr, {.title = "Ember Ridge", .width = 960, .height = 540});
    rapido::DisplayList list;
    for (int frame = 0; window.next_frame() && (frames == 0 || frame < frames); ++frame) {
        for (const rapido::WindowEvent& event : window.events()) {
            if (event.kind == rapido::WindowEvent::Kind::press && water >= 600) {
                water -= 600;
                ++drops;
            }
            if (event.key == "escape") window.close();
        }
        if (window.is_held("space")) water = std::min(water + 900 * window.elapsed().count(), 3000.0);
        hud.resize(window.viewport());
        hud.update(window.elapsed());
        hud.draw(list);
        window.clear(rapido::rgb(0x2a3644));
        window.draw(list);
    }
    if (!window.status()) {
        std::fprintf(stderr, "%s\n", to_string(window.status().problem()).c_str());
        return 1;
    }
    std::printf("%d drops\n", drops);
}
