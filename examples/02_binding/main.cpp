// Every kind of source, and what becomes of an element when its source does. Prints what a HUD shows, frame by frame.
#include <rapido/rapido.hpp>

#include <cstdio>
#include <thread>

using namespace std::chrono_literals;

namespace {

enum class Gear : std::uint8_t { up, moving, down };
constexpr std::string_view name_of(Gear gear) {  // an enumeration is shown by its names
    return gear == Gear::up ? "up" : gear == Gear::moving ? "moving" : "down";
}

struct Village {
    std::string name;
    int houses = 0;
};
struct Weather {  // written by a simulation thread
    float wind = 0;
    float gusts = 0;
};

void print(const rapido::Hud& hud, const char* when) {
    std::printf("%s\n", when);
    for (const rapido::ElementRef element : hud.elements()) {
        const rapido::Shown shown = hud[element];
        if (shown.visible)
            std::printf("    %-10.*s %.*s\n", static_cast<int>(shown.id.size()), shown.id.data(),
                        static_cast<int>(shown.text.size()), shown.text.data());
    }
}

}  // namespace

int main() {
    // State of the game that outlives the HUD: watched where it is.
    int acres = 1;
    float speed = 82;
    Gear gear = Gear::moving;
    std::optional<int> repair_cost;
    std::vector<Village> villages{{"Alder Creek", 12}, {"Pine Hollow", 40}};
    std::size_t in_danger = 0;
    bool paused = false;
    rapido::Countdown evacuation{45s};
    // State that may die before: told of, owned together, or from another thread.
    auto fire_chief = std::make_shared<Village>(Village{"Stonebridge", 7});
    std::optional<rapido::Live<int>> enemy_health(std::in_place, 30);
    rapido::Shared<Weather> weather;
    std::thread([&] { weather.write({.wind = 11, .gusts = 19}); }).join();

    rapido::Hud hud;
    hud.add(rapido::Group{.id = "flight"});
    hud.add(rapido::Text{.id = "acres", .value = rapido::watch(acres), .format = "{} acres", .plural = {.one = "{} acre"}, .group = "flight"});
    hud.add(rapido::Text{.id = "speed", .value = rapido::watch(speed) * 3.6, .format = "{:.0f} km/h", .group = "flight"});
    hud.add(rapido::Text{.id = "gear", .value = rapido::watch(gear)});
    hud.add(rapido::Text{.id = "repair", .value = rapido::watch(repair_cost), .format = "€{:L}", .when_no_value = rapido::WhenNoValue::hide});
    hud.add(rapido::Text{.id = "danger", .value = rapido::watch(villages, in_danger, &Village::name)});
    hud.add(rapido::Text{.id = "double", .value = rapido::watch([&] { return acres * 2; }), .format = "twice: {}"});
    hud.add(rapido::Text{.id = "time", .value = watch(evacuation), .format = "{:%M:%S}", .drop_zero_parts = true});
    hud.add(rapido::Text{.id = "chief", .value = rapido::watch(fire_chief, &Village::name), .placeholder = "nobody"});
    hud.add(rapido::Text{.id = "enemy", .value = watch(*enemy_health), .max = 30, .format = "{}/{max}", .when_no_value = rapido::WhenNoValue::remove});
    hud.add(rapido::Text{.id = "wind", .value = watch(weather, &Weather::wind), .max = watch(weather, &Weather::gusts),
                 .format = "{:.0f}, gusts {max:.0f}"});
    hud.add(rapido::Text{.id = "pause", .format = "PAUSED", .visible = rapido::watch(paused)});
    for (const rapido::Problem& problem : hud.problems())
        std::printf("%s\n", to_string(problem).c_str());

    hud.update(0);
    print(hud, "first frame");

    acres = 2, gear = Gear::down, repair_cost = 1480, in_danger = 1, *enemy_health -= 12, paused = true;
    evacuation.start();
    evacuation.advance(2400ms);
    hud.update({.real = 16ms, .game = 16ms});
    print(hud, "after changes");

    fire_chief.reset(), enemy_health.reset(), repair_cost.reset(), in_danger = 7;
    hud.set_visible("flight", false);
    hud.update({.real = 16ms, .game = 16ms});
    print(hud, "after things are gone, and the group 'flight' is hidden");
    return hud.problems().empty() ? 0 : 1;
}
