// What can be told of a HUD without showing it.
#pragma once

#include "tool/check_stage.hpp"

namespace rapido::tool {

/// The word of a type in files.
std::string word_of(SourceType type);
/// Whether values of a type can be what was declared; no value can be anything.
bool fits(Value::Type given, SourceType declared);
/// Names and types: what the HUD asks for beside what is declared, and what is declared beside what a trace has (null for none).
void check_names(const Checked& checked, const Hud& hud, const Trace* trace, Findings& findings);
/// Bands, elements and marks that nothing can reach; states that only a color tells; effects that flash too often.
void check_parts(const Checked& checked, const Hud& hud, const Places& places, Findings& findings);

}  // namespace rapido::tool
