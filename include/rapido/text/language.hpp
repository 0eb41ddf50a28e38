// How numbers are written in a language, and the words of a HUD in it.
#pragma once

#include <array>
#include <functional>
#include <map>
#include <optional>
#include <span>
#include <string>
#include <string_view>
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

    /// Returns one pattern for all numbers.
    static Translation of(std::string pattern) {
        Translation made;
        made.forms.back() = std::move(pattern);
        return made;
    }
    friend bool operator==(const Translation&, const Translation&) = default;
};

/// The translations of a game that has a catalogue of its own:
///
///     struct Words final : rapido::Catalogue {
///         std::optional<rapido::Translation> find(std::string_view text) const override {
///             if (const char* const word = game_text(text)) return rapido::Translation::of(word);
///             return std::nullopt;
///         }
///     };
class Catalogue {
 public:
    virtual ~Catalogue() = default;
    /// Returns the translation of a text of a HUD, or nothing: then it is shown as it is. A HUD asks on its own thread when the language
    /// is set, and for what comes later; never in a frame in which nothing is new.
    virtual std::optional<Translation> find(std::string_view text) const = 0;
};

/// A catalogue that is a function of the game:
///
///     rapido::FunctionCatalogue words([](std::string_view text) { return gettext(std::string(text).c_str()); });
class FunctionCatalogue final : public Catalogue {
 public:
    using Function = std::function<std::optional<std::string>(std::string_view)>;
    explicit FunctionCatalogue(Function function) : function_(std::move(function)) {}
    std::optional<Translation> find(std::string_view text) const override {
        std::optional<std::string> found = function_(text);
        return found ? std::optional(Translation::of(*std::move(found))) : std::nullopt;
    }

 private:
    Function function_;
};

/// Everything of a HUD that depends on the player's language. Any `format` and `placeholder` in a HUD is a
/// key into the translations; what is not there is shown as it is.
struct Language {
    std::string tag{};           ///< BCP 47, as `ar-EG`; chooses among the fonts of a HUD
    bool right_to_left = false;  ///< layouts are mirrored
    NumberStyle numbers{};
    std::map<std::string, Translation, std::less<>> translations{};
    /// Asked for what `translations` do not have; null for none. It must outlive the HUDs that speak the language, and does not count when
    /// two are compared.
    const Catalogue* catalogue = nullptr;

    /// Returns the translation of a text; nothing where there is none.
    std::optional<Translation> translation(std::string_view text) const;
    friend bool operator==(const Language& a, const Language& b) {
        return a.tag == b.tag && a.right_to_left == b.right_to_left && a.numbers == b.numbers &&
               a.translations == b.translations;
    }
};

}  // namespace rapido
