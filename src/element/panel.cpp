#include "rapido/element/panel.hpp"

#include "element/fields.hpp"
#include "element/kinds.hpp"

namespace rapido {
namespace {

constexpr std::array fields{
    required_field<&Panel::id>("id", "its name, unique among its siblings"),
    field<&Panel::place>("place", "where it stands"),
    field<&Panel::padding>("padding", "between its edges and what stands inside", {"px", 0, largest_length}),
    field<&Panel::color>("color", "of the plate"),
    field<&Panel::radius>("radius", "of the corners", {"px", 0, largest_length}),
    field<&Panel::border>("border", "width of the line along the edge; zero draws none",
                          {"px", 0, largest_length}),
    field<&Panel::border_color>("border_color", "of that line"),
    field<&Panel::effects>("effects", "what starts effects"),
    field<&Panel::inside>("inside", "the panel that it stands in"),
    field<&Panel::group>("group", "shown, hidden and dimmed with it"),
    field<&Panel::layer>("layer", "higher is drawn later", {"", -1000, 1000}),
    field<&Panel::visible>("visible", "it and what stands inside are shown while this is true"),
};
static_assert(fields.size() == member_count<Panel>);

class PanelBody final : public Body {
 public:
    explicit PanelBody(const Panel& panel)
        : padding_(panel.padding),
          color_(panel.color),
          border_color_(panel.border_color),
          radius_(panel.radius),
          border_(panel.border) {}

    Size measure(TextMeasurer*, Size content) override {
        return {content.width + padding_.left + padding_.right,
                content.height + padding_.top + padding_.bottom};
    }
    Rect content_of(const Rect& box) const override { return box.inset(padding_); }

    void draw(const Rect& box, float scale, TextMeasurer*, DrawGroup& into) const override {
        const Rect edges = on_pixels(box);
        into.add_rect(edges, radius_ * scale, color_);
        if (border_ > 0)
            into.add_border(edges, radius_ * scale, std::max(1.0F, std::round(border_ * scale)),
                            border_color_);
    }

    Color color() const override { return color_; }

 private:
    Insets padding_;
    Color color_;
    Color border_color_;
    float radius_;
    float border_;
};

}  // namespace

const Table Description<Panel>::table{"panel", fields};

std::unique_ptr<Body> make_body(const Panel& panel, BodyContext&) {
    return std::make_unique<PanelBody>(panel);
}

}  // namespace rapido
