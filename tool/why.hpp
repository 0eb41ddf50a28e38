// What the codes of problems mean, and how they are mended.
#pragma once

#include <iosfwd>
#include <string>

#include "tool/replay.hpp"

namespace rapido::tool {

struct WhyOptions {
    std::string code;    ///< empty for all of them
    bool pages = false;  ///< all of them, as the pages of docs/problems.md
};

Exit why(const WhyOptions& options, std::ostream& out, std::ostream& err);

}  // namespace rapido::tool
