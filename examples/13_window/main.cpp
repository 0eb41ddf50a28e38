// A HUD in a window, without a game: click to drop water, hold the space bar to refill, escape to leave.
//
//     13_window [FRAMES]      so many frames, for a test
#include <rapido/rapido.hpp>
#include <rapido/window.hpp>

#include <cstdio>
#include <cstdlib>

using namespace rapido;
using namespace std::chrono_literals;

int main(int count, char** arguments) {
    const int frames = count > 1 ? std::atoi(arguments[1]) : 0;
    int drops = 0;
    double water = 3000;

    Fonts fonts;
    Hud hud({.font = "Inter, sans-serif"}, {}, &fonts);
    hud.add(Text{.id = "drops",
                 .value = watch(drops),
                 .format = "{} drops",
                 .plural = {.one = "{} drop"},
                 .triggers = {{.on = TriggerOn::gain, .effect = "swell"}},
                 .place = {.anchor = Anchor::top, .offset = {0, 40}},
                 .size = 56});
    hud.add(Bar{.id = "water",
                .value = watch(water),
                .max = 3000,
                .motion = tween(300ms),
                .trail = {.delay = 400ms},
                .bands = {{.below = 600, .color = rgb(0xffc24a), .effect = "pulse"}},
                .place = {.anchor = Anchor::bottom, .offset = {0, 48}, .size = {480, 24}},
                .radius = 12});

    HudWindow window(fonts, nullptr, {.title = "Ember Ridge", .width = 960, .height = 540});
    DisplayList list;
    for (int frame = 0; window.next_frame() && (frames == 0 || frame < frames); ++frame) {
        for (const WindowEvent& event : window.events()) {
            if (event.kind == WindowEvent::Kind::press && water >= 600) {
                water -= 600;
                ++drops;
            }
            if (event.key == "escape") window.close();
        }
        if (window.is_held("space")) water = std::min(water + 900 * window.elapsed().count(), 3000.0);
        hud.resize(window.viewport());
        hud.update(window.elapsed());
        hud.draw(list);
        window.clear(rgb(0x2a3644));
        window.draw(list);
    }
    if (!window.status()) {
        std::fprintf(stderr, "%s\n", to_string(window.status().problem()).c_str());
        return 1;
    }
    std::printf("%d drops\n", drops);
}
