// A game in C++17. It knows of its HUD what hud.hpp says, and nothing of Rapido.
#include <cstdio>

#include "hud.hpp"

#if __cplusplus >= 202002L
#error this file is compiled as C++17
#endif

int main() {
    GameState state;
    GameHud hud(state);
    for (int frame = 0; frame < 120; ++frame) {
        state.health = 100 - frame / 2.0;
        state.coins += frame % 20 == 0 ? 5 : 0;
        hud.update(1 / 60.0);
        if (frame % 60 == 59) std::printf("%s | %s\n", hud.coins(), hud.health());
    }
}
