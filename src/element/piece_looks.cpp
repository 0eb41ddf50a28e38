#include "element/piece_looks.hpp"

#include <algorithm>
#include <cmath>

#include "rapido/element/text_style.hpp"

namespace rapido {

std::optional<FontId> find_font(const std::string& family, int weight, bool italic, BodyContext& context) {
    if (context.measurer == nullptr) return std::nullopt;
    if (!family.empty()) {
        if (const std::optional<FontId> font = context.measurer->find(family, weight, italic)) return font;
        context.warn("font", "no font family '" + family + "' is installed; another one stands for it", {},
                     ProblemCode::missing_font);
    }
    // Whether the HUD's own family is there is said once, where the HUD names it.
    const std::optional<FontId> font = context.measurer->find(context.font, weight, italic);
    return font ? font : context.measurer->find("sans-serif", weight, italic);
}

void PieceLooks::find(const Format& format, const Around& around, std::string_view field, BodyContext& context) {
    for (const Format::PieceUse& use : format.piece_uses()) {
        if (look({0, 0, use.name, use.is_image}) != nullptr) continue;
        if (use.is_image) {
            known_.push_back(
                {std::string(use.name), true, picture_of(std::string(use.name), around, field, context), {}});
            continue;
        }
        Known& known = known_.emplace_back(Known{std::string(use.name), false, {}, {}});
        PieceLook& made = known.look;
        Problem problem;
        const TextStyle* const style = context.find_style ? context.find_style(use.name, problem) : nullptr;
        if (style == nullptr) {
            context.report(field, problem.message, problem.hint, problem.code);
            known_.pop_back();
            continue;
        }
        if (style->color) made.color = style->color->value();
        made.size = style->size.value_or(around.size) * context.text_scale;
        made.font = find_font(style->font ? style->font->value() : around.family, style->weight.value_or(around.weight),
                              style->italic.value_or(around.italic), context);
    }
}

PieceLook PieceLooks::picture_of(const std::string& name, const Around& around, std::string_view field,
                                 BodyContext& context) {
    PieceLook made;
    made.size = around.size * context.text_scale;
    made.is_image = true;
    if (context.images == nullptr) return made;
    const std::string file = name.find('.') == std::string::npos ? name + ".png" : name;
    const Result<ImageId> image = context.images->find(file);
    if (image) {
        made.image = *image;
        made.image_size = context.images->size(*image);
    } else {
        context.warn(field, "'" + file + "' " + image.problems().front().message, image.problems().front().hint,
                     ProblemCode::missing_image);
    }
    return made;
}

void PieceLooks::add_choice(const InlineImage& picture, const Around& around, BodyContext& context) {
    Known known{picture.name, true, {}, {}};
    for (const std::string& image : picture.images)
        known.choices.push_back(picture_of(image, around, "inline_images", context));
    known.look.is_image = true;
    if (!picture.image.empty()) {
        known.look.is_none = picture.image.name().empty();
        if (!known.look.is_none) known.look = picture_of(picture.image.name(), around, "inline_images", context);
        if (!picture.images.empty())
            context.report("inline_images", "of '" + picture.name + "' has both 'image' and 'images'", {},
                           ProblemCode::contradiction);
        known_.push_back(std::move(known));
        return;
    }
    if (known.choices.empty())
        context.report("inline_images", "of '" + picture.name + "' has no images", {}, ProblemCode::missing_key);
    else
        known.look = known.choices.front();
    known_.push_back(std::move(known));
}

bool PieceLooks::choose(std::string_view name, double number) {
    for (Known& known : known_) {
        if (known.name != name || known.choices.empty()) continue;
        const auto last = static_cast<double>(known.choices.size() - 1);
        const std::size_t at = number >= 0 ? static_cast<std::size_t>(std::min(std::floor(number), last)) : 0;
        if (known.look.image == known.choices[at].image) return false;
        known.look = known.choices[at];
        return true;
    }
    return false;
}

const PieceLook* PieceLooks::look(const TextPiece& piece) const {
    const auto found = std::find_if(known_.begin(), known_.end(), [&](const Known& known) {
        return known.is_image == piece.is_image && known.name == piece.name;
    });
    return found != known_.end() ? &found->look : nullptr;
}

}  // namespace rapido
