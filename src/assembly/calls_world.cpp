// What a game says of its world: the camera, things that are tagged, amounts that pop up.
#include "base/nearest.hpp"
#include "element/popups_body.hpp"
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

struct TagThing {
    std::string element{};
    std::uint64_t thing = 0;
};
constexpr std::array tag_fields{
    field<&TagThing::element>("element", "The path of the tags."),
    required_field<&TagThing::thing>("thing", "The number of the thing, counted from 0 on."),
};
void apply(const TagThing& call, CallStage& at) {
    at.tag(call.thing, at.element(call.element));
}
constexpr auto tag_call = call_kind<TagThing>("tag", "Tags a thing of the world.", tag_fields);

struct PopUp {
    std::string element{};
    std::array<double, 3> at{};
    std::optional<Point> on_screen{};
    KeptValue value{};
};
constexpr std::array pop_fields{
    field<&PopUp::element>("element", "The path of the popups."),
    required_field<&PopUp::at>("at", "The place in the world: x, y, z."),
    field<&PopUp::on_screen>("on_screen", "The place on the screen, in place of one in the world.", {"px", -1e6, 1e6}),
    field<&PopUp::value>("value", "The amount."),
};
void apply(const PopUp& call, CallStage& at) {
    const WorldPoint place{call.at[0], call.at[1], call.at[2]};
    at.hud.pop(at.element(call.element), {.at = place, .on_screen = call.on_screen, .value = call.value.get()});
}
constexpr auto pop_call = call_kind<PopUp>("pop", "Lets an amount pop up.", pop_fields, {.lasts = false});

constexpr std::array<const CallKind*, 3> world_kinds{&set_camera_call, &tag_call, &pop_call};

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

TagRef Hud::tag(ElementRef ref, const PositionSource& at, std::span<const Source> values) {
    if (!state_->may(tag_call)) return {};
    const auto refuse = [this](std::string message, std::string hint) -> TagRef {
        state_->problems.report({{}, std::move(message), std::move(hint), ProblemCode::bad_call});
        return {};
    };
    const ElementIndex index = state_->elements.living(ref);
    GameThings* const things = index != no_element ? state_->lists.things(index) : nullptr;
    if (things == nullptr)
        return refuse("only tags without 'entries' take things one by one",
                      "a container that they have is followed by itself");
    const std::size_t wanted = things->fields().size() - 1;  // without their key
    if (values.size() != wanted)
        return refuse(state_->elements[index].name() + " takes " + std::to_string(wanted) +
                          " values with each thing, and was given " + std::to_string(values.size()),
                      "they are in the order of 'parameters'");
    std::vector<detail::Binding>& bound = state_->bound_values;
    bound.clear();
    for (const Source& value : values) {
        bound.push_back(state_->bindings.bound(value));
        if (value && bound.back().access() == detail::Binding::Access::none)
            return refuse("unknown source '" + value.name() + "'",
                          did_you_mean(value.name(), state_->bindings.sources().names()));
    }
    const std::uint32_t thing = things->add(at, bound);
    const TagRef made{ref.index, ref.generation, thing, things->generation(thing), ref.hud};
    state_->note(tag_call, [&] {
        return TagThing{state_->elements[index].path, state_->recording->add(made, at, bound)};
    });
    return made;
}

/// The things that a reference is one of; null for a dead one.
GameThings* Hud::State::things_of(const TagRef& tag) {
    const ElementIndex index = elements.living({tag.element, tag.element_generation, tag.hud});
    GameThings* const things = index != no_element ? lists.things(index) : nullptr;
    return things != nullptr && things->is_there(tag.index, tag.generation) ? things : nullptr;
}

bool Hud::alive(TagRef tag) const {
    return state_->things_of(tag) != nullptr;
}

bool Hud::pop(ElementRef ref, const Pop& pop) {
    const ElementIndex index = state_->target(pop_call, ref);
    if (index == no_element) return false;
    const RunningElement& element = state_->elements[index];
    state_->note(pop_call, [&] {
        return PopUp{.element = element.path,
                     .at = {pop.at.x, pop.at.y, pop.at.z},
                     .on_screen = pop.on_screen,
                     .value = pop.value};
    });
    if (PopupsBody* const popups = element.body->popups()) {
        state_->keep_finished(index);
        return popups->add(pop, state_->time.now(element.clock), state_->camera, state_->layouter.screen().size);
    }
    state_->problems.report({{}, element.name() + " is no popups", "", ProblemCode::bad_call});
    return false;
}

}  // namespace rapido
