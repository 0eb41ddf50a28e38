// Entries of a container that a HUD declares, made up within what it says of them.
#pragma once

#include <memory>
#include <nlohmann/json.hpp>
#include <vector>

#include "rapido/hud/definition.hpp"
#include "rapido/value/entries.hpp"

namespace rapido::tool {

nlohmann::json json_of(const Value& value);
/// The sources that a HUD declares; entries that markers show, and whose places the code of the game gives, have the fields `x` and `y`, around the middle of
/// the screen.
std::vector<DeclaredSource> sources_with_places(const HudDefinition& definition);
/// Returns what a source usually is: its first sample, or else the middle of its range, false, or its own name.
KeptValue usual_value(const DeclaredSource& source);
/// Returns what a source is at a part of its way through what it can be, 0 to 1.
KeptValue value_at(const DeclaredSource& source, double part);

/// As many entries as are shown of a container, if it may have so many.
std::size_t entry_count(const DeclaredSource& source, const Value& count);
/// Returns a field of an entry: entries differ, and numbers go through their range with `part`, while texts stay what they are.
KeptValue field_at(const DeclaredSource& field, std::size_t entry, double part);
/// Returns the entries of a container as traces have them, a list of objects.
nlohmann::json entries_json(const DeclaredSource& source, std::size_t count, double part);
/// Returns a source that a list can follow: `count` entries, as they usually are.
Source sample_entries(const DeclaredSource& source, std::shared_ptr<const KeptValue> count);

}  // namespace rapido::tool
