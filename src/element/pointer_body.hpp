// What the kinds have in common that point at a value on a scale.
#pragma once

#include "element/fill_body.hpp"
#include "element/ticks.hpp"

namespace rapido {

class PointerBody : public FillBody {
 public:
    PointerBody(Color color, double min, bool wraps, const Ticks& ticks, BodyContext& context)
        : FillBody(color, color), min_(min), wraps_(wraps), ticks_(ticks, TickRow::along_a_scale, context) {}

    void take_over(Body& other) override {
        FillBody::take_over(other);
        points_ = static_cast<const PointerBody&>(other).points_;
    }
    void set_language(const Language* language, BodyContext& context) override {
        ticks_.set_language(language, context);
        stale_ = true;
    }
    Amounts looks_same(const ShownValue&) const override { return {}; }
    Change show(const ShownValue& shown) override {
        const double max = shown.max, value = shown.amount;
        const bool resized = std::exchange(stale_, false) || !(max == max_ || (std::isnan(max) && std::isnan(max_)));
        max_ = max;
        const double length = max - min_;
        const bool points = std::isfinite(value) && length > 0 && std::isfinite(length);
        double part = points ? (value - min_) / length : 0;
        if (wraps_ && std::isfinite(part)) part -= std::floor(part);
        part = std::clamp(part, 0.0, 1.0);
        const bool differs = points != points_ || part != fill_ || value != value_;
        points_ = points;
        fill_ = trail_ = part;
        value_ = points ? value : 0;
        return resized ? Change::size : look_if(differs);
    }
    std::optional<double> fill() const override { return points_ ? std::optional(fill_) : std::nullopt; }
    std::optional<double> trail() const override { return std::nullopt; }

 protected:
    /// Where a value is on the scale, 0 to 1.
    double part_of(double value) const {
        const double length = max_ - min_;
        return length > 0 && std::isfinite(length) ? std::clamp((value - min_) / length, 0.0, 1.0) : 0;
    }
    bool is_numbered(const TickRow::Tick& tick) const { return tick.number < ticks_.numbers().count(); }

    double min_;
    double max_ = 1;
    bool wraps_;
    bool points_ = false;  ///< at a value
    double value_ = 0;
    TickRow ticks_;

 private:
    bool stale_ = true;  ///< the ticks are not laid out yet, or in another language
};

}  // namespace rapido
