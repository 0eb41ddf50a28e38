// Timers as sources.
#pragma once

#include "rapido/time/game_timer.hpp"
#include "rapido/value/watch.hpp"

namespace rapido {

/// The time that a countdown of the game has left, as a duration that is rounded up by default: zero means
/// over. It must outlive the HUD.
inline Source watch(const Countdown& countdown) {
    return watch([&countdown] { return countdown.left(); }).used_as(Source::Use::time_left);
}
inline Source watch(Countdown& countdown) {
    return watch(std::as_const(countdown));
}
/// The time that a stopwatch of the game shows, as a duration that is rounded down by default. It must outlive
/// the HUD.
inline Source watch(const Stopwatch& stopwatch) {
    return watch([&stopwatch] { return stopwatch.elapsed(); }).used_as(Source::Use::time_passed);
}
inline Source watch(Stopwatch& stopwatch) {
    return watch(std::as_const(stopwatch));
}

}  // namespace rapido
