#include "tool/check_contrast.hpp"

#include <algorithm>
#include <cmath>

#include "base/fields.hpp"
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
    const double first = luminance(channel(text.red, behind.red), channel(text.green, behind.green),
                                   channel(text.blue, behind.blue));
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
    return std::visit(
        [](const auto& any) {
            if constexpr (requires { any.weight; })
                return any.weight;
            else
                return 400;
        },
        *element);
}

bool is_plain_text(const DrawCommand& command) {
    return command.kind == DrawCommand::Kind::text && command.outline == 0 && command.blur == 0 &&
           command.color.alpha > 0;
}

/// Whether it is fainter than it and the panels around it say: what is dimmed with its group is not in use (WCAG 1.4.3 leaves it out).
bool is_dimmed(const Shown& shown, const Places& places) {
    float own = 1;
    for (std::size_t end = shown.id.find('.'); true; end = shown.id.find('.', end + 1)) {
        const Element* const element = places.element(shown.id.substr(0, end));
        if (element != nullptr) own *= std::visit([](const auto& any) { return any.opacity; }, *element);
        if (end == std::string_view::npos) break;
    }
    return shown.opacity < own - 0.001F;
}

}  // namespace

Result<ContrastCheck::Canvas*> ContrastCheck::canvas(Size window) {
    const int width = static_cast<int>(window.width), height = static_cast<int>(window.height);
    const auto known = canvases_.find({width, height});
    if (known != canvases_.end()) return &known->second;
    const bool has_picture = !backdrop_.picture.empty();
    const auto made = [&](int wide, int high) {
        return Picture(wide, high, checked_.fonts, &checked_.images);
    };
    Canvas& canvas =
        canvases_
            .emplace(std::pair(width, height), Canvas{has_picture ? made(width, height) : made(1, 1),
                                                      made(width, height), made(width, height)})
            .first->second;
    if (!canvas.below.status()) return canvas.below.status().problem();
    if (!canvas.alone.status()) return canvas.alone.status().problem();
    if (has_picture)
        if (const Status drawn = canvas.behind.draw_image(backdrop_.picture); !drawn) return drawn.problem();
    return &canvas;
}

/// The lowest ratio of the texts of each group; negative where it has none.
std::vector<double> ContrastCheck::ratios(Canvas& canvas, const DrawList& list) {
    std::vector<double> all;
    for (const DrawGroup& group : list.groups()) {
        double lowest = -1;
        for (std::size_t i = 0; i < group.commands().size(); ++i) {
            if (is_plain_text(group.commands()[i]))
                if (const double ratio = ratio_of(canvas, group, i); ratio > 0)
                    lowest = lowest < 0 ? ratio : std::min(lowest, ratio);
            canvas.below.draw(group, i, 1);
        }
        all.push_back(lowest);
    }
    return all;
}

double ContrastCheck::ratio_of(Canvas& canvas, const DrawGroup& group, std::size_t command) {
    canvas.alone.clear();
    canvas.alone.draw(group, command, 1);
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
    const auto fifth = found_.begin() + static_cast<std::ptrdiff_t>(found_.size() / 20);
    std::nth_element(found_.begin(), fifth, found_.end());
    return *fifth;
}

Status ContrastCheck::look(const Hud& hud, const Places& places, const Circumstances& seen,
                           Findings& findings) {
    constexpr int grays = 5;
    DrawList list;
    hud.draw(list);
    const Result<Canvas*> found = canvas(seen.window);
    if (!found) return found.problems().front();
    Canvas& canvas = **found;
    const bool has_picture = !backdrop_.picture.empty();
    const auto [darkest, brightest] = backdrop_.gray;
    const bool is_one = has_picture || darkest == brightest;
    std::vector<double> lowest(list.groups().size(), -1), lowest_over(list.groups().size(), 0);
    for (int i = 0; i < (is_one ? 1 : grays); ++i) {
        const double part = is_one ? darkest : darkest + (brightest - darkest) * i / (grays - 1);
        canvas.below.fill(gray_of(part));
        if (has_picture) canvas.below.draw(canvas.behind, {0, 0, seen.window.width, seen.window.height});
        const std::vector<double> now = ratios(canvas, list);
        for (std::size_t group = 0; group < now.size(); ++group)
            if (now[group] > 0 && (lowest[group] < 0 || now[group] < lowest[group])) {
                lowest[group] = now[group];
                lowest_over[group] = part;
            }
    }
    const std::vector<ElementRef> order = hud.draw_order();
    for (std::size_t i = 0; i < lowest.size() && i < order.size(); ++i) {
        if (lowest[i] < 0) continue;
        const Shown shown = hud[order[i]];
        const std::string path(shown.id);
        double size = 0;
        for (const DrawCommand& command : list.groups()[i].commands())
            if (is_plain_text(command)) size = std::max(size, static_cast<double>(command.size));
        const double wanted = wanted_ratio(size, weight_of(places.element(path)));
        if (lowest[i] >= wanted - 0.005 || is_dimmed(shown, places)) continue;
        const auto rounded = [](double ratio) { return plain_number(std::floor(ratio * 100) / 100); };
        const std::string behind =
            has_picture ? "the picture" : "a background of " + to_string(gray_of(lowest_over[i]));
        Finding finding{
            {places.of(path, "color"),
             Places::name(shown) + " has a contrast of " + rounded(lowest[i]) + " : 1 over " + behind + "; " +
                 rounded(wanted) + " : 1 is asked for (WCAG 1.4.3)",
             "give it an outline, a shadow or a plate", ProblemCode::low_contrast, Severity::warning},
            path,
            seen,
            lowest[i],
            wanted};
        findings.add("contrast " + path, std::move(finding), wanted / lowest[i]);
    }
    return {};
}

}  // namespace rapido::tool
