// Ticks across a bar and a graph, and along a dial and a ruler.
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "rapido/base/exported.hpp"
#include "rapido/base/themed.hpp"

namespace rapido RAPIDO_EXPORTED {

/// A line at a value.
struct Tick {
    double at = 0;                     ///< the value, in its units; outside of what is shown nothing is drawn
    std::optional<float> thickness{};  ///< design pixels; without it 2, and 1.2 for a short one along a dial or a ruler
    std::optional<Themed<Color>> color{};  ///< without it, that of all ticks
    friend RAPIDO_EXPORTED bool operator==(const Tick&, const Tick&);
};

/// A text in place of the number at a value: N, E, S, W.
struct TickLabel {
    double at = 0;
    std::string text{};  ///< a pattern, see `Format`; a key into the translations
    friend RAPIDO_EXPORTED bool operator==(const TickLabel&, const TickLabel&);
};

/// Ticks at values of their own, and at equal steps from the least value on, with numbers: at the first kind, and at the long ones of the
/// second. More than 200 ticks at equal steps are not drawn, and neither are more than 60 numbers; of a tape ten times as many may be
/// on the whole of it. A bar has no numbers.
struct Ticks {
    std::vector<Tick> at{};
    double every = 0;       ///< the step between two ticks, in units of the value; zero draws none
    double long_every = 0;  ///< the step between two long ticks; zero means that none is longer
    std::string format{};   ///< a pattern for the number at each long tick, or at each tick; empty means no numbers
    std::vector<TickLabel> labels{};  ///< texts in place of numbers, where there is a tick
    float length = 6;  ///< along a dial and a ruler, of a short one, design pixels; a long one is twice as long
    float size = 12;   ///< the size of the numbers, design pixels per em
    std::optional<Themed<Color>>
        color{};  ///< without it, dark across a bar and a graph, and light along a dial and a ruler
    friend RAPIDO_EXPORTED bool operator==(const Ticks&, const Ticks&);
};

/// A part of a dial or a scale in its own color.
struct Zone {
    double from = 0;  ///< where the zone begins, in units of the value
    double to = 0;
    Themed<Color> color = rgb(0xff7a3c);
    friend RAPIDO_EXPORTED bool operator==(const Zone&, const Zone&);
};

/// A color at a value; between two values colors are interpolated.
struct ColorStop {
    double at = 0;
    Themed<Color> color{};
    friend RAPIDO_EXPORTED bool operator==(const ColorStop&, const ColorStop&);
};

}  // namespace rapido
