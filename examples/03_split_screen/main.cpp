// One definition, two players: each has a HUD with their own values in their own half of the window. Names stand beside
// numbers in rows that nobody measured by hand.
//
//     03_split_screen [BACKGROUND.png]      writes split_screen.png
#include <rapido/picture.hpp>
#include <rapido/rapido.hpp>
using namespace rapido;
using namespace std::chrono_literals;

namespace {

struct Pilot {
    std::string name;
    int acres_saved;
    double water;
    double hull;
};

/// A component: a caption and a number in a row, and a bar as wide as both.
std::vector<Element> gauge(const std::string& id, const std::string& caption, const Color color) {
    return nest(
        Panel{.id = id, .layout = Layout::column, .gap = 4, .align = Align::stretch, .plate = false, .inside = "plane"},
        nest(Panel{.id = "head",
                   .layout = Layout::row,
                   .gap = 24,
                   .align = Align::baseline,
                   .justify = Justify::space_between,
                   .plate = false},
             Text{.id = "caption", .format = caption, .color = color, .weight = 600, .size = 15},
             Text{.id = "amount",
                  .value = rapido::by_name(id),
                  .max = rapido::by_name(id + "_max"),
                  .format = "{percent}%",
                  .weight = 600,
                  .size = 17}),
        Bar{.id = "bar",
            .value = rapido::by_name(id),
            .max = rapido::by_name(id + "_max"),
            .place = {.size = {220, 14}},
            .color = color});
}

HudDefinition make_definition() {
    HudDefinition hud{.design = {640, 800}, .margin = {24, 24, 24, 24}, .font = "Inter"};
    hud.elements.push_back(Panel{.id = "saved", .layout = Layout::column});
    hud.elements.push_back(Text{.id = "name", .value = "name", .inside = "saved", .color = rgb(0x8fce5a), .size = 15});
    hud.elements.push_back(
        Text{.id = "acres", .value = "acres", .format = "{:L} acres", .inside = "saved", .weight = 700, .size = 34});
    hud.elements.push_back(Panel{.id = "plane",
                                 .place = {.anchor = Anchor::bottom_left},
                                 .layout = Layout::column,
                                 .gap = 12,
                                 .align = Align::stretch});
    for (const std::vector<Element>& stamp :
         {gauge("water", "WATER", rgb(0x38b6c9)), gauge("hull", "HULL", rgb(0xf2efe6))})
        hud.elements.insert(hud.elements.end(), stamp.begin(), stamp.end());
    return hud;
}

}  // namespace

int main(int count, char** arguments) {
    constexpr float width = 640, height = 800;
    std::array<Pilot, 2> pilots{Pilot{"Ada", 1480, 2400, 100}, Pilot{"Ines", 912, 350, 42.6}};
    const HudDefinition definition = make_definition();
    Fonts fonts;
    Picture picture(static_cast<int>(2 * width), static_cast<int>(height), fonts);
    picture.fill(rgb(0x2a3440));
    if (count > 1 && !picture.draw_image(arguments[1])) return 1;
    for (std::size_t player = 0; player < pilots.size(); ++player) {
        Pilot& pilot = pilots[player];
        Sources sources;
        sources.set("name", watch(pilot.name));
        sources.set("acres", watch(pilot.acres_saved));
        sources.set("water", watch(pilot.water));
        sources.set("water_max", 3000);
        sources.set("hull", watch(pilot.hull));
        sources.set("hull_max", 100);
        Hud hud(definition, sources, &fonts);
        hud.resize({.size = {width, height}, .origin = {width * static_cast<float>(player), 0}});
        hud.update({.real = 16ms, .game = 16ms});
        if (!hud.problems().empty()) return 1;
        DisplayList list;
        hud.draw(list);
        picture.draw(list);
    }
    return picture.write_png("split_screen.png") ? 0 : 1;
}
