// What a HUD declares of its sources, checked.
#pragma once

#include <optional>

#include "rapido/base/exported.hpp"
#include "rapido/hud/definition.hpp"

namespace rapido RAPIDO_EXPORTED {

/// Returns what is wrong with a declared source: a range or a sample that is none of its type. `locations` is null where it was written in C++.
std::optional<Problem> fault_of(const DeclaredSource& source, const Locations* locations);

}  // namespace rapido
