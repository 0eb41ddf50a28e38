// Number styles and plural rules out of CLDR.
#pragma once

#include <map>
#include <string>
#include <string_view>

#include "rapido/base/exported.hpp"
#include "rapido/base/problem.hpp"
#include "rapido/text/language.hpp"

namespace rapido RAPIDO_EXPORTED {

class Hud;

/// How numbers are written in the language of a BCP 47 tag (`de`, `ar-EG`, `hi-IN-u-nu-deva`): digits, marks,
/// grouping, compact forms and plural rules, out of ICU's copy of CLDR. Made once; the core sees only the
/// table. A problem for a tag that is malformed, or of a language that CLDR does not know.
Result<NumberStyle> number_style(std::string_view tag);

/// Returns the pattern for an amount of money in the language of a tag, by CLDR: the currency (ISO 4217: `EUR`), where its
/// symbol and the sign stand, the marks, and as many decimals as the currency has. It is a format for a text: in English
/// `{sign}${:.2Lf}`, in German `{sign}{:.2Lf} €`. A game translates its own pattern by it, so that one element shows money in
/// every language:
///
///     language.translations["{sign}${:.2Lf}"].forms[other] = *rapido::currency_format("de", "EUR");
///
/// A problem for a tag as above, or a currency code that is not three letters.
Result<std::string> currency_format(std::string_view tag, std::string_view currency);

/// The same as a language: with its tag and its direction, and no translations yet.
Result<Language> language(std::string_view tag);

/// Shows a HUD in the language of a tag, with the words of a catalogue, which must outlive it, or with translations as
/// `read_translations_file` gives them: `rapido::set_language(hud, "de", &words)`. A problem for a tag as above; then nothing has changed.
Status set_language(Hud& hud, std::string_view tag, const Catalogue* words = nullptr);
Status set_language(Hud& hud, std::string_view tag, std::map<std::string, Translation, std::less<>> translations);

}  // namespace rapido
