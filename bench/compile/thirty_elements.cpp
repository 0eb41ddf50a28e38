// A file of a game that declares thirty readouts of ten kinds: see scripts/compile_time.
#include <rapido/rapido.hpp>

#include <chrono>
#include <string>
#include <vector>

using namespace std::chrono_literals;

struct Pilot {
    std::string name;
    int score = 0;
};
struct Plane {
    int acres = 0, score = 0, combo = 1, drops = 0, rank = 0, crew = 4, repair_cost = 0;
    float water = 0, tank = 3000, fuel = 0, fuel_capacity = 1200, hull = 100, speed = 0, altitude = 0, temperature = 70,
          heading = 0;
    double experience = 0, budget = 0;
    bool is_evacuating = false, is_paused = false;
    std::string village;
    std::vector<Pilot> pilots;
};

void build(rapido::Hud& hud, Plane& plane) {
    using rapido::watch;
    const rapido::Color amber = rapido::rgb(0xffc24a), ember = rapido::rgb(0xff7a3c);
    hud.add(rapido::Timer{.id = "evacuation", .duration = 45s, .marks = {{.at = 15s}, {.at = 5s, .every = 1s}}});
    hud.add(
        rapido::Panel{.id = "saved", .place = {.anchor = rapido::Anchor::top_left}, .layout = rapido::Layout::column});
    hud.add(rapido::Text{.id = "caption", .format = "ACRES SAVED", .inside = "saved", .size = 13});
    hud.add(rapido::Text{.id = "acres",
                         .value = watch(plane.acres),
                         .format = "{:L}",
                         .motion = rapido::roll(900ms),
                         .inside = "saved",
                         .size = 44});
    hud.add(rapido::Text{.id = "score",
                         .value = watch(plane.score),
                         .format = "{:L}",
                         .motion = rapido::roll(800ms),
                         .text_interval = 50ms,
                         .place = {.anchor = rapido::Anchor::top_right}});
    hud.add(
        rapido::Text{.id = "combo", .value = watch(plane.combo), .format = "x{}", .triggers = {{.effect = "swell"}}});
    hud.add(
        rapido::Text{.id = "drops", .value = watch(plane.drops), .format = "{} drops", .plural = {.one = "{} drop"}});
    hud.add(rapido::Text{.id = "village",
                         .value = watch(plane.village),
                         .format = "EVACUATE {}",
                         .visible = watch(plane.is_evacuating)});
    hud.add(rapido::Text{.id = "countdown",
                         .value = "evacuation.left",
                         .format = "{:%M:%S}",
                         .bands = {{.below = 15, .color = amber}, {.below = 5, .color = ember}}});
    hud.add(rapido::Text{.id = "speed",
                         .value = watch([&plane] { return plane.speed * 3.6F; }),
                         .format = "{:.0f} km/h",
                         .range = {0, 999},
                         .pace = {.interval = 250ms}});
    hud.add(
        rapido::Text{.id = "budget", .value = watch(plane.budget), .format = "{:.2f}", .motion = rapido::tween(300ms)});
    hud.add(rapido::Text{.id = "repairs",
                         .value = watch(plane.repair_cost),
                         .format = "repairs {:L}",
                         .outline = rapido::Outline{.width = 2}});
    hud.add(rapido::Text{.id = "rank", .value = watch(plane.rank), .weight = 600, .shadow = rapido::Shadow{}});
    hud.add(rapido::Bar{.id = "water",
                        .value = watch(plane.water),
                        .max = watch(plane.tank),
                        .trail = {.delay = 400ms},
                        .bands = {{.below = 0.25, .color = amber, .effect = "pulse"}}});
    hud.add(rapido::Bar{.id = "hull",
                        .value = watch(plane.hull),
                        .max = 100,
                        .trail = {.delay = 500ms, .duration = 600ms},
                        .triggers = {{.on = rapido::TriggerOn::loss, .effect = "shake"}}});
    hud.add(rapido::Bar{.id = "experience",
                        .value = watch(plane.experience),
                        .max = 4000,
                        .motion = rapido::tween(600ms),
                        .segments = 4});
    hud.add(rapido::Bar{.id = "time_left", .value = "evacuation.left", .max = "evacuation.duration"});
    hud.add(rapido::Ring{.id = "fuel",
                         .value = watch(plane.fuel),
                         .max = watch(plane.fuel_capacity),
                         .bands = {{.below = 0.25, .color = amber}},
                         .thickness = 10});
    hud.add(rapido::Ring{.id = "heat", .value = watch(plane.temperature), .max = 120});
    hud.add(rapido::Level{
        .id = "tank", .value = watch(plane.water), .max = watch(plane.tank), .wave = rapido::Wave{.height = 2}});
    hud.add(rapido::Level{.id = "sea", .value = watch(plane.altitude), .max = 800});
    hud.add(rapido::Pips{.id = "crew", .value = watch(plane.crew), .max = 4, .gain = "swell"});
    hud.add(rapido::Pips{.id = "charges", .value = watch(plane.drops), .max = 8});
    hud.add(rapido::Dial{.id = "altimeter",
                         .value = watch(plane.altitude),
                         .max = 800,
                         .motion = rapido::spring(800ms),
                         .ticks = {.every = 100, .long_every = 200}});
    hud.add(rapido::Dial{.id = "compass", .value = watch(plane.heading), .max = 360});
    hud.add(rapido::Ruler{.id = "engine",
                          .value = watch(plane.temperature),
                          .min = 40,
                          .max = 120,
                          .colors = {{.at = 40, .color = amber}, {.at = 105, .color = ember}}});
    hud.add(rapido::Graph{.id = "frame_times", .value = "frames.frame_time", .max = 0.05, .span = 6s});
    hud.add(rapido::Graph{.id = "speeds", .value = watch(plane.speed), .max = 110});
    hud.add(rapido::Image{.id = "badge",
                          .image = "rank_1.png",
                          .value = watch(plane.rank),
                          .bands = {{.above = 2, .image = "rank_2.png"}}});
    hud.add(rapido::Image{.id = "cross", .image = "cross.png", .visible = watch(plane.is_paused)});
    hud.add(
        rapido::Notice{.id = "news",
                       .messages = {{.text = "Hull critical", .on = rapido::TriggerOn::band_enter, .element = "hull"},
                                    {.text = "Fuel is low", .when = watch(plane.is_evacuating)}}});
}
