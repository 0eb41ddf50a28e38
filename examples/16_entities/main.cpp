// An entity store of plain arrays, and a marker over each of its fires. What an entity has moves within the arrays when others die: a marker
// follows the number of its entity, and never an address. The store frees an entity in the frame of its last hit; its bar drains all the same.
#include <rapido/picture.hpp>
#include <rapido/rapido.hpp>

#include <cstdio>
#include <vector>

using namespace std::chrono_literals;

struct Vec2 {
    float x = 0, y = 0;
};

/// One array for each thing that an entity has, without gaps: the last entity fills the place of one that dies.
class Store {
 public:
    std::vector<int> entities;  ///< their numbers, in the order of the other arrays
    std::vector<Vec2> positions;
    std::vector<float> heats;

    void spawn(int entity, Vec2 position, float heat) {
        if (rows_.size() <= static_cast<std::size_t>(entity)) rows_.resize(static_cast<std::size_t>(entity) + 1);
        rows_[static_cast<std::size_t>(entity)] = entities.size();
        entities.push_back(entity);
        positions.push_back(position);
        heats.push_back(heat);
    }
    void kill(int entity) {
        const std::size_t row = row_of(entity);
        rows_[static_cast<std::size_t>(entities.back())] = row;
        entities[row] = entities.back();
        positions[row] = positions.back();
        heats[row] = heats.back();
        entities.pop_back();
        positions.pop_back();
        heats.pop_back();
    }
    std::size_t row_of(int entity) const { return rows_[static_cast<std::size_t>(entity)]; }

 private:
    std::vector<std::size_t> rows_;  ///< by entity
};

int main() {
    Store store;
    for (int i = 0; i < 12; ++i)
        store.spawn(i, {static_cast<float>(80 + i % 4 * 160), static_cast<float>(110 + i / 4 * 110)},
                    static_cast<float>(30 + i * 37 % 60));

    // The entities are the entries; each of their fields is looked up when the HUD reads it.
    const rapido::Source fires = rapido::watch_entries(
        store.entities, rapido::entry_field("number", [](int entity) { return entity; }),
        rapido::entry_field("heat", [&](int entity) { return store.heats[store.row_of(entity)]; }),
        rapido::entry_position([&](int entity) { return store.positions[store.row_of(entity)]; }));

    rapido::Fonts fonts;
    rapido::Hud hud({.design = {640, 400}, .font = "Inter, sans-serif"}, {}, &fonts);
    hud.resize({.size = {640, 400}});
    hud.set_camera(rapido::Camera::flat({.center = {320, 200, 0}, .zoom = 1}));
    hud.add(rapido::markers_of(
        {.id = "fires", .entries = fires, .key = "number", .when_gone = {{"heat", 0}}}, [](const auto& fire) {
            return nest(rapido::Panel{.layout = rapido::Layout::column,
                                      .gap = 2,
                                      .align = rapido::Align::center,
                                      .plate = false,
                                      .leave = "fade"},
                        rapido::Text{.id = "heat", .value = fire("heat"), .format = "{:.0f} °C", .size = 15},
                        rapido::Bar{.id = "bar",
                                    .value = fire("heat"),
                                    .max = 100,
                                    .motion = rapido::tween(200ms),
                                    .trail = {.delay = 200ms},
                                    .place = {.size = {64, 8}},
                                    .color = rapido::rgb(0xff7a3c)});
        }));
    hud.add(rapido::Text{.id = "count",
                         .value = rapido::by_name("fires.count"),
                         .format = "{} fires",
                         .place = {.anchor = rapido::Anchor::top_right, .offset = {24, 20}}});

    for (int frame = 0; frame < 120; ++frame) {
        for (std::size_t row = store.entities.size(); row-- > 0;) {
            // Water falls on every third of them; the others drift with the wind.
            store.heats[row] -= store.entities[row] % 3 == 0 ? 0.8F : 0.1F;
            store.positions[row].x += 0.2F;
            if (store.heats[row] <= 0) store.kill(store.entities[row]);
        }
        hud.update(1 / 60.0);
        for (const rapido::Event& event : hud.events())
            if (event.kind == rapido::EventKind::empty && event.id.ends_with(".bar"))
                std::printf("%.2f s: fire %lld is out\n", rapido::to_seconds(event.time).count(),
                            static_cast<long long>(event.key.get().int64()));
    }
    rapido::DisplayList list;
    hud.draw(list);
    rapido::Picture picture(640, 400, fonts);
    picture.fill(rapido::rgb(0x2a3644));
    picture.draw(list);
    for (const rapido::Problem& problem : hud.problems())
        std::fprintf(stderr, "%s\n", to_string(problem).c_str());
    std::printf("%zu fires burn on\n", store.entities.size());
    return picture.write_png("entities.png") ? 0 : 1;
}
