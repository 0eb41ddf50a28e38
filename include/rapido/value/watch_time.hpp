// Timers as sources.
#pragma once

#include "rapido/time/game_timer.hpp"
#include "rapido/value/watch.hpp"

namespace rapido {

/// The time that a countdown of the game has left, as a duration that is rounded up by default: zero means
/// over. It must outlive the HUD.
Source watch(const Countdown& countdown);
Source watch(Countdown& countdown);
/// The time that a stopwatch of the game shows, as a duration that is rounded down by default. It must outlive
/// the HUD.
Source watch(const Stopwatch& stopwatch);
Source watch(Stopwatch& stopwatch);

}  // namespace rapido
