// The effects of one element.
#pragma once

#include <optional>
#include <utility>
#include <vector>

#include "rapido/look/flash_limit.hpp"

namespace rapido {

/// How an effect is played.
enum class PlayAs : std::uint8_t {
    effect,  ///< from rest to rest
    enter,   ///< the element was not there before
    leave,   ///< backwards; the element is not there afterwards
};

/// Plays the effects of one element, one at a time. The pose is a function of time, and at rest when nothing plays. Effects
/// must outlive the player. Times that are passed in must not decrease.
class EffectPlayer {
 public:
    /// `color` is the color of the element, from which the flash limit computes flashes. Without a limit every effect plays.
    explicit EffectPlayer(Color color = {}, FlashLimit* limit = nullptr) : color_(color), limit_(limit) {}
    void set_limit(FlashLimit* limit) { limit_ = limit; }
    /// Sets the color of the element, for effects that start from here on.
    void set_color(Color color);
    /// With reduced motion, effects that start from here on show a steady pose.
    void set_reduced_motion(bool reduced) { reduced_ = reduced; }

    /// Starts an effect at `now`, or at its next beat; while another one runs it does what its `when_busy` says. Returns
    /// false if the effect is dropped: it is cooling down, another one runs, it waits already, or the strength is not finite.
    bool play(const Effect& effect, Nanoseconds now, float strength = 1, std::uint32_t seed = 0,
              PlayAs as = PlayAs::effect);
    /// Ends an effect at the end of its present run; an effect that waits does not start.
    void stop(const Effect& effect, Nanoseconds now);
    /// Ends all effects at once: the element is at rest.
    void clear();

    /// Lets time pass up to `now`: an effect that has ended makes room for the next one.
    void advance(Nanoseconds now);
    Pose pose(Nanoseconds now) const;
    /// The effect that runs, or null; and the progress of its present run, 0 to 1.
    const Effect* running() const { return running_ ? running_->effect : nullptr; }
    double progress(Nanoseconds now) const;
    /// Whether the flash limit, or reduced motion, holds the effect in its steady pose.
    bool is_steady(Nanoseconds now) const { return running_ && now < running_->steady_until; }
    std::uint32_t seed() const { return running_ ? running_->seed : 0; }
    bool resting() const { return !running_ && waiting_.empty(); }

 private:
    struct Playing {
        const Effect* effect = nullptr;
        Nanoseconds start{0};
        float strength = 1;
        std::uint32_t seed = 0;
        int runs = 1;  ///< how often; zero is until it is stopped
        PlayAs as = PlayAs::effect;
        std::int64_t asked = -1;                       ///< the last run that the flash limit was asked for
        Nanoseconds steady_until{Nanoseconds::min()};  ///< held back: its strongest color until then
        Nanoseconds rest_until{Nanoseconds::min()};    ///< and at rest until the next run begins
    };
    static Nanoseconds length(const Effect& effect);
    static Nanoseconds on_beat(const Effect& effect, Nanoseconds time);
    std::optional<Nanoseconds> end() const;
    void begin(Playing playing);
    void hold(Playing& playing, Nanoseconds from);
    void ask_limit(Nanoseconds now);
    void ask_for_run(std::int64_t run);
    const std::vector<Nanoseconds>& flashes_in(const Playing& playing);

    Color color_;
    FlashLimit* limit_;
    bool reduced_ = false;
    std::optional<Playing> running_;
    std::vector<Playing> waiting_;
    std::vector<std::pair<const Effect*, Nanoseconds>> started_;  ///< when, for cool-downs
    struct Found {
        const Effect* effect;
        bool from_rest;
        std::vector<Nanoseconds> flashes;
    };
    std::vector<Found> flashes_;  ///< once for each effect
    std::vector<Nanoseconds> onsets_;
};

}  // namespace rapido
