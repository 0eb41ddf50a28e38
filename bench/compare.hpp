// A case: ours against theirs, in one run of one program, with the ratio that we promise.
#pragma once

#include <benchmark/benchmark.h>

#include <string>
#include <vector>

namespace rapido::bench {

struct Case {
    std::string name;
    std::string theirs;   ///< what it is measured against
    double target = 0;    ///< see `at_most`; zero: none
    bool at_most = true;  ///< ours / theirs at most the target, or theirs / ours at least
    void (*ours_run)(benchmark::State&) = nullptr;
    void (*theirs_run)(benchmark::State&) = nullptr;
};

/// The cases of the table in docs/speed.md.
std::vector<Case> value_cases();
std::vector<Case> motion_cases();
std::vector<Case> layout_cases();
std::vector<Case> drawing_cases();
std::vector<Case> mesh_cases();
std::vector<Case> frame_cases();
std::vector<Case> file_cases();

}  // namespace rapido::bench
