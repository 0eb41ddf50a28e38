#include "element/text_block.hpp"

#include <algorithm>
#include <limits>

namespace rapido {
namespace {

constexpr std::string_view ellipsis = "…";
constexpr float no_limit = std::numeric_limits<float>::max();
/// A hair of rounding is no overflow.
constexpr float hair = 0.01F;

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

std::string_view without_spaces_behind(std::string_view text) {
    while (!text.empty() && (text.back() == ' ' || text.back() == '\n'))
        text.remove_suffix(1);
    return text;
}

}  // namespace

std::optional<FontId> TextBlock::find_font(const std::string& family, int weight, bool italic,
                                           BodyContext& context) {
    if (context.measurer == nullptr) return std::nullopt;
    if (!family.empty()) {
        if (const std::optional<FontId> font = context.measurer->find(family, weight, italic)) return font;
        context.warn("font", "no font family '" + family + "' is installed; another one stands for it", {},
                     ProblemCode::missing_font);
    }
    // Whether the HUD's own family is there is said once, where the HUD names it.
    const std::optional<FontId> font = context.measurer->find(context.font, weight, italic);
    return font ? font : context.measurer->find("sans-serif", weight, italic);
}

float TextBlock::line_advance() const {
    return (look_.line_height > 0 ? look_.line_height : metrics_.ascent + metrics_.descent) * look_.size;
}

float TextBlock::height() const {
    return line_advance() * static_cast<float>(std::max<std::size_t>(line_count_, 1));
}

float TextBlock::widest() const {
    float width = 0;
    for (std::size_t i = 0; i < line_count_; ++i)
        width = std::max(width, lines_[i].width);
    return width;
}

/// Letters change by the rules of the language, and a tab is a space: no font has a glyph for it.
void TextBlock::prepare(TextMeasurer& measurer, std::string_view text) {
    is_prepared_ =
        look_.transform != TextTransform::none || text.find_first_of("\t\r") != std::string_view::npos;
    if (!is_prepared_) return;
    prepared_ = look_.transform == TextTransform::none
                    ? std::string(text)
                    : measurer.transformed(text, look_.transform, language_);
    std::erase(prepared_, '\r');
    std::replace(prepared_.begin(), prepared_.end(), '\t', ' ');
}

/// Into `shaped_`.
float TextBlock::shape(TextMeasurer& measurer, std::string_view text) {
    const float width = measurer.shape(*look_.font, look_.size, text, shaped_);
    if (look_.letter_spacing == 0) return width;
    float moved = 0;
    for (std::size_t i = 0; i < shaped_.size(); ++i) {
        // A mark stands where its letter does.
        const bool is_next = i + 1 < shaped_.size() && shaped_[i + 1].offset.x > shaped_[i].offset.x + hair;
        shaped_[i].offset.x += moved;
        if (is_next) moved += look_.letter_spacing;
    }
    return width + moved;
}

TextBlock::Line& TextBlock::next_line(std::size_t begin, std::size_t end) {
    if (line_count_ == lines_.size()) lines_.emplace_back();
    Line& line = lines_[line_count_++];
    line.begin = begin;
    line.end = end;
    line.first_glyph = glyphs_.size();
    line.glyph_count = 0;
    line.width = 0;
    line.is_cut = false;
    return line;
}

void TextBlock::add_line(TextMeasurer& measurer, std::string_view text, std::size_t begin, std::size_t end) {
    const std::string_view seen = without_spaces_behind(text.substr(begin, end - begin));
    Line& line = next_line(begin, begin + seen.size());
    line.width = shape(measurer, seen);
    line.glyph_count = shaped_.size();
    glyphs_.insert(glyphs_.end(), shaped_.begin(), shaped_.end());
}

/// The end of as many characters of a word as have room, of one at least.
std::size_t TextBlock::end_of_long_word(TextMeasurer& measurer, std::string_view text, std::size_t begin,
                                        std::size_t end, float room) {
    const auto next = [&](std::size_t at) {
        for (++at; at < end && continues_character(text[at]);)
            ++at;
        return at;
    };
    std::size_t fits = next(begin);
    for (std::size_t longer = next(fits); longer <= end && fits < end; longer = next(longer)) {
        if (shape(measurer, text.substr(begin, longer - begin)) > room + hair) break;
        fits = longer;
    }
    return fits;
}

/// Each line takes as many words as have room, and a word without room of its own is broken.
void TextBlock::break_lines(TextMeasurer& measurer, std::string_view text, float room) {
    glyphs_.clear();
    line_count_ = 0;
    ends_.clear();
    measurer.find_line_ends(text, ends_);
    if (ends_.empty() || ends_.back().at < text.size()) ends_.push_back({text.size(), false});
    const auto most = look_.max_lines > 0 ? static_cast<std::size_t>(look_.max_lines)
                                          : std::numeric_limits<std::size_t>::max();
    const float limit = wraps() ? room : no_limit;
    std::size_t begin = 0;
    std::size_t fits = 0;  ///< where the line that begins there may end
    const auto finish = [&](std::size_t end) {
        if (line_count_ + 1 == most && end < text.size()) {
            // What has no line of its own is left out behind an ellipsis.
            const std::string_view rest = text.substr(begin, text.find('\n', begin) - begin);
            add_line(measurer, text, begin, end);
            cut(measurer, lines_[line_count_ - 1], rest, limit);
            begin = text.size();
            return;
        }
        add_line(measurer, text, begin, end);
        begin = end;
    };
    for (const LineEnd& end : ends_) {
        while (begin < end.at) {
            const std::string_view seen = without_spaces_behind(text.substr(begin, end.at - begin));
            if (limit == no_limit || shape(measurer, seen) <= limit + hair) break;
            finish(fits > begin ? fits : end_of_long_word(measurer, text, begin, end.at, limit));
        }
        if (begin >= text.size()) break;
        fits = end.at;
        if (end.must || end.at == text.size()) finish(end.at);
    }
    if (line_count_ == 0 ||
        (!text.empty() && text.back() == '\n' && begin >= text.size() && line_count_ < most))
        next_line(text.size(), text.size());
}

/// With `balance`, lines are as equal as they can be without becoming more.
void TextBlock::break_as_wanted(TextMeasurer& measurer, std::string_view text, float room) {
    break_lines(measurer, text, room);
    if (look_.wrap != Wrap::balance || line_count_ < 2 || room == no_limit) return;
    const std::size_t count = line_count_;
    float narrow = room / static_cast<float>(count);
    float wide = room;
    constexpr int steps = 8;  // to a two hundredth of the room
    for (int i = 0; i < steps; ++i) {
        const float middle = (narrow + wide) / 2;
        break_lines(measurer, text, middle);
        (line_count_ > count ? narrow : wide) = middle;
    }
    break_lines(measurer, text, wide);
}

Size TextBlock::measure(TextMeasurer* measurer, std::string_view given, std::string_view decimal) {
    if (!can_measure(measurer)) return {};
    metrics_ = measurer->metrics(*look_.font);
    ascent_ = metrics_.ascent * look_.size;
    // As in CSS, half of what a line is higher than its characters stands above them.
    if (look_.line_height > 0)
        ascent_ += (line_advance() - (metrics_.ascent + metrics_.descent) * look_.size) / 2;
    prepare(*measurer, given);
    const std::string_view text = said(given);
    shrink_ = 1;
    if (!decimal.empty()) digits_end_ = shape(*measurer, text.substr(0, end_of_whole_digits(text, decimal)));
    if (!wraps() && text.find('\n') == std::string_view::npos) {
        glyphs_.clear();
        line_count_ = 0;
        Line& line = next_line(0, text.size());
        natural_ = line.width = shape(*measurer, text);
        line.glyph_count = shaped_.size();
        glyphs_.swap(shaped_);
        return {natural_, height()};
    }
    break_as_wanted(*measurer, text, look_.max_width > 0 ? look_.max_width : no_limit);
    natural_ = widest();
    if (room_ >= 0 && room_ < natural_ - hair && wraps()) break_as_wanted(*measurer, text, room_);
    return {natural_, height()};
}

bool TextBlock::fit(TextMeasurer* measurer, std::string_view given, float width) {
    if (!can_measure(measurer)) return false;
    const std::string_view text = said(given);
    const float before = room_;
    room_ = width;
    if (wraps()) {
        const float limit = std::min(width, natural_);
        if (before >= 0 && limit == std::min(before, natural_)) return false;
        const float high = height();
        break_as_wanted(*measurer, text,
                        limit < natural_ - hair || look_.max_width <= 0 ? limit : look_.max_width);
        return height() != high;
    }
    shrink_ =
        look_.overflow == Overflow::shrink && natural_ > width + hair ? std::max(width, 0.0F) / natural_ : 1;
    const bool any_cut =
        std::any_of(lines_.begin(), lines_.begin() + static_cast<std::ptrdiff_t>(line_count_),
                    [](const Line& line) { return line.is_cut; });
    const bool must_cut = look_.overflow == Overflow::ellipsis && natural_ > width + hair;
    if (!any_cut && !must_cut) return false;
    if (line_count_ == 1) {
        Line& line = lines_.front();
        if (must_cut) {
            if (!text.empty()) cut(*measurer, line, text, width);
            return false;
        }
        line.is_cut = false;
        line.width = shape(*measurer, text);
        line.glyph_count = shaped_.size();
        glyphs_.swap(shaped_);
        return false;
    }
    break_lines(*measurer, text, no_limit);
    for (std::size_t i = 0; i < line_count_ && must_cut; ++i) {
        Line& line = lines_[i];
        if (line.width > width + hair && !line.is_cut)
            cut(*measurer, line, text.substr(line.begin, line.end - line.begin), width);
    }
    return false;
}

/// How many bytes may have room, by the glyphs of the whole line: about one for each character.
std::size_t TextBlock::guess_cut(const Line& line, std::string_view text, float width) const {
    if (line.is_cut) return std::min(line.fitted.size(), text.size());
    const auto first = glyphs_.begin() + static_cast<std::ptrdiff_t>(line.first_glyph);
    const auto last = first + static_cast<std::ptrdiff_t>(line.glyph_count);
    const auto beyond =
        std::find_if(first, last, [&](const Glyph& glyph) { return glyph.offset.x > width - look_.size; });
    const auto part = static_cast<double>(beyond - first) / static_cast<double>(line.glyph_count + 1);
    return static_cast<std::size_t>(part * static_cast<double>(text.size()));
}

/// The longest beginning that fits with an ellipsis behind it: between two bounds that are found by steps from a good
/// guess, since shaping a long text takes long. Only the last line may be cut while others are added.
void TextBlock::cut(TextMeasurer& measurer, Line& line, std::string_view text, float width) {
    const std::size_t guess = guess_cut(line, text, width);
    line.is_cut = true;
    const auto whole_character = [&](std::size_t bytes) {
        while (bytes > 0 && bytes < text.size() && continues_character(text[bytes]))
            --bytes;
        return bytes;
    };
    const auto try_out = [&](std::size_t bytes) {
        line.fitted.assign(without_spaces_behind(text.substr(0, bytes)));
        line.fitted += ellipsis;
        line.width = shape(measurer, line.fitted);
        return line.width <= width + hair;
    };
    std::size_t fits = 0;
    std::size_t too_long = text.size() + 1;
    std::size_t tried =
        whole_character(std::clamp<std::size_t>(guess, 4, std::max<std::size_t>(text.size(), 4)));
    tried = std::min(tried, text.size());
    for (std::size_t step = 2; tried > fits && tried < too_long; step *= 2) {
        const bool did_fit = try_out(tried);
        (did_fit ? fits : too_long) = tried;
        tried = whole_character(did_fit ? std::min(tried + step, std::min(too_long, text.size()))
                                        : tried - std::min(step, tried));
        if (did_fit && tried == fits) break;
    }
    while (true) {
        const std::size_t middle = whole_character(fits + (too_long - fits) / 2);
        if (middle > fits && middle < too_long) {
            (try_out(middle) ? fits : too_long) = middle;
            continue;
        }
        // The character around the middle may end before the upper bound.
        std::size_t next = fits + 1;
        while (next < too_long && next < text.size() && continues_character(text[next]))
            ++next;
        if (next >= too_long || next > text.size()) break;
        (try_out(next) ? fits : too_long) = next;
    }
    if (!try_out(fits) && fits == 0) {
        // Not even the ellipsis has room.
        line.fitted.clear();
        shaped_.clear();
        line.width = 0;
    }
    const auto first = glyphs_.begin() + static_cast<std::ptrdiff_t>(line.first_glyph);
    const auto last = first + static_cast<std::ptrdiff_t>(line.glyph_count);
    const std::size_t before = line.glyph_count;
    line.glyph_count = shaped_.size();
    const auto at = glyphs_.erase(first, last);
    glyphs_.insert(at, shaped_.begin(), shaped_.end());
    for (Line* other = &line + 1; other < lines_.data() + line_count_; ++other)
        other->first_glyph = other->first_glyph - before + line.glyph_count;
}

/// Returns what the line is longer than its box.
float TextBlock::draw_line(const Line& line, const DrawPlace& at, float part, Point offset, Color color,
                           std::string_view text, DrawGroup& into) const {
    const float scale = at.scale * shrink_;
    const float before = at.mirrored ? 1 - part : part;
    const float width = line.width * scale;
    // What goes beyond its box does so at its end.
    const float spare = at.box.width - width;
    const float x = at.box.x + (spare >= 0                            ? spare * before
                                : look_.overflow == Overflow::visible ? spare * before
                                : at.mirrored                         ? spare
                                                                      : 0);
    const float baseline = at.box.y + ascent_ * at.scale;
    const std::string_view drawn =
        line.is_cut ? std::string_view(line.fitted) : text.substr(line.begin, line.end - line.begin);
    into.add_text(*look_.font, look_.size * scale, {x + offset.x, baseline + offset.y}, width, color, drawn,
                  std::span(glyphs_).subspan(line.first_glyph, line.glyph_count), scale);
    return -spare;
}

void TextBlock::draw(const DrawPlace& at, float part, Color color, std::string_view given,
                     DrawGroup& into) const {
    if (!can_measure(at.measurer)) return;
    const std::string_view text = said(given);
    const float scale = at.scale * shrink_;
    const std::size_t first = into.commands().size();
    // The shadow and the outline of one line lie below the characters of all of them.
    for (std::size_t i = 0; i < line_count_; ++i) {
        const float down = line_advance() * static_cast<float>(i) * at.scale;
        const Point offset =
            look_.shadow ? Point{look_.shadow->offset.x * scale, look_.shadow->offset.y * scale} : Point{};
        const Color under = look_.shadow    ? look_.shadow->color.value()
                            : look_.outline ? look_.outline->color.value()
                                            : color;
        const float beyond = draw_line(lines_[i], at, part, {offset.x, offset.y + down}, under, text, into);
        if (look_.outline) into.outline_last(look_.outline->width * scale);
        if (look_.shadow) into.blur_last(look_.shadow->blur * scale);
        if (look_.overflow == Overflow::clip && beyond > 0) into.clip_last(at.box);
    }
    if (!look_.shadow && !look_.outline) return;
    const Point back =
        look_.shadow ? Point{-look_.shadow->offset.x * scale, -look_.shadow->offset.y * scale} : Point{};
    for (std::size_t i = 0; i < line_count_ && look_.shadow && look_.outline; ++i) {
        into.repeat(first + i, back, look_.outline->color);
        into.outline_last(look_.outline->width * scale);
        into.blur_last(0);
    }
    for (std::size_t i = 0; i < line_count_; ++i) {
        into.repeat(first + i, back, color);
        into.outline_last(0);
        into.blur_last(0);
    }
}

}  // namespace rapido
