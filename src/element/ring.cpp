#include "rapido/element/ring.hpp"

#include <numbers>

#include "element/fields.hpp"
#include "element/fill_body.hpp"
#include "element/kinds.hpp"

namespace rapido {
namespace {

constexpr std::array own_ring_fields{
    required_field<&Ring::id>("id", "The name of the element, unique among its siblings."),
    required_field<&Ring::value>("value", "The value that fills the element."),
    field<&Ring::max>("max", "The value at which the element is full."),
    field<&Ring::trail>("trail", "A second arc that shows what was just lost."),
    field<&Ring::at_end>("at_end", "An element that rides at the end of the fill."),
    field<&Ring::start>("start", "The angle at which the ring begins, clockwise from the top.",
                        {"degrees", -3600, 3600}),
    field<&Ring::sweep>("sweep", "How far it reaches from the start; below zero it goes anticlockwise.",
                        {"degrees", -360, 360}),
    field<&Ring::thickness>("thickness", "The thickness from the outer edge inwards.", {"px", 0, largest_length}),
    field<&Ring::round_ends>("round_ends", "The ends of a ring that does not go all round are round."),
    field<&Ring::color>("color", "The color of the fill."),
    field<&Ring::background>("background", "The color of the part that is not filled."),
    field<&Ring::segments>("segments", "How many segments there are, each lit or not; zero means one piece.",
                           {"", 0, 360}),
    field<&Ring::segment_gap>("segment_gap", "The gap between two segments.", {"px", 0, largest_length}),
};
constexpr auto ring_fields =
    joined(own_ring_fields, following_fields<Ring>, banded_fields<Ring>, placed_fields<Ring>, entering_fields<Ring>);
static_assert(ring_fields.size() == member_count<Ring> + flat_motions);

class RingBody final : public FillBody {
 public:
    explicit RingBody(const Ring& ring)
        : FillBody(ring.color, ring.trail.color, {}, 0, ring.at_end),
          start_(ring.start),
          sweep_(ring.sweep),
          thickness_(ring.thickness),
          background_(ring.background),
          segments_(ring.segments),
          segment_gap_(ring.segment_gap),
          round_ends_(ring.round_ends) {}

    Face face(const Rect& box, float) const override { return round_face(box); }
    FillEnd fill_end(const DrawPlace& at) const override {
        const Arc whole = arc_in(at);
        const float around = length_around(whole);
        double part = fill_;
        if (segments_ > 0) {
            int lit = 0;
            for_each_segment(0, fill_, segments_, [&](int) { ++lit; });
            part = static_cast<double>(lit) / segments_;
        }
        const float length = honest_length(part, around, least_length(at.scale));
        const float angle = start_ + (around > 0 ? sweep_ * (length / around) : 0);
        const float radians = angle * std::numbers::pi_v<float> / 180, radius = (whole.outer + whole.inner) / 2;
        return {{whole.middle.x + radius * std::sin(radians), whole.middle.y - radius * std::cos(radians)},
                sweep_ < 0 ? angle + 180 : angle};
    }
    void draw(const DrawPlace& at, DisplayGroup& into) const override {
        const Arc whole = arc_in(at);
        if (!(whole.outer > 0)) return;
        const float gap = segment_gap_ * at.scale;
        const float least = least_length(at.scale);
        paint(whole, gap, least, 0, 1, background_, into);
        paint_fill(
            [&](double from, double to, Color color, const Color*) { paint(whole, gap, least, from, to, color, into); },
            [&] { paint_stripes(whole, least, at.scale, into); });
    }

    static void check(BodyContext& context) { check_types(context, "a ring"); }

 private:
    Arc arc_in(const DrawPlace& at) const {
        const Rect& box = at.box;
        const float outer = std::min(box.width, box.height) / 2;
        return {{box.x + box.width / 2, box.y + box.height / 2},
                outer,
                std::max(0.0F, outer - thickness_ * at.scale),
                start_,
                start_ + sweep_,
                round_ends_ && std::abs(sweep_) < 360};
    }
    /// Along the outer edge.
    float length_around(const Arc& whole) const {
        return std::abs(sweep_) * std::numbers::pi_v<float> / 180 * whole.outer;
    }

    void paint_stripes(const Arc& whole, float least, float scale, DisplayGroup& into) const {
        const float around = length_around(whole);
        for_each_stripe_of(honest_length(fill_, around, least), scale, [&](float from, float to) {
            Arc stripe = whole;
            stripe.from = start_ + sweep_ * (from / around);
            stripe.to = start_ + sweep_ * (to / around);
            stripe.round_ends = false;
            into.arc(stripe, stripe_color);
        });
    }

    void paint(const Arc& whole, float gap, float least, double from, double to, Color color,
               DisplayGroup& into) const {
        const float around = length_around(whole);
        const auto degrees = [&](float length) { return around > 0 ? start_ + sweep_ * (length / around) : start_; };
        const auto draw_arc = [&](float begin, float end, bool round_ends) {
            Arc arc = whole;
            arc.from = begin;
            arc.to = end;
            arc.round_ends = round_ends;
            into.arc(arc, color);
        };
        if (segments_ <= 0) {
            // The end as such, so that a quarter ends where a quarter does.
            const auto end_of = [&](double part) {
                const float length = honest_length(part, around, least);
                const bool exact = length == static_cast<float>(part) * around;
                return exact ? start_ + sweep_ * static_cast<float>(part) : degrees(length);
            };
            return draw_arc(end_of(from), end_of(to), whole.round_ends);
        }
        const auto count = static_cast<float>(segments_);
        // All round there is a gap behind the last one, too.
        const bool is_closed = std::abs(sweep_) >= 360;
        const float room = is_closed ? around : around + gap;
        for_each_segment(from, to, segments_, [&](int i) {
            const float begin = room * static_cast<float>(i) / count;
            const float end = room * static_cast<float>(i + 1) / count - std::min(gap, room / count / 2);
            const float shift = is_closed ? std::min(gap, room / count / 2) / 2 : 0;
            draw_arc(degrees(begin + shift), degrees(end + shift), false);
        });
    }

    float start_;
    float sweep_;
    float thickness_;
    Color background_;
    int segments_;
    float segment_gap_;
    bool round_ends_;
};

}  // namespace

std::unique_ptr<Body> make_body(const Ring& ring, BodyContext& context) {
    RingBody::check(context);
    return std::make_unique<RingBody>(ring);
}

const Kind& detail::describe(const Ring*) {
    static constexpr Table table{"ring", ring_fields};
    static constexpr Kind kind = make_kind<Ring>(table, {.has_fill = true}, {.size = {64, 64}});
    return kind;
}

bool operator==(const Ring& a, const Ring& b) {
    return Element(a) == Element(b);
}
Element::Element(const Ring& description) : Element(kind_of<Ring>(), &description) {}
template std::optional<Ring> Element::as() const;

}  // namespace rapido
