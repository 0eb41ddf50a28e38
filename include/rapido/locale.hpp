// Number styles and plural rules out of CLDR.
#pragma once

#include <string>
#include <string_view>

#include "rapido/base/problem.hpp"
#include "rapido/text/language.hpp"

namespace rapido {

/// How numbers are written in the language of a BCP 47 tag (`de`, `ar-EG`, `hi-IN-u-nu-deva`): digits, marks,
/// grouping, compact forms and plural rules, out of ICU's copy of CLDR. Made once; the core sees only the
/// table. A problem for a tag that is malformed, or of a language that CLDR does not know.
Result<NumberStyle> number_style(std::string_view tag);

/// The same as a language: with its tag and its direction, and no translations yet.
Result<Language> language(std::string_view tag);

}  // namespace rapido
