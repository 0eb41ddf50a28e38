#include "rapido/element/list.hpp"

#include "element/entries_check.hpp"
#include "element/fields.hpp"
#include "element/kinds.hpp"

namespace rapido {

template <>
inline constexpr std::array<std::string_view, 2> choices_of<SortOrder>{"ascending", "descending"};

namespace {

constexpr std::array own_list_fields{
    required_field<&List::id>("id", "The name of the element, unique among its siblings."),
    required_field<&List::entries>("entries", "The entries of a container of the game."),
    field<&List::key>("key", "The field by which entries are told apart; without it, their position in the container."),
    field<&List::sort>("sort", "The field by which entries are ordered; without it, as in the container."),
    field<&List::sort_order>("sort_order", "In which direction they are ordered."),
    field<&List::when_gone>("when_gone", "What fields are from when their thing is no longer there on."),
    field<&List::at_most>("at_most", "How many entries are shown at most.", {"", 1, 200}),
    field<&List::place_motion>("place_motion", "How an entry travels to another place."),
    field<&List::layout>("layout", "How the entries are arranged."),
    field<&List::gap>("gap", "The room between neighbors in a row, a column or a grid.", {"px", 0, largest_length}),
    field<&List::row_gap>("row_gap", "The room between the rows of a grid, in place of gap.",
                          {"px", 0, largest_length}),
    field<&List::columns>("columns", "How many columns a grid has.", {"", 1, 1000}),
    field<&List::align>("align", "Where entries stand across a row or column, and in the rows of a grid."),
    field<&List::justify>("justify", "How entries stand along a row or column with more room than is needed."),
};
constexpr auto list_fields = joined(own_list_fields, banded_fields<List>, placed_fields<List>, entering_fields<List>);
static_assert(list_fields.size() == member_count<List>);

/// The room for its entries; nothing is drawn of itself.
class ListBody final : public Body {
 public:
    explicit ListBody(const List& list)
        : arrangement_{.layout = list.layout,
                       .gap = list.gap,
                       .row_gap = list.row_gap,
                       .columns = list.columns,
                       .align = list.align,
                       .justify = list.justify} {}

    Size measure(TextMeasurer*, Size content) override { return content; }
    const Arrangement* arrangement() const override { return &arrangement_; }
    void draw(const DrawPlace&, DisplayGroup&) const override {}
    Color color() const override { return {}; }

 private:
    Arrangement arrangement_;
};

}  // namespace

int panels_of(const List& list) {
    return panels_for(list.at_most, !list.when_gone.empty());
}

std::vector<FurtherSource> further_sources(const List& list) {
    return sources_of_entries(list.entries, list.when_gone);
}

std::unique_ptr<Body> make_body(const List& list, BodyContext& context) {
    const EntriesCheck entries = EntriesCheck::of(list.entries, false, context);
    entries.check_field(list.key, "key");
    entries.check_field(list.sort, "sort");
    entries.check_when_gone(list.when_gone, !list.key.empty());
    return std::make_unique<ListBody>(list);
}

const Kind& detail::describe(const List*) {
    static constexpr Table table{"list", list_fields};
    static constexpr Kind kind = make_kind<List>(table, {.holds_children = true, .tells = true});
    return kind;
}

bool operator==(const List& a, const List& b) {
    return Element(a) == Element(b);
}
Element::Element(const List& description) : Element(kind_of<List>(), &description) {}
template std::optional<List> Element::as() const;

}  // namespace rapido
