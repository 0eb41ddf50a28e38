// What can be told of a HUD by where its elements stand: room, overlaps, edges, sizes of texts.
#pragma once

#include <array>
#include <optional>

#include "tool/check_stage.hpp"

namespace rapido::tool {

/// The smallest size of a font, in pixels, at a height of the window.
using SmallestText = std::optional<std::array<double, 2>>;

/// For each element that shows text, a state in which its text is as wide as the ranges of its sources let it be. `base` are states in
/// which it may be seen at all, the usual one first.
std::vector<GameState> widest_states(const Checked& checked, const std::vector<GameState>& base,
                                     const Language* language);

/// Looks at what a HUD shows now.
void look(Stage& stage, const Checked& checked, const Places& places, const Circumstances& seen,
          const SmallestText& smallest, Findings& findings);
/// Plays each effect that an element may start of itself, and looks at how far it goes. Enter and leave may begin and end outside.
void look_at_effects(Stage& stage, const Checked& checked, const Places& places, const Circumstances& seen,
                     Findings& findings);
/// What the flash limit holds at this moment: what flashes too often for what it covers (WCAG 2.3.1). The time may be empty.
void find_held_flashes(const Hud& hud, const Places& places, const std::string& time, Findings& findings);

}  // namespace rapido::tool
