#include "hud/timers.hpp"

#include <algorithm>
#include <utility>

#include "base/instants.hpp"
#include "hud/readouts.hpp"

namespace rapido {

bool RunningTimer::reports(Nanoseconds at) const {
    if (owned == nullptr) return true;
    return std::any_of(marks.begin(), marks.end(), [&](const Mark& mark) {
        const Nanoseconds first = to_nanoseconds(mark.at);
        const Nanoseconds every = to_nanoseconds(mark.every);
        const Nanoseconds behind =
            timer->counts_down() ? saturated_difference(first, at) : saturated_difference(at, first);
        return behind.count() == 0 || (behind.count() > 0 && every.count() > 0 && (behind % every).count() == 0);
    });
}

TimerIndex Timers::add(RunningTimer made) {
    const auto told = [&](const char* part, Value::Type type, detail::ValueUse use = detail::ValueUse::amount) {
        return bindings_.add_told(made.id + part, type, use);
    };
    made.left = told(".left", Value::Type::duration, detail::ValueUse::time_left);
    made.elapsed = told(".elapsed", Value::Type::duration, detail::ValueUse::time_passed);
    made.duration = told(".duration", Value::Type::duration);
    made.running = told(".running", Value::Type::flag);
    indices_.emplace(made.id, static_cast<TimerIndex>(timers_.size()));
    timers_.push_back(std::move(made));
    return static_cast<TimerIndex>(timers_.size() - 1);
}

TimerIndex Timers::add(const Timer& timer) {
    RunningTimer made;
    made.id = timer.id;
    made.owned = std::make_unique<OwnedTimer>(timer);
    made.owned->set_loop(timer.loop);
    made.owned->set_marks(timer.marks);
    made.timer = made.owned.get();
    made.clock = timer.clock;
    made.marks = timer.marks;
    return add(std::move(made));
}

TimerIndex Timers::add(const std::string& id, const GameTimer& timer, ClockKind clock) {
    RunningTimer made;
    made.id = id;
    made.timer = &timer;
    made.clock = clock;
    made.seen = timer.event_count();
    made.starts = timer.starts();
    return add(std::move(made));
}

void Timers::obey(TimerIndex index, SourceIndex start, SourceIndex pause, SourceIndex speed) {
    RunningTimer& timer = timers_[index];
    timer.start = start;
    timer.pause = pause;
    timer.speed = speed;
    if (start != no_source) return;
    timer.owned->start();
    timer.starts = timer.owned->starts();
    timer.start_was_true = true;
}

TimerIndex Timers::find(const std::string& id) const {
    const auto known = indices_.find(id);
    return known != indices_.end() && !timers_[known->second].retired ? known->second : no_timer;
}

std::vector<std::string_view> Timers::names() const {
    std::vector<std::string_view> names;
    for (const RunningTimer& timer : timers_)
        if (!timer.retired) names.push_back(timer.id);
    return names;
}

std::vector<TimerState> Timers::save() const {
    std::vector<TimerState> states;
    for (const RunningTimer& timer : timers_) {
        if (timer.owned == nullptr || timer.retired) continue;
        TimerState& state = states.emplace_back(timer.owned->state());
        state.id = timer.id;
        state.held = timer.held;
    }
    return states;
}

void Timers::restore(TimerIndex index, const TimerState& state) {
    RunningTimer& timer = timers_[index];
    timer.owned->restore(state);
    timer.held = state.held;
    timer.before = timer.position();
    timer.starts = timer.owned->starts();
    // What started it then does not start it again.
    timer.start_was_true = true;
    timer.told_start = true;
}

void Timers::watch_bands(ElementIndex index) {
    const SourceIndex value = readouts_.value_source(index);
    for (RunningTimer& timer : timers_) {
        if (timer.owned == nullptr || (value != timer.left && value != timer.elapsed)) continue;
        timer.shown_by.push_back(index);
        timer.edges_dirty = true;
    }
}

void Timers::remove(ElementIndex index) {
    for (RunningTimer& timer : timers_)
        timer.edges_dirty = std::erase(timer.shown_by, index) > 0 || timer.edges_dirty;
}

void Timers::advance(const FrameTime& time) {
    edges_passed_ = 0;
    for (TimerIndex index = 0; index < timers_.size(); ++index) {
        RunningTimer& timer = timers_[index];
        if (std::exchange(timer.edges_dirty, false)) mark_edges(timer);
        tell_start(index, time);
        if (timer.owned == nullptr) {
            report(index, time, Nanoseconds{0});
            continue;
        }
        // What holds it or speeds it up in its first frame is not read yet: see `obey`.
        const bool waits =
            timer.start == no_source && !timer.told_start && (timer.pause != no_source || timer.speed != no_source);
        if (!waits) pass(index, time);
    }
}

/// The game has started it since the last frame, which was at the beginning of this one.
void Timers::tell_start(TimerIndex index, const FrameTime& time) {
    RunningTimer& timer = timers_[index];
    if (std::exchange(timer.starts, timer.timer->starts()) == timer.timer->starts() || timer.retired) return;
    timer.told_start = true;
    happenings_.add({.time = time.now() - time.step(), .kind = HappeningKind::start, .subject = index});
}

/// Lets one pass the time of this frame.
void Timers::pass(TimerIndex index, const FrameTime& time) {
    RunningTimer& timer = timers_[index];
    if (timer.start == no_source && !timer.retired && !std::exchange(timer.told_start, true))
        happenings_.add({.time = time.now() - time.step(), .kind = HappeningKind::start, .subject = index});
    // What the game did to it since the last frame was at the beginning of this one.
    const Nanoseconds step = time.step(timer.clock);
    report(index, time, step);
    if (!timer.shown_by.empty()) pass_moved(timer, time);
    timer.owned->advance_exactly(step);
    report(index, time, Nanoseconds{0});
}

/// The bands of elements that show a timer which the game has set since the last frame.
void Timers::pass_moved(const RunningTimer& timer, const FrameTime& time) {
    const TimerPosition here = timer.position();
    if (here.left == timer.before.left && here.elapsed == timer.before.elapsed) return;
    for (const ElementIndex element : timer.shown_by)
        pass_edge(element, timer, here, time, time.step(timer.clock));
}

/// The bands of an element that shows this timer, at a position that it had so long before the end of this frame.
void Timers::pass_edge(ElementIndex index, const RunningTimer& timer, const TimerPosition& position,
                       const FrameTime& time, Nanoseconds before) {
    // A hostile file may have ten thousand readouts of a timer that ends hundreds of times in one frame. What is not
    // followed inside the frame is read at its end.
    constexpr std::size_t most_passed = 100'000;
    if (++edges_passed_ > most_passed) return;
    const bool shows_left = readouts_.value_source(index) == timer.left;
    const Nanoseconds shown = shows_left ? position.left : position.elapsed;
    readouts_.pass_edge(index, std::max(shown, Nanoseconds{0}), time, before, timer.clock);
}

/// What a timer told, for the bands that have an edge there.
void Timers::pass_edges(const RunningTimer& timer, const TimerEvent& told, const FrameTime& time, Nanoseconds before) {
    if (timer.shown_by.empty() || told.kind == TimerEvent::Kind::skipped) return;
    const bool down = timer.timer->counts_down();
    const Nanoseconds duration = timer.timer->duration();
    const auto position_at = [&](Nanoseconds at) {
        const Nanoseconds other = saturated_difference(duration, at);
        return down ? TimerPosition{at, other} : TimerPosition{other, at};
    };
    if (told.kind == TimerEvent::Kind::end) {
        for (const ElementIndex index : timer.shown_by) {
            pass_edge(index, timer, position_at(down ? Nanoseconds{0} : duration), time, before);
            if (!timer.timer->ended())
                pass_edge(index, timer, position_at(down ? duration : Nanoseconds{0}), time, before);
        }
        return;
    }
    const auto [first, last] =
        std::equal_range(timer.edges.begin(), timer.edges.end(), RunningTimer::Edge{told.at, no_element},
                         [](const RunningTimer::Edge& a, const RunningTimer::Edge& b) { return a.at < b.at; });
    for (auto edge = first; edge != last; ++edge) {
        // On the edge, and the least time behind it: a band ends beyond its edge.
        pass_edge(edge->element, timer, position_at(told.at), time, before);
        pass_edge(edge->element, timer, position_at(saturated_sum(told.at, Nanoseconds{down ? -1 : 1})), time, before);
    }
}

/// Takes over what a timer has told since the last frame, at its time on the real clock.
void Timers::report(TimerIndex index, const FrameTime& time, Nanoseconds to_come) {
    RunningTimer& timer = timers_[index];
    if (timer.timer->event_count() == timer.seen) return;
    for (const TimerEvent& told : timer.timer->events(timer.seen)) {
        const Nanoseconds before = saturated_sum(saturated_difference(timer.timer->age(), told.time), to_come);
        const auto tell = [&](HappeningKind kind, std::int64_t detail = 0) {
            happenings_.add(
                {.time = time.real_time(before, timer.clock), .kind = kind, .subject = index, .detail = detail});
        };
        if (told.number > timer.seen + 1)
            tell(HappeningKind::skipped, static_cast<std::int64_t>(told.number - timer.seen - 1));
        timer.seen = told.number;
        pass_edges(timer, told, time, before);
        switch (told.kind) {
            case TimerEvent::Kind::mark:
                if (timer.reports(told.at)) tell(HappeningKind::mark, told.at.count());
                break;
            case TimerEvent::Kind::end:
                tell(HappeningKind::end);
                break;
            case TimerEvent::Kind::skipped:
                tell(HappeningKind::skipped, static_cast<std::int64_t>(told.count));
                break;
        }
    }
}

bool Timers::obey(const FrameTime& time) {
    bool has_started = false;
    for (TimerIndex index = 0; index < timers_.size(); ++index) {
        RunningTimer& timer = timers_[index];
        if (timer.owned == nullptr || timer.retired) continue;
        if (timer.speed != no_source) {
            const double speed = bindings_.value(timer.speed).number();
            if (speed != timer.timer->speed()) timer.owned->set_speed(speed);
        }
        const bool hold = timer.pause != no_source && bindings_.is_true(timer.pause);
        const bool start = timer.start != no_source && bindings_.is_true(timer.start);
        if (start && !timer.start_was_true) {
            const Nanoseconds at = bindings_.moment(timer.start);
            timer.owned->start();
            timer.starts = timer.owned->starts();
            happenings_.add({.time = at, .kind = HappeningKind::start, .subject = index});
            has_started = true;
            if (at < time.now() && !hold) {
                // What has gone by in this frame since then.
                const double part =
                    static_cast<double>((time.now() - at).count()) / static_cast<double>(time.step().count());
                timer.owned->advance(to_seconds(time.step(timer.clock)) * part);
                report(index, time, Nanoseconds{0});
            }
        }
        timer.start_was_true = start;
        if (hold) timer.owned->pause();
        if (!hold && timer.held) timer.owned->resume();
        timer.held = hold;
        if (timer.start == no_source && !timer.told_start) pass(index, time);
    }
    return has_started;
}

void Timers::tell(const FrameTime& time) {
    const auto real = static_cast<double>(time.step().count());
    for (RunningTimer& timer : timers_) {
        const double rate =
            real > 0 ? timer.timer->speed() * static_cast<double>(time.step(timer.clock).count()) / real : 0;
        if (!timer.shown_by.empty()) timer.before = timer.position();
        // Most of them are asked for one of the four.
        const auto tell = [&](SourceIndex source, auto value) {
            if (bindings_.is_used(source)) bindings_.tell(source, timer.retired ? Value() : value());
        };
        const auto tell_time = [&](SourceIndex source, double way, auto value) {
            if (bindings_.is_used(source))
                bindings_.tell_moving(source, timer.retired ? Value() : value(), way, timer.timer->running());
        };
        const GameTimer& now = *timer.timer;
        // A stopwatch without a duration has no time left.
        const bool has_left = now.counts_down() || now.duration().count() > 0;
        tell_time(timer.left, -rate, [&] { return has_left ? Value(now.left()) : Value(); });
        tell_time(timer.elapsed, rate, [&] { return Value(now.elapsed()); });
        tell(timer.duration, [&] { return Value(now.duration()); });
        tell(timer.running, [&] { return Value(now.running()); });
    }
}

/// The edges of bands on a timer are marks of it that are not reported.
void Timers::mark_edges(RunningTimer& timer) {
    std::vector<Mark> all = timer.marks;
    timer.edges.clear();
    const Seconds duration = to_seconds(timer.timer->duration());
    for (const ElementIndex index : timer.shown_by) {
        const bool by_duration = readouts_.max_source(index) == timer.duration;
        const double max = by_duration ? duration.count() : 0;
        const bool shows_left = readouts_.value_source(index) == timer.left;
        const bool same_way = shows_left == timer.timer->counts_down();
        for (const BandReads on : {BandReads::target, BandReads::truth})
            for (const double edge : readouts_.bands(index)->edges(on, max)) {
                const Seconds at = same_way ? Seconds{edge} : duration - Seconds{edge};
                all.push_back({.at = at});
                timer.edges.push_back({to_nanoseconds(at), index});
            }
    }
    std::sort(timer.edges.begin(), timer.edges.end(),
              [](const auto& a, const auto& b) { return std::pair(a.at, a.element) < std::pair(b.at, b.element); });
    timer.owned->set_marks(all);
}

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
        if (fresh.counts_down() && (has_not_begun || state.position > state.duration)) state.position = state.duration;
        fresh.restore(state);
    } else if (running.owned->running()) {
        fresh.start();
    }
    *running.owned = fresh;
    running.starts = fresh.starts();
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
    running.starts = 0;
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
