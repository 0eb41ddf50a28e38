// Calls by which elements, and what they need, come and go.
#include "hud/call.hpp"
#include "hud/state.hpp"

namespace rapido {
namespace {

struct Add {
    HudDefinition hud{};
};
constexpr std::array add_fields{field<&Add::hud>("hud", "What is added, as a HUD file.")};
void apply(const Add& call, CallStage& at) {
    for (const Theme& theme : call.hud.themes)
        at.hud.add(theme);
    for (const TextStyle& style : call.hud.styles)
        at.hud.add(style);
    for (const Timer& timer : call.hud.timers)
        at.hud.add(timer);
    for (const FrameMeter& meter : call.hud.frame_meters)
        at.hud.add(meter);
    for (const Effect& effect : call.hud.effects)
        at.hud.add(effect);
    for (const Group& group : call.hud.groups)
        at.hud.add(group);
    for (const Element& element : call.hud.elements)
        at.hud.add(element);
}
constexpr auto add_call =
    call_kind<Add>("add", "Adds elements, effects, groups, meters, styles, themes or timers.", add_fields);

struct Reload {
    HudDefinition hud{};
};
constexpr std::array reload_fields{field<&Reload::hud>("hud", "The whole HUD, as a HUD file.")};
void apply(const Reload& call, CallStage& at) {
    at.tell(at.hud.reload(call.hud));
}
constexpr auto reload_call =
    call_kind<Reload>("reload", "Replaces the definition that the HUD was made from.", reload_fields);

struct Remove {
    std::optional<std::string> element{};
    std::optional<std::uint64_t> thing{};
};
constexpr std::array remove_fields{
    field<&Remove::element>("element", element_help),
    field<&Remove::thing>("thing", "The number of a marked thing, in place of an element."),
};
void apply(const Remove& call, CallStage& at) {
    if (call.thing) return at.hud.remove(at.thing(*call.thing));
    if (call.element) at.hud.remove(at.element(*call.element));
}
constexpr auto remove_call =
    call_kind<Remove>("remove", "Takes an element away, or a thing that is marked.", remove_fields);

struct Leave {
    std::string element{}, effect{};
};
constexpr std::array leave_fields{
    field<&Leave::element>("element", element_help),
    field<&Leave::effect>("effect", "The effect that runs backwards before the element is gone."),
};
void apply(const Leave& call, CallStage& at) {
    at.hud.leave(at.element(call.element), call.effect);
}
constexpr auto leave_call = call_kind<Leave>("leave", "Takes an element away when it has left.", leave_fields);

/// Adds one of what stands in a list of a definition, and tells a recorder.
constexpr auto add_one = [](auto& state, const auto& thing, auto list) {
    if (!state.may(add_call) || !state.add(thing, nullptr)) return false;
    state.note(add_call, [&] {
        Add call;
        (call.hud.*list).push_back(thing);
        return call;
    });
    return true;
};

constexpr std::array<const CallKind*, 4> elements_kinds{&add_call, &reload_call, &remove_call, &leave_call};

}  // namespace

CallKinds element_calls() {
    return elements_kinds;
}

ElementRef Hud::add(const Element& element) {
    if (!state_->may(add_call)) return {};
    const ElementRef made = state_->add(element, nullptr);
    if (!made) return made;
    state_->find_speakers(made.index, nullptr);
    state_->note(add_call, [&] { return Add{{.elements = {element}}}; });
    return made;
}

ElementRef Hud::add(const std::vector<Element>& elements) {
    std::vector<ElementRef> added;
    for (const Element& element : elements) {
        added.push_back(add(element));
        if (added.back()) continue;
        // What stands inside another is removed with it.
        for (const ElementRef ref : added)
            if (alive(ref)) remove(ref);
        return {};
    }
    return added.empty() ? ElementRef() : added.front();
}

bool Hud::add(const TextStyle& style) {
    return add_one(*state_, style, &HudDefinition::styles);
}

bool Hud::add(const Theme& theme) {
    if (!add_one(*state_, theme, &HudDefinition::themes)) return false;
    state_->follow_theme();
    return true;
}

bool Hud::add(const Group& group) {
    return add_one(*state_, group, &HudDefinition::groups);
}

bool Hud::add(const Timer& timer) {
    if (!state_->may(add_call)) return false;
    const TimerIndex index = state_->add(timer, nullptr);
    state_->connect(index, timer, nullptr);
    if (index != no_timer) state_->note(add_call, [&] { return Add{{.timers = {timer}}}; });
    return index != no_timer;
}

bool Hud::add(const FrameMeter& meter) {
    return add_one(*state_, meter, &HudDefinition::frame_meters);
}

bool Hud::add(const Effect& effect) {
    return add_one(*state_, effect, &HudDefinition::effects);
}

void Hud::remove(ElementRef ref) {
    const ElementIndex index = state_->target(remove_call, ref);
    if (index == no_element) return;
    state_->note(remove_call, [&] { return Remove{.element = state_->elements[index].path}; });
    state_->kill(index);
}

void Hud::remove(MarkerRef marker) {
    if (!state_->may(remove_call)) return;
    GameThings* const things = state_->things_of(marker);
    if (things == nullptr) return;
    state_->note(remove_call, [&] { return Remove{.thing = state_->recording->number_of(marker)}; });
    if (state_->recording != nullptr) state_->recording->remove(marker);
    things->remove(marker.index);
}

void Hud::leave(ElementRef ref, std::string_view effect) {
    const ElementIndex index = state_->target(leave_call, ref);
    if (index == no_element) return;
    state_->note(leave_call, [&] { return Leave{state_->elements[index].path, std::string(effect)}; });
    if (state_->effects.is_leaving(index)) return;
    Problem problem;
    const Effect* const found = effect.empty() ? nullptr : state_->effects.find(effect, problem);
    if (!problem.message.empty()) state_->problems.report(std::move(problem));
    state_->effects.leave(index, found, state_->time.now());
}

Problems Hud::reload(const HudDefinition& definition) {
    if (!state_->may(reload_call)) return {state_->problems.all().back()};
    // All of it is tried aside, so that a faulty definition changes nothing.
    Hud made;
    made.state_->layouter.set_measurer(state_->layouter.measurer());
    made.state_->images = state_->images;
    made.state_->bindings.set_sources(state_->bindings.sources());
    for (const std::string& name : state_->names_of_game())
        made.state_->bindings.declare(name);
    made.state_->make(definition);
    Problems found = made.problems();
    const Problems clashes = state_->clashes(made);
    found.insert(found.end(), clashes.begin(), clashes.end());
    // A name that is not there yet is none of these: it may come later.
    const bool is_faulty = std::any_of(found.begin(), found.end(), [](const Problem& problem) {
        return problem.severity == Severity::error && problem.code != ProblemCode::unknown_source;
    });
    if (is_faulty) return found;

    const bool looks_differ = state_->reload(definition, made);
    state_->problems = ProblemLog();
    state_->failures.clear();
    for (const Problem& problem : found)
        state_->problems.report(problem);
    const std::size_t told = state_->problems.all().size();
    if (looks_differ) state_->renew_those_of_game();
    const std::span further = std::span(state_->problems.all()).subspan(told);
    std::copy_if(further.begin(), further.end(), std::back_inserter(found),
                 [](const Problem& problem) { return problem.code != ProblemCode::unknown_source; });
    // It is made: what is left of it is none of the errors that keep one from being made.
    for (Problem& problem : found)
        problem.severity = Severity::warning;
    state_->note(reload_call, [&] { return Reload{definition}; });
    return found;
}

}  // namespace rapido
