// What is wrong with a HUD before a player sees it.
#pragma once

#include <array>
#include <iosfwd>
#include <optional>
#include <string>
#include <vector>

#include "rapido/base/units.hpp"
#include "tool/replay.hpp"

namespace rapido::tool {

struct CheckOptions {
    std::string hud;
    std::string trace{};                          ///< empty for none
    std::vector<Size> sizes{};                    ///< of windows; empty for the design and three usual ones
    std::vector<double> scales{};                 ///< the player's; empty is 1
    std::vector<std::string> languages{};         ///< BCP 47; besides the HUD as it is written
    std::vector<std::string> translations{};      ///< files, for the languages in the same order
    std::string background{};                     ///< a picture behind the HUD; empty for none
    std::optional<std::array<double, 2>> gray{};  ///< without a picture: from which gray to which, 0 to 1
    /// The smallest size of a font in pixels, at a height of the window.
    std::optional<std::array<double, 2>> smallest_text{};
    double safe_area = 0;  ///< what of each edge may be hidden, as a part of the window
    bool json = false;
};

/// Prints what it finds, a line each, and says how much was looked at.
Exit check(const CheckOptions& options, std::ostream& out, std::ostream& err);

}  // namespace rapido::tool
