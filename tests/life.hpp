// A small game whose HUDs are compared in all that can be seen and heard of them.
#pragma once

#include <map>
#include <set>

#include "draw_words.hpp"
#include "support.hpp"

namespace rapido::test {

struct LifePilot {
    std::string name;
    int score;
    WorldPoint at;
};

struct LifeGame {
    double value = 60, other = 10;
    int count = 5;
    bool shown = true, group = true, dim = false, alert = false;
    std::optional<double> maybe = 7.0;
    std::string word = "calm";
    std::vector<LifePilot> pilots{{"Ana", 30, {1, 1, 0}}, {"Bo", 20, {2, 1, 0}}, {"Cy", 10, {3, 2, 0}}};
};

/// What a definition has beside the elements of a state.
inline HudDefinition around(LifeGame& game) {
    HudDefinition made;
    made.timers = {{.id = "t", .duration = 900ms, .loop = true, .marks = {{300ms, 100ms}}},
                   {.id = "once", .duration = 2s, .start_when = watch(game.alert)}};
    made.frame_meters = {{.id = "fps"}};
    made.effects = {
        {.id = "hop", .duration = 400ms, .keyframes = {{.at = 0.4, .offset = Point{3, -9}}}},
        {.id = "throb", .duration = 300ms, .repeat = 0, .keyframes = {{.at = 0.5, .scale = 1.3F}, {.at = 1}}},
        {.id = "arrive", .duration = 500ms, .keyframes = {{.at = 0, .opacity = 0.0F}}}};
    made.groups = {{.id = "g", .visible = watch(game.group), .dimmed = watch(game.dim), .dim = 0.5F},
                   {.id = "entering", .visible = watch(game.group), .enter = "arrive", .leave = "arrive"}};
    made.themes = {{.id = "day", .color = {{"main", rgb(0xffeedd)}}},
                   {.id = "night", .color = {{"main", rgb(0x112233)}}}};
    made.styles = {{.id = "loud", .color = Themed<Color>(theme("main")), .size = 30}};
    return made;
}

/// All that can be seen and heard of a HUD.
inline std::string seen(const Hud& hud, bool with_timers = true) {
    // Those of one moment come in any order.
    std::multiset<std::string> events;
    for (const Event& event : hud.events())
        if (with_timers || event.kind >= EventKind::empty)
            events.insert(std::to_string(event.time.count()) + " " + event.id + " " +
                          std::string(to_string(event.kind)) + " " + event.detail + "\n");
    std::string all;
    for (const std::string& event : events)
        all += event;
    std::map<std::string, std::string> of_elements;
    for (const ElementRef ref : hud.elements()) {
        const Shown now = hud[ref];
        if (!now.visible) {
            of_elements[std::string(now.id)] = "'" + std::string(now.text) + "' hidden";
            continue;
        }
        of_elements[std::string(now.id)] =
            "'" + std::string(now.text) + "' fill " + std::to_string(now.fill.value_or(-1)) + " trail " +
            std::to_string(now.trail.value_or(-1)) + " color " + to_string(now.color) + " opacity " +
            std::to_string(now.opacity) + " scale " + std::to_string(now.scale) + " y " + std::to_string(now.offset.y) +
            " at " + std::to_string(now.box.x) + " " + std::to_string(now.box.y) + " " + std::to_string(now.box.width);
    }
    for (const auto& [id, says] : of_elements)
        all += id + ": " + says + "\n";
    return all;
}

}  // namespace rapido::test
