// Calls that start and end what plays, and that take the present as given.
#include <cmath>

#include "hud/call.hpp"
#include "hud/state.hpp"

namespace rapido {
namespace {

struct Play {
    std::string element{}, effect{};
    float strength = 1;
};
constexpr std::array play_fields{
    field<&Play::element>("element", element_help),
    field<&Play::effect>("effect", "An effect of the HUD, or a built-in one."),
    required_field<&Play::strength>("strength", "A factor of its way from rest.", {"", -100, 100}),
};
void apply(const Play& call, CallStage& at) {
    at.hud.play(at.element(call.element), call.effect, call.strength);
}
constexpr auto play_call = call_kind<Play>("play", "Starts an effect on an element.", play_fields, {.lasts = false});

struct Stop {
    std::string element{}, effect{};
};
constexpr std::array stop_fields{
    field<&Stop::element>("element", element_help),
    field<&Stop::effect>("effect", "The effect."),
};
void apply(const Stop& call, CallStage& at) {
    at.hud.stop(at.element(call.element), call.effect);
}
constexpr auto stop_call =
    call_kind<Stop>("stop", "Ends an effect at the end of its present run.", stop_fields, {.lasts = false});

struct Snap {
    std::optional<std::string> element{}, group{};
};
constexpr std::array snap_fields{
    field<&Snap::element>("element", "The path of the element; without one, the whole HUD."),
    field<&Snap::group>("group", "The id of a group, in place of an element."),
};
void apply(const Snap& call, CallStage& at) {
    if (call.element) return at.hud.snap(at.element(*call.element));
    if (call.group) return at.hud.snap(*call.group);
    at.hud.snap();
}
constexpr auto snap_call = call_kind<Snap>("snap", "Takes the present of an element, a group, or all, as given.",
                                           snap_fields, {.lasts = false});

constexpr std::array<const CallKind*, 3> effects_kinds{&play_call, &stop_call, &snap_call};

/// The effect of a name; null, with a problem, for none.
const Effect* find_effect(Parts& hud, std::string_view name) {
    Problem problem;
    const Effect* const found = hud.effects.find(name, problem);
    if (found == nullptr) hud.problems.report(std::move(problem));
    return found;
}

}  // namespace

CallKinds effect_calls() {
    return effects_kinds;
}

bool Hud::play(ElementRef ref, std::string_view effect, float strength) {
    if (!state_->may(play_call)) return false;
    const ElementIndex index = state_->elements.living(ref);
    if (index != no_element)
        state_->note(play_call, [&] { return Play{state_->elements[index].path, std::string(effect), strength}; });
    if (!std::isfinite(strength)) {
        state_->problems.report({{},
                                 "the strength of effect '" + std::string(effect) + "' must be a finite number",
                                 "",
                                 ProblemCode::out_of_range});
        return false;
    }
    const Effect* const found = find_effect(*state_, effect);
    if (found == nullptr || index == no_element) return false;
    state_->keep_finished(index);
    return state_->effects.request(index, *found, state_->time.now(), strength);
}

void Hud::stop(ElementRef ref, std::string_view effect) {
    const ElementIndex index = state_->target(stop_call, ref);
    if (index == no_element) return;
    state_->note(stop_call, [&] { return Stop{state_->elements[index].path, std::string(effect)}; });
    const Effect* const found = find_effect(*state_, effect);
    if (found == nullptr) return;
    state_->keep_finished(index);
    state_->effects.stop(index, *found, state_->time.now());
}

/// What happened until now is forgotten now, and what is called from now on happens: `hud.snap(); hud.notify(...)`.
void Hud::State::snap(ElementIndex index) {
    keep_finished(index);
    readouts.snap(index);
    lists.snap(index);
    effects.snap(index);
    notices.snap(index);
}

void Hud::snap() {
    if (!state_->may(snap_call)) return;
    state_->note(snap_call, [] { return Snap{}; });
    for (ElementIndex index = 0; index < state_->elements.count(); ++index)
        if (state_->elements[index].body != nullptr) state_->snap(index);
}

void Hud::snap(ElementRef ref) {
    const ElementIndex outer = state_->target(snap_call, ref);
    if (outer == no_element) return;
    const std::string& path = state_->elements[outer].path;
    state_->note(snap_call, [&] { return Snap{.element = path}; });
    for (ElementIndex index = 0; index < state_->elements.count(); ++index)
        if (index == outer || state_->elements[index].stands_in(path)) state_->snap(index);
}

void Hud::snap(std::string_view group) {
    if (!state_->may(snap_call)) return;
    state_->note(snap_call, [&] { return Snap{.group = std::string(group)}; });
    if (state_->find_group(group) == nullptr) return;
    const GroupIndex found = state_->visibility.find(std::string(group));
    for (ElementIndex index = 0; index < state_->elements.count(); ++index)
        if (state_->elements[index].body != nullptr && state_->visibility.conditions(index).group == found)
            state_->snap(index);
}

}  // namespace rapido
