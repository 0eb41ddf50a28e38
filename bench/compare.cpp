// Runs every case and prints a line for each: name, ours, theirs, ratio, target, met or not. Exit 1 if one is
// missed.
#include "compare.hpp"

#include <algorithm>
#include <cstdio>
#include <map>

namespace {

/// Keeps the best of the repetitions: on a noisy machine the least disturbed one.
class Collector final : public benchmark::BenchmarkReporter {
 public:
    std::map<std::string, double> best;

    bool ReportContext(const Context&) override { return true; }
    void ReportRuns(const std::vector<Run>& runs) override {
        for (const Run& run : runs) {
            if (run.run_type != Run::RT_Iteration) continue;
            const double time = run.GetAdjustedCPUTime();
            const auto [at, is_new] = best.emplace(run.run_name.function_name, time);
            if (!is_new) at->second = std::min(at->second, time);
        }
    }
};

}  // namespace

int main(int count, char** arguments) {
    // Ours and theirs take turns, so that what disturbs the machine disturbs both.
    std::vector<char*> options(arguments, arguments + count);
    std::string take_turns = "--benchmark_enable_random_interleaving=true";
    options.push_back(take_turns.data());
    int option_count = static_cast<int>(options.size());
    benchmark::Initialize(&option_count, options.data());
    std::vector<rapido::bench::Case> cases = rapido::bench::value_cases();
    for (auto& row : rapido::bench::motion_cases())
        cases.push_back(std::move(row));
    for (auto& row : rapido::bench::layout_cases())
        cases.push_back(std::move(row));
    for (auto& row : rapido::bench::drawing_cases())
        cases.push_back(std::move(row));
    for (auto& row : rapido::bench::mesh_cases())
        cases.push_back(std::move(row));
    for (auto& row : rapido::bench::frame_cases())
        cases.push_back(std::move(row));
    for (auto& row : rapido::bench::file_cases())
        cases.push_back(std::move(row));
    for (const auto& row : cases) {
        for (const auto& [name, run] :
             {std::pair{row.name + "/ours", row.ours_run}, {row.name + "/theirs", row.theirs_run}})
            benchmark::RegisterBenchmark(name.c_str(), run)
                ->Unit(benchmark::kMicrosecond)
                ->Repetitions(5)
                ->MinTime(0.1);
    }
    Collector collector;
    benchmark::RunSpecifiedBenchmarks(&collector);

    std::printf("%-36s %11s %11s  %7s  %-10s %s\n", "case (10,000 elements, or as said)", "ours (us)", "theirs (us)",
                "ratio", "target", "against");
    bool all_met = true;
    for (const auto& row : cases) {
        const double ours = collector.best[row.name + "/ours"];
        const double theirs = collector.best[row.name + "/theirs"];
        if (!(ours > 0) || !(theirs > 0)) continue;  // filtered out
        const double ratio = row.at_most ? ours / theirs : theirs / ours;
        const bool has_target = row.target > 0;
        const bool met = !has_target || (row.at_most ? ratio <= row.target : ratio >= row.target);
        all_met = all_met && met;
        std::printf("%-36s %11.1f %11.1f  %6.2fx  ", row.name.c_str(), ours, theirs, ratio);
        if (has_target)
            std::printf("%s %-4g %s", row.at_most ? "<=" : ">=", row.target, met ? "met   " : "MISSED");
        else
            std::printf("%-14s", "-");
        std::printf("  %s\n", row.theirs.c_str());
    }
    return all_met ? 0 : 1;
}
