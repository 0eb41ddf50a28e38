// sRGB colors, not premultiplied.
#pragma once

#include <cstdint>
#include <optional>
#include <string>
#include <string_view>

#include "rapido/base/exported.hpp"

namespace rapido RAPIDO_EXPORTED {

/// An sRGB color with straight alpha; 255 is full.
struct Color {
    std::uint8_t red = 0;
    std::uint8_t green = 0;
    std::uint8_t blue = 0;
    std::uint8_t alpha = 255;

    /// Reads `#rrggbb` or `#rrggbbaa`; anything else gives nothing.
    static std::optional<Color> parse(std::string_view text);

    friend constexpr bool operator==(const Color&, const Color&) = default;
};

/// `rgb(0x38b6c9)`; opacity from 0 to 1, limited to that range.
constexpr Color rgb(std::uint32_t rrggbb, double opacity = 1.0) {
    const double limited = opacity > 0 ? (opacity < 1 ? opacity : 1.0) : 0.0;
    return {static_cast<std::uint8_t>((rrggbb >> 16) & 0xff), static_cast<std::uint8_t>((rrggbb >> 8) & 0xff),
            static_cast<std::uint8_t>(rrggbb & 0xff), static_cast<std::uint8_t>(limited * 255 + 0.5)};
}

/// From `a` to `b` by a part of 0 to 1, premultiplied: a color that fades in does not darken on the way.
Color mix(Color a, Color b, double part);

/// Each channel of one times that of the other, as parts of 255: white and opaque changes nothing.
Color multiply(Color a, Color b);

/// `#rrggbb`, or `#rrggbbaa` where it is not opaque: what `Color::parse` reads.
std::string to_string(Color color);

}  // namespace rapido
