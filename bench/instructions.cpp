// Runs eight cases of the benchmark under callgrind, so many frames each and then twice as many. Their difference is what the frames took: instructions
// are the same on a busy machine and on an idle one.
#include <valgrind/callgrind.h>

#include <array>
#include <cstdio>
#include <string>

#include "compare.hpp"

namespace {

/// A part of the counts ends after each run, in the order in which they were asked for. The first of three is not counted: it leaves the
/// heap as the others find it, so that what is made costs both of them the same.
class Parts final : public benchmark::BenchmarkReporter {
 public:
    bool ReportContext(const Context&) override { return true; }
    void ReportRuns(const std::vector<Run>& runs) override {
        for (const Run& run : runs) {
            if (number_++ % 3 == 0) {
                CALLGRIND_ZERO_STATS;
                continue;
            }
            CALLGRIND_DUMP_STATS_AT(run.benchmark_name().c_str());
            std::printf("%s|%lld\n", run.run_name.function_name.c_str(), static_cast<long long>(run.iterations));
        }
    }

 private:
    int number_ = 0;
};

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
constexpr int frames = 60;

}  // namespace

int main(int count, char** arguments) {
    benchmark::Initialize(&count, arguments);
    std::vector<rapido::bench::Case> cases;
    for (const auto make : {rapido::bench::value_cases, rapido::bench::motion_cases, rapido::bench::layout_cases,
                            rapido::bench::frame_cases})
        for (rapido::bench::Case& row : make())
            cases.push_back(std::move(row));
    for (const std::string_view name : counted)
        for (const rapido::bench::Case& row : cases)
            if (row.name == name)
                for (const int times : {1, 1, 2})
                    benchmark::RegisterBenchmark(row.name.c_str(), row.ours_run)->Iterations(frames * times);
    Parts parts;
    benchmark::RunSpecifiedBenchmarks(&parts);
}
