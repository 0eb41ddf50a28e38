// Plots elements of a replay over time.
#pragma once

#include <iosfwd>

#include "tool/replay.hpp"

namespace rapido::tool {

struct PlotOptions {
    ReplayOptions replay;
    std::vector<std::string> of;  ///< the ids or paths of the elements, from the top down
    std::string png;              ///< the picture to write
    std::optional<double> from;   ///< seconds; without it, the first row
    std::optional<double> to;     ///< seconds; without it, the last row
};

/// True, target and shown value over time, the effects that ran, and the texts that were seen. Problems go to `err`.
Exit plot(const PlotOptions& options, std::ostream& err);

}  // namespace rapido::tool
