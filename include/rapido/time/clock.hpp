// Clocks that are told how much time has passed; none of them reads the clock of the machine.
#pragma once

#include <cstdint>

#include "rapido/base/exported.hpp"
#include "rapido/base/units.hpp"

namespace rapido RAPIDO_EXPORTED {

/// How far the two clocks of a HUD move in one frame. `Step{.real = frame, .game = frame * time_scale}`; a
/// pause is a game step of zero.
struct Step {
    Seconds real{0};
    Seconds game{0};
};

/// Returns a step: `hud.update(step(dt, dt * time_scale))`.
constexpr Step step(Seconds real, Seconds game) {
    return {.real = real, .game = game};
}

enum class ClockKind : std::uint8_t { real, game };

/// The sum of many small steps, compensated (Neumaier 1974), so that ten hours at 144 frames a second stay
/// within a nanosecond of the true sum.
class Clock {
 public:
    /// Adds a step. Returns false for a step that is negative or not finite, which counts as zero.
    bool advance(Seconds step);

    /// Returns the sum, rounded to whole nanoseconds. Every comparison, text and formula of a HUD uses this one "now". The
    /// clock stands still at `longest`.
    Nanoseconds now() const;
    /// The most that a clock counts, 146 years. Any duration that a description may hold (1e9 s) can be added without an overflow.
    static constexpr Nanoseconds longest = (Nanoseconds::max)() / 2;

 private:
    double sum_ = 0;
    double lost_ = 0;  ///< what the additions to `sum_` have rounded away
};

}  // namespace rapido
