#include "rapido/look/effect_player.hpp"

#include <algorithm>
#include <cmath>

#include "base/instants.hpp"

namespace rapido {

void EffectPlayer::set_color(Color color) {
    if (color == color_) return;
    color_ = color;
    flashes_.clear();
}

Nanoseconds EffectPlayer::length(const Effect& effect) {
    return std::max(to_nanoseconds(effect.duration), Nanoseconds{1});
}

Nanoseconds EffectPlayer::on_beat(const Effect& effect, Nanoseconds time) {
    const Nanoseconds beat = to_nanoseconds(effect.beat);
    if (beat.count() <= 0) return time;
    return grid_from(time, beat);
}

std::optional<Nanoseconds> EffectPlayer::end() const {
    if (!running_ || running_->runs == 0) return std::nullopt;
    return std::max(running_->start + running_->runs * length(*running_->effect), running_->steady_until);
}

void EffectPlayer::begin(Playing playing) {
    playing.start = on_beat(*playing.effect, playing.start);
    // One flash into another: the second only keeps the element bright, and lets it fall when a flash may end.
    const bool flashes = running_ && limit_ != nullptr && !reduced_ && !flashes_in(*running_).empty();
    if (flashes && !flashes_in(playing).empty()) {
        playing.steady_until = running_->steady_until;
        hold(playing, playing.start);
        playing.asked = 0;
    } else if (running_ && running_->steady_until > playing.start) {
        playing.steady_until = running_->steady_until;
    }
    running_ = playing;
}

bool EffectPlayer::play(const Effect& effect, Nanoseconds now, float strength, std::uint32_t seed,
                        PlayAs as) {
    advance(now);
    if (!std::isfinite(strength)) return false;
    const auto last = std::find_if(started_.begin(), started_.end(),
                                   [&](const auto& started) { return started.first == &effect; });
    const bool known = last != started_.end();
    if (known && effect.cool_down > Seconds{0} && now < last->second + to_nanoseconds(effect.cool_down))
        return false;
    const Playing playing{.effect = &effect,
                          .start = now,
                          .strength = strength,
                          .seed = seed,
                          .runs = std::max(effect.repeat, 0),
                          .as = as};
    if (running_ && effect.when_busy != WhenBusy::interrupt) {
        const bool waits_already = std::any_of(waiting_.begin(), waiting_.end(),
                                               [&](const Playing& other) { return other.effect == &effect; });
        const bool endless = running_->effect == &effect && running_->runs == 0;
        if (effect.when_busy == WhenBusy::drop || waits_already || endless) return false;
        waiting_.push_back(playing);
    } else {
        begin(playing);
    }
    if (known)
        last->second = now;
    else
        started_.emplace_back(&effect, now);
    advance(now);
    return true;
}

void EffectPlayer::stop(const Effect& effect, Nanoseconds now) {
    advance(now);
    std::erase_if(waiting_, [&](const Playing& playing) { return playing.effect == &effect; });
    if (!running_ || running_->effect != &effect) return;
    if (now <= running_->start) {
        running_.reset();
        return advance(now);
    }
    const auto done = (now - running_->start) / length(effect);
    running_->runs = static_cast<int>(std::min<std::int64_t>(done, 1'000'000'000)) + 1;
}

void EffectPlayer::clear() {
    running_.reset();
    waiting_.clear();
}

void EffectPlayer::advance(Nanoseconds now) {
    while (const std::optional<Nanoseconds> over = end()) {
        if (*over > now) break;
        running_.reset();
        if (waiting_.empty()) break;
        Playing next = waiting_.front();
        waiting_.erase(waiting_.begin());
        next.start = *over;
        begin(next);
    }
    ask_limit(now);
}

const std::vector<Nanoseconds>& EffectPlayer::flashes_in(const Playing& playing) {
    const bool from_rest = playing.as == PlayAs::effect;
    for (const Found& known : flashes_)
        if (known.effect == playing.effect && known.from_rest == from_rest) return known.flashes;
    return flashes_
        .emplace_back(Found{playing.effect, from_rest, flashes_of(*playing.effect, color_, from_rest)})
        .flashes;
}

/// Bright from here on, at least for one run, until the fall is a flash that the limit takes on.
void EffectPlayer::hold(Playing& playing, Nanoseconds from) {
    const Nanoseconds least = from + length(*playing.effect);
    if (playing.steady_until >= least) return;
    if (playing.steady_until > from) limit_->release(playing.steady_until);
    playing.steady_until = limit_->reserve(least);
}

/// Each run of an effect that flashes is admitted, or held back.
void EffectPlayer::ask_limit(Nanoseconds now) {
    if (!running_ || now < running_->start) return;
    const std::int64_t run = (now - running_->start) / length(*running_->effect);
    // Runs of long ago are in no second that is still to come.
    constexpr std::int64_t recent = 64;
    for (std::int64_t next = std::max(running_->asked + 1, run - recent); next <= run; ++next)
        ask_for_run(next);
}

void EffectPlayer::ask_for_run(std::int64_t run) {
    const Nanoseconds whole = length(*running_->effect);
    running_->asked = run;
    const Nanoseconds begun = running_->start + run * whole;
    if (reduced_) {
        running_->steady_until = begun + whole;
        return;
    }
    if (running_->steady_until > begun) {
        running_->rest_until = begun + whole;
        return;
    }
    if (limit_ == nullptr || flashes_in(*running_).empty()) return;
    onsets_ = flashes_in(*running_);
    for (Nanoseconds& onset : onsets_)
        onset = begun + (running_->as == PlayAs::leave ? whole - onset : onset);
    std::sort(onsets_.begin(), onsets_.end());
    if (limit_->admit(onsets_)) return;
    hold(*running_, begun);
    running_->rest_until = begun + whole;
}

double EffectPlayer::progress(Nanoseconds now) const {
    if (!running_ || now < running_->start) return 0;
    const Nanoseconds whole = length(*running_->effect);
    return to_seconds((now - running_->start) % whole) / to_seconds(whole);
}

Pose EffectPlayer::pose(Nanoseconds now) const {
    if (!running_ || now < running_->start) return {};
    if (now < running_->steady_until) return steady_pose(*running_->effect);
    if (now < running_->rest_until) return {};
    const double part = running_->as == PlayAs::leave ? 1 - progress(now) : progress(now);
    return pose_of(*running_->effect, part, running_->strength, running_->seed);
}

}  // namespace rapido
