// What layout needs to know about fonts, and who knows it is not its business.
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
    Point offset;
    FontId font = 0;  ///< the one that has it: not always the one asked for
    friend bool operator==(const Glyph&, const Glyph&) = default;
};

/// How far a font reaches above and below its baseline, as parts of its size; both positive.
struct FontMetrics {
    float ascent = 0;
    float descent = 0;
};

/// Finds fonts and measures texts. `rapido::Fonts` is one; a game with its own text engine writes another.
/// Sizes are linear: a text at twice the size is exactly twice as wide.
class TextMeasurer {
 public:
    virtual ~TextMeasurer() = default;

    /// The font of a family at a weight (CSS: 400 is regular, 700 bold), or of a list of families with commas between: as in
    /// CSS, each character is taken from the first that has it. Nothing if there is no such family.
    virtual std::optional<FontId> find(std::string_view families, int weight) = 0;
    virtual FontMetrics metrics(FontId font) = 0;
    /// Shapes one line of UTF-8: replaces `glyphs`, gives the width. Digits are as wide as each other where
    /// the font can do that.
    virtual float shape(FontId font, float size, std::string_view text, std::vector<Glyph>& glyphs) = 0;
    /// Characters that none of the fonts asked for had, since this was asked last.
    virtual std::u32string take_missing() { return {}; }
};

}  // namespace rapido
