#include "rapido/look/effect_player.hpp"

#include <algorithm>
#include <cmath>
#include <utility>

#include "base/instants.hpp"
#include "look/burst.hpp"
#include "look/effect_light.hpp"
#include "motion/elementary.hpp"
#include "motion/spring.hpp"

namespace rapido {
namespace {

/// What the keyframes of an effect name. With dots they describe those, and nothing of the element.
std::uint8_t properties_of(const Effect& effect) {
    using enum effect_property::Bits;
    if (effect.dots.count > 0) return dots;
    int named = 0;
    for (const Keyframe& frame : effect.keyframes)
        named |= (frame.scale ? scale : 0) | (frame.offset ? offset : 0) | (frame.rotation ? rotation : 0) |
                 (frame.opacity ? opacity : 0) | (frame.color ? color : 0) | (frame.shine ? shine : 0) |
                 (frame.glow ? glow : 0);
    return static_cast<std::uint8_t>(named);
}

bool is_smooth(const Effect& effect) {
    return !effect.easing.has_jumps() && std::none_of(effect.keyframes.begin(), effect.keyframes.end(),
                                                      [](const Keyframe& frame) { return frame.easing.has_jumps(); });
}

/// A residual settles in this time; after three times as long nothing is seen of it.
constexpr double settling = 0.12;

/// Just before the end of a run: at its end an effect is at rest, whatever its last keyframe says.
const double last_progress = std::nextafter(1.0, 0.0);

/// Over this time the velocity of a pose is measured.
constexpr Nanoseconds moment{100'000};

/// x(t) = (x + (v + w x) t) e^(-w t): a critically damped spring.
class Decay {
 public:
    explicit Decay(Nanoseconds since)
        : seconds_(to_seconds(since).count()), frequency_(frequency()), fade_(exponential(-frequency_ * seconds_)) {}
    double left_of(double distance, double velocity) const {
        return (distance + (velocity + frequency_ * distance) * seconds_) * fade_;
    }
    double velocity_of(double distance, double velocity) const {
        return (velocity - frequency_ * (velocity + frequency_ * distance) * seconds_) * fade_;
    }

 private:
    static double frequency() {
        static const double made = settling_product(1) / settling;
        return made;
    }
    double seconds_, frequency_, fade_;
};

}  // namespace

std::array<double, 5> EffectPlayer::numbers_of(const Pose& pose) {
    return {static_cast<double>(pose.scale), static_cast<double>(pose.offset.x), static_cast<double>(pose.offset.y),
            static_cast<double>(pose.rotation), static_cast<double>(pose.opacity)};
}

EffectPlayer::EffectPlayer(Color color, FlashLimit* limit) : color_(color), limit_(limit) {}
EffectPlayer::~EffectPlayer() = default;
EffectPlayer::EffectPlayer(EffectPlayer&&) noexcept = default;
EffectPlayer& EffectPlayer::operator=(EffectPlayer&&) noexcept = default;

Nanoseconds EffectPlayer::length(const Effect& effect) {
    return std::max(to_nanoseconds(effect.duration), Nanoseconds{1});
}

Nanoseconds EffectPlayer::on_beat(const Effect& effect, Nanoseconds time) {
    const Nanoseconds beat = to_nanoseconds(effect.beat);
    if (beat.count() <= 0) return time;
    return grid_from(time, beat);
}

EffectPlayer::Playing* EffectPlayer::find(EffectCause cause) {
    for (Playing& playing : running_)
        if (playing.options.cause == cause) return &playing;
    return nullptr;
}
const EffectPlayer::Playing* EffectPlayer::find(EffectCause cause) const {
    return const_cast<EffectPlayer*>(this)->find(cause);
}

const Effect* EffectPlayer::running(EffectCause cause) const {
    const Playing* const playing = find(cause);
    return playing != nullptr ? playing->effect : nullptr;
}

std::optional<Nanoseconds> EffectPlayer::end(EffectCause cause) const {
    const Playing* const playing = find(cause);
    return playing != nullptr ? end_of(*playing) : std::nullopt;
}

std::optional<Nanoseconds> EffectPlayer::end_of(const Playing& playing) const {
    if (playing.runs == 0) return std::nullopt;
    return std::max(playing.start + playing.runs * length(*playing.effect), playing.steady_until);
}

/// When its next run begins, or when it ends.
Nanoseconds EffectPlayer::next_moment(const Playing& playing) const {
    const Nanoseconds run = playing.start + (playing.asked + 1) * length(*playing.effect);
    const std::optional<Nanoseconds> end = end_of(playing);
    const bool has_more = playing.runs == 0 || playing.asked + 1 < playing.runs;
    return has_more ? run : *end;
}

/// The progress of the present run; `before` it is that of the run that ends at this moment.
double EffectPlayer::Playing::progress(Nanoseconds now, bool before) const {
    const Nanoseconds whole = length(*effect);
    const Nanoseconds done = (now - start) % whole;
    if (before && done == Nanoseconds::zero() && now > start) return last_progress;
    return to_seconds(done) / to_seconds(whole);
}

/// Returns the properties that one effect has a say in, at a moment and on this side of it, which become those that are seen then.
std::uint8_t EffectPlayer::say_of_one(const Playing& playing, Nanoseconds& now, bool& before) const {
    using enum effect_property::Bits;
    if (playing.is_to_enter(now)) return playing.properties;
    const bool has_begun = playing.asked >= 0 && (before ? now > playing.start : now >= playing.start);
    if (!has_begun) return 0;
    if (const Nanoseconds seen = light_ != nullptr ? light_->held_at(now) : now; seen != now) {
        const bool is_steady = playing.steady_until > now;
        now = seen;
        before = false;
        // What has begun since then is at rest.
        if (seen < playing.start) return is_steady ? std::uint8_t{color} : playing.properties;
    }
    const bool is_steady = before ? now <= playing.steady_until : now < playing.steady_until;
    return is_steady ? std::uint8_t{color} : playing.properties;
}

/// Sets the pose that one effect wants. Returns the properties that it has a say in.
std::uint8_t EffectPlayer::pose_of_one(const Playing& playing, Nanoseconds now, bool before, Pose& pose) const {
    const std::uint8_t says = say_of_one(playing, now, before);
    const bool is_to_enter = playing.is_to_enter(now);
    if (says == 0 || (now < playing.start && !is_to_enter)) return says;
    if (before ? now <= playing.steady_until : now < playing.steady_until) {
        pose = steady_pose(*playing.effect);
        return says;
    }
    const double part = is_to_enter ? 0 : playing.progress(now, before);
    pose = pose_of(*playing.effect, playing.options.as == PlayAs::leave ? std::min(1 - part, last_progress) : part,
                   playing.options.strength, playing.options.seed);
    pose.pivot = playing.effect->pivot;
    return says;
}

/// Each property by the strongest cause that names it.
Pose EffectPlayer::composed(Nanoseconds now, bool before, bool without_ended) const {
    using enum effect_property::Bits;
    Pose all;
    int taken = 0;
    for (const Playing& playing : running_) {
        if (without_ended)
            if (const auto end = end_of(playing); end && *end <= now) continue;
        Pose one;
        const int own = pose_of_one(playing, now, before, one);
        const int wins = own & ~taken;
        if ((wins & scale) != 0) all.scale = one.scale;
        if ((wins & offset) != 0) all.offset = one.offset;
        if ((wins & rotation) != 0) all.rotation = one.rotation;
        if ((wins & opacity) != 0) all.opacity = one.opacity;
        if ((wins & glow) != 0) all.glow = one.glow;
        if ((wins & shine) != 0) all.shine = one.shine;
        if ((wins & color) != 0) {
            all.color = one.color;
            all.color_part = one.color_part;
        }
        if ((wins & (scale | rotation)) != 0 && (taken & (scale | rotation)) == 0) all.pivot = one.pivot;
        taken |= own;
    }
    return all;
}

Pose EffectPlayer::with_residual(Pose pose, Nanoseconds now) const {
    if (residual_.is_active && now < *residual_.since + residual_length) {
        const Decay decay(now - *residual_.since);
        std::array<double, 5> left{};
        for (std::size_t i = 0; i < left.size(); ++i)
            left[i] = decay.left_of(residual_.distance[i], residual_.velocity[i]);
        pose.scale += static_cast<float>(left[0]);
        pose.offset.x += static_cast<float>(left[1]);
        pose.offset.y += static_cast<float>(left[2]);
        pose.rotation += static_cast<float>(left[3]);
        pose.opacity = std::clamp(pose.opacity + static_cast<float>(left[4]), 0.0F, 1.0F);
        if (!pose.pivot) pose.pivot = residual_.pivot;
    }
    if (pose.scale == 1 && pose.rotation == 0) pose.pivot.reset();
    return pose;
}

Pose EffectPlayer::due_pose(Nanoseconds now) const {
    if (light_ != nullptr && light_->instead && light_->instead_at == now) return *light_->instead;
    return with_residual(composed(now, false), now);
}

/// Frames ask more than once at the same moment.
Pose EffectPlayer::pose(Nanoseconds now) const {
    if (std::exchange(posed_at_, now) != now) posed_ = due_pose(now);
    return posed_;
}

/// The velocity of the pose just before a moment, on this side of the last change. What is drawn in steps has none.
std::array<double, 5> EffectPlayer::velocity_before(Nanoseconds at) const {
    if (residual_.since == at) return residual_.velocity;
    std::array<double, 5> velocity{};
    const bool all_smooth =
        std::all_of(running_.begin(), running_.end(), [](const Playing& playing) { return playing.is_smooth; });
    if (!all_smooth) return velocity;
    const Nanoseconds step = residual_.since ? std::min(moment, at - *residual_.since) : moment;
    const std::array<double, 5> now = numbers_of(with_residual(composed(at, true), at));
    const std::array<double, 5> earlier = numbers_of(with_residual(composed(at - step, false), at - step));
    for (std::size_t i = 0; i < velocity.size(); ++i)
        velocity[i] = (now[i] - earlier[i]) / to_seconds(step).count();
    return velocity;
}

EffectPlayer::Winners EffectPlayer::winners(Nanoseconds now, bool before) const {
    using enum effect_property::Bits;
    constexpr std::array<int, 5> properties{scale, offset, offset, rotation, opacity};
    Winners won{};
    for (const Playing& playing : running_) {
        Nanoseconds seen = now;
        bool side = before;
        const int own = say_of_one(playing, seen, side);
        for (std::size_t i = 0; i < won.size(); ++i)
            if (won[i] == 0 && (own & properties[i]) != 0) won[i] = playing.number;
    }
    return won;
}

EffectPlayer::Before EffectPlayer::before_change(Nanoseconds at, GoesOn goes_on) const {
    Before before;
    before.goes_on = goes_on;
    if (goes_on == GoesOn::not_at_all) return before;
    // Where something else has changed at this moment, what ends there is in the residual already.
    const bool is_first = residual_.since != at;
    const Pose way = composed(at, is_first);
    const Pose seen = with_residual(way, at);
    before.pivot = seen.pivot;
    before.seen = numbers_of(seen);
    before.way = numbers_of(way);
    before.won = winners(at, is_first);
    if (residual_.is_active) {
        const Decay decay(at - *residual_.since);
        for (std::size_t i = 0; i < before.left.size(); ++i) {
            before.left[i] = decay.left_of(residual_.distance[i], residual_.velocity[i]);
            before.left_velocity[i] = decay.velocity_of(residual_.distance[i], residual_.velocity[i]);
        }
    }
    before.velocity = goes_on == GoesOn::moving ? velocity_before(at) : before.left_velocity;
    return before;
}

void EffectPlayer::go_on_from(const Before& before, Nanoseconds at) {
    const std::array<double, 5> way = numbers_of(composed(at, false));
    const Winners won = winners(at, false);
    Residual rest{.distance = {}, .velocity = {}, .since = at, .pivot = before.pivot, .is_active = false};
    for (std::size_t i = 0; i < way.size(); ++i) {
        const bool was_at_rest = before.won[i] == 0 && before.left[i] == 0 && before.left_velocity[i] == 0;
        if (won[i] == before.won[i]) {
            // It goes its own way, whatever has changed beside it.
            rest.distance[i] = before.left[i] + (before.way[i] - way[i]);
            rest.velocity[i] = before.left_velocity[i];
        } else if (!was_at_rest) {
            rest.distance[i] = before.seen[i] - way[i];
            rest.velocity[i] = before.velocity[i];
        }
        rest.is_active = rest.is_active || rest.distance[i] != 0 || rest.velocity[i] != 0;
    }
    residual_ = rest;
}

template <class Change>
void EffectPlayer::change_at(Nanoseconds at, GoesOn goes_on, Change change) {
    follow_light(at);
    const Before before = before_change(at, goes_on);
    change();
    if (goes_on != GoesOn::not_at_all) go_on_from(before, at);
    ask_for_light(before, at);
}

/// Where an effect that enters or leaves begins, so that it takes over from what is seen: at the opacity of this moment.
double EffectPlayer::turned_progress(const Effect& effect, PlayAs as, Nanoseconds now) const {
    using enum effect_property::Bits;
    if ((properties_of(effect) & opacity) == 0) return 0;
    constexpr int steps = 256;
    const double seen = static_cast<double>(due_pose(now).opacity);
    double nearest = 2, found = 0;
    for (int i = 0; i < steps; ++i) {
        const double part = static_cast<double>(i) / steps;
        const double progress = as == PlayAs::leave ? std::min(1 - part, last_progress) : part;
        const double distance = std::abs(static_cast<double>(pose_of(effect, progress).opacity) - seen);
        if (distance >= nearest) continue;
        nearest = distance;
        found = part;
    }
    return found;
}

bool EffectPlayer::play(const Effect& effect, Nanoseconds now, const PlayOptions& options) {
    advance(now);
    quiet_until_ = posed_at_ = Nanoseconds::min();
    if (!std::isfinite(options.strength)) return false;
    const auto last =
        std::find_if(started_.begin(), started_.end(), [&](const auto& started) { return started.first == &effect; });
    const bool known = last != started_.end();
    if (known && effect.cool_down > Seconds{0} && now < last->second + to_nanoseconds(effect.cool_down)) return false;
    Playing playing{.effect = &effect,
                    .start = now,
                    .options = options,
                    .runs = std::max(effect.repeat, 0),
                    .properties = properties_of(effect),
                    .is_smooth = is_smooth(effect)};
    const Playing* const busy = find(options.cause);
    if (busy != nullptr && options.as != PlayAs::effect) {
        // What enters turns round where it is, whatever effect it leaves by.
        if (busy->options.as != options.as) {
            const Nanoseconds whole = length(effect);
            const bool is_same = busy->effect == &effect && busy->runs == 1;
            playing.start = is_same
                                ? now - (whole - std::clamp(now - busy->start, Nanoseconds{0}, whole))
                                : now - to_nanoseconds(to_seconds(whole) * turned_progress(effect, options.as, now));
            playing.asked = 0;
        }
        change_at(now, playing.is_smooth && busy->is_smooth ? GoesOn::moving : GoesOn::not_at_all,
                  [&] { begin(playing); });
    } else if (busy != nullptr && effect.when_busy != WhenBusy::interrupt) {
        const bool waits_already = std::any_of(waiting_.begin(), waiting_.end(), [&](const Playing& other) {
            return other.effect == &effect && other.options.cause == options.cause;
        });
        const bool endless = busy->effect == &effect && busy->runs == 0;
        if (effect.when_busy == WhenBusy::drop || waits_already || endless) return false;
        waiting_.push_back(playing);
    } else {
        playing.start = on_beat(effect, now + to_nanoseconds(std::max(effect.delay, Seconds{0})));
        change_at(now, busy == nullptr || busy->is_smooth ? GoesOn::moving : GoesOn::not_at_all,
                  [&] { begin(playing); });
    }
    if (known)
        last->second = now;
    else
        started_.emplace_back(&effect, now);
    advance(now);
    return true;
}

/// Puts it in the place of the one that runs for its cause.
void EffectPlayer::end_emission(EffectCause cause, Nanoseconds at) {
    for (Emission& emission : emissions_)
        if (emission.cause == cause && emission.end == Nanoseconds::max()) emission.end = std::max(at, emission.start);
}

/// Nothing is left of them when the last particle that they had is gone. Of very many only the latest are kept.
void EffectPlayer::forget_emissions(Nanoseconds now) {
    constexpr std::size_t most = 8;
    std::erase_if(emissions_, [now](const Emission& emission) {
        return emission.end != Nanoseconds::max() &&
               now >= emission.end + to_nanoseconds(emission.effect->particles.life);
    });
    if (emissions_.size() > most)
        emissions_.erase(emissions_.begin(), emissions_.end() - static_cast<std::ptrdiff_t>(most));
}

void EffectPlayer::begin(Playing playing) {
    end_emission(playing.options.cause, playing.start);
    playing.number = ++begun_;
    emit(playing, playing.start);
    Playing* const before = find(playing.options.cause);
    if (before == nullptr) {
        const auto stronger = [](const Playing& a, const Playing& b) { return a.options.cause > b.options.cause; };
        running_.insert(std::upper_bound(running_.begin(), running_.end(), playing, stronger), playing);
        return;
    }
    *before = playing;
}

void EffectPlayer::emit(Playing& playing, Nanoseconds at) {
    const Particles& particles = playing.effect->particles;
    if (reduced_ || playing.emits || (particles.rate <= 0 && particles.burst <= 0)) return;
    playing.emits = true;
    emissions_.push_back({playing.effect, playing.options.cause, at, Nanoseconds::max(), playing.options.seed});
    forget_emissions(at);
}

bool EffectPlayer::forget(const Effect& effect) {
    const auto is_it = [&effect](const auto& user) { return user.effect == &effect; };
    if (std::any_of(running_.begin(), running_.end(), is_it) || std::any_of(waiting_.begin(), waiting_.end(), is_it) ||
        std::any_of(emissions_.begin(), emissions_.end(), is_it))
        return false;
    std::erase_if(started_, [&effect](const auto& started) { return started.first == &effect; });
    return true;
}

void EffectPlayer::stop(const Effect& effect, Nanoseconds now, std::optional<EffectCause> cause) {
    advance(now);
    quiet_until_ = posed_at_ = Nanoseconds::min();
    const auto is_meant = [&](const Playing& playing) {
        return playing.effect == &effect && (!cause || playing.options.cause == *cause);
    };
    std::erase_if(waiting_, is_meant);
    std::erase_if(running_, [&](const Playing& playing) { return is_meant(playing) && now <= playing.start; });
    for (Playing& playing : running_) {
        if (!is_meant(playing)) continue;
        const auto done = (now - playing.start) / length(effect);
        playing.runs = static_cast<int>(std::min<std::int64_t>(done, 1'000'000'000)) + 1;
    }
    advance(now);
}

void EffectPlayer::clear() {
    if (light_ != nullptr) {
        // What was to come does not.
        if (limit_ != nullptr && light_->owner != 0)
            limit_->cut(light_->owner, std::max(light_->followed, light_->drawn) + Nanoseconds{1});
        light_->forget();
    }
    running_.clear();
    waiting_.clear();
    residual_ = {};
    emissions_.clear();
    quiet_until_ = posed_at_ = Nanoseconds::min();
}

/// What begins and what ends, in the order of time.
void EffectPlayer::advance(Nanoseconds now) {
    if (now < quiet_until_) return;
    posed_at_ = Nanoseconds::min();
    while (true) {
        const Playing* next = nullptr;
        for (Playing& playing : running_) {
            // Runs of long ago are in no second that is still to come.
            constexpr std::int64_t recent = 64;
            const std::int64_t run = (now - playing.start) / length(*playing.effect);
            const std::int64_t last = playing.runs == 0 ? run : std::min<std::int64_t>(run, playing.runs - 1);
            if (now >= playing.start) playing.asked = std::max(playing.asked, last - recent);
            if (next == nullptr || next_moment(playing) < next_moment(*next)) next = &playing;
        }
        if (next == nullptr || next_moment(*next) > now) break;
        const bool ends = next->runs != 0 && next->asked + 1 >= next->runs;
        if (ends)
            finish(next->options.cause, next_moment(*next));
        else
            begin_run(next->options.cause, next_moment(*next));
    }
    if (residual_.is_active && now >= *residual_.since + residual_length) residual_ = {};
    forget_emissions(now);
    quiet_until_ = residual_.is_active ? *residual_.since + residual_length : Nanoseconds::max();
    for (const Emission& emission : emissions_)
        if (emission.end != Nanoseconds::max())
            quiet_until_ = std::min(quiet_until_, emission.end + to_nanoseconds(emission.effect->particles.life));
    for (const Playing& playing : running_)
        quiet_until_ = std::min(quiet_until_, next_moment(playing));
}

/// The next one that waits for this cause has its turn.
void EffectPlayer::finish(EffectCause cause, Nanoseconds at) {
    end_emission(cause, at);
    const Playing* const over = find(cause);
    const bool leaves = over->options.as == PlayAs::leave;
    const bool goes_on = over->is_smooth && over->steady_until < at && !leaves;
    change_at(at, goes_on ? GoesOn::from_there : GoesOn::not_at_all, [&] {
        std::erase_if(running_, [&](const Playing& playing) { return playing.options.cause == cause; });
        if (leaves && light_ != nullptr) light_->is_absent = true;
        const auto next = std::find_if(waiting_.begin(), waiting_.end(),
                                       [&](const Playing& waiting) { return waiting.options.cause == cause; });
        if (next == waiting_.end()) return;
        Playing playing = *next;
        waiting_.erase(next);
        playing.start = on_beat(*playing.effect, at);
        begin(playing);
    });
}

/// Its present run begins: at first from what was there before.
void EffectPlayer::begin_run(EffectCause cause, Nanoseconds at) {
    Playing& playing = *find(cause);
    const bool appears = playing.asked < 0 && playing.options.as == PlayAs::enter;
    if (appears) residual_ = {};
    if (appears && limit_ != nullptr) {
        if (light_ == nullptr) light_ = std::make_unique<Light>(color_);
        light_->is_absent = true;
    }
    const GoesOn goes_on = playing.asked < 0 ? GoesOn::moving : GoesOn::from_there;
    change_at(at, playing.is_smooth && !appears ? goes_on : GoesOn::not_at_all,
              [&] { ask_for_run(playing, playing.asked + 1); });
    // A steady pose is there at once.
    if (at < playing.steady_until) residual_ = {};
}

/// Under reduced motion a run shows a steady pose; a burst of particles that would be a flash too many does not fly.
void EffectPlayer::ask_for_run(Playing& playing, std::int64_t run) {
    const Nanoseconds whole = length(*playing.effect);
    playing.asked = run;
    const Nanoseconds begun = playing.start + run * whole;
    if (reduced_ && playing.options.cause != EffectCause::visibility) {
        playing.steady_until = begun + whole;
        return;
    }
    if (limit_ == nullptr || !burst_flashes(playing.effect->particles)) return;
    if (light_ == nullptr) light_ = std::make_unique<Light>(color_);
    emit(playing, begun);
    playing.burst_at = begun;
    if (light_->is_known) ask_for_burst(playing);
}

void EffectPlayer::ask_for_burst(Playing& playing) {
    const Particles& particles = playing.effect->particles;
    const Nanoseconds begun = *std::exchange(playing.burst_at, std::nullopt);
    const FlashLook& look = light_->look;
    const std::optional<Color>& ground = look.settings.ground;
    if (ground && !is_flash_change(*ground, particles.color.value())) return;
    const Flash flash{
        begun, begun + to_nanoseconds(std::min(particles.life, playing.effect->duration)), look.box,
        look.settings.rule != FlashRule::any_size ? burst_area(particles) * look.unit * look.unit : Flash::any_size};
    if (limit_->admit(flash)) return;
    end_emission(playing.options.cause, begun);
    playing.emits = false;
}

double EffectPlayer::progress(Nanoseconds now) const {
    if (running_.empty() || now < running_.front().start) return 0;
    return running_.front().progress(now, false);
}

std::optional<EffectPlayer::FlyingDots> EffectPlayer::dots(Nanoseconds now) const {
    for (const Playing& playing : running_) {
        Pose pose;
        const bool flies = playing.effect->dots.count > 0 && now >= playing.steady_until;
        if (!flies || pose_of_one(playing, now, false, pose) == 0) continue;
        pose.pivot.reset();
        if (!(pose == Pose{})) return FlyingDots{&playing.effect->dots, pose, playing.options.seed};
    }
    return std::nullopt;
}

}  // namespace rapido
