// How well texts stand out from what lies behind them.
#pragma once

#include <array>
#include <map>
#include <utility>
#include <vector>

#include "rapido/picture.hpp"
#include "tool/check_stage.hpp"

namespace rapido::tool {

/// What may lie behind a HUD: a picture, or else all grays between two, 0 to 1.
struct Backdrop {
    std::string picture{};
    std::array<double, 2> gray{0, 1};
};

/// Draws what a HUD shows over the backdrop, and compares the characters of each text with what lies below them (WCAG 2.x, success criterion
/// 1.4.3). The ratio of a text is the one that 95 % of its pixels reach, over the worst of the backdrops.
class ContrastCheck {
 public:
    ContrastCheck(const Checked& checked, Backdrop backdrop)
        : checked_(checked), backdrop_(std::move(backdrop)) {}

    /// Looks at what the HUD shows now. A problem for a picture that cannot be read.
    Status look(const Hud& hud, const Places& places, const Circumstances& seen, Findings& findings);

 private:
    /// Room to draw in, of one size.
    struct Canvas {
        Picture behind;  ///< the backdrop, where it is a picture
        Picture below;   ///< all that lies below a text
        Picture alone;   ///< the text by itself
    };
    Result<Canvas*> canvas(Size window);
    std::vector<double> ratios(Canvas& canvas, const DrawList& list);
    double ratio_of(Canvas& canvas, const DrawGroup& group, std::size_t command);

    const Checked& checked_;
    Backdrop backdrop_;
    std::map<std::pair<int, int>, Canvas> canvases_;
    std::vector<double> found_;
};

}  // namespace rapido::tool
