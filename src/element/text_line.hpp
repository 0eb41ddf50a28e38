// One line of text that is measured, and drawn where there is room for it.
#pragma once

#include <string_view>
#include <vector>

#include "element/body.hpp"

namespace rapido {

class TextLine {
 public:
    /// Without a font it measures and draws nothing.
    TextLine(std::optional<FontId> font, float size) : font_(font), size_(size) {}

    /// The font of an element, its own family or the HUD's; a missing one is reported.
    static std::optional<FontId> find_font(const std::string& family, int weight, BodyContext& context);

    bool can_measure(const TextMeasurer* measurer) const { return measurer != nullptr && font_; }
    /// Shapes it: as wide as its glyphs, as high as its font.
    Size measure(TextMeasurer* measurer, std::string_view text);
    /// How wide another text would be.
    float width_of(TextMeasurer& measurer, std::string_view text);
    /// The text that was measured last, in a box in device pixels; what is left of its width is split by `part`: 0 puts
    /// the text to the left.
    void draw(const Rect& box, float part, float scale, TextMeasurer* measurer, Color color,
              std::string_view text, DrawGroup& into) const;

 private:
    std::optional<FontId> font_;
    float size_;
    float width_ = 0;
    std::vector<Glyph> glyphs_;
};

}  // namespace rapido
