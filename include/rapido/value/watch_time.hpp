// Timers as sources.
#pragma once

#include "rapido/base/exported.hpp"
#include "rapido/time/game_timer.hpp"
#include "rapido/value/watch.hpp"

namespace rapido RAPIDO_EXPORTED {

/// Binds a source to the time that a countdown of the game has left, a duration that is rounded up by default: zero means that
/// it is over. The countdown must outlive the HUD.
Source watch(const Countdown& countdown);
Source watch(Countdown& countdown);
/// Binds a source to the time that a stopwatch of the game shows, a duration that is rounded down by default. The stopwatch must
/// outlive the HUD.
Source watch(const Stopwatch& stopwatch);
Source watch(Stopwatch& stopwatch);

}  // namespace rapido
