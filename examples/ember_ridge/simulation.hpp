// Ember Ridge: the pilot of a water-bomber protects villages from a wildfire. Game logic only; it knows of no
// HUD.
#pragma once

#include <cstdint>
#include <random>
#include <string>
#include <vector>

namespace ember_ridge {

struct Mission {
    int acres_saved = 1240;
    int score = 0;
    int combo = 1;
    int drops = 0;
    int budget = 48'500;  // euros
    int repair_cost = 0;  // euros
    bool evacuating = false;
    bool paused = false;
    bool lost = false;  // a village, just now
    bool won = false;
};

struct Plane {
    float water = 3000;          // litres
    float tank = 3000;           // litres
    float fuel = 860;            // kilograms
    float fuel_capacity = 1200;  // kilograms
    float hull = 100;            // of 100
    float hull_max = 100;
    float engine_temperature = 71;  // degrees Celsius
    float altitude = 420;           // metres above the lake
    float speed = 81.6F;            // metres a second
    int crew = 4;
    int rescued = 0;     // villagers aboard
    float coating = 30;  // against heat, over the hull; it takes damage first
};

struct Pilot {
    std::string rank = "Skimmer";
    int experience = 3420;
    int next_rank = 4000;
};

struct World {
    double time_of_day = 11 * 3600 + 12 * 60;  // seconds since midnight; a second of play is half a minute there
    std::vector<std::string> villages{"Alder Creek", "Pine Hollow", "Stonebridge"};
    std::size_t in_danger = 0;  // index of the village in danger
};

/// One flight with a fixed script and a fixed seed: the same on every run.
class Game {
 public:
    Mission mission;
    Plane plane;
    Pilot pilot;
    World world;

    /// Moves the game by `dt` seconds of game time; `real_time` is what the script goes by.
    void step(double real_time, double dt);

 private:
    void fly(double dt);
    void drop_water(double dt);
    void follow_script(double real_time);
    void take_damage(float amount);
    void score_points(int points);
    void gain_experience(int points);
    bool passed(double moment, double real_time) const { return last_time_ < moment && real_time >= moment; }
    int random(int below) { return static_cast<int>(generator_() % static_cast<std::uint32_t>(below)); }

    std::mt19937 generator_{20260611};
    double last_time_ = -1;
    double flown_ = 0;
    double dropping_ = 0;   // seconds of the present drop that are left
    double refilling_ = 0;  // seconds of the present refill that are left
    double repairing_ = 0;
    float heat_ = 0;
    float acres_due_ = 0;
};

}  // namespace ember_ridge
