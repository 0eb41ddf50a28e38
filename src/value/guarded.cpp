#include "rapido/value/detail/guarded.hpp"

#include <algorithm>
#include <utility>

namespace rapido::detail {
namespace {

thread_local std::vector<ReadFailure>* reading = nullptr;

}  // namespace

ReadFailures::ReadFailures(std::vector<ReadFailure>& into) : around_(std::exchange(reading, &into)) {}

ReadFailures::~ReadFailures() {
    reading = around_;
}

bool tell_failure(const void* reader, std::string_view what) {
    if (reading == nullptr) return false;
    const ReadFailure failure{reader, std::string(what)};
    if (std::find(reading->begin(), reading->end(), failure) == reading->end()) reading->push_back(failure);
    return true;
}

}  // namespace rapido::detail
