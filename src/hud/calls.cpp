// What a game asks of a running HUD between two frames.
#include <algorithm>
#include <cmath>
#include <utility>

#include "base/nearest.hpp"
#include "hud/state.hpp"
#include "rapido/hud/hud.hpp"

namespace rapido {
namespace {

/// The group of an id; null, with a problem, for none.
RunningGroup* find_group(Parts& hud, std::string_view id) {
    const GroupIndex index = hud.visibility.find(std::string(id));
    if (index != no_group) return &hud.visibility.group(index);
    hud.problems.report({{},
                         "no group '" + std::string(id) + "'",
                         did_you_mean(id, hud.visibility.group_names()),
                         ProblemCode::unknown_name});
    return nullptr;
}

/// The effect of a name; null, with a problem, for none.
const Effect* find_effect(Parts& hud, std::string_view name) {
    Problem problem;
    const Effect* const found = hud.effects.find(name, problem);
    if (found == nullptr) hud.problems.report(std::move(problem));
    return found;
}

}  // namespace

void Hud::State::snap(ElementIndex index) {
    readouts.snap(index);
    lists.snap(index);
}

void Hud::snap() {
    if (!state_->may(RecordedCall{.name = "snap"})) return;
    for (ElementIndex index = 0; index < state_->elements.count(); ++index)
        if (state_->elements[index].body != nullptr) state_->snap(index);
}

void Hud::snap(ElementRef ref) {
    if (!state_->may("snap", ref)) return;
    const ElementIndex outer = state_->elements.living(ref);
    if (outer == no_element) return;
    const std::string& path = state_->elements[outer].path;
    for (ElementIndex index = 0; index < state_->elements.count(); ++index)
        if (index == outer || state_->elements[index].stands_in(path)) state_->snap(index);
}

void Hud::snap(std::string_view group) {
    if (!state_->may({.name = "snap", .text = group}) || find_group(*state_, group) == nullptr) return;
    const GroupIndex found = state_->visibility.find(std::string(group));
    for (ElementIndex index = 0; index < state_->elements.count(); ++index)
        if (state_->elements[index].body != nullptr && state_->visibility.conditions(index).group == found)
            state_->snap(index);
}

void Hud::set_visible(std::string_view group, bool visible) {
    if (!state_->may({.name = "set_visible", .text = group, .flag = visible})) return;
    if (RunningGroup* const found = find_group(*state_, group)) found->game_shows = visible;
    state_->visibility.touch();
}

void Hud::set_opacity(std::string_view group, float opacity) {
    if (!state_->may({.name = "set_opacity", .text = group, .number = opacity})) return;
    if (RunningGroup* const found = find_group(*state_, group))
        found->game_opacity = opacity > 0 ? std::min(opacity, 1.0F) : 0.0F;
    state_->visibility.touch();
}

void Hud::set_reduced_motion(bool reduced) {
    if (!state_->may({.name = "set_reduced_motion", .flag = reduced}) ||
        reduced == state_->effects.reduced_motion())
        return;
    state_->keep_all_finished();
    state_->effects.set_reduced_motion(reduced);
    state_->readouts.set_reduced_motion(reduced, state_->time);
    state_->moving_order.set_reduced_motion(reduced);
}

bool Hud::set_interval(std::string_view meter, Seconds interval) {
    if (!state_->may({.name = "set_interval", .text = meter, .number = interval.count()})) return false;
    if (state_->meters.set_interval(meter, interval)) return true;
    state_->problems.report({{},
                             "no meter '" + std::string(meter) + "'",
                             did_you_mean(meter, state_->meters.names()),
                             ProblemCode::unknown_name});
    return false;
}

void Hud::set_flash_limit(FlashLimit& limit) {
    if (!state_->may(RecordedCall{.name = "set_flash_limit"})) return;
    state_->effects.set_limit(limit);
    state_->readouts.set_limit(state_->effects.flashes());
}

void Hud::set_flash_settings(const FlashSettings& settings) {
    if (!state_->may({.name = "set_flash_settings", .detail = &settings})) return;
    const float angle = settings.field_of_view;
    state_->flashes_of_game = settings;
    state_->flashes_of_game.field_of_view =
        angle >= 1 ? std::min(angle, 180.0F) : FlashSettings{}.field_of_view;
    state_->follow_flash_settings();
}

bool Hud::flash_limited() const {
    return state_->effects.is_limited();
}

/// What the game does not say is as the file says it.
void Hud::State::follow_flash_settings() {
    FlashSettings settings = flashes_of_game;
    settings.rule = settings.rule.value_or(flashes_of_file);
    effects.set_flash_settings(settings);
    readouts.set_limit(effects.flashes());
}

void Hud::set_language(const Language& language) {
    if (!state_->may({.name = "set_language", .text = language.tag})) return;
    state_->set_language(language);
    for (ElementIndex index = 0; index < state_->elements.count(); ++index)
        if (state_->elements[index].body != nullptr) state_->speak(index);
}

void Hud::State::set_language(const Language& given) {
    language = std::make_shared<const Language>(locales.with_names(given));
    layouter.set_right_to_left(given.right_to_left);
    // Last, as it may be the one that was given.
    language_of_game = std::make_shared<const Language>(given);
}

void Hud::resize(const Viewport& viewport) {
    if (!state_->may({.name = "resize", .detail = &viewport})) return;
    const auto length = [](float given) { return given > 0 && std::isfinite(given) ? given : 0.0F; };
    const auto place = [](float given) { return std::isfinite(given) ? given : 0.0F; };
    const Insets& safe = viewport.safe_area;
    state_->layouter.set_viewport(
        {{place(viewport.origin.x), place(viewport.origin.y)},
         {length(viewport.size.width), length(viewport.size.height)},
         {length(safe.top), length(safe.right), length(safe.bottom), length(safe.left)}});
}

void Hud::set_scale(float scale) {
    if (!state_->may({.name = "set_scale", .number = scale})) return;
    state_->layouter.set_scale(scale >= 0.25F ? std::min(scale, 4.0F) : scale > 0 ? 0.25F : 1.0F);
}

void Hud::set_text_scale(float scale) {
    if (!state_->may({.name = "set_text_scale", .number = scale})) return;
    const float limited = scale > 0 ? std::clamp(scale, 0.5F, 3.0F) : 1.0F;
    if (std::exchange(state_->text_scale, limited) == limited) return;
    for (ElementIndex index = 0; index < state_->elements.count(); ++index)
        if (state_->elements[index].is_living())
            state_->change(index, Element(*state_->elements[index].description));
}

bool Hud::play(ElementRef ref, std::string_view effect, float strength) {
    if (!state_->may({.name = "play", .text = effect, .number = strength}, &ref)) return false;
    if (!std::isfinite(strength)) {
        state_->problems.report(
            {{},
             "the strength of effect '" + std::string(effect) + "' must be a finite number",
             "",
             ProblemCode::out_of_range});
        return false;
    }
    const Effect* const found = find_effect(*state_, effect);
    const ElementIndex index = state_->elements.living(ref);
    if (found == nullptr || index == no_element) return false;
    state_->keep_finished(index);
    return state_->effects.request(index, *found, state_->time.now(), strength);
}

void Hud::stop(ElementRef ref, std::string_view effect) {
    if (!state_->may({.name = "stop", .text = effect}, &ref)) return;
    const Effect* const found = find_effect(*state_, effect);
    const ElementIndex index = state_->elements.living(ref);
    if (found == nullptr || index == no_element) return;
    state_->keep_finished(index);
    state_->effects.stop(index, *found, state_->time.now());
}

bool Hud::alive(ElementRef ref) const {
    return state_->elements.living(ref) != no_element;
}

Shown Hud::State::shown(ElementIndex index) const {
    const RunningElement& element = elements[index];
    const Travel* const travel = readouts[index].travel.get();
    const bool drawn = visibility.is_drawn(index);
    const Rect box = drawn ? layouter.box(index) : Rect{};
    const Moved moved = effects.moved_in_design(index, time.now());
    const Point pivot = layouter.pivot(index);
    const Point held{box.x + box.width * pivot.x, box.y + box.height * pivot.y};
    const Point now = moved.transform.apply(held);
    const Value& truth = readouts.value(index);
    return {.id = element.path,
            .kind = element.kind->name(),
            .text = element.body->text(),
            .fill = element.body->fill(),
            .trail = element.body->trail(),
            .truth = truth,
            .target = travel != nullptr ? travel->target() : truth,
            .shown = travel != nullptr ? travel->shown(time.now(travel->clock())) : truth,
            .color = mix(element.body->color(), moved.tint.color, static_cast<double>(moved.tint.part)),
            .opacity = visibility.opacity(index) * moved.opacity,
            .scale = moved.scale,
            .offset = {now.x - held.x, now.y - held.y},
            .rotation = moved.rotation,
            .visible = drawn,
            .box = box,
            .drawn_box = drawn ? seen_box(index) : Rect{},
            .changed = elements.changed(index),
            .text_changed = elements.text_changed(index)};
}

const Shown Hud::operator[](ElementRef ref) const {
    const ElementIndex index = state_->elements.living(ref);
    if (index == no_element) return {};
    const Finished::Kept* const kept = state_->finished.find(index);
    if (kept == nullptr) return state_->shown(index);
    Shown shown = kept->shown;
    shown.id = state_->elements[index].path;
    shown.text = kept->text;
    shown.truth = kept->truth.get();
    shown.target = kept->target.get();
    shown.shown = kept->value.get();
    return shown;
}

std::string_view Hud::text(ElementRef ref) const {
    const ElementIndex index = state_->elements.living(ref);
    if (index == no_element) return {};
    const Finished::Kept* const kept = state_->finished.find(index);
    return kept != nullptr ? kept->text : state_->elements[index].body->text();
}

std::optional<double> Hud::fill(ElementRef ref) const {
    const ElementIndex index = state_->elements.living(ref);
    if (index == no_element) return std::nullopt;
    const Finished::Kept* const kept = state_->finished.find(index);
    return kept != nullptr ? kept->shown.fill : state_->elements[index].body->fill();
}

bool Hud::text_changed(ElementRef ref) const {
    const ElementIndex index = state_->elements.living(ref);
    return index != no_element && state_->elements.text_changed(index);
}

std::vector<ElementRef> Hud::elements() const {
    std::vector<ElementRef> refs;
    for (const ElementIndex index : state_->elements.by_rank())
        refs.push_back(state_->elements.ref(index));
    return refs;
}

std::vector<ElementRef> Hud::draw_order() const {
    std::vector<ElementRef> refs;
    for (const ElementIndex index : state_->elements.draw_order())
        refs.push_back(state_->elements.ref(index));
    return refs;
}

ElementRef Hud::find(std::string_view id) {
    Problem problem;
    const ElementIndex found = state_->elements.find(id, problem);
    if (found != no_element) return state_->elements.ref(found);
    state_->problems.report(std::move(problem));
    return {};
}

GameTimer* Hud::timer(std::string_view id) {
    const TimerIndex index = state_->timers.find(std::string(id));
    if (index != no_timer && state_->timers[index].owned != nullptr) return state_->timers[index].owned.get();
    state_->problems.report({{},
                             "no timer '" + std::string(id) + "' of this HUD",
                             did_you_mean(id, state_->timers.names()),
                             ProblemCode::unknown_name});
    return nullptr;
}

std::vector<TimerState> Hud::save_timers() const {
    return state_->timers.save();
}

bool Hud::restore_timers(std::span<const TimerState> timers) {
    if (!state_->may("restore_timers")) return false;
    bool all = true;
    for (const TimerState& saved : timers) {
        const TimerIndex index = state_->timers.find(saved.id);
        const bool is_own = index != no_timer && state_->timers[index].owned != nullptr;
        if (is_own && !state_->timers[index].owned->can_be(saved)) {
            all = false;
            state_->problems.report(
                {{},
                 "timer '" + saved.id + "' can never be where it was saved: that save is damaged",
                 "the timer goes on as it is",
                 ProblemCode::out_of_range});
            continue;
        }
        if (is_own) {
            state_->timers.restore(index, saved);
            if (state_->recording != nullptr)
                state_->recording->call({.name = "restore_timers", .detail = &saved});
            continue;
        }
        all = false;
        state_->problems.report({{},
                                 "no timer '" + saved.id + "' of this HUD",
                                 did_you_mean(saved.id, state_->timers.names()),
                                 ProblemCode::unknown_name});
    }
    return all;
}

std::vector<std::string> Hud::wanted_sources() const {
    return state_->bindings.asked();
}

std::vector<std::string> Hud::offered_sources() const {
    return state_->bindings.told();
}

std::uint64_t Hud::texts_made() const {
    std::uint64_t count = 0;
    for (ElementIndex index = 0; index < state_->elements.count(); ++index)
        if (const Body* const body = state_->elements[index].body.get()) count += body->times_made();
    return count;
}

std::span<const Event> Hud::events() const {
    return state_->events.all();
}
Nanoseconds Hud::now() const {
    return state_->time.now();
}
const Problems& Hud::problems() const {
    return state_->problems.all();
}

}  // namespace rapido
