#include "base/problem_log.hpp"

#include <functional>
#include <string_view>
#include <tuple>

namespace rapido {

Problem more_problems(std::size_t count) {
    return {{}, "and " + std::to_string(count) + (count == 1 ? " more problem" : " more problems"), ""};
}

bool stands_before(const Problem& a, const Problem& b) {
    return std::tie(a.location.file, a.location.line, a.location.column) <
           std::tie(b.location.file, b.location.line, b.location.column);
}

std::size_t ProblemLog::hash_of(const Problem& problem) {
    const std::hash<std::string_view> hash;
    return hash(problem.message) ^ hash(problem.location.file) * 3 ^
           ((static_cast<std::size_t>(problem.location.line) << 20U) +
            static_cast<std::size_t>(problem.location.column));
}

void ProblemLog::report(Problem problem) {
    // Beyond this many nobody counts, and a program that is wrong in every frame does not grow.
    constexpr std::size_t most_counted = 10'000;
    if (known_.size() >= most_counted) return;
    if (!known_.insert(hash_of(problem)).second) return;
    if (problems_.size() < most) return problems_.push_back(std::move(problem));
    problems_.resize(most);
    problems_.push_back(more_problems(known_.size() - most));
}

}  // namespace rapido
