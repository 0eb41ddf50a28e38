// Timers that run become what another definition says.
#include <utility>

#include "hud/timers.hpp"

namespace rapido {

void Timers::change(TimerIndex index, const Timer& timer, bool other) {
    RunningTimer& running = timers_[index];
    if (!other) return;
    TimerState state = running.owned->state();
    OwnedTimer fresh(timer);
    fresh.set_loop(timer.loop);
    fresh.set_marks(timer.marks);
    if (running.owned->counts_down() == fresh.counts_down()) {
        const bool has_not_begun = state.run == TimerState::Run::stopped && state.position == state.duration;
        state.duration = fresh.duration();
        state.loop = timer.loop;
        if (fresh.counts_down() && (has_not_begun || state.position > state.duration))
            state.position = state.duration;
        fresh.restore(state);
    } else if (running.owned->running()) {
        fresh.start();
    }
    *running.owned = fresh;
    running.clock = timer.clock;
    running.marks = timer.marks;
    running.seen = running.owned->event_count();
    running.before = running.position();
    running.edges_dirty = true;
}

void Timers::retire(TimerIndex index) {
    rebind(index, no_source, no_source, no_source);
    timers_[index].owned->reset();
    timers_[index].retired = true;
}

TimerIndex Timers::begin_again(const Timer& timer) {
    const auto known = indices_.find(timer.id);
    if (known == indices_.end() || !timers_[known->second].retired) return no_timer;
    RunningTimer& running = timers_[known->second];
    *running.owned = OwnedTimer(timer);
    running.owned->set_loop(timer.loop);
    running.clock = timer.clock;
    running.marks = timer.marks;
    running.seen = running.owned->event_count();
    running.before = running.position();
    running.edges_dirty = true;
    running.start_was_true = running.told_start = running.held = running.retired = false;
    return known->second;
}

void Timers::rebind(TimerIndex index, SourceIndex start, SourceIndex pause, SourceIndex speed) {
    RunningTimer& timer = timers_[index];
    for (const SourceIndex source : {timer.start, timer.pause, timer.speed})
        bindings_.release(source);
    timer.start = start;
    timer.pause = pause;
    timer.speed = speed;
    if (start == no_source) timer.told_start = true;  // it goes on as it was
    if (pause == no_source && std::exchange(timer.held, false)) timer.owned->resume();
    if (speed == no_source) timer.owned->set_speed(1);
}

}  // namespace rapido
