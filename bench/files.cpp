// HUD files: how long the good ones take to be read, and the bad ones to be refused.
#include "compare.hpp"
#include "rapido/file.hpp"
#include "rapido/hud.hpp"

namespace rapido::bench {
namespace {

/// A thousand elements, as a designer writes them: a value, a format, a place, a motion and a band each.
std::string thousand_elements() {
    std::string text = "design = [1280, 800]\n";
    for (int i = 0; i < 1000; ++i)
        text += "[[element]]\nkind = \"text\"\nid = \"e" + std::to_string(i) +
                "\"\nvalue = \"game.value\"\nformat = \"{:L} acres\"\nplace = { anchor = \"top_left\", "
                "offset = [" +
                std::to_string(i % 40 * 30) + ", " + std::to_string(i / 40 * 30) +
                "] }\nmotion = { kind = \"roll\", duration = 0.6 }\nbands = [{ below = 10, color = "
                "\"#ffc24a\" }]\n";
    return text;
}

/// A megabyte that is no HUD: `line` again and again.
std::string megabyte_of(std::string_view line) {
    std::string text;
    while (text.size() < 1'000'000)
        text += line;
    return text;
}

void read(benchmark::State& state, const std::string& text, bool is_good) {
    for (auto _ : state) {
        const Result<HudDefinition> made = read_hud(text, "hud.toml");
        if (made.has_value() != is_good) state.SkipWithError("the file is not what it should be");
        benchmark::DoNotOptimize(made);
    }
}

void read_thousand(benchmark::State& state) {
    read(state, thousand_elements(), true);
}
/// Noise, as of a file that is no text at all.
void refuse_noise(benchmark::State& state) {
    read(state, megabyte_of("\x93q7{]=\"[[x"), false);
}
/// Lines that are TOML, and that no HUD has: each is a problem.
void refuse_unknown_keys(benchmark::State& state) {
    std::string text;
    for (int i = 0; text.size() < 1'000'000; ++i)
        text += "key" + std::to_string(i) + " = " + std::to_string(i) + "\n";
    read(state, text, false);
}
/// Brackets without an end.
void refuse_brackets(benchmark::State& state) {
    read(state, "x = " + megabyte_of("["), false);
}
/// Made out of what was read, without being drawn.
void make_thousand(benchmark::State& state) {
    const Result<HudDefinition> definition = read_hud(thousand_elements(), "hud.toml");
    double value = 5;
    Sources sources;
    sources.set("game.value", watch(value));
    for (auto _ : state) {
        const Hud hud(*definition, sources);
        benchmark::DoNotOptimize(hud.elements());
    }
}

}  // namespace

std::vector<Case> file_cases() {
    return {
        {"HUD file of a thousand elements, read", "a HUD made of it", 0, true, read_thousand, make_thousand},
        {"a megabyte of noise, refused", "a file of a thousand elements, read", 1, true, refuse_noise, read_thousand},
        {"a megabyte of unknown keys, refused", "a file of a thousand elements, read", 1, true, refuse_unknown_keys,
         read_thousand},
        {"a megabyte of brackets, refused", "a file of a thousand elements, read", 1, true, refuse_brackets,
         read_thousand},
    };
}

}  // namespace rapido::bench
