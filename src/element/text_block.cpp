#include "element/text_block.hpp"

#include <algorithm>
#include <limits>

#include "element/image_look.hpp"

namespace rapido {
namespace {

constexpr std::string_view ellipsis = "…";
constexpr float no_limit = std::numeric_limits<float>::max();
/// A text that a HUD shows has few lines; a hostile one must not take minutes. CSS balances few lines, too (CSS Text 4, 6.4).
constexpr std::size_t most_lines = 100;
constexpr std::size_t most_balanced = 10;
constexpr std::size_t longest_balanced = 1000;  // bytes
/// A hair of rounding is no overflow.
constexpr float hair = 0.01F;

bool is_digit(char c) {
    return c >= '0' && c <= '9';
}
std::uint32_t index(std::size_t number) {
    return static_cast<std::uint32_t>(number);
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

/// The last of the numbers from `first` to `last` that fits, where all before one that fits do, and `first` counts as one. To try out
/// a number takes long: by steps that double away from a guess.
template <class Fits>
std::size_t last_that(std::size_t first, std::size_t last, std::size_t guess, Fits fits) {
    std::size_t low = first, high = last + 1;
    guess = std::clamp(guess, first, last);
    if (guess > first) (fits(guess) ? low : high) = guess;
    for (std::size_t step = 1; low >= guess && low + step < high; step *= 2) {
        if (!fits(low + step)) {
            high = low + step;
            break;
        }
        low += step;
    }
    for (std::size_t step = 1; high <= guess && high > low + step; step *= 2) {
        if (fits(high - step)) {
            low = high - step;
            break;
        }
        high -= step;
    }
    while (low + 1 < high) {
        const std::size_t middle = low + (high - low) / 2;
        (fits(middle) ? low : high) = middle;
    }
    return low;
}

}  // namespace

std::string TextBlock::fault_of_room() const {
    const auto is_cut = [](const Line& line) { return line.is_cut; };
    if (std::any_of(lines_.begin(), lines_.begin() + static_cast<std::ptrdiff_t>(line_count_), is_cut))
        return "ends with an ellipsis" + lack();
    if (shrink_ < 1) return "is drawn smaller" + lack();
    if (room_ >= 0 && widest() > room_ + 0.5F)
        return (look_->overflow == Overflow::clip ? "is cut off" : "goes beyond its box") + lack();
    return {};
}

/// What it has of what it needs, in design pixels.
std::string TextBlock::lack() const {
    const auto pixels = [](float length) { return plain_number(std::round(static_cast<double>(length) * 10) / 10); };
    const std::string words = ", as it has less room than it needs";
    if (wraps()) return words + ": " + std::to_string(look_->max_lines) + " lines of " + pixels(room_) + " px";
    return words + ": " + pixels(room_) + " of " + pixels(natural_) + " px";
}

float TextBlock::line_advance() const {
    return look_->line_height > 0 ? look_->line_height * look_->size : ascent_em_ + descent_em_;
}

float TextBlock::height() const {
    return line_advance() * static_cast<float>(std::max<Index>(line_count_, 1));
}

float TextBlock::widest_room() const {
    return look_->max_width > 0 ? look_->max_width : no_limit;
}

float TextBlock::widest() const {
    float width = 0;
    for (std::size_t i = 0; i < line_count_; ++i)
        width = std::max(width, lines_[i].width);
    return width;
}

/// Letters change by the rules of the language, and a tab is a space: no font has a glyph for it.
std::string TextBlock::seen(TextMeasurer& measurer, std::string_view part) const {
    std::string seen = look_->transform == TextTransform::none
                           ? std::string(part)
                           : measurer.transformed(part, look_->transform, language_ != nullptr ? language_->tag : "");
    std::erase(seen, '\r');
    std::replace(seen.begin(), seen.end(), '\t', ' ');
    return seen;
}

void TextBlock::change_letters(TextMeasurer& measurer) {
    if (std::exchange(is_seen_, true) ||
        (look_->transform == TextTransform::none && text_.find_first_of("\t\r") == std::string::npos))
        return;
    text_ = pieces().empty() ? seen(measurer, text_) : seen_in_pieces(measurer);
}

/// Part by part between the edges of pieces, which move with the letters.
std::string TextBlock::seen_in_pieces(TextMeasurer& measurer) {
    const std::string_view text = text_;
    std::string all;
    std::vector<Piece>& before = styled_->pieces;
    std::vector<Piece> moved = before;
    const auto move_edges = [&](std::size_t from) {
        for (std::size_t i = 0; i < before.size(); ++i) {
            if (before[i].begin == from) moved[i].begin = index(all.size());
            if (before[i].end == from) moved[i].end = index(all.size());
        }
    };
    for (std::size_t at = 0; at < text.size();) {
        const std::size_t edge = std::min(next_edge(at), text.size());
        move_edges(at);
        all += seen(measurer, text.substr(at, edge - at));
        at = edge;
    }
    move_edges(text.size());
    before = std::move(moved);
    return all;
}

/// The innermost piece around a byte: the one that begins last.
TextBlock::Index TextBlock::look_at(std::size_t byte) const {
    Index found = no_look;
    for (const Piece& piece : pieces())
        if (piece.begin <= byte && byte < piece.end) found = piece.look;
    return found;
}

/// Where the next piece begins or ends.
std::size_t TextBlock::next_edge(std::size_t byte) const {
    std::size_t next = std::string::npos;
    for (const Piece& piece : pieces()) {
        if (piece.begin > byte) next = std::min<std::size_t>(next, piece.begin);
        if (piece.end > byte) next = std::min<std::size_t>(next, piece.end);
    }
    return next;
}

/// Room for what is made on the way, used again for each text: between two calls nothing of it counts. One for each thread, as HUDs
/// may run on several.
struct TextBlock::Scratch {
    std::vector<Glyph> glyphs, part;  ///< of a line that is shaped, and of one of its segments
    std::vector<Segment> segments;
    std::vector<LineEnd> line_ends;
    std::vector<std::size_t> character_ends;

    static Scratch& of_thread() {
        static thread_local Scratch scratch;
        return scratch;
    }
};

/// Shapes a part in one look, into `Scratch::part`. Returns its width.
float TextBlock::shape_segment(TextMeasurer& measurer, std::string_view text, const PieceLook* look) {
    Scratch& scratch = Scratch::of_thread();
    if (look != nullptr && look->is_image) {
        if (look->is_none) return 0;
        if (look->image && look->image_size.height > 0)
            return look->size * look->image_size.width / look->image_size.height;
        return look->size;
    }
    const FontId font = look != nullptr && look->font ? *look->font : *look_->font;
    const float width = measurer.shape(font, look != nullptr ? look->size : look_->size, text, scratch.part);
    float moved = 0;
    for (std::size_t i = 0; i < scratch.part.size(); ++i) {
        // A mark stands where its letter does.
        const bool is_next = look_->letter_spacing != 0 && i + 1 < scratch.part.size() &&
                             scratch.part[i + 1].offset.x > scratch.part[i].offset.x + hair;
        scratch.part[i].offset.x += moved;
        if (is_next) moved += look_->letter_spacing;
    }
    return width + moved;
}

float TextBlock::shape(TextMeasurer& measurer, std::string_view text, std::size_t from) {
    Scratch& scratch = Scratch::of_thread();
    scratch.glyphs.clear();
    scratch.segments.clear();
    float x = 0;
    for (std::size_t at = 0; at < text.size() || scratch.segments.empty();) {
        const Index look_here = look_at(from + at);
        const std::size_t edge = next_edge(from + at);
        const std::size_t end = edge == std::string::npos ? text.size() : std::min(edge - from, text.size());
        scratch.part.clear();
        const float width = shape_segment(measurer, text.substr(at, end - at), look(look_here));
        scratch.segments.push_back(
            {index(at), index(end), index(scratch.glyphs.size()), index(scratch.part.size()), x, width, look_here});
        if (scratch.glyphs.empty())
            scratch.glyphs.swap(scratch.part);
        else
            scratch.glyphs.insert(scratch.glyphs.end(), scratch.part.begin(), scratch.part.end());
        x += width;
        if (end < text.size()) x += look_->letter_spacing;
        at = end;
        if (text.empty()) break;
    }
    return x;
}

/// Puts what was shaped behind the glyphs that there are.
void TextBlock::take_shaped(Line& line) {
    Scratch& scratch = Scratch::of_thread();
    line.first_glyph = index(glyphs_.size());
    line.glyph_count = index(scratch.glyphs.size());
    line.first_segment = index(segments_.size());
    line.segment_count = index(scratch.segments.size());
    glyphs_.insert(glyphs_.end(), scratch.glyphs.begin(), scratch.glyphs.end());
    segments_.insert(segments_.end(), scratch.segments.begin(), scratch.segments.end());
}

TextBlock::Line& TextBlock::next_line(std::size_t begin, std::size_t end) {
    if (line_count_ == lines_.size()) lines_.emplace_back();
    Line& line = lines_[line_count_++];
    line.begin = index(begin);
    line.end = index(end);
    line.first_glyph = index(glyphs_.size());
    line.glyph_count = 0;
    line.width = 0;
    line.is_cut = false;
    return line;
}

void TextBlock::line(TextMeasurer& measurer, std::string_view text, std::size_t begin, std::size_t end) {
    const std::string_view seen = without_spaces_behind(text.substr(begin, end - begin));
    Line& line = next_line(begin, begin + seen.size());
    line.width = shape(measurer, seen, begin);
    take_shaped(line);
}

/// The end of a word, or of as many of its characters as have room, of one at least.
std::size_t TextBlock::end_of_word(TextMeasurer& measurer, std::string_view text, std::size_t begin, std::size_t end,
                                   float room) {
    Scratch& scratch = Scratch::of_thread();
    scratch.character_ends.clear();
    measurer.find_character_ends(text.substr(begin, end - begin), scratch.character_ends);
    for (std::size_t& at : scratch.character_ends)
        at += begin;
    if (scratch.character_ends.empty() || scratch.character_ends.back() != end) scratch.character_ends.push_back(end);
    return scratch
        .character_ends[last_that(0, scratch.character_ends.size() - 1, usual_bytes(room), [&](std::size_t i) {
            const std::string_view seen = without_spaces_behind(text.substr(begin, scratch.character_ends[i] - begin));
            return shape(measurer, seen, begin) <= room + hair;
        })];
}

/// About so many bytes have room in a line: as many as in the last one, or letters half as wide as they are high.
std::size_t TextBlock::usual_bytes(float room) const {
    if (line_count_ > 0 && lines_[line_count_ - 1].width > 0) {
        const Line& line = lines_[line_count_ - 1];
        const float part = std::min(room / line.width, 1.2F);
        return static_cast<std::size_t>(static_cast<float>(line.end - line.begin) * part);
    }
    return static_cast<std::size_t>(std::min(room / (look_->size / 2), 1e6F));
}

/// Each line takes as many words as have room, and a word without room of its own is broken.
void TextBlock::break_lines(TextMeasurer& measurer, std::string_view text, float room) {
    Scratch& scratch = Scratch::of_thread();
    glyphs_.clear();
    segments_.clear();
    line_count_ = 0;
    breaks_words_ = false;
    scratch.line_ends.clear();
    measurer.find_line_ends(text, scratch.line_ends);
    if (scratch.line_ends.empty() || scratch.line_ends.back().at < text.size())
        scratch.line_ends.push_back({text.size(), false});
    const auto most =
        look_->max_lines > 0 ? std::min(static_cast<std::size_t>(look_->max_lines), most_lines) : most_lines;
    const float limit = wraps() ? room : no_limit;
    std::size_t begin = 0;
    const auto has_room = [&](std::size_t word) {
        const std::string_view seen = without_spaces_behind(text.substr(begin, scratch.line_ends[word].at - begin));
        return limit == no_limit || shape(measurer, seen, begin) <= limit + hair;
    };
    const auto word_around = [&](std::size_t byte) {
        const auto found =
            std::lower_bound(scratch.line_ends.begin(), scratch.line_ends.end(), byte,
                             [](const LineEnd& end_of_word, std::size_t at) { return end_of_word.at < at; });
        return static_cast<std::size_t>(found - scratch.line_ends.begin());
    };
    std::size_t last = 0;  ///< the end of the paragraph in which the line is
    for (std::size_t word = 0; begin < text.size();) {
        while (scratch.line_ends[word].at <= begin)
            ++word;
        for (last = std::max(last, word); last + 1 < scratch.line_ends.size() && !scratch.line_ends[last].must;)
            ++last;
        std::size_t end = 0;
        if (limit == no_limit)
            end = scratch.line_ends[last].at;
        else if (const std::size_t part = end_of_word(measurer, text, begin, scratch.line_ends[word].at, limit);
                 part < scratch.line_ends[word].at) {
            end = part;
            breaks_words_ = true;
        } else {
            end = scratch.line_ends[last_that(word, last, word_around(begin + usual_bytes(limit)), has_room)].at;
        }
        if (line_count_ + 1 == most && end < text.size()) {
            // What has no line of its own is left out behind an ellipsis.
            const std::string_view rest = text.substr(begin, text.find('\n', begin) - begin);
            line(measurer, text, begin, end);
            return cut(measurer, lines_[line_count_ - 1], rest, limit);
        }
        line(measurer, text, begin, end);
        begin = end;
    }
    if (line_count_ == 0 || (text.ends_with('\n') && line_count_ < most))
        line(measurer, text, text.size(), text.size());
}

/// With `balance`, lines are as equal as they can be without becoming more, and without breaking a word for it.
void TextBlock::break_as_wanted(TextMeasurer& measurer, std::string_view text, float room) {
    broken_at_ = room;
    break_lines(measurer, text, room);
    if (look_->wrap != Wrap::balance || line_count_ < 2 || line_count_ > most_balanced ||
        text.size() > longest_balanced || room == no_limit)
        return;
    const std::size_t count = line_count_;
    const bool must_break = breaks_words_;
    float narrow = room / static_cast<float>(count);
    float wide = room;
    constexpr int steps = 8;  // to a two hundredth of the room
    for (int i = 0; i < steps; ++i) {
        const float middle = (narrow + wide) / 2;
        break_lines(measurer, text, middle);
        (line_count_ > count || (breaks_words_ && !must_break) ? narrow : wide) = middle;
    }
    break_lines(measurer, text, wide);
}

void TextBlock::say(std::string_view text, std::span<const TextPiece> pieces, const PieceLooks& looks) {
    text_ = text;
    is_seen_ = false;
    if (styled_ == nullptr) {
        if (pieces.empty()) return;
        styled_ = std::make_unique<Styled>();
    }
    auto& [own, drawn] = *styled_;
    own.clear();
    drawn.clear();
    for (const TextPiece& piece : pieces) {
        const PieceLook* const found = looks.look(piece);
        own.push_back({index(piece.begin), index(piece.end), found != nullptr ? index(drawn.size()) : no_look});
        if (found != nullptr) drawn.push_back(*found);
    }
}

Size TextBlock::measure(TextMeasurer* measurer, std::string_view decimal) {
    if (!can_measure(measurer)) return {};
    change_letters(*measurer);
    const std::string_view text = text_;
    const auto reach = [&](FontId font, float size) {
        const FontMetrics metrics = measurer->metrics(font);
        ascent_em_ = std::max(ascent_em_, metrics.ascent * size);
        descent_em_ = std::max(descent_em_, metrics.descent * size);
    };
    ascent_em_ = descent_em_ = 0;
    reach(*look_->font, look_->size);
    if (styled_ != nullptr)
        for (const PieceLook& of_piece : styled_->looks)
            if (of_piece.font) reach(*of_piece.font, of_piece.size);
    // As in CSS, half of what a line is higher than its characters stands above them.
    ascent_ = ascent_em_ + (line_advance() - ascent_em_ - descent_em_) / 2;
    shrink_ = 1;
    if (!decimal.empty()) digits_end_ = shape(*measurer, text.substr(0, end_of_whole_digits(text, decimal)), 0);
    if (!wraps() && text.find('\n') == std::string_view::npos) {
        glyphs_.clear();
        segments_.clear();
        line_count_ = 0;
        Line& line = next_line(0, text.size());
        natural_ = line.width = shape(*measurer, text, 0);
        take_shaped(line);
        return {natural_, height()};
    }
    break_as_wanted(*measurer, text, widest_room());
    natural_ = widest();
    if (room_ >= 0 && room_ < natural_ - hair && wraps()) break_as_wanted(*measurer, text, room_);
    return {natural_, height()};
}

bool TextBlock::fit(TextMeasurer* measurer, float width) {
    if (!can_measure(measurer)) return false;
    const std::string_view text = text_;
    room_ = width;
    if (wraps()) {
        const float limit = width < natural_ - hair ? width : widest_room();
        if (limit == broken_at_) return false;
        const float high = height();
        break_as_wanted(*measurer, text, limit);
        return height() != high;
    }
    shrink_ = look_->overflow == Overflow::shrink && natural_ > width + hair ? std::max(width, 0.0F) / natural_ : 1;
    const bool any_cut = std::any_of(lines_.begin(), lines_.begin() + static_cast<std::ptrdiff_t>(line_count_),
                                     [](const Line& line) { return line.is_cut; });
    const bool must_cut = look_->overflow == Overflow::ellipsis && natural_ > width + hair;
    if (!any_cut && !must_cut) return false;
    if (line_count_ == 1) {
        Line& line = lines_.front();
        if (must_cut) {
            if (!text.empty()) cut(*measurer, line, text, width);
            return false;
        }
        line.is_cut = false;
        line.width = shape(*measurer, text, 0);
        glyphs_.clear();
        segments_.clear();
        take_shaped(line);
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
    if (line.is_cut) return std::min(line.fitted->size(), text.size());
    const auto first = glyphs_.begin() + static_cast<std::ptrdiff_t>(line.first_glyph);
    const auto last = first + static_cast<std::ptrdiff_t>(line.glyph_count);
    const auto beyond =
        std::find_if(first, last, [&](const Glyph& glyph) { return glyph.offset.x > width - look_->size; });
    const auto part = static_cast<double>(beyond - first) / static_cast<double>(line.glyph_count + 1);
    return static_cast<std::size_t>(part * static_cast<double>(text.size()));
}

/// Where the characters of the beginning of a text end: at least so many bytes of it, and one character.
void TextBlock::find_characters(TextMeasurer& measurer, std::string_view text, std::size_t bytes) {
    Scratch& scratch = Scratch::of_thread();
    std::size_t part = bytes + 64;  // longer than any character
    while (true) {
        part = std::min(part, text.size());
        scratch.character_ends.clear();
        measurer.find_character_ends(text.substr(0, part), scratch.character_ends);
        // The last one may go on.
        if (part < text.size() && !scratch.character_ends.empty()) scratch.character_ends.pop_back();
        if (!scratch.character_ends.empty() || part == text.size()) return;
        part *= 2;
    }
}

/// The longest beginning that fits with an ellipsis behind it. Only the last line may be cut while others are added.
void TextBlock::cut(TextMeasurer& measurer, Line& line, std::string_view text, float width) {
    Scratch& scratch = Scratch::of_thread();
    std::size_t guess = std::max<std::size_t>(guess_cut(line, text, width), 4);
    line.is_cut = true;
    if (line.fitted == nullptr) line.fitted = std::make_unique<std::string>();
    std::string& fitted = *line.fitted;
    const auto try_out = [&](std::size_t bytes) {
        fitted.assign(without_spaces_behind(text.substr(0, bytes)));
        fitted += ellipsis;
        line.width = shape(measurer, fitted, line.begin);
        return line.width <= width + hair;
    };
    std::size_t fits = 0;
    while (true) {
        find_characters(measurer, text, guess * 2);
        const auto end_of = [&](std::size_t count) { return count > 0 ? scratch.character_ends[count - 1] : 0; };
        const auto near = std::upper_bound(scratch.character_ends.begin(), scratch.character_ends.end(), guess) -
                          scratch.character_ends.begin();
        const std::size_t most = scratch.character_ends.size();
        const std::size_t count = last_that(0, most, static_cast<std::size_t>(near),
                                            [&](std::size_t tried) { return try_out(end_of(tried)); });
        fits = end_of(count);
        if (count < most || fits >= text.size() || most == 0) break;
        guess *= 2;
    }
    if (!try_out(fits) && fits == 0) {
        // Not even the ellipsis has room.
        fitted.clear();
        scratch.glyphs.clear();
        scratch.segments.clear();
        line.width = 0;
    }
    // In place of what the line had, before those of the lines behind it.
    const auto replace = [](auto& all, std::size_t first, std::size_t count, const auto& by) {
        const auto begin = all.begin() + static_cast<std::ptrdiff_t>(first);
        const auto at = all.erase(begin, begin + static_cast<std::ptrdiff_t>(count));
        all.insert(at, by.begin(), by.end());
    };
    replace(glyphs_, line.first_glyph, line.glyph_count, scratch.glyphs);
    replace(segments_, line.first_segment, line.segment_count, scratch.segments);
    for (Line* other = &line + 1; other < lines_.data() + line_count_; ++other) {
        other->first_glyph = other->first_glyph - line.glyph_count + index(scratch.glyphs.size());
        other->first_segment = other->first_segment - line.segment_count + index(scratch.segments.size());
    }
    line.glyph_count = index(scratch.glyphs.size());
    line.segment_count = index(scratch.segments.size());
}

/// What its box is wider than the line.
float TextBlock::spare_of(const Line& line, const DrawPlace& at) const {
    return at.box.width - line.width * at.scale * shrink_;
}

/// The parts of a line: in their own colors, or all in one. Images are drawn with the own colors alone.
void TextBlock::draw_segments(const Line& line, const DrawPlace& at, float part, Point offset,
                              std::optional<Color> color, Color own, DisplayGroup& into,
                              const TurningDigits* digits) const {
    const float scale = at.scale * shrink_;
    const float before = at.mirrored ? 1 - part : part;
    // What goes beyond its box does so at its end.
    const float spare = spare_of(line, at);
    const float x = at.box.x + (spare >= 0                             ? spare * before
                                : look_->overflow == Overflow::visible ? spare * before
                                : at.mirrored                          ? spare
                                                                       : 0);
    const float baseline = at.box.y + ascent_ * at.scale;
    const std::string_view drawn = line.is_cut ? std::string_view(*line.fitted)
                                               : std::string_view(text_).substr(line.begin, line.end - line.begin);
    for (std::size_t i = 0; i < line.segment_count; ++i) {
        const Segment& segment = segments_[line.first_segment + i];
        const PieceLook* const own_look = look(segment.look);
        const Point start{x + offset.x + segment.x * scale, baseline + offset.y};
        if (own_look != nullptr && own_look->is_image) {
            if (!color && !own_look->is_none) draw_picture(*own_look, start, scale, at, into);
            continue;
        }
        const FontId font = own_look != nullptr && own_look->font ? *own_look->font : *look_->font;
        const float size = own_look != nullptr ? own_look->size : look_->size;
        const Color seen = color ? *color : own_look != nullptr && own_look->color ? *own_look->color : own;
        const std::string_view said = drawn.substr(segment.begin, segment.end - segment.begin);
        const auto glyphs = std::span(glyphs_).subspan(line.first_glyph + segment.first_glyph, segment.glyph_count);
        if (digits != nullptr)
            digits->draw(font, size * scale, start, segment.width * scale, seen, said, glyphs, scale, into);
        else
            into.text(font, size * scale, start, segment.width * scale, seen, said, glyphs, scale);
    }
}

/// As high as the characters are large, around the middle of capital letters.
void TextBlock::draw_picture(const PieceLook& look, Point baseline, float scale, const DrawPlace& at,
                             DisplayGroup& into) const {
    constexpr float middle_of_capitals = 0.36F;
    const float high = look.size * scale;
    const float wide =
        look.image && look.image_size.height > 0 ? high * look.image_size.width / look.image_size.height : high;
    const Rect box{baseline.x, baseline.y - middle_of_capitals * high - high / 2, wide, high};
    if (look.image)
        into.image(*look.image, {0, 0, look.image_size.width, look.image_size.height}, box, rgb(0xffffff));
    else
        ImageLook::draw_missing(box, at, into);
}

std::optional<LaidLine> TextBlock::laid_line(std::optional<float> part) const {
    if (!look_->font || line_count_ != 1 || lines_.front().is_cut || lines_.front().segment_count != 1 ||
        segments_.front().look != no_look)
        return std::nullopt;
    const Line& line = lines_.front();
    return LaidLine{.text = std::string_view(text_).substr(line.begin, line.end - line.begin),
                    .glyphs = {glyphs_.data(), line.glyph_count},
                    .font = *look_->font,
                    .size = look_->size,
                    .anchor = part ? *part * line.width : digits_end_};
}

void TextBlock::draw(const DrawPlace& at, float part, Color color, DisplayGroup& into,
                     const TurningDigits* digits) const {
    if (!can_measure(at.measurer)) return;
    if (!laid_line(part)) digits = nullptr;
    const float scale = at.scale * shrink_;
    const auto offset_of = [&](std::size_t line, Point by) {
        return Point{by.x * scale, by.y * scale + line_advance() * static_cast<float>(line) * at.scale};
    };
    const auto clip_from = [&](std::size_t first, const Line& line) {
        if (look_->overflow == Overflow::clip && spare_of(line, at) < 0) into.clip_from(first, at.box);
    };
    // What lies below one line lies below the characters of all of them.
    if (look_->shadow)
        for (std::size_t i = 0; i < line_count_; ++i) {
            const std::size_t first = into.items().size();
            draw_segments(lines_[i], at, part, offset_of(i, look_->shadow->offset), look_->shadow->color, color, into,
                          digits);
            into.soften_from(first, look_->outline ? look_->outline->width * scale : 0, look_->shadow->blur * scale);
            clip_from(first, lines_[i]);
        }
    if (look_->outline)
        for (std::size_t i = 0; i < line_count_; ++i) {
            const std::size_t first = into.items().size();
            draw_segments(lines_[i], at, part, offset_of(i, {}), look_->outline->color, color, into, digits);
            into.soften_from(first, look_->outline->width * scale, 0);
            clip_from(first, lines_[i]);
        }
    for (std::size_t i = 0; i < line_count_; ++i) {
        const std::size_t first = into.items().size();
        draw_segments(lines_[i], at, part, offset_of(i, {}), std::nullopt, color, into, digits);
        clip_from(first, lines_[i]);
    }
}

}  // namespace rapido
