// Names of an earlier version, and what is written in their place.
#pragma once

#include <string>
#include <string_view>

#include "file/toml_text.hpp"

namespace rapido {

/// Returns what a key of version 0.1 is called now; empty where it has not changed. `owner` is the name of the description that has it:
/// "band", "timer", a kind.
std::string_view renamed_key(std::string_view owner, std::string_view key);
/// The same for a word that is the value of a key.
std::string_view renamed_word(std::string_view key, std::string_view word);
/// The same for a call in a recording.
std::string_view renamed_call(std::string_view call);

/// The hint where a name of version 0.1 is read.
std::string renamed_hint(std::string_view now);

/// Writes the pieces of a pattern of version 0.1, `{<key>}...{</>}`, as `{#key}...{/key}`.
std::string upgraded_pattern(std::string_view pattern);
/// Gives a HUD file of version 0.1 the names of today. Returns how many values it then has less, as they stand in one that is computed.
std::size_t upgrade(toml_text::Text& text);

}  // namespace rapido
