// What an element takes in memory: 10,000 of each sort with texts that all differ, by the allocator's count. See docs/speed.md.
#include <malloc.h>

#include <cstdio>
#include <memory>
#include <string>
#include <vector>

#include "rapido/fonts.hpp"
#include "rapido/rapido.hpp"

namespace {

constexpr int count = 10'000;

struct Game {
    std::vector<int> values = std::vector<int>(count);
    std::vector<std::string> names;
    Game() {
        for (int i = 0; i < count; ++i) {
            values[static_cast<std::size_t>(i)] = i * 7919 % 100'000;
            names.push_back("e" + std::to_string(i));
        }
    }
};

/// Bytes for each element, with all that a HUD keeps of it when it has been measured and drawn.
template <class Make>
double bytes_for(const Game& game, rapido::TextMeasurer& fonts, Make make) {
    const std::size_t before = mallinfo2().uordblks + mallinfo2().hblkhd;
    rapido::Hud hud({}, {}, &fonts);
    rapido::DisplayList list;
    for (std::size_t i = 0; i < count; ++i)
        hud.add(make(game.names[i], game.values[i]));
    for (int frame = 0; frame < 3; ++frame) {
        hud.update(0.016);
        hud.draw(list);
    }
    return static_cast<double>(mallinfo2().uordblks + mallinfo2().hblkhd - before) / count;
}

}  // namespace

int main() {
    using namespace std::chrono_literals;
    const Game game;
    rapido::Fonts fonts;
    const auto report = [&](const char* what, auto make) {
        std::printf("%-64s %8.0f bytes\n", what, bytes_for(game, fonts, make));
    };
    std::printf("sizeof: Text %zu, Bar %zu, Element %zu, Source %zu\n", sizeof(rapido::Text), sizeof(rapido::Bar),
                sizeof(rapido::Element), sizeof(rapido::Source));
    report("a plain text", [](const std::string& id, const int& value) {
        return rapido::Text{.id = id, .value = rapido::watch(value)};
    });
    report("a text with a roll, a band and an effect", [](const std::string& id, const int& value) {
        return rapido::Text{.id = id,
                            .value = rapido::watch(value),
                            .motion = rapido::roll(600ms),
                            .bands = {{.below = 25.0, .color = rapido::rgb(0xffc24a)}},
                            .triggers = {{.effect = "swell"}}};
    });
    report("a bar", [](const std::string& id, const int& value) {
        return rapido::Bar{.id = id, .value = rapido::watch(value), .max = 100'000};
    });
    report("a caption", [](const std::string& id, const int&) { return rapido::Text{.id = id, .format = id}; });
}
