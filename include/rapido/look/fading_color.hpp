// A color on its way to another one.
#pragma once

#include <optional>

#include "rapido/base/color.hpp"
#include "rapido/base/units.hpp"
#include "rapido/look/flash_limit.hpp"

namespace rapido {

/// Changes at even speed, as a function of time; a change in mid-flight begins at the color of that moment. Moments
/// must not go back. With a limit of flashes, a change back within a second of a change that `is_flash_change` asks it;
/// one that is held back comes when the limit has room.
class FadingColor {
 public:
    explicit FadingColor(Color color) : from_(color), to_(color) {}

    void set(Color color, Nanoseconds now, Seconds fade, FlashLimit* limit = nullptr);
    /// Lets time pass: what was held back may come now.
    void advance(Nanoseconds now);
    /// Valid up to the last `advance` or `set`.
    Color at(Nanoseconds now) const;
    /// Where it goes, at once or when the limit lets it.
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
    Nanoseconds end_{Nanoseconds::min()};
};

}  // namespace rapido
