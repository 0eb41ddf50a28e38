// Languages that are asked for on the command line.
#pragma once

#include <string>

#include "rapido/file.hpp"
#include "rapido/locale.hpp"

namespace rapido::tool {

/// The language of a tag, English without one, with the translations of a file, or without them where there is none.
inline Result<Language> language_of(const std::string& tag, const std::string& translations) {
    Result<Language> made = tag.empty() ? Result<Language>(Language{}) : language(tag);
    if (!made || translations.empty()) return made;
    auto words = read_translations_file(translations);
    if (!words) return words.problems();
    made->translations = *std::move(words);
    return made;
}

}  // namespace rapido::tool
