// The interface through which layout measures text. Any text engine can implement it.
#pragma once

#include <cstdint>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

#include "rapido/base/units.hpp"

namespace rapido {

/// A font of one measurer, by its number there.
using FontId = std::uint32_t;

/// One glyph of a shaped text: where it is drawn, from the start of the baseline, at the size asked for.
struct Glyph {
    std::uint32_t id = 0;
    Point offset{};
    FontId font = 0;  ///< the one that has it: not always the one asked for
    friend bool operator==(const Glyph&, const Glyph&) = default;
};

/// How far a font reaches above and below its baseline, as parts of its size; both positive.
struct FontMetrics {
    float ascent = 0;
    float descent = 0;
};

/// Finds fonts and measures texts. `rapido::Fonts` implements it over the installed fonts; a game with a text engine of its
/// own implements it over that. Sizes must be linear: a text at twice the size is exactly twice as wide.
class TextMeasurer {
 public:
    virtual ~TextMeasurer() = default;

    /// Returns the font for a family at a weight (CSS: 400 is regular, 700 bold), or for a list of families separated by
    /// commas: as in CSS, each character comes from the first family that has it. Returns nothing if none is there.
    virtual std::optional<FontId> find(std::string_view families, int weight) = 0;
    virtual FontMetrics metrics(FontId font) = 0;
    /// Shapes one line of UTF-8 text: replaces `glyphs` and returns the width. All digits should have the same width, so
    /// that a counting number does not tremble.
    virtual float shape(FontId font, float size, std::string_view text, std::vector<Glyph>& glyphs) = 0;
    /// Returns the characters that no font had since the last call, each once.
    virtual std::u32string take_missing() { return {}; }
};

}  // namespace rapido
