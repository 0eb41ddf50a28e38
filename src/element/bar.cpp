#include "rapido/element/bar.hpp"

#include <algorithm>
#include <array>
#include <utility>

#include "draw/outline.hpp"
#include "element/fields.hpp"
#include "element/fill_body.hpp"
#include "element/image_look.hpp"
#include "element/kinds.hpp"
#include "element/ticks.hpp"

namespace rapido {
template <>
inline constexpr std::array<std::string_view, 3> choices_of<ImageFill>{"reveal", "stretch", "tile"};
template <>
inline constexpr std::array<std::string_view, 3> choices_of<PartWhere>{"rest", "fill", "end"};

namespace {

constexpr std::array part_fields{
    required_field<&BarPart::value>("value", "The amount."),
    field<&BarPart::where>("where", "Where in the bar the part is."),
    field<&BarPart::color>("color", "The color of the part."),
};
static_assert(part_fields.size() == member_count<BarPart>);

}  // namespace

template <>
inline constexpr Table table_of<BarPart>{"part", part_fields};

namespace {

constexpr std::array own_bar_fields{
    required_field<&Bar::id>("id", "The name of the element, unique among its siblings."),
    required_field<&Bar::value>("value", "The value that fills the element."),
    field<&Bar::max>("max", "The value at which the element is full."),
    field<&Bar::trail>("trail", "A second bar that shows what was just lost."),
    field<&Bar::at_end>("at_end", "An element that rides at the end of the fill."),
    field<&Bar::direction>("direction", "The direction in which the fill grows with the value."),
    field<&Bar::color>("color", "The color of the fill."),
    field<&Bar::end_color>("end_color", "The color of the full end, for a gradient."),
    field<&Bar::image>("image", "An image in place of the color of the fill."),
    field<&Bar::image_fill>("image_fill", "How that image fills the bar."),
    field<&Bar::slice>("slice", "The pixels of that image along each edge that are not stretched across.",
                       {"px", 0, largest_length}),
    field<&Bar::image_color>("image_color", "The color that the colors of the image are multiplied by."),
    field<&Bar::smooth>("smooth", "Whether pixels of the image are blended."),
    field<&Bar::background>("background", "The color of the part that is not filled."),
    field<&Bar::radius>("radius", "The radius of the corners.", {"px", 0, largest_length}),
    field<&Bar::border>("border", "The width of the line along the edge; zero draws none.", {"px", 0, largest_length}),
    field<&Bar::border_color>("border_color", "The color of that line."),
    field<&Bar::padding>("padding", "The room between the border and the fill.", {"px", 0, largest_length}),
    field<&Bar::segments>("segments", "How many segments there are, each lit or not; zero means one piece.",
                          {"", 0, 1000}),
    field<&Bar::segment_gap>("segment_gap", "The gap between two segments.", {"px", 0, largest_length}),
    field<&Bar::ticks>("ticks", "Lines across the element at values."),
    field<&Bar::parts>("parts", "Other amounts in the same bar.", {.most = 32}),
};
constexpr auto bar_fields =
    joined(own_bar_fields, following_fields<Bar>, banded_fields<Bar>, placed_fields<Bar>, entering_fields<Bar>);
static_assert(bar_fields.size() == member_count<Bar> + flat_motions);

class BarBody final : public FillBody {
 public:
    BarBody(const Bar& bar, ImageLook image, BodyContext& context)
        : FillBody(bar.color, bar.trail.color, bar.end_color, 0, bar.at_end),
          image_(std::move(image)),
          image_fill_(bar.image_fill),
          slice_(bar.slice),
          image_color_(bar.image_color),
          smooth_(bar.smooth),
          direction_(bar.direction),
          background_(bar.background),
          border_color_(bar.border_color),
          radius_(bar.radius),
          border_(bar.border),
          padding_(bar.padding),
          segments_(std::clamp(bar.segments, 0, 1000)),
          segment_gap_(bar.segment_gap) {
        if (!bar.ticks.at.empty() || bar.ticks.every > 0)
            ticks_ = std::make_unique<TickRow>(bar.ticks, TickRow::across, context);
        for (const BarPart& part : bar.parts)
            parts_.push_back({part.where, part.color, 0, 0});
    }

    static void check(BodyContext& context) { check_types(context, "a bar"); }

    void show_further(std::span<const Value> values) override {
        for (std::size_t i = 0; i < parts_.size(); ++i) {
            parts_changed_ = parts_changed_ || parts_[i].value != values[i].number();
            parts_[i].value = values[i].number();
        }
    }

    Change show(const ShownValue& shown) override {
        const double max = shown.max;
        const bool rescaled = max != max_ && !(std::isnan(max) && std::isnan(max_));
        max_ = max;
        if (ticks_ != nullptr && (rescaled || ticks_->all().empty())) ticks_->measure(nullptr, 0, max_);
        for (Part& part : parts_)
            part.fill = fill_of(part.value, max);
        const Change news = FillBody::show(shown);
        const bool others =
            std::exchange(parts_changed_, false) || (rescaled && (ticks_ != nullptr || !parts_.empty()));
        return std::max(news, look_if(others));
    }

    bool is_upright() const override { return direction_ == Direction::up || direction_ == Direction::down; }

    Face face(const Rect& box, float scale) const override {
        return {box, std::min(radius_ * scale, std::min(box.width, box.height) / 2)};
    }
    FillEnd fill_end(const DrawPlace& at) const override {
        const Track track = track_in(at);
        const float length = honest_length(lit_part(fill_), track.length(), track.least);
        const Rect end = track.between(length, length);
        return {{end.x + end.width / 2, end.y + end.height / 2}, rotation_of(track.direction)};
    }
    void draw(const DrawPlace& at, DisplayGroup& into) const override {
        const Rect edges = on_pixels(at.box);
        const float border = border_in(at), inset = inset_in(at);
        const Canvas canvas{track_in(at), into};
        if (inset > 0) into.rect(edges, radius_ * at.scale, background_);
        if (inset <= 0 || segments_ > 0) paint(canvas, 0, 1, background_);
        paint_fill(
            [&](double from, double to, Color color, const Color* end_color) {
                // What was lost has no image.
                const bool is_fill = from <= 0;
                if (image_ && is_fill) return paint_picture(canvas, to, at);
                paint(canvas, from, to, color, end_color);
            },
            [&] { paint_stripes(canvas, at.scale); });
        draw_parts(canvas);
        if (ticks_ != nullptr)
            for (const TickRow::Tick& tick : ticks_->all())
                if (tick.at > 0 && tick.at < max_)
                    canvas.draw_across(tick.at / max_, std::max(1.0F, tick.thickness * at.scale), tick.color);
        if (border > 0) into.border(edges, radius_ * at.scale, border, border_color_);
    }

 private:
    struct Part {
        PartWhere where;
        Color color;
        double value;
        double fill;
    };

    /// Where a bar is filled, in device pixels.
    struct Track {
        Rect inner;
        float radius;
        Direction direction;
        float gap;
        float least;  ///< what is seen at a glance

        bool is_across() const { return direction == Direction::right || direction == Direction::left; }
        float length() const { return is_across() ? inner.width : inner.height; }
        /// From one distance to another, from the empty end on.
        Rect between(float from, float to) const {
            const float size = to - from;
            switch (direction) {
                case Direction::right:
                    return {inner.x + from, inner.y, size, inner.height};
                case Direction::left:
                    return {inner.right() - to, inner.y, size, inner.height};
                case Direction::up:
                    return {inner.x, inner.bottom() - to, inner.width, size};
                case Direction::down:
                    return {inner.x, inner.y + from, inner.width, size};
            }
            return inner;
        }
    };
    struct Canvas : Track {
        DisplayGroup& into;

        void shade(Color end_color) const {
            const Point start{inner.x, inner.y};
            const Point end = is_across() ? Point{inner.right(), inner.y} : Point{inner.x, inner.bottom()};
            const bool forwards = direction == Direction::right || direction == Direction::down;
            into.shade_last(end_color, forwards ? start : end, forwards ? end : start);
        }
        /// Cuts the last command, an image, to a part of the bar.
        void cut_to(const Rect& part) const { into.cut_last(corners_of(part)); }
        void draw_across(double part, float thickness, Color color) const {
            const float middle = static_cast<float>(part) * length();
            const Rect line = on_pixels(between(middle - thickness / 2, middle + thickness / 2));
            into.rect(line, 0, color);
        }
    };

    float border_in(const DrawPlace& at) const {
        return border_ > 0 ? std::max(1.0F, std::round(border_ * at.scale)) : 0;
    }
    float inset_in(const DrawPlace& at) const { return border_in(at) + std::round(padding_ * at.scale); }
    Track track_in(const DrawPlace& at) const {
        const float inset = inset_in(at);
        return {on_pixels(at.box).inset({inset, inset, inset, inset}), std::max(0.0F, radius_ * at.scale - inset),
                at.seen(direction_), segment_gap_ * at.scale, least_length(at.scale)};
    }
    /// Up to the last segment that is lit.
    double lit_part(double fill) const {
        if (segments_ <= 0) return fill;
        int lit = 0;
        for_each_segment(0, fill, segments_, [&](int) { ++lit; });
        return static_cast<double>(lit) / segments_;
    }

    void paint_stripes(const Canvas& canvas, float scale) const {
        const float length = honest_length(fill_, canvas.length(), canvas.least);
        for_each_stripe_of(length, scale, [&](float from, float to) {
            canvas.into.rect(canvas.inner, canvas.radius, stripe_color, canvas.between(from, to));
        });
    }

    void paint(const Canvas& canvas, double from, double to, Color color, const Color* end_color = nullptr) const {
        if (segments_ > 0) {
            const float room = canvas.length() + canvas.gap;
            for_each_segment(from, to, segments_, [&](int i) {
                const auto edge = [&](int segment) {
                    return std::round(room * static_cast<float>(segment) / static_cast<float>(segments_));
                };
                const float end = std::max(edge(i) + 1, edge(i + 1) - std::max(1.0F, std::round(canvas.gap)));
                const Rect box = canvas.between(edge(i), std::min(end, canvas.length()));
                canvas.into.rect(box, std::min(canvas.radius, (edge(i + 1) - edge(i)) / 4), color);
                if (end_color != nullptr) canvas.shade(*end_color);
            });
            return;
        }
        const float length = canvas.length();
        const Rect part =
            canvas.between(honest_length(from, length, canvas.least), honest_length(to, length, canvas.least));
        if (part.width <= 0 || part.height <= 0) return;
        canvas.into.rect(canvas.inner, canvas.radius, color, part);
        if (end_color != nullptr) canvas.shade(*end_color);
    }

    /// The image up to a part of the whole, or to the last segment that is lit.
    void paint_picture(const Canvas& canvas, double to, const DrawPlace& at) const {
        const float length = honest_length(lit_part(to), canvas.length(), canvas.least);
        const Rect filled = canvas.between(0, length);
        if (filled.width <= 0 || filled.height <= 0) return;
        const Color color = is_in_band() ? color_ : image_color_;
        if (image_.image() && slice_ != Insets{} && image_fill_ != ImageFill::tile) {
            if (image_fill_ == ImageFill::stretch)
                return image_.draw_slices(filled, 0, slice_, color, smooth_, at, canvas.into);
            return image_.draw_slices(canvas.inner, 0, slice_, color, smooth_, at, canvas.into, corners_of(filled));
        }
        if (image_fill_ == ImageFill::stretch || !image_.image()) {
            image_.draw(filled, 0, color, smooth_, at, canvas.into);
            return;
        }
        if (image_fill_ == ImageFill::reveal) {
            image_.draw(canvas.inner, 0, color, smooth_, at, canvas.into);
            return canvas.cut_to(filled);
        }
        // From the empty end on; the last one is cut. A tile is a pixel long at least, so that there is an end to them.
        const Size size = image_.size();
        const float tile = std::max(1.0F, canvas.is_across() ? canvas.inner.height * size.width / size.height
                                                             : canvas.inner.width * size.height / size.width);
        for (float from = 0; from < length; from += tile) {
            image_.draw(canvas.between(from, from + tile), 0, color, smooth_, at, canvas.into);
            if (from + tile > length) canvas.cut_to(filled);
        }
    }

    void draw_parts(const Canvas& canvas) const {
        double rest = fill_, fill = fill_, end = 1, room = 1;
        for (const Part& part : parts_)
            if (part.where == PartWhere::end) room -= part.fill;
        for (const Part& part : parts_) {
            if (!(part.fill > 0)) continue;
            if (part.where == PartWhere::rest) {
                const double from = std::max(0.0, std::min(rest, room - part.fill));
                paint(canvas, from, std::max(from, std::min(room, from + part.fill)), part.color);
                rest = from + part.fill;
            } else if (part.where == PartWhere::fill) {
                const double from = std::max(0.0, fill - part.fill);
                paint(canvas, from, fill, part.color);
                fill = from;
            } else {
                const double from = std::max(0.0, end - part.fill);
                paint(canvas, from, end, part.color);
                end = from;
            }
        }
    }

    ImageLook image_;
    ImageFill image_fill_;
    Insets slice_;
    Color image_color_;
    bool smooth_;
    Direction direction_;
    Color background_;
    Color border_color_;
    float radius_;
    float border_;
    float padding_;
    int segments_;
    float segment_gap_;
    std::unique_ptr<TickRow> ticks_;  ///< null without any
    std::vector<Part> parts_;
    double max_ = 1;
    bool parts_changed_ = false;
};

}  // namespace

std::vector<FurtherSource> further_sources(const Bar& bar) {
    std::vector<FurtherSource> sources;
    for (std::size_t i = 0; i < bar.parts.size(); ++i)
        sources.push_back({"parts." + std::to_string(i) + ".value", bar.parts[i].value});
    return sources;
}

std::unique_ptr<Body> make_body(const Bar& bar, BodyContext& context) {
    BarBody::check(context);
    if (!bar.ticks.format.empty() || !bar.ticks.labels.empty())
        context.report("ticks", "must have no numbers: leave 'format' and 'labels' away", {},
                       ProblemCode::contradiction);
    return std::make_unique<BarBody>(bar, ImageLook::find(bar.image, "image", {}, context), context);
}

const Kind& detail::describe(const Bar*) {
    static constexpr Table table{"bar", bar_fields};
    static constexpr Kind kind = make_kind<Bar>(table, {.has_fill = true}, {.size = {160, 12}});
    return kind;
}

bool operator==(const Bar& a, const Bar& b) {
    return Element(a) == Element(b);
}
Element::Element(const Bar& description) : Element(kind_of<Bar>(), &description) {}
template std::optional<Bar> Element::as() const;

}  // namespace rapido
