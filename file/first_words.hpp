// What one writes first, in words that are not those of a HUD file, and how it is written here.
#pragma once

#include <string>
#include <string_view>

#include "base/fields.hpp"
#include "file/toml.hpp"

namespace rapido {

// Each returns a hint, empty where nothing is known.

/// For a key that a description does not have; `value` is what stands there.
std::string hint_for_key(std::string_view key, const toml::node& value, const Table& description);
/// For a word that is no kind.
std::string hint_for_kind(std::string_view word);
/// For a value that a field does not take.
std::string hint_for_value(const Field& field, const toml::node& value);

}  // namespace rapido
