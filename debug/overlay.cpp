// The debug overlay: boxes, ids, and the explanation of what lies under a point.
#include <algorithm>
#include <array>
#include <cmath>

#include "hud/state.hpp"
#include "rapido/debug.hpp"

namespace rapido {
namespace {

constexpr Color leaf_color = rgb(0x38b6c9, 0.9), panel_color = rgb(0xffc24a, 0.45), chosen_color = rgb(0xff7a3c);
constexpr Color plate_color = rgb(0x10161c, 0.85), ink = rgb(0xf2efe6), dim_ink = rgb(0xf2efe6, 0.7);
constexpr float id_size = 9, text_size = 13;

/// Draws texts in a font that can be read at a small size; in that of the HUD, which may be of pixels or of letters as in an old book, only where
/// there is no other.
class Writer {
 public:
    Writer(const Parts& hud, DisplayGroup& into) : into_(into), measurer_(*hud.layouter.measurer()) {
        font_ = measurer_.find("sans-serif", 500);
        if (!font_) font_ = measurer_.find(hud.languages.font(hud.settings.language.get()), 500);
    }
    explicit operator bool() const { return font_.has_value(); }

    float width_of(std::string_view text, float size) { return measurer_.shape(*font_, size, text, glyphs_); }
    /// At the upper left corner of a line.
    void write(std::string_view text, float size, Point at, Color color) {
        const float width = width_of(text, size);
        const float baseline = at.y + measurer_.metrics(*font_).ascent * size;
        into_.text(*font_, size, {at.x, baseline}, width, color, text, glyphs_, 1);
    }

 private:
    DisplayGroup& into_;
    TextMeasurer& measurer_;
    std::optional<FontId> font_;
    std::vector<Glyph> glyphs_;
};

void draw_outline(std::span<const Point> corners, Color color, float thickness, DisplayGroup& into) {
    std::array<Point, 5> line;
    std::copy(corners.begin(), corners.end(), line.begin());
    line.back() = line.front();
    into.line(line, thickness, color);
}

void draw_id(const RunningElement& element, Point corner, Writer& writer, DisplayGroup& into) {
    const std::string id(element.id());
    const float width = writer.width_of(id, id_size);
    // On the upper edge, so that what the element shows is seen below it.
    const float top = corner.y - id_size;
    into.rect({corner.x, top, width + 4, id_size + 2}, 0, rgb(0x10161c, 0.7));
    writer.write(id, id_size, {corner.x + 2, top}, dim_ink);
}

/// In the half of the screen in which the point is not.
void draw_explanation(const Explanation& explanation, const Fitted& screen, Point point, Writer& writer,
                      DisplayGroup& into) {
    const std::string text = explanation.text();
    std::vector<std::string_view> lines;
    for (std::string_view rest = text; !rest.empty();) {
        lines.push_back(rest.substr(0, rest.find('\n')));
        rest.remove_prefix(std::min(rest.size(), lines.back().size() + 1));
    }
    // What a line says stands behind its part, in line with the others.
    constexpr std::size_t part_bytes = 13;
    constexpr float indent = 84, line_height = text_size * 1.35F, padding = 10;
    float width = 0;
    for (const std::string_view line : lines)
        width = std::max(width, line.starts_with("  ") ? indent + writer.width_of(line.substr(part_bytes), text_size)
                                                       : writer.width_of(line, text_size));
    const Size size{width + 2 * padding, static_cast<float>(lines.size()) * line_height + 2 * padding};
    const Size device{screen.size.width * screen.scale, screen.size.height * screen.scale};
    const float left = std::clamp(point.x + 16, screen.origin.x + 4,
                                  std::max(screen.origin.x + 4, screen.origin.x + device.width - size.width - 4));
    const bool is_above = point.y > screen.origin.y + device.height / 2;
    const float top = is_above ? std::max(screen.origin.y + 4, point.y - size.height - 16) : point.y + 16;
    into.rect({left, top, size.width, size.height}, 4, plate_color);
    into.border({left, top, size.width, size.height}, 4, 1, chosen_color);
    Point at{left + padding, top + padding};
    for (const std::string_view line : lines) {
        if (line.starts_with("  ")) {
            writer.write(line.substr(2, line.find(' ', 2) - 2), text_size, at, chosen_color);
            writer.write(line.substr(part_bytes), text_size, {at.x + indent, at.y}, ink);
        } else {
            writer.write(line, text_size, at, ink);
        }
        at.y += line_height;
    }
}

}  // namespace

void draw_overlay(const Hud& of, DisplayList& list, std::optional<Point> point) {
    const Parts& hud = detail::HudAccess::of(of);
    DisplayGroup& into = detail::HudAccess::only_group(list, hud.layouter.viewport());
    if (hud.layouter.measurer() == nullptr) return;
    Writer writer(hud, into);
    const ElementIndex chosen = point ? hud.element_under(*point) : no_element;
    for (const ElementIndex index : hud.elements.draw_order()) {
        if (!hud.visibility.is_drawn(index) || !hud.layouter.is_placed(index)) continue;
        const std::array<Point, 4> corners = hud.corners(index);
        const bool is_leaf = hud.elements.children(index).empty();
        draw_outline(corners,
                     index == chosen ? chosen_color
                     : is_leaf       ? leaf_color
                                     : panel_color,
                     index == chosen ? 2.0F : 1.0F, into);
        if (is_leaf && writer) draw_id(hud.elements[index], corners[0], writer, into);
    }
    if (chosen == no_element || !writer) return;
    draw_explanation(explain(of, hud.elements.ref(chosen)), hud.layouter.screen(), *point, writer, into);
}

}  // namespace rapido
