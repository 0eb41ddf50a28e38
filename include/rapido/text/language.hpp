// How numbers are written in a language, and the words of a HUD in it.
#pragma once

#include <array>
#include <map>
#include <span>
#include <string>
#include <utility>
#include <vector>

#include "rapido/text/plural.hpp"

namespace rapido {

/// How one power of ten is written compactly.
struct CompactForm {
    int drop = 0;  ///< so many digits are left out before the point; zero: written in full
    /// What stands before and after the number, by plural category.
    std::array<std::pair<std::string, std::string>, plural_categories> around{};
    friend bool operator==(const CompactForm&, const CompactForm&) = default;
};

/// The small table that the core knows of a language: numbers under `L` and `compact`, and plural forms. The
/// default is English. `rapido::number_style("de")` in rapido/locale.hpp makes one out of CLDR.
struct NumberStyle {
    std::array<std::string, 10> digits{"0", "1", "2", "3", "4", "5", "6", "7", "8", "9"};
    std::string decimal = ".";
    std::string group = ",";
    std::string minus = "-";
    std::string plus = "+";
    int primary_group = 3;     ///< digits in the group before the point; zero is no grouping
    int secondary_group = 3;   ///< digits in the groups before that
    int minimum_grouping = 1;  ///< digits that must stand before the first separator
    /// For 10^3, 10^4 and so on; beyond the last, the last counts. Empty: nothing is compact.
    std::vector<CompactForm> compact = english_compact();
    PluralRules plurals = english_plurals();

    static std::vector<CompactForm> english_compact();
    /// Returns the forms for names of one's own, each for three more powers of ten: `{"k", "M", "G"}` for thousands, millions
    /// and milliards. At most 40 names count.
    static std::vector<CompactForm> compact_by(std::span<const std::string> names);
    static PluralRules english_plurals();
    friend bool operator==(const NumberStyle&, const NumberStyle&) = default;
};

/// A translated text: one pattern, or one for each plural category that the language has; `other` is always
/// there.
struct Translation {
    std::array<std::string, plural_categories> forms{};  ///< empty where `other` counts
    friend bool operator==(const Translation&, const Translation&) = default;
};

/// Everything of a HUD that depends on the player's language. Any `format` and `placeholder` in a HUD is a
/// key into the translations; what is not there is shown as it is.
struct Language {
    std::string tag{};           ///< BCP 47, as `ar-EG`; chooses among the fonts of a HUD
    bool right_to_left = false;  ///< layouts are mirrored
    NumberStyle numbers{};
    std::map<std::string, Translation, std::less<>> translations{};
    friend bool operator==(const Language&, const Language&) = default;
};

}  // namespace rapido
