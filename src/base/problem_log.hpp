// Problems as they come: each once, and no more of them than anybody reads.
#pragma once

#include <cstddef>
#include <span>
#include <unordered_set>
#include <utility>

#include "rapido/base/exported.hpp"
#include "rapido/base/problem.hpp"

namespace rapido RAPIDO_EXPORTED {

/// Keeps the first hundred different problems and counts the rest, so that what a hostile file can say wrong costs
/// neither time nor memory.
class ProblemLog {
 public:
    static constexpr std::size_t most = 100;

    void report(Problem problem);
    /// Those that are kept, and one more that counts the others. Valid until the next report.
    const Problems& all() const { return problems_; }
    bool empty() const { return problems_.empty(); }
    /// Whether a further problem would only be counted: its words need not be made.
    bool is_full() const { return problems_.size() >= most; }
    /// Those that came since the last call. Valid until the next report.
    std::span<const Problem> take_new() {
        return std::span<const Problem>(problems_).subspan(std::exchange(told_, problems_.size()));
    }
    /// Forgets those that are none any more: `is_mended` takes a problem.
    template <class IsMended>
    void mend(IsMended is_mended) {
        for (std::size_t i = problems_.size(); i-- > 0;) {
            if (!is_mended(problems_[i])) continue;
            known_.erase(hash_of(problems_[i]));
            problems_.erase(problems_.begin() + static_cast<std::ptrdiff_t>(i));
            if (i < told_) --told_;
        }
    }

 private:
    static std::size_t hash_of(const Problem& problem);

    Problems problems_;
    std::size_t told_ = 0;
    std::unordered_set<std::size_t> known_;  ///< hashes of all that were counted, up to a limit
};

/// `and 17 more problems`, without a place.
Problem more_problems(std::size_t count);
/// By file, line and column.
bool stands_before(const Problem& a, const Problem& b);

}  // namespace rapido
