#include "file/first_problems.hpp"

#include <algorithm>

#include "base/problem_log.hpp"

namespace rapido {

bool FirstProblems::wants(const Location& place) {
    if (kept_.size() < most || stands_before({place, "", ""}, kept_.front())) return true;
    ++others_;
    return false;
}

void FirstProblems::add(Problem problem) {
    // A style or a component is read as often as it is used.
    if (std::find(kept_.begin(), kept_.end(), problem) != kept_.end()) return;
    if (!wants(problem.location)) return;
    if (kept_.size() == most) {
        std::pop_heap(kept_.begin(), kept_.end(), stands_before);
        kept_.pop_back();
        ++others_;
    }
    kept_.push_back(std::move(problem));
    if (kept_.size() == most) std::make_heap(kept_.begin(), kept_.end(), stands_before);
}

Problems FirstProblems::take() {
    std::stable_sort(kept_.begin(), kept_.end(), stands_before);
    if (others_ > 0) {
        Problem last = more_problems(others_);
        last.location.file = kept_.front().location.file;
        kept_.push_back(std::move(last));
    }
    others_ = 0;
    return std::exchange(kept_, {});
}

}  // namespace rapido
