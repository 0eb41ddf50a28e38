// Reading and writing values: what a frame costs with 10,000 of them.
#include <fmt/format.h>

#include <charconv>
#include <cstdio>
#include <cstring>
#include <memory>

#include "compare.hpp"
#include "rapido/rapido.hpp"

namespace rapido::bench {
namespace {

constexpr std::size_t count = 10'000;

template <class T>
struct World {
    std::vector<T> values = std::vector<T>(count);
    Hud hud;

    explicit World(const char* format, const Source& max = {}) {
        for (std::size_t i = 0; i < count; ++i) {
            values[i] = static_cast<T>(i);
            hud.add(Text{.id = "t" + std::to_string(i), .value = watch(values[i]), .max = max, .format = format});
        }
        hud.update(0);
    }
    void frame() { hud.update({.real = Seconds{1.0 / 60}, .game = Seconds{1.0 / 60}}); }
};

void hud_unchanged(benchmark::State& state) {
    World<int> world("{}");
    for (auto _ : state) {
        world.frame();
        benchmark::ClobberMemory();
    }
}

void pointer_loop(benchmark::State& state) {
    std::vector<int> values(count, 1);
    std::vector<const int*> pointers;
    std::vector<int> last(count, 1);
    for (const int& value : values)
        pointers.push_back(&value);
    for (auto _ : state) {
        benchmark::ClobberMemory();
        int changed = 0;
        for (std::size_t i = 0; i < count; ++i) {
            const int now = *pointers[i];
            if (now == last[i]) [[likely]]
                continue;
            last[i] = now;
            ++changed;
        }
        benchmark::DoNotOptimize(changed);
    }
}

void hud_some_change(benchmark::State& state) {
    World<int> world("{} acres");
    std::size_t next = 0;
    for (auto _ : state) {
        for (std::size_t i = 0; i < count / 50; ++i)
            world.values[next = (next + 4999) % count] += 7;
        world.frame();
    }
}

void snprintf_all(benchmark::State& state) {
    std::vector<int> values(count);
    std::vector<std::string> texts(count);
    int frame = 0;
    for (auto _ : state) {
        values[static_cast<std::size_t>(++frame) % count] += 7;
        for (std::size_t i = 0; i < count; ++i) {
            char buffer[32];
            const int length = std::snprintf(buffer, sizeof buffer, "%d acres", values[i]);
            texts[i].assign(buffer, static_cast<std::size_t>(length));
        }
        benchmark::ClobberMemory();
    }
}

void hud_all_change_around(benchmark::State& state, const char* format, const Source& max) {
    World<int> world(format, max);
    for (auto _ : state) {
        for (int& value : world.values)
            value += 7;
        world.frame();
    }
}

void hud_all_change(benchmark::State& state) {
    hud_all_change_around(state, "{} acres", {});
}
void hud_all_change_with_max(benchmark::State& state) {
    hud_all_change_around(state, "{} / {max}", 1'000'000'000);
}
void hud_all_change_with_width(benchmark::State& state) {
    hud_all_change_around(state, "{:>12L} m", {});
}
void hud_all_change_with_prefix(benchmark::State& state) {
    hud_all_change_around(state, "Distance flown since the last refill: {} m", {});
}

void to_chars_all(benchmark::State& state) {
    std::vector<int> values(count);
    for (std::size_t i = 0; i < count; ++i)
        values[i] = static_cast<int>(i);
    struct Buffer {
        char text[32];
        char* end;
    };
    std::vector<Buffer> texts(count);
    for (auto _ : state) {
        for (std::size_t i = 0; i < count; ++i) {
            values[i] += 7;
            char* const end = std::to_chars(texts[i].text, texts[i].text + 20, values[i]).ptr;
            std::memcpy(end, " acres", 6);
            texts[i].end = end + 6;
        }
        benchmark::ClobberMemory();
    }
}

/// What every HUD has to do besides: notice the change through a pointer, keep what is shown, mark who shows
/// it.
void to_chars_noticed(benchmark::State& state) {
    std::vector<int> values(count);
    std::vector<const int*> pointers;
    for (const int& value : values)
        pointers.push_back(&value);
    std::vector<int> last(count, -1);
    struct Element {
        char text[40];
        std::uint64_t shown = 0;
        std::uint64_t revision = 0;
        std::uint32_t changed_in = 0;
        std::uint8_t size = 0;
    };
    std::vector<Element> elements(count);
    std::vector<std::uint32_t> changed;
    std::uint32_t frame = 0;
    for (auto _ : state) {
        for (int& value : values)
            value += 7;
        ++frame;
        changed.clear();
        for (std::uint32_t i = 0; i < count; ++i) {
            const int now = *pointers[i];
            if (now == last[i]) continue;
            last[i] = now;
            changed.push_back(i);
        }
        for (const std::uint32_t i : changed) {
            Element& element = elements[i];
            const auto digits = static_cast<std::uint64_t>(last[i]);
            if (digits == element.shown) continue;
            element.shown = digits;
            char* const end = std::to_chars(element.text, element.text + 20, digits).ptr;
            std::memcpy(end, " acres", 6);
            element.size = static_cast<std::uint8_t>(end + 6 - element.text);
            ++element.revision;
            element.changed_in = frame;
        }
        benchmark::ClobberMemory();
    }
}

void hud_all_tenths_change(benchmark::State& state) {
    World<double> world("{:.1f}");
    for (auto _ : state) {
        for (double& value : world.values)
            value += 0.1;
        world.frame();
    }
}

void fmt_all(benchmark::State& state) {
    std::vector<double> values(count);
    for (std::size_t i = 0; i < count; ++i)
        values[i] = static_cast<double>(i);
    std::vector<std::array<char, 32>> texts(count);
    for (auto _ : state) {
        for (std::size_t i = 0; i < count; ++i) {
            values[i] += 0.1;
            fmt::format_to_n(texts[i].data(), texts[i].size(), "{:.1f}", values[i]);
        }
        benchmark::ClobberMemory();
    }
}

/// A thousand conditions of three terms, each of which shows a text, or does not.
struct Conditions {
    static constexpr std::size_t number = 1'000;
    std::vector<int> costs = std::vector<int>(number, 1), manas = std::vector<int>(number, 5);
    std::vector<char> paused = std::vector<char>(number, 0);
    Hud hud;

    template <class Condition>
    explicit Conditions(Condition condition) {
        for (std::size_t i = 0; i < number; ++i)
            hud.add(Text{.id = "t" + std::to_string(i), .value = condition(costs[i], manas[i], paused[i])});
        hud.update(0);
        if (!hud.problems().empty()) std::abort();
    }
    void run(benchmark::State& state, bool changes) {
        int round = 0;
        for (auto _ : state) {
            ++round;
            if (changes)
                for (int& cost : costs)
                    cost = round % 2 == 0 ? 9 : 1;
            hud.update({.real = Seconds{1.0 / 60}, .game = Seconds{1.0 / 60}});
            benchmark::ClobberMemory();
        }
    }
};
Source computed_condition(const int& cost, const int& mana, const char& paused) {
    return watch(cost) > watch(mana) && !watch(paused);
}
Source called_condition(const int& cost, const int& mana, const char& paused) {
    return watch([&] { return cost > mana && paused == 0; });
}
void hud_conditions_at_rest(benchmark::State& state) {
    Conditions(computed_condition).run(state, false);
}
void hud_lambdas_at_rest(benchmark::State& state) {
    Conditions(called_condition).run(state, false);
}
void hud_conditions_change(benchmark::State& state) {
    Conditions(computed_condition).run(state, true);
}
void hud_lambdas_change(benchmark::State& state) {
    Conditions(called_condition).run(state, true);
}

}  // namespace

std::vector<Case> value_cases() {
    return {
        {"nothing changes", "a bare loop over pointers", 1.5, true, hud_unchanged, pointer_loop},
        {"2 % change", "writing all with snprintf", 30, false, hud_some_change, snprintf_all},
        {"every integer changes", "memcpy and to_chars", 2, true, hud_all_change, to_chars_all},
        {"each noticed, then written", "a loop that compares, keeps, marks", 2, true, hud_all_change, to_chars_noticed},
        {"the same with a maximum", "every integer changes", 2, true, hud_all_change_with_max, hud_all_change},
        {"with a width and groups", "every integer changes", 2, true, hud_all_change_with_width, hud_all_change},
        {"with a long prefix", "every integer changes", 2, true, hud_all_change_with_prefix, hud_all_change},
        {"1,000 conditions at rest", "as many lambdas", 1, true, hud_conditions_at_rest, hud_lambdas_at_rest},
        {"1,000 conditions, all changing", "as many lambdas", 3, true, hud_conditions_change, hud_lambdas_change},
        {"every tenth changes ({:.1f})", "fmt into a buffer", 5, false, hud_all_tenths_change, fmt_all},
    };
}

}  // namespace rapido::bench
