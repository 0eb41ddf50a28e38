// Easing curves of the CSS Easing Functions standard.
#pragma once

#include <optional>
#include <string>
#include <string_view>

namespace rapido {

/// A curve from (0, 0) to (1, 1) that gives a motion its shape.
class Easing {
 public:
    /// Even speed.
    constexpr Easing() = default;

    static constexpr Easing linear() { return {}; }
    static constexpr Easing ease() { return {0.25, 0.1, 0.25, 1.0}; }
    static constexpr Easing ease_in() { return {0.42, 0.0, 1.0, 1.0}; }
    static constexpr Easing ease_out() { return {0.0, 0.0, 0.58, 1.0}; }
    static constexpr Easing ease_in_out() { return {0.42, 0.0, 0.58, 1.0}; }

    /// Reads the standard's notation: `linear`, `ease`, `ease-in`, `ease-out`, `ease-in-out`. Nothing for
    /// others.
    static std::optional<Easing> parse(std::string_view text);
    /// What `parse` reads, the names only.
    static const std::string_view* begin_names();
    static const std::string_view* end_names();

    /// The output for a progress in [0, 1]; progress beyond it is limited to it.
    double at(double progress) const;
    /// The derivative of `at`, seen from inside the curve at both ends.
    double slope(double progress) const;

    friend constexpr bool operator==(const Easing&, const Easing&) = default;

 private:
    /// A cubic Bezier curve with the end points (0, 0) and (1, 1); both x lie in [0, 1].
    constexpr Easing(double x1, double y1, double x2, double y2) : x1_(x1), y1_(y1), x2_(x2), y2_(y2) {}

    /// The curve's parameter at which its x is `progress`.
    double parameter(double progress) const;

    double x1_ = 0;
    double y1_ = 0;
    double x2_ = 1;
    double y2_ = 1;
};

}  // namespace rapido
