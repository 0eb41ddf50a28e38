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
    explicit PanelBody(const Panel& panel) : panel_(panel) {}

    Size measure(TextMeasurer*, Size content) override {
        const Insets& padding = panel_.padding;
        return {content.width + padding.left + padding.right, content.height + padding.top + padding.bottom};
    }
    Rect content_of(const Rect& box) const override { return box.inset(panel_.padding); }

    void draw(const Rect& box, float scale, TextMeasurer*, DrawGroup& into) const override {
        const Rect edges = on_pixels(box);
        into.add_rect(edges, panel_.radius * scale, panel_.color);
        if (panel_.border > 0)
            into.add_border(edges, panel_.radius * scale, std::max(1.0F, std::round(panel_.border * scale)),
                            panel_.border_color);
    }

    Color color() const override { return panel_.color; }

 private:
    Panel panel_;
};

}  // namespace

const Table Description<Panel>::table{"panel", fields};

std::unique_ptr<Body> make_body(const Panel& panel, BodyContext&) {
    return std::make_unique<PanelBody>(panel);
}

}  // namespace rapido
