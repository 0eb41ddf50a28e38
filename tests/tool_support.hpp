// What tests need that run the tool, or write files.
#pragma once

#include <gtest/gtest.h>

#ifdef RAPIDO_TOOL
#include <sys/wait.h>
#endif
#include <array>
#include <chrono>
#include <cstdio>
#include <filesystem>
#include <fstream>
#include <random>
#include <string>

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
