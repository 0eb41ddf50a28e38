// Units and geometry. Design pixels in descriptions and layout, device pixels in a draw list; y grows
// downwards.
#pragma once

#include <algorithm>
#include <chrono>
#include <cstdint>

namespace rapido {

/// A length of time in seconds. Every std::chrono literal converts: `600ms`, `0.5s`.
using Seconds = std::chrono::duration<double>;

/// An instant or a length on a clock of a HUD: whole nanoseconds since the clock began.
using Nanoseconds = std::chrono::nanoseconds;

/// Rounds to the nearest nanosecond, halves away from zero; saturates at the ends of the range, NaN gives
/// zero.
Nanoseconds to_nanoseconds(Seconds time);

constexpr Seconds to_seconds(Nanoseconds time) {
    return std::chrono::duration_cast<Seconds>(time);
}

struct Point {
    float x = 0;
    float y = 0;
    friend constexpr bool operator==(const Point&, const Point&) = default;
};

/// A point of the game's world, in units of the game; a flat world has no `z`.
struct WorldPoint {
    double x = 0;
    double y = 0;
    double z = 0;
    friend constexpr bool operator==(const WorldPoint&, const WorldPoint&) = default;
};

struct Size {
    float width = 0;
    float height = 0;
    friend constexpr bool operator==(const Size&, const Size&) = default;
};

/// Distances inwards from the four edges of a box.
struct Insets {
    float top = 0;
    float right = 0;
    float bottom = 0;
    float left = 0;
    friend constexpr bool operator==(const Insets&, const Insets&) = default;
};

/// A box by its top left corner and its size; a size is never negative.
struct Rect {
    float x = 0;
    float y = 0;
    float width = 0;
    float height = 0;

    constexpr float right() const { return x + width; }
    constexpr float bottom() const { return y + height; }
    constexpr Rect inset(const Insets& by) const {
        return {x + by.left, y + by.top, (std::max)(0.0F, width - by.left - by.right),
                (std::max)(0.0F, height - by.top - by.bottom)};
    }
    friend constexpr bool operator==(const Rect&, const Rect&) = default;
};

/// One of the nine points of a box that a place is measured from.
enum class Anchor : std::uint8_t { top_left, top, top_right, left, center, right, bottom_left, bottom, bottom_right };

}  // namespace rapido
