#include "rapido/time/game_timer.hpp"

#include <algorithm>
#include <cmath>
#include <limits>

namespace rapido {
namespace {

/// One step tells so many events, and counts the rest: a loop of a millisecond must not stall a frame.
constexpr int most_events = 256;
/// So many old events are kept for readers that come later.
constexpr std::size_t kept_events = 16;
/// Positions stay within 73 years, so that sums of two of them cannot overflow.
constexpr std::int64_t longest_span = std::numeric_limits<std::int64_t>::max() / 4;

std::int64_t count_of(Seconds time) {
    if (!(time.count() > 0)) return 0;
    return std::min<std::int64_t>(to_nanoseconds(time).count(), longest_span);
}

}  // namespace

GameTimer::GameTimer(Direction direction, Seconds duration, Seconds begin)
    : anchor_(0), direction_(direction), duration_(count_of(duration)), begin_(count_of(begin)) {
    hold(rewound());
    log_.reserve(2 * kept_events);
}

/// Where it ends: zero, or the duration of a stopwatch that has one.
std::int64_t GameTimer::end() const {
    if (direction_ == Direction::down) return 0;
    return duration_.count() > 0 ? duration_.count() : longest_span;
}

std::int64_t GameTimer::travelled(std::int64_t run) const {
    if (speed_ == 1 && carry_ == 0) return run;
    return static_cast<std::int64_t>(std::min(std::floor(static_cast<double>(run) * speed_ + carry_), 4e18));
}

Nanoseconds GameTimer::position() const {
    if (state_ == State::ended) return Nanoseconds{end()};
    const std::int64_t way = travelled(run_);
    return Nanoseconds{direction_ == Direction::down ? std::max(anchor_ - way, std::int64_t{0})
                                                     : std::min(anchor_ + way, end())};
}

Nanoseconds GameTimer::left() const {
    if (direction_ == Direction::down) return position();
    return std::max(duration_ - position(), Nanoseconds{0});
}

Nanoseconds GameTimer::elapsed() const {
    if (direction_ == Direction::up) return position();
    return std::max(duration_ - position(), Nanoseconds{0});
}

/// The least run that makes this way; negative where no run does.
std::int64_t GameTimer::run_for(std::int64_t way) const {
    way = std::max(way, std::int64_t{0});
    if ((speed_ == 1 && carry_ == 0) || way == 0) return way;
    constexpr std::int64_t longest = std::numeric_limits<std::int64_t>::max();
    if (travelled(longest) < way) return -1;
    // The quotient and the product round differently. What a run travels never falls, so the least one is found between
    // two bounds, first by doubling and then by halving.
    const double quotient = static_cast<double>(way) / speed_;
    std::int64_t enough = quotient < 9e18 ? static_cast<std::int64_t>(quotient) : longest;
    for (std::int64_t step = 1; travelled(enough) < way; step *= 2)
        enough = enough < longest - step ? enough + step : longest;
    std::int64_t too_short = enough;
    for (std::int64_t step = 1; travelled(too_short) >= way; step *= 2)
        too_short = std::max(too_short - step, std::int64_t{0});  // a run of zero makes no way
    while (enough - too_short > 1) {
        const std::int64_t middle = too_short + (enough - too_short) / 2;
        (travelled(middle) >= way ? enough : too_short) = middle;
    }
    return enough;
}

std::optional<std::int64_t> GameTimer::next_mark(std::int64_t from) const {
    std::optional<std::int64_t> nearest;
    if (direction_ == Direction::down) {
        if (const auto after = std::lower_bound(marks_.begin(), marks_.end(), from); after != marks_.begin())
            nearest = *(after - 1);
        for (const Series& series : series_) {
            std::int64_t at = series.at;
            if (at >= from) at -= ((at - from) / series.every + 1) * series.every;
            if (at > 0 && (!nearest || at > *nearest)) nearest = at;
        }
        return nearest;
    }
    if (const auto after = std::upper_bound(marks_.begin(), marks_.end(), from);
        after != marks_.end() && *after < longest_span)
        nearest = *after;
    for (const Series& series : series_) {
        std::int64_t at = series.at;
        if (at <= from) at += ((from - at) / series.every + 1) * series.every;
        if (at < longest_span && (!nearest || at < *nearest)) nearest = at;
    }
    return nearest;
}

/// How many marks lie behind `from` up to `to`, each of a series for itself.
std::uint64_t GameTimer::count_marks(std::int64_t from, std::int64_t to) const {
    const bool up = direction_ == Direction::up;
    const std::int64_t last = up ? to : std::max(to, std::int64_t{1});
    // Of a countdown: `last` up to, but without, `from`.
    const auto begin = up ? std::upper_bound(marks_.begin(), marks_.end(), from)
                          : std::lower_bound(marks_.begin(), marks_.end(), last);
    const auto end = up ? std::upper_bound(marks_.begin(), marks_.end(), last)
                        : std::lower_bound(marks_.begin(), marks_.end(), from);
    auto count = static_cast<std::uint64_t>(std::max<std::ptrdiff_t>(end - begin, 0));
    const auto up_to = [](const Series& series, std::int64_t way) -> std::int64_t {
        return way < 0 ? 0 : way / series.every + 1;
    };
    for (const Series& series : series_)
        count += static_cast<std::uint64_t>(up ? up_to(series, last - series.at) - up_to(series, from - series.at)
                                               : up_to(series, series.at - last) - up_to(series, series.at - from));
    return count;
}

/// From here on the position counts from this one.
void GameTimer::hold(std::int64_t position) {
    anchor_ = std::clamp(position, std::int64_t{0}, longest_span);
    carry_ = 0;
    run_ = 0;
    passed_ = anchor_;
    plan();
}

/// Finds the next event.
void GameTimer::plan() {
    next_ = -1;
    if (!(speed_ > 0)) return;
    const std::int64_t last = end();
    std::optional<std::int64_t> next = next_mark(passed_);
    if (last < longest_span && (!next || (direction_ == Direction::down ? *next < last : *next > last))) next = last;
    if (!next) return;
    next_at_ = *next;
    next_ = run_for(way_to(*next));
}

void GameTimer::report(TimerEvent::Kind kind, Nanoseconds time, std::int64_t at, std::uint64_t count) {
    log_.push_back({++numbered_, kind, time, Nanoseconds{at}, count});
}

std::span<const TimerEvent> GameTimer::events(std::uint64_t after) const {
    const auto first =
        std::find_if(log_.begin(), log_.end(), [&](const TimerEvent& event) { return event.number > after; });
    return {first, log_.end()};
}

void GameTimer::start() {
    state_ = State::running;
    ++starts_;
    hold(rewound());
}

void GameTimer::pause() {
    if (state_ == State::running) state_ = State::paused;
}

void GameTimer::resume() {
    if (state_ == State::paused) state_ = State::running;
}

void GameTimer::reset() {
    state_ = State::stopped;
    hold(rewound());
}

void GameTimer::set(Seconds time) {
    if (std::isnan(time.count())) return;
    const std::int64_t position = count_of(time);
    // At its end it has ended: that it came there is not reported.
    if (direction_ == Direction::down ? position == 0 : duration_.count() > 0 && position >= duration_.count())
        state_ = State::ended;
    else if (state_ == State::ended)
        state_ = State::paused;
    hold(position);
}

TimerState GameTimer::state() const {
    return {.id = {},
            .position = position(),
            .duration = duration_,
            .speed = speed_,
            .run = static_cast<TimerState::Run>(state_),
            .loop = loop_};
}

bool GameTimer::can_be(const TimerState& state) const {
    const bool times_fit = state.position.count() >= 0 && state.position.count() < longest_span &&
                           state.duration.count() >= 0 && state.duration.count() < longest_span;
    const bool down = direction_ == Direction::down;
    const bool has_end = down || state.duration.count() > 0;
    const bool is_within = down || !has_end || state.position <= state.duration;
    const Nanoseconds last = down ? Nanoseconds{0} : state.duration;
    const bool is_over = state.run == TimerState::Run::ended;
    return times_fit && is_within && state.speed >= 0 && state.speed <= 1e6 && state.run <= TimerState::Run::ended &&
           (!is_over || (has_end && state.position == last));
}

void GameTimer::restore(const TimerState& state) {
    duration_ = std::clamp(state.duration, Nanoseconds{0}, Nanoseconds{longest_span});
    speed_ = state.speed > 0 ? std::min(state.speed, 1e6) : 0;
    loop_ = state.loop;
    state_ = static_cast<State>(std::min(state.run, TimerState::Run::ended));
    hold(state.position.count());
}

detail::TimerNumbers GameTimer::numbers() const {
    return {.age = age_,
            .duration = duration_,
            .run = run_,
            .anchor = anchor_,
            .passed = passed_,
            .speed = speed_,
            .carry = carry_,
            .state = static_cast<TimerState::Run>(state_),
            .loop = loop_,
            .events = numbered_,
            .starts = starts_};
}

void GameTimer::put(const detail::TimerNumbers& numbers, std::span<const TimerEvent> events) {
    age_ = std::clamp(numbers.age, Nanoseconds{0}, Nanoseconds::max());
    duration_ = std::clamp(numbers.duration, Nanoseconds{0}, Nanoseconds{longest_span});
    anchor_ = std::clamp(numbers.anchor, std::int64_t{0}, longest_span);
    passed_ = std::clamp(numbers.passed, std::int64_t{0}, longest_span);
    run_ = std::clamp<std::int64_t>(numbers.run, 0, age_.count());
    speed_ = numbers.speed > 0 ? std::min(numbers.speed, 1e6) : 0;
    carry_ = numbers.carry >= 0 && numbers.carry < 1 ? numbers.carry : 0;
    state_ = static_cast<State>(std::min(numbers.state, TimerState::Run::ended));
    loop_ = numbers.loop;
    if (log_.size() > kept_events) log_.erase(log_.begin(), log_.end() - kept_events / 2);
    for (TimerEvent event : events)
        if (event.number > numbered_) {
            event.time = std::clamp(event.time, Nanoseconds{0}, age_);
            event.at = std::clamp(event.at, Nanoseconds{0}, Nanoseconds{longest_span});
            log_.push_back(event);
            numbered_ = event.number;
        }
    numbered_ = std::max(numbered_, numbers.events);
    starts_ = numbers.starts;
    plan();
}

void GameTimer::set_speed(double speed) {
    const double wanted = speed > 0 ? std::min(speed, 1e6) : 0;
    if (wanted == speed_) return;
    // The part of a nanosecond is kept, so that a speed that changes in every frame loses nothing.
    const std::int64_t now = position().count();
    const double exact = static_cast<double>(run_) * speed_ + carry_;
    const double carry = exact < 1e15 ? exact - std::floor(exact) : 0;
    speed_ = wanted;
    anchor_ = std::clamp(now, std::int64_t{0}, longest_span);
    carry_ = carry;
    run_ = 0;
    passed_ = anchor_;
    plan();
}

void GameTimer::set_marks(std::span<const Mark> marks) {
    marks_.clear();
    series_.clear();
    for (const Mark& mark : marks) {
        if (!(mark.at.count() > 0) || !std::isfinite(mark.at.count())) continue;
        const Series made{count_of(mark.at), count_of(mark.every)};
        if (made.every > 0)
            series_.push_back(made);
        else
            marks_.push_back(made.at);
    }
    std::sort(marks_.begin(), marks_.end());
    marks_.erase(std::unique(marks_.begin(), marks_.end()), marks_.end());
    std::sort(series_.begin(), series_.end());
    series_.erase(std::unique(series_.begin(), series_.end()), series_.end());
    plan();
}

/// Goes to a position that lies ahead, and reports what lies on the way, all of it now.
void GameTimer::forward(std::int64_t to) {
    std::int64_t from = position().count();
    const auto lies_ahead = [&](std::int64_t position) {
        return direction_ == Direction::down ? position < from : position > from;
    };
    int told = 0;
    // A mark that lies on the end is told as the end, as when it runs there.
    for (auto mark = next_mark(from);
         mark && *mark != end() && !(direction_ == Direction::down ? *mark < to : *mark > to); mark = next_mark(from)) {
        if (++told > most_events) {
            report(TimerEvent::Kind::skipped, age_, 0, count_marks(from, to));
            break;
        }
        report(TimerEvent::Kind::mark, age_, *mark);
        from = *mark;
    }
    from = position().count();
    const bool ends = lies_ahead(end()) && (direction_ == Direction::down ? to <= end() : to >= end());
    if (ends) {
        report(TimerEvent::Kind::end, age_, end());
        if (loop_ && duration_.count() > 0)
            to = direction_ == Direction::down ? duration_.count() : 0;
        else
            state_ = State::ended;
    }
    hold(to);
}

void GameTimer::add(Seconds time) {
    if (!(time.count() > 0) || !std::isfinite(time.count())) return;
    const std::int64_t more = count_of(time);
    if (direction_ == Direction::up) {
        if (state_ != State::ended) forward(std::min<std::int64_t>(position().count() + more, end()));
        return;
    }
    const std::int64_t from = position().count();
    if (state_ == State::ended) state_ = State::paused;
    hold(from + more);
}

void GameTimer::take(Seconds time) {
    if (!(time.count() > 0) || !std::isfinite(time.count())) return;
    const std::int64_t less = count_of(time);
    const std::int64_t from = position().count();
    if (direction_ == Direction::down) {
        if (state_ != State::ended) forward(std::max(from - less, std::int64_t{0}));
        return;
    }
    if (state_ == State::ended) state_ = State::paused;
    hold(from - less);
}

std::optional<Seconds> GameTimer::advance(Seconds step) {
    if (!clock_.advance(step)) return std::nullopt;
    const Nanoseconds now = clock_.now();
    const Nanoseconds whole = now - clock_before_;
    clock_before_ = now;
    return advance_exactly(whole);
}

std::optional<Seconds> GameTimer::advance_past(Nanoseconds step) {
    if (log_.size() > kept_events) log_.erase(log_.begin(), log_.end() - kept_events / 2);
    if (step.count() < 0) return std::nullopt;
    step = std::min(step, Nanoseconds::max() - age_);
    const Nanoseconds before = age_;
    age_ += step;
    if (state_ != State::running) return std::nullopt;
    const std::int64_t until = run_ + step.count();
    std::optional<Seconds> overshoot;
    for (int told = 0; next_ >= 0 && next_ <= until; ++told) {
        if (told == most_events) {
            const std::int64_t after = skip(until - run_);
            if (after >= 0) overshoot = to_seconds(Nanoseconds{after});
            return overshoot;
        }
        const std::int64_t rest = until - next_;
        const Nanoseconds time = before + step - Nanoseconds{rest};
        run_ = next_;
        passed_ = next_at_;
        if (passed_ != end()) {
            report(TimerEvent::Kind::mark, time, passed_);
            plan();
            continue;
        }
        report(TimerEvent::Kind::end, time, passed_);
        overshoot = to_seconds(Nanoseconds{rest});
        if (!loop_ || duration_.count() == 0) {
            state_ = State::ended;
            return overshoot;
        }
        rewind(1);
    }
    run_ = until;
    return overshoot;
}

/// So many loops are over. The run goes on, so that no fraction of a nanosecond is lost between them.
void GameTimer::rewind(std::int64_t loops) {
    anchor_ += (direction_ == Direction::down ? 1 : -1) * loops * duration_.count();
    passed_ = direction_ == Direction::down ? duration_.count() : 0;
    plan();
}

/// Runs for `rest` nanoseconds, and only counts what happens; gives how long ago the last end was, or -1.
std::int64_t GameTimer::skip(std::int64_t rest) {
    run_ += rest;
    const bool loops = loop_ && duration_.count() > 0;
    const std::int64_t way = travelled(run_);
    const std::int64_t to_end = end() < longest_span ? way_to(end()) : std::numeric_limits<std::int64_t>::max();
    std::uint64_t count = 0;
    std::int64_t since_end = -1;
    if (way >= to_end) {
        count = count_marks(passed_, end()) + 1;
        if (!loops) {
            since_end = run_ - run_for(to_end);
            state_ = State::ended;
        } else {
            const std::int64_t more = (way - to_end) / duration_.count();
            since_end = run_ - run_for(to_end + more * duration_.count());
            rewind(more + 1);
            count += static_cast<std::uint64_t>(more) * (count_marks(passed_, end()) + 1);
        }
    }
    if (state_ != State::ended) {
        const std::int64_t now = position().count();
        count += count_marks(passed_, now);
        passed_ = now;
        plan();
    }
    report(TimerEvent::Kind::skipped, age_, 0, count);
    return since_end;
}

}  // namespace rapido
