// Display lists, compared to the bit.
#pragma once

#include <bit>
#include <charconv>
#include <string>

#include "rapido/rapido.hpp"

namespace rapido::test {

/// All of a display list in lines, numbers by their bits: as digits, or quickly as they are.
class Words {
 public:
    std::string text;

    explicit Words(const DisplayList& list, bool as_digits = true) : as_digits_(as_digits) {
        for (const DisplayGroup& group : list.groups()) {
            line("group");
            add(group.blend, group.transform());
            for (const DisplayItem& c : group.items())
                add_command(group, c);
        }
    }

 private:
    void line(std::string_view word) { (text += '\n') += word; }
    void add() {}
    template <class First, class... Others>
    void add(const First& first, const Others&... others) {
        if constexpr (std::is_same_v<First, float>)
            add_bits(std::bit_cast<std::uint32_t>(first));
        else if constexpr (std::is_integral_v<First> || std::is_enum_v<First>)
            add_bits(static_cast<std::uint32_t>(first));
        else if constexpr (std::is_same_v<First, Color>)
            add(first.red, first.green, first.blue, first.alpha);
        else if constexpr (std::is_same_v<First, Point>)
            add(first.x, first.y);
        else if constexpr (std::is_same_v<First, Rect>)
            add(first.x, first.y, first.width, first.height);
        else
            add(first.xx, first.xy, first.yx, first.yy, first.dx, first.dy);
        add(others...);
    }
    void add_bits(std::uint32_t bits) {
        if (!as_digits_) return void(text.append(reinterpret_cast<const char*>(&bits), sizeof bits));
        std::array<char, 8> digits{};
        (text += ' ').append(digits.data(), std::to_chars(digits.data(), digits.data() + 8, bits, 16).ptr);
    }
    void add_command(const DisplayGroup& group, const DisplayItem& c) {
        line(group.text_of(c));
        add(c.kind, c.color, c.has_gradient, c.end_color, c.gradient_from, c.gradient_to, c.rect, c.clip);
        add(c.radius, c.thickness, c.font, c.size, c.baseline, c.width, c.image, c.source, c.tint.color, c.tint.part);
        add(c.outline, c.blur, c.silhouette, c.smooth, c.transform, c.has_map, c.map, c.map_from, c.map_to);
        add(c.map_softness, c.has_mask, c.mask);
        for (const Glyph& glyph : group.glyphs_of(c))
            add(glyph.id, glyph.offset, glyph.font);
        for (const Point& point : group.points_of(c))
            add(point);
    }

    bool as_digits_;
};
inline std::string words_of(const DisplayList& list) {
    return Words(list).text;
}

/// The first line that differs, of both; empty for equal lists.
inline std::string first_difference(const DisplayList& a, const DisplayList& b) {
    if (Words(a, false).text == Words(b, false).text) return {};
    const std::string one = words_of(a), other = words_of(b);
    const auto [at, there] = std::mismatch(one.begin(), one.end(), other.begin(), other.end());
    const auto line_at = [](const std::string& text, std::size_t byte) {
        const std::size_t begin = text.rfind('\n', byte);
        return text.substr(begin == std::string::npos ? 0 : begin + 1, 300);
    };
    const auto byte = static_cast<std::size_t>(at - one.begin());
    return line_at(one, byte) + "\n-- and --\n" + line_at(other, byte);
}

}  // namespace rapido::test
