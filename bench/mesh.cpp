// Triangles of the sample HUD.
#include "rapido/mesh.hpp"
#include "compare.hpp"
#include "rapido/file.hpp"
#include "rapido/images.hpp"
#include "rapido/picture.hpp"
#include "rapido/rapido.hpp"

namespace rapido::bench {
namespace {

/// The sample in the middle of its flight, as display lists that differ in one number, or in everything.
struct Sample {
    std::string folder = RAPIDO_SAMPLE_DIR;
    Fonts fonts;
    Images images{folder};
    Result<HudDefinition> definition = read_hud_file(folder + "/hud.toml");
    Result<Trace> trace = Trace::read_file(folder + "/flight.csv");
    TracePlayer player{*trace};
    Hud hud{*definition, player.sources(), &fonts, &images};
    int number = 10;
    DisplayList first, other_number, other_all;
    MeshAtlas atlas{fonts, &images};
    Mesh mesh{atlas};

    Sample() {
        hud.resize({.size = {1280, 800}});
        hud.add(Text{.id = "number", .value = watch(number)});
        for (int i = 0; i < 60; ++i) {
            player.seek(Nanoseconds{16'666'667} * (6200 + i));
            hud.update(1 / 60.0);
        }
        hud.draw(first);
        number = 87;
        hud.update(0.0);
        hud.draw(other_number);
        hud.set_opacity(0.98F);
        hud.update(0.0);
        hud.draw(other_all);
        for (const DisplayList* const list : {&first, &other_number, &other_all})
            mesh.draw(*list);
    }
};

void one_number(benchmark::State& state) {
    Sample sample;
    int step = 0;
    for (auto _ : state)
        sample.mesh.draw(++step % 2 == 0 ? sample.first : sample.other_number);
}
void all_of_it(benchmark::State& state) {
    Sample sample;
    int step = 0;
    for (auto _ : state)
        sample.mesh.draw(++step % 2 == 0 ? sample.first : sample.other_all);
}
void as_a_picture(benchmark::State& state) {
    Sample sample;
    Picture picture(1280, 800, sample.fonts, &sample.images);
    int step = 0;
    for (auto _ : state)
        picture.draw(++step % 2 == 0 ? sample.first : sample.other_all);
}

}  // namespace

std::vector<Case> mesh_cases() {
    return {
        {"triangles of the sample HUD, one number other", "all of them made again", 0.1, true, one_number, all_of_it},
        {"triangles of the sample HUD, all made again", "a picture of it by Cairo", 10, false, all_of_it, as_a_picture},
    };
}

}  // namespace rapido::bench
