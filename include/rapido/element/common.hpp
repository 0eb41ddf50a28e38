// What several kinds of element share.
#pragma once

#include <cstdint>

#include "rapido/base/color.hpp"
#include "rapido/draw/shape.hpp"

namespace rapido {

/// What happens to an element when its source has no value any more: an enemy dies, a level unloads.
enum class WhenNoValue : std::uint8_t {
    placeholder,  ///< it stays, with its placeholder
    hide,         ///< it is hidden until there is a value again
    remove,       ///< it is removed when the value that it had is gone
};

/// A line across a bar, a scale or a graph at a value.
struct Tick {
    double at = 0;        ///< the value, in its units; outside of what is shown nothing is drawn
    float thickness = 2;  ///< design pixels
    Color color = rgb(0x10161c, 0.7);
    friend bool operator==(const Tick&, const Tick&) = default;
};

/// A range from `low` to `high`. Equal bounds mean that no range is declared.
struct Limits {
    double low = 0;
    double high = 0;
    friend bool operator==(const Limits&, const Limits&) = default;
};

}  // namespace rapido
