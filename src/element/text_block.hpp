// A text that is measured, broken into lines, fitted to the room it gets, and drawn.
#pragma once

#include <cstdint>
#include <memory>
#include <optional>
#include <span>
#include <string>
#include <string_view>
#include <vector>

#include "element/body.hpp"
#include "element/piece_looks.hpp"
#include "element/turning_digits.hpp"
#include "rapido/element/text.hpp"
#include "rapido/layout/measurer.hpp"

namespace rapido {

/// How the characters of a text look, and how they stand in lines.
struct Lettering {
    std::optional<FontId> font;  ///< without one, nothing is measured and nothing is drawn
    float size = 24;
    float letter_spacing = 0;
    float line_height = 0;  ///< in sizes of the font; zero is that of the font
    TextTransform transform = TextTransform::none;
    Wrap wrap = Wrap::nowrap;
    int max_lines = 0;    ///< zero is as many as there are
    float max_width = 0;  ///< at which lines are broken; zero is without a limit
    Overflow overflow = Overflow::visible;
    std::optional<Outline> outline;
    std::optional<Shadow> shadow;
    friend bool operator==(const Lettering&, const Lettering&) = default;
};

class TextBlock {
 public:
    explicit TextBlock(Lettering lettering) : look_(std::make_shared<const Lettering>(std::move(lettering))) {}
    /// Shares what others look like, too.
    explicit TextBlock(std::shared_ptr<const Lettering> lettering) : look_(std::move(lettering)) {}

    /// What the description of a kind with such fields says.
    template <class Kind>
    static Lettering lettering_of(const Kind& described, Overflow overflow, BodyContext& context) {
        return {.font = find_font(described.font, described.weight, described.italic, context),
                .size = described.size * context.text_scale,
                .letter_spacing = described.letter_spacing * context.text_scale,
                .line_height = described.line_height,
                .transform = described.transform,
                .wrap = described.wrap,
                .max_lines = described.max_lines,
                .max_width = described.place.max_size.width,
                .overflow = overflow,
                .outline = described.outline,
                .shadow = described.shadow};
    }

    void set_font(std::optional<FontId> font) {
        if (font == look_->font) return;
        Lettering other = *look_;
        other.font = font;
        look_ = std::make_shared<const Lettering>(std::move(other));
    }
    /// Less room than the element may take, for what stands around the text in it.
    void set_max_width(float width) {
        if (width == look_->max_width) return;
        Lettering other = *look_;
        other.max_width = width;
        look_ = std::make_shared<const Lettering>(std::move(other));
    }
    /// The language by whose rules letters change, which must outlive what is said in it; null for none.
    void set_language(const Language* language) { language_ = language; }
    const Language* language() const { return language_; }
    bool can_measure(const TextMeasurer* measurer) const { return measurer != nullptr && look_->font; }
    /// Says this from now on, in these pieces: it keeps a copy of the characters and of the looks. It must be measured then.
    void say(std::string_view text, std::span<const TextPiece> pieces, const PieceLooks& looks);
    /// As wide as it is by itself, and as high as its lines at the width that it has. With a decimal mark it finds the end of
    /// the whole digits of a text of one line.
    Size measure(TextMeasurer* measurer, std::string_view decimal = {});
    float ascent() const { return ascent_; }
    float digits_end() const { return digits_end_; }
    float digits_after() const { return natural_ - digits_end_; }
    /// What it lacks room for, as a sentence without a subject.
    std::string fault_of_room() const;
    bool shrinks() const { return wraps() || look_->overflow != Overflow::visible; }

    /// It gets this much room. True if it is of another height then.
    bool fit(TextMeasurer* measurer, float width);
    /// In its box; what is left of the width of each line is split by `part`: 0 puts it to the start. Digits may be on their way.
    void draw(const DrawPlace& at, float part, Color color, DisplayGroup& into,
              const TurningDigits* digits = nullptr) const;
    /// What was measured last, held at a part of its width or at the end of its whole digits; nothing where it is not one line in one look.
    std::optional<LaidLine> laid_line(std::optional<float> part) const;

 private:
    using Index = std::uint32_t;  ///< a text is no longer than 4 GB
    std::string lack() const;
    /// A line: a part of the text, or what is left of it before an ellipsis.
    struct Line {
        Index begin = 0, end = 0;
        Index first_glyph = 0, glyph_count = 0;
        Index first_segment = 0, segment_count = 0;
        float width = 0;
        bool is_cut = false;
        std::unique_ptr<std::string> fitted;  ///< of one that is cut
    };
    /// A part of a line in one look.
    struct Segment {
        Index begin = 0, end = 0;                ///< bytes of the line
        Index first_glyph = 0, glyph_count = 0;  ///< of the line
        float x = 0, width = 0;
        Index look = no_look;  ///< of `Styled::looks`
    };
    /// A part of the text that looks otherwise.
    struct Piece {
        Index begin = 0, end = 0;
        Index look = no_look;  ///< of `Styled::looks`
    };
    static constexpr Index no_look = static_cast<Index>(-1);
    /// What a text in pieces has besides.
    struct Styled {
        std::vector<Piece> pieces;     ///< of the text as it is seen
        std::vector<PieceLook> looks;  ///< of those
    };

    std::span<const Piece> pieces() const { return styled_ != nullptr ? styled_->pieces : std::span<const Piece>(); }
    bool wraps() const { return look_->wrap != Wrap::nowrap; }
    void change_letters(TextMeasurer& measurer);
    std::string seen(TextMeasurer& measurer, std::string_view part) const;
    std::string seen_in_pieces(TextMeasurer& measurer);
    /// Null for that of the text.
    const PieceLook* look(Index number) const { return number != no_look ? &styled_->looks[number] : nullptr; }
    Index look_at(std::size_t byte) const;
    std::size_t next_edge(std::size_t byte) const;
    struct Scratch;
    /// Into `Scratch::glyphs` and `Scratch::segments`; the text stands at `from` of the whole.
    float shape(TextMeasurer& measurer, std::string_view text, std::size_t from);
    float shape_segment(TextMeasurer& measurer, std::string_view text, const PieceLook* look);
    void take_shaped(Line& line);
    Line& next_line(std::size_t begin, std::size_t end);
    void line(TextMeasurer& measurer, std::string_view text, std::size_t begin, std::size_t end);
    void break_lines(TextMeasurer& measurer, std::string_view text, float room);
    void break_as_wanted(TextMeasurer& measurer, std::string_view text, float room);
    std::size_t usual_bytes(float room) const;
    std::size_t end_of_word(TextMeasurer& measurer, std::string_view text, std::size_t begin, std::size_t end,
                            float room);
    void find_characters(TextMeasurer& measurer, std::string_view text, std::size_t bytes);
    void cut(TextMeasurer& measurer, Line& line, std::string_view text, float width);
    std::size_t guess_cut(const Line& line, std::string_view text, float width) const;
    float line_advance() const;
    float height() const;
    float widest() const;
    float widest_room() const;
    float spare_of(const Line& line, const DrawPlace& at) const;
    void draw_segments(const Line& line, const DrawPlace& at, float part, Point offset, std::optional<Color> color,
                       Color own, DisplayGroup& into, const TurningDigits* digits) const;
    void draw_picture(const PieceLook& look, Point baseline, float scale, const DrawPlace& at,
                      DisplayGroup& into) const;

    std::shared_ptr<const Lettering> look_;
    const Language* language_ = nullptr;
    float natural_ = 0;     ///< the width of the whole text, broken where it must be
    float room_ = -1;       ///< the width that it has; negative before it has one
    float broken_at_ = -1;  ///< the room for which the present lines were made
    float shrink_ = 1;      ///< what is drawn is so much smaller
    float ascent_ = -1;
    float digits_end_ = -1;
    bool is_seen_ = false;
    bool breaks_words_ = false;  ///< one that has no room in a line
    std::string text_;           ///< as it is seen, once it was measured
    std::vector<Line> lines_;
    std::vector<Glyph> glyphs_;
    std::vector<Segment> segments_;
    std::unique_ptr<Styled> styled_;        ///< null for a text without pieces
    Index line_count_ = 0;                  ///< of `lines_`; the others are kept for their memory
    float ascent_em_ = 0, descent_em_ = 0;  ///< of the highest of its fonts, in design pixels
};

}  // namespace rapido
