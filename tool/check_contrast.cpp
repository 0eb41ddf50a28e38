#include "tool/check_contrast.hpp"

#include <algorithm>
#include <cmath>

#include "base/fields.hpp"
#include "rapido/look/flash_limit.hpp"

namespace rapido::tool {
namespace {

/// (L1 + 0.05) / (L2 + 0.05), of opaque colors (WCAG 2.x, "contrast ratio").
double contrast(Color a, Color b) {
    const double first = relative_luminance(a), second = relative_luminance(b);
    return (std::max(first, second) + 0.05) / (std::min(first, second) + 0.05);
}

/// A color put over an opaque one.
Color over(Color color, Color below) {
    const double part = color.alpha / 255.0;
    const auto channel = [&](std::uint8_t a, std::uint8_t b) {
        return static_cast<std::uint8_t>(std::lround(a * part + b * (1 - part)));
    };
    return {channel(color.red, below.red), channel(color.green, below.green),
            channel(color.blue, below.blue)};
}

Color grey_of(double part) {
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

class ContrastChecker {
 public:
    ContrastChecker(const Checked& checked, Size window)
        : below_(static_cast<int>(window.width), static_cast<int>(window.height), checked.fonts,
                 &checked.images),
          alone_(static_cast<int>(window.width), static_cast<int>(window.height), checked.fonts,
                 &checked.images) {}

    Picture& below() { return below_; }

    /// The lowest ratio of the texts of each group; negative where it has none.
    std::vector<double> ratios(const DrawList& list) {
        std::vector<double> all;
        for (const DrawGroup& group : list.groups()) {
            double lowest = -1;
            for (std::size_t i = 0; i < group.commands().size(); ++i) {
                if (is_plain_text(group.commands()[i]))
                    if (const double ratio = ratio_of(group, i); ratio > 0)
                        lowest = lowest < 0 ? ratio : std::min(lowest, ratio);
                below_.draw(group, i, 1);
            }
            all.push_back(lowest);
        }
        return all;
    }

 private:
    double ratio_of(const DrawGroup& group, std::size_t command) {
        alone_.clear();
        alone_.draw(group, command, 1);
        const PixelRect drawn = alone_.drawn();
        std::uint8_t strongest = 0;
        for (int y = drawn.y; y < drawn.y + drawn.height; ++y)
            for (int x = drawn.x; x < drawn.x + drawn.width; ++x)
                strongest = std::max(strongest, alone_.pixel(x, y).alpha);
        if (strongest < 8) return -1;
        found_.clear();
        for (int y = drawn.y; y < drawn.y + drawn.height; ++y)
            for (int x = drawn.x; x < drawn.x + drawn.width; ++x) {
                Color color = alone_.pixel(x, y);
                if (color.alpha < strongest / 2) continue;  // the soft edge of a character
                color.alpha = strongest;
                Color behind = below_.pixel(x, y);
                behind.alpha = 255;
                found_.push_back(contrast(over(color, behind), behind));
            }
        if (found_.empty()) return -1;
        const auto fifth = found_.begin() + static_cast<std::ptrdiff_t>(found_.size() / 20);
        std::nth_element(found_.begin(), fifth, found_.end());
        return *fifth;
    }

    Picture below_, alone_;
    std::vector<double> found_;
};

}  // namespace

Status check_contrast(Stage& stage, const Checked& checked, const Places& places, const Circumstances& seen,
                      const Backdrop& backdrop, Findings& findings) {
    constexpr int greys = 5;
    const Hud& hud = stage.hud();
    DrawList list;
    hud.draw(list);
    ContrastChecker checker(checked, seen.window);
    if (!checker.below().status()) return checker.below().status();
    const bool has_picture = !backdrop.picture.empty();
    const bool is_one = has_picture || backdrop.grey[0] == backdrop.grey[1];
    std::vector<double> lowest;
    std::vector<double> lowest_over;
    for (int i = 0; i < (is_one ? 1 : greys); ++i) {
        const double part =
            is_one ? backdrop.grey[0] : backdrop.grey[0] + (backdrop.grey[1] - backdrop.grey[0]) * i / (greys - 1);
        checker.below().fill(grey_of(part));
        if (has_picture)
            if (Status drawn = checker.below().draw_image(backdrop.picture); !drawn) return drawn;
        const std::vector<double> ratios = checker.ratios(list);
        lowest.resize(ratios.size(), -1);
        lowest_over.resize(ratios.size(), 0);
        for (std::size_t group = 0; group < ratios.size(); ++group)
            if (ratios[group] > 0 && (lowest[group] < 0 || ratios[group] < lowest[group])) {
                lowest[group] = ratios[group];
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
            has_picture ? "the picture"
                        : "a background of " + to_string(grey_of(lowest_over[i]));
        Finding finding{{places.of(path, "color"),
                         Places::name(shown) + " has a contrast of " + rounded(lowest[i]) + " : 1 over " +
                             behind + "; " + rounded(wanted) + " : 1 is asked for (WCAG 1.4.3)",
                         "give it an outline, a shadow or a plate", ProblemCode::low_contrast,
                         Severity::warning},
                        path,
                        seen,
                        lowest[i],
                        wanted};
        findings.add("contrast " + path, std::move(finding), wanted / lowest[i]);
    }
    return {};
}

}  // namespace rapido::tool
