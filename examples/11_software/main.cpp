// A game that draws with the processor, at 640 by 480 in 32-bit pixels: a picture is the layer over it.
//
//     11_software [PICTURE.png]
#include <rapido/picture.hpp>
#include <rapido/rapido.hpp>

#include <cmath>
#include <cstdio>
#include <vector>

using namespace std::chrono_literals;

constexpr int width = 640, height = 480;

/// The game's own picture: a sky, a lake and a boat.
void draw_game(std::vector<std::uint32_t>& pixels, int frame) {
    for (int y = 0; y < height; ++y)
        for (int x = 0; x < width; ++x) {
            const bool is_lake = y > 320 + 3 * std::sin(x / 23.0 + frame / 9.0);
            const auto sky = static_cast<std::uint32_t>(60 + y / 4);
            pixels[static_cast<std::size_t>(y * width + x)] =
                is_lake ? 0xff1c4a5cU : 0xff000000U | sky << 16U | (sky * 3 / 4) << 8U | (120 - sky / 3);
        }
    const int boat = frame * 2 % (width - 60);
    for (int y = 310; y < 322; ++y)
        for (int x = boat + (y - 310); x < boat + 60 - (y - 310); ++x)
            pixels[static_cast<std::size_t>(y * width + x)] = 0xfff2efe6U;
}

int main(int count, char** arguments) {
    double wind = 6;
    int fish = 0;
    rapido::Fonts fonts;
    rapido::Hud hud({.design = {width, height}, .font = "Inter, sans-serif"}, {}, &fonts);
    hud.resize({.size = {width, height}});
    hud.add(rapido::Text{.id = "fish",
                         .value = rapido::watch(fish),
                         .format = "{} fish",
                         .triggers = {{.on = rapido::TriggerOn::gain, .effect = "swell"}},
                         .place = {.anchor = rapido::Anchor::top_right, .offset = {20, 16}},
                         .size = 32,
                         .outline = rapido::Outline{.width = 2, .color = rapido::rgb(0x10161c)}});
    hud.add(rapido::Dial{.id = "wind",
                         .value = rapido::watch(wind),
                         .max = 20,
                         .motion = rapido::spring(400ms),
                         .place = {.anchor = rapido::Anchor::bottom_left, .offset = {20, 20}, .size = {110, 110}}});
    hud.add(rapido::Text{.id = "speed",
                         .value = rapido::watch(wind),
                         .format = "{:.0f} m/s",
                         .place = {.anchor = rapido::Anchor::bottom_left, .offset = {142, 56}}});

    std::vector<std::uint32_t> screen(static_cast<std::size_t>(width * height));
    rapido::Picture layer(width, height, fonts);  // one, again and again
    rapido::DisplayList list;
    for (int frame = 0; frame < 90; ++frame) {
        if (frame % 30 == 20) ++fish;
        wind = 8 + 4 * std::sin(frame / 20.0);
        hud.update(1 / 60.0);
        draw_game(screen, frame);
        hud.draw(list);
        layer.clear();
        layer.draw(list);
        layer.blend_onto(screen.data(), width * 4);
    }
    const rapido::PixelRect drawn = layer.drawn();
    std::printf("%d fish; what is drawn lies in %d of %d pixels\n", fish, drawn.width * drawn.height, width * height);
    if (count < 2) return 0;

    // The screen as a PNG, to look at.
    std::vector<rapido::Color> colors;
    for (const std::uint32_t pixel : screen)
        colors.push_back(rapido::rgb(pixel & 0xffffffU));
    rapido::Images images;
    const auto image = images.add("screen", width, height, colors);
    rapido::Picture shot(width, height, fonts, &images);
    rapido::DisplayGroup group;
    group.begin();
    group.image(*image, {0, 0, width, height}, {0, 0, width, height}, rapido::rgb(0xffffff), false);
    shot.draw(group);
    return shot.write_png(arguments[1]) ? 0 : 1;
}
