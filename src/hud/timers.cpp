// Timers in the frame: advanced, asked, told, and the bands of those who show them.
#include <algorithm>

#include "hud/state.hpp"

namespace rapido {
namespace {

/// Whether a moment is one of the marks, and not only the edge of a band.
bool is_reported(const RunningTimer& timer, Nanoseconds at) {
    if (timer.owned == nullptr) return true;
    return std::any_of(timer.marks.begin(), timer.marks.end(), [&](const Mark& mark) {
        const Nanoseconds first = to_nanoseconds(mark.at);
        const Nanoseconds every = to_nanoseconds(mark.every);
        const Nanoseconds behind = timer.timer->counts_down() ? first - at : at - first;
        return behind.count() == 0 ||
               (behind.count() > 0 && every.count() > 0 && (behind % every).count() == 0);
    });
}

}  // namespace

std::string seconds_text(Nanoseconds time) {
    std::string text = std::to_string(time.count() / 1'000'000'000);
    std::string fraction = std::to_string(time.count() % 1'000'000'000 + 1'000'000'000).substr(1);
    fraction.erase(fraction.find_last_not_of('0') + 1);
    return fraction.empty() ? text : text + "." + fraction;
}

void Hud::State::advance_timers() {
    edges_passed = 0;
    for (RunningTimer& timer : timers) {
        if (timer.owned == nullptr) {
            report_timer(timer, Nanoseconds{0});
            continue;
        }
        // What the game did to it since the last frame was at the beginning of this one.
        const Nanoseconds step = step_of(timer.clock);
        report_timer(timer, step);
        if (!timer.shown_by.empty() &&
            (timer.owned->left() != timer.left_before || timer.owned->elapsed() != timer.elapsed_before))
            for (const ElementIndex index : timer.shown_by)
                pass_edge(index, timer, {timer.owned->left(), timer.owned->elapsed()}, step);
        timer.owned->advance_exactly(step);
        report_timer(timer, Nanoseconds{0});
    }
}

Nanoseconds Hud::State::step_of(ClockKind clock) const {
    return clock == ClockKind::game ? game_now - game_start : now - frame_start;
}

/// The bands of an element that shows this timer, at a position that it had so long before the end of this frame.
void Hud::State::pass_edge(ElementIndex index, RunningTimer& timer, const TimerPosition& position,
                           Nanoseconds before) {
    RunningElement& element = elements[index];
    // A hostile file may have ten thousand readouts of a timer that ends hundreds of times in one frame. What is not
    // followed inside the frame is read at its end.
    constexpr std::size_t most_passed = 100'000;
    if (element.dead || ++edges_passed > most_passed) return;
    Travel& travel = *element.travel;
    Nanoseconds at = real_time(before, timer.clock);
    if (travel.clock() == ClockKind::game) at = timer.clock == ClockKind::game ? game_now - before : game_now;
    const Nanoseconds shown = hot[index].value == timer.left ? position.left : position.elapsed;
    travel.pass_edge(std::max(shown, Nanoseconds{0}), max_of(element), at, reduced_motion);
    report_bands(index);
}

/// What a timer told, for the bands that have an edge there.
void Hud::State::pass_edges(RunningTimer& timer, const TimerEvent& told, Nanoseconds before) {
    if (timer.shown_by.empty() || told.kind == TimerEvent::Kind::skipped) return;
    const bool down = timer.timer->counts_down();
    const Nanoseconds duration = timer.timer->duration();
    const auto position_at = [&](Nanoseconds at) {
        return down ? TimerPosition{at, duration - at} : TimerPosition{duration - at, at};
    };
    if (told.kind == TimerEvent::Kind::end) {
        for (const ElementIndex index : timer.shown_by) {
            pass_edge(index, timer, position_at(down ? Nanoseconds{0} : duration), before);
            if (!timer.timer->ended())
                pass_edge(index, timer, position_at(down ? duration : Nanoseconds{0}), before);
        }
        return;
    }
    const auto [first, last] = std::equal_range(
        timer.edges.begin(), timer.edges.end(), RunningTimer::Edge{told.at, no_element},
        [](const RunningTimer::Edge& a, const RunningTimer::Edge& b) { return a.at < b.at; });
    for (auto edge = first; edge != last; ++edge) {
        // On the edge, and the least time behind it: a band ends beyond its edge.
        pass_edge(edge->element, timer, position_at(told.at), before);
        pass_edge(edge->element, timer, position_at(told.at + Nanoseconds{down ? -1 : 1}), before);
    }
}

/// Takes over what a timer has told since the last frame, at its time on the real clock.
void Hud::State::report_timer(RunningTimer& timer, Nanoseconds to_come) {
    if (timer.timer->event_count() == timer.seen) return;
    for (const TimerEvent& told : timer.timer->events(timer.seen)) {
        const Nanoseconds before = timer.timer->age() + to_come - told.time;
        const Nanoseconds time = real_time(before, timer.clock);
        if (told.number > timer.seen + 1)
            report_event({time, timer.id, EventKind::skipped, std::to_string(told.number - timer.seen - 1)});
        timer.seen = told.number;
        pass_edges(timer, told, before);
        if (events.is_full()) {
            events.lose();
            continue;
        }
        switch (told.kind) {
            case TimerEvent::Kind::mark:
                if (is_reported(timer, told.at))
                    report_event({time, timer.id, EventKind::mark, seconds_text(told.at)});
                break;
            case TimerEvent::Kind::end:
                report_event({time, timer.id, EventKind::end, ""});
                break;
            case TimerEvent::Kind::skipped:
                report_event({time, timer.id, EventKind::skipped, std::to_string(told.count)});
                break;
        }
    }
}

/// When something was so long before the end of this frame, by this clock. An event at a fraction of the game step
/// lies at that fraction of the real step.
Nanoseconds Hud::State::real_time(Nanoseconds before, ClockKind clock) const {
    const Nanoseconds step = step_of(clock);
    const Nanoseconds real_step = now - frame_start;
    if (before >= step) return frame_start;
    if (step == real_step) return now - before;
    return now - to_nanoseconds(to_seconds(real_step) * (to_seconds(before) / to_seconds(step)));
}

void Hud::State::control_timers() {
    for (RunningTimer& timer : timers) {
        if (!timer.owned) continue;
        if (timer.speed != no_source) {
            const double speed = scan.value(timer.speed).number();
            if (speed != timer.timer->speed()) timer.owned->set_speed(speed);
        }
        const bool start = timer.start == no_source || scan.value(timer.start).truth();
        if (start && !timer.start_was_true) {
            timer.owned->start();
            report_event({now, timer.id, EventKind::start, ""});
        }
        timer.start_was_true = start;

        const bool hold = timer.pause != no_source && scan.value(timer.pause).truth();
        if (hold) timer.owned->pause();
        if (!hold && timer.held) timer.owned->resume();
        timer.held = hold;
    }
}

void Hud::State::tell_timers() {
    for (RunningTimer& timer : timers) {
        if (!timer.shown_by.empty()) {
            timer.left_before = timer.timer->left();
            timer.elapsed_before = timer.timer->elapsed();
        }
        // Most of them are asked for one of the four.
        const auto tell = [&](SourceIndex source, auto value) {
            if (told_used[source] != 0) scan.tell(source, value(), changed_sources);
        };
        tell(timer.left, [&] { return timer.left_now(); });
        tell(timer.elapsed, [&] { return timer.elapsed_now(); });
        tell(timer.duration, [&] { return timer.timer->duration(); });
        tell(timer.running, [&] { return timer.timer->running(); });
    }
}

/// An element with bands on a timer of this HUD, that nothing paces: its edges are solved like marks.
void Hud::State::watch_bands(ElementIndex index) {
    const Travel* const travel = elements[index].travel.get();
    if (travel == nullptr || travel->bands() == nullptr || travel->is_paced()) return;
    for (RunningTimer& timer : timers) {
        if (timer.owned == nullptr) continue;
        if (hot[index].value != timer.left && hot[index].value != timer.elapsed) continue;
        timer.shown_by.push_back(index);
        timer.edges_dirty = true;
    }
}

/// The edges of bands on a timer are marks of it that are not reported.
void Hud::State::mark_band_edges() {
    for (RunningTimer& timer : timers)
        if (std::exchange(timer.edges_dirty, false)) mark_band_edges(timer);
}

void Hud::State::mark_band_edges(RunningTimer& timer) {
    std::vector<Mark> all = timer.marks;
    timer.edges.clear();
    const Seconds duration = to_seconds(timer.timer->duration());
    for (const ElementIndex index : timer.shown_by) {
        if (elements[index].dead) continue;
        const bool by_duration = elements[index].max == timer.duration;
        const double max = by_duration ? duration.count() : 0;
        for (const BandOn on : {BandOn::target, BandOn::truth})
            for (const double edge : elements[index].travel->bands()->edges(on, max)) {
                const bool shows_left = hot[index].value == timer.left;
                const bool same_way = shows_left == timer.timer->counts_down();
                const Seconds at = same_way ? Seconds{edge} : duration - Seconds{edge};
                all.push_back({.at = at});
                timer.edges.push_back({to_nanoseconds(at), index});
            }
    }
    std::sort(timer.edges.begin(), timer.edges.end(), [](const auto& a, const auto& b) {
        return std::pair(a.at, a.element) < std::pair(b.at, b.element);
    });
    timer.owned->set_marks(all);
}

}  // namespace rapido
