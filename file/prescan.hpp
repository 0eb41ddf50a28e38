// A look at a TOML text before it is parsed.
#pragma once

#include <limits>
#include <optional>
#include <string>
#include <string_view>

#include "rapido/base/problem.hpp"

namespace rapido {

/// More keys than any table of a HUD file can have: whoever has more is refused before the parser takes its time.
inline constexpr int most_keys_of_hud = 4'000;

/// Refuses what would make a recursive parser run out of stack: brackets nested, or keys dotted, over 64
/// deep; and tables of more than `most_keys` keys. One linear pass that knows strings and comments.
std::optional<Problem> prescan_toml(std::string_view text, const std::string& name,
                                    int most_keys = std::numeric_limits<int>::max());

}  // namespace rapido
