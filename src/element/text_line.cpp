#include "element/text_line.hpp"

namespace rapido {
namespace {

constexpr std::string_view ellipsis = "…";

bool is_digit(char c) {
    return c >= '0' && c <= '9';
}
bool continues_character(char c) {
    return (c & 0xc0) == 0x80;
}

/// Bytes up to the end of the first number's digits before its decimal mark, marks of grouping among them; all of a text
/// without digits.
std::size_t end_of_whole_digits(std::string_view text, std::string_view decimal) {
    std::size_t end = 0;
    while (end < text.size() && !is_digit(text[end]))
        ++end;
    for (std::size_t i = end; i < text.size();) {
        if (is_digit(text[i])) {
            end = ++i;
            continue;
        }
        if (text.substr(i).starts_with(decimal)) break;
        ++i;
        while (i < text.size() && continues_character(text[i]))
            ++i;
        if (i == text.size() || !is_digit(text[i])) break;
    }
    return end;
}

}  // namespace

std::optional<FontId> TextLine::find_font(const std::string& family, int weight, BodyContext& context) {
    if (context.measurer == nullptr) return std::nullopt;
    if (!family.empty()) {
        if (const std::optional<FontId> font = context.measurer->find(family, weight)) return font;
        context.warn("font", "no font family '" + family + "' is installed; another one stands for it");
    }
    // Whether the HUD's own family is there is said once, where the HUD names it.
    const std::optional<FontId> font = context.measurer->find(context.font, weight);
    return font ? font : context.measurer->find("sans-serif", weight);
}

Size TextLine::measure(TextMeasurer* measurer, std::string_view text, std::string_view decimal) {
    if (!can_measure(measurer)) return {};
    const FontMetrics metrics = measurer->metrics(*font_);
    ascent_ = metrics.ascent * size_;
    if (!decimal.empty())
        digits_end_ =
            measurer->shape(*font_, size_, text.substr(0, end_of_whole_digits(text, decimal)), glyphs_);
    natural_ = width_ = measurer->shape(*font_, size_, text, glyphs_);
    is_cut_ = false;
    shrink_ = 1;
    return {natural_, (metrics.ascent + metrics.descent) * size_};
}

float TextLine::width_of(TextMeasurer& measurer, std::string_view text) {
    return font_ ? measurer.shape(*font_, size_, text, glyphs_) : 0;
}

void TextLine::fit(TextMeasurer* measurer, std::string_view text, float width) {
    if (!can_measure(measurer)) return;
    // A hair of rounding is no overflow.
    const bool fits = natural_ <= width + 0.01F;
    shrink_ = overflow_ == Overflow::shrink && !fits ? std::max(width, 0.0F) / natural_ : 1;
    if (overflow_ == Overflow::ellipsis && !fits) return cut(*measurer, text, width);
    if (!is_cut_) return;
    is_cut_ = false;
    width_ = measurer->shape(*font_, size_, text, glyphs_);
}

/// The longest beginning that fits with an ellipsis behind it, found by halving.
void TextLine::cut(TextMeasurer& measurer, std::string_view text, float width) {
    is_cut_ = true;
    std::size_t fits = 0;
    std::size_t too_long = text.size();
    const auto try_out = [&](std::size_t bytes) {
        fitted_.assign(text.substr(0, bytes));
        while (!fitted_.empty() && fitted_.back() == ' ')
            fitted_.pop_back();
        fitted_ += ellipsis;
        width_ = measurer.shape(*font_, size_, fitted_, glyphs_);
        return width_ <= width + 0.01F;
    };
    while (fits + 1 < too_long) {
        std::size_t middle = (fits + too_long) / 2;
        while (middle > fits && continues_character(text[middle]))
            --middle;
        if (middle == fits) {
            middle = (fits + too_long) / 2;
            while (middle < too_long && continues_character(text[middle]))
                ++middle;
            if (middle == too_long) break;
        }
        (try_out(middle) ? fits : too_long) = middle;
    }
    if (try_out(fits) || fits > 0) return;
    // Not even the ellipsis has room.
    fitted_.clear();
    glyphs_.clear();
    width_ = 0;
}

void TextLine::draw(const DrawPlace& at, float part, Color color, std::string_view text,
                    DrawGroup& into) const {
    if (!can_measure(at.measurer)) return;
    const float scale = at.scale * shrink_;
    const float before = at.mirrored ? 1 - part : part;
    const float width = width_ * scale;
    // What goes beyond its box does so at its end.
    const float spare = at.box.width - width;
    const float x = at.box.x + (spare >= 0                       ? spare * before
                                : overflow_ == Overflow::visible ? spare * before
                                : at.mirrored                    ? spare
                                                                 : 0);
    const float baseline = at.box.y + ascent_ * at.scale;
    const std::string_view drawn = is_cut_ ? std::string_view(fitted_) : text;
    into.add_text(*font_, size_ * scale, {x, baseline}, width, color, drawn, glyphs_, scale);
    if (overflow_ == Overflow::clip && spare < 0) into.clip_last(at.box);
}

}  // namespace rapido
