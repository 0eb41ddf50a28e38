// What can be told of a HUD by where its elements stand: room, overlaps, edges, sizes of texts.
#pragma once

#include <array>
#include <functional>
#include <map>
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

/// The same HUD, in which each message has an id, so that a check can let it be said.
HudDefinition with_named_messages(const HudDefinition& definition);
/// In which state a message is as wide as the range of its source lets it be.
using MessageStates = std::map<std::string, std::size_t>;
/// These states, which will stand behind `first` others, and in `where` which message each is for.
std::vector<GameState> widest_messages(const Checked& checked, const Language* language, MessageStates& where,
                                       std::size_t first);
/// Lets each notice say each of its messages; calls back while each of them is seen.
void look_at_messages(Stage& stage, const Checked& checked, const Places& places, const Circumstances& given,
                      const MessageStates& where, const std::function<void()>& while_seen,
                      Findings& findings);

}  // namespace rapido::tool
