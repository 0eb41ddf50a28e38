// The same six readouts in four looks, each over white, black and a busy scene: only the HUD files differ, and the values are bound
// once.
//
//     04_looks FOLDER_OF_THE_LOOKS BACKGROUND.png      writes looks.png
#include <rapido/file.hpp>
#include <rapido/picture.hpp>
#include <rapido/rapido.hpp>

#include <cstdio>

using namespace rapido;

int main(int count, char** arguments) {
    const std::string folder = count > 1 ? arguments[1] : "demo/looks";
    const std::string scene = count > 2 ? arguments[2] : "demo/ember_ridge/scene.png";

    std::int64_t score = 48200;
    double water = 1920, fuel = 72;
    int crew = 4;
    Seconds time_left{67.4};
    Sources sources;
    sources.set("score", watch(score));
    sources.set("water", watch(water));
    sources.set("fuel", watch(fuel));
    sources.set("crew", watch(crew));
    sources.set("time_left", watch(time_left));

    constexpr int width = 600, height = 240, gap = 8;
    Fonts fonts;
    Images images(folder);
    Picture sheet(3 * width + 2 * gap, 4 * height + 3 * gap, fonts);
    sheet.fill(rgb(0x808080));
    int row = 0;
    for (const char* const look : {"slate", "paper", "neon", "pixel"}) {
        const Result<HudDefinition> definition = read_hud_file(folder + "/" + look + ".toml");
        if (!definition) {
            for (const Problem& problem : definition.problems())
                std::fprintf(stderr, "%s\n", to_string(problem).c_str());
            return 1;
        }
        Hud hud(*definition, sources, &fonts, &images);
        hud.resize({.size = {width, height}});
        hud.update(0.0);
        for (const Problem& problem : hud.problems())
            std::fprintf(stderr, "%s: %s\n", look, to_string(problem).c_str());
        DisplayList list;
        hud.draw(list);
        for (int column = 0; column < 3; ++column) {
            Picture cell(width, height, fonts, &images);
            cell.fill(column == 0 ? rgb(0xffffff) : rgb(0x000000));
            if (column == 2)
                if (const Status drawn = cell.draw_image(scene); !drawn)
                    std::fprintf(stderr, "%s\n", to_string(drawn.problem()).c_str());
            cell.draw(list);
            sheet.draw(cell, {static_cast<float>(column * (width + gap)), static_cast<float>(row * (height + gap)),
                              width, height});
        }
        ++row;
    }
    if (const Status written = sheet.write_png("looks.png"); !written) {
        std::fprintf(stderr, "%s\n", to_string(written.problem()).c_str());
        return 1;
    }
    std::puts("wrote looks.png");
}
