#include "rapido/element/image.hpp"

#include <algorithm>
#include <array>
#include <cmath>
#include <numbers>
#include <utility>

#include "draw/outline.hpp"
#include "element/fields.hpp"
#include "element/fill_body.hpp"
#include "element/image_look.hpp"
#include "element/kinds.hpp"

namespace rapido {

inline constexpr std::array lid_fields{
    field<&Lid::color>("color", "The color of the lid."),
    field<&Lid::start>("start", "Where the covered part ends, clockwise from the top.", {"degrees", -36000, 36000}),
    field<&Lid::clockwise>("clockwise", "Whether the image is uncovered clockwise."),
};
static_assert(lid_fields.size() == member_count<Lid>);
template <>
inline constexpr Table table_of<Lid>{"lid", lid_fields};

namespace {

constexpr std::array own_image_fields{
    required_field<&Image::id>("id", "The name of the element, unique among its siblings."),
    field<&Image::image>("image", "A PNG file in the folder of the HUD; without one, the first of 'images'."),
    field<&Image::value>("value", "The value that chooses the frame, and the bands."),
    field<&Image::max>("max", "The value of the last frame."),
    field<&Image::images>("images", "Images of which the value, a number from 0, chooses one.", {.most = 1000}),
    field<&Image::lid>("lid", "A lid over as much of the image as the value is of its maximum."),
    field<&Image::frames>("frames", "The frames of an animation in the image."),
    field<&Image::fit>("fit", "How the image fills its box."),
    field<&Image::slice>("slice", "The pixels of the image along each edge that are not stretched across.",
                         {"px", 0, largest_length}),
    field<&Image::mask>("mask", "The image is drawn only where this other image is opaque."),
    field<&Image::color>("color", "The color that the colors of the image are multiplied by."),
    field<&Image::smooth>("smooth", "Whether pixels are blended; without it the nearest pixel counts, for pixel art."),
};
constexpr auto image_fields = joined(own_image_fields, following_fields<Image>, banded_fields<Image>,
                                     placed_fields<Image>, entering_fields<Image>);
static_assert(image_fields.size() == member_count<Image> + flat_motions);

class ImageBody final : public Body {
 public:
    ImageBody(const Image& image, BodyContext& context)
        : own_(ImageLook::find(image.image.empty() ? image.images.front() : image.image.name(), "image", image.frames,
                               context)),
          mask_(ImageLook::find(image.mask, "mask", {}, context)),
          fit_(image.fit),
          slice_(image.slice),
          color_(image.color),
          smooth_(image.smooth),
          has_value_(image.value.is_given()),
          lid_(image.lid),
          picks_frame_(image.value.is_given() && !image.lid && image.images.empty()) {
        for (std::size_t i = 0; i < image.images.size(); ++i)
            of_values_.push_back(ImageLook::find(image.images[i], "images", image.frames, context));
        for (std::size_t i = 0; i < image.bands.size(); ++i)
            of_bands_.push_back(
                ImageLook::find(image.bands[i].image, "bands." + std::to_string(i) + ".image", image.frames, context));
        band_ = of_bands_.size();
    }

    Change set_look(const Look& next) override {
        const Change news = next.image != band_ ? Change::size : look_if(!(next.color == color_));
        color_ = next.color;
        band_ = next.image;
        return news;
    }

    Change show(const ShownValue& shown) override {
        if (!has_value_) return Change::none;
        if (!of_values_.empty()) {
            const double last = static_cast<double>(of_values_.size() - 1);
            const double number = shown.values.value.number();
            const std::size_t before =
                std::exchange(chosen_, number >= 0 ? static_cast<std::size_t>(std::min(std::floor(number), last)) : 0);
            return before != chosen_ ? Change::size : Change::none;
        }
        const double before = std::exchange(fill_, on_grid(fill_of(shown.amount, shown.max), shown.steps));
        if (!picks_frame_) return look_if(before != fill_);
        const auto last = static_cast<float>(look().frame_count() - 1);
        return go_to(last > 0 ? static_cast<int>(std::lround(honest_length(fill_, last, 1))) : 0);
    }

    bool lives_in_time() const override { return !picks_frame_ && own_.frame_count() > 1; }
    Change advance(const Moment& at) override {
        return go_to(at.reduced_motion || look().frame_count() <= 1 ? 0 : look().frame_at(at.now));
    }

    Size measure(TextMeasurer*, Size) override { return look().size(); }

    void draw(const DrawPlace& at, DisplayGroup& into) const override {
        const Size own = look().size();
        const bool sliced = slice_ != Insets{} && look().image();
        if (sliced) return look().draw_slices(at.box, frame_, slice_, color_, smooth_, at, into);
        const Rect all = ImageLook::fitted(at.box, own, fit_, at.scale);
        if (lid_ && fill_ > 0) return draw_covered(all, at, into);
        draw_picture(all, at, into);
    }

    std::optional<double> fill() const override {
        return (picks_frame_ && own_.frame_count() > 1) || lid_ ? std::optional(fill_) : std::nullopt;
    }
    Color color() const override { return color_; }

 private:
    const ImageLook& look() const {
        if (band_ < of_bands_.size() && of_bands_[band_]) return of_bands_[band_];
        return has_value_ && chosen_ < of_values_.size() ? of_values_[chosen_] : own_;
    }
    /// The image, or as much of it as lies inside of `part`, a polygon.
    bool draw_picture(const Rect& all, const DrawPlace& at, DisplayGroup& into, bool is_part = false) const {
        if (!look().draw(all, frame_, color_, smooth_, at, into)) return false;
        std::vector<Point>&points = at.room->points, &cut = at.room->cut;
        const Rect& box = at.box;
        if (fit_ == ImageFit::cover || fit_ == ImageFit::none) {
            if (!is_part)
                points = {{box.x, box.y}, {box.right(), box.y}, {box.right(), box.bottom()}, {box.x, box.bottom()}};
            else
                for (const auto& [low, high] : {std::pair(box.x, box.right()), std::pair(box.y, box.bottom())}) {
                    for (Point& point : points)
                        point = {point.y, point.x};
                    cut_polygon(points, {.level = high}, true, cut);
                    cut_polygon(cut, {.level = low}, false, points);
                }
            is_part = true;
        }
        if (is_part) into.cut_last(points);
        if (mask_.image()) into.mask_last(*mask_.image(), all);
        return true;
    }
    /// A part of a circle around the image that reaches beyond its corners, from one angle to another, in degrees.
    static void write_part(const Rect& box, Point tip, double from, double to, std::vector<Point>& points) {
        constexpr double degree = std::numbers::pi / 180;
        const Point middle{box.x + box.width / 2, box.y + box.height / 2};
        const double radius = std::hypot(static_cast<double>(box.width), static_cast<double>(box.height));
        points.assign(1, tip);
        const int steps = std::max(2, static_cast<int>(std::ceil(std::abs(to - from) / 6)));
        for (int i = 0; i <= steps; ++i) {
            const double angle = (from + (to - from) * i / steps) * degree;
            points.push_back({middle.x + static_cast<float>(radius * std::sin(angle)),
                              middle.y - static_cast<float>(radius * std::cos(angle))});
        }
    }
    /// What is covered is the image itself in another color, and not a second one on top of it: at its soft edges the first would
    /// shine through. What is not covered reaches a pixel below it, so that nothing is seen between the two.
    void draw_covered(const Rect& box, const DrawPlace& at, DisplayGroup& into) const {
        const Color color = lid_->color.value();
        const Tint tint{color, static_cast<float>(color.alpha) / 255};
        if (fill_ >= 1) {
            if (draw_picture(box, at, into)) into.tint_last(tint);
            return;
        }
        const double way = 360 * fill_ * (lid_->clockwise ? -1 : 1);
        const auto start = static_cast<double>(lid_->start);
        const Point middle{box.x + box.width / 2, box.y + box.height / 2};
        const double inwards = (start + way / 2) * std::numbers::pi / 180;
        const Point below{middle.x + 1.5F * static_cast<float>(std::sin(inwards)),
                          middle.y - 1.5F * static_cast<float>(std::cos(inwards))};
        const double radius = std::hypot(static_cast<double>(box.width), static_cast<double>(box.height));
        const double pixel = std::copysign(std::min(180 / std::numbers::pi / std::max(radius / 2, 1.0), 45.0), way);
        write_part(box, below, start + way - pixel, start + std::copysign(360.0, way) + pixel, at.room->points);
        if (!draw_picture(box, at, into, true)) return;
        write_part(box, middle, start, start + way, at.room->points);
        if (draw_picture(box, at, into, true)) into.tint_last(tint);
    }
    Change go_to(int frame) { return look_if(std::exchange(frame_, frame) != frame); }

    ImageLook own_;
    ImageLook mask_;
    std::vector<ImageLook> of_bands_;  ///< none where a band has no other
    std::size_t band_ = 0;
    ImageFit fit_;
    Insets slice_;
    Color color_;
    bool smooth_;
    bool has_value_;
    std::optional<Lid> lid_;
    bool picks_frame_;                  ///< the value chooses a frame
    std::vector<ImageLook> of_values_;  ///< by the number that the value is
    std::size_t chosen_ = 0;
    double fill_ = 0;
    int frame_ = 0;
};

}  // namespace

std::unique_ptr<Body> make_body(const Image& image, BodyContext& context) {
    if (image.image.empty() && image.images.empty()) {
        context.report("image", "must be the name of a file", {}, ProblemCode::missing_key);
        return nullptr;
    }
    if (image.slice != Insets{} && !image.mask.empty())
        context.report("mask", "must not be there where there is 'slice'", {}, ProblemCode::contradiction);
    return std::make_unique<ImageBody>(image, context);
}

const Kind& detail::describe(const Image*) {
    static constexpr Table table{"image", image_fields};
    static constexpr Kind kind = make_kind<Image>(table, {.takes_image = true});
    return kind;
}

bool operator==(const Image& a, const Image& b) {
    return Element(a) == Element(b);
}
Element::Element(const Image& description) : Element(kind_of<Image>(), &description) {}
template std::optional<Image> Element::as() const;

}  // namespace rapido
