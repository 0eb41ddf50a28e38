// A game with widgets of its own: Rapido says what they show, and each is set only when that is another thing than before.
#include <rapido/rapido.hpp>

#include <cstdio>
#include <string>

using namespace std::chrono_literals;

/// The game's own, whose changes are dear: each makes a text of pixels, perhaps in another process.
struct Label {
    std::string text;
    int times_set = 0;
    void set(std::string_view shown) {
        text = shown;
        ++times_set;
    }
};
struct Gauge {
    double fill = 0;
    int times_set = 0;
    void set(double shown) {
        fill = shown;
        ++times_set;
    }
};

int main() {
    int score = 0;
    double fuel = 1000;
    rapido::Countdown mission{90s};
    mission.start();

    rapido::Hud hud;  // without a measurer: nothing is laid out or drawn
    const rapido::ElementRef score_text = hud.add(rapido::Text{
        .id = "score", .value = rapido::watch(score), .format = "{:L} points", .motion = rapido::roll(400ms)});
    const rapido::ElementRef fuel_bar = hud.add(rapido::Bar{.id = "fuel",
                                                            .value = rapido::watch(fuel),
                                                            .max = 1000,
                                                            .pace = {.interval = 250ms},
                                                            .motion = rapido::tween(200ms)});
    hud.add_timer("mission", mission);
    const rapido::ElementRef clock =
        hud.add(rapido::Text{.id = "clock", .value = "mission.left", .format = "{:%M:%S}"});

    Label score_label, clock_label;
    Gauge fuel_gauge;
    constexpr int frames = 600;
    for (int frame = 0; frame < frames; ++frame) {  // ten seconds
        if (frame % 150 == 100) score += 250;
        fuel -= 0.4;
        mission.advance(1s / 60.0);
        hud.update(1 / 60.0);
        if (hud.text_changed(score_text)) score_label.set(hud.text_of(score_text));
        if (hud.text_changed(clock)) clock_label.set(hud.text_of(clock));
        if (hud[fuel_bar].changed) fuel_gauge.set(*hud.fill_of(fuel_bar));
        for (const rapido::Event& event : hud.events())
            std::printf("%s %s\n", std::string(to_string(event.kind)).c_str(), event.id.c_str());
    }
    std::printf("%s, set %d times in %d frames\n", score_label.text.c_str(), score_label.times_set, frames);
    std::printf("%s, set %d times\n", clock_label.text.c_str(), clock_label.times_set);
    std::printf("%.0f %% of the fuel, set %d times\n", fuel_gauge.fill * 100, fuel_gauge.times_set);
}
