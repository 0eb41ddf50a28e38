// Layout and the display list: what a frame costs when a part of the HUD changed, against all of it.
#include <algorithm>
#include <array>
#include <cmath>

#include "compare.hpp"
#include "rapido/layout.hpp"
#include "rapido/rapido.hpp"

namespace rapido::bench {
namespace {

/// Half an em for every byte: what is measured is the layout, and not a font.
class EvenMeasurer final : public TextMeasurer {
 public:
    std::optional<FontId> find(std::string_view, int, bool) override { return FontId{0}; }
    FontMetrics metrics(FontId) override { return {0.75F, 0.25F}; }
    float shape(FontId, float size, std::string_view text, std::vector<Glyph>& glyphs) override {
        glyphs.clear();
        for (std::size_t i = 0; i < text.size(); ++i)
            glyphs.push_back({static_cast<std::uint32_t>(text[i]), {size / 2 * static_cast<float>(i), 0}});
        return size / 2 * static_cast<float>(text.size());
    }
};

constexpr std::size_t count = 1000;
constexpr Seconds frame{1 / 60.0};

/// A hundred plates over the screen, of ten texts each.
struct Texts {
    EvenMeasurer measurer;
    std::vector<int> values = std::vector<int>(count, 7);
    Hud hud{HudDefinition{.design = {3840, 2160}}, {}, &measurer};
    DisplayList list;

    Texts() {
        hud.resize({.size = {3840, 2160}});
        for (std::size_t i = 0; i < count; ++i) {
            const std::string panel = "p" + std::to_string(i / 10);
            const Point offset{static_cast<float>(i / 100) * 380, static_cast<float>(i / 10 % 10) * 210};
            if (i % 10 == 0)
                hud.add(Panel{.id = panel, .place = {.offset = offset}, .layout = Layout::column, .gap = 2});
            hud.add(Text{.id = "t" + std::to_string(i), .value = watch(values[i]), .inside = panel, .size = 10});
        }
        hud.update(0);
        hud.draw(list);
    }
    /// Every so many texts get another digit, or lose it.
    void change(std::size_t every, int step) {
        for (std::size_t i = 0; i < count; i += every)
            values[i] = step % 2 == 0 ? 7 : 1000;
    }
};

template <std::size_t Every, bool Draws>
void changed_texts(benchmark::State& state) {
    Texts texts;
    int step = 0;
    for (auto _ : state) {
        texts.change(Every, ++step);
        texts.hud.update({.real = frame, .game = frame});
        if (Draws) texts.hud.draw(texts.list);
        benchmark::DoNotOptimize(texts.list);
    }
}

/// The display list of everything, from nothing.
void whole_list(benchmark::State& state) {
    Texts texts;
    int step = 0;
    for (auto _ : state) {
        texts.change(50, ++step);
        texts.hud.update({.real = frame, .game = frame});
        DisplayList fresh;
        texts.hud.draw(fresh);
        benchmark::DoNotOptimize(fresh);
    }
}

/// A thousand readouts over the screen, of all kinds in turn or bars alone, drawn after each frame.
struct Readouts {
    EvenMeasurer measurer;
    std::vector<double> values = std::vector<double>(count, 50.0);
    Hud hud{HudDefinition{.design = {3840, 2160}}, {}, &measurer};
    DisplayList list;

    explicit Readouts(bool all_kinds) {
        hud.resize({.size = {3840, 2160}});
        for (std::size_t i = 0; i < count; ++i) {
            const Place place{.offset = {static_cast<float>(i % 40) * 96, static_cast<float>(i / 40) * 86},
                              .size = {80, 60}};
            hud.add(readout(all_kinds ? i % 9 : 1, "e" + std::to_string(i), watch(values[i]), place));
        }
        if (!hud.problems().empty()) std::abort();
        hud.update(0);
        hud.draw(list);
    }
    static Element readout(std::size_t kind, const std::string& id, const Source& value, const Place& place) {
        switch (kind) {
            case 0:
                return Text{.id = id, .value = value, .max = 100, .format = "{:.1f} / {max:.0f}", .place = place};
            case 2:
                return Ring{.id = id, .value = value, .max = 100, .place = place};
            case 3:
                return Level{.id = id, .value = value, .max = 100, .place = place};
            case 4:
                return Pips{.id = id, .value = value, .max = 5, .place = place, .shape = Shape::heart};
            case 5:
                return Dial{.id = id,
                            .value = value,
                            .max = 100,
                            .place = place,
                            .ticks = {.every = 10, .long_every = 50, .format = "{:.0f}"}};
            case 6:
                return Ruler{
                    .id = id, .value = value, .max = 100, .place = place, .ticks = {.every = 25, .format = "{:.0f}"}};
            case 7:
                return Graph{.id = id, .value = value, .max = 100, .place = place, .resolution = 60};
            case 8:
                return Image{
                    .id = id, .image = "i.png", .value = value, .max = 100, .place = place, .frames = {.count = 8}};
            default:
                return Bar{.id = id, .value = value, .max = 100, .place = place};
        }
    }
};

/// One in twenty changes.
template <bool AllKinds>
void readouts(benchmark::State& state) {
    Readouts all(AllKinds);
    std::size_t step = 0;
    for (auto _ : state) {
        ++step;
        for (std::size_t i = step % 20; i < count; i += 20)
            all.values[i] = static_cast<double>((i * 7 + step * 13) % 101);
        all.hud.update({.real = frame, .game = frame});
        all.hud.draw(all.list);
        benchmark::DoNotOptimize(all.list);
    }
}

/// Every text moves to another place in its panel, by a setter or by another description.
template <bool Sets>
void moved_texts(benchmark::State& state) {
    Texts texts;
    std::vector<ElementRef> all;
    for (std::size_t i = 0; i < count; i += 10)
        all.push_back(texts.hud.find("t" + std::to_string(i)));
    float step = 0;
    for (auto _ : state) {
        step = step < 20 ? step + 1 : 0;
        for (const ElementRef ref : all) {
            if (Sets)
                texts.hud.set_place(ref, {.offset = {step, 0}});
            else
                texts.hud.change<Text>(ref, [&](Text& text) { text.place.offset = {step, 0}; });
        }
        texts.hud.update({.real = frame, .game = frame});
        benchmark::DoNotOptimize(texts.hud);
    }
}

/// A thousand things around a camera that turns, of which the nearest forty on the screen have a bar.
struct Things {
    struct Thing {
        std::array<float, 3> at;
        float heat;
    };
    std::vector<Thing> all;
    std::array<float, 16> matrix{};

    Things() {
        std::uint32_t seed = 1;
        const auto random = [&seed] {
            return static_cast<float>((seed = seed * 1664525U + 1013904223U) >> 8U) / 8388608.0F - 1;
        };
        for (std::size_t i = 0; i < count; ++i)
            all.push_back({{random() * 300, random() * 20, random() * 300}, 50 + 50 * random()});
    }
    /// A perspective of 90 degrees that is turned around y.
    void turn(float angle) {
        const float c = std::cos(angle), s = std::sin(angle);
        matrix = {c * 9 / 16, 0, -s, -s, 0, 1, 0, 0, s * 9 / 16, 0, c, c, 0, 0, -0.2F, 0};
    }
};

void markers(benchmark::State& state) {
    Things things;
    EvenMeasurer measurer;
    Hud hud{HudDefinition{}, {}, &measurer};
    const Source entries =
        watch_entries(things.all, entry_position(&Things::Thing::at), entry_field("heat", &Things::Thing::heat));
    hud.add(markers_of({.id = "t", .entries = entries, .declutter = false}, [](const auto& thing) {
        return nest(Panel{.plate = false}, Bar{.id = "bar", .value = thing("heat"), .max = 100});
    }));
    if (!hud.problems().empty()) std::abort();
    DisplayList list;
    float angle = 0;
    for (auto _ : state) {
        things.turn(angle += 0.01F);
        hud.set_camera(Camera(things.matrix));
        hud.update({.real = frame, .game = frame});
        hud.draw(list);
        benchmark::DoNotOptimize(list);
    }
}

void bare_projection(benchmark::State& state) {
    Things things;
    struct Seen {
        double distance, x, y;
        std::uint32_t thing;
    };
    std::vector<Seen> seen;
    float angle = 0;
    for (auto _ : state) {
        things.turn(angle += 0.01F);
        seen.clear();
        const auto& m = things.matrix;
        for (std::uint32_t i = 0; i < things.all.size(); ++i) {
            const auto& at = things.all[i].at;
            const auto row = [&](std::size_t r) {
                return static_cast<double>(m[r]) * static_cast<double>(at[0]) +
                       static_cast<double>(m[r + 4]) * static_cast<double>(at[1]) +
                       static_cast<double>(m[r + 8]) * static_cast<double>(at[2]) + static_cast<double>(m[r + 12]);
            };
            const double w = row(3);
            if (!(w > 0)) continue;
            const double x = row(0) / w, y = row(1) / w;
            if (x < -1 || x > 1 || y < -1 || y > 1) continue;
            seen.push_back({w, (x + 1) * 640, (1 - y) * 360, i});
        }
        const auto end = seen.begin() + static_cast<std::ptrdiff_t>(std::min<std::size_t>(40, seen.size()));
        std::partial_sort(seen.begin(), end, seen.end(),
                          [](const Seen& a, const Seen& b) { return a.distance < b.distance; });
        benchmark::DoNotOptimize(seen);
    }
}

}  // namespace

std::vector<Case> layout_cases() {
    return {
        {"1,000 markers, 40 drawn", "a loop that projects and sorts", 2, true, markers, bare_projection},
        {"100 texts moved by set_place", "by change", 4, false, moved_texts<true>, moved_texts<false>},
        {"layout: 1 of 1,000 texts grows", "all of them growing", 10, false, changed_texts<count, false>,
         changed_texts<1, false>},
        {"1,000 of all kinds: 5 % change", "as many bars", 0, true, readouts<true>, readouts<false>},
        {"display list: 2 % of 1,000 changed", "making it anew", 4, false, changed_texts<50, true>, whole_list},
    };
}

}  // namespace rapido::bench
