#include "element/marks.hpp"

#include "element/pattern.hpp"
#include "element/text_block.hpp"

namespace rapido {

Numbers::Numbers(std::string format, std::string field, float size, BodyContext& context, std::vector<MarkLabel> labels)
    : format_(std::move(format)),
      field_(std::move(field)),
      size_(size * context.text_scale),
      is_duration_(context.value_type == Value::Type::duration),
      labels_(std::move(labels)) {
    if (format_.empty()) return;
    font_ = find_font("", 500, false, context);
    set_language(nullptr, context);
}

void Numbers::set_language(const Language* language, BodyContext& context) {
    if (format_.empty()) return;
    // A scale is no count: its numbers may have digits after the point.
    const auto type = std::exchange(context.value_type, is_duration_ ? Value::Type::duration : Value::Type::float64);
    text_ = make_formatted_text({.format = format_, .has_value = true, .field = field_}, {}, language, context);
    label_texts_.clear();
    for (const MarkLabel& label : labels_)
        label_texts_.push_back(make_formatted_text({.format = label.text, .has_value = true, .field = "marks.labels"},
                                                   {}, language, context));
    if (language != nullptr) font_ = find_font("", 500, false, context);
    context.value_type = type;
}

void Numbers::shape(TextMeasurer* measurer, std::span<const double> values) {
    shaped_.clear();
    width_ = 0;
    if (!text_ || measurer == nullptr || !font_) return;
    for (const double value : values) {
        FormattedText* text = &*text_;
        for (std::size_t i = 0; i < labels_.size(); ++i)
            if (label_texts_[i] && std::abs(labels_[i].at - value) <= 1e-9 * std::max(1.0, std::abs(value)))
                text = &*label_texts_[i];
        text->update(
            {.value = is_duration_ ? Value(to_nanoseconds(Seconds{value})) : Value(value), .max = {}, .delta = {}});
        Shaped& shaped = shaped_.emplace_back();
        shaped.text = text->text();
        shaped.width = measurer->shape(*font_, size_, shaped.text, shaped.glyphs);
        width_ = std::max(width_, shaped.width);
    }
}

void Numbers::draw(std::size_t number, Point at, Point part, float scale, Color color, DrawGroup& into) const {
    const Shaped& shaped = shaped_[number];
    const float width = shaped.width * scale;
    // Digits are about 0.73 of the size high, in every family.
    const float height = 0.73F * size_ * scale;
    const Point baseline{at.x - width * part.x, at.y + height * (1 - part.y)};
    into.add_text(*font_, size_ * scale, baseline, width, color, shaped.text, shaped.glyphs, scale);
}

Marks::Marks(const ScaleMarks& marks, BodyContext& context)
    : look_(marks), numbers_(marks.format, "marks.format", marks.size, context, marks.labels) {}

void Marks::measure(TextMeasurer* measurer, double min, double max, bool is_tape) {
    const double most = is_tape ? 2000 : 200;
    marks_.clear();
    std::vector<double> numbered;
    const double steps = std::floor((max - min) / look_.every + 1e-9);
    if (look_.every > 0 && steps >= 0 && steps <= most) {
        for (int i = 0; i <= static_cast<int>(steps); ++i) {
            const double at = min + i * look_.every;
            const double long_steps = (at - min) / look_.long_every;
            const bool is_long = look_.long_every > 0 && std::abs(long_steps - std::round(long_steps)) < 1e-6;
            marks_.push_back({at, is_long, static_cast<std::size_t>(-1)});
            if (!numbers_ || (look_.long_every > 0 && !is_long)) continue;
            marks_.back().number = numbered.size();
            numbered.push_back(at);
        }
    }
    // So many nobody reads; they take much longer to make than lines.
    const std::size_t most_numbers = is_tape ? 600 : 60;
    if (numbered.size() > most_numbers) numbered.clear();
    numbers_.shape(measurer, numbered);
    for (Mark& mark : marks_)
        mark.number = std::min(mark.number, numbers_.count());
}

}  // namespace rapido
