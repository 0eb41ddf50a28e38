// A trace out of what a HUD declares of its sources, for a look at it without a game.
#pragma once

#include "rapido/file.hpp"

namespace rapido::tool {

/// Twelve seconds: the usual values for two; every number through its range and back, flags on and off, texts in turn, containers as full as they can be; the usual values again. A
/// problem where nothing is declared.
Result<Trace> sweep_of(const HudDefinition& definition, const std::string& file);

}  // namespace rapido::tool
