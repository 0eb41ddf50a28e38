// Countdowns and stopwatches, which need no HUD.
#pragma once

#include <algorithm>
#include <compare>
#include <optional>
#include <span>
#include <string>
#include <vector>

#include "rapido/base/exported.hpp"
#include "rapido/time/clock.hpp"

namespace rapido RAPIDO_EXPORTED {

/// A moment of a timer that is reported when it is passed.
struct Mark {
    Seconds at{0};     ///< time left of a countdown, time passed of a stopwatch; above zero
    Seconds every{0};  ///< the mark comes again after each of these times: `{5s, 1s}` of a countdown is 5, 4, 3, 2, 1
    friend RAPIDO_EXPORTED bool operator==(const Mark&, const Mark&);
};

/// Something that a timer passed.
struct TimerEvent {
    enum class Kind : std::uint8_t {
        mark,     ///< a mark
        end,      ///< the end; a loop begins again
        skipped,  ///< more than can be told one by one happened in one step
    };
    std::uint64_t number = 0;  ///< counts the events of this timer from 1 on
    Kind kind = Kind::mark;
    Nanoseconds time{0};      ///< when it happened, on the timer's own `age`
    Nanoseconds at{0};        ///< for a mark, its `at`
    std::uint64_t count = 1;  ///< for `skipped`, how many events were skipped
};

/// All that a timer is at one moment but for its marks: a plain value, to be saved with a game.
struct TimerState {
    enum class Run : std::uint8_t { stopped, running, paused, ended };
    std::string id{};         ///< of a timer of a HUD
    Nanoseconds position{0};  ///< what is left of a countdown, what has passed of a stopwatch
    Nanoseconds duration{0};
    double speed = 1;
    Run run = Run::stopped;
    bool loop = false;
    bool held = false;  ///< paused by the source `pause_when` of a HUD
    friend RAPIDO_EXPORTED bool operator==(const TimerState&, const TimerState&);
};

namespace detail {
/// All that moves in a timer, for recordings.
struct TimerNumbers {
    Nanoseconds age{0}, duration{0};
    std::int64_t run = 0, anchor = 0, passed = 0;
    double speed = 1, carry = 0;
    TimerState::Run state = TimerState::Run::stopped;
    bool loop = false;
    std::uint64_t events = 0;
    std::uint64_t starts = 0;
    friend bool operator==(const TimerNumbers&, const TimerNumbers&) = default;
};
}  // namespace detail

/// What `Countdown` and `Stopwatch` have in common. A timer keeps whole nanoseconds and adds up no fractions: the same
/// seconds in any number of steps give the same position and the same events.
///
/// A mark is armed while the timer has yet to pass it. Running fires it, at its exact time, and so does `take` of a
/// countdown and `add` of a stopwatch; starting on it, `set` and `reset` never do. Going back arms it again.
class GameTimer {
 public:
    /// Lets the timer run from the beginning, whatever it did before.
    void start();
    /// Lets the timer stand still until `resume`. Does nothing if it is not running.
    void pause();
    /// Lets the timer run on from where it is. Does nothing if it has ended or was never started.
    void resume();
    /// Stops the timer and puts it at the beginning.
    void reset();

    /// Adds to the time left of a countdown, or passed of a stopwatch. A countdown that has ended stands with that much left;
    /// `resume` lets it run. A time that is not positive and finite changes nothing, here and in `take`.
    void add(Seconds time);
    /// Takes time away, down to zero, which is the end of a countdown.
    void take(Seconds time);
    /// Sets the time left of a countdown, or passed of a stopwatch. Below zero counts as zero, NaN changes nothing. Nothing is
    /// reported, not even an end.
    void set(Seconds time);

    /// Sets how fast the timer runs: 1 is as fast as its clock, 0 stands still. The speed is limited to 0 to 1 000 000; NaN
    /// counts as 0.
    void set_speed(double speed);
    /// Sets whether the timer begins again at its end. A timer without a duration has no end.
    void set_loop(bool loop) { loop_ = loop; }
    /// Replaces the marks. Marks that are not above zero and finite are left out.
    void set_marks(std::span<const Mark> marks);

    /// Moves the timer by a step of the clock that it follows. If it reaches its end, returns the overshoot: the part of the
    /// step that lies after the last end. A step that is negative or not finite changes nothing.
    std::optional<Seconds> advance(Seconds step);
    /// Does the same for a whole number of nanoseconds, which is not negative. The age stands still at the largest number.
    std::optional<Seconds> advance_exactly(Nanoseconds step) {
        // Most steps of most timers pass nothing. A run is never longer than the age.
        const bool quiet = (next_ < 0 || step.count() < next_ - run_) && step <= (Nanoseconds::max)() - age_;
        if (state_ != State::running || !quiet || step.count() < 0) return advance_past(step);
        age_ += step;
        run_ += step.count();
        return std::nullopt;
    }

    /// Returns what the timer is now.
    TimerState state() const;
    /// Whether a timer of this kind can be there: a saved state may be damaged.
    bool can_be(const TimerState& state) const;
    /// Puts the timer where another one of its kind was; a time that cannot be is the nearest that can. Nothing is reported; marks that lie ahead are armed.
    void restore(const TimerState& state);

    bool running() const { return state_ == State::running; }
    bool ended() const { return state_ == State::ended; }
    /// Returns the duration, zero for a stopwatch without one.
    Nanoseconds duration() const { return duration_; }
    double speed() const { return speed_; }
    bool counts_down() const { return direction_ == Direction::down; }
    /// Returns the time left until the end, zero for a stopwatch without an end.
    Nanoseconds left() const;
    /// Returns the time that has passed; zero for a countdown that has more left than its duration.
    Nanoseconds elapsed() const;

    /// Returns the sum of all steps, whether or not the timer ran.
    Nanoseconds age() const { return age_; }
    /// Returns how many times it was started.
    std::uint64_t starts() const { return starts_; }
    /// Returns how many events there were.
    std::uint64_t event_count() const { return numbered_; }
    /// The latest events, those with a number above `after`: all of the last step, and a few before it. Valid until
    /// the next call that changes the timer. One step tells 256 at most, and the count of the others.
    std::span<const TimerEvent> events(std::uint64_t after = 0) const;

    /// Not for games: what moves in it, and putting that into another timer of its kind, with the events that it has told since.
    detail::TimerNumbers numbers() const;
    void put(const detail::TimerNumbers& numbers, std::span<const TimerEvent> events);

 protected:
    enum class Direction : std::int8_t { down = -1, up = 1 };
    /// A duration that is negative or not a number counts as zero, as does the beginning of a stopwatch.
    GameTimer(Direction direction, Seconds duration, Seconds begin);
    GameTimer(const GameTimer&) = default;
    GameTimer(GameTimer&&) = default;
    GameTimer& operator=(const GameTimer&) = default;
    GameTimer& operator=(GameTimer&&) = default;
    /// Not for users: what is owned is a `Countdown` or a `Stopwatch`.
    ~GameTimer() = default;

 private:
    Nanoseconds position() const;

    enum class State : std::uint8_t { stopped, running, paused, ended };
    struct Series {  ///< a mark that comes again, in whole nanoseconds
        std::int64_t at, every;
        friend auto operator<=>(const Series&, const Series&) = default;
    };

    std::optional<Seconds> advance_past(Nanoseconds step);
    std::int64_t end() const;
    std::optional<std::int64_t> next_mark(std::int64_t from) const;
    std::uint64_t count_marks(std::int64_t from, std::int64_t to) const;
    std::int64_t way_to(std::int64_t position) const {
        return direction_ == Direction::down ? anchor_ - position : position - anchor_;
    }
    std::int64_t run_for(std::int64_t way) const;
    void rewind(std::int64_t loops);
    std::int64_t travelled(std::int64_t run) const;
    void hold(std::int64_t position);
    void plan();
    void report(TimerEvent::Kind kind, Nanoseconds time, std::int64_t at, std::uint64_t count = 1);
    void forward(std::int64_t to);
    std::int64_t skip(std::int64_t rest);
    std::int64_t rewound() const { return direction_ == Direction::down ? duration_.count() : begin_; }

    // What a step touches lies together. The position is that of the last call, and what has run since.
    Nanoseconds age_{0};
    std::int64_t run_ = 0;    ///< nanoseconds of running since then
    std::int64_t next_ = -1;  ///< the run at which the next event is due; negative for never
    std::uint64_t numbered_ = 0;
    std::int64_t anchor_;
    double speed_ = 1;
    double carry_ = 0;  ///< the part of a nanosecond that the position is ahead of the anchor
    State state_ = State::stopped;
    Direction direction_;
    bool loop_ = false;
    Nanoseconds duration_;
    std::int64_t begin_;
    std::int64_t next_at_ = 0;  ///< which mark, or the end
    std::int64_t passed_ = 0;   ///< marks up to here have been told
    std::uint64_t starts_ = 0;

    Clock clock_;  ///< of the steps given in seconds
    Nanoseconds clock_before_{0};
    std::vector<std::int64_t> marks_;  ///< those that come once, in order
    std::vector<Series> series_;       ///< in order
    std::vector<TimerEvent> log_;
};

/// Counts from its duration down to zero and stays there; it is never negative.
///
///     rapido::Countdown evacuation{45s};
///     evacuation.start();
///     if (const auto overshoot = evacuation.advance(frame)) leave_the_village(*overshoot);
class Countdown : public GameTimer {
 public:
    /// Stopped, with all of `duration` left.
    explicit Countdown(Seconds duration) : GameTimer(Direction::down, duration, Seconds{0}) {}
};

/// Counts up. With a duration it ends there, or begins again at zero.
class Stopwatch : public GameTimer {
 public:
    explicit Stopwatch(Seconds begin = Seconds{0}, Seconds duration = Seconds{0})
        : GameTimer(Direction::up, duration, begin) {}
};

}  // namespace rapido
