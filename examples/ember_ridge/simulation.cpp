#include "simulation.hpp"

#include <algorithm>
#include <cmath>

namespace ember_ridge {

void Game::step(double real_time, double dt) {
    follow_script(real_time);
    if (dt > 0) {
        fly(dt);
        drop_water(dt);
    }
    last_time_ = real_time;
}

void Game::follow_script(double real_time) {
    for (const double moment : {11.0, 14.0, 17.0, 57.0, 60.0, 99.0, 103.0, 107.0, 124.0})
        if (passed(moment, real_time) && plane.water >= 700) {
            dropping_ = 1.5;
            ++mission.drops;
        }
    for (const double moment : {23.0, 68.0, 112.0})
        if (passed(moment, real_time)) refilling_ = 6;

    // A burst of pick-ups: forty in a second.
    for (int i = 0; i < 40; ++i)
        if (passed(38.0 + i / 40.0, real_time)) score_points(10);

    if (passed(46, real_time)) take_damage(88);
    if (passed(46.4, real_time)) plane.crew = 3;
    mission.paused = real_time >= 50 && real_time < 53;
    if (passed(76, real_time)) {
        repairing_ = 4;
        mission.repair_cost = 1480;
    }
    if (passed(80.5, real_time)) {
        mission.budget -= mission.repair_cost;
        mission.repair_cost = 0;
        plane.crew = 4;
        plane.coating = 30;
    }

    mission.lost = real_time >= 83 && real_time < 87.5;
    mission.won = real_time >= 142;
    if (passed(88, real_time)) world.in_danger = 1;
    if (passed(88, real_time)) mission.evacuating = true;
    for (const double moment : {98.0, 106.0})
        if (passed(moment, real_time)) ++plane.rescued;
    if (passed(118, real_time)) take_damage(129.6F);  // a near miss, survived by a hair
    if (passed(126, real_time)) repairing_ = 8;
    if (passed(140, real_time)) {
        mission.evacuating = false;
        plane.rescued = 0;
        mission.budget += 5000;
        gain_experience(400);
        world.in_danger = 2;
    }
}

void Game::fly(double dt) {
    flown_ += dt;
    const auto step = static_cast<float>(dt);
    plane.altitude = static_cast<float>(420 + 160 * std::sin(flown_ / 11) + 24 * std::sin(flown_ / 2.3));
    plane.speed = static_cast<float>(74 + 9 * std::sin(flown_ / 7 + 1));
    plane.fuel = std::max(0.0F, plane.fuel - 2.4F * step);
    if (refilling_ > 0) {
        refilling_ -= dt;
        plane.water = std::min(plane.tank, plane.water + 420 * step);
        plane.altitude = 6;
    }
    if (repairing_ > 0) {
        repairing_ -= dt;
        plane.hull = std::min(plane.hull_max, plane.hull + 26 * step);
        plane.fuel = std::min(plane.fuel_capacity, plane.fuel + 40 * step);
    }
    heat_ = std::max(0.0F, heat_ - 1.1F * step);
    plane.engine_temperature = static_cast<float>(71 + 4 * std::sin(flown_ / 5)) + heat_;
    world.time_of_day += dt * 30;
}

void Game::drop_water(double dt) {
    if (dropping_ > 0) {
        dropping_ -= dt;
        const float released = std::min(plane.water, 560 * static_cast<float>(dt));
        plane.water -= released;
        acres_due_ += released * 0.06F;
        if (dropping_ <= 0) {
            mission.combo = std::min(mission.combo + 1, 8);
            score_points(120 + random(80));
            gain_experience(40);
        }
    }
    // What was soaked is counted as the fire dies: some acres at a time.
    if (acres_due_ >= 1 && random(4) == 0) {
        const int saved = std::min(static_cast<int>(acres_due_), 1 + random(3));
        acres_due_ -= static_cast<float>(saved);
        mission.acres_saved += saved;
        score_points(saved);
    }
}

void Game::take_damage(float amount) {
    const float absorbed = std::min(plane.coating, amount);
    plane.coating -= absorbed;
    plane.hull = std::max(0.0F, plane.hull - (amount - absorbed));
    heat_ = 34;
    mission.combo = 1;
}

void Game::score_points(int points) {
    mission.score += points * mission.combo;
}

void Game::gain_experience(int points) {
    pilot.experience += points;
    if (pilot.experience < pilot.next_rank) return;
    pilot.rank = "Wingmate";
    pilot.experience -= pilot.next_rank;
    pilot.next_rank = 6000;
}

}  // namespace ember_ridge
