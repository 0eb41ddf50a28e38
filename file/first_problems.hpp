// The problems of one file.
#pragma once

#include <cstddef>

#include "rapido/base/problem.hpp"

namespace rapido {

/// Keeps the first hundred problems by their place, however they come, and counts the rest: a hostile file may have
/// hundreds of thousands.
class FirstProblems {
 public:
    static constexpr std::size_t most = 100;

    /// Whether one with this place would be kept: for others the words need not be made. Counts it if not.
    bool wants(const Location& place);
    void add(Problem problem);
    /// How many there were, kept or not.
    std::size_t count() const { return kept_.size() + others_; }
    /// By place; last comes the count of those that were not kept. Nothing is left here.
    Problems take();

 private:
    Problems kept_;  ///< a heap, the last one in front, once there are as many as are kept
    std::size_t others_ = 0;
};

}  // namespace rapido
