// Languages that are asked for on the command line.
#pragma once

#include <string>

#include "rapido/file.hpp"
#ifdef RAPIDO_WITH_LANGUAGES
#include "rapido/locale.hpp"
#endif

namespace rapido::tool {

/// The language of a tag, English without one, with the translations of a file, or without them where there is none.
/// A problem for a tag that nobody knows, and for any tag where the tool was built without languages.
inline Result<Language> language_of(const std::string& tag, const std::string& translations = {}) {
    Result<Language> made{Language{}};
#ifdef RAPIDO_WITH_LANGUAGES
    if (!tag.empty()) made = language(tag);
#else
    if (!tag.empty())
        return Problem{{},
                       "this build of the tool knows no language but English: not '" + tag + "'",
                       "RAPIDO_LOCALE, which needs ICU, was off",
                       ProblemCode::bad_call};
#endif
    if (!made || translations.empty()) return made;
    auto words = read_translations_file(translations);
    if (!words) return words.problems();
    made->translations = *std::move(words);
    return made;
}

}  // namespace rapido::tool
