#include "rapido/base/color.hpp"

#include <array>
#include <charconv>

namespace rapido {

std::optional<Color> Color::parse(std::string_view text) {
    if ((text.size() != 7 && text.size() != 9) || text[0] != '#') return std::nullopt;
    std::array<std::uint8_t, 4> channels{0, 0, 0, 255};
    for (std::size_t at = 1; at < text.size(); at += 2) {
        unsigned channel = 0;
        const auto [end, error] = std::from_chars(text.data() + at, text.data() + at + 2, channel, 16);
        if (error != std::errc{} || end != text.data() + at + 2) return std::nullopt;
        channels[(at - 1) / 2] = static_cast<std::uint8_t>(channel);
    }
    return Color{channels[0], channels[1], channels[2], channels[3]};
}

Color mix(Color a, Color b, double part) {
    if (!(part > 0)) return a;
    if (part >= 1) return b;
    const double alpha = a.alpha + (b.alpha - a.alpha) * part;
    if (alpha <= 0) return {b.red, b.green, b.blue, 0};
    const auto channel = [&](std::uint8_t from, std::uint8_t to) {
        const double mixed = from * a.alpha * (1 - part) + to * b.alpha * part;
        return static_cast<std::uint8_t>(mixed / alpha + 0.5);
    };
    return {channel(a.red, b.red), channel(a.green, b.green), channel(a.blue, b.blue),
            static_cast<std::uint8_t>(alpha + 0.5)};
}

Color multiply(Color a, Color b) {
    const auto channel = [](std::uint8_t x, std::uint8_t y) {
        return static_cast<std::uint8_t>((static_cast<unsigned>(x) * y + 127) / 255);
    };
    return {channel(a.red, b.red), channel(a.green, b.green), channel(a.blue, b.blue), channel(a.alpha, b.alpha)};
}

std::string to_string(Color color) {
    constexpr std::string_view digits = "0123456789abcdef";
    std::string text = "#";
    const auto append = [&](std::uint8_t channel) {
        text += digits[channel >> 4];
        text += digits[channel & 15];
    };
    append(color.red);
    append(color.green);
    append(color.blue);
    if (color.alpha != 255) append(color.alpha);
    return text;
}

}  // namespace rapido
