// How the flashes of an element are seen to come, and are held back.
#include "look/effect_light.hpp"

#include <algorithm>
#include <cmath>
#include <numbers>
#include <tuple>
#include <utility>

namespace rapido {
namespace {

/// What moves over less than this is no flash by itself, and is left out of the sum.
constexpr float least_way = FlashLimit::least_area / 16;

/// What is smaller is left out: more than a hundred of them would have to flash together.
constexpr float least_part = FlashLimit::least_area / 128;

/// Between two keyframes the light is looked at so often.
constexpr int between_keyframes = 5;
/// And so often at most, and where it is drawn in steps; in between once a frame.
constexpr int between_steps = 24;
constexpr double usual_frame = 1.0 / 60;

}  // namespace

/// Room that all players of a thread use in turn, so that each keeps little and nothing grows in a steady frame.
struct EffectPlayer::Light::Scratch {
    std::vector<Nanoseconds> moments;  ///< at which light is looked at, in order
    std::vector<Pose> poses;           ///< those of the moments
    std::vector<Track> tried;          ///< ahead of those of the player
    std::vector<Found> pairs, found;
};
thread_local EffectPlayer::Light::Scratch EffectPlayer::Light::scratch;

bool EffectPlayer::Light::counts(std::size_t number) const {
    const FlashPart& of = part(number);
    if (std::isinf(of.area)) return !is_strip(number);
    return of.area > (is_strip(number) ? least_way / 2 : least_part);
}

void EffectPlayer::Light::find_counted() {
    counted.clear();
    for (std::size_t i = 0; i < part_count(); ++i)
        if (counts(i)) counted.push_back(static_cast<std::uint16_t>(i));
}

/// How much of a strip of one unit of width a part covers.
float EffectPlayer::Light::strip_length(std::size_t number) const {
    const FlashPart& of = part(number);
    const float whole = of.box.width * of.box.height;
    const float side = number % places <= 2 ? of.box.height : of.box.width;
    return whole > 0 ? side * std::min(1.0F, of.area / whole) : 0;
}

/// How far a part reaches beyond one of its sides at a pose: left, right, top, bottom. Negative where it has drawn back.
float EffectPlayer::Light::reach(std::size_t number, const Pose& pose) const {
    const Rect& box = part(number).box;
    const std::size_t side = number % places;
    const bool is_across = side <= 2;
    const float turned = std::abs(pose.rotation) * std::numbers::pi_v<float> / 180;
    const float grown = (pose.scale - 1) * (is_across ? box.width : box.height) / 2;
    const float moved = (is_across ? pose.offset.x : pose.offset.y) * look.unit;
    // A side that turns sweeps two triangles.
    const float swept = turned * (is_across ? box.height : box.width) / 4;
    const float out = grown + (side % 2 == 1 ? -moved : moved);
    return out + (out < 0 ? -swept : swept);
}

EffectPlayer::Light::Covered EffectPlayer::Light::covered(std::size_t number, const Pose& pose) const {
    if (!is_strip(number)) return Covered::all;
    // Outside of the side the ground is seen at rest, inside the part: one track follows both, as half of the light of each.
    const float far = reach(number, pose) * strip_length(number);
    return far > least_way ? Covered::all : far < -least_way ? Covered::nothing : Covered::half;
}

/// Whether all that counts is seen as much at one pose as at another.
bool EffectPlayer::Light::is_seen_same(const Pose& a, const Pose& b) const {
    return is_same_light(a, b) && std::all_of(counted.begin(), counted.end(), [&](std::size_t number) {
               return !is_strip(number) || covered(number, a) == covered(number, b);
           });
}

/// What is seen of a part, or of a strip beside it, on a ground.
Color EffectPlayer::Light::seen(std::size_t number, Color ground, const Pose& pose, Covered covered) const {
    const FlashPart& of = part(number);
    // Light around something is half as bright at its edge as it would be below it.
    if (is_glow(number)) return over(ground, of.color, pose.glow / 2);
    const auto laid = [&pose](Color on, Color color, float opacity) {
        const std::uint8_t alpha = std::exchange(color.alpha, std::uint8_t{255});
        color = mix(color, pose.color, static_cast<double>(pose.color_part));
        color.alpha = alpha;
        return over(on, color, opacity);
    };
    const auto painted = [&](float opacity) {
        return laid(of.below ? laid(ground, *of.below, opacity) : ground, of.color, opacity);
    };
    if (covered == Covered::nothing) return ground;
    return painted(covered == Covered::all ? pose.opacity : pose.opacity / 2);
}

/// From a pose that is seen, or from nothing where the element was not there.
void EffectPlayer::Light::begin(const Pose& pose) {
    tracks.clear();
    for (std::size_t i = 0; i < part_count() * ground_count(); ++i) {
        const Color color = color_of(i, is_absent ? nullptr : &pose);
        tracks.push_back({LightTrack(relative_luminance(color)), RedTrack(color)});
    }
    shown = tracks;
    is_shown = false;
    is_followed = true;
}

void EffectPlayer::Light::see(Nanoseconds now, const Pose* pose) {
    for (const std::size_t number : counted)
        for (std::size_t i = number * ground_count(); i < (number + 1) * ground_count(); ++i) {
            const Color color = color_of(i, pose);
            tracks[i].bright.follow(now, relative_luminance(color));
            tracks[i].red.follow(now, color);
        }
}

/// Follows tracks over all moments of `scratch`; most of the time what they show goes on as it is. `note` takes what they find, track by
/// track.
template <class Note>
void EffectPlayer::Light::follow(std::vector<Track>& all, Note note) const {
    const Scratch& over = scratch;
    const std::size_t grounds = ground_count();
    for (const std::size_t number : counted) {
        Covered last = Covered::all;
        bool goes_on = false;
        for (std::size_t at = 0; at < over.moments.size(); ++at) {
            const Pose& pose = over.poses[at];
            const Covered now = covered(number, pose);
            const bool is_same = at > 0 && now == last && is_same_light(pose, over.poses[at - 1]);
            last = now;
            for (std::size_t g = 0; g < grounds && (!is_same || at + 1 == over.moments.size()); ++g) {
                Track& track = all[number * grounds + g];
                if (is_same) {
                    track.go_on(over.moments[at]);
                    continue;
                }
                if (goes_on) track.go_on(over.moments[at - 1]);
                const Color color = seen(number, ground(g), pose, now);
                note(track.bright.follow(over.moments[at], relative_luminance(color)), number * grounds + g, false);
                note(track.red.follow(over.moments[at], color), number * grounds + g, true);
            }
            goes_on = is_same;
        }
    }
}

void EffectPlayer::set_color(Color color) {
    color_ = color;
    if (light_ == nullptr) return;
    light_->set_color(color);
    light_->is_followed = false;
}

void EffectPlayer::set_limit(FlashLimit* limit) {
    if (limit == limit_) return;
    limit_ = limit;
    posed_at_ = Nanoseconds::min();
    if (light_ != nullptr) light_->owner = 0;
}

void EffectPlayer::forget_look() {
    if (light_ == nullptr) light_ = std::make_unique<Light>(color_);
    light_->forget_look();
    light_->is_known = false;
    posed_at_ = Nanoseconds::min();
    light_->forget();
}

void EffectPlayer::set_look(const FlashLook& look, Nanoseconds now) {
    if (light_ == nullptr) light_ = std::make_unique<Light>(color_);
    Light& light = *light_;
    if (light.is_known && light.look == look) {
        light.drawn = now;
        return;
    }
    posed_at_ = Nanoseconds::min();
    const bool was_known = std::exchange(light.is_known, true);
    const bool same_tracks = light.look.parts.size() == look.parts.size() &&
                             light.look.glow.has_value() == look.glow.has_value() &&
                             light.look.settings.ground == look.settings.ground;
    if (running_.empty() || limit_ == nullptr) {
        light.set_look(look);
        light.is_shown = false;
        light.drawn = now;
        if (!same_tracks) light.is_followed = false;
        return;
    }
    const Nanoseconds at = was_known ? now : light.planned;
    if (was_known) {
        follow_light(at);
        light.before = before_change(at, GoesOn::from_there);
    }
    light.set_look(look);
    light.is_shown = false;
    for (Playing& playing : running_)
        if (playing.burst_at) ask_for_burst(playing);
    if (was_known && !same_tracks) light.begin(due_pose(at));
    ask_for_light(light.before, at);
    light.drawn = now;
}

bool EffectPlayer::is_limited(Nanoseconds now) const {
    if (light_ == nullptr) return false;
    const bool is_held = !running_.empty() && light_->held_at(now) != now;
    return is_held || (light_->instead && light_->instead_at == now);
}

/// Whether an effect that runs may change the light of anything that counts.
bool EffectPlayer::may_flash() const {
    using enum effect_property::Bits;
    int named = 0;
    for (const Playing& playing : running_)
        named |= playing.properties;
    const bool turns_light = !running_.empty() && (reduced_ || (named & (opacity | color)) != 0);
    const bool moves = (named & (scale | offset | rotation)) != 0;
    return std::any_of(light_->counted.begin(), light_->counted.end(), [&](std::size_t number) {
        if (light_->is_glow(number)) return (named & glow) != 0;
        return light_->is_strip(number) ? moves : turns_light;
    });
}

/// The moments between two at which the light of all that runs may turn, in order, with both.
void EffectPlayer::find_moments(Nanoseconds from, Nanoseconds to) {
    std::vector<Nanoseconds>& all = Light::scratch.moments;
    all.clear();
    all.push_back(from);
    for (const Playing& playing : running_) {
        const Nanoseconds whole = length(*playing.effect);
        const bool leaves = playing.options.as == PlayAs::leave;
        const Nanoseconds run = playing.start + (std::max(from, playing.start) - playing.start) / whole * whole;
        double last = 0;
        const auto up_to = [&](double at) {
            const auto frames = static_cast<int>(to_seconds(whole).count() * (at - last) / usual_frame);
            const int parts = playing.is_smooth ? std::clamp(frames, between_keyframes, between_steps) : between_steps;
            for (int i = 1; i <= parts && at > last; ++i) {
                const double progress = last + (at - last) * i / parts;
                all.push_back(run + to_nanoseconds(to_seconds(whole) * (leaves ? 1 - progress : progress)));
            }
            last = std::max(last, at);
        };
        for (const Keyframe& frame : playing.effect->keyframes)
            up_to(frame.at);
        up_to(1);
        all.push_back(playing.start);
    }
    for (const Light::Hold& hold : light_->holds) {
        all.push_back(hold.from);
        all.push_back(hold.to);
    }
    if (residual_.is_active)
        for (int i = 1; i <= 12; ++i)
            all.push_back(*residual_.since + residual_length / 12 * i);
    std::erase_if(all, [&](Nanoseconds at) { return at < from || at >= to; });
    std::sort(all.begin(), all.end());
    all.erase(std::unique(all.begin(), all.end()), all.end());
    all.push_back(to);
}

/// The pose at a moment between two: after what happens at the first, and before what happens at the last.
Pose EffectPlayer::pose_in(Nanoseconds from, Nanoseconds at, Nanoseconds to) const {
    return with_residual(composed(at, at == to && at > from), at);
}

void EffectPlayer::find_poses(Nanoseconds from, Nanoseconds to) {
    Light::Scratch& scratch = Light::scratch;
    find_moments(from, to);
    scratch.poses.clear();
    for (const Nanoseconds now : scratch.moments)
        scratch.poses.push_back(pose_in(from, now, to));
}

/// Takes in how the light has changed up to a moment, before what happens then: but for what was drawn at that moment already.
void EffectPlayer::follow_light(Nanoseconds to) {
    if (limit_ == nullptr || light_ == nullptr || !light_->is_followed || light_->is_absent) return;
    Light& light = *light_;
    if (to > light.followed) {
        const Nanoseconds from = light.followed;
        find_poses(from, to);
        // What is seen before something happens was there before it.
        Light::scratch.moments.back() -= Nanoseconds{1};
        light.follow(light.tracks, [](const auto&, std::size_t, bool) {});
        light.followed = to;
    }
    if (light.drawn != to) return;
    const Pose drawn = due_pose(to);
    light.see(to - Nanoseconds{1}, &drawn);
    light.drawn = Nanoseconds::min();
}

/// Asks for the flashes that a change of what runs makes, now or as soon as it is known what is drawn.
void EffectPlayer::ask_for_light(const Before& before, Nanoseconds at) {
    if (limit_ == nullptr) return;
    if (light_ == nullptr) light_ = std::make_unique<Light>(color_);
    light_->before = before;
    light_->planned = at;
    if (plan_light(at) && before.goes_on != GoesOn::not_at_all) go_on_from(before, at);
}

/// The flashes from a change of what runs on until the next run begins or ends: they are looked for, asked for, and held back where they
/// are refused.
class EffectPlayer::Light::Plan {
 public:
    Plan(EffectPlayer& player, Nanoseconds at, Nanoseconds to)
        : player_(player), light_(*player.light_), limit_(*player.limit_), at_(at), to_(to) {}

    /// Returns whether anything is held.
    bool make() {
        for (int i = 0; !player_.running_.empty(); ++i) {
            look();
            const Found* const refused = ask();
            if (refused == nullptr) return i > 0;
            Hold hold = hold_of(*refused);
            // What cannot be told apart is held as a whole.
            if (i >= most_holds || hold.to <= hold.from) hold = {light_.held_at(before()), at_, to_};
            if (i > most_holds || std::find(light_.holds.begin(), light_.holds.end(), hold) != light_.holds.end())
                break;
            light_.holds.push_back(hold);
        }
        // What is left goes on by itself: the way to rest from where it was.
        look();
        withdraw();
        for (const Found& found : scratch.found)
            take(found, true);
        return !player_.running_.empty();
    }

 private:
    Nanoseconds before() const { return at_ - Nanoseconds{1}; }
    std::size_t part_of(const Found& found) const { return found.track / light_.ground_count(); }
    /// Finds the flashes, in order.
    void look() {
        scratch.tried = light_.tracks;
        scratch.found.clear();
        player_.find_poses(at_, to_);
        scratch.pairs.clear();
        light_.follow(scratch.tried, [](const std::optional<FlashPair>& pair, std::size_t track, bool is_red) {
            if (pair) scratch.pairs.push_back({*pair, track, 0, false, is_red});
        });
        std::sort(scratch.pairs.begin(), scratch.pairs.end(), [](const Found& a, const Found& b) {
            return std::tuple(a.pair.end, a.track, a.is_red) < std::tuple(b.pair.end, b.track, b.is_red);
        });
        for (const Found& found : scratch.pairs)
            note(found.pair, found.track, false, found.is_red);
        see_end();
        const std::size_t grounds = light_.ground_count();
        for (const std::size_t number : light_.counted)
            for (std::size_t i = number * grounds; light_.is_strip(number) && i < (number + 1) * grounds; ++i)
                if (const auto open = scratch.tried[i].bright.open(to_)) note(open, i, true);
        for (Found& found : scratch.found)
            if (const std::size_t part = part_of(found); light_.is_strip(part)) found.area = swept(part);
        std::sort(scratch.found.begin(), scratch.found.end(), [](const Found& a, const Found& b) {
            return std::pair(!a.is_half, a.pair.begin) < std::pair(!b.is_half, b.pair.begin);
        });
    }
    /// What has run to its end leaves the element at rest, or gone, unless something takes over.
    void see_end() {
        if (player_.running_.empty()) return;
        const bool leaves =
            std::any_of(player_.running_.begin(), player_.running_.end(), [this](const Playing& playing) {
                return playing.options.as == PlayAs::leave && player_.end_of(playing) == to_;
            });
        const Pose rest = player_.with_residual(player_.composed(to_, false, true), to_);
        see(to_, leaves ? nullptr : &rest);
    }
    void see(Nanoseconds now, const Pose* pose) {
        const std::size_t grounds = light_.ground_count();
        for (const std::size_t number : light_.counted)
            for (std::size_t i = number * grounds; i < (number + 1) * grounds; ++i) {
                const Color color = light_.color_of(i, pose);
                note(scratch.tried[i].bright.follow(now, relative_luminance(color)), i, false);
                note(scratch.tried[i].red.follow(now, color), i, false, true);
            }
    }
    /// On either ground, of either kind, what is seen at once is one flash of a part.
    void note(const std::optional<FlashPair>& pair, std::size_t track, bool is_half, bool is_red = false) {
        if (!pair) return;
        Found found{*pair, track, 0, is_half, is_red};
        found.area = light_.part(part_of(found)).area;
        if (std::none_of(scratch.found.begin(), scratch.found.end(), [&](const Found& other) {
                return part_of(other) == part_of(found) && other.pair.begin <= pair->end &&
                       pair->begin <= other.pair.end;
            }))
            scratch.found.push_back(found);
    }
    /// How much a strip covers where it is widest.
    float swept(std::size_t part) const {
        float most = 0;
        for (const Pose& pose : scratch.poses)
            most = std::max(most, std::abs(light_.reach(part, pose)));
        return most * light_.strip_length(part);
    }

    /// The first one that is refused; null where all are taken on. What is halfway may become a flash, and counts for the others.
    const Found* ask() {
        withdraw();
        for (const Found& found : scratch.found)
            if (found.area > 0 && !take(found, found.is_half)) return &found;
        return nullptr;
    }
    /// What was taken on from here on is asked for anew.
    void withdraw() {
        limit_.cut(light_.owner, at_);
        std::erase_if(light_.taken,
                      [&](const Taken& one) { return one.begin >= at_ || one.end + FlashLimit::window < at_; });
        for (Taken& one : light_.taken)
            one.end = std::min(one.end, at_);
    }
    bool take(const Found& found, bool in_any_case) {
        Flash flash{found.pair.begin, found.pair.end, light_.part(part_of(found)).box, found.area};
        // What is a flash in light, and one in red, covers no more than either.
        const bool is_of_other_kind = std::any_of(light_.taken.begin(), light_.taken.end(), [&](const Taken& one) {
            return one.part == part_of(found) && one.is_red != found.is_red && one.begin <= flash.end &&
                   flash.begin <= one.end;
        });
        if (is_of_other_kind) return true;
        // One that was taken on before goes on. One whose first change is seen already is a flash only with its second change.
        const auto known = std::find_if(light_.taken.begin(), light_.taken.end(), [&](const Taken& one) {
            return one.part == part_of(found) && flash.begin < at_ &&
                   (one.begin == flash.begin || (one.begin < flash.end && flash.begin < one.end));
        });
        if (known != light_.taken.end()) {
            flash.begin = known->begin;
            known->end = std::max(known->end, flash.end);
            limit_.go_on(flash, light_.owner);
            return true;
        }
        if (in_any_case)
            limit_.count(flash, light_.owner);
        else if (!limit_.admit(flash, light_.owner))
            return false;
        if (light_.taken.size() == light_.taken.capacity()) light_.taken.erase(light_.taken.begin());
        light_.taken.push_back({part_of(found), flash.begin, flash.end, found.is_red});
        return true;
    }

    /// Over which time the pose of which moment is held: from the turn before a flash until it would be over. Where it turns at once, or
    /// while it still goes on from the pose before, it is held as it was before this change.
    Hold hold_of(const Found& found) const {
        const Residual& residual = player_.residual_;
        const bool goes_on = residual.is_active && found.pair.turned < *residual.since + residual_length;
        const Nanoseconds turned = goes_on ? before() : std::min(found.pair.turned, found.pair.begin);
        return {light_.held_at(turned > at_ ? turned : before()), std::max(turned, at_), over_at(found)};
    }
    /// Where the light stops going on in the way of the second change.
    Nanoseconds over_at(const Found& found) const {
        double last = 0;
        int way = 0;
        for (std::size_t i = 0; i < scratch.moments.size(); ++i) {
            const Nanoseconds now = scratch.moments[i];
            const double bright = relative_luminance(light_.color_of(found.track, &scratch.poses[i]));
            const int turn = bright > last ? 1 : bright < last ? -1 : 0;
            if (now > found.pair.end && turn != way) return now;
            if (now <= found.pair.end) way = turn;
            last = bright;
        }
        return to_;
    }

    EffectPlayer& player_;
    Light& light_;
    FlashLimit& limit_;
    Nanoseconds at_, to_;
};

/// Whether a pose that is to be drawn now shows what was drawn last; then that is followed.
bool EffectPlayer::Light::goes_on_as_shown(Nanoseconds now, const Pose& pose) {
    if (!is_shown || !last_shown || !is_seen_same(*last_shown, pose)) return false;
    const std::size_t grounds = ground_count();
    for (const std::size_t number : counted)
        for (std::size_t i = number * grounds; i < (number + 1) * grounds; ++i)
            shown[i].go_on(now);
    return true;
}

/// Whether a pose that is to be drawn now completes one flash too many.
bool EffectPlayer::Light::is_refused(FlashLimit& limit, Nanoseconds now, const Pose& pose) {
    std::erase_if(shown_flashes, [now](const Taken& one) { return one.end + FlashLimit::window < now; });
    const std::size_t grounds = ground_count();
    scratch.tried = shown;
    for (std::size_t k = 0; k < counted.size() * grounds; ++k) {
        const std::size_t number = counted[k / grounds], i = number * grounds + k % grounds;
        const Color color = color_of(i, &pose);
        for (const auto& pair : {scratch.tried[i].bright.follow(now, relative_luminance(color)),
                                 scratch.tried[i].red.follow(now, color)}) {
            if (!pair) continue;
            // On either ground, of either kind, what is seen at once is one flash of a part.
            const bool was_counted = std::any_of(shown_flashes.begin(), shown_flashes.end(), [&](const Taken& one) {
                return one.part == number && one.begin <= pair->end && pair->begin <= one.end;
            });
            if (was_counted) continue;
            float area = part(number).area;
            if (is_strip(number)) {
                const float last = last_shown ? std::abs(reach(number, *last_shown)) : 0;
                area = std::max(last, std::abs(reach(number, pose))) * strip_length(number);
            }
            if (!(area > 0)) continue;
            if (!limit.admit_shown({pair->begin, pair->end, part(number).box, area})) return true;
            shown_flashes.push_back({number, pair->begin, pair->end});
        }
    }
    return false;
}

void EffectPlayer::watch(Nanoseconds now) {
    if (limit_ == nullptr || light_ == nullptr || !light_->is_known) return;
    Light& light = *light_;
    if (light.instead) posed_at_ = Nanoseconds::min();
    light.instead.reset();
    if (!light.is_followed || light.owner == 0) return light.last_shown.reset();
    const Pose due = pose(now);
    if (light.goes_on_as_shown(now, due)) {
        light.last_shown = due;
        return;
    }
    if (light.is_refused(*limit_, now, due) && light.last_shown) {
        posed_at_ = Nanoseconds::min();
        light.instead = light.last_shown;
        light.instead_at = now;
        return;
    }
    light.shown = Light::scratch.tried;
    light.last_shown = due;
    light.is_shown = true;
}

/// Asks for all flashes that a change makes, and holds the pose over those that are refused. Returns whether any was.
bool EffectPlayer::plan_light(Nanoseconds at) {
    if (limit_ == nullptr || light_ == nullptr || !light_->is_known) return false;
    Light& light = *light_;
    const bool was_followed = light.is_followed && light.followed + FlashLimit::window > at;
    if (!may_flash() && !was_followed) {
        light.forget();
        return false;
    }
    if (light.owner == 0) light.owner = limit_->new_owner();
    if (!was_followed)
        light.begin({});
    else if (light.is_absent)
        light.see(at - Nanoseconds{1}, nullptr);
    light.followed = at;
    if (light.is_absent && running_.empty()) {
        limit_->cut(light.owner, at);
        return false;
    }
    light.is_absent = false;
    std::erase_if(light.holds, [&](const Light::Hold& hold) {
        return hold.to + std::chrono::milliseconds(1) < at || hold.from >= at;
    });
    for (Light::Hold& hold : light.holds)
        hold.to = std::min(hold.to, at);

    Nanoseconds to = at + residual_length;
    if (!running_.empty()) {
        to = next_moment(running_.front());
        for (const Playing& playing : running_)
            to = std::min(to, playing.asked < 0 ? std::max(playing.start, at) : next_moment(playing));
    }
    return Light::Plan(*this, at, to).make();
}

}  // namespace rapido
