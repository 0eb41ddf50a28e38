// Markers over a world, and numbers that pop up: the same fires and villages from three camera positions, and a drop of water in five moments.
//
//     06_world FOLDER_OF_THE_HUD      writes markers.png, pop_ups.png and probes.png
#include <rapido/debug.hpp>
#include <rapido/file.hpp>
#include <rapido/picture.hpp>
#include <rapido/rapido.hpp>

#include <cmath>
#include <cstdio>

#include "backdrop.hpp"

struct Fire {
    int number = 0;
    std::array<float, 3> at{};
    double heat = 0;
};
struct Village {
    std::string name;
    std::array<float, 3> at{};
    int people = 0;
};

int main(int count, char** arguments) {
    const std::string folder = count > 1 ? arguments[1] : "demo/world";
    std::vector<Fire> fires;
    std::uint32_t seed = 7;
    const auto random = [&seed] {
        return static_cast<float>((seed = seed * 1664525U + 1013904223U) >> 8U) / 16777216.0F;
    };
    for (int i = 0; i < 40; ++i) {
        const float away = 120 + 340 * random(), way = 6.2832F * random();
        fires.push_back(
            {i, {away * std::cos(way), 0, away * std::sin(way)}, 20.0 + 75 * static_cast<double>(random())});
    }
    std::vector<Village> villages{{"Pine Hollow", {90, 0, -160}, 112}, {"Stonebridge", {-210, 0, -260}, 48},
                                  {"Alder Creek", {330, 0, -60}, 0},   {"Gull Point", {-120, 0, 240}, 86},
                                  {"High Meadow", {40, 0, 380}, 31},   {"Two Mills", {-380, 0, 30}, 7}};
    std::array<float, 3> eye{};  // where the camera is
    rapido::Sources sources;
    sources.set("fires", rapido::watch_entries(fires, rapido::entry_position(&Fire::at),
                                               rapido::entry_field("number", &Fire::number),
                                               rapido::entry_field("heat", &Fire::heat)));
    sources.set("villages", rapido::watch_entries(villages, rapido::entry_position(&Village::at),
                                                  rapido::entry_field("name", &Village::name),
                                                  rapido::entry_field("people", &Village::people),
                                                  rapido::entry_field("away", [&eye](const Village& village) {
                                                      return std::hypot(village.at[0] - eye[0], village.at[1] - eye[1],
                                                                        village.at[2] - eye[2]);
                                                  })));
    const rapido::Result<rapido::HudDefinition> definition = rapido::read_hud_file(folder + "/hud.toml");
    if (!definition) {
        for (const rapido::Problem& problem : definition.problems())
            std::fprintf(stderr, "%s\n", to_string(problem).c_str());
        return 1;
    }
    rapido::Fonts fonts;
    rapido::Images images(folder);
    rapido::Hud hud(*definition, sources, &fonts, &images);
    const rapido::ElementRef drops = hud.find("drops");
    rapido::DisplayList list;
    const auto shoot = [&](const std::array<float, 16>& matrix, int width, int height) {
        hud.resize({.size = {static_cast<float>(width), static_cast<float>(height)}});
        hud.set_camera(rapido::Camera(matrix));
        hud.update(1 / 60.0);
        hud.draw(list);
        std::vector<example::Spot> spots;
        for (const Fire& fire : fires)
            spots.push_back({fire.at, static_cast<float>(fire.heat) / 100, false});
        for (const Village& village : villages)
            spots.push_back({village.at, 1, true});
        example::draw_backdrop("backdrop.png", matrix, spots, width, height);
        rapido::Picture picture(width, height, fonts, &images);
        if (const rapido::Status drawn = picture.draw_image("backdrop.png"); !drawn)
            std::fprintf(stderr, "%s\n", to_string(drawn.problem()).c_str());
        picture.draw(list);
        return picture;
    };

    constexpr int width = 640, height = 360, gap = 8;
    rapido::Picture sheet(2 * width + gap, 2 * height + gap, fonts);
    sheet.fill(rapido::rgb(0x808080));
    struct Shot {
        std::array<float, 3> from, to;
    };
    const Shot shots[]{
        {{0, 45, 120}, {0, 10, -120}}, {{-260, 90, -40}, {60, 0, -60}}, {{420, 60, 420}, {900, 40, 900}}};
    for (int i = 0; i < 3; ++i) {
        const auto matrix = example::looking(shots[i].from, shots[i].to, 60, 16.0F / 9);
        eye = shots[i].from;
        shoot(matrix, width, height);  // twice, so that each has measured its markers before they are told apart
        sheet.draw(shoot(matrix, width, height), {static_cast<float>(i % 2 * (width + gap)),
                                                  static_cast<float>(i / 2 * (height + gap)), width, height});
    }
    // Water falls on the nearest fires: amounts at one place within a moment are one number.
    eye = shots[0].from;
    const auto matrix = example::looking(shots[0].from, shots[0].to, 60, 16.0F / 9);
    constexpr int strip_width = 248;
    rapido::Picture strip(5 * strip_width + 4 * gap, height, fonts);
    strip.fill(rapido::rgb(0x808080));
    int moment = 0;
    for (int frame = 0; frame <= 68; ++frame) {
        for (Fire& fire : fires) {
            const bool is_hit = std::abs(fire.at[0]) < 90 && fire.at[2] < 40 && fire.at[2] > -240 && fire.heat > 0;
            if (!is_hit || frame < 2 || (frame + fire.number) % 3 != 0 || frame > 20) continue;
            const double water = fire.number % 4 == 0 ? 16 : 5;
            fire.heat = std::max(0.0, fire.heat - water);
            hud.pop_up(drops, {.at = rapido::world_point(fire.at), .value = water});
        }
        const rapido::Picture picture = shoot(matrix, width, height);
        if (frame == 6 || frame == 16 || frame == 28 || frame == 50 || frame == 68) {
            // The middle of the picture.
            rapido::Picture part(strip_width, height, fonts);
            part.draw(picture, {(strip_width - width) / 2.0F, 0, width, height});
            strip.draw(part, {static_cast<float>(moment * (strip_width + gap)), 0, strip_width, height});
            if (frame == 16) sheet.draw(picture, {width + gap, height + gap, width, height});
            ++moment;
        }
    }
    // What a tester sees besides: any value in one line, in the corner in which the table covers least.
    rapido::show_probes(hud);
    double heat = 0;
    for (const Fire& fire : fires)
        heat += fire.heat;
    rapido::Picture watched(960, 540, fonts);
    for (int frame = 0; frame < 3; ++frame) {
        RAPIDO_PROBE_AS("{:.1f} m", eye[1]);
        RAPIDO_PROBE_IN("fires", fires.size());
        RAPIDO_PROBE_IN_AS("fires", "{:.0f} °C", heat / 40);
        RAPIDO_PROBE_IN("villages", villages.front().name);
        RAPIDO_PROBE_IN("villages", villages.front().people);
        watched = shoot(matrix, 960, 540);
    }
    for (const rapido::Problem& problem : hud.problems())
        std::fprintf(stderr, "%s\n", to_string(problem).c_str());
    std::remove("backdrop.png");
    for (const auto& [picture, name] :
         {std::pair(&sheet, "markers.png"), std::pair(&strip, "pop_ups.png"), std::pair(&watched, "probes.png")})
        if (const rapido::Status written = picture->write_png(name); !written) {
            std::fprintf(stderr, "%s\n", to_string(written.problem()).c_str());
            return 1;
        }
    std::puts("wrote markers.png, pop_ups.png and probes.png");
}
