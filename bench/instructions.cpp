// Runs so many frames of a case of the benchmark, for scripts/instructions: under callgrind, the difference of two counts is what the frames took,
// the same on a busy machine and on an idle one.
#include <array>
#include <cstdio>
#include <cstdlib>
#include <string>
#include <string_view>
#include <utility>
#include <vector>

#include "compare.hpp"

namespace {

constexpr std::array counted{
    "2 % change",
    "every integer changes",
    "1,000 springs in flight",
    "1,000 rolls in flight",
    "200 effects in flight",
    "1,000 markers, 40 drawn",
    "sample flight, as it was flown",
    "whole frame, everything moving",
};

}  // namespace

/// Without arguments, the names of the cases; else so many frames of the one with this name. Each count wants a process of its own: a heap
/// that was in use makes the next HUD cost something else.
int main(int count, char** arguments) {
    if (count < 3) {
        for (const std::string_view name : counted)
            std::printf("%s\n", std::string(name).c_str());
        return 0;
    }
    const std::string wanted = arguments[1];
    const int times = std::atoi(arguments[2]);
    int one = 1;
    benchmark::Initialize(&one, arguments);
    std::vector<rapido::bench::Case> cases;
    for (const auto make : {rapido::bench::value_cases, rapido::bench::motion_cases, rapido::bench::layout_cases,
                            rapido::bench::frame_cases})
        for (rapido::bench::Case& row : make())
            cases.push_back(std::move(row));
    for (const rapido::bench::Case& row : cases)
        if (row.name == wanted) benchmark::RegisterBenchmark(row.name.c_str(), row.ours_run)->Iterations(times);
    return benchmark::RunSpecifiedBenchmarks() == 1 ? 0 : 1;
}
