// What a game says of its world: the camera, things that are marked, amounts that pop up.
#include "base/nearest.hpp"
#include "element/pop_ups_body.hpp"
#include "hud/call.hpp"
#include "hud/state.hpp"

namespace rapido {
namespace {

struct SetCamera {
    std::array<double, 16> matrix{};
    bool flat = false;
};
constexpr std::array set_camera_fields{
    required_field<&SetCamera::matrix>("matrix", "From the world to the screen, row by row."),
    required_field<&SetCamera::flat>("flat", "Whether all is in front of the camera."),
};
void apply(const SetCamera& call, CallStage& at) {
    at.hud.set_camera(Camera::from_matrix(call.matrix, call.flat));
}
constexpr auto set_camera_call =
    call_kind<SetCamera>("set_camera", "Says how the game looks at its world.", set_camera_fields);

struct AddMarker {
    std::string element{};
    std::uint64_t thing = 0;
};
constexpr std::array add_marker_fields{
    field<&AddMarker::element>("element", "The path of the markers."),
    required_field<&AddMarker::thing>("thing", "The number of the thing, counted from 0 on."),
};
void apply(const AddMarker& call, CallStage& at) {
    at.add_marker(call.thing, at.element(call.element));
}
constexpr auto add_marker_call = call_kind<AddMarker>("add_marker", "Marks a thing of the world.", add_marker_fields);

struct PopUpCall {
    std::string element{};
    std::array<double, 3> at{};
    std::optional<Point> on_screen{};
    KeptValue value{};
};
constexpr std::array pop_up_fields{
    field<&PopUpCall::element>("element", "The path of the pop_ups."),
    required_field<&PopUpCall::at>("at", "The place in the world: x, y, z."),
    field<&PopUpCall::on_screen>("on_screen", "The place on the screen, in place of one in the world.",
                                 {"px", -1e6, 1e6}),
    field<&PopUpCall::value>("value", "The amount."),
};
void apply(const PopUpCall& call, CallStage& at) {
    const WorldPoint place{call.at[0], call.at[1], call.at[2]};
    at.hud.pop_up(at.element(call.element), {.at = place, .on_screen = call.on_screen, .value = call.value.get()});
}
constexpr auto pop_up_call = call_kind<PopUpCall>("pop_up", "Lets an amount pop up.", pop_up_fields, {.lasts = false});

constexpr std::array<const CallKind*, 3> world_kinds{&set_camera_call, &add_marker_call, &pop_up_call};

}  // namespace

CallKinds world_calls() {
    return world_kinds;
}

void Hud::set_camera(const Camera& camera) {
    if (!state_->may(set_camera_call)) return;
    state_->note(set_camera_call, [&] {
        SetCamera call{.flat = camera.is_flat()};
        std::copy_n(camera.matrix().begin(), call.matrix.size(), call.matrix.begin());
        return call;
    });
    state_->camera = camera;
}

MarkerRef Hud::add_marker(ElementRef markers, const PositionSource& at, std::initializer_list<Source> values) {
    return add_marker(markers, at, std::span(values.begin(), values.size()));
}

MarkerRef Hud::add_marker(ElementRef ref, const PositionSource& at, std::span<const Source> values) {
    if (!state_->may(add_marker_call)) return {};
    const auto refuse = [this](std::string message, std::string hint) -> MarkerRef {
        state_->problems.report({{}, std::move(message), std::move(hint), ProblemCode::bad_call});
        return {};
    };
    const ElementIndex index = state_->elements.living(ref);
    GameThings* const things = index != no_element ? state_->lists.things(index) : nullptr;
    if (things == nullptr)
        return refuse("only markers without 'entries' take things one by one",
                      "a container that they have is followed by itself");
    const std::size_t wanted = things->fields().size() - 1;  // without their key
    if (values.size() != wanted)
        return refuse(state_->elements[index].name() + " takes " + std::to_string(wanted) +
                          " values with each thing, and was given " + std::to_string(values.size()),
                      "they are in the order of 'parameters'");
    std::vector<detail::Binding>& bound = state_->bound_values;
    bound.clear();
    for (const Source& value : values) {
        for (const std::string& name : value.names())
            if (state_->bindings.bound(by_name(name)).access() == detail::Binding::Access::none)
                return refuse("unknown source '" + name + "'", did_you_mean(name, state_->bindings.sources().names()));
        bound.push_back(state_->bindings.bound(value));
        if (const std::vector<std::string> told = Source(bound.back()).names(); !told.empty())
            return refuse("'" + told.front() + "' is a source that the HUD tells, and a thing is read by itself",
                          "give it a value of the game");
    }
    const std::uint32_t thing = things->add(at, bound);
    const MarkerRef made{ref.index, ref.generation, thing, things->generation(thing), ref.hud};
    state_->note(add_marker_call, [&] {
        return AddMarker{state_->elements[index].path, state_->recording->add(made, at, bound)};
    });
    return made;
}

/// The things that a reference is one of; null for a dead one.
GameThings* Hud::State::things_of(const MarkerRef& marker) {
    const ElementIndex index = elements.living({marker.element, marker.element_generation, marker.hud});
    GameThings* const things = index != no_element ? lists.things(index) : nullptr;
    return things != nullptr && things->is_there(marker.index, marker.generation) ? things : nullptr;
}

bool Hud::alive(MarkerRef marker) const {
    return state_->things_of(marker) != nullptr;
}

bool Hud::pop_up(ElementRef ref, const PopUp& pop) {
    const ElementIndex index = state_->target(pop_up_call, ref);
    if (index == no_element) return false;
    const RunningElement& element = state_->elements[index];
    state_->note(pop_up_call, [&] {
        return PopUpCall{.element = element.path,
                         .at = {pop.at.x, pop.at.y, pop.at.z},
                         .on_screen = pop.on_screen,
                         .value = pop.value};
    });
    if (PopUpsBody* const pop_ups = element.body->pop_ups()) {
        state_->keep_finished(index);
        return pop_ups->add(pop, state_->time.now(element.clock), state_->camera, state_->layouter.screen().size);
    }
    state_->problems.report({{}, element.name() + " is no pop_ups", "", ProblemCode::bad_call});
    return false;
}

}  // namespace rapido
