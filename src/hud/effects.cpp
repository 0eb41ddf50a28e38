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

/// Downwards from where the screen begins.
Transform stretched(const Fitted& screen) {
    return {.yy = screen.stretch, .dy = screen.origin.y * (1 - screen.stretch)};
}

}  // namespace

Effects::Effects(Elements& elements, const Visibility& visibility, const Layouter& layouter,
                 ProblemLog& problems)
    : elements_(elements), visibility_(visibility), layouter_(layouter), problems_(problems) {
    for (const Effect& effect : built_in_effects())
        by_name_.emplace(effect.id, &effect);
}

const Effect* Effects::find(std::string_view name, Problem& problem) const {
    if (const auto known = by_name_.find(name); known != by_name_.end()) return known->second;
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

void Effects::define(const Effect& effect, bool fine, const Origin* origin) {
    const auto place = [&](std::string_view field) {
        return origin != nullptr ? origin->of(field) : Location{};
    };
    const auto by_time = [](const Keyframe& a, const Keyframe& b) { return a.at < b.at; };
    const auto known = by_name_.find(effect.id);
    const bool replaces = known != by_name_.end() && is_built_in(known->second);
    if (effect.id.empty()) return problems_.report({place("id"), "an effect without an id", ""});
    if (known != by_name_.end() && !replaces)
        return problems_.report({place("id"), "a second effect with the id '" + effect.id + "'", ""});
    if (!std::is_sorted(effect.keyframes.begin(), effect.keyframes.end(), by_time))
        return problems_.report({place("keyframes"),
                                 "'keyframes' of effect '" + effect.id + "' must stand in order of 'at'",
                                 ""});
    // A faulty one is there and does nothing, so that who names it is not at fault, too.
    effects_.push_back(std::make_unique<const Effect>(fine ? effect : Effect{.id = effect.id}));
    if (replaces) by_name_.erase(known);
    by_name_.emplace(effects_.back()->id, effects_.back().get());
}

void Effects::add(ElementIndex index, std::unique_ptr<ElementEffects> effects) {
    if (index >= on_.size()) on_.resize(index + std::size_t{1});
    on_[index] = {};
    if (effects == nullptr) return;
    on_[index].own = std::move(effects);
    ElementEffects& own = *on_[index].own;
    own.player = EffectPlayer(elements_[index].body->color(), limit_);
    own.player.set_reduced_motion(reduced_motion_);
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
    if (on_[index].own == nullptr) return;
    for (const ElementEffects::Trigger& trigger : on_[index].own->triggers)
        if (is_of_timer(trigger.on.on)) std::erase(by_timer_[trigger.on.subject], index);
}

void Effects::free_removed() {
    const auto gone = [this](ElementIndex index) { return elements_[index].dead; };
    std::erase_if(playing_, gone);
    std::erase_if(leaving_, [&](const Leaving& leaving) { return gone(leaving.index); });
    for (const ElementIndex index : elements_.removed())
        on_[index] = {};
}

ElementEffects& Effects::made_for(ElementIndex index) {
    if (on_[index].own == nullptr) add(index, std::make_unique<ElementEffects>());
    return *on_[index].own;
}

bool Effects::play(ElementIndex index, const Effect& effect, Nanoseconds at, float strength, PlayAs as) {
    const RunningElement& element = elements_[index];
    if (!visibility_.is_shown(index) || element.dead) return false;
    ElementEffects& own = made_for(index);
    own.player.set_color(element.body->color());
    if (!own.player.play(effect, at, strength, seed_of(element.path, own.plays), as)) return false;
    ++own.plays;
    if (!std::exchange(own.is_playing, true)) playing_.push_back(index);
    return true;
}

void Effects::stop(ElementIndex index, const Effect& effect, Nanoseconds at) {
    if (on_[index].own != nullptr) on_[index].own->player.stop(effect, at);
}

bool Effects::is_leaving(ElementIndex index) const {
    return std::any_of(leaving_.begin(), leaving_.end(),
                       [index](const Leaving& leaving) { return leaving.index == index; });
}

void Effects::leave(ElementIndex index, const Effect* effect, Nanoseconds now) {
    const bool plays = effect != nullptr && effect->repeat > 0 && !reduced_motion_ &&
                       play(index, *effect, now, 1, PlayAs::leave);
    leaving_.push_back({index, plays ? effect : nullptr});
}

void Effects::take_left(Nanoseconds now, const std::function<bool(ElementIndex)>& moves,
                        const std::function<void(ElementIndex)>& gone) {
    std::erase_if(leaving_, [&](const Leaving& leaving) {
        if (elements_[leaving.index].dead) return true;
        if (moves(leaving.index)) return false;
        ElementEffects* const own = on_[leaving.index].own.get();
        if (own != nullptr) own->player.advance(now);
        if (leaving.effect != nullptr && own != nullptr && own->player.running() == leaving.effect)
            return false;
        gone(leaving.index);
        return true;
    });
}

void Effects::set_reduced_motion(bool reduced) {
    reduced_motion_ = reduced;
    for (const OnElement& on : on_)
        if (on.own != nullptr) on.own->player.set_reduced_motion(reduced);
}

void Effects::set_limit(FlashLimit& limit) {
    limit_ = &limit;
    for (const OnElement& on : on_)
        if (on.own != nullptr) on.own->player.set_limit(limit_);
}

void Effects::snap(ElementIndex index) {
    if (on_[index].own == nullptr) return;
    on_[index].own->player.clear();
    if (!std::exchange(on_[index].snapped, true)) snapped_.push_back(index);
}

void Effects::start(std::span<const Happening> happenings) {
    started_ = 0;
    for (const Happening& happening : happenings) {
        if (!happening.is_of_timer()) {
            start(happening.subject, happening);
        } else if (happening.subject < by_timer_.size()) {
            for (const ElementIndex index : by_timer_[happening.subject])
                start(index, happening);
        }
    }
    for (const ElementIndex index : snapped_)
        on_[index].snapped = false;
    snapped_.clear();
}

void Effects::start(ElementIndex index, const Happening& happening) {
    if (on_[index].own == nullptr || started_ >= most_started) return;
    if (happening.kind >= HappeningKind::message_enter) return start_message(index, happening);
    if (on_[index].snapped) return;
    const auto begin = [&](const Effect* effect, float strength) {
        if (effect == nullptr || ++started_ > most_started) return;
        play(index, *effect, happening.time, strength);
    };
    const ElementEffects& own = *on_[index].own;
    for (const ElementEffects::Trigger& trigger : own.triggers) {
        if (!trigger.on.waits_for(happening)) continue;
        // Only a gain or a loss has an amount.
        const double part = trigger.full_change > 0 && happening.amount != 0
                                ? std::abs(happening.amount) / trigger.full_change
                                : 1;
        begin(trigger.effect, static_cast<float>(std::min(part, 1.0)));
    }
    const bool entered = happening.kind == HappeningKind::band_enter;
    if (!entered && happening.kind != HappeningKind::band_leave) return;
    const auto band = static_cast<std::size_t>(happening.detail);
    const Effect* const effect = band < own.of_bands.size() ? own.of_bands[band] : nullptr;
    if (entered)
        begin(effect, 1);
    else if (effect != nullptr && effect->repeat == 0)
        stop(index, *effect, happening.time);
}

void Effects::start_message(ElementIndex index, const Happening& happening) {
    ElementEffects& own = *on_[index].own;
    if (happening.kind == HappeningKind::message_gone) return own.player.clear();
    if (reduced_motion_) return;
    const bool enters = happening.kind == HappeningKind::message_enter;
    const Effect* const effect = enters ? own.enter : own.leave;
    if (effect != nullptr && happening.kind != HappeningKind::message_skipped)
        play(index, *effect, happening.time, 1, enters ? PlayAs::enter : PlayAs::leave);
}

void Effects::advance(Nanoseconds now) {
    if (playing_.empty()) return;
    bool has_panel = false;
    std::erase_if(playing_, [&](ElementIndex index) {
        ElementEffects& own = *on_[index].own;
        own.player.advance(now);
        elements_.mark_changed(index);
        has_panel = has_panel || elements_[index].kind->can.holds_children;
        own.is_playing = !own.player.resting();
        return !own.is_playing;
    });
    if (!has_panel) return;
    for (const ElementIndex index : elements_.parents_first()) {
        const ElementIndex parent = elements_[index].parent;
        const bool parent_moves = parent != no_element && on_[parent].moves;
        on_[index].moves = parent_moves || (on_[index].own != nullptr && elements_.changed(index));
        if (parent_moves) elements_.mark_changed(index);
    }
}

Pose Effects::pose(ElementIndex index, Nanoseconds now) const {
    return on_[index].own != nullptr ? pose_of_body(on_[index].own->player, now) : Pose{};
}

Moved Effects::moved(ElementIndex index, Nanoseconds now) const {
    Moved all;
    const Fitted& screen = layouter_.screen();
    for (ElementIndex at = playing_.empty() ? no_element : index; at != no_element;
         at = elements_[at].parent) {
        const Pose here = pose(at, now);
        if (here == Pose{}) continue;
        all.transform = all.transform.then(transform_of(here, layouter_.device_box(at), screen.scale));
        all.opacity *= here.opacity;
        if (all.tint.part == 0) all.tint = {here.color, here.color_part};
    }
    if (screen.stretch != 1) all.transform = all.transform.then(stretched(screen));
    return all;
}

void Effects::draw_over(ElementIndex index, Nanoseconds now, const Rect& box, DrawGroup& into) const {
    const ElementEffects* const own = on_[index].own.get();
    if (own == nullptr || own->player.running() == nullptr) return;
    const float scale = layouter_.screen().scale;
    if (const Pose here = own->player.pose(now); here.shine >= 0)
        for_each_stripe(box, here.shine, [&](const ShineStripe& stripe) {
            into.add_rect(box, 3 * scale, rgb(0xffffff, 0.07),
                          {stripe.left, box.y, stripe.right - stripe.left, box.height});
        });
    draw_dots(own->player, now, box, scale, into);
}

}  // namespace rapido
