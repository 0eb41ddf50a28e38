#include "element/ticks.hpp"

#include <algorithm>
#include <cmath>

#include "element/pattern.hpp"
#include "element/text_block.hpp"

namespace rapido {

Numbers::Numbers(std::string format, std::string field, float size, BodyContext& context, std::vector<TickLabel> labels)
    : format_(std::move(format)),
      field_(std::move(field)),
      size_(size * context.text_scale),
      is_duration_(context.value_type == Value::Type::duration),
      labels_(std::move(labels)) {
    if (format_.empty() && labels_.empty()) return;
    font_ = find_font("", 500, false, context);
    set_language(nullptr, context);
}

void Numbers::set_language(const Language* language, BodyContext& context) {
    if (format_.empty() && labels_.empty()) return;
    // A scale is no count: its numbers may have digits after the point.
    const auto type = std::exchange(context.value_type, is_duration_ ? Value::Type::duration : Value::Type::float64);
    if (!format_.empty())
        text_ = make_formatted_text({.format = format_, .has_value = true, .field = field_}, {}, language, context);
    label_texts_.clear();
    for (const TickLabel& label : labels_)
        label_texts_.push_back(make_formatted_text({.format = label.text, .has_value = true, .field = "ticks.labels"},
                                                   {}, language, context));
    if (language != nullptr) font_ = find_font("", 500, false, context);
    context.value_type = type;
}

const TickLabel* Numbers::label_at(double value) const {
    const auto is_at = [value](const TickLabel& label) {
        return std::abs(label.at - value) <= 1e-9 * std::max(1.0, std::abs(value));
    };
    const auto found = std::find_if(labels_.rbegin(), labels_.rend(), is_at);
    return found != labels_.rend() ? &*found : nullptr;
}

void Numbers::shape(TextMeasurer* measurer, std::span<const double> values) {
    shaped_.clear();
    width_ = 0;
    if (!*this || measurer == nullptr || !font_) return;
    for (const double value : values) {
        const TickLabel* const label = label_at(value);
        std::optional<FormattedText>& own =
            label != nullptr ? label_texts_[static_cast<std::size_t>(label - labels_.data())] : text_;
        std::optional<FormattedText>& text = own ? own : text_;
        if (!text) {
            shaped_.emplace_back();  // the words of its label cannot be read
            continue;
        }
        text->update(
            {.value = is_duration_ ? Value(to_nanoseconds(Seconds{value})) : Value(value), .max = {}, .delta = {}});
        Shaped& shaped = shaped_.emplace_back();
        shaped.text = text->text();
        shaped.width = measurer->shape(*font_, size_, shaped.text, shaped.glyphs);
        width_ = std::max(width_, shaped.width);
    }
}

void Numbers::draw(std::size_t number, Point at, Point part, float scale, Color color, DisplayGroup& into) const {
    const Shaped& shaped = shaped_[number];
    const float width = shaped.width * scale;
    // Digits are about 0.73 of the size high, in every family.
    const float height = 0.73F * size_ * scale;
    const Point baseline{at.x - width * part.x, at.y + height * (1 - part.y)};
    into.text(*font_, size_ * scale, baseline, width, color, shaped.text, shaped.glyphs, scale);
}

TickRow::TickRow(const Ticks& ticks, const Usual& usual, BodyContext& context)
    : look_(ticks), usual_(usual), numbers_(ticks.format, "ticks.format", ticks.size, context, ticks.labels) {
    if (ticks.color) usual_.color = *ticks.color;
}

void TickRow::measure(TextMeasurer* measurer, double min, double max, bool is_tape) {
    const double most = is_tape ? 2000 : 200;
    ticks_.clear();
    std::vector<double> numbered;
    const auto add = [&](double at, bool is_long, bool has_number) -> Tick& {
        Tick& tick = ticks_.emplace_back(
            Tick{at, is_long, static_cast<std::size_t>(-1), is_long ? 2 : usual_.thickness, usual_.color});
        if (has_number && numbers_.says(at)) {
            tick.number = numbered.size();
            numbered.push_back(at);
        }
        return tick;
    };
    const double steps = std::floor((max - min) / look_.every + 1e-9);
    if (look_.every > 0 && steps >= 0 && steps <= most) {
        for (int i = 0; i <= static_cast<int>(steps); ++i) {
            const double at = min + i * look_.every;
            const double long_steps = (at - min) / look_.long_every;
            const bool is_long = look_.long_every > 0 && std::abs(long_steps - std::round(long_steps)) < 1e-6;
            add(at, is_long, is_long || !(look_.long_every > 0));
        }
    }
    for (const rapido::Tick& own : look_.at) {
        Tick& tick = add(own.at, false, true);
        tick.thickness = own.thickness.value_or(tick.thickness);
        if (own.color) tick.color = *own.color;
    }
    // A label stands at its value, also where there is no other tick.
    for (const TickLabel& label : look_.labels) {
        const auto is_there = [&](const Tick& tick) {
            return std::abs(tick.at - label.at) <= 1e-9 * std::max(1.0, std::abs(label.at));
        };
        if (std::none_of(ticks_.begin(), ticks_.end(), is_there)) add(label.at, false, true);
    }
    // So many nobody reads; they take much longer to make than lines.
    const std::size_t most_numbers = is_tape ? 600 : 60;
    if (numbered.size() > most_numbers) numbered.clear();
    numbers_.shape(measurer, numbered);
    for (Tick& tick : ticks_)
        tick.number = std::min(tick.number, numbers_.count());
}

}  // namespace rapido
