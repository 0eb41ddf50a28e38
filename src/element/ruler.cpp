#include "rapido/element/ruler.hpp"

#include <algorithm>

#include "draw/outline.hpp"
#include "element/fields.hpp"
#include "element/kinds.hpp"
#include "element/pointer_body.hpp"

namespace rapido {
namespace {

constexpr std::array pointer_fields{
    required_field<&RulerPointer::value>("value", "The value that it points at."),
    field<&RulerPointer::color>("color", "The color of the pointer."),
    field<&RulerPointer::length>("length", "The length of the triangle; zero draws the line alone.",
                                 {"px", 0, largest_length}),
};
static_assert(pointer_fields.size() == member_count<RulerPointer>);

}  // namespace

template <>
inline constexpr Table table_of<RulerPointer>{"pointer", pointer_fields};

namespace {

constexpr std::array own_ruler_fields{
    required_field<&Ruler::id>("id", "The name of the element, unique among its siblings."),
    required_field<&Ruler::value>("value", "The value that the pointer points at."),
    field<&Ruler::min>("min", "The value at which the scale begins.", {"", -1e300, 1e300}),
    field<&Ruler::max>("max", "The value at which the scale ends."),
    field<&Ruler::direction>("direction", "The direction in which the scale ends."),
    field<&Ruler::visible_span>("visible_span", "How much of the scale is seen at once, with the value in the middle.",
                                {"", 0, 1e300}),
    field<&Ruler::neutral>("neutral", "The value from which the fill begins.", {"", -1e300, 1e300}),
    field<&Ruler::colors>("colors", "Colors along the whole scale, at values.", {.most = 64}),
    field<&Ruler::thickness>("thickness", "The thickness of the strip.", {"px", 0, largest_length}),
    field<&Ruler::radius>("radius", "The radius of the corners.", {"px", 0, largest_length}),
    field<&Ruler::pointer>("pointer", "The length of the triangle that points at the value; zero draws none.",
                           {"px", 0, largest_length}),
    field<&Ruler::pointers>("pointers", "Further pointers, each at a value of its own.", {.most = 16}),
    field<&Ruler::ticks>("ticks", "Ticks and numbers along the strip."),
    field<&Ruler::color>("color", "The color of the pointer, and of the fill."),
    field<&Ruler::background>("background", "The color of the strip where it has no other."),
};
constexpr auto ruler_fields = joined(own_ruler_fields, following_fields<Ruler>, banded_fields<Ruler>,
                                     placed_fields<Ruler>, entering_fields<Ruler>);
static_assert(ruler_fields.size() == member_count<Ruler> + flat_motions);

class RulerBody final : public PointerBody {
 public:
    RulerBody(const Ruler& ruler, BodyContext& context)
        : PointerBody(ruler.color, ruler.min, false, ruler.ticks, context),
          direction_(ruler.direction),
          window_(ruler.visible_span),
          cycle_(ruler.motion.cycle),
          neutral_(ruler.neutral),
          colors_(ruler.colors),
          thickness_(ruler.thickness),
          radius_(ruler.radius),
          pointer_(ruler.pointer),
          pointers_(ruler.pointers),
          background_(ruler.background) {}

    static void check(const Ruler& ruler, BodyContext& context) {
        check_types(context, "a ruler");
        const auto by_value = [](const ColorStop& a, const ColorStop& b) { return a.at < b.at; };
        if (!std::is_sorted(ruler.colors.begin(), ruler.colors.end(), by_value))
            context.report("colors", "must stand in order of 'at'", {}, ProblemCode::contradiction);
        if (ruler.visible_span > 0 && ruler.neutral)
            context.report("visible_span", "must not be there where there is 'neutral'", {},
                           ProblemCode::contradiction);
        if (ruler.motion.cycle > 0 && ruler.visible_span > ruler.motion.cycle)
            context.report("visible_span", "must not be more than 'cycle'", {}, ProblemCode::contradiction);
    }

    Size measure(TextMeasurer* measurer, Size) override {
        ticks_.measure(measurer, min_, max_, is_tape());
        const Numbers& numbers = ticks_.numbers();
        float across = pointer_ + thickness_;
        if (!ticks_.all().empty()) across += 2 + ticks_.long_length();
        if (numbers) across += 3 + (is_upright() ? numbers.width() : numbers.height());
        return is_upright() ? Size{across, 0} : Size{0, across};
    }

    bool is_upright() const override { return direction_ == Direction::up || direction_ == Direction::down; }

    void draw(const DrawPlace& at, DisplayGroup& into) const override {
        const Strip strip{Axis(on_pixels(at.box), at.seen(direction_)), pointer_ * at.scale, thickness_ * at.scale};
        const Rect whole = strip.between(0, 1);
        if (is_tape() && !points_) return into.rect(whole, radius_ * at.scale, background_);
        if (colors_.empty() || neutral_ || is_tape()) into.rect(whole, radius_ * at.scale, background_);
        if (!colors_.empty() && !neutral_)
            for_each_round([&](double shift) { draw_colors(strip, radius_ * at.scale, shift, into); });
        draw_marks(strip, at.scale, into);
        if (points_ && neutral_) draw_fill(strip, at.scale, into);
        for (std::size_t i = 0; i < pointers_.size() && max_ > min_; ++i)
            if (i < further_.size() && std::isfinite(further_[i]))
                draw_pointer(strip, std::clamp(seen_at(further_[i]), 0.0, 1.0), std::min(pointers_[i].length, pointer_),
                             pointers_[i].color, at.scale, into);
        if (points_ && pointer_ > 0) draw_pointer(strip, is_tape() ? 0.5 : fill_, pointer_, color_, at.scale, into);
    }
    void show_further(std::span<const Value> values) override {
        further_.clear();
        for (const Value& value : values)
            further_.push_back(value.number());
        further_changed_ = true;
    }
    Change show(const ShownValue& shown) override {
        return std::max(PointerBody::show(shown), look_if(std::exchange(further_changed_, false)));
    }

 private:
    /// The strip along which values lie.
    struct Strip {
        Axis axis;
        float from;  ///< across
        float thickness;

        float along(double part) const { return std::round(static_cast<float>(part) * axis.length()); }
        Rect between(double low, double high) const {
            const Point a = axis.to_device({from, along(low)});
            const Point b = axis.to_device({from + thickness, along(high)});
            return {std::min(a.x, b.x), std::min(a.y, b.y), std::abs(a.x - b.x), std::abs(a.y - b.y)};
        }
    };

    Color color_at(double value) const {
        if (colors_.empty()) return color_;
        if (value <= colors_.front().at) return colors_.front().color;
        for (std::size_t i = 1; i < colors_.size(); ++i) {
            const ColorStop &a = colors_[i - 1], &b = colors_[i];
            if (value < b.at) return mix(a.color, b.color, (value - a.at) / (b.at - a.at));
        }
        return colors_.back().color;
    }

    bool is_tape() const { return window_ > 0; }
    /// The values at the ends of what is seen.
    double first_seen() const { return is_tape() ? value_ - window_ / 2 : min_; }
    double last_seen() const { return is_tape() ? value_ + window_ / 2 : max_; }
    /// Where on the strip a value is seen, 0 to 1; outside of that, on a tape that is elsewhere.
    double seen_at(double value) const {
        if (!is_tape()) return part_of(value);
        double away = value - value_;
        if (cycle_ > 0) away -= cycle_ * std::round(away / cycle_);
        return 0.5 + away / window_;
    }
    /// Calls `draw` with how far the whole scale is moved, once, or for each time that a tape without an end comes round.
    template <class Draw>
    void for_each_round(Draw draw) const {
        if (!is_tape() || cycle_ <= 0) return draw(0.0);
        for (const double turn : {-1.0, 0.0, 1.0})
            draw(turn * cycle_);
    }

    /// From stop to stop, each piece with its gradient, on whole pixels so that no seam is seen.
    void draw_colors(const Strip& strip, float radius, double shift, DisplayGroup& into) const {
        const Rect whole = strip.between(0, 1);
        const double first = first_seen(), length = last_seen() - first;
        const auto part = [&](double value) {
            return length > 0 && std::isfinite(length) ? std::clamp((value + shift - first) / length, 0.0, 1.0) : 0;
        };
        for (std::size_t i = 0; i <= colors_.size(); ++i) {
            const double low = part(i == 0 ? min_ : colors_[i - 1].at);
            const double high = part(i == colors_.size() ? max_ : colors_[i].at);
            const Rect piece = strip.between(low, high);
            if (!(high > low) || piece.width <= 0 || piece.height <= 0) continue;
            const double from = first + low * length - shift, to = first + high * length - shift;
            into.rect(whole, radius, color_at(from), piece);
            into.shade_last(color_at(to), strip.axis.to_device({strip.from, strip.along(low)}),
                            strip.axis.to_device({strip.from, strip.along(high)}));
        }
    }

    void draw_marks(const Strip& strip, float scale, DisplayGroup& into) const {
        const float begin = strip.from + strip.thickness + 2 * scale;
        for (const TickRow::Tick& tick : ticks_.all()) {
            const float half = tick.thickness / 2 * scale;
            const double seen = seen_at(tick.at);
            // The last tick of a tape without an end is the first one.
            const bool is_twice = is_tape() && cycle_ > 0 && tick.at - min_ >= cycle_;
            if (is_twice || (is_tape() && !(seen > 0 && seen < 1)) || tick.at < min_ || tick.at > max_) continue;
            // At the ends, inside. What runs is not put on whole pixels, so that it does not tremble.
            const float exact = is_tape() ? static_cast<float>(seen) * strip.axis.length() : strip.along(seen);
            const float along = std::clamp(exact, half, strip.axis.length() - half);
            Color color = tick.color;
            if (is_tape()) {
                constexpr double fading = 0.12;  // of the strip at each end
                const double nearest = std::min(seen, 1 - seen);
                color.alpha = static_cast<std::uint8_t>(color.alpha * std::min(1.0, nearest / fading) + 0.5);
            }
            const float length = ticks_.length_of(tick) * scale;
            const std::array corners{
                strip.axis.to_device({begin, along - half}), strip.axis.to_device({begin + length, along - half}),
                strip.axis.to_device({begin + length, along + half}), strip.axis.to_device({begin, along + half})};
            into.polygon(corners, color);
            if (!is_numbered(tick)) continue;
            const Point at = strip.axis.to_device({begin + (ticks_.long_length() + 3) * scale, along});
            // Below a strip the first and the last number end where it does; beside one they are in the middle of the tick.
            const float end = 2 * half;
            const bool first = !is_tape() && along <= end;
            const bool last = !is_tape() && along >= strip.axis.length() - end;
            const bool reversed = strip.axis.to_device({0, 1}).x < strip.axis.to_device({0, 0}).x;
            const float aside = !first && !last ? 0.5F : first != reversed ? 0.0F : 1.0F;
            ticks_.numbers().draw(tick.number, at, is_upright() ? Point{0, 0.5F} : Point{aside, 0}, scale, color, into);
        }
    }

    /// Both ways from where it rests: a little is seen.
    void draw_fill(const Strip& strip, float scale, DisplayGroup& into) const {
        const double rest = part_of(*neutral_);
        if (fill_ == rest) return;
        const double least = static_cast<double>(least_length(scale) / std::max(1.0F, strip.axis.length()));
        double low = std::min(rest, fill_), high = std::max(rest, fill_);
        if (high - low < least) (fill_ > rest ? high : low) = fill_ > rest ? low + least : high - least;
        const Color color = is_in_band() ? color_ : color_at(value_);
        into.rect(strip.between(0, 1), radius_ * scale, color, strip.between(std::max(0.0, low), std::min(1.0, high)));
    }

    void draw_pointer(const Strip& strip, double part, float size, Color color, float scale, DisplayGroup& into) const {
        const float length = size * scale, half = length * 0.6F;
        const float tip = strip.from - length;  // the pointer of the value is the longest room there is
        const float line = std::max(1.0F, scale);
        const float along =
            std::clamp(static_cast<float>(part) * strip.axis.length(), line, strip.axis.length() - line);
        const auto at = [&](float across, float far) { return strip.axis.to_device({across, far}); };
        // A triangle, and a line across the strip below its tip; dark around it, to be seen on every color.
        const float deep = strip.from + strip.thickness;
        const std::array edge{at(strip.from, along - 2 * line), at(deep, along - 2 * line), at(deep, along + 2 * line),
                              at(strip.from, along + 2 * line)};
        into.polygon(edge, rgb(0x10161c, 0.7));
        const std::array corners{at(tip, along - half),  at(tip, along + half),  at(tip + length * 0.9F, along + line),
                                 at(deep, along + line), at(deep, along - line), at(tip + length * 0.9F, along - line)};
        into.polygon(corners, color);
    }

    Direction direction_;
    double window_;  ///< zero is no tape
    double cycle_;   ///< zero is none
    std::optional<double> neutral_;
    std::vector<ColorStop> colors_;
    float thickness_;
    float radius_;
    float pointer_;
    std::vector<RulerPointer> pointers_;
    std::vector<double> further_;  ///< where they point
    bool further_changed_ = false;
    Color background_;
};

}  // namespace

std::vector<FurtherSource> further_sources(const Ruler& ruler) {
    std::vector<FurtherSource> sources;
    for (std::size_t i = 0; i < ruler.pointers.size(); ++i)
        sources.push_back({"pointers." + std::to_string(i) + ".value", ruler.pointers[i].value});
    return sources;
}

std::unique_ptr<Body> make_body(const Ruler& ruler, BodyContext& context) {
    RulerBody::check(ruler, context);
    return std::make_unique<RulerBody>(ruler, context);
}

const Kind& detail::describe(const Ruler*) {
    static constexpr Table table{"ruler", ruler_fields};
    static constexpr Kind kind = make_kind<Ruler>(table, {}, {.size = {200, 0}});
    return kind;
}

bool operator==(const Ruler& a, const Ruler& b) {
    return Element(a) == Element(b);
}
Element::Element(const Ruler& description) : Element(kind_of<Ruler>(), &description) {}
template std::optional<Ruler> Element::as() const;

}  // namespace rapido
