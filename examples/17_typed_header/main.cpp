// A HUD file and the game that it is for, held together by the compiler: a misspelt name, or a text for a number, does not compile. The file is
// read again when it is saved.
//
//     17_typed_header flight.toml
#include <rapido/file.hpp>
#include <rapido/rapido.hpp>

#include <cstdio>

#include "flight_values.hpp"

using namespace std::chrono_literals;

int main(int count, char** arguments) {
    if (count < 2) return std::puts("17_typed_header flight.toml"), 2;
    game::HudValues values;
    rapido::Sources sources;
    values.bind(sources);

    rapido::HudFile file(arguments[1]);
    rapido::Hud hud({}, sources);
    for (const rapido::Problem& problem : file.reload(hud))
        std::printf("%s\n", to_string(problem).c_str());

    values.mission.acres_saved = 1240;
    values.plane.water = 2200;
    values.plane.refilling = false;
    values.world.until_dusk = 90s;
    for (int frame = 0; frame < 3; ++frame) {
        if (file.has_changed())
            for (const rapido::Problem& problem : file.reload(hud))
                std::printf("%s\n", to_string(problem).c_str());
        if (frame == 1) values.world.village = "Alder Creek";
        if (frame == 2) values.plane.refilling = true;
        hud.update(1.0);
        values.world.until_dusk = *values.world.until_dusk - 1s;
        for (const rapido::ElementRef element : hud.elements())
            if (hud[element].visible) std::printf("  %s", std::string(hud.text_of(element)).c_str());
        std::printf("\n");
    }
}
