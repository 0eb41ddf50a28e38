// What may be the name of a source.
#pragma once

#include <string_view>

namespace rapido {

/// Says what is wrong with a name, after "the name 'x' "; empty for a good one. Names are ASCII letters, digits, `_` and `-` in parts
/// that are joined by dots, and begin with a letter or `_`; the first part is no word of a condition, and not `screen`. Recordings
/// name what has no name with `:` and `#`.
std::string_view fault_of_name(std::string_view name);

}  // namespace rapido
