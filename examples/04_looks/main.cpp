// The same six readouts in four looks, each over white, black and a busy scene: only the HUD files differ, and the values are bound
// once.
//
//     04_looks FOLDER_OF_THE_LOOKS BACKGROUND.png      writes looks.png
#include <rapido/file.hpp>
#include <rapido/picture.hpp>
#include <rapido/rapido.hpp>

#include <cstdio>

int main(int count, char** arguments) {
    const std::string folder = count > 1 ? arguments[1] : "demo/looks";
    const std::string scene = count > 2 ? arguments[2] : "demo/ember_ridge/scene.png";

    std::int64_t score = 48200;
    double water = 1920, fuel = 72;
    int crew = 4;
    rapido::Seconds time_left{67.4};
    rapido::Sources sources;
    sources.set("score", rapido::watch(score));
    sources.set("water", rapido::watch(water));
    sources.set("fuel", rapido::watch(fuel));
    sources.set("crew", rapido::watch(crew));
    sources.set("time_left", watch(time_left));

    constexpr int width = 600, height = 240, gap = 8;
    rapido::Fonts fonts;
    rapido::Images images(folder);
    rapido::Picture sheet(3 * width + 2 * gap, 4 * height + 3 * gap, fonts);
    sheet.fill(rapido::rgb(0x808080));
    int row = 0;
    for (const char* const look : {"slate", "paper", "neon", "pixel"}) {
        const rapido::Result<rapido::HudDefinition> definition = rapido::read_hud_file(folder + "/" + look + ".toml");
        if (!definition) {
            for (const rapido::Problem& problem : definition.problems())
                std::fprintf(stderr, "%s\n", to_string(problem).c_str());
            return 1;
        }
        rapido::Hud hud(*definition, sources, &fonts, &images);
        hud.resize({.size = {width, height}});
        hud.update(0.0);
        for (const rapido::Problem& problem : hud.problems())
            std::fprintf(stderr, "%s: %s\n", look, to_string(problem).c_str());
        rapido::DisplayList list;
        hud.draw(list);
        for (int column = 0; column < 3; ++column) {
            rapido::Picture cell(width, height, fonts, &images);
            cell.fill(column == 0 ? rapido::rgb(0xffffff) : rapido::rgb(0x000000));
            if (column == 2)
                if (const rapido::Status drawn = cell.draw_image(scene); !drawn)
                    std::fprintf(stderr, "%s\n", to_string(drawn.problem()).c_str());
            cell.draw(list);
            sheet.draw(cell, {static_cast<float>(column * (width + gap)), static_cast<float>(row * (height + gap)),
                              width, height});
        }
        ++row;
    }
    if (const rapido::Status written = sheet.write_png("looks.png"); !written) {
        std::fprintf(stderr, "%s\n", to_string(written.problem()).c_str());
        return 1;
    }
    std::puts("wrote looks.png");
}
