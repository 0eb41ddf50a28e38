// A color that fades to another one.
#pragma once

#include <optional>

#include "rapido/base/color.hpp"
#include "rapido/base/units.hpp"
#include "rapido/look/flash_limit.hpp"

namespace rapido {

/// Fades linearly to a new color, as a function of time. A change in mid-fade starts from the color of that moment. Times
/// that are passed in must not decrease. With a flash limit, a change back within a second of a flash-like change
/// (`is_flash_change`) asks the limit first; if it is refused, it happens when the limit has room.
class FadingColor {
 public:
    explicit FadingColor(Color color) : from_(color), to_(color) {}

    void set(Color color, Nanoseconds now, Seconds fade, FlashLimit* limit = nullptr);
    /// Lets time pass up to `now`: a change that was refused may happen now.
    void advance(Nanoseconds now);
    /// Returns the color at a time not after that of the last `advance` or `set`.
    Color at(Nanoseconds now) const;
    /// The color that it fades to, or will when the limit has room.
    Color target() const { return held_ ? held_->color : to_; }
    bool resting(Nanoseconds now) const { return now >= end_ && !held_; }

 private:
    struct Held {
        Color color;
        Seconds fade{0};
        Nanoseconds until{0};
        FlashLimit* limit = nullptr;
    };
    void begin(Color color, Nanoseconds now, Seconds fade);
    bool completes_flash(Color color, Nanoseconds now) const;

    Color from_;
    Color to_;
    std::optional<Color> before_;  ///< what it came from, where that was half a flash
    std::optional<Held> held_;
    Nanoseconds start_{0};
    Nanoseconds end_{(Nanoseconds::min)()};
};

}  // namespace rapido
