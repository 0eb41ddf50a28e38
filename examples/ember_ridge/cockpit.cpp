#include "cockpit.hpp"

#include <rapido/debug.hpp>

#include <cmath>

namespace ember_ridge {

Cockpit::Cockpit(const rapido::HudDefinition& instruments, const rapido::HudDefinition& over, const Ridge& ridge,
                 const Settings& settings, std::size_t player, rapido::Fonts& fonts, rapido::Images& images,
                 rapido::FlashLimit& limit)
    : ridge_(ridge),
      settings_(settings),
      player_(player),
      instruments_(instruments, sources(), &fonts, &images),
      over_(over, sources(), &fonts, &images),
      hits_(over_.find("hits")) {
    set_up(instruments_, limit);
    set_up(over_, limit);
    if (player == 0) rapido::show_probes(over_, rapido::watch(settings_.probes));
}

rapido::Problems Cockpit::reload(const rapido::HudDefinition& instruments, const rapido::HudDefinition& over) {
    rapido::Problems found = instruments_.reload(instruments);
    const rapido::Problems others = over_.reload(over);
    found.insert(found.end(), others.begin(), others.end());
    hits_ = over_.find("hits");
    return found;
}

void Cockpit::set_up(rapido::Hud& hud, rapido::FlashLimit& limit) {
    hud.set_flash_limit(limit);
}

/// All that HUD files may name.
rapido::Sources Cockpit::sources() {
    const Bomber& own = ridge_.bombers[player_];
    rapido::Sources plane;
    plane.set("water", rapido::watch(own.water));
    plane.set("tank", rapido::watch(own.tank));
    plane.set("fuel", rapido::watch(own.fuel));
    plane.set("fuel_capacity", rapido::watch(own.fuel_capacity));
    plane.set("hull", rapido::watch(own.hull));
    plane.set("hull_max", rapido::watch(own.hull_max));
    plane.set("coating", rapido::watch(own.coating));
    plane.set("engine_temperature", rapido::watch(own.engine_temperature));
    plane.set("altitude", rapido::watch(own.altitude));
    plane.set("speed", rapido::watch(own.speed));
    plane.set("crew", rapido::watch(own.crew));
    plane.set("rescued", rapido::watch(own.rescued));
    rapido::Sources mission;
    mission.set("acres_saved", rapido::watch(own.acres_saved));
    mission.set("score", rapido::watch(own.score));
    mission.set("combo", rapido::watch(own.combo));
    mission.set("evacuating", rapido::watch(ridge_.evacuating));
    mission.set("repair_cost", rapido::watch(ridge_.repair_cost));
    mission.set("lost", rapido::watch(ridge_.was_lost));
    mission.set("won", rapido::watch(ridge_.is_won));
    rapido::Sources all;
    all.set("plane", plane);
    all.set("mission", mission);
    all.set("pilot.rank", rapido::watch(own.rank));
    all.set("pilot.experience", rapido::watch(own.experience));
    all.set("pilot.next_rank", rapido::watch(own.next_rank));
    all.set("world.time_of_day", rapido::watch(ridge_.time_of_day));
    all.set("world.village", rapido::watch([this] { return std::string_view(ridge_.hamlets[ridge_.in_danger].name); }));
    const auto place = rapido::entry_position([](const auto& thing) {
        return rapido::WorldPoint{thing.at.x, thing.at.y, 0};
    });
    all.set("fires", rapido::watch_entries(ridge_.blazes, place, rapido::entry_field("number", &Blaze::number),
                                           rapido::entry_field("heat", &Blaze::heat)));
    all.set("villages", rapido::watch_entries(ridge_.hamlets, place, rapido::entry_field("name", &Hamlet::name),
                                              rapido::entry_field("people", &Hamlet::people),
                                              rapido::entry_field("danger", &Hamlet::danger),
                                              rapido::entry_field("lost", &Hamlet::is_lost),
                                              rapido::entry_field("away", [&own](const Hamlet& hamlet) {
                                                  return std::abs(hamlet.at.x - own.at.x);
                                              })));
    all.set("game.paused", rapido::watch(settings_.paused));
    all.set("game.slow", rapido::watch(settings_.slow));
    all.set("game.new", rapido::watch(settings_.is_new));
    all.set("menu.reduced", rapido::watch([this] { return std::string_view(settings_.reduced ? "on" : "off"); }));
    all.set("menu.scale", rapido::watch(settings_.scale));
    all.set("menu.texts", rapido::watch(settings_.texts));
    all.set("menu.players", rapido::watch(settings_.players));
    for (int row = 0; row < 4; ++row)
        all.set("menu.chosen_" + std::to_string(row), rapido::watch([this, row] { return settings_.chosen == row; }));
    return all;
}

void Cockpit::update(double real, double game) {
    view.follow(ridge_.bombers[player_], game);
    const rapido::Size size{static_cast<float>(view.area.w), static_cast<float>(view.area.h)};
    const double fitted = std::min(view.area.w / 1280.0, view.area.h / 800.0);
    // In half of a window there is more room than its width says.
    const double wanted = settings_.scale / 100 * (view.area.w < view.area.h ? 1.35 : 1);
    const double design = fitted * wanted;
    for (rapido::Hud* const hud : {&instruments_, &over_}) {
        // What stands over the valley keeps clear of the instruments.
        const float instruments = hud == &over_ ? static_cast<float>(300 * design) : 0;
        hud->resize({.size = size,
                     .origin = {static_cast<float>(view.area.x), static_cast<float>(view.area.y)},
                     .safe_area = rapido::Insets::at_bottom(instruments)});
        hud->set_ui_scale(static_cast<float>(wanted));
        hud->set_text_scale(static_cast<float>(settings_.texts / 100));
        hud->set_reduced_motion(settings_.reduced);
    }
    over_.set_camera(
        rapido::Camera::flat({.center = {view.middle.x, view.middle.y, 0}, .zoom = view.zoom / design, .y_up = true}));
    for (const Hit& hit : ridge_.hits)
        if (hit.player == player_) over_.pop_up(hits_, {.at = {hit.at.x, hit.at.y + 14, 0}, .value = hit.amount});
    if (player_ == 0) {
        const Bomber& own = ridge_.bombers[0];
        RAPIDO_PROBE_IN_AS("bomber", "{:.1f} m/s", own.climb);
        RAPIDO_PROBE_IN_AS("bomber", "{:.0f} m", own.at.x);
        RAPIDO_PROBE_IN("ridge", ridge_.blazes.size());
        RAPIDO_PROBE_IN("ridge", ridge_.splashes.size());
    }
    instruments_.update(rapido::step(real, game));
    over_.update(rapido::step(real, game));
}

void Cockpit::leave(rapido::SdlDrawer& drawer) const {
    for (const rapido::DisplayList* const list : {&over_list_, &instrument_list_, &overlay_list_})
        drawer.forget(*list);
}

rapido::Status Cockpit::draw(rapido::SdlDrawer& drawer, rapido::Point mouse) {
    instruments_.draw(instrument_list_);
    over_.draw(over_list_);
    for (const rapido::DisplayList* const list : {&over_list_, &instrument_list_})
        if (rapido::Status drawn = drawer.draw(*list); !drawn) return drawn;
    if (!settings_.overlay) return {};
    rapido::draw_overlay(instruments_, overlay_list_, mouse);
    return drawer.draw(overlay_list_);
}

}  // namespace ember_ridge
