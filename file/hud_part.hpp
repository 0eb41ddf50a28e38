// Parts of a HUD as text, for recordings.
#pragma once

#include <string>

#include "rapido/file.hpp"

namespace rapido {

/// Writes what a definition holds; what a file cannot say is left out, and a problem.
std::string write_hud_part(const HudDefinition& definition, Problems& problems);
/// Reads what may be a part of a HUD: it may name what is elsewhere. What components and styles make is counted in `copied`.
Result<HudDefinition> read_hud_part(std::string_view text, const std::string& name, std::size_t& copied);

}  // namespace rapido
