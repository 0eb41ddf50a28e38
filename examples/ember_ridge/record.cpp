// Flies the sample flight and writes it as a trace: two and a half minutes at 60 frames a second, CSV on
// standard output. There is a pause from 50 s to 53 s, and a hitch of one second at 95 s.
#include <charconv>
#include <cmath>
#include <iostream>
#include <tuple>

#include "simulation.hpp"

namespace {

/// Rounded to so many places, then the shortest text that reads back the same.
std::string number(double value, int places) {
    const double scale = std::pow(10.0, places);
    char buffer[32];
    const double rounded = std::round(value * scale) / scale;
    const auto [end, error] = std::to_chars(buffer, buffer + sizeof buffer, rounded, std::chars_format::fixed);
    return {buffer, end};
}

void write_row(const ember_ridge::Game& game, double time, double game_time) {
    const auto& [mission, plane, pilot, world] = std::tie(game.mission, game.plane, game.pilot, game.world);
    std::cout << number(time, 6) << ',' << number(game_time, 6) << ',' << mission.acres_saved << ',' << mission.score
              << ',' << mission.combo << ',' << mission.drops << ',' << mission.budget << ',' << mission.repair_cost
              << ',' << (mission.evacuating ? "true" : "false") << ',' << (mission.paused ? "true" : "false") << ','
              << number(plane.water, 1) << ',' << number(plane.tank, 0) << ',' << number(plane.fuel, 2) << ','
              << number(plane.fuel_capacity, 0) << ',' << number(plane.hull, 2) << ',' << number(plane.hull_max, 0)
              << ',' << number(plane.engine_temperature, 2) << ',' << number(plane.altitude, 1) << ','
              << number(plane.speed, 2) << ',' << plane.crew << ',' << pilot.rank << ',' << pilot.experience << ','
              << pilot.next_rank << ',' << number(world.time_of_day, 1) << ',' << world.villages[world.in_danger] << ','
              << (mission.lost ? "true" : "false") << ',' << (mission.won ? "true" : "false") << ',' << plane.rescued
              << ',' << number(plane.coating, 1) << '\n';
}

}  // namespace

int main() {
    std::cout << "time,game_time,mission.acres_saved,mission.score,mission.combo,mission.drops,mission.budget,"
                 "mission.repair_cost,mission.evacuating,mission.paused,plane.water,plane.tank,plane.fuel,"
                 "plane.fuel_capacity,plane.hull,plane.hull_max,plane.engine_temperature,plane.altitude,plane."
                 "speed,"
                 "plane.crew,pilot.rank,pilot.experience,pilot.next_rank,world.time_of_day,world.village,"
                 "mission.lost,mission.won,plane.rescued,plane.coating\n";
    constexpr int rate = 60;
    ember_ridge::Game game;
    double last_time = 0;
    double game_time = 0;
    for (int frame = 0; frame <= 150 * rate; ++frame) {
        if (frame > 95 * rate && frame < 96 * rate) continue;  // the hitch
        const double time = static_cast<double>(frame) / rate;
        const double dt = game.mission.paused ? 0 : time - last_time;
        game_time += dt;
        last_time = time;
        game.step(time, dt);
        write_row(game, time, game_time);
    }
}
