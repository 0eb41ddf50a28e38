// The same thirty readouts as thirty lines of printf, with the standard headers that Rapido includes; the script adds them above.
#include <cstdio>

struct Plane {
    int acres = 0, score = 0, combo = 1, drops = 0, rank = 0, crew = 4, repair_cost = 0;
    float water = 0, tank = 3000, fuel = 0, fuel_capacity = 1200, hull = 100, speed = 0, altitude = 0, temperature = 70,
          heading = 0;
    double experience = 0, budget = 0;
    bool is_evacuating = false, is_paused = false;
    std::string village;
};

void write(const Plane& plane, double time_left, double frame_time) {
    std::printf("ACRES SAVED\n");
    std::printf("%d\n", plane.acres);
    std::printf("%d\n", plane.score);
    std::printf("x%d\n", plane.combo);
    std::printf("%d %s\n", plane.drops, plane.drops == 1 ? "drop" : "drops");
    if (plane.is_evacuating) std::printf("EVACUATE %s\n", plane.village.c_str());
    std::printf("%02d:%02d\n", static_cast<int>(time_left) / 60, static_cast<int>(time_left) % 60);
    std::printf("%.0f km/h\n", static_cast<double>(plane.speed) * 3.6);
    std::printf("%.2f\n", plane.budget);
    std::printf("repairs %d\n", plane.repair_cost);
    std::printf("%d\n", plane.rank);
    std::printf("water %.0f of %.0f\n", static_cast<double>(plane.water), static_cast<double>(plane.tank));
    std::printf("hull %.0f\n", static_cast<double>(plane.hull));
    std::printf("experience %.0f\n", plane.experience);
    std::printf("time left %.1f\n", time_left);
    std::printf("fuel %.0f of %.0f\n", static_cast<double>(plane.fuel), static_cast<double>(plane.fuel_capacity));
    std::printf("heat %.0f\n", static_cast<double>(plane.temperature));
    std::printf("tank %.0f\n", static_cast<double>(plane.water));
    std::printf("sea %.0f\n", static_cast<double>(plane.altitude));
    std::printf("crew %d\n", plane.crew);
    std::printf("charges %d\n", plane.drops);
    std::printf("altitude %.0f\n", static_cast<double>(plane.altitude));
    std::printf("heading %.0f\n", static_cast<double>(plane.heading));
    std::printf("engine %.0f\n", static_cast<double>(plane.temperature));
    std::printf("frame %.4f\n", frame_time);
    std::printf("speed %.0f\n", static_cast<double>(plane.speed));
    std::printf("rank %d\n", plane.rank);
    if (plane.is_paused) std::printf("paused\n");
    if (plane.hull < 20) std::printf("Hull critical\n");
    if (plane.fuel < 100) std::printf("Fuel is low\n");
}
