#include "rapido/element/bar.hpp"

#include "element/fields.hpp"
#include "element/kinds.hpp"

namespace rapido {
namespace {

constexpr std::array fields{
    required_field<&Bar::id>("id", "its name, unique among its siblings"),
    required_field<&Bar::value>("value", "what fills it"),
    field<&Bar::max>("max", "the value at which it is full"),
    field<&Bar::pace>("pace", "when it may change"),
    field<&Bar::motion>("motion", "how the shown value follows"),
    field<&Bar::rise>("rise", "instead of 'motion', upwards"),
    field<&Bar::fall>("fall", "instead of 'motion', downwards"),
    field<&Bar::max_motion>("max_motion", "how the shown maximum follows"),
    field<&Bar::trail>("trail", "a second bar that shows what was just lost"),
    field<&Bar::bands>("bands", "where it looks different"),
    field<&Bar::effects>("effects", "what starts effects"),
    field<&Bar::clock>("clock", "that pace, motion and fades follow"),
    field<&Bar::when_no_value>("when_no_value", "what becomes of it when its value is gone"),
    field<&Bar::place>("place", "where it stands, and how large it is"),
    field<&Bar::inside>("inside", "the panel that it stands in"),
    field<&Bar::group>("group", "shown, hidden, dimmed and snapped with it"),
    field<&Bar::direction>("direction", "which way it grows when the value does"),
    field<&Bar::color>("color", "of the fill"),
    field<&Bar::background>("background", "of the part that is not filled"),
    field<&Bar::radius>("radius", "of the corners", {"px", 0, largest_length}),
    field<&Bar::layer>("layer", "higher is drawn later", {"", -1000, 1000}),
    field<&Bar::visible>("visible", "shown while this is true"),
};
static_assert(fields.size() == member_count<Bar>);

/// The part of a maximum, 0 to 1.
double fill_of(double value, double max) {
    const double part = value / max;
    // The comparison is false for NaN, too.
    if (!(max > 0) || !std::isfinite(max) || !(part > 0)) return 0;
    return std::min(part, 1.0);
}

class BarBody final : public Body {
 public:
    explicit BarBody(const Bar& bar)
        : direction_(bar.direction),
          color_(bar.color),
          background_(bar.background),
          trail_color_(bar.trail.color),
          radius_(bar.radius) {}

    bool set_look(Color color, std::size_t) override {
        const bool differs = !(color == color_);
        color_ = color;
        return differs;
    }

    bool show(const FieldValues& shown, double trail) override {
        const double fill = fill_of(shown.value.number(), shown.max.number());
        const double behind = std::isnan(trail) ? fill : std::max(fill_of(trail, shown.max.number()), fill);
        const bool differs = fill != fill_ || behind != trail_;
        fill_ = fill;
        trail_ = behind;
        return differs;
    }

    Size measure(TextMeasurer*, Size) override { return {}; }

    void draw(const DrawPlace& at, DrawGroup& into) const override {
        const Rect edges = on_pixels(at.box);
        const float radius = radius_ * at.scale;
        const Direction direction = mirrored(direction_, at.mirrored);
        into.add_rect(edges, radius, background_);
        if (trail_ > fill_)
            into.add_rect(edges, radius, trail_color_, part_of(edges, direction, fill_, trail_));
        if (fill_ > 0) into.add_rect(edges, radius, color_, part_of(edges, direction, 0, fill_));
    }

    std::optional<double> fill() const override { return fill_; }
    std::optional<double> trail() const override { return trail_; }
    Color color() const override { return color_; }

 private:
    static Direction mirrored(Direction direction, bool mirrored) {
        if (!mirrored) return direction;
        if (direction == Direction::right) return Direction::left;
        return direction == Direction::left ? Direction::right : direction;
    }
    /// The part of the box between two fills.
    static Rect part_of(const Rect& box, Direction direction, double from, double to) {
        const auto low = static_cast<float>(from);
        const auto size = static_cast<float>(to) - low;
        switch (direction) {
            case Direction::right:
                return {box.x + box.width * low, box.y, box.width * size, box.height};
            case Direction::left:
                return {box.right() - box.width * (low + size), box.y, box.width * size, box.height};
            case Direction::up:
                return {box.x, box.bottom() - box.height * (low + size), box.width, box.height * size};
            case Direction::down:
                return {box.x, box.y + box.height * low, box.width, box.height * size};
        }
        return box;
    }

    Direction direction_;
    Color color_;
    Color background_;
    Color trail_color_;
    float radius_;
    double fill_ = 0;
    double trail_ = 0;  ///< where it ends; at least `fill_`
};

void check_type(std::string_view field, std::optional<Value::Type> type, BodyContext& context) {
    if (type == Value::Type::text) context.report(field, "a bar needs a number, and this source is a text");
}

}  // namespace

const Table Description<Bar>::table{"bar", fields};

std::unique_ptr<Body> make_body(const Bar& bar, BodyContext& context) {
    check_type("value", context.value_type, context);
    check_type("max", context.max_type, context);
    return std::make_unique<BarBody>(bar);
}

}  // namespace rapido
