#include "rapido/element/panel.hpp"

#include "element/fields.hpp"
#include "element/kinds.hpp"

namespace rapido {
namespace {

constexpr std::array own_fields{
    required_field<&Panel::id>("id", "The name of the element, unique among its siblings."),
    field<&Panel::layout>("layout", "How the elements inside are arranged."),
    field<&Panel::gap>("gap", "The gap between neighbours.", {"px", 0, largest_length}),
    field<&Panel::row_gap>("row_gap", "The gap between the rows of a grid, which replaces the other.",
                           {"px", 0, largest_length}),
    field<&Panel::columns>("columns", "How many columns a grid has.", {"", 1, 1000}),
    field<&Panel::align>("align", "How elements stand across a row or column, and in the rows of a grid."),
    field<&Panel::justify>("justify",
                           "How elements stand along a row or column with more room than is needed."),
    field<&Panel::plate>("plate", "Whether a plate is drawn; without it there is no padding, either."),
    field<&Panel::padding>("padding", "The room between the edges and the elements inside.",
                           {"px", 0, largest_length}),
    field<&Panel::color>("color", "The color of the plate."),
    field<&Panel::radius>("radius", "The radius of the corners.", {"px", 0, largest_length}),
    field<&Panel::border>("border", "The width of the line along the edge; zero draws none.",
                          {"px", 0, largest_length}),
    field<&Panel::border_color>("border_color", "The color of that line."),
};
constexpr auto fields = joined(own_fields, placed_fields<Panel>, entering_fields<Panel>);
static_assert(fields.size() == member_count<Panel>);

class PanelBody final : public Body {
 public:
    explicit PanelBody(const Panel& panel)
        : arrangement_{.layout = panel.layout,
                       .gap = panel.gap,
                       .row_gap = panel.row_gap,
                       .columns = panel.columns,
                       .align = panel.align,
                       .justify = panel.justify},
          padding_(panel.plate ? panel.padding : Insets{}),
          plate_(panel.plate),
          color_(panel.color),
          border_color_(panel.border_color),
          radius_(panel.radius),
          border_(panel.border) {}

    Size measure(TextMeasurer*, Size content) override {
        return {content.width + padding_.left + padding_.right,
                content.height + padding_.top + padding_.bottom};
    }
    Rect content_of(const Rect& box) const override { return box.inset(padding_); }
    const Arrangement* arrangement() const override { return &arrangement_; }

    void draw(const DrawPlace& at, DrawGroup& into) const override {
        if (!plate_) return;
        const Rect edges = on_pixels(at.box);
        into.add_rect(edges, radius_ * at.scale, color_);
        if (border_ > 0)
            into.add_border(edges, radius_ * at.scale, std::max(1.0F, std::round(border_ * at.scale)),
                            border_color_);
    }

    Color color() const override { return color_; }

 private:
    Arrangement arrangement_;
    Insets padding_;
    bool plate_;
    Color color_;
    Color border_color_;
    float radius_;
    float border_;
};

}  // namespace

bool operator==(const Panel&, const Panel&) = default;

std::unique_ptr<Body> make_body(const Panel& panel, BodyContext&) {
    return std::make_unique<PanelBody>(panel);
}

const Kind& describe(const Panel&) {
    static constexpr Table table{"panel", fields};
    static constexpr Kind kind = kind_of<Panel>(table, {.holds_children = true});
    return kind;
}

}  // namespace rapido
