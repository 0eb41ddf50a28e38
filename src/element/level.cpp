#include "rapido/element/level.hpp"

#include <algorithm>

#include "draw/outline.hpp"
#include "element/fields.hpp"
#include "element/fill_body.hpp"
#include "element/image_look.hpp"
#include "element/kinds.hpp"
#include "element/map_way.hpp"

namespace rapido {

template <>
inline constexpr std::array<std::string_view, 2> choices_of<FillBy>{"extent", "area"};

namespace {

constexpr std::array wave_fields{
    field<&Wave::height>("height", "The height of a crest above rest; zero is flat.", {"px", 0, largest_length}),
    field<&Wave::length>("length", "The distance from crest to crest.", {"px", 1, largest_length}),
    field<&Wave::period>("period", "The time from crest to crest; below zero the wave runs the other way.",
                         {"s", -3600, 3600}),
};
static_assert(wave_fields.size() == member_count<Wave>);

}  // namespace

template <>
inline constexpr Table table_of<Wave>{"wave", wave_fields};

namespace {

constexpr std::array own_level_fields{
    required_field<&Level::id>("id", "The name of the element, unique among its siblings."),
    required_field<&Level::value>("value", "The value that fills the element."),
    field<&Level::min>("min", "The value at which the shape is empty.", {"", -1e300, 1e300}),
    field<&Level::max>("max", "The value at which the element is full."),
    field<&Level::trail>("trail", "A second level that shows what was just lost."),
    field<&Level::at_end>("at_end", "An element that rides at the end of the fill."),
    field<&Level::shape>("shape", "The shape that is filled."),
    field<&Level::corners>("corners", "The corners of a shape, as parts of the box, which replace the shape.",
                           {"", -10, 10}),
    field<&Level::image>("image", "An image that is seen up to the level, which replaces the shape."),
    field<&Level::empty_image>("empty_image", "An image of the empty shape, drawn below."),
    field<&Level::image_fit>("image_fit", "How the image, the mask or the fill map fills the box."),
    field<&Level::slice>("slice", "The pixels of both images along each edge that are not stretched across.",
                         {"px", 0, largest_length}),
    field<&Level::mask>("mask", "An image that is filled with color, which replaces the shape."),
    field<&Level::fill_map>("fill_map", "A gray image that says at which fill each pixel is reached."),
    field<&Level::fill_map_softness>("fill_map_softness", "How soft the edge of a fill along a map is.", {"", 0, 1}),
    field<&Level::frames>("frames", "The frames of the image."),
    field<&Level::direction>("direction", "The direction in which the element fills."),
    field<&Level::fill_by>("fill_by", "How a fill fraction maps to the shape."),
    field<&Level::wave>("wave", "The wave of the surface."),
    field<&Level::color>("color", "The color of the fill."),
    field<&Level::end_color>("end_color", "The color of the full end, for a gradient."),
    field<&Level::background>("background", "The color of the part that is not filled."),
    field<&Level::border>("border", "The width of the line along the shape; zero draws none.",
                          {"px", 0, largest_length}),
    field<&Level::border_color>("border_color", "The color of that line."),
    field<&Level::padding>("padding", "The room between that line and the fill.", {"px", 0, largest_length}),
};
constexpr auto level_fields = joined(own_level_fields, following_fields<Level>, banded_fields<Level>,
                                     placed_fields<Level>, entering_fields<Level>);
static_assert(level_fields.size() == member_count<Level> + flat_motions);

/// The parts of an area and of a way that are seen at a glance.
struct Least {
    double area = 0;
    double level = 0;
};

class LevelBody final : public FillBody {
 public:
    LevelBody(const Level& level, BodyContext& context)
        : FillBody(level.color, level.trail.color, level.end_color, level.min, level.at_end),
          outline_(outline_for(level)),
          image_(ImageLook::find(level.image, "image", level.frames, context)),
          empty_image_(ImageLook::find(level.empty_image, "empty_image", level.frames, context)),
          image_fit_(level.image_fit),
          slice_(level.slice),
          mask_(ImageLook::find(level.mask, "mask", {}, context)),
          map_(ImageLook::find(level.fill_map, "fill_map", {}, context)),
          map_softness_(std::clamp(level.fill_map_softness, 0.0F, 1.0F)),
          direction_(level.direction),
          fill_by_(level.fill_by),
          wave_(level.wave),
          background_(level.background),
          border_color_(level.border_color),
          border_(level.border),
          padding_(level.padding),
          is_circle_(level.shape == Shape::circle && level.corners.empty() && level.image.empty() &&
                     level.mask.empty() && level.fill_map.empty()),
          areas_(areas_of(context)) {
        if (at_end() != nullptr && map_.image()) way_ = std::make_unique<MapWay>(*map_.image(), *context.images);
    }

    static bool check(const Level& level, BodyContext& context) {
        check_types(context, "a level");
        const std::size_t corners = level.corners.size();
        const bool usable = (corners == 0 || (corners >= 3 && corners <= 256)) &&
                            std::all_of(level.corners.begin(), level.corners.end(), [](const Point& corner) {
                                return std::isfinite(corner.x) && std::isfinite(corner.y);
                            });
        if (level.slice != Insets{} && (!level.mask.empty() || !level.fill_map.empty()))
            context.report("slice", "must not be there where there is 'mask' or 'fill_map'", {},
                           ProblemCode::contradiction);
        if (!level.mask.empty() && !level.fill_map.empty())
            context.report("mask", "must not be there where there is 'fill_map'",
                           "what the map leaves transparent is not filled", ProblemCode::contradiction);
        if (!usable) context.report("corners", "must be 3 to 256 points, or none", {}, ProblemCode::out_of_range);
        return usable;
    }

    bool lives_in_time() const override {
        return (wave_.height > 0 && wave_.period.count() != 0) || image_.frame_count() > 1;
    }
    Change advance(const Moment& at) override {
        const bool has_frames = image_.frame_count() > 1;
        const int frame = has_frames && !at.reduced_motion ? image_.frame_at(at.now) : 0;
        const double period = wave_.period.count();
        const double turns = period != 0 ? to_seconds(at.now).count() / period : 0;
        const auto phase = static_cast<float>(std::ceil(turns) - turns);
        const bool still = at.reduced_motion || !(wave_.height > 0);
        const bool moves = !still && fill_ > 0 && fill_ < 1;
        const bool differs = frame != frame_ || still != still_ || (moves && phase != phase_);
        frame_ = frame;
        still_ = still;
        phase_ = phase;
        return look_if(differs && at.shown);
    }

    Face face(const Rect& box, float scale) const override {
        return is_circle_ ? round_face(box) : FillBody::face(box, scale);
    }
    FillEnd fill_end(const DrawPlace& at) const override {
        const Rect whole = whole_in(at);
        if (way_ != nullptr) {
            const MapWay::Place end = way_->at(fill_, {whole.width, whole.height});
            return {{whole.x + end.at.x * whole.width, whole.y + end.at.y * whole.height}, end.rotation};
        }
        const float border = border_ > 0 ? std::max(1.0F, border_ * at.scale) : 0;
        const float inset = is_picture() ? 0 : border + padding_ * at.scale;
        DisplayGroup none;
        return {Canvas(*this, whole.inset({inset, inset, inset, inset}), at, none).end(),
                rotation_of(at.seen(direction_))};
    }
    void draw(const DrawPlace& at, DisplayGroup& into) const override {
        if (image_ && !image_.image()) return ImageLook::draw_missing(at.box, at, into);
        if (mask_ && !mask_.image()) return ImageLook::draw_missing(at.box, at, into);
        if (map_ && !map_.image()) return ImageLook::draw_missing(at.box, at, into);
        const Rect whole = whole_in(at);
        const float border = border_ > 0 ? std::max(1.0F, border_ * at.scale) : 0;
        const float inset = is_picture() ? 0 : border + padding_ * at.scale;
        const Canvas canvas(*this, whole.inset({inset, inset, inset, inset}), at, into);
        if (!is_picture() && inset > 0) into.polygon(outline_in(whole, at), background_);
        if (empty_image_ && is_sliced() && empty_image_.image())
            empty_image_.draw_slices(whole, std::min(frame_, empty_image_.frame_count() - 1), slice_, rgb(0xffffff),
                                     true, at, into);
        else if (empty_image_)
            empty_image_.draw_cut(whole, at.box, std::min(frame_, empty_image_.frame_count() - 1), rgb(0xffffff), true,
                                  at, into);
        else if (!image_ && inset <= 0)
            canvas.paint(0, 1, background_);
        paint_fill([&](double from, double to, Color color,
                       const Color* end_color) { canvas.paint(from, to, color, end_color); },
                   [&] {
                       if (!is_picture()) canvas.paint_stripes();
                   });
        if (border > 0 && !is_picture()) draw_border(whole, border, at, into);
    }

 private:
    static ShapeOutline outline_for(const Level& level) {
        if (!level.image.empty() || !level.mask.empty() || !level.fill_map.empty()) return outline_of(Shape::box);
        return level.corners.empty() ? outline_of(level.shape) : ShapeOutline{level.corners, 0};
    }
    bool is_picture() const { return image_ || mask_ || map_; }
    bool is_sliced() const { return slice_ != Insets{} && image_; }
    /// Where all of the shape or the image is, which may be more than the box.
    Rect whole_in(const DrawPlace& at) const {
        if (!is_picture()) return fitted_box(at.box, outline_.aspect);
        if (is_sliced()) return at.box;
        const ImageLook& picture = image_ ? image_ : map_ ? map_ : mask_;
        return ImageLook::fitted(at.box, picture.size(), image_fit_, at.scale);
    }
    /// Of an image by how opaque it is, of a shape by its outline.
    AreaLevels areas_of(BodyContext& context) const {
        const ImageLook& picture = image_ ? image_ : map_ ? map_ : mask_;
        if (is_picture() && picture.image()) {
            const bool across = direction_ == Direction::right || direction_ == Direction::left;
            std::vector<float> slices = context.images->opacity(*picture.image(), picture.frame(0), across);
            if (direction_ == Direction::up || direction_ == Direction::left)
                std::reverse(slices.begin(), slices.end());
            if (!slices.empty()) return AreaLevels(slices);
        }
        return {outline_.points, direction_};
    }
    /// In a layout that is mirrored, what fills sideways is turned round with its shape.
    bool flips(const DrawPlace& at) const {
        return at.mirrored && !is_picture() && (direction_ == Direction::right || direction_ == Direction::left);
    }
    std::vector<Point>& outline_in(const Rect& box, const DrawPlace& at) const {
        std::vector<Point>& points = at.room->turned;
        points.clear();
        for (const Point& corner : outline_.points)
            points.push_back(
                {box.x + (flips(at) ? 1 - corner.x : corner.x) * box.width, box.y + corner.y * box.height});
        return points;
    }
    void draw_border(const Rect& whole, float border, const DrawPlace& at, DisplayGroup& into) const {
        const float half = border / 2;
        std::vector<Point>& line = outline_in(whole.inset({half, half, half, half}), at);
        line.push_back(line.front());
        into.line(line, border, border_color_);
    }

    /// Where it is filled.
    class Canvas {
     public:
        Canvas(const LevelBody& body, const Rect& box, const DrawPlace& at, DisplayGroup& into)
            : body_(body),
              box_(box),
              is_cropped_(body.is_picture() && !lies_in(box, at.box)),
              seen_(is_cropped_ ? common_part(box, at.box) : box),
              at_(at),
              into_(into),
              axis_(seen_, body.direction_),
              outline_(at.room->line) {
            float area = 0;
            const Axis whole(box, body.direction_);
            const auto way = static_cast<double>(whole.length());
            seen_from_ = static_cast<double>(whole.along_of(axis_.to_device({0, 0}))) / way;
            seen_to_ = static_cast<double>(whole.along_of(axis_.to_device({0, axis_.length()}))) / way;
            outline_.clear();
            for (const Point& corner : body.outline_.points)
                outline_.push_back(axis_.from_unit(corner));
            for (const Point& corner : outline_) {
                first_ = std::min(first_, corner.y);
                last_ = std::max(last_, corner.y);
            }
            // An image has its border in itself.
            const float padding = body.padding_ * at.scale;
            if (body.is_picture() && body.fill_by_ == FillBy::extent && last_ - first_ > 2 * padding) {
                first_ += padding;
                last_ -= padding;
            }
            for (std::size_t i = 0; i < outline_.size(); ++i) {
                const Point a = outline_[i], b = outline_[(i + 1) % outline_.size()];
                area += (a.x * b.y - b.x * a.y) / 2;
            }
            const float least = least_length(at.scale);
            const float length = last_ - first_;
            least_ = {.area = std::min(0.5, 4.0 * static_cast<double>(least * least / std::abs(area))),
                      .level = std::min(0.5, static_cast<double>(least / length))};
        }

        void paint(double from, double to, Color color, const Color* end_color = nullptr) const {
            if (body_.map_.image()) return paint_along_map(from, to, color);
            auto& [part, cut, turned, line] = *at_.room;
            part = outline_;
            if (to < 1) {
                cut_polygon(part, surface_at(to), true, cut);
                part.swap(cut);
            }
            if (from > 0) {
                cut_polygon(part, surface_at(from), false, cut);
                part.swap(cut);
            }
            if (part.size() < 3) return;
            for (Point& point : part)
                point = to_device(point);
            if (body_.is_sliced()) {
                body_.image_.draw_slices(box_, body_.frame_, body_.slice_, color, true, at_, into_, part);
            } else if (body_.image_) {
                body_.image_.draw(box_, body_.frame_, color, true, at_, into_);
                into_.cut_last(part);
            } else {
                into_.polygon(part, color);
                if (end_color != nullptr) into_.shade_last(*end_color, to_device({0, first_}), to_device({0, last_}));
            }
            // A mask alone gives the color its shape: its own colors are not seen.
            if (body_.mask_.image()) into_.mask_last(*body_.mask_.image(), box_);
        }

        /// Something is seen of what is not empty, and something is missing of what is not full: a gray level.
        void paint_along_map(double from, double to, Color color) const {
            const auto honest = [](double fill) { return honest_length(fill, 1, 1.0F / 255); };
            const ImageLook& seen = body_.image_ ? body_.image_ : body_.map_;
            seen.draw(box_, body_.image_ ? body_.frame_ : 0, color, true, at_, into_);
            if (!body_.image_) into_.silhouette_last();
            if (is_cropped_) into_.cut_last(corners_of(seen_));
            into_.map_last(*body_.map_.image(), honest(from), honest(to), body_.map_softness_);
        }

        void paint_stripes() const {
            const Surface top = body_.fill_ < 1 ? surface_at(body_.fill_) : Surface{.level = last_};
            std::vector<Point>&part = at_.room->points, &cut = at_.room->cut;
            // Beyond the surface, too: a crest of a wave has stripes.
            body_.for_each_stripe_of(top.level + top.height - first_, at_.scale, [&](float from, float to) {
                cut_polygon(outline_, {.level = first_ + to}, true, part);
                cut_polygon(part, {.level = first_ + from}, false, cut);
                cut_polygon(cut, top, true, part);
                if (part.size() < 3) return;
                for (Point& point : part)
                    point = to_device(point);
                into_.polygon(part, stripe_color);
            });
        }

        /// The middle of the shape where it is filled to.
        Point end() const {
            const float along = first_ + static_cast<float>(level_of(body_.fill_)) * (last_ - first_);
            float from = 1e9F, to = -1e9F;
            for (std::size_t i = 0; i < outline_.size(); ++i) {
                const Point a = outline_[i], b = outline_[(i + 1) % outline_.size()];
                if (std::min(a.y, b.y) > along || std::max(a.y, b.y) < along) continue;
                for (const Point& corner : {a, b}) {
                    const float part = a.y != b.y ? (along - a.y) / (b.y - a.y) : 0;
                    const float across = a.y != b.y ? a.x + part * (b.x - a.x) : corner.x;
                    from = std::min(from, across);
                    to = std::max(to, across);
                }
            }
            return to_device({from <= to ? (from + to) / 2 : 0, along});
        }

     private:
        Point to_device(Point point) const {
            const Point made = axis_.to_device(point);
            return body_.flips(at_) ? Point{box_.x + box_.right() - made.x, made.y} : made;
        }
        /// The level of a fill: something of it is seen at a glance, and something is missing before it is full.
        double level_of(double fill) const {
            if (fill <= 0 || fill >= 1) return fill;
            const AreaLevels& areas = body_.areas_;
            // Of an image that is cut off at its ends, what is seen counts.
            const double before = areas.area_of(seen_from_), seen = areas.area_of(seen_to_) - before;
            const auto level_of_area = [&](double part) {
                return (areas.level_of(before + part * seen) - seen_from_) / (seen_to_ - seen_from_);
            };
            const double level = body_.fill_by_ == FillBy::area ? level_of_area(fill) : fill;
            const double low = std::max(level_of_area(least_.area), least_.level);
            const double high = std::min(level_of_area(1 - least_.area), 1 - least_.level);
            return std::max(std::min(level, high), std::min(low, 1.0));
        }
        Surface surface_at(double fill) const {
            const double level = level_of(fill);
            const float length = last_ - first_;
            const auto at = static_cast<float>(level) * length;
            // Nearer to an end than half a wave it calms down, and never reaches it.
            const float room = std::min(at, length - at) / 2;
            return {.level = first_ + at,
                    .height = body_.still_ ? 0 : std::min(body_.wave_.height * at_.scale, room),
                    .length = body_.wave_.length * at_.scale,
                    .phase = body_.phase_};
        }

        const LevelBody& body_;
        Rect box_;  ///< of all of the image
        bool is_cropped_;
        Rect seen_;                           ///< of what is not cut off
        double seen_from_ = 0, seen_to_ = 1;  ///< parts of the way through all of it
        const DrawPlace& at_;
        DisplayGroup& into_;
        Axis axis_;
        std::vector<Point>& outline_;  ///< { across, along }
        float first_ = 1e9F, last_ = -1e9F;
        Least least_;
    };

    ShapeOutline outline_;
    ImageLook image_;
    ImageLook empty_image_;
    ImageFit image_fit_;
    Insets slice_;
    ImageLook mask_;
    ImageLook map_;
    std::unique_ptr<MapWay> way_;  ///< along the map, for what rides at its end
    float map_softness_;
    Direction direction_;
    FillBy fill_by_;
    Wave wave_;
    Color background_;
    Color border_color_;
    float border_;
    float padding_;
    bool is_circle_;  ///< nothing but a circle
    AreaLevels areas_;
    int frame_ = 0;
    float phase_ = 0;
    bool still_ = true;
};

}  // namespace

std::unique_ptr<Body> make_body(const Level& level, BodyContext& context) {
    if (!LevelBody::check(level, context)) return nullptr;
    return std::make_unique<LevelBody>(level, context);
}

const Kind& detail::describe(const Level*) {
    static constexpr Table table{"level", level_fields};
    static constexpr Kind kind = make_kind<Level>(table, {.has_fill = true}, {.size = {64, 64}});
    return kind;
}

bool operator==(const Level& a, const Level& b) {
    return Element(a) == Element(b);
}
Element::Element(const Level& description) : Element(kind_of<Level>(), &description) {}
template std::optional<Level> Element::as() const;

}  // namespace rapido
