#include "rapido/element/image.hpp"

#include <array>
#include <utility>

#include "element/fields.hpp"
#include "element/fill_body.hpp"
#include "element/image_look.hpp"
#include "element/kinds.hpp"

namespace rapido {

template <>
struct Choices<ImageFit> {
    static constexpr std::array<std::string_view, 5> names{"fill", "contain", "cover", "none", "scale_down"};
};

namespace {

constexpr std::array own_fields{
    required_field<&Image::id>("id", "The name of the element, unique among its siblings."),
    required_field<&Image::image>("image", "A PNG file in the folder of the HUD."),
    field<&Image::value>("value", "The value that chooses the frame, and the bands."),
    field<&Image::max>("max", "The value of the last frame."),
    field<&Image::frames>("frames", "The frames of an animation in the image."),
    field<&Image::fit>("fit", "How the image fills its box."),
    field<&Image::slice>("slice", "The pixels of the image along each edge that are not stretched across.",
                         {"px", 0, largest_length}),
    field<&Image::mask>("mask", "The image is drawn only where this other image is opaque."),
    field<&Image::color>("color", "The color that the colors of the image are multiplied by."),
    field<&Image::smooth>("smooth",
                          "Whether pixels are blended; without it the nearest pixel counts, for pixel art."),
};
constexpr auto fields =
    joined(own_fields, following_fields<Image>, placed_fields<Image>, entering_fields<Image>);
static_assert(fields.size() == member_count<Image> + flat_motions);

/// Where an image of this size is in a box, after CSS Images 3, 5.5.
Rect placed(const Rect& box, Size own, ImageFit fit, float scale) {
    if (fit == ImageFit::fill) return box;
    const float across = box.width / own.width, down = box.height / own.height;
    float factor = fit == ImageFit::cover ? std::max(across, down) : std::min(across, down);
    if (fit == ImageFit::none) factor = scale;
    if (fit == ImageFit::scale_down) factor = std::min(factor, scale);
    const Size size{own.width * factor, own.height * factor};
    return {box.x + (box.width - size.width) / 2, box.y + (box.height - size.height) / 2, size.width,
            size.height};
}

class ImageBody final : public Body {
 public:
    ImageBody(const Image& image, BodyContext& context)
        : own_(ImageLook::find(image.image, "image", image.frames, context)),
          mask_(ImageLook::find(image.mask, "mask", {}, context)),
          fit_(image.fit),
          slice_(image.slice),
          color_(image.color),
          smooth_(image.smooth),
          has_value_(image.value) {
        for (std::size_t i = 0; i < image.bands.size(); ++i)
            of_bands_.push_back(ImageLook::find(image.bands[i].image, "bands." + std::to_string(i) + ".image",
                                                image.frames, context));
        band_ = of_bands_.size();
    }

    Change set_look(const Look& next) override {
        const Change news = next.image != band_ ? Change::size : look_if(!(next.color == color_));
        color_ = next.color;
        band_ = next.image;
        return news;
    }

    Change show(const FieldValues& shown, double) override {
        if (!has_value_) return Change::none;
        fill_ = fill_of(shown.value.number(), shown.max.number());
        const auto last = static_cast<float>(look().frame_count() - 1);
        return go_to(last > 0 ? static_cast<int>(std::lround(honest_length(fill_, last, 1))) : 0);
    }

    bool lives_in_time() const override { return !has_value_ && own_.frame_count() > 1; }
    Change advance(const Moment& at) override {
        return go_to(at.reduced_motion || look().frame_count() <= 1 ? 0 : look().frame_at(at.now));
    }

    Size measure(TextMeasurer*, Size) override { return look().size(); }

    void draw(const DrawPlace& at, DrawGroup& into) const override {
        const Size own = look().size();
        const bool sliced = slice_ != Insets{} && look().image();
        if (sliced) return look().draw_slices(frame_, slice_, color_, smooth_, at, into);
        const Rect all = placed(at.box, own, fit_, at.scale);
        if (!look().draw(all, frame_, color_, smooth_, at, into)) return;
        if (fit_ == ImageFit::cover || fit_ == ImageFit::none) {
            const Rect& box = at.box;
            const std::array corners{Point{box.x, box.y}, Point{box.right(), box.y},
                                     Point{box.right(), box.bottom()}, Point{box.x, box.bottom()}};
            into.cut_last(corners);
        }
        if (mask_.image()) into.mask_last(*mask_.image(), all);
    }

    std::optional<double> fill() const override {
        return has_value_ && own_.frame_count() > 1 ? std::optional(fill_) : std::nullopt;
    }
    Color color() const override { return color_; }

 private:
    const ImageLook& look() const {
        return band_ < of_bands_.size() && of_bands_[band_] ? of_bands_[band_] : own_;
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
    double fill_ = 0;
    int frame_ = 0;
};

}  // namespace

bool operator==(const Image&, const Image&) = default;

std::unique_ptr<Body> make_body(const Image& image, BodyContext& context) {
    if (image.image.empty())
        context.report("image", "must be the name of a file", {}, ProblemCode::missing_key);
    if (image.slice != Insets{} && !image.mask.empty())
        context.report("mask", "must not be there where there is 'slice'", {}, ProblemCode::contradiction);
    return std::make_unique<ImageBody>(image, context);
}

const Kind& describe(const Image&) {
    static constexpr Table table{"image", fields};
    static constexpr Kind kind = kind_of<Image>(table, {.takes_image = true});
    return kind;
}

}  // namespace rapido
