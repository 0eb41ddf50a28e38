// A game that ships its font, and needs no other: neither those of the machine nor a library that finds them. Usage: game FONT_FILE
#include <cstdio>
#include <rapido/mesh.hpp>
#include <rapido/rapido.hpp>
#include <string>

int main(int count, char** arguments) {
    if (count < 2) return 2;
    rapido::Fonts fonts;
    if (fonts.find("Inter", 400) || fonts.find("sans-serif", 400)) return 3;  // of the machine
    if (const rapido::Status added = fonts.add_file(arguments[1]); !added) {
        std::fprintf(stderr, "%s\n", to_string(added.problem()).c_str());
        return 4;
    }
    int acres = 7;
    // The generic names, too, mean the font of the game.
    rapido::Hud hud({.font = "sans-serif"}, {}, &fonts);
    hud.resize({.size = {640, 360}});
    const auto ref = hud.add(rapido::Text{.id = "a",
                                          .value = rapido::watch(acres),
                                          .format = "{} acres, café",
                                          .place = {.offset = {16, 16}},
                                          .transform = rapido::TextTransform::uppercase});
    // Two letters of Hebrew, a number, three letters: they go to the left, the number to the right. Inter has none of the letters.
    hud.add(rapido::Text{.id = "b", .format = "\u05d0\u05d1 12 \u05d2\u05d3\u05d4", .place = {.offset = {16, 64}}});
    hud.update(0.016);
    rapido::DisplayList list;
    hud.draw(list);
    rapido::MeshAtlas atlas(fonts);
    rapido::Mesh mesh(atlas);
    mesh.draw(list);
    std::string order;
    for (const rapido::DisplayGroup& group : list.groups())
        for (const rapido::DisplayItem& item : group.items())
            if (group.text_of(item).find("12") != std::string_view::npos)
                for (const rapido::Glyph& glyph : group.glyphs_of(item))
                    order += glyph.id != 0 ? 'x' : '-';
    const std::string text(hud.text_of(ref));
    std::printf("%s, %zu triangles, %s\n", text.c_str(), mesh.indices().size() / 3, order.c_str());
    return mesh.indices().size() >= 12 * 6 && order == "---xxxx--" ? 0 : 1;
}
