#include "rapido/element/pips.hpp"

#include <algorithm>
#include <utility>

#include "draw/outline.hpp"
#include "element/effect_drawing.hpp"
#include "element/fields.hpp"
#include "element/fill_body.hpp"
#include "element/image_look.hpp"
#include "element/kinds.hpp"
#include "element/pip_row.hpp"

namespace rapido {
namespace {

constexpr std::array extra_fields{
    required_field<&ExtraPips::value>("value", "How many of these pips there are."),
    field<&ExtraPips::shape>("shape", "The shape, which replaces that of the others."),
    field<&ExtraPips::image>("image", "An image that replaces the shape."),
    field<&ExtraPips::color>("color", "The color of these pips."),
};
static_assert(extra_fields.size() == member_count<ExtraPips>);
constexpr std::array in_turn_fields{
    field<&PipsInTurn::effect>("effect", "The effect that runs over all full pips."),
    field<&PipsInTurn::every>("every", "The shine starts at multiples of this time.", {"s", 0.1, 3600}),
    field<&PipsInTurn::step>("step", "The time from one pip to the next.", {"s", 0, 60}),
};
static_assert(in_turn_fields.size() == member_count<PipsInTurn>);

}  // namespace

template <>
inline constexpr Table table_of<ExtraPips>{"extra", extra_fields};
template <>
inline constexpr Table table_of<PipsInTurn>{"in_turn", in_turn_fields};

namespace {

constexpr std::array own_pips_fields{
    required_field<&Pips::id>("id", "The name of the element, unique among its siblings."),
    required_field<&Pips::value>("value", "How many pips are full."),
    field<&Pips::max>("max", "How many pips there are; without it, as many as are full."),
    field<&Pips::shape>("shape", "The shape of each pip."),
    field<&Pips::image>("image", "An image of a full pip, which replaces the shape."),
    field<&Pips::empty_image>("empty_image", "An image of an empty pip."),
    field<&Pips::frames>("frames", "The frames of the image, from empty to full."),
    field<&Pips::image_fit>("image_fit", "How an image fills the size of a pip."),
    field<&Pips::smooth>("smooth", "Whether pixels of images are blended."),
    field<&Pips::pip_size>("pip_size", "The size of each pip.", {"px", 1, largest_length}),
    field<&Pips::gap>("gap", "The gap between two pips.", {"px", 0, largest_length}),
    field<&Pips::per_row>("per_row", "How many pips stand in a row; zero means all.", {"", 0, 200}),
    field<&Pips::steps>("steps", "In how many steps a pip becomes full; zero means as far as the value says.",
                        {"", 0, 100}),
    field<&Pips::direction>("direction", "The direction in which a pip becomes full."),
    field<&Pips::extra>("extra", "Pips of other kinds behind the others.", {.most = 16}),
    field<&Pips::appear>("appear", "The effect on a pip that was not there before."),
    field<&Pips::gain>("gain", "The effect on what of a pip becomes full."),
    field<&Pips::loss>("loss", "The effect on what was full, played backwards."),
    field<&Pips::in_turn>("in_turn", "An effect that runs over all full pips, one after the other."),
    field<&Pips::last>("last", "The effect on the last full pip that is left."),
    field<&Pips::colors>("colors", "The color of full pips from the pip of a number on, counted from 1.", {.most = 64}),
    field<&Pips::color>("color", "The color of full pips."),
    field<&Pips::background>("background", "The color of empty pips."),
    field<&Pips::border>("border", "The width of the line along each pip; zero draws none.", {"px", 0, largest_length}),
    field<&Pips::border_color>("border_color", "The color of that line."),
};
constexpr auto pips_fields =
    joined(own_pips_fields, following_fields<Pips>, banded_fields<Pips>, placed_fields<Pips>, entering_fields<Pips>);
static_assert(pips_fields.size() == member_count<Pips> + flat_motions);

/// More are counted by nobody.
constexpr int most_pips = 200;

Color seen_in(const Pose& pose, Color color) {
    Color made = mix(color, pose.color, static_cast<double>(pose.color_part));
    made.alpha = static_cast<std::uint8_t>(static_cast<float>(color.alpha) * pose.opacity + 0.5F);
    return made;
}

class PipsBody final : public FillBody {
 public:
    PipsBody(const Pips& pips, BodyContext& context)
        : FillBody(pips.color, pips.color),
          has_max_(pips.max.is_given()),
          pip_size_(pips.pip_size),
          gap_(pips.gap),
          per_row_(pips.per_row),
          direction_(pips.direction),
          image_fit_(pips.image_fit),
          smooth_(pips.smooth),
          background_(pips.background),
          border_(pips.border),
          border_color_(pips.border_color),
          rules_{.steps = pips.steps,
                 .appear = context.effect(pips.appear, "appear"),
                 .gain = context.effect(pips.gain, "gain"),
                 .loss = context.effect(pips.loss, "loss"),
                 .shine = context.effect(pips.in_turn.effect, "in_turn.effect"),
                 .shine_every = to_nanoseconds(pips.in_turn.every),
                 .shine_step = to_nanoseconds(pips.in_turn.step),
                 .last = context.effect(pips.last, "last")},
          colors_(pips.colors) {
        kinds_.push_back({.shape = pips.shape,
                          .image = ImageLook::find(pips.image, "image", pips.frames, context),
                          .empty_image = ImageLook::find(pips.empty_image, "empty_image", {}, context),
                          .color = pips.color,
                          .row = PipRow(pips.max.is_given())});
        for (std::size_t i = 0; i < pips.extra.size(); ++i) {
            const ExtraPips& extra = pips.extra[i];
            const std::string field = "extra." + std::to_string(i) + ".image";
            kinds_.push_back({.shape = extra.shape.value_or(pips.shape),
                              .image = ImageLook::find(extra.image, field, {}, context),
                              .empty_image = {},
                              .color = extra.color,
                              .row = PipRow(false)});
        }
        extra_values_.resize(pips.extra.size());
        for (const Effect* const effect : {rules_.appear, rules_.gain, rules_.loss, rules_.shine, rules_.last})
            if (effect != nullptr && !effect->particles.image.empty())
                pictures_.emplace_back(effect,
                                       ImageLook::find(effect->particles.image, "particles.image", {}, context));
    }

    static void check(BodyContext& context) { check_types(context, "a row of pips"); }

    Change set_look(const Look& look) override {
        kinds_[0].color = look.color;
        return FillBody::set_look(look);
    }
    void snap() override { silent_ = true; }

    void show_further(std::span<const Value> values) override {
        for (std::size_t i = 0; i < values.size(); ++i)
            extra_values_[i] = values[i].number();
    }

    Amounts looks_same(const ShownValue& shown) const override {
        return rules_.steps == 1 ? same_integer(shown) : Amounts{};
    }
    Change show(const ShownValue& shown) override {
        // Whole pips are counted as a text counts them; parts of one are a shape.
        const double whole = shown.values.value.number();
        ShownValue counted = shown;
        if (rules_.steps == 1) counted.amount = whole;
        const double value = counted.amount;
        const double max = has_max_ ? shown.values.max.number() : whole;
        bool differs = FillBody::show(counted) != Change::none;
        const std::size_t before = pip_count();
        const bool too_many = !is_countable(max, extra_values_);
        if (too_many != too_many_) differs = true;
        if (too_many && !too_many_) told_ = false;
        too_many_ = too_many;
        if (too_many) {
            for (Kind& kind : kinds_)
                kind.row.clear();
        } else {
            differs = kinds_[0].row.set(value, max, rules_, silent_) || differs;
            for (std::size_t i = 0; i < extra_values_.size(); ++i) {
                const double extra = extra_values_[i];
                differs = kinds_[i + 1].row.set(extra, extra, rules_, silent_) || differs;
            }
        }
        silent_ = false;
        return pip_count() != before ? Change::size : look_if(differs);
    }

    void take_over(Body& other) override {
        auto& before = static_cast<PipsBody&>(other);
        for (std::size_t i = 0; i < std::min(kinds_.size(), before.kinds_.size()); ++i)
            kinds_[i].row = std::move(before.kinds_[i].row);
        now_ = before.now_;
        silent_ = before.silent_;
    }
    bool lives_in_time() const override { return true; }
    Change advance(const Moment& at) override {
        now_ = at.real;
        reduced_motion_ = at.reduced_motion;
        const auto is_busy = [](const Kind& kind) { return kind.row.is_busy(); };
        if (rules_.shine == nullptr && rules_.last == nullptr && std::none_of(kinds_.begin(), kinds_.end(), is_busy))
            return Change::none;
        const std::size_t before = pip_count();
        bool differs = false;
        std::uint32_t number = 0;
        for (Kind& kind : kinds_) {
            const auto count = static_cast<std::uint32_t>(kind.row.pips().size());
            differs = kind.row.advance(at, rules_, color_, number) || differs;
            number += count;
        }
        if (rules_.last != nullptr) differs = kinds_[0].row.play_last(at, rules_, color_) || differs;
        return pip_count() != before ? Change::size : look_if(differs);
    }

    bool forget(const Effect& effect) override {
        bool is_free = !rules_.names(effect);
        for (Kind& kind : kinds_)
            is_free = kind.row.forget(effect) && is_free;
        return is_free;
    }

    std::string take_problem() override {
        if (told_ || !too_many_) {
            told_ = true;
            return {};
        }
        told_ = true;
        return "more than " + std::to_string(most_pips) + " pips cannot be counted; they are shown as a bar";
    }

    Size measure(TextMeasurer*, Size) override {
        const int count = static_cast<int>(pip_count());
        if (too_many_) return {8 * (pip_size_.width + gap_) - gap_, pip_size_.height};
        if (count == 0) return {0, pip_size_.height};
        const int columns = per_row_ > 0 ? std::min(per_row_, count) : count;
        const int rows = (count + columns - 1) / columns;
        return {static_cast<float>(columns) * (pip_size_.width + gap_) - gap_,
                static_cast<float>(rows) * (pip_size_.height + gap_) - gap_};
    }

    void draw(const DrawPlace& at, DisplayGroup& into) const override {
        if (too_many_) return draw_bar(at, into);
        int number = 0;
        for (const Kind& kind : kinds_)
            for (const Pip& pip : kind.row.pips()) {
                const Color color = color_of(kind, number);
                draw_pip(kind, pip, color, place_of(number++, at), at, into);
            }
        if (reduced_motion_) return;
        int left = most_particles;
        number = 0;
        for (const Kind& kind : kinds_)
            for (const Pip& pip : kind.row.pips()) {
                const Rect rect = place_of(number++, at);
                for (const EffectPlayer::Emission& emission : pip.player.emissions()) {
                    const auto picture = std::find_if(pictures_.begin(), pictures_.end(), [&](const auto& known) {
                        return known.first == emission.effect;
                    });
                    draw_particles(emission, picture != pictures_.end() ? &picture->second : nullptr, now_, rect,
                                   at.scale, left, into);
                }
            }
    }

 private:
    struct Kind {
        Shape shape;
        ImageLook image;
        ImageLook empty_image;
        Color color;
        PipRow row;
    };

    static bool is_countable(double max, const std::vector<double>& extra) {
        double count = max > 0 ? max : 0;
        for (const double more : extra)
            count += more > 0 ? more : 0;
        return count <= most_pips;
    }

    std::size_t pip_count() const {
        std::size_t count = 0;
        for (const Kind& kind : kinds_)
            count += kind.row.pips().size();
        return count;
    }

    Rect place_of(int number, const DrawPlace& at) const {
        const int columns = per_row_ > 0 ? per_row_ : most_pips + 1;
        const float step = (pip_size_.width + gap_) * at.scale;
        const float width = pip_size_.width * at.scale, height = pip_size_.height * at.scale;
        const float along = static_cast<float>(number % columns) * step;
        const float x = at.mirrored ? at.box.right() - along - width : at.box.x + along;
        const float y = at.box.y + static_cast<float>(number / columns) * (pip_size_.height + gap_) * at.scale;
        return {x, y, width, height};
    }

    Color color_of(const Kind& kind, int number) const {
        Color color = kind.color;
        if (&kind != &kinds_[0] || is_in_band()) return color;
        for (const ColorStop& stop : colors_)
            if (number + 1 >= stop.at) color = stop.color;
        return color;
    }

    void draw_pip(const Kind& kind, const Pip& pip, Color color, const Rect& rect, const DrawPlace& at,
                  DisplayGroup& into) const {
        const Pose pose = pip.player.pose(now_);
        const Pose rest = pip.runs == PipChange::appear ? pose : Pose{};
        if (&kind == &kinds_[0]) draw_empty(kind, pip, rect, rest, at, into);
        if (pip.runs == PipChange::loss) {
            draw_part(kind, color, rect, 0, pip.lit, rest, at, into);
            draw_part(kind, color, rect, pip.lit, pip.before, pose, at, into);
        } else if (pip.runs == PipChange::gain) {
            draw_part(kind, color, rect, 0, std::min(pip.before, pip.lit), rest, at, into);
            draw_part(kind, color, rect, 0, pip.lit, pose, at, into);
        } else {
            draw_part(kind, color, rect, 0, pip.lit, pip.runs == PipChange::nothing ? pose : rest, at, into);
        }
        draw_dots(pip.player, now_, rect, at.scale, into);
    }

    void draw_empty(const Kind& kind, const Pip& pip, const Rect& rect, const Pose& pose, const DrawPlace& at,
                    DisplayGroup& into) const {
        const Transform transform = transform_of(pose, rect, at.scale);
        if (kind.image || kind.empty_image) {
            // The first of several frames is the look of an empty one, unless there is another image for that.
            const bool was_empty = pip.lit <= 0 || (pip.runs == PipChange::gain && pip.before <= 0);
            const bool is_in_strip = !kind.empty_image && kind.image.frame_count() > 1 && was_empty;
            const ImageLook& look = is_in_strip ? kind.image : kind.empty_image;
            const Color color = seen_in(pose, is_in_strip ? kind.color : rgb(0xffffff));
            if (look.draw_cut(box_in(rect, look, at), rect, 0, color, smooth_, at, into))
                into.transform_last(transform);
            return;
        }
        const ShapeOutline& outline = outline_of(kind.shape);
        const Rect box = fitted_box(rect, outline.aspect);
        std::vector<Point>& points = at.room->points;
        points.clear();
        for (const Point& corner : corners_of(kind.shape, {box.width * pose.scale, box.height * pose.scale}))
            points.push_back(transform.apply({box.x + corner.x * box.width, box.y + corner.y * box.height}));
        into.polygon(points, seen_in(pose, background_));
        if (border_ <= 0) return;
        points.push_back(points.front());
        into.line(points, std::max(1.0F, border_ * at.scale), seen_in(pose, border_color_));
    }

    Rect box_in(const Rect& rect, const ImageLook& image, const DrawPlace& at) const {
        return ImageLook::fitted(rect, image.size(), image_fit_, at.scale);
    }

    /// From one part of a pip to another one.
    void draw_part(const Kind& kind, Color color, const Rect& rect, float from, float to, const Pose& pose,
                   const DrawPlace& at, DisplayGroup& into) const {
        if (!(to > from)) return;
        const Transform transform = transform_of(pose, rect, at.scale);
        const Color seen = seen_in(pose, color);
        const bool is_strip = kind.image.frame_count() > 1;
        const Rect box = kind.image ? box_in(rect, kind.image, at) : fitted_box(rect, outline_of(kind.shape).aspect);
        const bool is_cropped = kind.image && !lies_in(box, rect);
        const Rect visible = is_cropped ? common_part(box, rect) : box;
        const Axis axis(visible, at.seen(direction_));
        const bool is_cut = is_cropped || (!is_strip && (from > 0 || to < 1));
        const Shape shape = kind.image ? Shape::box : kind.shape;
        auto& [points, cut, turned, moved] = *at.room;
        points.clear();
        const std::span<const Point> corners = corners_of(shape, {box.width * pose.scale, box.height * pose.scale});
        if (is_strip || (from <= 0 && to >= 1)) {
            for (const Point& corner : corners)
                points.push_back({visible.x + corner.x * visible.width, visible.y + corner.y * visible.height});
        } else {
            const float least = least_length(at.scale);
            for (const Point& corner : corners)
                points.push_back(axis.from_unit(corner));
            if (to < 1) {
                cut_polygon(points, {.level = honest_length(static_cast<double>(to), axis.length(), least)}, true, cut);
                points.swap(cut);
            }
            if (from > 0) {
                cut_polygon(points, {.level = honest_length(static_cast<double>(from), axis.length(), least)}, false,
                            cut);
                points.swap(cut);
            }
            for (Point& point : points)
                point = axis.to_device(point);
        }
        if (points.size() < 3) return;
        if (kind.image) {
            const auto last = static_cast<float>(kind.image.frame_count() - 1);
            const int frame = static_cast<int>(std::lround(honest_length(static_cast<double>(to), last, 1)));
            if (pose.glow > 0 && kind.image.draw(box, is_strip ? frame : 0, light_of(pose, color), smooth_, at, into)) {
                if (is_cut) into.cut_last(points);
                into.silhouette_last();
                into.transform_last(transform);
                into.blur_last(glow_radius * at.scale);
            }
            if (!kind.image.draw(box, is_strip ? frame : 0, seen, smooth_, at, into)) return;
            if (is_cut) into.cut_last(points);
            if (pose.color_part > 0) into.tint_last({pose.color, pose.color_part});
            into.transform_last(transform);
            draw_stripes(points, box, pose, transform, &kind.image, at, into);
            return;
        }
        moved = points;
        for (Point& point : moved)
            point = transform.apply(point);
        if (pose.glow > 0) {
            into.polygon(moved, light_of(pose, color));
            into.blur_last(glow_radius * at.scale);
        }
        into.polygon(moved, seen);
        draw_stripes(points, box, pose, transform, nullptr, at, into);
    }

    static constexpr float glow_radius = 12;  ///< design pixels, as of an element
    /// Around a pip, in its own color.
    static Color light_of(const Pose& pose, Color light) {
        const float strength = std::clamp(pose.glow, 0.0F, 1.0F) * pose.opacity;
        light.alpha = static_cast<std::uint8_t>(static_cast<float>(light.alpha) * strength + 0.5F);
        return light;
    }

    /// The light of a shine, only where the pip is.
    static void draw_stripes(const std::vector<Point>& points, const Rect& box, const Pose& pose,
                             const Transform& transform, const ImageLook* image, const DrawPlace& at,
                             DisplayGroup& into) {
        if (pose.shine < 0) return;
        std::vector<Point>&cut = at.room->cut, &turned = at.room->turned, &strip = at.room->line;
        for_each_stripe(box, pose.shine, [&](const ShineStripe& stripe) {
            turned.clear();
            for (const Point& point : points)
                turned.push_back({point.y, point.x});
            cut_polygon(turned, {.level = stripe.right}, true, cut);
            cut_polygon(cut, {.level = stripe.left}, false, strip);
            if (strip.size() < 3) return;
            for (Point& point : strip)
                point = image != nullptr ? Point{point.y, point.x} : transform.apply({point.y, point.x});
            if (image == nullptr) return into.polygon(strip, rgb(0xffffff, 0.1));
            if (!image->draw(box, image->frame_count() - 1, rgb(0xffffff, 0.1), true, at, into)) return;
            into.cut_last(strip);
            into.tint_last({rgb(0xffffff), 1});
            into.transform_last(transform);
        });
    }

    void draw_bar(const DrawPlace& at, DisplayGroup& into) const {
        const Rect edges = on_pixels(at.box);
        into.rect(edges, 0, background_);
        const float length = honest_length(has_max_ ? fill_ : 1, edges.width, least_length(at.scale));
        if (length > 0)
            into.rect({at.mirrored ? edges.right() - length : edges.x, edges.y, length, edges.height}, 0, color_);
    }

    bool has_max_;
    Size pip_size_;
    float gap_;
    int per_row_;
    Direction direction_;
    ImageFit image_fit_;
    bool smooth_;
    Color background_;
    float border_;
    Color border_color_;
    PipRules rules_;
    std::vector<ColorStop> colors_;
    std::vector<std::pair<const Effect*, ImageLook>> pictures_;  ///< of particles that have one
    bool reduced_motion_ = false;
    std::vector<Kind> kinds_;  ///< the others, and then the extra ones
    std::vector<double> extra_values_;
    Nanoseconds now_{0};
    bool silent_ = true;  ///< what is shown next is no gain and no loss
    bool too_many_ = false;
    bool told_ = true;
};

}  // namespace

std::vector<FurtherSource> further_sources(const Pips& pips) {
    std::vector<FurtherSource> sources;
    for (std::size_t i = 0; i < pips.extra.size(); ++i)
        sources.push_back({"extra." + std::to_string(i) + ".value", pips.extra[i].value});
    return sources;
}

std::unique_ptr<Body> make_body(const Pips& pips, BodyContext& context) {
    PipsBody::check(context);
    return std::make_unique<PipsBody>(pips, context);
}

const Kind& detail::describe(const Pips*) {
    static constexpr Table table{"pips", pips_fields};
    static constexpr Kind kind = make_kind<Pips>(table);
    return kind;
}

bool operator==(const Pips& a, const Pips& b) {
    return Element(a) == Element(b);
}
Element::Element(const Pips& description) : Element(kind_of<Pips>(), &description) {}
template std::optional<Pips> Element::as() const;

}  // namespace rapido
