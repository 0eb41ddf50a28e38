// Marks along a scale, and the numbers at them.
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "element/body.hpp"
#include "rapido/element/scale_marks.hpp"
#include "rapido/text/language.hpp"

namespace rapido {

/// Numbers of one pattern that are shaped once, and drawn around points.
class Numbers {
 public:
    /// `format` may be empty: then there are none. `field` is where it is written.
    Numbers(std::string format, std::string field, float size, BodyContext& context,
            std::vector<MarkLabel> labels = {});

    explicit operator bool() const { return text_.has_value(); }
    void set_language(const Language* language, BodyContext& context);
    /// Replaces all of them.
    void shape(TextMeasurer* measurer, std::span<const double> values);
    std::size_t count() const { return shaped_.size(); }
    /// Of the widest; zero where nothing was measured.
    float width() const { return width_; }
    float width_of(std::size_t number) const { return shaped_[number].width; }
    float height() const { return text_ ? size_ : 0; }
    /// A point of the number, as parts of its size, lies at `at`: { 0.5, 0.5 } is its middle.
    void draw(std::size_t number, Point at, Point part, float scale, Color color, DrawGroup& into) const;

 private:
    struct Shaped {
        std::string text;
        float width = 0;
        std::vector<Glyph> glyphs;
    };
    std::string format_;
    std::string field_;
    float size_;
    bool is_duration_;
    std::optional<FontId> font_;
    std::optional<FormattedText> text_;
    std::vector<MarkLabel> labels_;
    std::vector<std::optional<FormattedText>> label_texts_;  ///< by label; nothing where it cannot be made
    std::vector<Shaped> shaped_;
    float width_ = 0;
};

class Marks {
 public:
    struct Mark {
        double at = 0;
        bool is_long = false;
        std::size_t number = 0;  ///< by its index; as many as there are for none
    };
    Marks(const ScaleMarks& marks, BodyContext& context);

    void set_language(const Language* language, BodyContext& context) { numbers_.set_language(language, context); }
    /// Lays them out from `min` to `max`; more of them where only a part is seen at once.
    void measure(TextMeasurer* measurer, double min, double max, bool is_tape = false);
    const std::vector<Mark>& all() const { return marks_; }
    const Numbers& numbers() const { return numbers_; }
    const ScaleMarks& look() const { return look_; }
    float long_length() const { return look_.length * 2; }

 private:
    ScaleMarks look_;
    Numbers numbers_;
    std::vector<Mark> marks_;
};

}  // namespace rapido
