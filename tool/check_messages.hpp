// The messages of notices, each as wide as it can be.
#pragma once

#include <functional>
#include <map>
#include <string>
#include <vector>

#include "tool/check_stage.hpp"

namespace rapido::tool {

/// The same HUD, in which each message has an id, so that a check can let it be said.
HudDefinition with_named_messages(const HudDefinition& definition);
/// In which state a message is as wide as the range of its source lets it be.
using MessageStates = std::map<std::string, std::size_t>;
/// These states, which will stand behind `first` others, and in `where` which message each is for.
std::vector<GameState> widest_messages(const Checked& checked, const Language* language, MessageStates& where,
                                       std::size_t first);
/// Lets each notice say each of its messages; calls back while each of them is seen.
void look_at_messages(Stage& stage, const Checked& checked, const Places& places, const Circumstances& given,
                      const MessageStates& where, const std::function<void()>& while_seen, Findings& findings);

}  // namespace rapido::tool
