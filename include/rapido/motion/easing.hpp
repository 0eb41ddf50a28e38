// Easing curves of the CSS Easing Functions standard.
#pragma once

#include <cstdint>
#include <memory>
#include <span>
#include <string>
#include <string_view>
#include <vector>

#include "rapido/base/exported.hpp"
#include "rapido/base/problem.hpp"

namespace rapido RAPIDO_EXPORTED {

/// A curve that gives a motion its shape: from a progress of 0 to 1, in time, to one of 0 to 1, on the way.
class Easing {
 public:
    /// When the jumps of `steps` happen: `jump_start` at the start of each step, `jump_end` at its end,
    /// `jump_none` with steps at 0 and at 1, `jump_both` with jumps at 0 and at 1.
    enum class JumpTerm : std::uint8_t { jump_start, jump_end, jump_none, jump_both };

    /// A point of a `linear()` curve.
    struct Stop {
        double input = 0;
        double output = 0;
        friend bool operator==(const Stop&, const Stop&) = default;
    };

    /// Even speed.
    Easing() = default;
    // Defined elsewhere: what GCC 12 cannot see into, it does not warn of in a game that writes braces inside braces (its bug 105562).
    Easing(const Easing&) noexcept;
    Easing(Easing&&) noexcept;
    Easing& operator=(const Easing&) noexcept;
    Easing& operator=(Easing&&) noexcept;
    ~Easing();

    static Easing linear() noexcept { return {}; }
    static Easing ease() noexcept;
    static Easing ease_in() noexcept;
    static Easing ease_out() noexcept;
    static Easing ease_in_out() noexcept;

    /// A cubic Bezier curve with the end points (0, 0) and (1, 1); both x are limited to 0 to 1.
    static Easing cubic_bezier(double x1, double y1, double x2, double y2) noexcept;
    /// So many even jumps; at least one, or two for `jump_none`.
    static Easing steps(int count, JumpTerm term = JumpTerm::jump_end);
    /// Straight lines from stop to stop; an input below one before it counts as that one. At least two stops.
    static Easing linear(std::vector<Stop> stops);

    /// Reads the standard's notation: `linear`, `ease`, `ease-in`, `ease-out`, `ease-in-out`, `step-start`,
    /// `step-end`, `cubic-bezier(0.3, 0, 0.2, 1)`, `steps(4, jump-none)`, `linear(0, 0.4 25% 75%, 1)`.
    /// `where` is the place of the first character.
    static Result<Easing> parse(std::string_view text, const Location& where = {});
    /// Returns the notation that `parse` reads, with as many digits as every number needs.
    std::string notation() const;
    /// The words that `parse` reads.
    static std::span<const std::string_view> names();

    /// The output for a progress in [0, 1]; progress beyond it is limited to it, NaN counts as 0.
    double at(double progress) const;
    /// The derivative of `at`, seen from inside the curve at both ends; zero within a step.
    double slope(double progress) const;
    /// The output where the curve, seen from `progress` on, turns back first; that of its end, if it does not.
    double turn(double progress) const;

    /// Whether it jumps: `steps()`, and a `linear()` with two outputs at one input.
    bool has_jumps() const;

    friend RAPIDO_EXPORTED bool operator==(const Easing& a, const Easing& b);

 private:
    enum class Curve : std::uint8_t { line, bezier, steps, stops };

    /// The parameter of the Bezier curve at which its x is `progress`.
    double parameter(double progress) const;
    double at_step(double progress) const;
    /// Index of the stop at which the segment that holds `progress` begins.
    std::size_t segment(double progress) const;

    Curve curve_ = Curve::line;
    JumpTerm term_ = JumpTerm::jump_end;
    int count_ = 1;
    double x1_ = 0;
    double y1_ = 0;
    double x2_ = 1;
    double y2_ = 1;
    std::shared_ptr<const std::vector<Stop>> stops_;
};

}  // namespace rapido
