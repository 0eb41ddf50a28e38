#include "element/text_line.hpp"

namespace rapido {

std::optional<FontId> TextLine::find_font(const std::string& family, int weight, BodyContext& context) {
    if (context.measurer == nullptr) return std::nullopt;
    const std::string_view name = family.empty() ? context.font : std::string_view(family);
    const std::optional<FontId> font = context.measurer->find(name, weight);
    if (!font) context.report("font", "no font family '" + std::string(name) + "' is installed");
    return font;
}

Size TextLine::measure(TextMeasurer* measurer, std::string_view text) {
    if (!can_measure(measurer)) return {};
    width_ = measurer->shape(*font_, size_, text, glyphs_);
    const FontMetrics metrics = measurer->metrics(*font_);
    return {width_, (metrics.ascent + metrics.descent) * size_};
}

float TextLine::width_of(TextMeasurer& measurer, std::string_view text) {
    return font_ ? measurer.shape(*font_, size_, text, glyphs_) : 0;
}

void TextLine::draw(const Rect& box, float part, float scale, TextMeasurer* measurer, Color color,
                    std::string_view text, DrawGroup& into) const {
    if (!can_measure(measurer)) return;
    const float ascent = measurer->metrics(*font_).ascent * size_ * scale;
    const float x = box.x + (box.width - width_ * scale) * part;
    into.add_text(*font_, size_ * scale, {x, box.y + ascent}, width_ * scale, color, text, glyphs_, scale);
}

}  // namespace rapido
