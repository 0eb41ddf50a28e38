// Paths that untrusted files name.
#pragma once

#include <string_view>

#include "rapido/base/exported.hpp"

namespace rapido RAPIDO_EXPORTED {

/// Whether a path names something inside a folder, on every system: it is relative, has no `..`, no drive and no stream of Windows (`c:`, `a:b`), no
/// null character, and no part of it is a device there (`nul`, `com1.toml`). Parts are divided by `/` or `\`. A link may still lead out.
bool stays_inside(std::string_view path);

}  // namespace rapido
