// Texts of an element: patterns, in the language of their description or in another one.
#pragma once

#include "element/text_block.hpp"
#include "rapido/base/exported.hpp"
#include "rapido/text/language.hpp"

namespace rapido RAPIDO_EXPORTED {

/// One pattern of an element, as its description gives it.
struct Pattern {
    const std::string& format;
    const PluralForms* plural = nullptr;  ///< null where one pattern counts for all
    bool has_value = false;
    bool has_max = false;
    std::string_view field = "format";          ///< where it is written
    std::span<const std::string_view> names{};  ///< fields of its own
    bool asks_for_rounding = false;             ///< its description names another rounding than to nearest
    PieceLooks* looks = nullptr;                ///< where the looks of its pieces are found, if anywhere
    PieceLooks::Around around{};                ///< the text in which they stand
};

/// What `automatic` stands for.
Rounding rounding_for(Rounding rounding, detail::ValueUse use, bool has_max);

/// The text of a pattern in a language, null for its own: the pattern may be a key into the translations. Faults are
/// reported; nothing if there is no text without them.
std::optional<FormattedText> make_formatted_text(const Pattern& pattern, TextOptions options, const Language* language,
                                                 BodyContext& context);

}  // namespace rapido
