// The digits of a text, each on its way to its next figure.
#pragma once

#include <algorithm>
#include <array>
#include <optional>
#include <span>
#include <string>
#include <string_view>
#include <vector>

#include "rapido/draw/display_list.hpp"
#include "rapido/element/text.hpp"
#include "rapido/layout/measurer.hpp"
#include "rapido/text/language.hpp"

namespace rapido {

/// A text of one line in one look, as it lies there.
struct LaidLine {
    std::string_view text;
    std::span<const Glyph> glyphs;
    FontId font = 0;
    float size = 0;    ///< design pixels per em
    float anchor = 0;  ///< from its start to where it is held, design pixels
};

/// The number of a text is all from its first digit to its last, and the sign before it. Its characters have places, counted from the
/// last one, and the sign has one of its own; each is at rest, or on the way from one figure to another. What stands before and behind the number moves along.
class TurningDigits {
 public:
    explicit TurningDigits(const DigitMotion& motion) : motion_(motion) {}

    /// Goes on where another one was.
    void take_over(TurningDigits& other) {
        std::swap(other.motion_, motion_);
        *this = std::move(other);
    }
    /// The next text stands at once.
    void snap() { snaps_next_ = true; }
    /// Goes on to a moment; true where what is drawn differs from before.
    bool advance(Nanoseconds now, bool may_move);
    /// A wheel of a number that is itself on its way: its amount in units of the last digit. Nothing where it rests.
    void run(std::optional<double> amount);
    /// From now on it is this text; nothing for one that has no such line.
    void take(const std::optional<LaidLine>& line, TextMeasurer& measurer, const Language* language, bool rises);

    /// In place of `DisplayGroup::text`, with all that is on its way.
    void draw(FontId font, float size, Point start, float width, Color color, std::string_view text,
              std::span<const Glyph> glyphs, float scale, DisplayGroup& into) const;

 private:
    /// A character, or none: digits by their number, others by their bytes.
    struct Figure {
        std::string_view bytes() const { return {characters.data(), length}; }
        bool is_there() const { return length > 0; }
        bool is_same(const Figure& other) const { return bytes() == other.bytes(); }
        /// What is longer is not there.
        void say(std::string_view bytes) {
            length = bytes.size() <= characters.size() ? static_cast<std::uint8_t>(bytes.size()) : 0;
            std::copy_n(bytes.begin(), length, characters.begin());
        }
        std::array<char, 4> characters{};
        std::uint8_t length = 0;
        int digit = -1;
        Glyph glyph{};  ///< from the start of its place
    };
    struct Place {
        Figure from, to, next;
        bool has_next = false;
        bool moves = false;                    ///< from one figure to the other
        bool rises = true;                     ///< upwards
        Nanoseconds begin{0};                  ///< of that
        float turned_from = 0, turned_to = 0;  ///< of a wheel, in figures
        // Where it stands, from the anchor.
        float x_from = 0, x_to = 0;
        Nanoseconds x_begin{0};
    };
    /// What moves along as a whole.
    struct Shift {
        float x_from = 0, x_to = 0;
        Nanoseconds begin{0};
    };

    double part(Nanoseconds begin) const;
    bool is_over(Nanoseconds begin) const { return now_ >= begin + to_nanoseconds(motion_.duration); }
    float x_of(const Place& place) const;
    float shift_of(const Shift& shift) const;
    bool turns(const Place& place) const;
    float turned(const Place& place) const;
    std::vector<Figure> figures_of(const LaidLine& line, TextMeasurer& measurer, const Language* language);
    void shape_digits(const LaidLine& line, TextMeasurer& measurer, const Language* language);
    std::size_t glyph_of(std::size_t place) const;
    void aim(Place& place, const Figure& figure, std::size_t number);
    void turn(Place& place, float at);
    void go_on(Place& place);
    void settle(Place& place);
    void draw_figure(const Figure& figure, float x, float up, float stretch, float seen, FontId font, float size,
                     Point start, Color color, float scale, DisplayGroup& into) const;
    void draw_between(const Figure& out, const Figure& in, float way, bool rises, float x, FontId font, float size,
                      Point start, Color color, float scale, DisplayGroup& into) const;
    void draw_place(const Place& place, std::size_t number, FontId font, float size, Point start, Color color,
                    float scale, DisplayGroup& into) const;

    DigitMotion motion_;
    Nanoseconds now_{0};
    bool may_move_ = false, snaps_ = true, snaps_next_ = true, rises_ = true, moved_ = false;
    std::optional<double> running_;
    std::vector<double> wheels_;  ///< while it runs: where the wheel of each place is, not a number where there is none
    std::vector<Place> places_;   ///< that of the sign, and then from the last one on; none for a text without a number
    std::vector<Place> leaving_;
    Shift before_, behind_;
    std::size_t first_ = 0;  ///< the glyph of the first character of the number, behind its sign
    float anchor_ = 0;
    std::array<Figure, 10> digits_{};
    FontId font_ = 0;
    float size_ = 0;
    std::string script_;  ///< the ten digits that were shaped
    mutable std::vector<Glyph> still_;
    std::vector<Glyph> shaped_;
};

}  // namespace rapido
