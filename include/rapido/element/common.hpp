// What several kinds of element share.
#pragma once

#include <cstdint>

#include "rapido/base/exported.hpp"
#include "rapido/base/themed.hpp"
#include "rapido/base/units.hpp"
#include "rapido/draw/shape.hpp"
#include "rapido/value/amount.hpp"

namespace rapido RAPIDO_EXPORTED {

/// What happens to an element when its source has no value any more: an enemy dies, a level unloads.
enum class WhenNoValue : std::uint8_t {
    placeholder,  ///< it stays, with its placeholder
    hide,         ///< it is hidden until there is a value again
    remove,       ///< it is removed when the value that it had is gone
};

/// How far something is drawn from where it stands, design pixels to the right and down: `{12, watch(height)}`.
struct Shift {
    Amount x{}, y{};
    friend bool operator==(const Shift&, const Shift&) = default;
};

/// A line around the characters of a text, outside of them and below them.
struct Outline {
    float width = 2;  ///< design pixels
    Themed<Color> color = rgb(0x10161c);
    friend RAPIDO_EXPORTED bool operator==(const Outline&, const Outline&);
};

/// The shadow of a text or a plate, below it.
struct Shadow {
    Point offset{0, 2};  ///< design pixels to the right and down
    float blur = 4;      ///< as in CSS: its edge is soft over twice this distance; zero is a sharp edge
    Themed<Color> color = rgb(0x000000, 0.6);
    friend RAPIDO_EXPORTED bool operator==(const Shadow&, const Shadow&);
};

/// A soft light around all that an element draws, below it.
struct Glow {
    float radius = 12;   ///< how far it reaches, in design pixels
    float strength = 1;  ///< 0 to 1, on top of the opacity of its color
    Themed<Color> color = rgb(0xffc24a);
    friend RAPIDO_EXPORTED bool operator==(const Glow&, const Glow&);
};

/// A range from `low` to `high`. Equal bounds mean that no range is declared.
struct Limits {
    double low = 0;
    double high = 0;
    friend bool operator==(const Limits&, const Limits&) = default;
};

}  // namespace rapido
