// The digits of a text, each on its way to its next figure.
#pragma once

#include <algorithm>
#include <array>
#include <cmath>
#include <limits>
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
    /// What the text shows of its value, which says which way digits go; and where it is itself on its way, the same in units of its last
    /// digit, for a wheel.
    void follow(double amount, std::optional<double> running);
    /// From now on it is this text; nothing for one that has no such line.
    void take(const std::optional<LaidLine>& line, TextMeasurer& measurer, const Language* language);

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
    /// Where something stands, from the anchor, and how it moves there.
    struct Way {
        float from = 0, to = 0;
        Nanoseconds begin{0};
    };
    struct Place {
        Figure from, to, next;
        bool has_next = false, next_rises = true;
        bool moves = false;                    ///< from one figure to the other
        bool rises = true;                     ///< upwards
        Nanoseconds begin{0};                  ///< of that
        float turned_from = 0, turned_to = 0;  ///< of a wheel, in figures
        Way x;
        /// The one at which it comes to rest.
        const Figure& last() const { return has_next ? next : to; }
    };
    /// With what a text is drawn, and where it starts.
    struct Pen {
        FontId font;
        float size;
        Point start;
        Color color;
        float scale;
        DisplayGroup& into;
    };

    double part(Nanoseconds begin) const;
    bool is_over(Nanoseconds begin) const { return now_ >= begin + to_nanoseconds(motion_.duration); }
    bool is_moving(const Way& way) const { return way.from != way.to && !is_over(way.begin); }
    float at(const Way& way) const { return way.from + (way.to - way.from) * static_cast<float>(part(way.begin)); }
    float shift(const Way& way) const { return at(way) - way.to; }
    bool turns(const Place& place) const;
    float turned(const Place& place) const;
    std::vector<Figure> figures_of(const LaidLine& line, TextMeasurer& measurer, const Language* language);
    void shape_digits(const LaidLine& line, TextMeasurer& measurer, const Language* language);
    std::size_t glyph_of(std::size_t place) const;
    void aim(Place& place, const Figure& figure, std::size_t number);
    void turn(Place& place, float at, bool rises);
    void go_on(Place& place);
    void settle();
    void run(std::optional<double> amount);
    bool runs(std::size_t place) const { return running_ && place < wheels_.size() && std::isfinite(wheels_[place]); }
    bool has_sign() const { return !places_.empty() && places_.front().last().is_there(); }
    void draw_figure(const Figure& figure, float x, float up, float stretch, float seen, const Pen& pen) const;
    void draw_between(const Figure& out, const Figure& in, float way, bool rises, float x, const Pen& pen) const;
    void draw_wheel(double at, float x, const Pen& pen) const;
    void draw_place(const Place& place, const Pen& pen) const;

    DigitMotion motion_;
    Nanoseconds now_{0};
    bool may_move_ = false, snaps_ = true, snaps_next_ = true, moved_ = false;
    double amount_ = std::numeric_limits<double>::quiet_NaN();  ///< that was shown last
    bool rises_ = true;                                         ///< since the one before
    std::optional<double> running_;
    std::vector<double> wheels_;  ///< while it runs: where the wheel of each place is, not a number where there is none
    std::vector<Place> places_;   ///< that of the sign, and then from the last one on; none for a text without a number
    std::vector<Place> leaving_;
    Way before_, behind_;    ///< what stands before the number and behind it
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
