// How numbers are written in a language, and the words of a HUD in it.
#pragma once

#include <array>
#include <functional>
#include <map>
#include <optional>
#include <span>
#include <string>
#include <string_view>
#include <type_traits>
#include <utility>
#include <vector>

#include "rapido/base/exported.hpp"
#include "rapido/text/plural.hpp"

namespace rapido RAPIDO_EXPORTED {

/// How one power of ten is written compactly.
struct CompactForm {
    int drop = 0;  ///< so many digits are left out before the point; zero: written in full
    /// What stands before and after the number, by plural category.
    std::array<std::pair<std::string, std::string>, plural_categories> around{};
    friend RAPIDO_EXPORTED bool operator==(const CompactForm&, const CompactForm&);
};

/// The small table that the core knows of a language: numbers under `L` and `compact_digits`, and plural forms. The
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
    /// What stands before and after an ordinal number, by its category in the rules of ordinals: `st` after 1 and 21.
    std::array<std::pair<std::string, std::string>, plural_categories> ordinal_around = english_ordinals();
    PluralRules ordinals = english_ordinal_rules();

    static std::vector<CompactForm> english_compact();
    /// Returns the forms for names of one's own, each for three more powers of ten: `{"k", "M", "G"}` for thousands, millions
    /// and milliards. At most 40 names count.
    static std::vector<CompactForm> compact_by(std::span<const std::string> names);
    static PluralRules english_plurals();
    static std::array<std::pair<std::string, std::string>, plural_categories> english_ordinals();
    static PluralRules english_ordinal_rules();
    friend RAPIDO_EXPORTED bool operator==(const NumberStyle&, const NumberStyle&);
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
    friend RAPIDO_EXPORTED bool operator==(const Translation&, const Translation&);
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

namespace detail {
/// What becomes a C string, and nothing else in one step.
struct OnlyCString {
    operator const char*() const;
};
template <class T>
concept TextByValue = std::is_same_v<T, std::string> || std::is_same_v<T, std::optional<std::string>>;
}  // namespace detail

/// A catalogue that is a function of the game: one of a `const char*` that returns a `const char*`, which is copied at once while its
/// argument lives, or one of a `std::string_view` or a `const std::string&` that returns a `std::string` or a `std::optional<std::string>`. A null pointer and an
/// empty optional mean that there is no translation.
///
///     rapido::FunctionCatalogue words(&gettext);
///     rapido::FunctionCatalogue others([](std::string_view text) -> std::optional<std::string> { return look_up(text); });
///
/// Such a function that returns a pointer or a view does not compile: it could point into a text that is gone.
class FunctionCatalogue final : public Catalogue {
 public:
    template <class Function>
    requires(!std::is_same_v<std::remove_cvref_t<Function>, FunctionCatalogue>) explicit FunctionCatalogue(
        Function function)
        : function_(wrapped(std::move(function))) {}
    std::optional<Translation> find(std::string_view text) const override {
        std::optional<std::string> found = function_(std::string(text));
        return found ? std::optional(Translation::of(*std::move(found))) : std::nullopt;
    }

 private:
    using Wrapped = std::function<std::optional<std::string>(const std::string&)>;
    template <class Function>
    static Wrapped wrapped(Function function) {
        if constexpr (std::is_invocable_v<Function&, const std::string&>) {
            static_assert(detail::TextByValue<std::invoke_result_t<Function&, const std::string&>>,
                          "rapido::FunctionCatalogue: a function of a std::string_view or a std::string returns a "
                          "std::string or a "
                          "std::optional<std::string>; what a pointer or a view sees may be gone");
            return [held = std::move(function)](const std::string& text) mutable -> std::optional<std::string> {
                return held(text);
            };
        } else {
            static_assert(
                std::is_invocable_v<Function&, detail::OnlyCString>,
                "rapido::FunctionCatalogue takes a function of a std::string_view, a std::string or a const char*");
            return [held = std::move(function)](const std::string& text) mutable -> std::optional<std::string> {
                if constexpr (std::is_convertible_v<decltype(held(text.c_str())), const char*>) {
                    const char* const found = held(text.c_str());
                    return found != nullptr ? std::optional<std::string>(found) : std::nullopt;
                } else {
                    static_assert(detail::TextByValue<decltype(held(text.c_str()))>,
                                  "rapido::FunctionCatalogue: the function returns a const char*, a std::string or a "
                                  "std::optional<std::string>");
                    return held(text.c_str());
                }
            };
        }
    }
    Wrapped function_;
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
