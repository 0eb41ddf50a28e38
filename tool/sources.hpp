// The names that a HUD asks the game for, and those that it offers itself.
#pragma once

#include <iosfwd>
#include <string>

#include "tool/replay.hpp"

namespace rapido::tool {

struct SourcesOptions {
    std::string hud;
    bool json = false;
};

/// A line for each name, in alphabetical order.
Exit names(const SourcesOptions& options, std::ostream& out, std::ostream& err);

}  // namespace rapido::tool
