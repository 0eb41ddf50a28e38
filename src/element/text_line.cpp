#include "element/text_line.hpp"

#include <algorithm>

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
        context.warn("font", "no font family '" + family + "' is installed; another one stands for it", {},
                     ProblemCode::missing_font);
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

/// How many bytes may have room, by the glyphs of the whole text: about one for each character.
std::size_t TextLine::guess_cut(std::string_view text, float width) const {
    if (is_cut_) return std::min(fitted_.size(), text.size());
    const auto beyond = std::find_if(glyphs_.begin(), glyphs_.end(),
                                     [&](const Glyph& glyph) { return glyph.offset.x > width - size_; });
    const auto part = static_cast<double>(beyond - glyphs_.begin()) / static_cast<double>(glyphs_.size() + 1);
    return static_cast<std::size_t>(part * static_cast<double>(text.size()));
}

/// The longest beginning that fits with an ellipsis behind it: between two bounds that are found by steps from a good
/// guess, since shaping a long text takes long.
void TextLine::cut(TextMeasurer& measurer, std::string_view text, float width) {
    if (text.empty()) return;
    const std::size_t guess = guess_cut(text, width);
    is_cut_ = true;
    const auto whole_character = [&](std::size_t bytes) {
        while (bytes > 0 && bytes < text.size() && continues_character(text[bytes]))
            --bytes;
        return bytes;
    };
    const auto try_out = [&](std::size_t bytes) {
        fitted_.assign(text.substr(0, bytes));
        while (!fitted_.empty() && fitted_.back() == ' ')
            fitted_.pop_back();
        fitted_ += ellipsis;
        width_ = measurer.shape(*font_, size_, fitted_, glyphs_);
        return width_ <= width + 0.01F;
    };
    std::size_t fits = 0;
    std::size_t too_long = text.size();
    std::size_t tried =
        whole_character(std::clamp<std::size_t>(guess, 4, std::max<std::size_t>(text.size() - 1, 4)));
    for (std::size_t step = 2; tried > fits && tried < too_long; step *= 2) {
        const bool did_fit = try_out(tried);
        (did_fit ? fits : too_long) = tried;
        tried = whole_character(did_fit ? std::min(tried + step, too_long) : tried - std::min(step, tried));
    }
    while (true) {
        const std::size_t middle = whole_character(fits + (too_long - fits) / 2);
        if (middle > fits) {
            (try_out(middle) ? fits : too_long) = middle;
            continue;
        }
        // The character around the middle may end before the upper bound.
        std::size_t next = fits + 1;
        while (next < too_long && continues_character(text[next]))
            ++next;
        if (next >= too_long) break;
        (try_out(next) ? fits : too_long) = next;
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
