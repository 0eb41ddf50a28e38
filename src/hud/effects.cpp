#include "hud/effects.hpp"

#include <algorithm>
#include <cmath>

#include "base/nearest.hpp"
#include "element/effect_drawing.hpp"

namespace rapido {
namespace {

/// In one frame: a hostile file may want thousands of them for each of a thousand events.
constexpr std::size_t most_started = 5'000;

/// Each start of an effect on each element has a seed of its own, the same in every replay.
std::uint32_t seed_of(std::string_view path, std::uint32_t plays) {
    std::uint32_t seed = 2166136261U;  // FNV-1a
    for (const char c : path)
        seed = (seed ^ static_cast<unsigned char>(c)) * 16777619U;
    return seed + plays * 0x9e3779b9U;
}

bool is_built_in(const Effect* effect) {
    const std::span<const Effect> all = built_in_effects();
    return effect >= all.data() && effect < all.data() + all.size();
}

}  // namespace

Effects::Effects(const Settings& settings, Elements& elements, Visibility& visibility, const Readouts& readouts,
                 const Layouter& layouter, ProblemLog& problems)
    : settings_(settings),
      elements_(elements),
      visibility_(visibility),
      readouts_(readouts),
      layouter_(layouter),
      problems_(problems) {
    for (const Effect& effect : built_in_effects())
        by_name_.emplace(effect.id, &effect);
}

const Effect* Effects::find(std::string_view name, Problem& problem) const {
    if (const auto known = by_name_.find(name); known != by_name_.end()) return known->second;
    problem.code = ProblemCode::unknown_name;
    problem.message = "no effect '" + std::string(name) + "'";
    if (problems_.is_full()) return nullptr;
    std::vector<std::string_view> names;
    for (const auto& effect : effects_)
        names.push_back(effect->id);
    for (const Effect& effect : built_in_effects())
        names.push_back(effect.id);
    problem.hint = did_you_mean(name, names);
    return nullptr;
}

bool Effects::define(const Effect& effect, bool fine, const Origin* origin) {
    const auto place = [&](std::string_view field) { return origin != nullptr ? origin->of(field) : Location{}; };
    const auto refuse = [&](std::string_view field, std::string message) {
        problems_.report({place(field), std::move(message), ""});
        return false;
    };
    const auto by_time = [](const Keyframe& a, const Keyframe& b) { return a.at < b.at; };
    const auto known = by_name_.find(effect.id);
    const bool replaces = known != by_name_.end() && is_built_in(known->second);
    if (effect.id.empty()) return refuse("id", "an effect without an id");
    if (known != by_name_.end() && !replaces) return refuse("id", "a second effect with the id '" + effect.id + "'");
    if (!std::is_sorted(effect.keyframes.begin(), effect.keyframes.end(), by_time))
        return refuse("keyframes", "'keyframes' of effect '" + effect.id + "' must stand in order of 'at'");
    // A faulty one is there and does nothing, so that who names it is not at fault, too.
    effects_.push_back(std::make_unique<Effect>(fine ? effect : Effect{.id = effect.id}));
    if (replaces) by_name_.erase(known);
    by_name_.emplace(effects_.back()->id, effects_.back().get());
    return fine;
}

void Effects::undefine(std::string_view id) {
    const auto known = by_name_.find(id);
    if (known == by_name_.end() || is_built_in(known->second)) return;
    by_name_.erase(known);
    for (const Effect& effect : built_in_effects())
        if (effect.id == id) by_name_.emplace(effect.id, &effect);
}

void Effects::set_picture(std::string_view id, ImageLook picture) {
    if (const auto known = by_name_.find(id); known != by_name_.end()) pictures_[known->second] = std::move(picture);
}

void Effects::follow_theme(const Themes& themes) {
    for (const std::unique_ptr<Effect>& effect : effects_) {
        for (Keyframe& keyframe : effect->keyframes)
            if (keyframe.color) themes.apply(*keyframe.color);
        themes.apply(effect->dots.color);
        themes.apply(effect->particles.color);
        if (effect->particles.end_color) themes.apply(*effect->particles.end_color);
    }
}

void Effects::add(ElementIndex index, std::unique_ptr<ElementEffects> effects) {
    if (index >= on_.size()) on_.resize(index + std::size_t{1});
    on_[index] = {};
    if (effects == nullptr) return;
    on_[index].own = std::move(effects);
    ElementEffects& own = *on_[index].own;
    own.player = EffectPlayer(elements_[index].body->color(), flashes().limit);
    own.player.set_reduced_motion(settings_.reduced_motion);
    own.has_states = std::any_of(own.of_bands.begin(), own.of_bands.end(),
                                 [](const Effect* effect) { return effect != nullptr && effect->repeat == 0; });
    if (own.has_states) with_states_.push_back(index);
    for (ElementEffects::Trigger& trigger : own.triggers) {
        if (!is_of_timer(trigger.on.on)) {
            trigger.on.subject = index;
            continue;
        }
        if (trigger.on.subject >= by_timer_.size()) by_timer_.resize(trigger.on.subject + std::size_t{1});
        std::vector<ElementIndex>& all = by_timer_[trigger.on.subject];
        if (all.empty() || all.back() != index) all.push_back(index);
    }
}

void Effects::remove(ElementIndex index) {
    std::erase(with_states_, index);
    if (on_[index].own == nullptr) return;
    for (const ElementEffects::Trigger& trigger : on_[index].own->triggers)
        if (is_of_timer(trigger.on.on)) std::erase(by_timer_[trigger.on.subject], index);
}

void Effects::change(ElementIndex index, std::unique_ptr<ElementEffects> effects, Nanoseconds now) {
    remove(index);
    const std::unique_ptr<ElementEffects> before = std::move(on_[index].own);
    const OnElement kept{.own = nullptr, .moves = on_[index].moves, .snapped = on_[index].snapped};
    if (effects == nullptr && before != nullptr) effects = std::make_unique<ElementEffects>();
    add(index, std::move(effects));
    on_[index].moves = kept.moves;
    on_[index].snapped = kept.snapped;
    if (before == nullptr) return;
    ElementEffects& own = *on_[index].own;
    own.player = std::move(before->player);
    own.plays = before->plays;
    own.is_playing = before->is_playing;
    // A state that no band has any more ends.
    const Effect* const state = own.player.running(EffectCause::band);
    const bool known = std::find(own.of_bands.begin(), own.of_bands.end(), state) != own.of_bands.end();
    if (state != nullptr && state->repeat == 0 && !known) own.player.stop(*state, now, EffectCause::band);
}

void Effects::free_removed() {
    const auto gone = [this](ElementIndex index) { return elements_[index].dead; };
    std::erase_if(playing_, gone);
    std::erase_if(hiding_, [&](const Hiding& hiding) { return gone(hiding.index); });
    std::erase_if(requests_, [&](const Request& request) { return gone(request.index); });
    std::erase_if(leaving_, [&](const Leaving& leaving) { return gone(leaving.index); });
    for (const ElementIndex index : elements_.removed()) {
        if (on_[index].own != nullptr) on_[index].own->player.clear();
        on_[index] = {};
        looks_.erase(index);
    }
    std::erase_if(wanted_looks_, gone);
}

ElementEffects& Effects::made_for(ElementIndex index) {
    if (on_[index].own == nullptr) add(index, std::make_unique<ElementEffects>());
    return *on_[index].own;
}

bool Effects::play(ElementIndex index, const Effect& effect, Nanoseconds at, PlayOptions options) {
    const RunningElement& element = elements_[index];
    ElementEffects& own = made_for(index);
    const bool asks = flashes().limit != nullptr;
    if (asks && own.player.resting()) {
        SeenLook& seen = looks_[index];
        if (is_fresh(seen, index, at))
            own.player.set_look(seen.look, at);
        else
            own.player.forget_look();
    }
    options.seed = seed_of(element.path, own.plays);
    if (!own.player.play(effect, at, options)) return false;
    ++own.plays;
    if (asks) want(index);
    if (!std::exchange(own.is_playing, true)) playing_.push_back(index);
    return true;
}

bool Effects::request(ElementIndex index, const Effect& effect, Nanoseconds at, float strength) {
    if (visibility_.is_shown(index)) return play(index, effect, at, {.strength = strength});
    if (requests_.size() < most_started) requests_.push_back({index, &effect, at, strength});
    return true;
}

void Effects::stop(ElementIndex index, const Effect& effect, Nanoseconds at, std::optional<EffectCause> cause) {
    if (on_[index].own != nullptr) on_[index].own->player.stop(effect, at, cause);
    std::erase_if(requests_, [&](const Request& request) {
        return request.index == index && request.effect == &effect && !cause;
    });
}

void Effects::follow_reduced_motion() {
    for (const OnElement& on : on_)
        if (on.own != nullptr) on.own->player.set_reduced_motion(settings_.reduced_motion);
}

void Effects::follow_flashes() {
    for (const OnElement& on : on_)
        if (on.own != nullptr) on.own->player.set_limit(flashes().limit);
    looks_.clear();
}

void Effects::set_limit(FlashLimit& limit) {
    limit_ = &limit;
    for (const OnElement& on : on_)
        if (on.own != nullptr) on.own->player.set_limit(flashes().limit);
}

void Effects::snap(ElementIndex index) {
    if (std::exchange(on_[index].snapped, true)) return;
    snapped_.push_back(index);
    if (on_[index].own != nullptr) on_[index].own->player.clear();
    std::erase_if(requests_, [index](const Request& request) { return request.index == index; });
}

/// What a band does without an end, it does whenever the value is inside: from the first frame, after a snap, after having been
/// hidden.
void Effects::keep_state(ElementIndex index, Nanoseconds now) {
    const BandSet* const bands = readouts_.bands(index);
    ElementEffects& own = *on_[index].own;
    const Effect* wanted = nullptr;
    for (std::size_t i = 0; i < own.of_bands.size() && bands != nullptr; ++i)
        if (own.of_bands[i] != nullptr && own.of_bands[i]->repeat == 0 && bands->inside(i)) wanted = own.of_bands[i];
    if (!visibility_.is_shown(index)) return;
    const Effect* const running = own.player.running(EffectCause::band);
    if (running == nullptr && wanted != nullptr)
        play(index, *wanted, now, {.cause = EffectCause::band});
    else if (running != nullptr && running != wanted && running->repeat == 0)
        stop(index, *running, now, EffectCause::band);
}

void Effects::start(std::span<const Happening> happenings, Nanoseconds now) {
    started_ = 0;
    for (const Request& request : requests_)
        if (visibility_.is_shown(request.index))
            play(request.index, *request.effect, request.at, {.strength = request.strength});
    requests_.clear();
    for (const Happening& happening : happenings) {
        if (!happening.is_of_timer()) {
            start(happening.subject, happening);
        } else if (happening.subject < by_timer_.size()) {
            for (const ElementIndex index : by_timer_[happening.subject])
                start(index, happening);
        }
    }
    for (const ElementIndex index : with_states_)
        keep_state(index, now);
    for (const ElementIndex index : snapped_)
        on_[index].snapped = false;
    snapped_.clear();
}

void Effects::start(ElementIndex index, const Happening& happening) {
    if (on_[index].own == nullptr || started_ >= most_started) return;
    if (happening.kind >= HappeningKind::message_enter) return start_message(index, happening);
    if (on_[index].snapped || !visibility_.is_shown(index)) return;
    const auto begin = [&](const Effect* effect, float strength, EffectCause cause) {
        if (effect == nullptr || ++started_ > most_started) return;
        play(index, *effect, happening.time, {.strength = strength, .cause = cause});
    };
    const ElementEffects& own = *on_[index].own;
    for (const ElementEffects::Trigger& trigger : own.triggers) {
        if (!trigger.on.waits_for(happening)) continue;
        // Only a gain or a loss has an amount.
        const double part =
            trigger.full_change > 0 && happening.amount != 0 ? std::abs(happening.amount) / trigger.full_change : 1;
        begin(trigger.effect, static_cast<float>(std::min(part, 1.0)), EffectCause::trigger);
    }
    const bool entered = happening.kind == HappeningKind::band_enter;
    if (!entered && happening.kind != HappeningKind::band_leave) return;
    const auto band = static_cast<std::size_t>(happening.detail);
    const Effect* const effect = band < own.of_bands.size() ? own.of_bands[band] : nullptr;
    if (entered)
        begin(effect, 1, EffectCause::band);
    else if (effect != nullptr && effect->repeat == 0)
        stop(index, *effect, happening.time, EffectCause::band);
}

void Effects::start_message(ElementIndex index, const Happening& happening) {
    ElementEffects& own = *on_[index].own;
    if (happening.kind == HappeningKind::message_gone) return own.player.clear();
    if (settings_.reduced_motion) return;
    const bool enters = happening.kind == HappeningKind::message_enter;
    const Effect* const effect = enters ? own.enter : own.leave;
    if (effect != nullptr && happening.kind != HappeningKind::message_skipped && visibility_.is_shown(index))
        play(index, *effect, happening.time,
             {.as = enters ? PlayAs::enter : PlayAs::leave, .cause = EffectCause::visibility});
}

void Effects::advance(Nanoseconds now) {
    hidden_.clear();
    if (playing_.empty() && hiding_.empty()) return;
    bool has_panel = false;
    std::erase_if(playing_, [&](ElementIndex index) {
        ElementEffects& own = *on_[index].own;
        own.player.advance(now);
        elements_.mark_changed(index);
        has_panel = has_panel || elements_[index].kind->can.holds_children;
        own.is_playing = !own.player.resting();
        if (own.player.is_limited(now)) note_limited();
        return !own.is_playing;
    });
    hide_left();
    if (!has_panel) return;
    for (const ElementIndex index : elements_.parents_first()) {
        const ElementIndex parent = elements_[index].parent;
        const bool parent_moves = parent != no_element && on_[parent].moves;
        on_[index].moves = parent_moves || (on_[index].own != nullptr && elements_.changed(index));
        if (parent_moves) elements_.mark_changed(index);
    }
}

}  // namespace rapido
