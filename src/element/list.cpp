#include "rapido/element/list.hpp"

#include <algorithm>

#include "base/nearest.hpp"
#include "element/fields.hpp"
#include "element/kinds.hpp"

namespace rapido {

template <>
struct Choices<SortOrder> {
    static constexpr std::array<std::string_view, 2> names{"ascending", "descending"};
};

namespace {

constexpr std::array own_fields{
    required_field<&List::id>("id", "The name of the element, unique among its siblings."),
    required_field<&List::entries>("entries", "The entries of a container of the game."),
    field<&List::key>(
        "key", "The field by which entries are told apart; without it, their position in the container."),
    field<&List::sort>("sort", "The field by which entries are ordered; without it, as in the container."),
    field<&List::sort_order>("sort_order", "In which direction they are ordered."),
    field<&List::most>("most", "How many entries are shown at most.", {"", 1, 200}),
    field<&List::place_motion>("place_motion", "How an entry travels to another place."),
    field<&List::layout>("layout", "How the entries are arranged."),
    field<&List::gap>("gap", "The room between neighbours in a row, a column or a grid.",
                      {"px", 0, largest_length}),
    field<&List::row_gap>("row_gap", "The room between the rows of a grid, in place of gap.",
                          {"px", 0, largest_length}),
    field<&List::columns>("columns", "How many columns a grid has.", {"", 1, 1000}),
    field<&List::align>("align", "Where entries stand across a row or column, and in the rows of a grid."),
    field<&List::justify>("justify",
                          "How entries stand along a row or column with more room than is needed."),
};
constexpr auto fields = joined(own_fields, placed_fields<List>, entering_fields<List>);
static_assert(fields.size() == member_count<List>);

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
    void draw(const DrawPlace&, DrawGroup&) const override {}
    Color color() const override { return {}; }

 private:
    Arrangement arrangement_;
};

}  // namespace

bool operator==(const List&, const List&) = default;

int panels_of(const List& list) {
    // Enough for the entries that usually leave at once.
    constexpr int most_leaving = 4;
    const int most = std::clamp(list.most, 1, 200);
    return most + std::min(most, most_leaving);
}

std::vector<FurtherSource> further_sources(const List& list) {
    return {{"entries", list.entries}};
}

std::unique_ptr<Body> make_body(const List& list, BodyContext& context) {
    const detail::Binding bound = context.bound(list.entries);
    if (bound.access() == detail::Binding::Access::none && !list.entries.name().empty())
        return std::make_unique<ListBody>(list);  // whose name comes later
    const detail::EntryReader* const reader = bound.getter() != nullptr ? bound.getter()->entries() : nullptr;
    if (reader == nullptr)
        context.report("entries", "needs entries, and this source is one value",
                       "offer it by rapido::watch_entries");
    const auto check = [&](const std::string& name, std::string_view field) {
        if (name.empty() || reader == nullptr) return;
        std::vector<std::string_view> names;
        for (const detail::EntryReader::Field& known : reader->fields())
            names.push_back(known.name);
        if (std::find(names.begin(), names.end(), name) == names.end())
            context.report(field, "the entries have no field '" + name + "'", did_you_mean(name, names),
                           ProblemCode::unknown_name);
    };
    check(list.key, "key");
    check(list.sort, "sort");
    return std::make_unique<ListBody>(list);
}

const Kind& describe(const List&) {
    static constexpr Table table{"list", fields};
    static constexpr Kind kind = kind_of<List>(table, {.holds_children = true, .tells = true});
    return kind;
}

}  // namespace rapido
