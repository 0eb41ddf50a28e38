#include "rapido/element/markers.hpp"

#include <algorithm>

#include "element/entries_check.hpp"
#include "element/fields.hpp"
#include "element/kinds.hpp"
#include "element/markers_body.hpp"

namespace rapido {

template <>
inline constexpr std::array<std::string_view, 3> choices_of<AtEdge>{"hide", "clamp", "arrow"};
template <>
inline constexpr std::array<std::string_view, 3> choices_of<ShowMarker>{"always", "after_change", "below_full"};

namespace {

constexpr Range any_distance{"", 0, 1e300};

constexpr std::array own_markers_fields{
    required_field<&Markers::id>("id", "The name of the element, unique among its siblings."),
    field<&Markers::entries>("entries", "The entries of a container of the game that have places in the world."),
    field<&Markers::parameters>("parameters", "The names of the sources that the game gives with each thing."),
    field<&Markers::key>("key",
                         "The field by which entries are told apart; without it, their position in the container."),
    field<&Markers::when_gone>("when_gone", "What fields are from when their thing is no longer there on."),
    field<&Markers::at_most>("at_most", "How many markers are shown at most: the nearest.", {"", 1, 200}),
    field<&Markers::at_edge>("at_edge", "What becomes of a marker whose thing is not on the screen."),
    field<&Markers::edge_margin>("edge_margin", "The room between the edges and what is kept there.",
                                 {"px", 0, largest_length}),
    field<&Markers::pivot>("pivot", "The point of a marker that lies where the thing is seen."),
    field<&Markers::world_offset>("world_offset", "How far from its thing a marker stands, in units of the world."),
    field<&Markers::offset>("offset", "How far from there a marker stands."),
    field<&Markers::reference_distance>("reference_distance",
                                        "The distance at which a marker has its own size; zero is any.", any_distance),
    field<&Markers::min_scale>("min_scale", "The smallest scale of a marker.", {"", 0, 100}),
    field<&Markers::max_scale>("max_scale", "The largest scale of a marker.", {"", 0, 100}),
    field<&Markers::fade_from>("fade_from", "The distance at which a marker begins to fade.", any_distance),
    field<&Markers::fade_to>("fade_to", "The distance from which on a marker is not shown; zero is none.",
                             any_distance),
    field<&Markers::in_sight>("in_sight", "The field that is false while something stands before the thing."),
    field<&Markers::show>("show", "When a marker is shown."),
    field<&Markers::value_of>("value_of", "The field whose changes, or fill, decide that."),
    field<&Markers::max_of>("max_of", "The field with the maximum of that value."),
    field<&Markers::show_for>("show_for", "How long a marker is shown after a change.", {"s", 0, 3600}),
    field<&Markers::declutter>("declutter", "Whether a marker that would cover a nearer one is not shown."),
    field<&Markers::arrow_size>("arrow_size", "The length of an arrow.", {"px", 0, largest_length}),
    field<&Markers::arrow_color>("arrow_color", "The color of arrows."),
};
constexpr auto markers_fields =
    joined(own_markers_fields, banded_fields<Markers>, placed_fields<Markers>, entering_fields<Markers>);
static_assert(markers_fields.size() == member_count<Markers>);

}  // namespace

int panels_of(const Markers& markers) {
    return panels_for(markers.at_most, !markers.when_gone.empty());
}

bool MarkersBody::set_arrows(std::span<const Arrow> arrows, Point origin, float scale) {
    const bool same = std::equal(arrows.begin(), arrows.end(), arrows_.begin(), arrows_.end()) && origin == origin_ &&
                      scale == scale_;
    if (same) return false;
    arrows_.assign(arrows.begin(), arrows.end());
    origin_ = origin;
    scale_ = scale;
    return true;
}

void MarkersBody::draw(const DrawPlace& at, DisplayGroup& into) const {
    const float length = size_ * scale_, half = length * 0.55F, notch = length * 0.28F;
    std::vector<Point>& points = at.room->points;
    const auto draw_one = [&](Point tip, Point way, float grow, Color color) {
        const auto corner = [&](float along, float across) {
            return Point{tip.x + way.x * along - way.y * across, tip.y + way.y * along + way.x * across};
        };
        points.assign({corner(grow, 0), corner(-length - grow * 0.6F, half + grow * 0.8F),
                       corner(-length + notch - grow * 0.4F, 0), corner(-length - grow * 0.6F, -half - grow * 0.8F)});
        into.polygon(points, color);
    };
    for (const Arrow& arrow : arrows_) {
        const Point tip{origin_.x + arrow.tip.x * scale_, origin_.y + arrow.tip.y * scale_};
        into.dim(arrow.opacity);
        // Dark around it, to be seen on every ground.
        draw_one(tip, arrow.way, std::max(1.0F, 2 * scale_), rgb(0x10161c, 0.7));
        draw_one(tip, arrow.way, 0, color_);
    }
    into.dim(1);
}

std::vector<FurtherSource> further_sources(const Markers& markers) {
    return sources_of_entries(markers.entries, markers.when_gone);
}

std::unique_ptr<Body> make_body(const Markers& markers, BodyContext& context) {
    const EntriesCheck entries =
        EntriesCheck::of(markers.entries, !markers.parameters.empty() || !markers.entries.is_given(), context);
    entries.check_field(markers.key, "key");
    for (const auto& [name, field] : {std::pair(&markers.in_sight, "in_sight"),
                                      std::pair(&markers.value_of, "value_of"), std::pair(&markers.max_of, "max_of")}) {
        const bool is_given =
            std::find(markers.parameters.begin(), markers.parameters.end(), *name) != markers.parameters.end();
        if (!markers.entries.is_given() && !name->empty() && !is_given)
            context.report(field, "is '" + *name + "', which is not in 'parameters'", {}, ProblemCode::unknown_name);
        entries.check_field(*name, field);
    }
    if (markers.entries.is_given() && !markers.parameters.empty())
        context.report("parameters", "must not be there where there is 'entries'", {}, ProblemCode::contradiction);
    entries.check_when_gone(markers.when_gone, !markers.key.empty() || !markers.entries.is_given());
    if (markers.show != ShowMarker::always && markers.value_of.empty())
        context.report("show", "needs 'value_of'", {}, ProblemCode::missing_key);
    if (markers.show == ShowMarker::below_full && markers.max_of.empty())
        context.report("show", "needs 'max_of'", {}, ProblemCode::missing_key);
    if (markers.min_scale > markers.max_scale)
        context.report("min_scale", "is more than 'max_scale'", {}, ProblemCode::contradiction);
    if (entries.reader() != nullptr && !entries.reader()->read_positions({}))
        context.report("entries", "needs entries with places in the world",
                       "add rapido::entry_position, in a trace the fields 'x' and 'y'");
    return std::make_unique<MarkersBody>(markers);
}

const Kind& detail::describe(const Markers*) {
    static constexpr Table table{"markers", markers_fields};
    static constexpr Kind kind = make_kind<Markers>(table, {.holds_children = true, .tells = true});
    return kind;
}

bool operator==(const Markers& a, const Markers& b) {
    return Element(a) == Element(b);
}
Element::Element(const Markers& description) : Element(kind_of<Markers>(), &description) {}
template std::optional<Markers> Element::as() const;

}  // namespace rapido
