#include "hud/visibility.hpp"

#include <algorithm>

namespace rapido {

void Visibility::add(ElementIndex index, const Conditions& conditions) {
    if (index >= seen_.size()) seen_.resize(index + std::size_t{1});
    seen_[index] = {};
    seen_[index].conditions = conditions;
    dirty_ = true;
}

void Visibility::remove(ElementIndex index) {
    seen_[index].shown = false;
    layouter_.remove(index);
}

void Visibility::add(RunningGroup group) {
    group_indices_.emplace(group.id, static_cast<GroupIndex>(groups_.size()));
    groups_.push_back(std::move(group));
}

GroupIndex Visibility::find(const std::string& id) const {
    const auto known = group_indices_.find(id);
    return known != group_indices_.end() ? known->second : no_group;
}

std::vector<std::string_view> Visibility::group_names() const {
    std::vector<std::string_view> names;
    for (const RunningGroup& group : groups_)
        names.push_back(group.id);
    return names;
}

void Visibility::set_by_band(ElementIndex index, std::optional<bool> visible) {
    if (visible == seen_[index].by_band) return;
    seen_[index].by_band = visible;
    dirty_ = true;
}

void Visibility::decide() {
    if (!std::exchange(dirty_, false)) return;
    for (const ElementIndex index : elements_.parents_first())
        decide(index);
}

void Visibility::decide(ElementIndex index) {
    const RunningElement& element = elements_[index];
    Seen& seen = seen_[index];
    const Conditions& by = seen.conditions;
    bool shown = !element.dead && seen.by_band.value_or(is_true(by.visible));
    if (by.hides_without_value) shown = shown && bindings_.value(elements_.hot(index).value).has_value();
    float opacity = 1;
    if (by.group != no_group) {
        const RunningGroup& group = groups_[by.group];
        shown = shown && group.game_shows && is_true(group.visible);
        const bool dimmed = group.dimmed != no_source && bindings_.is_true(group.dimmed);
        opacity = group.game_opacity * (dimmed ? group.dim : 1);
    }
    if (element.parent != no_element) {
        shown = shown && seen_[element.parent].shown;
        opacity *= seen_[element.parent].opacity;
    }
    if (opacity != seen.opacity) elements_.mark_changed(index);
    seen.opacity = opacity;
    seen.may_speak = shown;
    if (!by.speaks) set_shown(index, shown);
}

void Visibility::set_speaking(ElementIndex index, bool speaks) {
    set_shown(index, speaks && seen_[index].may_speak);
}

void Visibility::set_shown(ElementIndex index, bool shown) {
    if (shown == seen_[index].shown) return;
    seen_[index].shown = shown;
    layouter_.set_shown(index, shown);
    elements_.mark_changed(index);
}

}  // namespace rapido
