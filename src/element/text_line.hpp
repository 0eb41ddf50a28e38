// One line of text that is measured, fitted to the room it gets, and drawn.
#pragma once

#include <string>
#include <string_view>
#include <vector>

#include "element/body.hpp"

namespace rapido {

class TextLine {
 public:
    /// Without a font it measures and draws nothing.
    TextLine(std::optional<FontId> font, float size, Overflow overflow)
        : font_(font), size_(size), overflow_(overflow) {}

    /// The font of an element: its own family, else the HUD's, else a sans-serif; a missing family of its own is reported.
    static std::optional<FontId> find_font(const std::string& family, int weight, BodyContext& context);

    void set_font(std::optional<FontId> font) { font_ = font; }
    bool can_measure(const TextMeasurer* measurer) const { return measurer != nullptr && font_; }
    /// Shapes it: as wide as its glyphs, as high as its font. With a decimal mark it finds the end of its whole digits.
    Size measure(TextMeasurer* measurer, std::string_view text, std::string_view decimal = {});
    float ascent() const { return ascent_; }
    float digits_end() const { return digits_end_; }
    float digits_after() const { return natural_ - digits_end_; }
    bool shrinks() const { return overflow_ != Overflow::visible; }

    /// The text that was measured last gets this much room.
    void fit(TextMeasurer* measurer, std::string_view text, float width);
    /// In its box; what is left of its width is split by `part`: 0 puts the text to the start.
    void draw(const DrawPlace& at, float part, Color color, std::string_view text, DrawGroup& into) const;

 private:
    std::size_t guess_cut(std::string_view text, float width) const;
    void cut(TextMeasurer& measurer, std::string_view text, float width);

    std::optional<FontId> font_;
    float size_;
    Overflow overflow_;
    float natural_ = 0;  ///< the width of the whole text
    float width_ = 0;    ///< of what is drawn
    float shrink_ = 1;   ///< what is drawn is so much smaller
    float ascent_ = -1;
    float digits_end_ = -1;
    bool is_cut_ = false;
    std::string fitted_;  ///< with an ellipsis, where it is cut
    std::vector<Glyph> glyphs_;
};

}  // namespace rapido
