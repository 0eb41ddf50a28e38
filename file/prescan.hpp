// A look at a TOML text before it is parsed.
#pragma once

#include <optional>
#include <string>
#include <string_view>

#include "rapido/base/problem.hpp"

namespace rapido {

/// Refuses what would make a recursive parser run out of stack: brackets nested, or keys dotted, over 64
/// deep. One linear pass that knows strings and comments.
std::optional<Problem> prescan_toml(std::string_view text, const std::string& name);

}  // namespace rapido
