#include "rapido/element/bar.hpp"

#include "element/fields.hpp"
#include "element/kinds.hpp"

namespace rapido {
namespace {

constexpr std::array fields{
    required_field<&Bar::id>("id", "its name, unique among its siblings"),
    required_field<&Bar::value>("value", "what fills it"),
    field<&Bar::max>("max", "the value at which it is full"),
    field<&Bar::motion>("motion", "how the shown value follows"),
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
double fill_of(const FieldValues& shown) {
    const double max = shown.max.number();
    const double part = shown.value.number() / max;
    // The comparison is false for NaN, too.
    if (!(max > 0) || !std::isfinite(max) || !(part > 0)) return 0;
    return std::min(part, 1.0);
}

class BarBody final : public Body {
 public:
    explicit BarBody(const Bar& bar) : bar_(bar) {}

    bool show(const FieldValues& shown) override {
        const double fill = fill_of(shown);
        const bool differs = fill != fill_;
        fill_ = fill;
        return differs;
    }

    Size measure(TextMeasurer*, Size) override { return {}; }

    void draw(const Rect& box, float scale, TextMeasurer*, DrawGroup& into) const override {
        const Rect edges = on_pixels(box);
        const float radius = bar_.radius * scale;
        into.add_rect(edges, radius, bar_.background);
        if (fill_ > 0) into.add_rect(edges, radius, bar_.color, filled_part(edges));
    }

    std::optional<double> fill() const override { return fill_; }
    Color color() const override { return bar_.color; }

 private:
    Rect filled_part(const Rect& box) const {
        const auto part = static_cast<float>(fill_);
        switch (bar_.direction) {
            case Direction::right:
                return {box.x, box.y, box.width * part, box.height};
            case Direction::left:
                return {box.right() - box.width * part, box.y, box.width * part, box.height};
            case Direction::up:
                return {box.x, box.bottom() - box.height * part, box.width, box.height * part};
            case Direction::down:
                return {box.x, box.y, box.width, box.height * part};
        }
        return box;
    }

    Bar bar_;
    double fill_ = 0;
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
