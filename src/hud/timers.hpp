// Timers and meters in the frame: advanced, obeyed and told.
#pragma once

#include <memory>
#include <string>
#include <unordered_map>
#include <vector>

#include "hud/bindings.hpp"
#include "hud/frame_time.hpp"
#include "hud/happenings.hpp"
#include "rapido/base/exported.hpp"
#include "rapido/hud/definition.hpp"
#include "rapido/time/frame_counter.hpp"
#include "rapido/time/game_timer.hpp"

namespace rapido RAPIDO_EXPORTED {

class Readouts;

/// A timer that a HUD advances.
class OwnedTimer final : public GameTimer {
 public:
    explicit OwnedTimer(const Timer& timer)
        : GameTimer(timer.kind == TimerKind::countdown ? Direction::down : Direction::up,
                    timer.duration.value_or(Seconds{timer.kind == TimerKind::countdown ? 60.0 : 0.0}), timer.elapsed) {}
};

struct TimerPosition {
    Nanoseconds left{0}, elapsed{0};
};

struct RunningTimer {
    std::string id;
    std::unique_ptr<OwnedTimer> owned;  ///< null for one that the game advances
    const GameTimer* timer = nullptr;
    ClockKind clock = ClockKind::game;
    std::vector<Mark> marks;             ///< that are reported; others are edges of bands
    std::vector<ElementIndex> shown_by;  ///< elements whose bands are solved in its time
    struct Edge {
        Nanoseconds at;
        ElementIndex element;
    };
    std::vector<Edge> edges;   ///< of those bands, as marks of the timer, in order
    std::uint64_t seen = 0;    ///< the last of its events that was taken over
    std::uint64_t starts = 0;  ///< those that were told, or are no news
    SourceIndex start = no_source, pause = no_source, speed = no_source;
    TimerPosition before;  ///< at the end of the last frame
    bool start_was_true = false;
    bool told_start = false;  ///< it runs of itself, and that was told
    bool held = false;        ///< paused by its source
    bool retired = false;
    bool edges_dirty = false;  ///< other elements show it than before
    SourceIndex left = no_source, elapsed = no_source, duration = no_source, running = no_source;

    TimerPosition position() const { return {timer->left(), timer->elapsed()}; }
    /// Whether a moment is one of the marks, and not only the edge of a band.
    bool reports(Nanoseconds at) const;
};

/// Owns the timers of a HUD, and knows those of the game.
class Timers {
 public:
    Timers(Bindings& bindings, Happenings& happenings, Readouts& readouts)
        : bindings_(bindings), happenings_(happenings), readouts_(readouts) {}

    // Between frames

    /// Adds a timer of the HUD, or of the game, with its sources. Its id must be free.
    TimerIndex add(const Timer& timer);
    TimerIndex add(const std::string& id, const GameTimer& timer, ClockKind clock);
    /// What a timer of the HUD follows; without a start it runs from now on.
    void obey(TimerIndex index, SourceIndex start, SourceIndex pause, SourceIndex speed);
    /// A timer of the HUD is another one from now on, and goes on where it was: with other sources, and, where `other` is set, of another
    /// duration, kind and so on.
    void change(TimerIndex index, const Timer& timer, bool other);
    void rebind(TimerIndex index, SourceIndex start, SourceIndex pause, SourceIndex speed);
    /// A timer of the HUD is there no more: whoever asks for its sources has no value, and its id is free for `begin_again`.
    void retire(TimerIndex index);
    /// The timer of a retired one's id, as if it had just been added; no timer, where none was retired.
    TimerIndex begin_again(const Timer& timer);
    RunningTimer& operator[](TimerIndex index) { return timers_[index]; }
    /// Returns the timer of an id, or no timer.
    TimerIndex find(const std::string& id) const;
    std::span<const RunningTimer> all() const { return timers_; }
    std::vector<std::string_view> names() const;
    std::vector<TimerState> save() const;
    void restore(TimerIndex index, const TimerState& state);
    /// An element with bands on a timer of this HUD, that nothing paces: their edges are solved like marks.
    void watch_bands(ElementIndex index);
    void remove(ElementIndex index);

    // In a frame

    /// Advances them, and tells what happened to them since the last frame.
    void advance(const FrameTime& time);
    /// Follows the sources of timers. True if one of them has started one: at the moment at which it became true.
    bool obey(const FrameTime& time);
    /// Tells the sources that timers give.
    void tell(const FrameTime& time);

 private:
    TimerIndex add(RunningTimer timer);
    void report(TimerIndex index, const FrameTime& time, Nanoseconds to_come);
    void pass(TimerIndex index, const FrameTime& time);
    void tell_start(TimerIndex index, const FrameTime& time);
    void pass_moved(const RunningTimer& timer, const FrameTime& time);
    void pass_edge(ElementIndex index, const RunningTimer& timer, const TimerPosition& position, const FrameTime& time,
                   Nanoseconds before);
    void pass_edges(const RunningTimer& timer, const TimerEvent& told, const FrameTime& time, Nanoseconds before);
    void mark_edges(RunningTimer& timer);

    Bindings& bindings_;
    Happenings& happenings_;
    Readouts& readouts_;
    std::vector<RunningTimer> timers_;
    std::unordered_map<std::string, TimerIndex> indices_;  ///< by id
    std::size_t edges_passed_ = 0;                         ///< in this frame
};

/// Owns the meters of a HUD.
class FrameMeters {
 public:
    explicit FrameMeters(Bindings& bindings) : bindings_(bindings) {}

    void add(const FrameMeter& meter);
    /// A meter counts over another interval from now on. False where there is none of this id.
    bool set_interval(std::string_view id, Seconds interval);
    std::vector<std::string_view> names() const;
    void advance(const FrameTime& time);
    void tell(const FrameTime& time);

 private:
    struct Running {
        std::string id{};
        FrameCounter meter{Seconds{1}};
        SourceIndex rate = no_source, frame_time = no_source;
        SourceIndex average = no_source, worst = no_source, low = no_source;
    };
    Bindings& bindings_;
    std::vector<Running> meters_;
};

}  // namespace rapido
