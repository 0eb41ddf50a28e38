// A HUD without its game: in a window, or as a picture at each save.
#pragma once

#include <array>
#include <iosfwd>
#include <optional>
#include <string>
#include <vector>

#include "rapido/base/units.hpp"
#include "tool/replay.hpp"

namespace rapido::tool {

struct PreviewOptions {
    std::string hud;
    std::string trace{};  ///< empty: a sweep of what the HUD declares
    /// Of the window, through which a key goes; empty for the design's and three usual ones.
    std::vector<Size> sizes{};
    std::vector<std::string> languages{};  ///< through which a key goes, besides the HUD as it is written
    std::vector<std::string> translations{};
    std::string theme{};
    std::string background{};  ///< a picture; empty for a plain backdrop
    double scale = 1;
    double at = 0;  ///< seconds at which it begins
    bool paused = false;
    std::string png{};               ///< the picture to write, in place of a window; with a window, what its key writes
    bool follow = false;             ///< writes the picture again at each save
    std::optional<Point> point{};    ///< explains the element there, and ends
    std::vector<std::string> set{};  ///< `plane.water=300`, by hand
};

Exit preview(const PreviewOptions& options, std::ostream& out, std::ostream& err);

}  // namespace rapido::tool
