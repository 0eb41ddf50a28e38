#include <cstdio>
#include <rapido/file.hpp>
#include <rapido/picture.hpp>
#include <rapido/rapido.hpp>

int main() {
    int acres = 1200;
    rapido::Sources sources;
    sources.set("acres", rapido::watch(acres));
    const auto definition = rapido::read_hud(
        "[[element]]\nkind = \"text\"\nid = \"a\"\nvalue = \"acres\"\nformat = \"{} acres saved\"\n",
        "hud.toml");
    if (!definition) return 1;
    rapido::Fonts fonts;
    rapido::Hud hud(*definition, sources, &fonts);
    hud.update({.real = rapido::Seconds{0.016}, .game = rapido::Seconds{0.016}});
    rapido::DrawList list;
    hud.draw(list);
    rapido::Picture picture(320, 200, fonts);
    picture.draw(list);
    std::printf("%s\n", std::string(hud[hud.find("a")].text).c_str());
    return hud[hud.find("a")].text == "1200 acres saved" ? 0 : 1;
}
