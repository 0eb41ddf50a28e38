// What traces of both formats have in common.
#pragma once

#include <cstddef>
#include <optional>
#include <string>
#include <string_view>

#include "rapido/base/problem.hpp"

namespace rapido {

inline constexpr std::size_t largest_trace = 256'000'000;
inline constexpr std::size_t most_columns = 1024;
inline constexpr double latest_time = 1e9;  ///< seconds

/// What is wrong with the text as a whole.
std::optional<Problem> trace_fault(std::string_view text, const std::string& name);

}  // namespace rapido
