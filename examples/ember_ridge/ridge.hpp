// The playable game: a water-bomber over a valley with a lake, three villages and a wildfire. Game logic only; it knows of no HUD.
#pragma once

#include <cstdint>
#include <random>
#include <string>
#include <vector>

namespace ember_ridge {

/// What a player holds down.
struct Controls {
    bool left = false, right = false, up = false, down = false, drop = false;
};

/// Metres; x to the right along the valley, y up from the ground.
struct Place {
    double x = 0, y = 0;
};

struct Bomber {
    Place at{300, 120};
    double facing = 1;  ///< -1 to 1; between them it turns round
    bool flies_right = true;
    double climb = 0;  ///< metres a second
    float speed = 72;
    float water = 1500, tank = 3000;
    float fuel = 1000, fuel_capacity = 1200;
    float hull = 100, hull_max = 100, coating = 30;
    float engine_temperature = 72;
    float altitude = 120;
    int crew = 4, rescued = 0;
    bool scoops = false;
    double dropping = 0;  ///< seconds of the present drop that are left
    double shaken = 0;    ///< seconds since the last hit, for the view
    // What the pilot has done.
    int acres_saved = 0, score = 0, combo = 1;
    double since_fire = 99;  ///< seconds since the last one was put out
    std::string rank = "Skimmer";
    int experience = 3420, next_rank = 4000;
};

struct Blaze {
    int number = 0;
    Place at;
    float heat = 30;  ///< 0 to 100
    double spreads_in = 9;
};

struct Hamlet {
    std::string name;
    Place at;
    int people = 0;
    float danger = 0;  ///< 0 to 1
    bool is_lost = false, is_empty = false;
};

struct Splash {
    Place at;
    double across = 0, fall = 0;
    std::size_t player = 0;
};

/// Something that happened in the last step, for numbers that pop up.
struct Hit {
    Place at;
    float amount = 0;
    std::size_t player = 0;
};

class Ridge {
 public:
    explicit Ridge(std::size_t players = 1);

    static constexpr double length = 3600;  ///< of the valley
    static constexpr double lake_from = 1250, lake_to = 1750;
    static constexpr double field_from = 120, field_to = 430;  ///< where it is refuelled and mended

    std::vector<Bomber> bombers;
    std::vector<Blaze> blazes;
    std::vector<Hamlet> hamlets;
    std::vector<Splash> splashes;
    std::vector<Hit> hits;
    std::size_t in_danger = 0;  ///< the hamlet that is told of
    bool evacuating = false, was_lost = false, is_won = false;
    double evacuation_left = 0;
    int repair_cost = 0;
    double time_of_day = 11 * 3600 + 12 * 60;
    double played = 0;

    /// One step of the game's clock.
    void step(double seconds, const std::vector<Controls>& controls);
    /// The height of the ground.
    static double ground(double x);
    static bool is_lake(double x) { return x > lake_from && x < lake_to; }

 private:
    void fly(Bomber& bomber, const Controls& controls, double seconds);
    void meet_ground(Bomber& bomber, double seconds);
    void drop_water(Bomber& bomber, std::size_t player, const Controls& controls, double seconds);
    void fall(double seconds);
    void burn(double seconds);
    void watch_hamlets(double seconds);
    void put_out(Blaze& blaze, std::size_t player);
    double random() { return static_cast<double>(generator_() % 10'000U) / 10'000; }

    std::mt19937 generator_{20260611};
    int next_number_ = 1;
    double splash_debt_ = 0;
};

}  // namespace ember_ridge
