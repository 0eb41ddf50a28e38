// Ticks along a scale, and the numbers at them.
#pragma once

#include <optional>
#include <span>
#include <string>
#include <vector>

#include "element/body.hpp"
#include "rapido/element/ticks.hpp"
#include "rapido/text/language.hpp"

namespace rapido {

/// Numbers of one pattern that are shaped once, and drawn around points.
class Numbers {
 public:
    /// `format` may be empty: then there are none. `field` is where it is written.
    Numbers(std::string format, std::string field, float size, BodyContext& context,
            std::vector<TickLabel> labels = {});

    explicit operator bool() const { return text_.has_value() || !labels_.empty(); }
    /// Whether something is written at a value.
    bool says(double value) const { return text_.has_value() || label_at(value) != nullptr; }
    void set_language(const Language* language, BodyContext& context);
    /// Replaces all of them.
    void shape(TextMeasurer* measurer, std::span<const double> values);
    std::size_t count() const { return shaped_.size(); }
    /// Of the widest; zero where nothing was measured.
    float width() const { return width_; }
    float width_of(std::size_t number) const { return shaped_[number].width; }
    float height() const { return *this ? size_ : 0; }
    /// A point of the number, as parts of its size, lies at `at`: { 0.5, 0.5 } is its middle.
    void draw(std::size_t number, Point at, Point part, float scale, Color color, DisplayGroup& into) const;

 private:
    struct Shaped {
        std::string text;
        float width = 0;
        std::vector<Glyph> glyphs;
    };
    /// The last one of a value; null where it has none.
    const TickLabel* label_at(double value) const;

    std::string format_;
    std::string field_;
    float size_;
    bool is_duration_;
    std::optional<FontId> font_;
    std::optional<FormattedText> text_;
    std::vector<TickLabel> labels_;
    std::vector<std::optional<FormattedText>> label_texts_;  ///< by label; nothing where it cannot be made
    std::vector<Shaped> shaped_;
    float width_ = 0;
};

/// The ticks of an element, where they are.
class TickRow {
 public:
    struct Tick {
        double at = 0;
        bool is_long = false;
        std::size_t number = 0;  ///< by its index; as many as there are for none
        float thickness = 2;     ///< design pixels
        Color color{};
    };
    /// How they look where nothing else is said, those that are not long.
    struct Usual {
        float thickness = 2;
        Color color{};
    };
    static constexpr Usual along_a_scale{1.2F, rgb(0xf2efe6, 0.7)}, across{2, rgb(0x10161c, 0.7)};
    TickRow(const Ticks& ticks, const Usual& usual, BodyContext& context);

    void set_language(const Language* language, BodyContext& context) { numbers_.set_language(language, context); }
    bool empty() const { return look_.at.empty() && !(look_.every > 0); }
    /// Whether some of them stand elsewhere for another `min` or `max`.
    bool has_steps() const { return look_.every > 0; }
    /// Lays those at equal steps out from `min` to `max`, more of them where only a part is seen at once, and those at values of their own
    /// wherever these are.
    void measure(TextMeasurer* measurer, double min, double max, bool is_tape = false);
    const std::vector<Tick>& all() const { return ticks_; }
    const Numbers& numbers() const { return numbers_; }
    /// Those at values of their own.
    std::span<const rapido::Tick> at_values() const { return look_.at; }
    float length_of(const Tick& tick) const { return (tick.is_long ? 2 : 1) * look_.length; }
    float long_length() const { return look_.length * 2; }

 private:
    Ticks look_;
    Usual usual_;
    Numbers numbers_;
    std::vector<Tick> ticks_;
};

}  // namespace rapido
