// Units and geometry. Design pixels in descriptions and layout, device pixels in a display list; y grows
// downwards.
#pragma once

#include <algorithm>
#include <chrono>
#include <compare>
#include <concepts>
#include <cstdint>
#include <type_traits>

#include "rapido/base/exported.hpp"

namespace rapido RAPIDO_EXPORTED {

/// A length of time in seconds, wherever one is wanted: a number of seconds, `0.6`, or any std::chrono duration, `600ms`.
class Seconds {
 public:
    constexpr Seconds() = default;
    template <class Number>
    requires(std::is_arithmetic_v<Number> && !std::same_as<Number, bool>) constexpr Seconds(Number seconds)
        : count_(static_cast<double>(seconds)) {}
    template <class Rep, class Period>
    constexpr Seconds(std::chrono::duration<Rep, Period> time) : count_(std::chrono::duration<double>(time).count()) {}

    /// Returns the number of seconds.
    constexpr double count() const { return count_; }
    /// Converts to a duration of std::chrono, which an integral one cuts off: `std::chrono::milliseconds(time)`.
    template <class Rep, class Period>
    explicit constexpr operator std::chrono::duration<Rep, Period>() const {
        return std::chrono::duration_cast<std::chrono::duration<Rep, Period>>(std::chrono::duration<double>(count_));
    }

    constexpr Seconds operator-() const { return -count_; }
    constexpr Seconds& operator+=(Seconds other) { return *this = *this + other; }
    constexpr Seconds& operator-=(Seconds other) { return *this = *this - other; }
    friend constexpr Seconds operator+(Seconds a, Seconds b) { return a.count_ + b.count_; }
    friend constexpr Seconds operator-(Seconds a, Seconds b) { return a.count_ - b.count_; }
    friend constexpr Seconds operator*(Seconds a, double b) { return a.count_ * b; }
    friend constexpr Seconds operator*(double a, Seconds b) { return a * b.count_; }
    friend constexpr Seconds operator/(Seconds a, double b) { return a.count_ / b; }
    friend constexpr double operator/(Seconds a, Seconds b) { return a.count_ / b.count_; }
    friend constexpr bool operator==(Seconds a, Seconds b) { return a.count_ == b.count_; }
    friend constexpr std::partial_ordering operator<=>(Seconds a, Seconds b) { return a.count_ <=> b.count_; }

 private:
    double count_ = 0;
};

/// An instant or a length on a clock of a HUD: whole nanoseconds since the clock began.
using Nanoseconds = std::chrono::nanoseconds;

/// Rounds to the nearest nanosecond, halves away from zero; saturates at the ends of the range, NaN gives
/// zero.
Nanoseconds to_nanoseconds(Seconds time);

constexpr Seconds to_seconds(Nanoseconds time) {
    return time;
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

    constexpr Size() = default;
    constexpr Size(float width_of_it, float height_of_it) : width(width_of_it), height(height_of_it) {}
    friend constexpr bool operator==(const Size&, const Size&) = default;
};

/// Distances inwards from the four edges of a box, as many as in CSS: `12` on all sides, `{12, 16}` vertically and horizontally, and
/// `{1, 2, 3, 4}` from the top clockwise.
struct Insets {
    float top = 0;
    float right = 0;
    float bottom = 0;
    float left = 0;

    constexpr Insets() = default;
    constexpr Insets(float all) : Insets(all, all) {}
    constexpr Insets(float vertical, float horizontal) : Insets(vertical, horizontal, vertical, horizontal) {}
    constexpr Insets(float from_top, float from_right, float from_bottom, float from_left)
        : top(from_top), right(from_right), bottom(from_bottom), left(from_left) {}
    static constexpr Insets at_top(float distance) { return {distance, 0, 0, 0}; }
    static constexpr Insets at_right(float distance) { return {0, distance, 0, 0}; }
    static constexpr Insets at_bottom(float distance) { return {0, 0, distance, 0}; }
    static constexpr Insets at_left(float distance) { return {0, 0, 0, distance}; }
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
