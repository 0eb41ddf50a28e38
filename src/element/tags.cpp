#include "rapido/element/tags.hpp"

#include <algorithm>

#include "element/entries_check.hpp"
#include "element/fields.hpp"
#include "element/kinds.hpp"
#include "element/tags_body.hpp"

namespace rapido {

template <>
inline constexpr std::array<std::string_view, 3> choices_of<AtEdge>{"hide", "clamp", "arrow"};
template <>
inline constexpr std::array<std::string_view, 3> choices_of<ShowTag>{"always", "after_change", "below_full"};

namespace {

constexpr Range any_distance{"", 0, 1e300};

constexpr std::array own_fields{
    required_field<&Tags::id>("id", "The name of the element, unique among its siblings."),
    field<&Tags::entries>("entries", "The entries of a container of the game that have places in the world."),
    field<&Tags::parameters>("parameters", "The names of the sources that the game gives with each thing."),
    field<&Tags::key>("key", "The field by which entries are told apart; without it, their position in the container."),
    field<&Tags::most>("most", "How many tags are shown at most: the nearest.", {"", 1, 200}),
    field<&Tags::at_edge>("at_edge", "What becomes of a tag whose thing is not on the screen."),
    field<&Tags::edge_margin>("edge_margin", "The room between the edges and what is kept there.",
                              {"px", 0, largest_length}),
    field<&Tags::pivot>("pivot", "The point of a tag that lies where the thing is seen."),
    field<&Tags::offset>("offset", "How far from there a tag stands."),
    field<&Tags::reference_distance>("reference_distance", "The distance at which a tag has its own size; zero is any.",
                                     any_distance),
    field<&Tags::min_scale>("min_scale", "The smallest scale of a tag.", {"", 0, 100}),
    field<&Tags::max_scale>("max_scale", "The largest scale of a tag.", {"", 0, 100}),
    field<&Tags::fade_from>("fade_from", "The distance at which a tag begins to fade.", any_distance),
    field<&Tags::fade_to>("fade_to", "The distance from which on a tag is not shown; zero is none.", any_distance),
    field<&Tags::in_sight>("in_sight", "The field that is false while something stands before the thing."),
    field<&Tags::show>("show", "When a tag is shown."),
    field<&Tags::value_of>("value_of", "The field whose changes, or fill, decide that."),
    field<&Tags::max_of>("max_of", "The field with the maximum of that value."),
    field<&Tags::show_for>("show_for", "How long a tag is shown after a change.", {"s", 0, 3600}),
    field<&Tags::declutter>("declutter", "Whether a tag that would cover a nearer one is not shown."),
    field<&Tags::arrow_size>("arrow_size", "The length of an arrow.", {"px", 0, largest_length}),
    field<&Tags::arrow_color>("arrow_color", "The color of arrows."),
};
constexpr auto fields = joined(own_fields, placed_fields<Tags>, entering_fields<Tags>);
static_assert(fields.size() == member_count<Tags>);

}  // namespace

bool operator==(const Tags&, const Tags&) = default;

int panels_of(const Tags& tags) {
    return panels_for(tags.most);
}

bool TagsBody::set_arrows(std::span<const Arrow> arrows, Point origin, float scale) {
    const bool same = std::equal(arrows.begin(), arrows.end(), arrows_.begin(), arrows_.end()) && origin == origin_ &&
                      scale == scale_;
    if (same) return false;
    arrows_.assign(arrows.begin(), arrows.end());
    origin_ = origin;
    scale_ = scale;
    return true;
}

void TagsBody::draw(const DrawPlace& at, DrawGroup& into) const {
    const float length = size_ * scale_, half = length * 0.55F, notch = length * 0.28F;
    std::vector<Point>& points = at.room->points;
    const auto draw_one = [&](Point tip, Point way, float grow, Color color) {
        const auto corner = [&](float along, float across) {
            return Point{tip.x + way.x * along - way.y * across, tip.y + way.y * along + way.x * across};
        };
        points.assign({corner(grow, 0), corner(-length - grow * 0.6F, half + grow * 0.8F),
                       corner(-length + notch - grow * 0.4F, 0), corner(-length - grow * 0.6F, -half - grow * 0.8F)});
        into.add_polygon(points, color);
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

std::vector<FurtherSource> further_sources(const Tags& tags) {
    return {{"entries", tags.entries}};
}

std::unique_ptr<Body> make_body(const Tags& tags, BodyContext& context) {
    const EntriesCheck entries = EntriesCheck::of(tags.entries, !tags.parameters.empty() || !tags.entries, context);
    entries.check_field(tags.key, "key");
    for (const auto& [name, field] : {std::pair(&tags.in_sight, "in_sight"), std::pair(&tags.value_of, "value_of"),
                                      std::pair(&tags.max_of, "max_of")}) {
        const bool is_given = std::find(tags.parameters.begin(), tags.parameters.end(), *name) != tags.parameters.end();
        if (!tags.entries && !name->empty() && !is_given)
            context.report(field, "is '" + *name + "', which is not in 'parameters'", {}, ProblemCode::unknown_name);
        entries.check_field(*name, field);
    }
    if (tags.entries && !tags.parameters.empty())
        context.report("parameters", "must not be there where there is 'entries'", {}, ProblemCode::contradiction);
    if (tags.show != ShowTag::always && tags.value_of.empty())
        context.report("show", "needs 'value_of'", {}, ProblemCode::missing_key);
    if (tags.show == ShowTag::below_full && tags.max_of.empty())
        context.report("show", "needs 'max_of'", {}, ProblemCode::missing_key);
    if (tags.min_scale > tags.max_scale)
        context.report("min_scale", "is more than 'max_scale'", {}, ProblemCode::contradiction);
    if (entries.reader() != nullptr && !entries.reader()->read_positions({}))
        context.report("entries", "needs entries with places in the world",
                       "add rapido::entry_position, in a trace the fields 'x' and 'y'");
    return std::make_unique<TagsBody>(tags);
}

const Kind& describe(const Tags&) {
    static constexpr Table table{"tags", fields};
    static constexpr Kind kind = kind_of<Tags>(table, {.holds_children = true, .tells = true});
    return kind;
}

}  // namespace rapido
