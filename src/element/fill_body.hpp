// What the kinds have in common that show how full something is.
#pragma once

#include <algorithm>
#include <cmath>
#include <memory>
#include <optional>

#include "element/body.hpp"

namespace rapido {

/// The part of a maximum, 0 to 1.
inline double fill_of(double value, double max) {
    const double part = value / max;
    // The comparison is false for NaN, too.
    if (!(max > 0) || !std::isfinite(max) || !(part > 0)) return 0;
    return std::min(part, 1.0);
}

/// The same on a grid of so many steps: what moves is drawn where a step is, a little is never nothing, and nearly all never all.
inline double on_grid(double part, double steps) {
    if (!(steps > 0) || part <= 0 || part >= 1) return part;
    return std::clamp(std::nearbyint(part * steps), 1.0, steps - 1) / steps;
}

/// A length that stands for a part of a whole one, honest to a unit: a little is never nothing, nearly all never all.
inline float honest_length(double part, float whole, float unit) {
    if (part <= 0) return 0;
    if (part >= 1) return whole;
    const float length = static_cast<float>(part) * whole;
    return std::max(std::min(length, whole - unit), std::min(unit, whole));
}

/// As little as is seen at a glance: two design pixels, and a device pixel at least.
inline float least_length(float scale) {
    return std::max(1.0F, 2 * scale);
}

class FillBody : public Body {
 public:
    /// The end color is that of the full end, for a gradient outside of bands.
    FillBody(Color color, Color trail_color, std::optional<Color> end_color = {}, double min = 0,
             const AtEnd& at_end = {})
        : empty_at_(min), color_(color), trail_color_(trail_color), own_color_(color), end_color_(end_color) {
        if (!at_end.element.empty()) at_end_ = std::make_unique<const AtEnd>(at_end);
    }

    Change set_look(const Look& look) override {
        const bool differs = !(look.color == color_) || look.pattern != pattern_;
        color_ = look.color;
        pattern_ = look.pattern;
        return look_if(differs);
    }
    Change show(const ShownValue& shown) override {
        const double most = shown.max - empty_at_;
        const double fill = on_grid(fill_of(shown.amount - empty_at_, most), shown.steps);
        const double lost_to =
            on_grid(fill_of(shown.trail - empty_at_, most), std::max(shown.steps, shown.trail_steps));
        const double behind = std::isnan(shown.trail) ? fill : std::max(lost_to, fill);
        const bool differs = fill != fill_ || behind != trail_;
        fill_ = fill;
        trail_ = behind;
        return look_if(differs);
    }
    Amounts looks_same(const ShownValue& shown) const override {
        const double length = shown.max - empty_at_;
        if (!(shown.steps > 0) || !(length > 0)) return {};
        constexpr double half = 0.5 - step_edge;
        const double step = std::nearbyint(fill_ * shown.steps), last = shown.steps - 1;
        const auto amount = [&](double steps) { return empty_at_ + length * steps / shown.steps; };
        const double lowest = step > 1 ? step - half : step > 0 ? step_edge : -shown.steps;
        const double highest = step < last ? step + half : step > last ? 2 * shown.steps : shown.steps - step_edge;
        return {amount(lowest), amount(step > 0 ? highest : -step_edge)};
    }
    Size measure(TextMeasurer*, Size) override { return {}; }

    std::optional<double> fill() const override { return fill_; }
    std::optional<double> trail() const override { return trail_; }
    const AtEnd* at_end() const override { return at_end_.get(); }
    Color color() const override { return color_; }

 protected:
    /// A text cannot fill anything.
    static void check_types(BodyContext& context, std::string_view kind) {
        const std::string message = std::string(kind) + " needs a number, and this source is a text";
        if (context.value_type == Value::Type::text) context.report("value", message);
        if (context.max_type == Value::Type::text) context.report("max", message);
    }
    /// Paints what was lost, then the fill, then its pattern: `paint(from, to, color, end_color)` paints a part of the whole,
    /// with a gradient if there is an end color, and `stripes` what lies over the fill in a band with stripes.
    template <class Paint, class Stripes>
    void paint_fill(Paint paint, Stripes stripes) const {
        if (trail_ > fill_) paint(fill_, trail_, trail_color_, nullptr);
        if (!(fill_ > 0)) return;
        paint(0.0, fill_, color_, end_color_ && !is_in_band() ? &*end_color_ : nullptr);
        if (pattern_ == FillPattern::stripes) stripes();
    }
    /// Calls `draw` with the number of each segment that is lit from one part of the whole to another.
    template <class Draw>
    static void for_each_segment(double from, double to, int segments, Draw draw) {
        const auto lit = [segments](double part) {
            return static_cast<int>(std::lround(honest_length(part, static_cast<float>(segments), 1)));
        };
        for (int i = lit(from); i < lit(to); ++i)
            draw(i);
    }
    /// Calls `draw` with the beginning and the end of each stripe across a fill of a length in device pixels.
    template <class Draw>
    static void for_each_stripe_of(float length, float scale, Draw draw) {
        const float width = std::max(1.0F, std::round(4 * scale));
        for (float at = width; at < length; at += 2 * width)
            draw(at, std::min(at + width, length));
    }
    /// The way of a direction, in degrees clockwise from the right.
    static float rotation_of(Direction direction) {
        switch (direction) {
            case Direction::left:
                return 180;
            case Direction::up:
                return -90;
            case Direction::down:
                return 90;
            default:
                return 0;
        }
    }
    static constexpr Color stripe_color = rgb(0x10161c, 0.55);
    bool is_in_band() const { return !(color_ == own_color_); }
    double empty_at_ = 0;  ///< the value at which it is empty
    double fill_ = 0;
    double trail_ = 0;  ///< where it ends; at least `fill_`
    Color color_;
    FillPattern pattern_ = FillPattern::plain;

 private:
    std::unique_ptr<const AtEnd> at_end_;  ///< null for nothing
    Color trail_color_;
    Color own_color_;
    std::optional<Color> end_color_;
};

}  // namespace rapido
