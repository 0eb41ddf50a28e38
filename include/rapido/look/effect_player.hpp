// The effects of one element.
#pragma once

#include <array>
#include <optional>
#include <span>
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

/// Why an effect plays, the weakest cause first.
enum class EffectCause : std::uint8_t {
    band,        ///< the value is in a band
    trigger,     ///< something happened to a value or a timer
    call,        ///< the game asked for it
    visibility,  ///< the element becomes visible or hidden
};

/// How one start of an effect differs from others.
struct PlayOptions {
    float strength = 1;      ///< -100 to 100, multiplies the distance from rest
    std::uint32_t seed = 0;  ///< chooses the random directions
    PlayAs as = PlayAs::effect;
    EffectCause cause = EffectCause::call;
};

/// Plays the effects of one element, for each cause one at a time. Each property (scale, offset, rotation, opacity, color,
/// shine, dots) is that of the strongest cause whose effect has keyframes for it, and at rest without one.
///
/// Whenever one effect takes over from another, scale, offset, rotation and opacity go on from where they are: the distance to
/// the new way, with the velocity of the old one, decays as a critically damped spring that settles in 120 ms. Exempt are effects
/// with `steps()`, steady poses, and the first moment of an element that was not there before. Poses are functions of the times
/// at which effects start, not sums over frames.
///
/// Effects must outlive the player. Times that are passed in must not decrease.
class EffectPlayer {
 public:
    /// `color` is the color of the element, from which the flash limit computes flashes. Without a limit every effect plays.
    explicit EffectPlayer(Color color = {}, FlashLimit* limit = nullptr) : color_(color), limit_(limit) {}
    void set_limit(FlashLimit* limit) { limit_ = limit; }
    /// Sets the color of the element, for effects that start from here on.
    void set_color(Color color);
    /// With reduced motion, effects that start from here on show a steady pose, but for those of visibility.
    void set_reduced_motion(bool reduced) { reduced_ = reduced; }

    /// Starts an effect at `now`, or at its next beat; while another one of the same cause runs it does what its `when_busy`
    /// says. Returns false if the effect is dropped: it is cooling down, another one runs, it waits already, or the strength is
    /// not finite. An effect that leaves while it enters, or enters while it leaves, turns round where it is.
    bool play(const Effect& effect, Nanoseconds now, const PlayOptions& options = {});
    /// Ends an effect at the end of its present run, whatever its cause or for one cause; if it waits it does not start.
    void stop(const Effect& effect, Nanoseconds now, std::optional<EffectCause> cause = {});
    /// Ends all effects at once: the element is at rest.
    void clear();

    /// Lets time pass up to `now`: an effect that has ended makes room for the next one.
    void advance(Nanoseconds now);
    /// The pose of the element itself: an effect with dots moves only those.
    Pose pose(Nanoseconds now) const;
    /// Dots that fly.
    struct FlyingDots {
        const Dots* dots;
        Pose pose;
        std::uint32_t seed;
    };
    std::optional<FlyingDots> dots(Nanoseconds now) const;
    /// The time in which an effect has particles born.
    struct Emission {
        const Effect* effect = nullptr;
        EffectCause cause = EffectCause::call;
        Nanoseconds start{0};
        Nanoseconds end{(Nanoseconds::max)()};  ///< `max` while it goes on
        std::uint32_t seed = 0;
    };
    /// Those of which particles may still fly, the latest last.
    std::span<const Emission> emissions() const { return emissions_; }
    /// The effect of the strongest cause that runs, or null; and the progress of its present run, 0 to 1.
    const Effect* running() const { return running_.empty() ? nullptr : running_.front().effect; }
    double progress(Nanoseconds now) const;
    /// The effect that runs for this cause, or null.
    const Effect* running(EffectCause cause) const;
    bool resting() const {
        return running_.empty() && waiting_.empty() && !residual_.is_active && emissions_.empty();
    }

 private:
    struct Playing {
        const Effect* effect = nullptr;
        Nanoseconds start{0};
        PlayOptions options;
        int runs = 1;                 ///< how often; zero is until it is stopped
        std::uint8_t properties = 0;  ///< those that its keyframes name
        bool is_smooth = true;        ///< no part of it is drawn in steps
        std::int64_t asked = -1;      ///< the last run that has begun, and that the flash limit was asked for
        Nanoseconds steady_until{(Nanoseconds::min)()};  ///< held back: its strongest color until then
        Nanoseconds rest_until{(Nanoseconds::min)()};    ///< and at rest until the next run begins

        double progress(Nanoseconds now, bool before) const;
    };
    /// What is left of the pose before the last change: scale, offset, rotation, opacity.
    struct Residual {
        std::array<double, 5> distance{}, velocity{};
        std::optional<Nanoseconds> since;  ///< the last change of what runs
        std::optional<Anchor> pivot;
        bool is_active = false;
    };
    static std::array<double, 5> numbers_of(const Pose& pose);
    static Nanoseconds length(const Effect& effect);
    static Nanoseconds on_beat(const Effect& effect, Nanoseconds time);
    Playing* find(EffectCause cause);
    const Playing* find(EffectCause cause) const;
    std::optional<Nanoseconds> end_of(const Playing& playing) const;
    Nanoseconds next_moment(const Playing& playing) const;
    std::uint8_t pose_of_one(const Playing& playing, Nanoseconds now, bool before, Pose& pose) const;
    Pose composed(Nanoseconds now, bool before) const;
    Pose with_residual(Pose pose, Nanoseconds now) const;
    /// How the pose goes on where what runs changes: from where it is, with or without the velocity that the old way has there.
    enum class GoesOn : std::uint8_t { not_at_all, from_there, moving };
    std::array<double, 5> velocity_before(Nanoseconds at) const;
    template <class Change>
    void change_at(Nanoseconds at, GoesOn goes_on, Change change);
    void begin(Playing playing);
    void end_emission(EffectCause cause, Nanoseconds at);
    void forget_emissions(Nanoseconds now);
    void finish(EffectCause cause, Nanoseconds at);
    void begin_run(EffectCause cause, Nanoseconds at);
    void hold(Playing& playing, Nanoseconds from);
    void ask_for_run(Playing& playing, std::int64_t run);
    const std::vector<Nanoseconds>& flashes_in(const Playing& playing);

    Color color_;
    FlashLimit* limit_;
    bool reduced_ = false;
    Nanoseconds quiet_until_{(Nanoseconds::min)()};  ///< before that nothing begins and nothing ends
    std::vector<Playing> running_;                   ///< at most one for each cause, the strongest first
    std::vector<Playing> waiting_;
    std::vector<Emission> emissions_;
    Residual residual_;
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
