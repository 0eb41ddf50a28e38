// A color that fades to another one.
#pragma once

#include <optional>

#include "rapido/base/color.hpp"
#include "rapido/base/exported.hpp"
#include "rapido/base/units.hpp"
#include "rapido/look/flash_limit.hpp"

namespace rapido RAPIDO_EXPORTED {

/// Fades linearly to a new color, as a function of time. A change in mid-fade starts from the color of that moment. Times
/// that are passed in must not decrease. With a flash limit, a change back within a second of a flash-like change
/// (`is_flash_change`) asks the limit first; if it is refused, it happens when the limit has room. The first change never waits.
class FadingColor {
 public:
    explicit FadingColor(Color color) : from_(color), to_(color) {}

    /// `where` is what has the color: of any size, if nothing else is said. `ahead` is how far the real clock, by which flashes are counted,
    /// is ahead of the one of `now`.
    void set(Color color, Nanoseconds now, Seconds fade, FlashLimit* limit = nullptr, const FlashPart& where = {},
             Nanoseconds ahead = Nanoseconds{0});
    /// Whether a change to a color now would be the second half of a flash.
    bool completes_flash(Color color, Nanoseconds now) const;
    /// Lets time pass up to `now`: a change that was refused may happen now.
    void advance(Nanoseconds now, Nanoseconds ahead = Nanoseconds{0});
    /// Returns the color at a time not after that of the last `advance` or `set`.
    Color at(Nanoseconds now) const;
    /// The color that it fades to, or will when the limit has room.
    Color target() const { return held_ ? held_->color : to_; }
    bool resting(Nanoseconds now) const { return now >= end_ && !held_; }
    /// Whether the limit holds a change back.
    bool is_limited() const { return held_.has_value(); }

 private:
    struct Held {
        Color color;
        Seconds fade{0};
        Flash flash;  ///< when, on the real clock, and where
        FlashLimit* limit = nullptr;
    };
    void begin(Color color, Nanoseconds now, Seconds fade);

    Color from_;
    Color to_;
    std::optional<Color> before_;  ///< what it came from, where that was half a flash
    std::optional<Held> held_;
    Nanoseconds start_{0};
    Nanoseconds end_{(Nanoseconds::min)()};
};

}  // namespace rapido
