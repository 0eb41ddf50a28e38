// A game that reads a HUD file, and draws it as a picture and as triangles.
#include <cstdio>
#include <rapido/file.hpp>
#include <rapido/mesh.hpp>
#include <rapido/picture.hpp>
#include <rapido/rapido.hpp>
#include <string>

int main() {
    int acres = 1200;
    rapido::Sources sources;
    sources.set("acres", rapido::watch(acres));
    const auto definition = rapido::read_hud(
        "[[element]]\nkind = \"text\"\nid = \"a\"\nvalue = \"acres\"\nformat = \"{} acres saved\"\n", "hud.toml");
    if (!definition) return 1;
    rapido::Fonts fonts;
    rapido::Hud hud(*definition, sources, &fonts);
    hud.resize({.size = {320, 200}});
    hud.update(0.016);
    rapido::DisplayList list;
    hud.draw(list);
    rapido::Picture picture(320, 200, fonts);
    picture.draw(list);
    rapido::MeshAtlas atlas(fonts);
    rapido::Mesh mesh(atlas);
    mesh.draw(list);
    const std::string text(hud.text_of(hud.find("a")));
    std::printf("%s, %zu triangles\n", text.c_str(), mesh.indices().size() / 3);
    return text == "1200 acres saved" && mesh.indices().size() >= 13 * 6 ? 0 : 1;
}
