// The effects of one element.
#pragma once

#include <array>
#include <memory>
#include <optional>
#include <span>
#include <utility>
#include <vector>

#include "rapido/base/exported.hpp"
#include "rapido/look/flash_limit.hpp"

namespace rapido RAPIDO_EXPORTED {

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
/// with `steps()`, steady poses, and the first moment of an element that was not there before. A property that was at rest follows its
/// keyframes from the first moment on, and one whose cause stays the same is not disturbed. Poses are functions of the times at which
/// effects start, not sums over frames.
///
/// With a flash limit, each flash that a run would make is asked for when the run begins, or when anything else changes. Where one is
/// refused, the pose stands still from the turn before that flash until it would be over, at rest where the run has just begun; what the
/// element shows is not touched.
///
/// Effects must outlive the player. Times that are passed in must not decrease.
class EffectPlayer {
 public:
    /// `color` is the color of the element, from which flashes of any size are computed. Without a limit every effect plays.
    explicit EffectPlayer(Color color = {}, FlashLimit* limit = nullptr);
    ~EffectPlayer();
    EffectPlayer(EffectPlayer&&) noexcept;
    EffectPlayer& operator=(EffectPlayer&&) noexcept;
    void set_limit(FlashLimit* limit);
    /// Sets the color of the element, of an unknown size, for runs that begin from here on.
    void set_color(Color color);
    /// Sets what the element draws at a moment at which it is seen, after all that happens then: in each frame. Runs that have begun while
    /// nothing was known of it are asked for now.
    void set_look(const FlashLook& look, Nanoseconds now);
    /// Says that a frame is drawn at this moment, after all that happens then. A flash that comes about in what is drawn and could not be
    /// foreseen, as where effects take over from each other again and again, is asked for now; where it is refused, `pose` is the one of the
    /// frame before for this moment.
    void watch(Nanoseconds now);
    /// Lets nothing be known of what the element draws until the next `set_look`: nothing flashes so long.
    void forget_look();
    /// Whether the flash limit holds the pose at this moment.
    bool is_limited(Nanoseconds now) const;
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
    /// Lets go of an effect that will not be there any more, and of its cool-down. False while it runs, waits, or its particles fly.
    bool forget(const Effect& effect);

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
    /// When the effect that runs for this cause ends; nothing where none runs, or without an end.
    std::optional<Nanoseconds> end(EffectCause cause) const;
    bool resting() const { return running_.empty() && waiting_.empty() && !residual_.is_active && emissions_.empty(); }

 private:
    struct Playing {
        const Effect* effect = nullptr;
        Nanoseconds start{0};
        PlayOptions options;
        int runs = 1;                 ///< how often; zero is until it is stopped
        std::uint8_t properties = 0;  ///< those that its keyframes name
        std::uint32_t number = 0;     ///< of all that have begun
        bool is_smooth = true;        ///< no part of it is drawn in steps
        std::int64_t asked = -1;      ///< the last run that has begun, and that the flash limit was asked for
        Nanoseconds steady_until{(Nanoseconds::min)()};  ///< under reduced motion: its strongest color until then
        bool emits = false;                              ///< its particles are born
        std::optional<Nanoseconds> burst_at{};           ///< a burst that the flash limit is still to be asked for

        double progress(Nanoseconds now, bool before) const;
        /// Whether the element enters with it, and waits for its delay: it is as its first moment says.
        bool is_to_enter(Nanoseconds now) const {
            return options.as == PlayAs::enter && asked < 0 && now < start && effect->delay > Seconds{0} &&
                   effect->dots.count == 0;
        }
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
    std::uint8_t say_of_one(const Playing& playing, Nanoseconds& now, bool& before) const;
    std::uint8_t pose_of_one(const Playing& playing, Nanoseconds now, bool before, Pose& pose) const;
    Pose composed(Nanoseconds now, bool before, bool without_ended = false) const;
    Pose with_residual(Pose pose, Nanoseconds now) const;
    Pose due_pose(Nanoseconds now) const;
    /// How the pose goes on where what runs changes: from where it is, with or without the velocity that the old way has there.
    enum class GoesOn : std::uint8_t { not_at_all, from_there, moving };
    /// The number of what gives each of the five numbers of a pose; zero for none.
    using Winners = std::array<std::uint32_t, 5>;
    Winners winners(Nanoseconds now, bool before) const;
    std::array<double, 5> velocity_before(Nanoseconds at) const;
    /// What was seen just before what runs changed, and how it goes on.
    struct Before {
        GoesOn goes_on = GoesOn::not_at_all;
        std::optional<Anchor> pivot;
        std::array<double, 5> seen{}, way{}, velocity{};
        std::array<double, 5> left{}, left_velocity{};  ///< of the residual
        Winners won{};
    };
    Before before_change(Nanoseconds at, GoesOn goes_on) const;
    void go_on_from(const Before& before, Nanoseconds at);
    template <class Change>
    void change_at(Nanoseconds at, GoesOn goes_on, Change change);
    double turned_progress(const Effect& effect, PlayAs as, Nanoseconds now) const;
    void begin(Playing playing);
    void emit(Playing& playing, Nanoseconds at);
    void end_emission(EffectCause cause, Nanoseconds at);
    void forget_emissions(Nanoseconds now);
    void finish(EffectCause cause, Nanoseconds at);
    void begin_run(EffectCause cause, Nanoseconds at);
    void ask_for_run(Playing& playing, std::int64_t run);
    void ask_for_burst(Playing& playing);

    // Flashes
    struct Light;
    bool may_flash() const;
    void follow_light(Nanoseconds to);
    void ask_for_light(const Before& before, Nanoseconds at);
    bool plan_light(Nanoseconds at);
    void find_moments(Nanoseconds from, Nanoseconds to);
    void find_poses(Nanoseconds from, Nanoseconds to);
    Pose pose_in(Nanoseconds from, Nanoseconds at, Nanoseconds to) const;

    Color color_;
    FlashLimit* limit_;
    bool reduced_ = false;
    Nanoseconds quiet_until_{(Nanoseconds::min)()};  ///< before that nothing begins and nothing ends
    std::vector<Playing> running_;                   ///< at most one for each cause, the strongest first
    std::vector<Playing> waiting_;
    std::vector<Emission> emissions_;
    Residual residual_;
    std::uint32_t begun_ = 0;                                     ///< how many
    std::vector<std::pair<const Effect*, Nanoseconds>> started_;  ///< when, for cool-downs
    mutable Pose posed_;                                          ///< that of `posed_at_`
    mutable Nanoseconds posed_at_{(Nanoseconds::min)()};
    std::unique_ptr<Light> light_;  ///< null until an effect changes it where there is a limit
};

}  // namespace rapido
