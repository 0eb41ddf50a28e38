// What several tests need.
#pragma once

#include <gtest/gtest.h>

#include <sys/wait.h>
#include <array>
#include <cstdio>
#include <filesystem>
#include <fstream>
#include <random>
#include <string>

#include "rapido/rapido.hpp"

namespace rapido::test {

using namespace std::chrono_literals;

/// Repeatable random numbers.
class Random {
 public:
    explicit Random(std::uint64_t seed) : engine_(seed) {}
    std::uint64_t bits() { return engine_(); }
    int below(int count) { return static_cast<int>(engine_() % static_cast<std::uint64_t>(count)); }
    double unit() { return static_cast<double>(engine_() >> 11) * 0x1p-53; }
    double between(double low, double high) { return low + (high - low) * unit(); }

 private:
    std::mt19937_64 engine_;
};

/// Adds one to a number written in decimal digits, with pencil and paper: 1999 becomes 2000.
inline void add_one(std::string& digits) {
    std::size_t i = digits.size();
    while (i > 0 && digits[i - 1] == '9')
        digits[--i] = '0';
    if (i > 0)
        ++digits[i - 1];
    else
        digits.insert(0, 1, '1');
}

/// One frame of both clocks.
inline void update(Hud& hud, Seconds step) {
    hud.update({.real = step, .game = step});
}

inline std::string text_of(Hud& hud, ElementRef element) {
    return std::string(hud[element].text);
}

/// A measurer that is all arithmetic: every code unit is half an em wide, the ascent 0.75 and the descent
/// 0.25 em.
class BoxMeasurer final : public TextMeasurer {
 public:
    int shaped = 0;

    std::optional<FontId> find(std::string_view family, int, bool) override {
        return family == "missing" ? std::nullopt : std::optional<FontId>(0);
    }
    FontMetrics metrics(FontId) override { return {0.75F, 0.25F}; }
    float shape(FontId, float size, std::string_view text, std::vector<Glyph>& glyphs) override {
        ++shaped;
        glyphs.clear();
        for (std::size_t i = 0; i < text.size(); ++i)
            glyphs.push_back({static_cast<std::uint32_t>(text[i]), {size / 2 * static_cast<float>(i), 0}});
        return size / 2 * static_cast<float>(text.size());
    }
};

#ifdef RAPIDO_TOOL
struct Ran {
    int exit = 0;
    std::string out;  ///< with standard error
};

/// Runs the command line tool; the arguments are shell words.
inline Ran run_tool(const std::string& arguments) {
    Ran ran;
    FILE* pipe = popen((std::string(RAPIDO_TOOL) + " 2>&1 " + arguments).c_str(), "r");
    std::array<char, 4096> block;
    for (std::size_t n = 0; (n = fread(block.data(), 1, block.size(), pipe)) > 0;)
        ran.out.append(block.data(), n);
    ran.exit = WEXITSTATUS(pclose(pipe));
    return ran;
}
#endif

/// A folder of this test's own, removed with it.
class TemporaryFolder {
 public:
    TemporaryFolder() {
        const auto* info = testing::UnitTest::GetInstance()->current_test_info();
        path_ = std::filesystem::temp_directory_path() /
                (std::string("rapido_") + info->test_suite_name() + "_" + info->name());
        std::filesystem::create_directories(path_);
    }
    ~TemporaryFolder() { std::filesystem::remove_all(path_); }

    std::string path(const std::string& name) const { return (path_ / name).string(); }
    std::string write(const std::string& name, const std::string& text) const {
        std::ofstream(path(name), std::ios::binary) << text;
        return path(name);
    }

 private:
    std::filesystem::path path_;
};

inline std::string sample(const std::string& name) {
    return std::string(RAPIDO_SOURCE_DIR) + "/demo/ember_ridge/" + name;
}

}  // namespace rapido::test
