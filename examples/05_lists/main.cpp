// A list that follows a container of the game, a log, tapes, and a picture that a value chooses: four moments of a minute in the air.
//
//     05_lists FOLDER_OF_THE_HUD BACKGROUND.png      writes lists.png
#include <rapido/file.hpp>
#include <rapido/picture.hpp>
#include <rapido/rapido.hpp>

#include <cstdio>

struct Pilot {
    std::string name;
    std::int64_t score = 0;
    double water = 3000;
};

/// A round or a square button with a letter's stroke, drawn by hand: the game would ship a file.
void add_button(rapido::Images& images, const std::string& name, bool is_round) {
    constexpr int size = 48;
    std::vector<rapido::Color> pixels;
    for (int y = 0; y < size; ++y)
        for (int x = 0; x < size; ++x) {
            const int across = 2 * x + 1 - size, down = 2 * y + 1 - size;
            const bool inside =
                is_round ? across * across + down * down < size * size : std::abs(across) < 44 && std::abs(down) < 44;
            const bool stroke = std::abs(across) < 6 && std::abs(down) < 24;
            pixels.push_back(!inside    ? rapido::rgb(0, 0)
                             : stroke   ? rapido::rgb(0x10161c)
                             : is_round ? rapido::rgb(0x8fce5a)
                                        : rapido::rgb(0xf2efe6));
        }
    if (const auto added = images.add(name, size, size, pixels); !added)
        std::fprintf(stderr, "%s\n", to_string(added.problems().front()).c_str());
}

int main(int count, char** arguments) {
    const std::string folder = count > 1 ? arguments[1] : "demo/lists";
    const std::string scene = count > 2 ? arguments[2] : "demo/ember_ridge/scene.png";

    std::vector<Pilot> pilots{
        {"Marlow", 4200, 2800}, {"Okafor", 3900, 900}, {"Lindqvist", 3100, 2100}, {"Tanaka", 2500, 3000}};
    double heading = 338, altitude = 420;
    int flares = 4, device = 0;
    rapido::Sources sources;
    sources.set("pilots", rapido::watch_entries(pilots, rapido::entry_field("name", &Pilot::name),
                                                rapido::entry_field("score", &Pilot::score),
                                                rapido::entry_field("water", &Pilot::water)));
    sources.set("heading", rapido::watch(heading));
    sources.set("altitude", rapido::watch(altitude));
    sources.set("flares", rapido::watch(flares));
    sources.set("device", rapido::watch(device));

    const rapido::Result<rapido::HudDefinition> definition = rapido::read_hud_file(folder + "/hud.toml");
    if (!definition) {
        for (const rapido::Problem& problem : definition.problems())
            std::fprintf(stderr, "%s\n", to_string(problem).c_str());
        return 1;
    }
    constexpr int width = 640, height = 400, gap = 8;
    rapido::Fonts fonts;
    rapido::Images images(folder);
    add_button(images, "key.png", false);
    add_button(images, "pad.png", true);
    rapido::Hud hud(*definition, sources, &fonts, &images);
    hud.resize({.size = {width, height}});
    const rapido::ElementRef log = hud.find("log");

    rapido::Picture sheet(2 * width + gap, 2 * height + gap, fonts);
    sheet.fill(rapido::rgb(0x808080));
    rapido::DisplayList list;
    int shots = 0;
    const auto shoot = [&] {
        hud.draw(list);
        rapido::Picture cell(width, height, fonts, &images);
        if (const rapido::Status drawn = cell.draw_image(scene); !drawn)
            std::fprintf(stderr, "%s\n", to_string(drawn.problem()).c_str());
        cell.draw(list);
        sheet.draw(cell, {static_cast<float>(shots % 2 * (width + gap)), static_cast<float>(shots / 2 * (height + gap)),
                          width, height});
        ++shots;
    };
    // At 60 frames a second; what the game does stands by its frame.
    for (int frame = 0; frame < 260; ++frame) {
        heading = heading < 359.8 ? heading + 0.2 : 0;
        altitude -= 0.9;
        switch (frame) {
            case 20:
                hud.notify(log, {.text = "Marlow drops over Pine Hollow"});
                break;
            case 60:
                hud.notify(log, {.text = "{} acres saved", .value = 37});
                pilots.push_back({"Reyes", 0, 3000});
                pilots.push_back({"Novak", 1200, 500});
                break;
            case 110:
                hud.notify(log, {.text = "Lindqvist takes the ridge"});
                pilots[2].score = 4600;
                flares = 2;
                device = 1;
                break;
            case 180:
                hud.notify(log, {.text = "Okafor returns to base"});
                pilots.erase(pilots.begin() + 1);
                flares = 1;
                break;
            default:
                break;
        }
        hud.update(1 / 60.0);
        if (frame == 50 || frame == 118 || frame == 186 || frame == 258) shoot();
    }
    for (const rapido::Problem& problem : hud.problems())
        std::fprintf(stderr, "%s\n", to_string(problem).c_str());
    if (const rapido::Status written = sheet.write_png("lists.png"); !written) {
        std::fprintf(stderr, "%s\n", to_string(written.problem()).c_str());
        return 1;
    }
    std::puts("wrote lists.png");
}
