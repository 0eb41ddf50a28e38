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
/// 1.4.3), and the fills of bars and images that tell something (1.4.11). The ratio of a text is the one that 95 % of its pixels reach, of a
/// fill half of them, of an image a quarter, over the worst of the backdrops.
class ContrastCheck {
 public:
    ContrastCheck(const Checked& checked, Backdrop backdrop) : checked_(checked), backdrop_(std::move(backdrop)) {}

    /// Looks at what the HUD shows now. A problem for a picture that cannot be read.
    Status look(const Hud& hud, const Places& places, const Circumstances& seen, Findings& findings);

 private:
    /// Room to draw in, of one size.
    struct Canvas {
        Picture behind;  ///< the backdrop, where it is a picture
        Picture below;   ///< all that lies below a text
        Picture alone;   ///< the text by itself
    };
    /// What counts of an element besides its texts.
    struct Mark {
        bool counts = false;
        std::optional<Color> color{};  ///< where only what has this color counts
    };
    struct Ratios {
        double text = -1, mark = -1;  ///< negative where there is none
    };
    /// Over the worst of several backgrounds.
    struct Lowest {
        double ratio = -1, over = 0;
        void take(double now, double part) {
            if (now <= 0 || (ratio >= 0 && ratio <= now)) return;
            ratio = now;
            over = part;
        }
    };
    static Mark mark_of(const Hud& hud, ElementRef ref, const Places& places);
    Result<Canvas*> canvas(Size window);
    std::vector<Ratios> ratios(Canvas& canvas, const DisplayList& list, const std::vector<Mark>& marks);
    double ratio_of(Canvas& canvas, const DisplayGroup& group, std::size_t command, double part);

    const Checked& checked_;
    Backdrop backdrop_;
    std::map<std::pair<int, int>, Canvas> canvases_;
    std::vector<double> found_;
};

}  // namespace rapido::tool
