#include "rapido/element/dial.hpp"

#include <numbers>

#include "draw/arc.hpp"
#include "element/fields.hpp"
#include "element/kinds.hpp"
#include "element/pointer_body.hpp"

namespace rapido {
namespace {

constexpr std::array needle_fields{
    field<&Needle::length>("length", "How far the needle reaches from the middle, in parts of the radius.", {"", 0, 2}),
    field<&Needle::tail>("tail", "How far the needle reaches on the other side, in parts of the radius.", {"", 0, 2}),
    field<&Needle::width>("width", "The width of the needle at the middle.", {"px", 0, largest_length}),
    field<&Needle::hub>("hub", "The radius of the disc in the middle; zero draws none.", {"px", 0, largest_length}),
};
static_assert(needle_fields.size() == member_count<Needle>);

}  // namespace

template <>
inline constexpr Table table_of<Needle>{"needle", needle_fields};

namespace {

constexpr std::array own_dial_fields{
    required_field<&Dial::id>("id", "The name of the element, unique among its siblings."),
    required_field<&Dial::value>("value", "The value that the needle points at."),
    field<&Dial::min>("min", "The value at which the scale begins.", {"", -1e300, 1e300}),
    field<&Dial::max>("max", "The value at which the scale ends."),
    field<&Dial::start>("start", "The angle at which the scale begins, clockwise from the top.",
                        {"degrees", -3600, 3600}),
    field<&Dial::sweep>("sweep", "How far it reaches from the start; below zero it goes anticlockwise.",
                        {"degrees", -360, 360}),
    field<&Dial::wraps>("wraps", "Whether the scale begins again behind its end."),
    field<&Dial::thickness>("thickness", "The thickness of the line along the scale.", {"px", 0, largest_length}),
    field<&Dial::line_color>("line_color", "The color of that line."),
    field<&Dial::zones>("zones", "Parts of the scale in other colors.", {.most = 64}),
    field<&Dial::ticks>("ticks", "Ticks and numbers along the scale."),
    field<&Dial::needle>("needle", "The needle that points at the value."),
    field<&Dial::color>("color", "The color of the needle."),
    field<&Dial::background>("background", "The color of the disc behind the dial."),
};
constexpr auto dial_fields =
    joined(own_dial_fields, following_fields<Dial>, banded_fields<Dial>, placed_fields<Dial>, entering_fields<Dial>);
static_assert(dial_fields.size() == member_count<Dial> + flat_motions);

/// A point at an angle and a distance from the middle, and at a distance to the right of that line.
Point beside(Point middle, float degrees, float far, float aside) {
    const Point on = point_at(middle, far, degrees);
    const float angle = degrees * std::numbers::pi_v<float> / 180;
    return {on.x + std::cos(angle) * aside, on.y + std::sin(angle) * aside};
}

void add_disc(Point middle, float radius, Color color, DisplayGroup& into) {
    into.rect({middle.x - radius, middle.y - radius, 2 * radius, 2 * radius}, radius, color);
}

class DialBody final : public PointerBody {
 public:
    DialBody(const Dial& dial, BodyContext& context)
        : PointerBody(dial.color, dial.min, dial.wraps, dial.ticks, context),
          start_(dial.start),
          sweep_(dial.sweep),
          thickness_(dial.thickness),
          line_color_(dial.line_color),
          background_(dial.background),
          zones_(dial.zones),
          needle_(dial.needle) {}

    static void check(BodyContext& context) { check_types(context, "a dial"); }

    Size measure(TextMeasurer* measurer, Size) override {
        ticks_.measure(measurer, min_, max_);
        return {};
    }

    Face face(const Rect& box, float) const override { return round_face(box); }
    void draw(const DrawPlace& at, DisplayGroup& into) const override {
        const Rect& box = at.box;
        const float radius = std::min(box.width, box.height) / 2;
        const Point middle{box.x + box.width / 2, box.y + box.height / 2};
        if (!(radius > 0)) return;
        add_disc(middle, radius, background_, into);
        const float line = std::min(radius, thickness_ * at.scale);
        if (line > 0) {
            into.arc({middle, radius, radius - line, start_, start_ + sweep_, false}, line_color_);
            for (const Zone& zone : zones_)
                into.arc(
                    {middle, radius, radius - line, angle_of(part_of(zone.from)), angle_of(part_of(zone.to)), false},
                    zone.color);
        }
        draw_marks(middle, radius - line - 2 * at.scale, at.scale, into);
        if (points_) draw_needle(middle, radius, at.scale, into);
    }

 private:
    float angle_of(double part) const { return start_ + sweep_ * static_cast<float>(part); }

    void draw_marks(Point middle, float outer, float scale, DisplayGroup& into) const {
        const bool closes = wraps_ || std::abs(sweep_) >= 360;
        for (const TickRow::Tick& tick : ticks_.all()) {
            // All round, the end is where the beginning is.
            if ((closes && tick.at >= max_) || tick.at < min_ || tick.at > max_) continue;
            const float angle = angle_of(part_of(tick.at));
            const float length = ticks_.length_of(tick) * scale;
            const float half = tick.thickness / 2 * scale;
            const std::array corners{beside(middle, angle, outer, -half), beside(middle, angle, outer, half),
                                     beside(middle, angle, outer - length, half),
                                     beside(middle, angle, outer - length, -half)};
            into.polygon(corners, tick.color);
            if (!is_numbered(tick)) continue;
            // As far from the tick as the number reaches towards it.
            const Point way = point_at({0, 0}, 1, angle);
            const float room = (std::abs(way.x) * ticks_.numbers().width_of(tick.number) +
                                std::abs(way.y) * 0.73F * ticks_.numbers().height()) /
                                   2 +
                               4;
            const Point at = point_at(middle, outer - (ticks_.long_length() + room) * scale, angle);
            ticks_.numbers().draw(tick.number, at, {0.5F, 0.5F}, scale, tick.color, into);
        }
    }

    void draw_needle(Point middle, float radius, float scale, DisplayGroup& into) const {
        const float angle = angle_of(fill_);
        const float half = needle_.width * scale / 2;
        const float tip = std::max(0.5F, half / 5);
        const float length = needle_.length * radius, tail = -needle_.tail * radius;
        const std::array corners{beside(middle, angle, length, -tip),    beside(middle, angle, length, tip),
                                 beside(middle, angle, 0, half),         beside(middle, angle, tail, half / 2),
                                 beside(middle, angle, tail, -half / 2), beside(middle, angle, 0, -half)};
        into.polygon(corners, color_);
        if (needle_.hub > 0) add_disc(middle, needle_.hub * scale, color_, into);
    }

    float start_;
    float sweep_;
    float thickness_;
    Color line_color_;
    Color background_;
    std::vector<Zone> zones_;
    Needle needle_;
};

}  // namespace

std::unique_ptr<Body> make_body(const Dial& dial, BodyContext& context) {
    DialBody::check(context);
    return std::make_unique<DialBody>(dial, context);
}

const Kind& detail::describe(const Dial*) {
    static constexpr Table table{"dial", dial_fields};
    static constexpr Kind kind = make_kind<Dial>(table, {}, {.size = {120, 120}});
    return kind;
}

bool operator==(const Dial& a, const Dial& b) {
    return Element(a) == Element(b);
}
Element::Element(const Dial& description) : Element(kind_of<Dial>(), &description) {}
template std::optional<Dial> Element::as() const;

}  // namespace rapido
