#include "tool/check_contrast.hpp"

#include <algorithm>
#include <cmath>

#include "base/fields.hpp"
#include "element/kinds.hpp"
#include "rapido/element/image.hpp"
#include "rapido/look/flash_limit.hpp"

namespace rapido::tool {
namespace {

/// A pixel with its color multiplied by its opacity.
struct Pixel {
    double red, green, blue, opacity;  ///< 0 to 255
    explicit Pixel(std::uint32_t argb)
        : red((argb >> 16) & 0xff), green((argb >> 8) & 0xff), blue(argb & 0xff), opacity(argb >> 24) {}
};

/// Relative luminance of an sRGB color of 0 to 255 (WCAG 2.x): linear light by a table of steps of a quarter.
double luminance(double red, double green, double blue) {
    static const std::array<double, 1021> linear = [] {
        std::array<double, 1021> table{};
        for (std::size_t i = 0; i < table.size(); ++i) {
            const double c = static_cast<double>(i) / 1020;
            table[i] = c <= 0.04045 ? c / 12.92 : std::pow((c + 0.055) / 1.055, 2.4);
        }
        return table;
    }();
    const auto of = [&](double channel) {
        return linear[static_cast<std::size_t>(std::clamp(channel, 0.0, 255.0) * 4 + 0.5)];
    };
    return 0.2126 * of(red) + 0.7152 * of(green) + 0.0722 * of(blue);
}

/// (L1 + 0.05) / (L2 + 0.05) (WCAG 2.x, "contrast ratio") of a character and what is behind it; at an opacity of the character of 0 to 255, as its
/// edges are less opaque than it is.
double contrast(const Pixel& text, double opacity, const Pixel& behind) {
    const double part = opacity / 255;
    const auto channel = [&](double color, double below) {
        return color / text.opacity * opacity + below * (1 - part);
    };
    const double first =
        luminance(channel(text.red, behind.red), channel(text.green, behind.green), channel(text.blue, behind.blue));
    const double second = luminance(behind.red, behind.green, behind.blue);
    return (std::max(first, second) + 0.05) / (std::min(first, second) + 0.05);
}

Color gray_of(double part) {
    const auto channel = static_cast<std::uint8_t>(std::lround(std::clamp(part, 0.0, 1.0) * 255));
    return {channel, channel, channel};
}

/// Text is large from 24 px on, and bold text from 18.66 px on (WCAG 2.x, "large scale"): 3 : 1 is enough for it.
double wanted_ratio(double size, int weight) {
    return size >= 24 || (size >= 18.66 && weight >= 700) ? 3 : 4.5;
}

int weight_of(const Element* element) {
    if (element == nullptr) return 400;
    WrittenElement written(*element);
    const int* const weight = written.field<int>("weight");
    return weight != nullptr ? *weight : 400;
}

bool is_plain_text(const DisplayItem& item) {
    return item.kind == DisplayItem::Kind::text && item.outline == 0 && item.blur == 0 && item.color.alpha > 0;
}

/// Whether it is fainter than it and the panels around it say: what is dimmed with its group is not in use (WCAG 1.4.3 leaves it out).
bool is_dimmed(const Shown& shown, const Places& places) {
    float own = 1;
    for (std::size_t end = shown.id.find('.'); true; end = shown.id.find('.', end + 1)) {
        const Element* const element = places.element(shown.id.substr(0, end));
        if (element != nullptr) {
            WrittenElement written(*element);
            const Amount& opacity = *written.field<Amount>("opacity");
            // What the game dims is dimmed.
            if (opacity.source() == nullptr) own *= static_cast<float>(opacity.number());
        }
        if (end == std::string_view::npos) break;
    }
    return shown.opacity < own - 0.001F;
}

/// Nearly the same, whatever its opacity is.
bool is_like(Color a, Color b) {
    return std::abs(a.red - b.red) <= 2 && std::abs(a.green - b.green) <= 2 && std::abs(a.blue - b.blue) <= 2;
}

/// Whether an image tells something, as its value, a condition or a cover changes it; others may be there for their beauty.
bool tells_something(const Element* element) {
    const std::optional<Image> image = element != nullptr ? element->as<Image>() : std::nullopt;
    return image && (image->value.is_given() || image->visible.is_given() || !image->bands.empty());
}

}  // namespace

/// What of an element is to be told from what is below it (WCAG 1.4.11): the fill of a bar from its empty part and the ground, a picture
/// from the ground.
ContrastCheck::Mark ContrastCheck::mark_of(const Hud& hud, ElementRef ref, const Places& places) {
    constexpr double least_fill = 0.03;
    const Shown shown = hud[ref];
    const bool has_fill = shown.kind == "bar" || shown.kind == "ring" || shown.kind == "level" || shown.kind == "pips";
    if (has_fill) return {shown.fill && *shown.fill > least_fill, shown.color};
    return {shown.kind == "image" && tells_something(places.element(shown.id)), std::nullopt};
}

Result<ContrastCheck::Canvas*> ContrastCheck::canvas(Size window) {
    const int width = static_cast<int>(window.width), height = static_cast<int>(window.height);
    const auto known = canvases_.find({width, height});
    if (known != canvases_.end()) return &known->second;
    const bool has_picture = !backdrop_.picture.empty();
    const auto made = [&](int wide, int high) { return Picture(wide, high, checked_.fonts, &checked_.images); };
    Canvas& canvas = canvases_
                         .emplace(std::pair(width, height), Canvas{has_picture ? made(width, height) : made(1, 1),
                                                                   made(width, height), made(width, height)})
                         .first->second;
    if (!canvas.below.status()) return canvas.below.status().problem();
    if (!canvas.alone.status()) return canvas.alone.status().problem();
    if (has_picture)
        if (const Status drawn = canvas.behind.draw_image(backdrop_.picture); !drawn) return drawn.problem();
    return &canvas;
}

/// The lowest ratio of the texts of each group, and the highest one of its marks; negative where it has none.
std::vector<ContrastCheck::Ratios> ContrastCheck::ratios(Canvas& canvas, const DisplayList& list,
                                                         const std::vector<Mark>& marks) {
    // A text is to be read as a whole; of a picture it is enough that a part of it stands out.
    constexpr double of_text = 0.05, of_fill = 0.5, of_picture = 0.75;
    std::vector<Ratios> all;
    for (std::size_t at = 0; at < list.groups().size(); ++at) {
        const DisplayGroup& group = list.groups()[at];
        Ratios& found = all.emplace_back();
        for (std::size_t i = 0; i < group.items().size(); ++i) {
            const DisplayItem& item = group.items()[i];
            const Mark mark = at < marks.size() ? marks[at] : Mark{};
            const bool is_picture = item.kind == DisplayItem::Kind::image;
            if (is_plain_text(item)) {
                if (const double ratio = ratio_of(canvas, group, i, of_text); ratio > 0)
                    found.text = found.text < 0 ? ratio : std::min(found.text, ratio);
            } else if (mark.counts && item.blur == 0 &&
                       (is_picture || !mark.color || is_like(item.color, *mark.color))) {
                found.mark = std::max(found.mark, ratio_of(canvas, group, i, is_picture ? of_picture : of_fill));
            }
            canvas.below.draw(group, i, 1);
        }
    }
    return all;
}

/// The ratio that as large a part of its pixels does not reach.
double ContrastCheck::ratio_of(Canvas& canvas, const DisplayGroup& group, std::size_t item, double part) {
    canvas.alone.clear();
    canvas.alone.draw(group, item, 1);
    const PixelRect drawn = canvas.alone.drawn();
    const std::span<const std::uint32_t> text = canvas.alone.pixels(), behind = canvas.below.pixels();
    const auto at = [&](int x, int y) {
        return static_cast<std::size_t>(y) * static_cast<std::size_t>(canvas.alone.stride()) +
               static_cast<std::size_t>(x);
    };
    std::uint32_t strongest = 0;
    for (int y = drawn.y; y < drawn.y + drawn.height; ++y)
        for (int x = drawn.x; x < drawn.x + drawn.width; ++x)
            strongest = std::max(strongest, text[at(x, y)] >> 24);
    if (strongest < 8) return -1;
    found_.clear();
    for (int y = drawn.y; y < drawn.y + drawn.height; ++y)
        for (int x = drawn.x; x < drawn.x + drawn.width; ++x)
            if (const std::uint32_t pixel = text[at(x, y)]; pixel >> 24 >= strongest / 2)
                found_.push_back(contrast(Pixel(pixel), strongest, Pixel(behind[at(x, y)])));
    if (found_.empty()) return -1;
    const auto rank = static_cast<std::ptrdiff_t>(static_cast<double>(found_.size()) * part);
    const auto at_part = found_.begin() + std::min(rank, static_cast<std::ptrdiff_t>(found_.size()) - 1);
    std::nth_element(found_.begin(), at_part, found_.end());
    return *at_part;
}

Status ContrastCheck::look(const Hud& hud, const Places& places, const Circumstances& seen, Findings& findings) {
    constexpr int grays = 5;
    DisplayList list;
    hud.draw(list);
    const Result<Canvas*> found = canvas(seen.window);
    if (!found) return found.problems().front();
    Canvas& canvas = **found;
    const bool has_picture = !backdrop_.picture.empty();
    const auto [darkest, brightest] = backdrop_.gray;
    const bool is_one = has_picture || darkest == brightest;
    const std::vector<ElementRef> order = hud.draw_order();
    std::vector<Mark> marks;
    for (const ElementRef ref : order)
        marks.push_back(mark_of(hud, ref, places));
    std::vector<Lowest> texts(list.groups().size()), lowest_marks(list.groups().size());
    for (int i = 0; i < (is_one ? 1 : grays); ++i) {
        const double part = is_one ? darkest : darkest + (brightest - darkest) * i / (grays - 1);
        canvas.below.fill(gray_of(part));
        if (has_picture) canvas.below.draw(canvas.behind, {0, 0, seen.window.width, seen.window.height});
        const std::vector<Ratios> now = ratios(canvas, list, marks);
        for (std::size_t group = 0; group < now.size(); ++group) {
            texts[group].take(now[group].text, part);
            lowest_marks[group].take(now[group].mark, part);
        }
    }
    const auto rounded = [](double ratio) { return plain_number(std::floor(ratio * 100) / 100); };
    for (std::size_t i = 0; i < texts.size() && i < order.size(); ++i) {
        const Shown shown = hud[order[i]];
        const std::string path(shown.id);
        if (is_dimmed(shown, places)) continue;
        const auto report = [&](const Lowest& lowest, double wanted, const std::string& criterion,
                                const std::string& hint) {
            if (lowest.ratio < 0 || lowest.ratio >= wanted - 0.005) return;
            const std::string behind =
                has_picture ? "the picture" : "a background of " + to_string(gray_of(lowest.over));
            Finding finding{{places.of(path, "color"),
                             Places::name(shown) + " has a contrast of " + rounded(lowest.ratio) + " : 1 over " +
                                 behind + "; " + rounded(wanted) + " : 1 is asked for (WCAG " + criterion + ")",
                             hint, ProblemCode::low_contrast, Severity::warning},
                            path,
                            seen,
                            lowest.ratio,
                            wanted};
            findings.add("contrast " + criterion + places.first_of(path), std::move(finding), wanted / lowest.ratio);
        };
        report(lowest_marks[i], 3, "1.4.11",
               shown.kind == "image" ? "give it an outline, a shadow or a plate"
                                     : "let its color and its background differ more, or give it a border");
        double size = 0;
        for (const DisplayItem& item : list.groups()[i].items())
            if (is_plain_text(item)) size = std::max(size, static_cast<double>(item.size));
        report(texts[i], wanted_ratio(size, weight_of(places.element(path))), "1.4.3",
               "give it an outline, a shadow or a plate");
    }
    return {};
}

}  // namespace rapido::tool
