#include "hud/visibility.hpp"

#include <algorithm>
#include <utility>

namespace rapido {

void Visibility::add(ElementIndex index, const Conditions& conditions) {
    seen_.grow_to(index + std::size_t{1});
    seen_[index] = {};
    seen_[index].conditions = conditions;
    dirty_ = true;
}

void Visibility::remove(ElementIndex index) {
    seen_[index].shown = seen_[index].drawn = false;
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

void Visibility::retire(GroupIndex index) {
    group_indices_.erase(groups_[index].id);
    groups_[index] = {};
    dirty_ = true;
}

std::vector<std::string_view> Visibility::group_names() const {
    std::vector<std::string_view> names;
    for (const auto& [id, index] : group_indices_)
        names.push_back(id);
    return names;
}

void Visibility::set_by_game(ElementIndex index, std::optional<bool> visible, std::optional<float> opacity) {
    if (visible) seen_[index].game_shows = *visible;
    if (opacity) seen_[index].game_opacity = *opacity;
    dirty_ = true;
}

void Visibility::set_all_by_game(std::optional<bool> visible, std::optional<float> opacity) {
    game_shows_ = visible.value_or(game_shows_);
    game_opacity_ = opacity.value_or(game_opacity_);
    dirty_ = true;
}

void Visibility::set_by_band(ElementIndex index, std::optional<bool> visible, Color filter) {
    Seen& seen = seen_[index];
    if (visible == seen.by_band && filter == seen.filter_of_band) return;
    seen.by_band = visible;
    seen.filter_of_band = filter;
    dirty_ = true;
}

void Visibility::set_by_list(ElementIndex index, bool is_taken) {
    if (std::exchange(seen_[index].has_entry, is_taken) != is_taken) dirty_ = true;
}

void Visibility::decide() {
    if (!std::exchange(dirty_, false)) return;
    for (const ElementIndex index : order_.empty() ? elements_.parents_first() : std::span<const ElementIndex>(order_))
        decide(index);
    begun_ = true;
}

void Visibility::set_riders(bool any) {
    order_.clear();
    dirty_ = true;
    if (!any) return;
    std::vector<std::uint8_t> is_placed(elements_.count());
    const auto place = [&](auto& self, ElementIndex index) -> void {
        if (index == no_element || std::exchange(is_placed[index], std::uint8_t{1}) != 0) return;
        self(self, elements_[index].parent);
        self(self, elements_[index].rides_on);
        order_.push_back(index);
    };
    for (const ElementIndex index : elements_.parents_first())
        place(place, index);
}

void Visibility::decide(ElementIndex index) {
    const RunningElement& element = elements_[index];
    Seen& seen = seen_[index];
    const Conditions& by = seen.conditions;
    bool wanted = !element.dead && seen.game_shows && seen.has_entry && seen.by_band.value_or(is_true(by.visible));
    if (element.rides_on != no_element) wanted = wanted && seen_[element.rides_on].shown;
    if (by.hides_without_value) wanted = wanted && bindings_.value(elements_.hot(index).value).has_value();
    float opacity = seen.game_opacity * seen.conditions.opacity;
    bool group_shown = true;
    if (by.group != no_group) {
        const RunningGroup& group = groups_[by.group];
        group_shown = group.game_shows && is_true(group.visible);
        wanted = wanted && group_shown;
        const bool dimmed = group.dimmed != no_source && bindings_.is_true(group.dimmed);
        opacity *= group.game_opacity * (dimmed ? group.dim : 1);
    }
    const Seen* const around = element.parent != no_element ? &seen_[element.parent] : nullptr;
    opacity *= around != nullptr ? around->opacity : game_opacity_;
    if (around == nullptr) wanted = wanted && game_shows_;
    Color filter = seen.filter_of_band;
    opacity *= static_cast<float>(std::exchange(filter.alpha, std::uint8_t{255})) / 255;
    if (around != nullptr) filter = multiply(filter, around->filter);
    if (opacity != seen.opacity || filter != seen.filter) elements_.mark_changed(index);
    seen.opacity = opacity;
    seen.filter = filter;
    const bool shown = wanted && (around == nullptr || around->shown);
    seen.may_speak = shown;
    if (by.speaks) return;
    decide_change(index, wanted, group_shown);
    const bool drawn = (wanted || seen.leaves) && (around == nullptr || around->drawn);
    set_shown(index, shown, drawn);
}

/// Whether its own conditions have changed where it can be seen: in the first frame of a HUD nothing has.
void Visibility::decide_change(ElementIndex index, bool wanted, bool group_shown) {
    Seen& seen = seen_[index];
    const ElementIndex parent = elements_[index].parent;
    const bool is_seen = (parent == no_element || seen_[parent].shown) && !elements_[index].dead;
    const bool by_group = seen.known && group_shown != seen.group_shown;
    const GroupIndex group = seen.conditions.group;
    const bool has_effects =
        seen.conditions.has_effects || (by_group && group != no_group && groups_[group].has_effects());
    const bool changes = seen.known ? wanted != seen.wanted : wanted && begun_;
    if (wanted || !is_seen) seen.leaves = false;
    if (changes && is_seen && has_effects) {
        const SourceIndex cause = by_group && group != no_group ? groups_[group].visible : seen.conditions.visible;
        changes_.push_back({index, wanted, by_group, bindings_.moment(cause)});
        seen.leaves = !wanted;
    }
    seen.wanted = wanted;
    seen.group_shown = group_shown;
    seen.known = true;
}

std::string Visibility::reason(ElementIndex index) const {
    const Seen& seen = seen_[index];
    const RunningElement& element = elements_[index];
    const Conditions& by = seen.conditions;
    if (seen.shown) {
        if (seen.opacity >= 1) return "is shown";
        if (seen.opacity > 0) return "is shown, and dimmed by its opacity, its group or its panel";
        return "cannot be seen, as its opacity, or that of its group or panel, is zero";
    }
    if (seen.leaves) return "is leaving";
    if (!seen.game_shows) return "is hidden by the game, by set_visible";
    if (!seen.has_entry) return "is hidden, as it shows no entry now, or one that would cover a nearer one";
    if (seen.by_band == false) return "is hidden by a band";
    if (!seen.by_band && !is_true(by.visible)) return "is hidden, as its source 'visible' is not true";
    if (by.hides_without_value && !bindings_.value(elements_.hot(index).value).has_value())
        return "is hidden, as there is no value";
    if (element.rides_on != no_element && !seen_[element.rides_on].shown)
        return "is hidden with " + elements_[element.rides_on].name() + ", at whose end it is";
    if (by.group != no_group) {
        const RunningGroup& group = groups_[by.group];
        if (!group.game_shows) return "is hidden with group '" + group.id + "', by the game";
        if (!is_true(group.visible)) return "is hidden with group '" + group.id + "', whose source is not true";
    }
    if (element.parent != no_element && !seen_[element.parent].shown)
        return "is hidden with " + elements_[element.parent].name() + ", which " + reason(element.parent);
    if (!game_shows_) return "is hidden with the whole HUD, by the game";
    if (by.speaks) return "is hidden, as it has nothing to say";
    return "is hidden until the next update";
}

void Visibility::end_leave(ElementIndex index) {
    if (!std::exchange(seen_[index].leaves, false)) return;
    dirty_ = true;
}

void Visibility::set_speaking(ElementIndex index, bool speaks) {
    const bool shown = speaks && seen_[index].may_speak;
    set_shown(index, shown, shown);
}

void Visibility::set_shown(ElementIndex index, bool shown, bool drawn) {
    Seen& seen = seen_[index];
    seen.shown = shown;
    if (drawn == seen.drawn) return;
    seen.drawn = drawn;
    layouter_.set_shown(index, drawn);
    elements_.mark_changed(index);
}

}  // namespace rapido
