#include "rapido/element/pips.hpp"

#include <algorithm>
#include <utility>

#include "draw/outline.hpp"
#include "element/effect_drawing.hpp"
#include "element/fields.hpp"
#include "element/fill_body.hpp"
#include "element/image_look.hpp"
#include "element/kinds.hpp"

namespace rapido {
namespace {

constexpr std::array extra_fields{
    required_field<&ExtraPips::value>("value", "how many"),
    field<&ExtraPips::shape>("shape", "instead of that of the others"),
    field<&ExtraPips::image>("image", "instead, a picture"),
    field<&ExtraPips::color>("color", "of these"),
};
static_assert(extra_fields.size() == member_count<ExtraPips>);
constexpr std::array shine_fields{
    field<&PipShine::effect>("effect", "that runs over all full ones; empty for none"),
    field<&PipShine::every>("every", "it starts at multiples of this", {"s", 0.1, 3600}),
    field<&PipShine::step>("step", "from one pip to the next", {"s", 0, 60}),
};
static_assert(shine_fields.size() == member_count<PipShine>);

}  // namespace

template <>
struct Description<ExtraPips> {
    static constexpr Table table{"extra", extra_fields};
};
template <>
struct Description<PipShine> {
    static constexpr Table table{"shine", shine_fields};
};

namespace {

constexpr std::array own_fields{
    required_field<&Pips::id>("id", "its name, unique among its siblings"),
    required_field<&Pips::value>("value", "how many are full"),
    field<&Pips::max>("max", "how many there are"),
    field<&Pips::shape>("shape", "of each"),
    field<&Pips::image>("image", "instead, a picture of a full one"),
    field<&Pips::empty_image>("empty_image", "a picture of an empty one"),
    field<&Pips::frames>("frames", "of the picture, from empty to full"),
    field<&Pips::pip_size>("pip_size", "of each", {"px", 1, largest_length}),
    field<&Pips::gap>("gap", "between two", {"px", 0, largest_length}),
    field<&Pips::per_row>("per_row", "how many in a row; zero: all", {"", 0, 200}),
    field<&Pips::steps>("steps", "in which one becomes full; zero: as far as the value says", {"", 0, 100}),
    field<&Pips::direction>("direction", "the way in which one becomes full"),
    field<&Pips::extra>("extra", "pips of other kinds behind the others"),
    field<&Pips::appear>("appear", "an effect on a pip that was not there"),
    field<&Pips::gain>("gain", "an effect on what becomes full"),
    field<&Pips::loss>("loss", "an effect, backwards, on what was full"),
    field<&Pips::shine>("shine", "an effect that runs over all full ones"),
    field<&Pips::color>("color", "of full ones"),
    field<&Pips::background>("background", "of empty ones"),
    field<&Pips::border>("border", "width of the line along each; zero draws none",
                         {"px", 0, largest_length}),
    field<&Pips::border_color>("border_color", "of that line"),
};
constexpr auto fields = joined(own_fields, following_fields<Pips>, placed_fields<Pips>);
static_assert(fields.size() == member_count<Pips>);

/// More are counted by nobody.
constexpr int most_pips = 200;

Color seen_in(const Pose& pose, Color color) {
    Color made = mix(color, pose.color, static_cast<double>(pose.color_part));
    made.alpha = static_cast<std::uint8_t>(static_cast<float>(color.alpha) * pose.opacity + 0.5F);
    return made;
}

struct PipEffects {
    const Effect* appear = nullptr;
    const Effect* gain = nullptr;
    const Effect* loss = nullptr;
    const Effect* shine = nullptr;
};

class PipsBody final : public FillBody {
 public:
    PipsBody(const Pips& pips, BodyContext& context)
        : FillBody(pips.color, pips.color),
          has_max_(pips.max),
          pip_size_(pips.pip_size),
          gap_(pips.gap),
          per_row_(pips.per_row),
          steps_(pips.steps),
          direction_(pips.direction),
          background_(pips.background),
          border_(pips.border),
          border_color_(pips.border_color),
          shine_every_(to_nanoseconds(pips.shine.every)),
          shine_step_(to_nanoseconds(pips.shine.step)) {
        effects_ = {context.effect(pips.appear, "appear"), context.effect(pips.gain, "gain"),
                    context.effect(pips.loss, "loss"), context.effect(pips.shine.effect, "shine.effect")};
        kinds_.push_back({.shape = pips.shape,
                          .image = ImageLook::find(pips.image, "image", pips.frames, context),
                          .empty_image = ImageLook::find(pips.empty_image, "empty_image", {}, context),
                          .color = pips.color,
                          .slots = {}});
        for (std::size_t i = 0; i < pips.extra.size(); ++i) {
            const ExtraPips& extra = pips.extra[i];
            const std::string field = "extra." + std::to_string(i) + ".image";
            kinds_.push_back({.shape = extra.shape.value_or(pips.shape),
                              .image = ImageLook::find(extra.image, field, {}, context),
                              .empty_image = {},
                              .color = extra.color,
                              .slots = {}});
        }
        extra_values_.resize(pips.extra.size());
    }

    static void check(BodyContext& context) { check_types(context, "a row of pips"); }

    bool set_look(const Look& look) override {
        kinds_[0].color = look.color;
        return FillBody::set_look(look);
    }
    void snap() override { silent_ = true; }

    void show_further(std::span<const Value> values) override {
        for (std::size_t i = 0; i < values.size(); ++i)
            extra_values_[i] = values[i].number();
    }

    bool show(const FieldValues& shown, double trail) override {
        const double value = shown.value.number();
        const double max = has_max_ ? shown.max.number() : value;
        bool differs = FillBody::show(shown, trail);
        const std::size_t before = slot_count();
        const bool too_many = !is_countable(max, extra_values_);
        if (too_many != too_many_) differs = true;
        if (too_many && !too_many_) told_ = false;
        too_many_ = too_many;
        if (too_many) {
            for (Kind& kind : kinds_)
                kind.slots.clear();
        } else {
            differs = set_slots(kinds_[0], value, max, has_max_) || differs;
            for (std::size_t i = 0; i < extra_values_.size(); ++i)
                differs = set_slots(kinds_[i + 1], extra_values_[i], extra_values_[i], false) || differs;
        }
        silent_ = false;
        resized_ = slot_count() != before;
        return differs || resized_;
    }

    bool lives_in_time() const override { return is_busy_ || effects_.shine != nullptr || !told_; }
    bool advance(const Moment& at) override {
        now_ = at.real;
        resized_ = false;
        bool differs = false;
        is_busy_ = false;
        std::uint32_t number = 0;
        for (Kind& kind : kinds_) {
            for (Slot& slot : kind.slots) {
                differs = advance(slot, number, at) || differs;
                is_busy_ = is_busy_ || !slot.player.resting();
                ++number;
            }
            const auto left = [](const Slot& slot) { return slot.leaving && slot.player.resting(); };
            resized_ = std::erase_if(kind.slots, left) > 0 || resized_;
        }
        return differs || resized_;
    }

    std::string take_problem() override {
        if (told_ || !too_many_) {
            told_ = true;
            return {};
        }
        told_ = true;
        return "more than " + std::to_string(most_pips) + " pips cannot be counted; they are shown as a bar";
    }

    bool has_resized() const override { return resized_; }
    Size measure(TextMeasurer*, Size) override {
        const int count = static_cast<int>(slot_count());
        if (too_many_) return {8 * (pip_size_.width + gap_) - gap_, pip_size_.height};
        if (count == 0) return {0, pip_size_.height};
        const int columns = per_row_ > 0 ? std::min(per_row_, count) : count;
        const int rows = (count + columns - 1) / columns;
        return {static_cast<float>(columns) * (pip_size_.width + gap_) - gap_,
                static_cast<float>(rows) * (pip_size_.height + gap_) - gap_};
    }

    void draw(const DrawPlace& at, DrawGroup& into) const override {
        if (too_many_) return draw_bar(at, into);
        int number = 0;
        for (const Kind& kind : kinds_)
            for (const Slot& slot : kind.slots)
                draw_pip(kind, slot, place_of(number++, at), at, into);
    }

 private:
    enum class Doing : std::uint8_t { nothing, appear, gain, loss };

    /// One pip.
    struct Slot {
        float lit = 0;                   ///< how much of it is full
        float before = 0;                ///< what was, while a gain or a loss runs
        Doing doing = Doing::nothing;    ///< what its effect is for
        Doing pending = Doing::nothing;  ///< what it is to begin
        bool leaving = false;            ///< gone when its effect has run
        std::int64_t shone = 0;          ///< how often the shine has passed
        EffectPlayer player;
    };
    struct Kind {
        Shape shape;
        ImageLook image;
        ImageLook empty_image;
        Color color;
        std::vector<Slot> slots;
    };

    static bool is_countable(double max, const std::vector<double>& extra) {
        double count = max > 0 ? max : 0;
        for (const double more : extra)
            count += more > 0 ? more : 0;
        return count <= most_pips;
    }

    std::size_t slot_count() const {
        std::size_t count = 0;
        for (const Kind& kind : kinds_)
            count += kind.slots.size();
        return count;
    }

    /// How much of a pip is full.
    float lit_of(int pip, double value, double max) const {
        if (!(value > 0)) return 0;
        if (steps_ <= 0) return static_cast<float>(std::clamp(value - pip, 0.0, 1.0));
        const double all = std::ceil(max) * steps_;
        double lit = std::round(std::min(value, max) * steps_);
        if (value < max) lit = std::min(lit, all - 1);
        return static_cast<float>(std::clamp(std::max(lit, 1.0) / steps_ - pip, 0.0, 1.0));
    }

    bool set_slots(Kind& kind, double value, double max, bool has_empty) {
        const int count = max > 0 ? static_cast<int>(std::ceil(max)) : 0;
        bool differs = false;
        int pip = 0;
        for (Slot& slot : kind.slots) {
            const float lit = pip < count ? lit_of(pip, value, max) : 0;
            if (lit != slot.lit) {
                differs = true;
                begin(slot, lit > slot.lit ? Doing::gain : Doing::loss);
                slot.before = slot.lit;
                slot.lit = lit;
            }
            // An extra pip that is lost leaves with what was lost of it, one of the others with its place.
            const bool runs = slot.pending == Doing::loss || (slot.leaving && !slot.player.resting());
            slot.leaving = pip >= count && !has_empty && runs;
            ++pip;
        }
        const auto kept = static_cast<std::size_t>(count);
        while (kind.slots.size() > kept && !kind.slots.back().leaving)
            kind.slots.pop_back();
        while (kind.slots.size() < kept) {
            Slot& slot = kind.slots.emplace_back();
            slot.lit = slot.before = lit_of(static_cast<int>(kind.slots.size()) - 1, value, max);
            begin(slot, has_empty || effects_.appear != nullptr ? Doing::appear : Doing::gain);
            differs = true;
        }
        return differs;
    }

    void begin(Slot& slot, Doing what) {
        const Effect* const effect = effect_of(what);
        slot.pending = silent_ || effect == nullptr ? Doing::nothing : what;
        is_busy_ = is_busy_ || slot.pending != Doing::nothing;
        if (slot.pending == Doing::nothing && slot.doing != Doing::nothing) {
            slot.player.clear();
            slot.doing = Doing::nothing;
        }
    }
    const Effect* effect_of(Doing what) const {
        if (what == Doing::appear) return effects_.appear;
        if (what == Doing::gain) return effects_.gain;
        return what == Doing::loss ? effects_.loss : nullptr;
    }

    /// True while it looks different for its effect.
    bool advance(Slot& slot, std::uint32_t number, const Moment& at) {
        const bool was_resting = slot.player.resting();
        slot.player.advance(at.real);
        if (slot.player.resting()) slot.doing = Doing::nothing;
        const Doing next = std::exchange(slot.pending, Doing::nothing);
        const auto run = [&](const Effect& effect, Nanoseconds from, PlayAs as) {
            slot.player.set_limit(at.flash_limit);
            slot.player.set_color(color_);
            slot.player.set_reduced_motion(at.reduced_motion);
            return slot.player.play(effect, from, 1, number, as);
        };
        if (next != Doing::nothing && at.shown && !(next == Doing::loss && at.reduced_motion)) {
            const PlayAs as = next == Doing::loss ? PlayAs::leave : PlayAs::enter;
            if (run(*effect_of(next), at.real, as)) slot.doing = next;
        }
        if (effects_.shine != nullptr && shine_every_.count() > 0) {
            // Its own moment of each round; what was missed while it was busy or hidden is not made up for.
            const Nanoseconds own = at.real - shine_step_ * number;
            const std::int64_t round = own.count() > 0 ? own / shine_every_ : 0;
            if (round > slot.shone && slot.lit >= 1 && at.shown && slot.player.resting() && !silent_)
                run(*effects_.shine, shine_every_ * round + shine_step_ * number, PlayAs::effect);
            slot.shone = round;
            slot.player.advance(at.real);
        }
        return !(was_resting && slot.player.resting());
    }

    Rect place_of(int number, const DrawPlace& at) const {
        const int columns = per_row_ > 0 ? per_row_ : most_pips + 1;
        const float step = (pip_size_.width + gap_) * at.scale;
        const float width = pip_size_.width * at.scale, height = pip_size_.height * at.scale;
        const float along = static_cast<float>(number % columns) * step;
        const float x = at.mirrored ? at.box.right() - along - width : at.box.x + along;
        const float y =
            at.box.y + static_cast<float>(number / columns) * (pip_size_.height + gap_) * at.scale;
        return {x, y, width, height};
    }

    void draw_pip(const Kind& kind, const Slot& slot, const Rect& rect, const DrawPlace& at,
                  DrawGroup& into) const {
        const Pose pose = pose_of_body(slot.player, now_);
        const bool whole = slot.doing == Doing::appear;
        const Pose rest = whole ? pose : Pose{};
        const bool is_extra = &kind != &kinds_[0];
        if (!is_extra) draw_empty(kind, rect, rest, at, into);
        const Color color = kind.color;
        if (slot.doing == Doing::loss) {
            draw_part(kind, rect, 0, slot.lit, color, rest, at, into);
            draw_part(kind, rect, slot.lit, slot.before, color, pose, at, into);
        } else if (slot.doing == Doing::gain) {
            draw_part(kind, rect, 0, std::min(slot.before, slot.lit), color, rest, at, into);
            draw_part(kind, rect, 0, slot.lit, color, pose, at, into);
        } else {
            draw_part(kind, rect, 0, slot.lit, color, slot.doing == Doing::nothing ? pose : rest, at, into);
        }
        draw_dots(slot.player, now_, rect, at.scale, into);
    }

    void draw_empty(const Kind& kind, const Rect& rect, const Pose& pose, const DrawPlace& at,
                    DrawGroup& into) const {
        const Transform transform = transform_of(pose, rect, at.scale);
        if (kind.image || kind.empty_image) {
            if (!kind.empty_image) return;
            const Rect box = box_in(rect, kind.empty_image);
            if (kind.empty_image.draw(box, 0, seen_in(pose, rgb(0xffffff)), true, at, into))
                into.transform_last(transform);
            return;
        }
        const Outline& outline = outline_of(kind.shape);
        const Rect box = fitted_box(rect, outline.aspect);
        std::vector<Point>& points = at.room->points;
        points.clear();
        for (const Point& corner : outline.points)
            points.push_back(transform.apply({box.x + corner.x * box.width, box.y + corner.y * box.height}));
        into.add_polygon(points, seen_in(pose, background_));
        if (border_ <= 0) return;
        points.push_back(points.front());
        into.add_line(points, std::max(1.0F, border_ * at.scale), seen_in(pose, border_color_));
    }

    static Rect box_in(const Rect& rect, const ImageLook& image) {
        return fitted_box(rect, image.size().width / image.size().height);
    }

    /// From one part of a pip to another one.
    void draw_part(const Kind& kind, const Rect& rect, float from, float to, Color color, const Pose& pose,
                   const DrawPlace& at, DrawGroup& into) const {
        if (!(to > from)) return;
        const Transform transform = transform_of(pose, rect, at.scale);
        const Color seen = seen_in(pose, color);
        const bool is_strip = kind.image.frame_count() > 1;
        const Rect box =
            kind.image ? box_in(rect, kind.image) : fitted_box(rect, outline_of(kind.shape).aspect);
        const Axis axis(box, at.seen(direction_));
        const Outline& outline = outline_of(kind.image ? Shape::box : kind.shape);
        auto& [points, cut, turned, moved] = *at.room;
        points.clear();
        for (const Point& corner : outline.points)
            points.push_back(axis.from_unit(corner));
        const float least = least_length(at.scale);
        if (to < 1 && !is_strip) {
            cut_polygon(points, {.level = honest_length(static_cast<double>(to), axis.length(), least)}, true,
                        cut);
            points.swap(cut);
        }
        if (from > 0 && !is_strip) {
            cut_polygon(points, {.level = honest_length(static_cast<double>(from), axis.length(), least)},
                        false, cut);
            points.swap(cut);
        }
        if (points.size() < 3) return;
        for (Point& point : points)
            point = axis.to_device(point);
        if (kind.image) {
            const auto last = static_cast<float>(kind.image.frame_count() - 1);
            const int frame = static_cast<int>(std::lround(honest_length(static_cast<double>(to), last, 1)));
            if (!kind.image.draw(box, is_strip ? frame : 0, seen, true, at, into)) return;
            if (!is_strip && (from > 0 || to < 1)) into.cut_last(points);
            if (pose.color_part > 0) into.tint_last({pose.color, pose.color_part});
            into.transform_last(transform);
            draw_stripes(points, box, pose, transform, &kind.image, at, into);
            return;
        }
        moved = points;
        for (Point& point : moved)
            point = transform.apply(point);
        into.add_polygon(moved, seen);
        draw_stripes(points, box, pose, transform, nullptr, at, into);
    }

    /// The light of a shine, only where the pip is.
    static void draw_stripes(const std::vector<Point>& points, const Rect& box, const Pose& pose,
                             const Transform& transform, const ImageLook* image, const DrawPlace& at,
                             DrawGroup& into) {
        if (pose.shine < 0) return;
        auto& [room, cut, turned, strip] = *at.room;
        for_each_stripe(box, pose.shine, [&](const ShineStripe& stripe) {
            turned.clear();
            for (const Point& point : points)
                turned.push_back({point.y, point.x});
            cut_polygon(turned, {.level = stripe.right}, true, cut);
            cut_polygon(cut, {.level = stripe.left}, false, strip);
            if (strip.size() < 3) return;
            for (Point& point : strip)
                point = image != nullptr ? Point{point.y, point.x} : transform.apply({point.y, point.x});
            if (image == nullptr) return into.add_polygon(strip, rgb(0xffffff, 0.1));
            if (!image->draw(box, image->frame_count() - 1, rgb(0xffffff, 0.1), true, at, into)) return;
            into.cut_last(strip);
            into.tint_last({rgb(0xffffff), 1});
            into.transform_last(transform);
        });
    }

    void draw_bar(const DrawPlace& at, DrawGroup& into) const {
        const Rect edges = on_pixels(at.box);
        into.add_rect(edges, 0, background_);
        const float length = honest_length(has_max_ ? fill_ : 1, edges.width, least_length(at.scale));
        if (length > 0)
            into.add_rect({at.mirrored ? edges.right() - length : edges.x, edges.y, length, edges.height}, 0,
                          color_);
    }

    bool has_max_;
    Size pip_size_;
    float gap_;
    int per_row_;
    int steps_;
    Direction direction_;
    Color background_;
    float border_;
    Color border_color_;
    Nanoseconds shine_every_;
    Nanoseconds shine_step_;
    PipEffects effects_;
    std::vector<Kind> kinds_;  ///< the others, and then the extra ones
    std::vector<double> extra_values_;
    Nanoseconds now_{0};
    bool silent_ = true;  ///< what is shown next is no gain and no loss
    bool is_busy_ = false;
    bool resized_ = false;
    bool too_many_ = false;
    bool told_ = true;
};

}  // namespace

const Table Description<Pips>::table{"pips", fields};

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

}  // namespace rapido
