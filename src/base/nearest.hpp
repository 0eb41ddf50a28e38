// Finds the word that was probably meant.
#pragma once

#include <span>
#include <string>
#include <string_view>

#include "rapido/base/exported.hpp"

namespace rapido RAPIDO_EXPORTED {

/// The candidate with the fewest typing slips (insertion, deletion, substitution, exchange of neighbors)
/// from `word`, if they are at most a third of its length, rounded up; otherwise empty. The first of equals
/// wins.
std::string_view nearest(std::string_view word, std::span<const std::string_view> candidates);

/// "did you mean 'x'?", or an empty string where nothing is near.
std::string did_you_mean(std::string_view word, std::span<const std::string_view> candidates);

/// "one of a, b or c": for a message about a word that is in none of a closed list.
std::string one_of(std::span<const std::string_view> words);

}  // namespace rapido
