// Effects in the frame: what starts them, and what they do to the elements that they run on.
#include <algorithm>
#include <cmath>

#include "element/effect_drawing.hpp"
#include "hud/definition_tables.hpp"
#include "hud/element_context.hpp"

namespace rapido {
namespace {

/// In one frame: a hostile file may want thousands of them for each of a thousand events.
constexpr std::size_t most_effect_starts = 5'000;

/// Each start of an effect on each element has a seed of its own, the same in every replay.
std::uint32_t seed_of(std::string_view path, std::uint32_t plays) {
    std::uint32_t seed = 2166136261U;  // FNV-1a
    for (const char c : path)
        seed = (seed ^ static_cast<unsigned char>(c)) * 16777619U;
    return seed + plays * 0x9e3779b9U;
}

EventKind event_of(TriggerOn on) {
    switch (on) {
        case TriggerOn::empty:
            return EventKind::empty;
        case TriggerOn::full:
            return EventKind::full;
        case TriggerOn::enter:
            return EventKind::enter;
        case TriggerOn::leave:
            return EventKind::leave;
        case TriggerOn::mark:
            return EventKind::mark;
        case TriggerOn::end:
            return EventKind::end;
        default:
            return EventKind::start;
    }
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

bool is_of_timer(TriggerOn on) {
    return on == TriggerOn::start || on == TriggerOn::mark || on == TriggerOn::end;
}

RunningTrigger::RunningTrigger(Trigger given, const Effect* started)
    : trigger(std::move(given)), effect(started) {
    if (trigger.at) at = seconds_text(to_nanoseconds(*trigger.at));
}

bool RunningTrigger::waits_for(const Event& event, std::string_view element) const {
    if (trigger.on == TriggerOn::gain || trigger.on == TriggerOn::loss) return false;
    if (event_of(trigger.on) != event.kind) return false;
    if (event.id != (is_of_timer(trigger.on) ? std::string_view(trigger.timer) : element)) return false;
    const bool of_band = trigger.on == TriggerOn::enter || trigger.on == TriggerOn::leave;
    if (of_band && !trigger.band.empty() && event.detail != trigger.band) return false;
    return at.empty() || event.detail == at;
}

/// The HUD's own one, or a built-in one; null, with a problem, for none.
const Effect* Hud::State::find_effect(std::string_view name, Problem& problem) const {
    if (const auto known = effects_by_name.find(name); known != effects_by_name.end()) return known->second;
    problem.message = "no effect '" + std::string(name) + "'";
    problem.hint = hint(name, [&] {
        std::vector<std::string_view> names;
        for (const auto& effect : effects)
            names.push_back(effect->id);
        for (const Effect& effect : built_in_effects())
            names.push_back(effect.id);
        return names;
    });
    return nullptr;
}

void Hud::State::make_effects(const HudDefinition& definition) {
    for (std::size_t i = 0; i < definition.effects.size(); ++i) {
        const Effect& effect = definition.effects[i];
        const auto place = [&](std::string_view field) {
            const Origin* const origin = origin_at(definition.effect_origins, i);
            return origin != nullptr ? origin->of(field) : Location{};
        };
        const auto by_time = [](const Keyframe& a, const Keyframe& b) { return a.at < b.at; };
        const auto known = effects_by_name.find(effect.id);
        const bool replaces = known != effects_by_name.end() && is_built_in(known->second);
        // A faulty one is there and does nothing, so that who names it is not at fault, too.
        const bool fine = check(effect_table, &effect, "effect '" + effect.id + "'",
                                origin_at(definition.effect_origins, i));
        if (effect.id.empty())
            report({place("id"), "an effect without an id", ""});
        else if (known != effects_by_name.end() && !replaces)
            report({place("id"), "a second effect with the id '" + effect.id + "'", ""});
        else if (!std::is_sorted(effect.keyframes.begin(), effect.keyframes.end(), by_time))
            report({place("keyframes"),
                    "'keyframes' of effect '" + effect.id + "' must stand in order of 'at'", ""});
        else {
            effects.push_back(std::make_unique<const Effect>(fine ? effect : Effect{.id = effect.id}));
            if (replaces) effects_by_name.erase(known);
            effects_by_name.emplace(effects.back()->id, effects.back().get());
        }
    }
}

/// What an element plays and when; null where there is nothing to play.
std::unique_ptr<ElementEffects> Hud::State::make_element_effects(const std::vector<Trigger>& triggers,
                                                                 const std::vector<Band>& bands, Color color,
                                                                 BodyContext& context) {
    if (triggers.empty() &&
        std::all_of(bands.begin(), bands.end(), [](const Band& b) { return b.effect.empty(); }))
        return nullptr;
    auto made = std::make_unique<ElementEffects>();
    made->player = EffectPlayer(color, flash_limit);
    made->player.set_reduced_motion(reduced_motion);
    const auto band_names = [&] {
        std::vector<std::string_view> names;
        for (const Band& band : bands)
            names.push_back(band.id);
        return names;
    };
    for (std::size_t i = 0; i < triggers.size(); ++i) {
        const Trigger& trigger = triggers[i];
        const std::string field = "effects." + std::to_string(i);
        Problem problem;
        const Effect* const effect = find_effect(trigger.effect, problem);
        if (effect == nullptr) context.report(field + ".effect", problem.message, problem.hint);
        const bool knows_band =
            trigger.band.empty() || std::any_of(bands.begin(), bands.end(),
                                                [&](const Band& band) { return band.id == trigger.band; });
        if (!knows_band)
            context.report(field + ".band", "no band '" + trigger.band + "'", hint(trigger.band, band_names));
        if (!trigger.timer.empty() && !timer_indices.contains(trigger.timer))
            context.report(field + ".timer", "no timer '" + trigger.timer + "'",
                           hint(trigger.timer, [this] { return timer_names(); }));
        if (is_of_timer(trigger.on) && trigger.timer.empty()) context.report(field, "needs 'timer'", "");
        made->triggers.emplace_back(trigger, effect);
    }
    for (std::size_t i = 0; i < bands.size(); ++i) {
        Problem problem;
        const Effect* effect = bands[i].effect.empty() ? nullptr : find_effect(bands[i].effect, problem);
        if (!problem.message.empty())
            context.report("bands." + std::to_string(i) + ".effect", problem.message, problem.hint);
        made->of_bands.push_back(effect);
    }
    return made;
}

bool Hud::State::play(ElementIndex index, const Effect& effect, Nanoseconds at, float strength, PlayAs as) {
    RunningElement& element = elements[index];
    if (!element.shown || element.dead) return false;
    if (element.effects == nullptr) {
        element.effects = std::make_unique<ElementEffects>();
        element.effects->player = EffectPlayer(element.body->color(), flash_limit);
        element.effects->player.set_reduced_motion(reduced_motion);
    }
    ElementEffects& own = *element.effects;
    own.player.set_color(element.body->color());
    if (!own.player.play(effect, at, strength, seed_of(element.path, own.plays), as)) return false;
    ++own.plays;
    if (own.playing) return true;
    own.playing = true;
    playing.push_back(index);
    return true;
}

/// To be started when it is known what is visible in this frame.
void Hud::State::start(const EffectStart& effect) {
    if (effect_starts.size() < most_effect_starts) effect_starts.push_back(effect);
}

/// A gain or a loss of the true value.
void Hud::State::start_on_change(ElementIndex index, const Value& change) {
    if (elements[index].effects == nullptr) return;
    const double amount = change.number();
    for (const auto& [trigger, effect, at] : elements[index].effects->triggers) {
        if (trigger.on != (amount > 0 ? TriggerOn::gain : TriggerOn::loss) || !(std::abs(amount) > 0))
            continue;
        const double part = trigger.full_change > 0 ? std::abs(amount) / trigger.full_change : 1;
        start({now, index, effect, static_cast<float>(std::min(part, 1.0))});
    }
}

/// A band that was entered or left, by its number.
void Hud::State::start_on_band(ElementIndex index, std::size_t band, bool entered, Nanoseconds at) {
    if (elements[index].effects == nullptr) return;
    ElementEffects& own = *elements[index].effects;
    const std::string& name = elements[index].travel->bands()->bands()[band].id;
    for (const RunningTrigger& waiting : own.triggers) {
        const Trigger& trigger = waiting.trigger;
        const bool fits = trigger.on == (entered ? TriggerOn::enter : TriggerOn::leave);
        if (fits && (trigger.band.empty() || trigger.band == name)) start({at, index, waiting.effect});
    }
    const Effect* const effect = own.of_bands[band];
    if (effect == nullptr) return;
    if (entered)
        start({at, index, effect});
    else if (effect->repeat == 0)
        start({.at = at, .element = index, .effect = effect, .stops = true});
}

/// What this event starts on one element.
void Hud::State::start_on_event(ElementIndex index, const Event& event) {
    if (elements[index].effects == nullptr) return;
    for (const RunningTrigger& waiting : elements[index].effects->triggers)
        if (waiting.waits_for(event, elements[index].path)) start({event.time, index, waiting.effect});
}

/// What happened in this frame starts effects, each at its own time: they have run since then.
void Hud::State::start_effects() {
    for (const Event& event : events.all()) {
        if (event.kind == EventKind::empty || event.kind == EventKind::full) {
            if (const auto own = paths.find(event.id); own != paths.end()) start_on_event(own->second, event);
        } else if (event.kind <= EventKind::end) {
            const auto waiting = wait_for_timer.find(event.id);
            if (waiting == wait_for_timer.end()) continue;
            for (const ElementIndex index : waiting->second) {
                if (effect_starts.size() >= most_effect_starts) break;
                start_on_event(index, event);
            }
        }
    }
    if (effect_starts.empty()) return;
    for (std::uint32_t i = 0; i < effect_starts.size(); ++i)
        effect_starts[i].order = i;
    std::sort(effect_starts.begin(), effect_starts.end(), [](const EffectStart& a, const EffectStart& b) {
        return std::pair(a.at, a.order) < std::pair(b.at, b.order);
    });
    for (const EffectStart& started : effect_starts) {
        if (!started.stops)
            play(started.element, *started.effect, started.at, started.strength);
        else if (elements[started.element].effects != nullptr)
            elements[started.element].effects->player.stop(*started.effect, started.at);
    }
    effect_starts.clear();
}

/// Moves the elements on which effects run, and all that stands inside them.
void Hud::State::play_effects() {
    if (playing.empty()) return;
    bool has_panel = false;
    std::erase_if(playing, [&](ElementIndex index) {
        RunningElement& element = elements[index];
        if (element.effects == nullptr) return true;
        element.effects->player.advance(now);
        mark_changed(index);
        has_panel = has_panel || element.kind == &Description<Panel>::table;
        element.effects->playing = !element.effects->player.resting();
        return !element.effects->playing;
    });
    if (!has_panel) return;
    for (const ElementIndex index : parents_first) {
        RunningElement& element = elements[index];
        const bool parent_moves = element.parent != no_element && elements[element.parent].moves;
        element.moves = parent_moves || (element.effects != nullptr && hot[index].changed_in == frame);
        if (parent_moves) mark_changed(index);
    }
}

Pose Hud::State::pose_of_element(ElementIndex index) const {
    const RunningElement& element = elements[index];
    return element.effects != nullptr ? element.effects->player.pose(now) : Pose{};
}

Pose Hud::State::body_pose(ElementIndex index) const {
    const RunningElement& element = elements[index];
    return element.effects != nullptr ? pose_of_body(element.effects->player, now) : Pose{};
}

Rect Hud::State::device_box(ElementIndex index) const {
    const Rect box = screen_box(elements[index].box);
    const float scale = screen.scale;
    return {screen.origin.x + box.x * scale, screen.origin.y + box.y * scale, box.width * scale,
            box.height * scale};
}

Moved Hud::State::moved(ElementIndex index) const {
    Moved all;
    if (playing.empty() && screen.stretch == 1) return all;
    for (ElementIndex at = index; at != no_element; at = elements[at].parent) {
        const Pose pose = body_pose(at);
        if (pose == Pose{}) continue;
        all.transform = all.transform.then(transform_of(pose, device_box(at), screen.scale));
        all.opacity *= pose.opacity;
        if (all.tint.part == 0) all.tint = {pose.color, pose.color_part};
    }
    if (screen.stretch != 1) all.transform = all.transform.then(stretched(screen));
    return all;
}

/// What an effect draws besides: a stripe of light, dots.
void Hud::State::draw_over(ElementIndex index, const Rect& box, DrawGroup& into) const {
    const RunningElement& element = elements[index];
    const Effect* const effect = element.effects != nullptr ? element.effects->player.running() : nullptr;
    if (effect == nullptr) return;
    if (const Pose pose = pose_of_element(index); pose.shine >= 0)
        for_each_stripe(box, pose.shine, [&](const ShineStripe& stripe) {
            into.add_rect(box, 3 * screen.scale, rgb(0xffffff, 0.07),
                          {stripe.left, box.y, stripe.right - stripe.left, box.height});
        });
    draw_dots(element.effects->player, now, box, screen.scale, into);
}

bool Hud::play(ElementRef ref, std::string_view effect, float strength) {
    if (!state_->may("play")) return false;
    if (!std::isfinite(strength)) {
        state_->report(
            {{}, "the strength of effect '" + std::string(effect) + "' must be a finite number", ""});
        return false;
    }
    Problem problem;
    const Effect* const found = state_->find_effect(effect, problem);
    if (found == nullptr) {
        state_->report(std::move(problem));
        return false;
    }
    return state_->living(ref) != nullptr && state_->play(ref.index, *found, state_->now, strength);
}

void Hud::stop(ElementRef ref, std::string_view effect) {
    if (!state_->may("stop")) return;
    Problem problem;
    const Effect* const found = state_->find_effect(effect, problem);
    if (found == nullptr) return state_->report(std::move(problem));
    RunningElement* const element = state_->living(ref);
    if (element != nullptr && element->effects != nullptr) element->effects->player.stop(*found, state_->now);
}

void Hud::set_flash_limit(FlashLimit& limit) {
    if (!state_->may("set_flash_limit")) return;
    state_->flash_limit = &limit;
    for (RunningElement& element : state_->elements) {
        if (element.effects != nullptr) element.effects->player.set_limit(&limit);
        if (element.travel != nullptr) element.travel->set_flash_limit(&limit);
    }
}

}  // namespace rapido
