#include "hud/frame_time.hpp"

namespace rapido {

bool FrameTime::Moments::advance(Seconds step) {
    const bool taken = clock.advance(step);
    start = now;
    now = clock.now();
    return taken;
}

bool FrameTime::advance(Step step) {
    const bool real_taken = real_.advance(step.real);
    const bool game_taken = game_.advance(step.game);
    return real_taken && game_taken;
}

Nanoseconds FrameTime::real_time(Nanoseconds before, ClockKind clock) const {
    const Nanoseconds whole = step(clock);
    const Nanoseconds real_step = step();
    if (before >= whole) return start();
    if (whole == real_step) return now() - before;
    return now() - to_nanoseconds(to_seconds(real_step) * (to_seconds(before) / to_seconds(whole)));
}

}  // namespace rapido
