#include <unicode/locid.h>
#include <unicode/ubidi.h>
#include <unicode/ubrk.h>
#include <unicode/unistr.h>
#include <unicode/utext.h>
#include <unicode/utf16.h>

#include "base/utf8.hpp"
#include "render/fonts/faces.hpp"
#include "render/fonts/unicode_rules.hpp"

namespace rapido {
namespace {

using BreaksPtr = std::unique_ptr<UBreakIterator, Destroyer<UBreakIterator, ubrk_close>>;
void close_text(UText* text) {
    utext_close(text);
}
using UTextPtr = std::unique_ptr<UText, Destroyer<UText, close_text>>;
using BidiPtr = std::unique_ptr<UBiDi, Destroyer<UBiDi, ubidi_close>>;

}  // namespace

struct UnicodeRules::State {
    BidiPtr bidi{ubidi_open()};
    BreaksPtr lines, characters;
    UTextPtr utext;
    std::u16string wide;
    std::vector<std::size_t> bytes;  ///< where each unit of `wide` begins in the text, and its end
    std::vector<DirectedPart> parts;

    bool begin(BreaksPtr& breaks, UBreakIteratorType type, const char* locale, std::string_view text);
};

UnicodeRules::UnicodeRules() : state_(std::make_unique<State>()) {}
UnicodeRules::~UnicodeRules() = default;

const std::vector<DirectedPart>& UnicodeRules::order(std::string_view text) {
    State& state = *state_;
    state.parts.clear();
    state.wide.clear();
    state.bytes.clear();
    for (std::size_t i = 0; i < text.size(); i += utf8::front_length(text.substr(i))) {
        const char32_t c = utf8::front(text.substr(i));
        if (c > 0xffff) {
            state.wide.push_back(U16_LEAD(c));
            state.bytes.push_back(i);
        }
        state.wide.push_back(c > 0xffff ? U16_TRAIL(c) : static_cast<char16_t>(c));
        state.bytes.push_back(i);
    }
    state.bytes.push_back(text.size());
    UErrorCode error = U_ZERO_ERROR;
    ubidi_setPara(state.bidi.get(), state.wide.data(), static_cast<std::int32_t>(state.wide.size()), UBIDI_DEFAULT_LTR,
                  nullptr, &error);
    const std::int32_t count = ubidi_countRuns(state.bidi.get(), &error);
    for (std::int32_t i = 0; U_SUCCESS(error) && i < count; ++i) {
        std::int32_t start = 0, units = 0;
        const bool backwards = ubidi_getVisualRun(state.bidi.get(), i, &start, &units) == UBIDI_RTL;
        state.parts.push_back({state.bytes[static_cast<std::size_t>(start)],
                               state.bytes[static_cast<std::size_t>(start + units)], backwards});
    }
    return state.parts;
}

/// A line that must end here. Words that a dictionary has found (Thai, Lao, Khmer) have a status of their own above these.
static bool is_hard(std::int32_t status) {
    return status >= UBRK_LINE_HARD && status < UBRK_LINE_HARD_LIMIT;
}

/// Puts a text before rules for its breaks, which are opened when they are first asked for. False where they are not there.
bool UnicodeRules::State::begin(BreaksPtr& breaks, UBreakIteratorType type, const char* locale, std::string_view text) {
    UErrorCode error = U_ZERO_ERROR;
    if (breaks == nullptr) breaks.reset(ubrk_open(type, locale, nullptr, 0, &error));
    utext.reset(utext_openUTF8(utext.release(), text.data(), static_cast<std::int64_t>(text.size()), &error));
    ubrk_setUText(breaks.get(), utext.get(), &error);
    return U_SUCCESS(error);
}

/// By Unicode Standard Annex 14, with the rules of Japanese for what they leave to a language, as CSS `line-break: normal` has them there. Others have none of these
/// letters.
bool UnicodeRules::find_line_ends(std::string_view text, std::vector<LineEnd>& ends) {
    if (!state_->begin(state_->lines, UBRK_LINE, "ja", text)) return false;
    for (std::int32_t at = ubrk_next(state_->lines.get()); at != UBRK_DONE; at = ubrk_next(state_->lines.get()))
        ends.push_back({static_cast<std::size_t>(at), is_hard(ubrk_getRuleStatus(state_->lines.get())) &&
                                                          text[static_cast<std::size_t>(at) - 1] != ' '});
    // The end of a text is none that it must have.
    if (!ends.empty() && ends.back().at == text.size() && !text.ends_with('\n')) ends.back().must = false;
    return true;
}

bool UnicodeRules::find_character_ends(std::string_view text, std::vector<std::size_t>& ends) {
    if (!state_->begin(state_->characters, UBRK_CHARACTER, "", text)) return false;
    for (std::int32_t at = ubrk_next(state_->characters.get()); at != UBRK_DONE;
         at = ubrk_next(state_->characters.get()))
        ends.push_back(static_cast<std::size_t>(at));
    return true;
}

std::string UnicodeRules::transformed(std::string_view text, TextTransform transform, std::string_view language) const {
    UErrorCode error = U_ZERO_ERROR;
    const icu::Locale locale =
        icu::Locale::forLanguageTag({language.data(), static_cast<std::int32_t>(language.size())}, error);
    icu::UnicodeString letters = icu::UnicodeString::fromUTF8({text.data(), static_cast<std::int32_t>(text.size())});
    std::string changed;
    (transform == TextTransform::uppercase ? letters.toUpper(locale) : letters.toLower(locale)).toUTF8String(changed);
    return changed;
}

}  // namespace rapido
