// Sources that are computed from others, as HUD files write them.
#pragma once

#include <functional>
#include <string>
#include <string_view>

#include "rapido/base/exported.hpp"
#include "rapido/base/problem.hpp"
#include "rapido/value/source.hpp"

namespace rapido RAPIDO_EXPORTED {

/// What stands for a name in an expression; a name that begins with `$` is given as it is. A problem of it is that of the whole.
using NamedOperand = std::function<Result<Source>(std::string_view name)>;

/// Reads `player.shield > 0 and not world.paused`: see `docs/conditions.md` for the notation. A problem has no place of its own; its
/// message begins with a verb and says at which character of the text it is: `ends where a value is wanted, at character 9`. Without
/// `named`, a name is the source that the game offers under it.
Result<Source> parse_expression(std::string_view text, const NamedOperand& named = {});

/// Writes a source as `parse_expression` reads it; empty for one that has no name and is no constant, or is read as time left.
std::string write_expression(const Source& source);

}  // namespace rapido
