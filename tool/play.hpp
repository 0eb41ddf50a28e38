// Plays a trace through a HUD: pictures, a table, events.
#pragma once

#include <iosfwd>

#include "tool/replay.hpp"

namespace rapido::tool {

struct PlayOptions {
    ReplayOptions replay;
    std::vector<double> at{};        ///< seconds at which there is a frame for sure
    std::vector<std::string> png{};  ///< one for each of `at`, or one for the end
    std::string sheet{};             ///< one picture of all moments of `at`, or of ten even ones
    std::optional<Point> overlay{};  ///< boxes and ids over the pictures, and the explanation of what is at this point
    std::string background{};        ///< a PNG behind the pictures
    std::vector<std::string> explain{};  ///< paths or ids of elements, explained at each of `at`
    bool table = false;
    std::vector<std::string> columns{};  ///< of the table; empty for the usual ones
    std::string crop{};                  ///< the path or id of an element that fills the pictures of the sheet
    bool events = false;
    bool json = false;
};

/// Results go to `out`, problems to `err`.
Exit play(const PlayOptions& options, std::ostream& out, std::ostream& err);

}  // namespace rapido::tool
