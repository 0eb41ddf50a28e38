#include "cockpit.hpp"

#include <rapido/debug.hpp>

#include <cmath>

namespace ember_ridge {

using namespace rapido;

Cockpit::Cockpit(const HudDefinition& instruments, const HudDefinition& over, const Ridge& ridge,
                 const Settings& settings, std::size_t player, Fonts& fonts, Images& images, FlashLimit& limit)
    : ridge_(ridge),
      settings_(settings),
      player_(player),
      instruments_(instruments, sources(), &fonts, &images),
      over_(over, sources(), &fonts, &images),
      hits_(over_.find("hits")) {
    set_up(instruments_, limit);
    set_up(over_, limit);
    if (player == 0) rapido::show_probes(over_, watch(settings_.probes));
}

Problems Cockpit::reload(const HudDefinition& instruments, const HudDefinition& over) {
    Problems found = instruments_.reload(instruments);
    const Problems others = over_.reload(over);
    found.insert(found.end(), others.begin(), others.end());
    hits_ = over_.find("hits");
    return found;
}

void Cockpit::set_up(Hud& hud, FlashLimit& limit) {
    hud.set_flash_limit(limit);
}

/// All that HUD files may name.
Sources Cockpit::sources() {
    const Bomber& own = ridge_.bombers[player_];
    Sources plane;
    plane.set("water", watch(own.water));
    plane.set("tank", watch(own.tank));
    plane.set("fuel", watch(own.fuel));
    plane.set("fuel_capacity", watch(own.fuel_capacity));
    plane.set("hull", watch(own.hull));
    plane.set("hull_max", watch(own.hull_max));
    plane.set("coating", watch(own.coating));
    plane.set("engine_temperature", watch(own.engine_temperature));
    plane.set("altitude", watch(own.altitude));
    plane.set("speed", watch(own.speed));
    plane.set("crew", watch(own.crew));
    plane.set("rescued", watch(own.rescued));
    Sources mission;
    mission.set("acres_saved", watch(own.acres_saved));
    mission.set("score", watch(own.score));
    mission.set("combo", watch(own.combo));
    mission.set("evacuating", watch(ridge_.evacuating));
    mission.set("repair_cost", watch(ridge_.repair_cost));
    mission.set("lost", watch(ridge_.was_lost));
    mission.set("won", watch(ridge_.is_won));
    Sources all;
    all.set("plane", plane);
    all.set("mission", mission);
    all.set("pilot.rank", watch(own.rank));
    all.set("pilot.experience", watch(own.experience));
    all.set("pilot.next_rank", watch(own.next_rank));
    all.set("world.time_of_day", watch(ridge_.time_of_day));
    all.set("world.village", watch([this] { return std::string_view(ridge_.hamlets[ridge_.in_danger].name); }));
    const auto place = entry_position([](const auto& thing) { return WorldPoint{thing.at.x, thing.at.y, 0}; });
    all.set("fires", watch_entries(ridge_.blazes, place, entry_field("number", &Blaze::number),
                                   entry_field("heat", &Blaze::heat)));
    all.set(
        "villages",
        watch_entries(ridge_.hamlets, place, entry_field("name", &Hamlet::name), entry_field("people", &Hamlet::people),
                      entry_field("danger", &Hamlet::danger), entry_field("lost", &Hamlet::is_lost),
                      entry_field("away", [&own](const Hamlet& hamlet) { return std::abs(hamlet.at.x - own.at.x); })));
    all.set("game.paused", watch(settings_.paused));
    all.set("game.slow", watch(settings_.slow));
    all.set("game.new", watch(settings_.is_new));
    all.set("menu.reduced", watch([this] { return std::string_view(settings_.reduced ? "on" : "off"); }));
    all.set("menu.scale", watch(settings_.scale));
    all.set("menu.texts", watch(settings_.texts));
    all.set("menu.players", watch(settings_.players));
    for (int row = 0; row < 4; ++row)
        all.set("menu.chosen_" + std::to_string(row), watch([this, row] { return settings_.chosen == row; }));
    return all;
}

void Cockpit::update(double real, double game) {
    view.follow(ridge_.bombers[player_], game);
    const Size size{static_cast<float>(view.area.w), static_cast<float>(view.area.h)};
    const double fitted = std::min(view.area.w / 1280.0, view.area.h / 800.0);
    // In half of a window there is more room than its width says.
    const double wanted = settings_.scale / 100 * (view.area.w < view.area.h ? 1.35 : 1);
    const double design = fitted * wanted;
    for (Hud* const hud : {&instruments_, &over_}) {
        // What stands over the valley keeps clear of the instruments.
        const float instruments = hud == &over_ ? static_cast<float>(300 * design) : 0;
        hud->resize({.size = size,
                     .origin = {static_cast<float>(view.area.x), static_cast<float>(view.area.y)},
                     .safe_area = Insets::at_bottom(instruments)});
        hud->set_ui_scale(static_cast<float>(wanted));
        hud->set_text_scale(static_cast<float>(settings_.texts / 100));
        hud->set_reduced_motion(settings_.reduced);
    }
    over_.set_camera(
        Camera::flat({.center = {view.middle.x, view.middle.y, 0}, .zoom = view.zoom / design, .y_up = true}));
    for (const Hit& hit : ridge_.hits)
        if (hit.player == player_) over_.pop_up(hits_, {.at = {hit.at.x, hit.at.y + 14, 0}, .value = hit.amount});
    if (player_ == 0) {
        const Bomber& own = ridge_.bombers[0];
        RAPIDO_PROBE_IN_AS("bomber", "{:.1f} m/s", own.climb);
        RAPIDO_PROBE_IN_AS("bomber", "{:.0f} m", own.at.x);
        RAPIDO_PROBE_IN("ridge", ridge_.blazes.size());
        RAPIDO_PROBE_IN("ridge", ridge_.splashes.size());
    }
    instruments_.update(step(real, game));
    over_.update(step(real, game));
}

void Cockpit::leave(SdlDrawer& drawer) const {
    for (const DisplayList* const list : {&over_list_, &instrument_list_, &overlay_list_})
        drawer.forget(*list);
}

Status Cockpit::draw(SdlDrawer& drawer, Point mouse) {
    instruments_.draw(instrument_list_);
    over_.draw(over_list_);
    for (const DisplayList* const list : {&over_list_, &instrument_list_})
        if (Status drawn = drawer.draw(*list); !drawn) return drawn;
    if (!settings_.overlay) return {};
    rapido::draw_overlay(instruments_, overlay_list_, mouse);
    return drawer.draw(overlay_list_);
}

}  // namespace ember_ridge
