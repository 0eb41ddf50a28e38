// Effects in the frame: what starts them, and what they do to the elements that they run on.
#include <algorithm>
#include <cmath>

#include "base/nearest.hpp"
#include "element/effect_drawing.hpp"
#include "hud/state.hpp"

namespace rapido {
namespace {

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

/// Downwards from where the screen begins.
Transform stretched(const Fitted& screen) {
    return {.yy = screen.stretch, .dy = screen.origin.y * (1 - screen.stretch)};
}

}  // namespace

bool is_of_timer(TriggerOn on) {
    return on == TriggerOn::start || on == TriggerOn::mark || on == TriggerOn::end;
}

bool starts(const Trigger& trigger, std::string_view element, const Event& event) {
    if (trigger.on == TriggerOn::gain || trigger.on == TriggerOn::loss) return false;
    if (event_of(trigger.on) != event.kind) return false;
    if (event.id != (is_of_timer(trigger.on) ? std::string_view(trigger.timer) : element)) return false;
    const bool of_band = trigger.on == TriggerOn::enter || trigger.on == TriggerOn::leave;
    if (of_band && !trigger.band.empty() && event.detail != trigger.band) return false;
    return !trigger.at || event.detail == seconds_text(to_nanoseconds(*trigger.at));
}

/// The HUD's own one, or a built-in one; null, with a problem, for none.
const Effect* Hud::State::find_effect(std::string_view name, Problem& problem) const {
    std::vector<std::string_view> names;
    for (const auto& effect : effects) {
        if (effect->id == name) return effect.get();
        names.push_back(effect->id);
    }
    for (const Effect& effect : built_in_effects()) {
        if (effect.id == name) return &effect;
        names.push_back(effect.id);
    }
    problem.message = "no effect '" + std::string(name) + "'";
    problem.hint = did_you_mean(name, names);
    return nullptr;
}

void Hud::State::make_effects(const HudDefinition& definition) {
    for (std::size_t i = 0; i < definition.effects.size(); ++i) {
        const Effect& effect = definition.effects[i];
        const Location where =
            i < definition.effect_origins.size() ? definition.effect_origins[i].of("keyframes") : Location{};
        const auto by_time = [](const Keyframe& a, const Keyframe& b) { return a.at < b.at; };
        const bool known = std::any_of(effects.begin(), effects.end(),
                                       [&](const auto& other) { return other->id == effect.id; });
        if (effect.id.empty())
            report({where, "an effect without an id", ""});
        else if (known)
            report({i < definition.effect_origins.size() ? definition.effect_origins[i].of("id") : Location{},
                    "a second effect with the id '" + effect.id + "'", ""});
        else if (!std::is_sorted(effect.keyframes.begin(), effect.keyframes.end(), by_time))
            report({where, "'keyframes' of effect '" + effect.id + "' must stand in order of 'at'", ""});
        else
            effects.push_back(std::make_unique<const Effect>(effect));
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
    for (std::size_t i = 0; i < triggers.size(); ++i) {
        const Trigger& trigger = triggers[i];
        const std::string field = "effects." + std::to_string(i);
        Problem problem;
        const Effect* const effect = find_effect(trigger.effect, problem);
        if (effect == nullptr) context.report(field + ".effect", problem.message, problem.hint);
        std::vector<std::string_view> names;
        const auto check = [&](const std::string& name, const auto& known, std::string_view what) {
            if (name.empty() || std::find(known.begin(), known.end(), name) != known.end()) return;
            context.report(field + "." + std::string(what), "no " + std::string(what) + " '" + name + "'",
                           did_you_mean(name, known));
        };
        for (const Band& band : bands)
            names.push_back(band.id);
        check(trigger.band, names, "band");
        names.clear();
        for (const RunningTimer& timer : timers)
            names.push_back(timer.id);
        check(trigger.timer, names, "timer");
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

/// A gain or a loss of the true value.
void Hud::State::start_on_change(ElementIndex index, const Value& change) {
    if (elements[index].effects == nullptr) return;
    const double amount = change.number();
    for (const auto& [trigger, effect] : elements[index].effects->triggers) {
        if (trigger.on != (amount > 0 ? TriggerOn::gain : TriggerOn::loss) || !(std::abs(amount) > 0))
            continue;
        const double part = trigger.full_change > 0 ? std::abs(amount) / trigger.full_change : 1;
        play(index, *effect, now, static_cast<float>(std::min(part, 1.0)));
    }
}

/// A band that was entered or left, by its number.
void Hud::State::start_on_band(ElementIndex index, std::size_t band, bool entered, Nanoseconds at) {
    if (elements[index].effects == nullptr) return;
    ElementEffects& own = *elements[index].effects;
    const std::string& name = elements[index].travel->bands()->bands()[band].id;
    for (const auto& [trigger, effect] : own.triggers) {
        const bool fits = trigger.on == (entered ? TriggerOn::enter : TriggerOn::leave);
        if (fits && (trigger.band.empty() || trigger.band == name)) play(index, *effect, at, 1);
    }
    const Effect* const effect = own.of_bands[band];
    if (effect == nullptr) return;
    if (entered)
        play(index, *effect, at, 1);
    else if (effect->repeat == 0)
        own.player.stop(*effect, at);
}

/// What the events of this frame start: they have their own times, and the effects have run since then.
void Hud::State::start_effects() {
    if (with_triggers.empty()) return;
    for (const Event& event : events) {
        if (event.kind == EventKind::enter || event.kind == EventKind::leave ||
            event.kind == EventKind::skipped)
            continue;
        for (const ElementIndex index : with_triggers) {
            if (elements[index].effects == nullptr) continue;
            for (const auto& [trigger, effect] : elements[index].effects->triggers)
                if (starts(trigger, elements[index].path, event)) play(index, *effect, event.time, 1);
        }
    }
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
    Problem problem;
    const Effect* const found = state_->find_effect(effect, problem);
    if (found == nullptr) {
        state_->report(std::move(problem));
        return false;
    }
    return state_->living(ref) != nullptr && state_->play(ref.index, *found, state_->now, strength);
}

void Hud::stop(ElementRef ref, std::string_view effect) {
    Problem problem;
    const Effect* const found = state_->find_effect(effect, problem);
    if (found == nullptr) return state_->report(std::move(problem));
    RunningElement* const element = state_->living(ref);
    if (element != nullptr && element->effects != nullptr) element->effects->player.stop(*found, state_->now);
}

void Hud::set_flash_limit(FlashLimit& limit) {
    state_->flash_limit = &limit;
    for (RunningElement& element : state_->elements) {
        if (element.effects != nullptr) element.effects->player.set_limit(&limit);
        if (element.travel != nullptr) element.travel->set_flash_limit(&limit);
    }
}

}  // namespace rapido
