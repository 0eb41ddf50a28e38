#include "rapido/element/panel.hpp"

#include "element/fields.hpp"
#include "element/image_look.hpp"
#include "element/kinds.hpp"

namespace rapido {
namespace {

constexpr std::array own_panel_fields{
    required_field<&Panel::id>("id", "The name of the element, unique among its siblings."),
    field<&Panel::layout>("layout", "How the elements inside are arranged."),
    field<&Panel::gap>("gap", "The gap between neighbors.", {"px", 0, largest_length}),
    field<&Panel::row_gap>("row_gap", "The gap between the rows of a grid, which replaces the other.",
                           {"px", 0, largest_length}),
    field<&Panel::columns>("columns", "How many columns a grid has.", {"", 1, 1000}),
    field<&Panel::align>("align", "How elements stand across a row or column, and in the rows of a grid."),
    field<&Panel::justify>("justify", "How elements stand along a row or column with more room than is needed."),
    field<&Panel::plate>("plate", "Whether a plate is drawn; without it there is no padding, either."),
    field<&Panel::padding>("padding", "The room between the edges and the elements inside.", {"px", 0, largest_length}),
    field<&Panel::color>("color", "The color of the plate."),
    field<&Panel::end_color>("end_color", "The color that a gradient goes to."),
    field<&Panel::gradient>("gradient", "Which way the gradient goes."),
    field<&Panel::image>("image", "A PNG file in the folder of the HUD that replaces the plate."),
    field<&Panel::image_fit>("image_fit", "How the image fills the plate, where it is not sliced."),
    field<&Panel::slice>("slice", "The pixels of the image along each edge that are not stretched across.",
                         {"px", 0, largest_length}),
    field<&Panel::image_color>("image_color", "The color that the colors of the image are multiplied by."),
    field<&Panel::smooth>("smooth", "Whether pixels of the image are blended."),
    field<&Panel::shadow>("shadow", "The shadow of the plate."),
    field<&Panel::radius>("radius", "The radius of the corners.", {"px", 0, largest_length}),
    field<&Panel::border>("border", "The width of the line along the edge; zero draws none.",
                          {"px", 0, largest_length}),
    field<&Panel::border_color>("border_color", "The color of that line."),
};
constexpr auto panel_fields =
    joined(own_panel_fields, banded_fields<Panel>, placed_fields<Panel>, entering_fields<Panel>);
static_assert(panel_fields.size() == member_count<Panel>);

class PanelBody final : public Body {
 public:
    PanelBody(const Panel& panel, ImageLook image)
        : image_(std::move(image)),
          image_fit_(panel.image_fit),
          slice_(panel.slice),
          image_color_(panel.image_color),
          smooth_(panel.smooth),
          shadow_(panel.shadow),
          gradient_(panel.gradient),
          arrangement_{.layout = panel.layout,
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
          border_(panel.border) {
        if (panel.end_color) end_color_ = panel.end_color->value();
    }

    Size measure(TextMeasurer*, Size content) override {
        return {content.width + padding_.left + padding_.right, content.height + padding_.top + padding_.bottom};
    }
    Rect content_of(const Rect& box) const override { return box.inset(padding_); }
    const Arrangement* arrangement() const override { return &arrangement_; }

    Face face(const Rect& box, float scale) const override {
        return {box, std::min(radius_ * scale, std::min(box.width, box.height) / 2)};
    }
    void draw(const DrawPlace& at, DisplayGroup& into) const override {
        if (!plate_) return;
        const Rect edges = on_pixels(at.box);
        const float radius = radius_ * at.scale;
        if (shadow_ && !image_) {
            const Rect below{edges.x + shadow_->offset.x * at.scale, edges.y + shadow_->offset.y * at.scale,
                             edges.width, edges.height};
            into.rect(below, radius, shadow_->color);
            into.blur_last(shadow_->blur * at.scale);
        }
        if (image_) {
            if (image_.image() && slice_ != Insets{})
                image_.draw_slices(at.box, 0, slice_, image_color_, smooth_, at, into);
            else
                image_.draw_fitted(edges, image_fit_, 0, image_color_, smooth_, at, into);
        } else {
            into.rect(edges, radius, color_);
            if (end_color_) shade(edges, at.seen(gradient_), into);
        }
        if (border_ > 0)
            into.border(edges, radius_ * at.scale, std::max(1.0F, std::round(border_ * at.scale)), border_color_);
    }

    Color color() const override { return color_; }
    Change set_look(const Look& look) override {
        const bool differs = color_ != look.color;
        color_ = look.color;
        return look_if(differs);
    }

 private:
    void shade(const Rect& box, Direction way, DisplayGroup& into) const {
        const Point first{box.x, box.y};
        const Point across{box.right(), box.y};
        const Point down{box.x, box.bottom()};
        switch (way) {
            case Direction::right:
                return into.shade_last(*end_color_, first, across);
            case Direction::left:
                return into.shade_last(*end_color_, across, first);
            case Direction::down:
                return into.shade_last(*end_color_, first, down);
            case Direction::up:
                return into.shade_last(*end_color_, down, first);
        }
    }

    ImageLook image_;
    ImageFit image_fit_;
    Insets slice_;
    Color image_color_;
    bool smooth_;
    std::optional<Shadow> shadow_;
    std::optional<Color> end_color_;
    Direction gradient_;
    Arrangement arrangement_;
    Insets padding_;
    bool plate_;
    Color color_;
    Color border_color_;
    float radius_;
    float border_;
};

}  // namespace

std::unique_ptr<Body> make_body(const Panel& panel, BodyContext& context) {
    return std::make_unique<PanelBody>(panel, ImageLook::find(panel.image, "image", {}, context));
}

const Kind& detail::describe(const Panel*) {
    static constexpr Table table{"panel", panel_fields};
    static constexpr Kind kind = make_kind<Panel>(table, {.holds_children = true});
    return kind;
}

bool operator==(const Panel& a, const Panel& b) {
    return Element(a) == Element(b);
}
Element::Element(const Panel& description) : Element(kind_of<Panel>(), &description) {}
template std::optional<Panel> Element::as() const;

}  // namespace rapido
