// A HUD that any program drives which can print: JSON Lines on standard input.
#pragma once

#include <iosfwd>
#include <string>

#include "rapido/base/units.hpp"
#include "tool/replay.hpp"

namespace rapido::tool {

struct DriveOptions {
    std::string hud;
    Size size{1280, 800};
    double scale = 1;
    std::string language{}, translations{}, theme{};
    std::string background{};
    std::string png{};  ///< the picture that is written again and again, and at the end; empty for none
    double rate = 5;    ///< pictures a second at most
    bool window = false;
    bool events = false;  ///< on standard output, as they happen
    bool table = false;   ///< what each element shows at the end
    bool json = false;
};

/// Reads descriptor 0 until it ends, or the window is closed.
Exit live(const DriveOptions& options, std::ostream& out, std::ostream& err);

}  // namespace rapido::tool
