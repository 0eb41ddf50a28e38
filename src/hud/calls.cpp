// What a game asks of a running HUD between two frames.
#include <algorithm>
#include <cmath>

#include "base/nearest.hpp"
#include "hud/state.hpp"
#include "rapido/hud/hud.hpp"

namespace rapido {

RunningElement* Hud::State::living(ElementRef ref) {
    if (ref.hud != id || ref.index >= elements.size()) return nullptr;
    RunningElement& element = elements[ref.index];
    return element.generation == ref.generation && element.body != nullptr && !element.dead ? &element
                                                                                            : nullptr;
}

RunningGroup* Hud::State::find_group(std::string_view group) {
    std::vector<std::string_view> names;
    for (RunningGroup& known : groups) {
        if (known.id == group) return &known;
        names.push_back(known.id);
    }
    report({{}, "no group '" + std::string(group) + "'", did_you_mean(group, names)});
    return nullptr;
}

void Hud::snap() {
    for (ElementIndex index = 0; index < state_->elements.size(); ++index)
        if (state_->elements[index].body != nullptr) {
            state_->hot[index].snaps = true;
            state_->queue_element(index);
        }
}

void Hud::snap(ElementRef ref) {
    if (state_->living(ref) == nullptr) return;
    state_->hot[ref.index].snaps = true;
    state_->queue_element(ref.index);
}

void Hud::snap(std::string_view group) {
    const RunningGroup* const found = state_->find_group(group);
    for (ElementIndex index = 0; found != nullptr && index < state_->elements.size(); ++index) {
        const RunningElement& element = state_->elements[index];
        if (element.body == nullptr || element.group == no_group || &state_->groups[element.group] != found)
            continue;
        state_->hot[index].snaps = true;
        state_->queue_element(index);
    }
}

void Hud::set_visible(std::string_view group, bool visible) {
    if (RunningGroup* const found = state_->find_group(group)) found->game_shows = visible;
    state_->visibility_dirty = true;
}

void Hud::set_opacity(std::string_view group, float opacity) {
    if (RunningGroup* const found = state_->find_group(group))
        found->game_opacity = opacity > 0 ? std::min(opacity, 1.0F) : 0.0F;
    state_->visibility_dirty = true;
}

void Hud::remove(ElementRef ref) {
    if (state_->living(ref) != nullptr) state_->kill(ref.index);
}

void Hud::leave(ElementRef ref, std::string_view effect) {
    RunningElement* const element = state_->living(ref);
    if (element == nullptr || element->leaving) return;
    element->leaving = true;
    Problem problem;
    const Effect* const found = effect.empty() ? nullptr : state_->find_effect(effect, problem);
    if (!problem.message.empty()) state_->report(std::move(problem));
    if (found != nullptr && found->repeat > 0 && !state_->reduced_motion &&
        state_->play(ref.index, *found, state_->now, 1, PlayAs::leave))
        element->leave_effect = found;
    state_->leaving.push_back(ref.index);
}

void Hud::set_reduced_motion(bool reduced) {
    if (reduced == state_->reduced_motion) return;
    state_->reduced_motion = reduced;
    for (RunningElement& element : state_->elements)
        if (element.effects != nullptr) element.effects->player.set_reduced_motion(reduced);
    for (ElementIndex index = 0; reduced && index < state_->elements.size(); ++index) {
        RunningElement& element = state_->elements[index];
        if (element.travel == nullptr) continue;
        element.travel->land(state_->moment(element.travel->clock()));
        state_->queue_element(index);
    }
}

void Hud::resize(const Viewport& viewport) {
    const auto length = [](float given) { return given > 0 && std::isfinite(given) ? given : 0.0F; };
    const auto place = [](float given) { return std::isfinite(given) ? given : 0.0F; };
    const Insets& safe = viewport.safe_area;
    state_->viewport = {{place(viewport.origin.x), place(viewport.origin.y)},
                        {length(viewport.size.width), length(viewport.size.height)},
                        {length(safe.top), length(safe.right), length(safe.bottom), length(safe.left)}};
    state_->screen_dirty = true;
}

void Hud::set_scale(float scale) {
    state_->fit.ui_scale = scale >= 0.25F ? std::min(scale, 4.0F) : scale > 0 ? 0.25F : 1.0F;
    state_->screen_dirty = true;
}

Shown Hud::operator[](ElementRef ref) const {
    const RunningElement* const living = state_->living(ref);
    if (living == nullptr) return {};
    const RunningElement& element = *living;
    const HotElement& hot = state_->hot[ref.index];
    const Pose pose = state_->body_pose(ref.index);
    const Value truth = hot.value == no_source ? Value() : state_->scan.value(hot.value);
    return {.id = element.path,
            .kind = element.kind->name,
            .text = hot.shows_plain ? hot.plain.text() : element.body->text(),
            .fill = element.body->fill(),
            .trail = element.body->trail(),
            .truth = truth,
            .target = element.travel != nullptr ? element.travel->target() : truth,
            .shown = element.travel != nullptr
                         ? element.travel->shown(state_->moment(element.travel->clock()))
                         : truth,
            .color = mix(element.body->color(), pose.color, static_cast<double>(pose.color_part)),
            .opacity = element.opacity * pose.opacity,
            .scale = pose.scale,
            .offset = pose.offset,
            .rotation = pose.rotation,
            .visible = element.shown,
            .box = state_->screen_box(element.box),
            .changed = hot.changed_in == state_->frame,
            .text_changed = hot.changed_in == state_->frame && hot.text_changed};
}

std::vector<ElementRef> Hud::elements() const {
    std::vector<ElementRef> refs;
    for (ElementIndex index = 0; index < state_->elements.size(); ++index) {
        const ElementRef ref = state_->ref_of(index);
        if (state_->living(ref) != nullptr) refs.push_back(ref);
    }
    return refs;
}

std::uint64_t Hud::texts_made() const {
    std::uint64_t count = state_->plain_texts_made;
    for (const RunningElement& element : state_->elements)
        if (element.body != nullptr) count += element.body->times_made();
    return count;
}

std::span<const Event> Hud::events() const {
    return state_->events;
}
Nanoseconds Hud::now() const {
    return state_->now;
}
const Problems& Hud::problems() const {
    return state_->problems;
}

void Hud::draw(DrawList& list) const {
    if (state_->structure_dirty) state_->link_parents();
    const std::uint64_t structure = (std::uint64_t{state_->id} << 32) | state_->structure;
    if (list.structure_ != structure) {
        list.structure_ = structure;
        list.groups_.assign(state_->draw_order.size(), {});
    }
    for (std::size_t i = 0; i < state_->draw_order.size(); ++i) {
        const ElementIndex index = state_->draw_order[i];
        DrawGroup& group = list.groups_[i];
        if (group.revision == state_->hot[index].revision) continue;
        group.revision = state_->hot[index].revision;
        const RunningElement& element = state_->elements[index];
        const Rect device = state_->device_box(index);
        const Moved moved = state_->moved(index);
        group.begin(element.opacity * moved.opacity, moved.tint, moved.transform);
        if (!element.shown || state_->measurer == nullptr) continue;
        element.body->draw(
            {device, state_->screen.scale, state_->mirrored, state_->measurer, &state_->point_room}, group);
        state_->draw_over(index, device, group);
    }
}

/// By its path, or by its id if only one has it; no element, with a problem, for none.
ElementIndex Hud::State::find_element(std::string_view name, Problem& problem) const {
    if (const auto at = paths.find(std::string(name)); at != paths.end()) return at->second;
    ElementIndex only = no_element;
    bool several = false;
    std::vector<std::string_view> names;
    for (ElementIndex index = 0; index < elements.size(); ++index) {
        if (elements[index].body == nullptr || elements[index].dead) continue;
        const std::string_view path = elements[index].path;
        const std::string_view last = path.substr(path.rfind('.') + 1);
        names.push_back(last);
        if (last != name) continue;
        several = only != no_element;
        only = index;
    }
    if (only != no_element && !several) return only;
    problem.message = several
                          ? "several elements have the id '" + std::string(name) + "'; give the whole path"
                          : "no element '" + std::string(name) + "'";
    problem.hint = several ? std::string() : did_you_mean(name, names);
    return no_element;
}

ElementRef Hud::find(std::string_view id) {
    Problem problem;
    const ElementIndex found = state_->find_element(id, problem);
    if (found != no_element) return state_->ref_of(found);
    state_->report(std::move(problem));
    return {};
}

GameTimer* Hud::timer(std::string_view id) {
    std::vector<std::string_view> names;
    for (RunningTimer& timer : state_->timers) {
        if (timer.owned == nullptr) continue;
        if (timer.id == id) return timer.owned.get();
        names.push_back(timer.id);
    }
    state_->report({{}, "no timer '" + std::string(id) + "' of this HUD", did_you_mean(id, names)});
    return nullptr;
}

}  // namespace rapido
