// What a game says of its world: the camera, things that are tagged, amounts that pop up.
#include "base/nearest.hpp"
#include "element/popups_body.hpp"
#include "hud/state.hpp"

namespace rapido {

void Hud::set_camera(const Camera& camera) {
    if (state_->may({.name = "set_camera", .detail = &camera})) state_->camera = camera;
}

TagRef Hud::tag(ElementRef ref, const PositionSource& at, std::span<const Source> values) {
    if (!state_->may("tag")) return {};
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
    if (state_->recording != nullptr)
        state_->recording->call({.name = "tag",
                                 .element = state_->elements[index].path,
                                 .thing = state_->recording->add(made, at, bound)});
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

void Hud::remove(TagRef tag) {
    if (!state_->may("remove")) return;
    GameThings* const things = state_->things_of(tag);
    if (things == nullptr) return;
    if (state_->recording != nullptr) {
        state_->recording->call({.name = "remove", .thing = state_->recording->number_of(tag)});
        state_->recording->remove(tag);
    }
    things->remove(tag.index);
}

void Hud::set_visible(TagRef tag, bool visible) {
    if (!state_->may("set_visible")) return;
    GameThings* const things = state_->things_of(tag);
    if (things == nullptr) return;
    if (state_->recording != nullptr)
        state_->recording->call(
            {.name = "set_visible", .flag = visible, .thing = state_->recording->number_of(tag)});
    things->set_visible(tag.index, visible);
}

bool Hud::pop(ElementRef ref, const Pop& pop) {
    if (!state_->may({.name = "pop", .value = pop.value, .detail = &pop}, &ref)) return false;
    const ElementIndex index = state_->elements.living(ref);
    if (index == no_element) return false;
    const RunningElement& element = state_->elements[index];
    PopupsBody* const popups = element.body->popups();
    if (popups != nullptr) {
        state_->keep_finished(index);
        return popups->add(pop, state_->time.now(element.clock), state_->camera,
                           state_->layouter.screen().size);
    }
    state_->problems.report({{}, element.name() + " is no popups", "", ProblemCode::bad_call});
    return false;
}

}  // namespace rapido
