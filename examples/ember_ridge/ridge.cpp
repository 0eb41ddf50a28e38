#include "ridge.hpp"

#include <algorithm>
#include <cmath>

namespace ember_ridge {

Ridge::Ridge(std::size_t players) : bombers(players) {
    for (std::size_t i = 0; i < players; ++i)
        bombers[i].at = {260.0 + 110 * static_cast<double>(i), 110 + 30 * static_cast<double>(i)};
    hamlets = {{"Alder Creek", {900, 0}, 24}, {"Pine Hollow", {2150, 0}, 31}, {"Stonebridge", {3050, 0}, 18}};
    for (const double x : {620.0, 1080.0, 1950.0, 2420.0, 2560.0, 2800.0, 3320.0})
        blazes.push_back({next_number_++, {x, 0}, static_cast<float>(25 + 40 * random()), 6 + 8 * random()});
    for (Hamlet& hamlet : hamlets)
        hamlet.at.y = ground(hamlet.at.x);
    for (Blaze& blaze : blazes)
        blaze.at.y = ground(blaze.at.x);
}

double Ridge::ground(double x) {
    if (is_lake(x)) return 0;
    // Level at the lake and on the field.
    const double edge =
        std::min({std::abs(x - lake_from), std::abs(x - lake_to), std::max(0.0, x - field_to), 160.0}) / 160;
    if (x < field_to) return 2;
    return 2 + edge * (14 + 11 * std::sin(x / 170) + 7 * std::sin(x / 63 + 1.3));
}

void Ridge::step(double seconds, const std::vector<Controls>& controls) {
    hits.clear();
    was_lost = false;
    if (seconds <= 0) return;
    played += seconds;
    time_of_day += 30 * seconds;
    for (std::size_t i = 0; i < bombers.size(); ++i) {
        const Controls own = i < controls.size() ? controls[i] : Controls{};
        fly(bombers[i], own, seconds);
        drop_water(bombers[i], i, own, seconds);
    }
    fall(seconds);
    burn(seconds);
    watch_hamlets(seconds);
}

void Ridge::fly(Bomber& bomber, const Controls& controls, double seconds) {
    if (controls.left) bomber.flies_right = false;
    if (controls.right) bomber.flies_right = true;
    bomber.facing = std::clamp(bomber.facing + (bomber.flies_right ? 2.2 : -2.2) * seconds, -1.0, 1.0);
    const bool has_fuel = bomber.fuel > 0;
    const double wanted = (controls.up ? 34 : controls.down ? -38 : 0) - (has_fuel ? 0 : 12);
    bomber.climb += (wanted - bomber.climb) * std::min(1.0, 3 * seconds);
    const float cruise =
        (bomber.scoops ? 52.0F : 78.0F) - static_cast<float>(bomber.climb) * 0.35F - bomber.water / 400;
    bomber.speed += (cruise - bomber.speed) * static_cast<float>(std::min(1.0, 1.2 * seconds));
    bomber.at.x += bomber.speed * bomber.facing * seconds;
    bomber.at.y += bomber.climb * seconds;
    // The valley ends on both sides.
    if (bomber.at.x < 60) bomber.flies_right = true;
    if (bomber.at.x > length - 60) bomber.flies_right = false;
    bomber.at.x = std::clamp(bomber.at.x, 20.0, length - 20);
    if (bomber.at.y > 420) bomber.climb = std::min(bomber.climb, 0.0);
    bomber.at.y = std::min(bomber.at.y, 424.0);
    bomber.fuel = std::max(0.0F, bomber.fuel - static_cast<float>(2.6 * seconds));
    bomber.since_fire += seconds;
    bomber.shaken += seconds;
    if (bomber.since_fire > 8) bomber.combo = 1;
    float heat = 72;
    for (const Blaze& blaze : blazes) {
        const double away = std::hypot(blaze.at.x - bomber.at.x, (blaze.at.y - bomber.at.y) / 1.6);
        if (away < 70) heat = std::max(heat, 72 + blaze.heat * static_cast<float>(1 - away / 70) * 0.9F);
    }
    bomber.engine_temperature += (heat - bomber.engine_temperature) * static_cast<float>(std::min(1.0, 0.9 * seconds));
    if (bomber.engine_temperature > 105) bomber.hull = std::max(0.0F, bomber.hull - static_cast<float>(3 * seconds));
    meet_ground(bomber, seconds);
    bomber.altitude = static_cast<float>(bomber.at.y);
}

void Ridge::meet_ground(Bomber& bomber, double seconds) {
    const double height = bomber.at.y - ground(bomber.at.x);
    bomber.scoops = is_lake(bomber.at.x) && height < 10;
    if (bomber.scoops) bomber.water = std::min(bomber.tank, bomber.water + static_cast<float>(850 * seconds));
    const bool lands = bomber.at.x > field_from && bomber.at.x < field_to && height < 16;
    if (lands) {
        bomber.fuel = std::min(bomber.fuel_capacity, bomber.fuel + static_cast<float>(160 * seconds));
        if (bomber.hull < bomber.hull_max) {
            const float mended = std::min(bomber.hull_max - bomber.hull, static_cast<float>(20 * seconds));
            bomber.hull += mended;
            repair_cost += static_cast<int>(std::ceil(mended * 12));
        }
        bomber.coating = std::min(30.0F, bomber.coating + static_cast<float>(10 * seconds));
    }
    const double least = is_lake(bomber.at.x) || lands ? 3 : 7;
    if (height >= least) return;
    bomber.at.y = ground(bomber.at.x) + least;
    if (!is_lake(bomber.at.x) && !lands && bomber.shaken > 0.6) {
        // Into the trees.
        const float damage = 16;
        const float taken = std::min(bomber.coating, damage);
        bomber.coating -= taken;
        bomber.hull = std::max(0.0F, bomber.hull - (damage - taken));
        bomber.climb = 26;
        bomber.shaken = 0;
    }
    bomber.climb = std::max(bomber.climb, 0.0);
}

void Ridge::drop_water(Bomber& bomber, std::size_t player, const Controls& controls, double seconds) {
    if (controls.drop && bomber.dropping <= 0 && bomber.water >= 150 && !bomber.scoops) bomber.dropping = 0.55;
    if (bomber.dropping <= 0) return;
    bomber.dropping -= seconds;
    const float litres = std::min(bomber.water, static_cast<float>(1100 * seconds));
    bomber.water -= litres;
    splash_debt_ += litres / 12.0;
    for (; splash_debt_ >= 1; --splash_debt_)
        splashes.push_back({{bomber.at.x + 8 * (random() - 0.5), bomber.at.y - 3},
                            bomber.speed * bomber.facing * (0.75 + 0.2 * random()),
                            4 * random(),
                            player});
}

void Ridge::fall(double seconds) {
    for (Splash& splash : splashes) {
        splash.fall += 30 * seconds;
        splash.across *= 1 - 0.9 * seconds;
        splash.at.x += splash.across * seconds;
        splash.at.y -= splash.fall * seconds;
        if (splash.at.y > ground(splash.at.x)) continue;
        for (Blaze& blaze : blazes) {
            const double away = std::abs(blaze.at.x - splash.at.x);
            if (away > 32 || blaze.heat <= 0) continue;
            const float taken = std::min(blaze.heat, static_cast<float>(1.7 * (1 - away / 45)));
            blaze.heat -= taken;
            hits.push_back({blaze.at, taken, splash.player});
            if (blaze.heat <= 0) put_out(blaze, splash.player);
            break;
        }
        splash.at.y = -1;
    }
    std::erase_if(splashes, [](const Splash& splash) { return splash.at.y < 0; });
    std::erase_if(blazes, [](const Blaze& blaze) { return blaze.heat <= 0; });
}

void Ridge::put_out(Blaze& blaze, std::size_t player) {
    blaze.heat = 0;
    Bomber& bomber = bombers[player];
    if (bomber.since_fire < 8) bomber.combo = std::min(bomber.combo + 1, 9);
    bomber.since_fire = 0;
    bomber.acres_saved += 22 + static_cast<int>(20 * random());
    bomber.score += 150 * bomber.combo;
    bomber.experience += 40 * bomber.combo;
    if (bomber.experience < bomber.next_rank) return;
    bomber.rank = bomber.next_rank == 4000 ? "Wingmate" : "Tanker";
    bomber.next_rank = bomber.next_rank == 4000 ? 5200 : 7500;
}

void Ridge::burn(double seconds) {
    std::vector<Blaze> caught;
    for (Blaze& blaze : blazes) {
        blaze.heat = std::min(100.0F, blaze.heat + static_cast<float>(1.3 * seconds));
        if (blaze.heat < 70) continue;
        blaze.spreads_in -= seconds;
        if (blaze.spreads_in > 0) continue;
        blaze.spreads_in = 11 + 8 * random();
        const double x = blaze.at.x + (random() < 0.5 ? -1 : 1) * (60 + 50 * random());
        const auto is_near = [x](const Blaze& other) { return std::abs(other.at.x - x) < 35; };
        const bool is_wood = x > field_to + 60 && x < length - 40 && !is_lake(x);
        if (!is_wood || blazes.size() + caught.size() >= 26 || std::any_of(blazes.begin(), blazes.end(), is_near))
            continue;
        caught.push_back({next_number_++, {x, ground(x)}, 12, 9 + 8 * random()});
    }
    blazes.insert(blazes.end(), caught.begin(), caught.end());
    is_won = blazes.empty();
}

void Ridge::watch_hamlets(double seconds) {
    for (std::size_t i = 0; i < hamlets.size(); ++i) {
        Hamlet& hamlet = hamlets[i];
        if (hamlet.is_lost) continue;
        double heat = 0;
        for (const Blaze& blaze : blazes)
            heat += blaze.heat / 100 * std::max(0.0, 1 - std::abs(blaze.at.x - hamlet.at.x) / 190);
        hamlet.danger = static_cast<float>(std::clamp(hamlet.danger + (heat * 0.02 - 0.008) * seconds, 0.0, 1.0));
        if (hamlet.danger > 0.45F && !evacuating && !hamlet.is_empty) {
            evacuating = true;
            evacuation_left = 45;
            in_danger = i;
        }
        if (hamlet.danger >= 1) {
            hamlet.is_lost = was_lost = true;
            in_danger = i;
        }
    }
    if (!evacuating) return;
    evacuation_left -= seconds;
    if (evacuation_left > 0) return;
    evacuating = false;
    hamlets[in_danger].is_empty = true;
    bombers.front().rescued = std::min(4, bombers.front().rescued + 1);
    for (Bomber& bomber : bombers)
        bomber.score += 500;
}

}  // namespace ember_ridge
