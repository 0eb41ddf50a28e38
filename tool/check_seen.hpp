// What of a HUD is seen at a moment, for the checks that look at it.
#pragma once

#include <string>
#include <string_view>
#include <vector>

#include "rapido/element/panel.hpp"
#include "tool/check_stage.hpp"

namespace rapido::tool {

/// An element as it is seen.
struct Seen {
    std::string path;
    std::string kind;
    std::string name;
    Rect box;  ///< in design pixels
    Rect ink;  ///< where there is something to see, about: less than the box of a line of text
    bool is_text = false;
    bool draws = true;  ///< false for what only arranges others
    bool moves_in_world = false;
    bool rides = false;  ///< over a fill, at its end
};

/// All that is seen now, with its box.
std::vector<Seen> seen_of(const Hud& hud, const Places& places);

/// The screen in design pixels, and what of it is safe.
struct Screen {
    Rect whole, safe;
};
Screen screen_of(const Checked& checked, const Circumstances& seen);

std::optional<Panel> panel_of(const Element* element);
Rect common(const Rect& a, const Rect& b);
/// A length in a message, to a tenth of a pixel.
std::string pixels(float length);
std::string quoted(std::string_view text);

/// Finds that something leaves the screen or its safe area, at rest or by an effect.
void find_beyond(const Seen& one, const Screen& screen, const Places& places, const Circumstances& seen,
                 const std::string& effect, Findings& findings);
/// Finds that an element has less room than what it shows needs.
void find_lack(const Hud& hud, ElementRef ref, const Places& places, const Circumstances& seen,
               const std::string& shows, Findings& findings);

}  // namespace rapido::tool
