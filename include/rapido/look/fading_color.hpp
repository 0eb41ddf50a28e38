// A color on its way to another one.
#pragma once

#include "rapido/base/color.hpp"
#include "rapido/base/units.hpp"

namespace rapido {

/// Changes at even speed, as a function of time; a change in mid-flight begins at the color of that moment. Moments
/// must not go back.
class FadingColor {
 public:
    explicit FadingColor(Color color) : from_(color), to_(color) {}

    void set(Color color, Nanoseconds now, Seconds fade);
    Color at(Nanoseconds now) const;
    Color target() const { return to_; }
    bool resting(Nanoseconds now) const { return now >= end_; }

 private:
    Color from_;
    Color to_;
    Nanoseconds start_{0};
    Nanoseconds end_{Nanoseconds::min()};
};

}  // namespace rapido
