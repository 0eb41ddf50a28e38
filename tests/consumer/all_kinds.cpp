// One of each aggregate with the fewest fields, as games write them: no warning of GCC's or Clang's -Wextra.
#include <rapido/debug.hpp>
#include <rapido/fwd.hpp>
#include <rapido/rapido.hpp>

using namespace std::chrono_literals;

int main() {
    int water = 1;
    const rapido::HudDefinition definition{.timers = {{.id = "t", .marks = {{15s}}}},
                                           .frame_meters = {{.id = "m"}},
                                           .effects = {{.id = "e", .keyframes = {{.at = 0.5}}, .dots = {.count = 3}}},
                                           .groups = {{.id = "g"}}};
    rapido::Hud hud(definition);
    hud.add(rapido::Panel{.id = "panel"});
    hud.add(rapido::Text{.id = "text",
                         .value = rapido::watch(water),
                         .plural = {.one = "{} acre"},
                         .range = {.high = 9},
                         .motion = {.both = rapido::tween(1s)},
                         .bands = {{.id = "b", .below = 3}},
                         .triggers = {{.effect = "swell"}},
                         .place = {.anchor = rapido::Anchor::top}});
    hud.add(rapido::Bar{.id = "bar", .pace = {.settle = 1s}, .trail = {.delay = 1s}, .parts = {{.value = 3}}});
    hud.add(rapido::Ring{.id = "ring"});
    hud.add(rapido::Level{.id = "level", .wave = {.height = 2}});
    hud.add(rapido::Pips{.id = "pips", .extra = {{.value = 2}}, .in_turn = {.effect = "shine"}});
    hud.add(rapido::Dial{.id = "dial", .zones = {{.from = 1}}, .ticks = {.every = 1}, .needle = {.tail = 0}});
    hud.add(rapido::Ruler{.id = "scale", .colors = {{.at = 1}}});
    hud.add(rapido::Graph{.id = "graph", .ticks = {.at = {{.at = 1}}}});
    hud.add(rapido::Image{.id = "image", .frames = {.count = 2}});
    const auto notice = hud.add(rapido::Notice{.id = "notice", .messages = {{.text = "low"}}, .reading = {.speed = 9}});
    hud.notify(notice, {.text = "full"});
    struct Fire {
        std::array<double, 3> at{};
        double heat = 1;
    };
    std::vector<Fire> fires(1);
    const rapido::Source entries =
        rapido::watch_entries(fires, rapido::entry_position(&Fire::at), rapido::entry_field("heat", &Fire::heat));
    const auto row = [](const auto& entry) {
        return rapido::nest(rapido::Panel{.plate = false}, rapido::Text{.id = "heat", .value = entry("heat")});
    };
    hud.add(rapido::list_of({.id = "list", .entries = entries, .sort = "heat", .at_most = 3}, row));
    hud.add(rapido::markers_of({.id = "markers", .entries = entries, .at_edge = rapido::AtEdge::arrow}, row));
    const auto pop_ups = hud.add(rapido::PopUps{.id = "pop_ups", .bands = {{.above = 3, .scale = 2}}});
    hud.set_camera(rapido::Camera::flat({.zoom = 2}));
    hud.pop_up(pop_ups, {.at = rapido::world_point(fires[0].at), .value = 3});
    rapido::show_probes(hud);
    RAPIDO_PROBE_IN_AS("fires", "{:.1f}", fires[0].heat);
    hud.resize({.size = {1280, 720}});
    hud.update({.real = 16ms});
    return hud.problems().empty() ? 0 : 1;
}
