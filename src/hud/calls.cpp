// What a game asks of a running HUD between two frames.
#include <algorithm>
#include <cmath>

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
    if (const auto known = group_indices.find(std::string(group)); known != group_indices.end())
        return &groups[known->second];
    report({{}, "no group '" + std::string(group) + "'", hint(group, [this] { return group_names(); })});
    return nullptr;
}

void Hud::snap() {
    if (!state_->may("snap")) return;
    for (ElementIndex index = 0; index < state_->elements.size(); ++index)
        if (state_->elements[index].body != nullptr) {
            state_->hot[index].snaps = true;
            state_->queue_element(index);
        }
}

void Hud::snap(ElementRef ref) {
    if (!state_->may("snap")) return;
    if (state_->living(ref) == nullptr) return;
    state_->hot[ref.index].snaps = true;
    state_->queue_element(ref.index);
}

void Hud::snap(std::string_view group) {
    if (!state_->may("snap")) return;
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
    if (!state_->may("set_visible")) return;
    if (RunningGroup* const found = state_->find_group(group)) found->game_shows = visible;
    state_->visibility_dirty = true;
}

void Hud::set_opacity(std::string_view group, float opacity) {
    if (!state_->may("set_opacity")) return;
    if (RunningGroup* const found = state_->find_group(group))
        found->game_opacity = opacity > 0 ? std::min(opacity, 1.0F) : 0.0F;
    state_->visibility_dirty = true;
}

void Hud::remove(ElementRef ref) {
    if (!state_->may("remove")) return;
    if (state_->living(ref) != nullptr) state_->kill(ref.index);
}

void Hud::leave(ElementRef ref, std::string_view effect) {
    if (!state_->may("leave")) return;
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
    if (!state_->may("set_reduced_motion")) return;
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
    if (!state_->may("resize")) return;
    const auto length = [](float given) { return given > 0 && std::isfinite(given) ? given : 0.0F; };
    const auto place = [](float given) { return std::isfinite(given) ? given : 0.0F; };
    const Insets& safe = viewport.safe_area;
    state_->viewport = {{place(viewport.origin.x), place(viewport.origin.y)},
                        {length(viewport.size.width), length(viewport.size.height)},
                        {length(safe.top), length(safe.right), length(safe.bottom), length(safe.left)}};
    state_->screen_dirty = true;
}

void Hud::set_scale(float scale) {
    if (!state_->may("set_scale")) return;
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
    return std::as_const(state_->events).all();
}
Nanoseconds Hud::now() const {
    return state_->now;
}
const Problems& Hud::problems() const {
    return state_->problems.all();
}

void Hud::draw(DrawList& list) const {
    if (state_->structure_dirty) state_->link_parents();
    const std::uint64_t structure = (std::uint64_t{state_->id} << 32) | state_->structure;
    if (list.structure_ != structure) {
        list.structure_ = structure;
        list.groups_.assign(state_->draw_order.size(), {});
    }
    std::size_t commands = 0, glyphs = 0, points = 0;
    for (std::size_t i = 0; i < state_->draw_order.size(); ++i) {
        const ElementIndex index = state_->draw_order[i];
        DrawGroup& group = list.groups_[i];
        if (group.revision != state_->hot[index].revision) {
            group.revision = state_->hot[index].revision;
            state_->draw(index, group);
        }
        commands += group.commands().size();
        glyphs += group.glyph_count();
        points += group.point_count();
        if (commands <= DrawList::most_commands && glyphs <= DrawList::most_glyphs &&
            points <= DrawList::most_points)
            continue;
        for (; i < state_->draw_order.size(); ++i)
            list.groups_[i] = {};
        state_->report({{}, "the HUD draws more than a screen can show; what comes later is left out", ""});
    }
}

/// All that an element draws, into a group that is empty or out of date.
void Hud::State::draw(ElementIndex index, DrawGroup& group) {
    const RunningElement& element = elements[index];
    const Rect device = device_box(index);
    const Moved moved_by = moved(index);
    group.begin(element.opacity * moved_by.opacity, moved_by.tint, moved_by.transform);
    if (!element.shown || measurer == nullptr) return;
    element.body->draw({device, screen.scale, mirrored, measurer, &point_room}, group);
    draw_over(index, device, group);
}

/// By its path, or by its id if only one has it; no element, with a problem, for none.
ElementIndex Hud::State::find_element(std::string_view name, Problem& problem) const {
    if (const auto at = paths.find(std::string(name)); at != paths.end()) return at->second;
    const auto [first, last] = ids.equal_range(std::string(name));
    if (first != last && std::next(first) == last) return first->second;
    const bool several = first != last;
    problem.message = several
                          ? "several elements have the id '" + std::string(name) + "'; give the whole path"
                          : "no element '" + std::string(name) + "'";
    if (!several)
        problem.hint = hint(name, [this] {
            std::vector<std::string_view> names;
            for (const RunningElement& element : elements)
                if (element.body != nullptr && !element.dead)
                    names.push_back(std::string_view(element.path).substr(element.path.rfind('.') + 1));
            return names;
        });
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
    const auto known = state_->timer_indices.find(std::string(id));
    if (known != state_->timer_indices.end() && state_->timers[known->second].owned != nullptr)
        return state_->timers[known->second].owned.get();
    state_->report({{}, "no timer '" + std::string(id) + "' of this HUD", state_->hint(id, [this] {
                        return state_->timer_names();
                    })});
    return nullptr;
}

}  // namespace rapido
