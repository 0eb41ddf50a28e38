// What the preview shows around the HUD: a bar with where it stands, what is wrong with the file, the keys, and the values that are set by
// hand. It is a HUD, too.
#pragma once

#include <string>
#include <vector>

#include "rapido/fonts.hpp"
#include "rapido/hud.hpp"
#include "rapido/images.hpp"

namespace rapido::tool {

class PreviewFrame {
 public:
    static constexpr float bar_height = 36;  ///< design pixels, which are those of the desktop

    /// One line of the list of values.
    struct Line {
        std::string name, value, range;
        bool is_chosen = false, is_by_hand = false;
    };
    /// What it says in this frame.
    struct Says {
        std::string file, time, state, view;
        double part = 0;  ///< of the whole time, 0 to 1
        std::vector<std::string> problems{};
        bool is_broken = false;   ///< what is shown is the last good one
        bool is_nothing = false;  ///< there is none
        bool has_bar = true;
        bool shows_keys = false;
        std::vector<Line> values{};  ///< empty: they are not shown
        std::string typed{};
        std::string note{};  ///< `wrote hud.png`, for a moment
    };

    PreviewFrame(Fonts& fonts, ImageFinder* images);
    void show(const Says& says, const Viewport& viewport, float pixel_ratio, Seconds step);
    void draw(DisplayList& list) const { hud_.draw(list); }

 private:
    static constexpr std::size_t lines = 14, problem_lines = 8;

    void add_bar();
    void add_problems();
    void add_keys();
    void add_values();

    Says says_;
    Size design_;
    Hud hud_;
};

}  // namespace rapido::tool
