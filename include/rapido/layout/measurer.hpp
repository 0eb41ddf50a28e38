// What layout needs to know about fonts, and who knows it is not its business.
#pragma once

#include <cstdint>
#include <optional>
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

    /// The font of a family at a weight (CSS: 400 is regular, 700 bold); nothing if there is no such family.
    virtual std::optional<FontId> find(std::string_view family, int weight) = 0;
    virtual FontMetrics metrics(FontId font) = 0;
    /// Shapes one line of UTF-8: replaces `glyphs`, gives the width. Digits are as wide as each other where
    /// the font can do that.
    virtual float shape(FontId font, float size, std::string_view text, std::vector<Glyph>& glyphs) = 0;
};

}  // namespace rapido
