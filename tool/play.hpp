// Plays a trace through a HUD.
#pragma once

#include <iosfwd>
#include <optional>
#include <string>
#include <vector>

#include "rapido/base.hpp"

namespace rapido::tool {

/// Exit statuses of every command.
enum class Exit { fine = 0, problems = 1, usage = 2 };

struct PlayOptions {
    std::string hud;
    std::string trace;
    std::optional<double> rate;    ///< frames a second; without it, one frame a row
    std::vector<double> at;        ///< seconds at which there is a frame for sure
    std::vector<std::string> png;  ///< one for each of `at`, or one for the end
    std::string background;        ///< a PNG behind the pictures
    std::string locale;            ///< a BCP 47 tag; empty is English
    std::string translations;      ///< a file of them
    int width = 1280;
    int height = 800;
    bool table = false;
    bool events = false;
    bool json = false;
};

/// Results go to `out`, problems to `err`.
Exit play(const PlayOptions& options, std::ostream& out, std::ostream& err);

}  // namespace rapido::tool
