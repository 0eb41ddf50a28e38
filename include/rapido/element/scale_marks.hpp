// The marks along a dial and a scale.
#pragma once

#include <string>
#include <vector>

#include "rapido/base/color.hpp"

namespace rapido {

/// Marks at even steps from the least value on, and numbers at the long ones. More than 200 marks are not drawn, and no
/// numbers where there would be more than 60.
struct ScaleMarks {
    double every = 0;       ///< in units of the value; zero draws none
    double long_every = 0;  ///< the long ones; zero: none is longer
    std::string format{};   ///< a pattern for the number at each long one, or at each; empty: no numbers
    float length = 6;       ///< design pixels; of a long one twice as much
    float size = 12;        ///< of the numbers, design pixels per em
    Color color = rgb(0xf2efe6, 0.7);
    friend bool operator==(const ScaleMarks&, const ScaleMarks&) = default;
};

/// A part of a dial or a scale in its own color.
struct Zone {
    double from = 0;  ///< in units of the value
    double to = 0;
    Color color = rgb(0xff7a3c);
    friend bool operator==(const Zone&, const Zone&) = default;
};

/// A color at a value; between two values colors are interpolated.
struct ColorStop {
    double at = 0;
    Color color{};
    friend bool operator==(const ColorStop&, const ColorStop&) = default;
};

}  // namespace rapido
