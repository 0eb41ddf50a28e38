// How elements enter and leave by effects.
#include <algorithm>

#include "hud/effects.hpp"

namespace rapido {

bool Effects::is_leaving(ElementIndex index) const {
    return std::any_of(leaving_.begin(), leaving_.end(),
                       [index](const Leaving& leaving) { return leaving.index == index; });
}

void Effects::leave(ElementIndex index, const Effect* effect, Nanoseconds now) {
    const bool plays =
        effect != nullptr && effect->repeat > 0 && !settings_.reduced_motion && visibility_.is_shown(index);
    leaving_.push_back({index, plays ? effect : nullptr, now, false, readouts_[index].active});
}

void Effects::take_left(Nanoseconds now, const std::function<bool(ElementIndex)>& moves,
                        const std::function<void(ElementIndex)>& gone) {
    constexpr Nanoseconds longest{2'000'000'000};
    std::erase_if(leaving_, [&](Leaving& leaving) {
        const ElementIndex index = leaving.index;
        if (elements_[index].dead) return true;
        const bool is_late = now - leaving.since >= longest;
        if (moves(index) && !is_late) {
            leaving.moved = true;
            return false;
        }
        if (leaving.effect != nullptr && !leaving.plays && !is_late) {
            leaving.plays = play(index, *leaving.effect, leaving.moved ? now : leaving.since,
                                 {.as = PlayAs::leave, .cause = EffectCause::visibility});
            if (!leaving.plays) leaving.effect = nullptr;
        }
        ElementEffects* const own = on_[index].own.get();
        if (own != nullptr) own->player.advance(now);
        const bool runs =
            leaving.plays && own != nullptr && own->player.running(EffectCause::visibility) == leaving.effect;
        if (runs && !is_late) return false;
        gone(index);
        return true;
    });
}

const Effect* Effects::effect_of(const VisibilityChange& change) const {
    const ElementEffects* const own = on_[change.index].own.get();
    const GroupIndex group = visibility_.conditions(change.index).group;
    const Effect* enter = own != nullptr ? own->enter : nullptr;
    const Effect* leave = own != nullptr ? own->leave : nullptr;
    if (enter == nullptr && leave == nullptr && change.by_group) {
        enter = visibility_.group(group).enter;
        leave = visibility_.group(group).leave;
    }
    if (!change.enters && leave == nullptr) leave = enter;
    const Effect* const effect = change.enters ? enter : leave;
    if (effect == nullptr || !settings_.reduced_motion) return effect;
    static const auto fade = std::find_if(built_in_effects().begin(), built_in_effects().end(),
                                          [](const Effect& known) { return known.id == "fade"; });
    return &*fade;
}

void Effects::show_changes(Nanoseconds now) {
    for (const VisibilityChange& change : visibility_.changes()) {
        const Effect* const effect = effect_of(change);
        const PlayAs as = change.enters ? PlayAs::enter : PlayAs::leave;
        const bool plays = effect != nullptr && !on_[change.index].snapped &&
                           play(change.index, *effect, now, {.as = as, .cause = EffectCause::visibility});
        if (change.enters) continue;
        if (plays)
            hiding_.push_back({change.index, now});
        else
            visibility_.end_leave(change.index);
    }
    visibility_.forget_changes();
}

/// Those whose effect has ended are hidden at last.
void Effects::hide_left() {
    std::erase_if(hiding_, [&](Hiding& hiding) {
        const ElementIndex index = hiding.index;
        const bool is_left = !elements_[index].dead && !visibility_.is_shown(index);
        const std::optional<Nanoseconds> end =
            is_left ? on_[index].own->player.end(EffectCause::visibility) : std::nullopt;
        if (end) {
            hiding.end = *end;
            return false;
        }
        visibility_.end_leave(index);
        if (is_left) hidden_.push_back({index, hiding.end});
        return true;
    });
}

}  // namespace rapido
