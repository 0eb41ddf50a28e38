// The marks along a dial and a scale.
#pragma once

#include <string>
#include <vector>

#include "rapido/base/themed.hpp"

namespace rapido {

/// A text in place of the number at a value: N, E, S, W.
struct MarkLabel {
    double at = 0;
    std::string text{};  ///< a pattern, see `Format`; a key into the translations
    friend bool operator==(const MarkLabel&, const MarkLabel&) = default;
};

/// Marks at equal steps from the least value on, and numbers at the long ones. More than 200 marks are not drawn, and neither are
/// more than 60 numbers; of a tape ten times as many may be on the whole of it.
struct ScaleMarks {
    double every = 0;       ///< the step between two marks, in units of the value; zero draws none
    double long_every = 0;  ///< the step between two long marks; zero means that none is longer
    std::string format{};   ///< a pattern for the number at each long mark, or at each mark; empty means no numbers
    std::vector<MarkLabel> labels{};  ///< texts in place of numbers, where there is a mark
    float length = 6;                 ///< the length of a short mark, design pixels; a long one is twice as long
    float size = 12;                  ///< the size of the numbers, design pixels per em
    Themed<Color> color = rgb(0xf2efe6, 0.7);
    friend bool operator==(const ScaleMarks&, const ScaleMarks&) = default;
};

/// A part of a dial or a scale in its own color.
struct Zone {
    double from = 0;  ///< where the zone begins, in units of the value
    double to = 0;
    Themed<Color> color = rgb(0xff7a3c);
    friend bool operator==(const Zone&, const Zone&) = default;
};

/// A color at a value; between two values colors are interpolated.
struct ColorStop {
    double at = 0;
    Themed<Color> color{};
    friend bool operator==(const ColorStop&, const ColorStop&) = default;
};

}  // namespace rapido
