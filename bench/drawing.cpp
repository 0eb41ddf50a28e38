// What looks cost: texts with an outline and a shadow, against plain ones.
#include "compare.hpp"
#include "rapido/picture.hpp"
#include "rapido/rapido.hpp"

namespace rapido::bench {
namespace {

constexpr int rows = 20, columns = 5;
constexpr Seconds frame{1 / 60.0};

/// A hundred numbers over a screen, with real fonts.
struct Numbers {
    Fonts fonts;
    std::vector<int> values = std::vector<int>(rows * columns, 1480);
    Hud hud{HudDefinition{.design = {1280, 800}, .font = "Inter"}, {}, &fonts};
    DisplayList list;

    explicit Numbers(bool decorated) {
        hud.resize({.size = {1280, 800}});
        for (int i = 0; i < rows * columns; ++i) {
            Text text{.id = "t" + std::to_string(i),
                      .value = watch(values[static_cast<std::size_t>(i)]),
                      .place = {.offset = {static_cast<float>(i / rows * 250), static_cast<float>(i % rows * 40)}},
                      .weight = 700,
                      .size = 24};
            if (decorated) text.outline = Outline{2};
            if (decorated) text.shadow = Shadow{{0, 2}, 4};
            hud.add(text);
        }
    }
    void run(int step, int changed) {
        for (int i = 0; i < changed; ++i)
            values[static_cast<std::size_t>(i)] = 1000 + step % 1000;
        hud.update({.real = frame, .game = frame});
        hud.draw(list);
    }
};

/// All of them change, and the commands are made.
template <bool Decorated>
void listed(benchmark::State& state) {
    Numbers numbers(Decorated);
    int step = 0;
    for (auto _ : state) {
        numbers.run(++step, rows * columns);
        benchmark::DoNotOptimize(numbers.list);
    }
}

/// One in twenty changes, and all are drawn as pixels.
template <bool Decorated>
void pictured(benchmark::State& state) {
    Numbers numbers(Decorated);
    Picture picture(1280, 800, numbers.fonts);
    int step = 0;
    numbers.run(++step, rows * columns);
    picture.draw(numbers.list);
    for (auto _ : state) {
        numbers.run(++step, rows * columns / 20);
        picture.draw(numbers.list);
        benchmark::DoNotOptimize(picture);
    }
}

}  // namespace

std::vector<Case> drawing_cases() {
    return {
        {"100 outlined, shadowed texts, all changed: display list", "plain ones", 3, true, listed<true>, listed<false>},
        {"the same as a picture, 5 % changed", "plain ones", 3, true, pictured<true>, pictured<false>},
    };
}

}  // namespace rapido::bench
