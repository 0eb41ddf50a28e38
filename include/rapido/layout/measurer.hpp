// The interface through which layout measures text. Any text engine can implement it.
#pragma once

#include <cstdint>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

#include "rapido/base/exported.hpp"
#include "rapido/layout/glyph.hpp"

namespace rapido RAPIDO_EXPORTED {

/// How far a font reaches above and below its baseline, as parts of its size; both positive.
struct FontMetrics {
    float ascent = 0;
    float descent = 0;
};

/// Where a line of a text may end, and whether it must.
struct LineEnd {
    std::size_t at = 0;  ///< bytes from the beginning, behind the spaces that end the line
    bool must = false;   ///< a line break of the text itself
    friend bool operator==(const LineEnd&, const LineEnd&) = default;
};

namespace detail {
// What a measurer does that does not know better.
void find_line_ends(std::string_view text, std::vector<LineEnd>& ends);
void find_character_ends(std::string_view text, std::vector<std::size_t>& ends);
std::string transformed(std::string_view text, TextTransform transform);
}  // namespace detail

/// Finds fonts and measures texts. `rapido::Fonts` implements it over the installed fonts; a game with a text engine of its
/// own implements it over that. Sizes must be linear: a text at twice the size is exactly twice as wide.
class TextMeasurer {
 public:
    virtual ~TextMeasurer() = default;

    /// Returns the font for a family at a weight (CSS: 400 is regular, 700 bold), upright or italic, or for a list of families
    /// separated by commas: as in CSS, each character comes from the first family that has it. Returns nothing if none is there; a
    /// family without an italic gives its upright.
    virtual std::optional<FontId> find(std::string_view families, int weight, bool italic = false) = 0;
    virtual FontMetrics metrics(FontId font) = 0;
    /// Shapes one line of UTF-8 text: replaces `glyphs` and returns the width. All digits should have the same width, so
    /// that a counting number does not tremble.
    virtual float shape(FontId font, float size, std::string_view text, std::vector<Glyph>& glyphs) = 0;
    /// Appends where lines of a text may end, in order. This one knows spaces and line breaks (`\n`); `rapido::Fonts` knows the
    /// rules of all scripts.
    virtual void find_line_ends(std::string_view text, std::vector<LineEnd>& ends) {
        detail::find_line_ends(text, ends);
    }
    /// Appends where the characters of a text end, in bytes and in order, as a reader counts them: a letter with its marks is one. This one
    /// knows characters of Unicode; `rapido::Fonts` knows grapheme clusters (UAX #29).
    virtual void find_character_ends(std::string_view text, std::vector<std::size_t>& ends) {
        detail::find_character_ends(text, ends);
    }
    /// Returns a text with other letters, by the rules of a language (BCP 47; empty for none). This one changes the letters of
    /// ASCII alone.
    virtual std::string transformed(std::string_view text, TextTransform transform, std::string_view /*language*/) {
        return detail::transformed(text, transform);
    }
    /// Returns the characters that no font had since the last call, each once.
    virtual std::u32string take_missing() { return {}; }
};

}  // namespace rapido
