// One definition, two players: each has a HUD with their own values in their own half of the window. Names stand beside
// numbers in rows that nobody measured by hand.
//
//     03_split_screen [BACKGROUND.png]      writes split_screen.png
#include <rapido/picture.hpp>
#include <rapido/rapido.hpp>
using namespace std::chrono_literals;

namespace {

struct Pilot {
    std::string name;
    int acres_saved;
    double water;
    double hull;
};

/// A component: a caption and a number in a row, and a bar as wide as both.
std::vector<rapido::Element> gauge(const std::string& id, const std::string& caption, const rapido::Color color) {
    return nest(rapido::Panel{.id = id,
                              .layout = rapido::Layout::column,
                              .gap = 4,
                              .align = rapido::Align::stretch,
                              .plate = false,
                              .inside = "plane"},
                nest(rapido::Panel{.id = "head",
                                   .layout = rapido::Layout::row,
                                   .gap = 24,
                                   .align = rapido::Align::baseline,
                                   .justify = rapido::Justify::space_between,
                                   .plate = false},
                     rapido::Text{.id = "caption", .format = caption, .color = color, .weight = 600, .size = 15},
                     rapido::Text{.id = "amount",
                                  .value = rapido::by_name(id),
                                  .max = rapido::by_name(id + "_max"),
                                  .format = "{percent}%",
                                  .weight = 600,
                                  .size = 17}),
                rapido::Bar{.id = "bar",
                            .value = rapido::by_name(id),
                            .max = rapido::by_name(id + "_max"),
                            .place = {.size = {220, 14}},
                            .color = color});
}

rapido::HudDefinition make_definition() {
    rapido::HudDefinition hud{.design = {640, 800}, .margin = {24, 24, 24, 24}, .font = "Inter"};
    hud.elements.push_back(rapido::Panel{.id = "saved", .layout = rapido::Layout::column});
    hud.elements.push_back(
        rapido::Text{.id = "name", .value = "name", .inside = "saved", .color = rapido::rgb(0x8fce5a), .size = 15});
    hud.elements.push_back(rapido::Text{
        .id = "acres", .value = "acres", .format = "{:L} acres", .inside = "saved", .weight = 700, .size = 34});
    hud.elements.push_back(rapido::Panel{.id = "plane",
                                         .place = {.anchor = rapido::Anchor::bottom_left},
                                         .layout = rapido::Layout::column,
                                         .gap = 12,
                                         .align = rapido::Align::stretch});
    for (const std::vector<rapido::Element>& stamp :
         {gauge("water", "WATER", rapido::rgb(0x38b6c9)), gauge("hull", "HULL", rapido::rgb(0xf2efe6))})
        hud.elements.insert(hud.elements.end(), stamp.begin(), stamp.end());
    return hud;
}

}  // namespace

int main(int count, char** arguments) {
    constexpr float width = 640, height = 800;
    std::array<Pilot, 2> pilots{Pilot{"Ada", 1480, 2400, 100}, Pilot{"Ines", 912, 350, 42.6}};
    const rapido::HudDefinition definition = make_definition();
    rapido::Fonts fonts;
    rapido::Picture picture(static_cast<int>(2 * width), static_cast<int>(height), fonts);
    picture.fill(rapido::rgb(0x2a3440));
    if (count > 1 && !picture.draw_image(arguments[1])) return 1;
    for (std::size_t player = 0; player < pilots.size(); ++player) {
        Pilot& pilot = pilots[player];
        rapido::Sources sources;
        sources.set("name", rapido::watch(pilot.name));
        sources.set("acres", rapido::watch(pilot.acres_saved));
        sources.set("water", rapido::watch(pilot.water));
        sources.set("water_max", 3000);
        sources.set("hull", rapido::watch(pilot.hull));
        sources.set("hull_max", 100);
        rapido::Hud hud(definition, sources, &fonts);
        hud.resize({.size = {width, height}, .origin = {width * static_cast<float>(player), 0}});
        hud.update({.real = 16ms, .game = 16ms});
        if (!hud.problems().empty()) return 1;
        rapido::DisplayList list;
        hud.draw(list);
        picture.draw(list);
    }
    return picture.write_png("split_screen.png") ? 0 : 1;
}
