// How well texts stand out from what lies behind them.
#pragma once

#include <array>
#include <optional>

#include "rapido/picture.hpp"
#include "tool/check_stage.hpp"

namespace rapido::tool {

/// What may lie behind a HUD: a picture, or else all greys between two, 0 to 1.
struct Backdrop {
    std::string picture{};
    std::array<double, 2> grey{0, 1};
};

/// Draws what a HUD shows now over the backdrop, and compares the characters of each text with what lies below them (WCAG 2.x, success criterion
/// 1.4.3). The ratio of a text is the one that 95 % of its pixels reach, over the worst of the backdrops. A problem for a picture that cannot be
/// read.
Status check_contrast(Stage& stage, const Checked& checked, const Places& places, const Circumstances& seen,
                      const Backdrop& backdrop, Findings& findings);

}  // namespace rapido::tool
