// Tags in the frame: which things have one, and where it is drawn.
#include <algorithm>
#include <utility>

#include "hud/entry_fields.hpp"
#include "hud/lists.hpp"

namespace rapido {

void Lists::set(RunningList& list, const Tags& description) {
    set_entries(list, description.entries, description.most, panels_of(description));
    if (description.entries) {
        list.things.reset();
    } else if (list.things == nullptr) {
        list.things = std::make_unique<GameThings>(description.parameters);
    } else {
        list.things->set_names(description.parameters);
    }
    if (list.things != nullptr) list.reader = list.things.get();
    list.key = find_field(list.reader, list.things != nullptr ? "key" : std::string_view(description.key));
    list.sort = no_field;
    list.in_sight = find_field(list.reader, description.in_sight);
    list.value = find_field(list.reader, description.value_of);
    list.max = find_field(list.reader, description.max_of);
    if (list.tags == nullptr) list.tags = std::make_unique<TagRanking>();
    list.tags->set(description);
}

GameThings* Lists::things(ElementIndex index) {
    RunningList* const list = find(index);
    return list != nullptr ? list->things.get() : nullptr;
}

/// The nearest of those that may be shown.
void Lists::rank_things(RunningList& list, std::size_t count, std::size_t shown, const View& view, Nanoseconds now) {
    TagRanking& ranking = *list.tags;
    const Tags& tags = ranking.tags();
    SeenThings& things = ranking.things();
    list.ranking.clear();
    list.wanted.assign(count, 0);
    if (list.keys.size() < count) {
        list.keys.resize(count);
        list.values.resize(count);
    }
    things.places.resize(count);
    if (count == 0 || !bindings_.read_positions(*list.reader, things.places)) return;
    const auto read = [&](bool is_wanted, std::size_t field, std::vector<double>& into) {
        into.resize(is_wanted && field != no_field ? count : 0);
        if (!into.empty()) bindings_.read_numbers(*list.reader, field, into);
    };
    read(true, list.in_sight, things.in_sight);
    read(tags.show != ShowTag::always, list.value, things.values);
    read(tags.show == ShowTag::below_full, list.max, things.maxima);
    if (tags.show == ShowTag::after_change) {
        things.keys.resize(count);
        if (list.key != no_field) bindings_.read(*list.reader, list.key, {}, std::span(list.keys).first(count));
        for (std::size_t i = 0; i < count; ++i)
            things.keys[i] = list.key != no_field ? key_of(list.keys[i].get()) : i;
    }
    ranking.rank(view, now, shown, list.ranking);
    for (const std::uint32_t entry : list.ranking)
        list.wanted[entry] = 1;
}

void Lists::find_places(RunningList& list, const View& view) {
    for (Slot& slot : list.slots)
        if (slot.is_followed && slot.entry < list.tags->things().places.size())
            slot.place = list.tags->things().places[slot.entry];
    for (std::size_t rank = 0; rank < list.ranking.size(); ++rank) {
        const std::size_t number = list.by_rank[rank];
        Slot& slot = list.slots[number];
        slot.place = list.tags->things().places[list.ranking[rank]];
        // One that was never laid out will be about as large as the others.
        const Rect own = layouter_.box(slot.panel);
        slot.is_new = own.width <= 0;
        has_new_tags_ = has_new_tags_ || slot.is_new;
        slot.waits = false;
        slot.distance = list.tags->distance(list.ranking[rank]);
        if (own.width > 0) list.usual_size = {own.width, own.height};
        const Size size = own.width > 0 ? Size{own.width, own.height} : list.usual_size;
        const std::optional<TagPlace> place = list.tags->place(slot.place, size, view);
        slot.is_at_edge = place && place->is_at_edge;
        if (!list.tags->tags().declutter && std::exchange(slot.is_covered, false))
            visibility_.set_by_list(slot.panel, true);
        if (!place || !list.tags->tags().declutter) continue;
        seen_.push_back({.list = &list,
                         .slot = number,
                         .layer = elements_[list.element].layer,
                         .distance = slot.distance,
                         .box = list.tags->box(*place, size)});
    }
}

/// Calls `cover` for each tag, the nearest of the highest layer first; one that is shown then is in the way of the others.
template <class Cover>
void Lists::cover_farther(Cover cover) {
    constexpr float margin = 3;  // design pixels
    std::sort(seen_.begin(), seen_.end(), [](const SeenTag& a, const SeenTag& b) {
        if (a.layer != b.layer) return a.layer > b.layer;
        if (a.distance != b.distance) return a.distance < b.distance;
        return std::pair(a.list->element, a.slot) < std::pair(b.list->element, b.slot);
    });
    covered_.clear();
    for (const SeenTag& tag : seen_) {
        Slot& slot = tag.list->slots[tag.slot];
        const float grow = slot.is_covered ? margin : -margin;
        const Rect box{tag.box.x - grow, tag.box.y - grow, tag.box.width + 2 * grow, tag.box.height + 2 * grow};
        const bool is_covered = std::any_of(covered_.begin(), covered_.end(), [&](const Rect& other) {
            return box.x < other.right() && other.x < box.right() && box.y < other.bottom() && other.y < box.bottom();
        });
        if (!is_covered) covered_.push_back(tag.box);
        cover(slot, is_covered);
    }
    seen_.clear();
}

/// Hides what would cover a nearer one, or one of a higher layer. One that is hidden comes back only when there is some room more than it
/// needs, and one that is shown goes only when some of it is covered, so that nothing flickers.
void Lists::declutter() {
    cover_farther([this](Slot& slot, bool is_covered) {
        slot.is_covered = is_covered;
        visibility_.set_by_list(slot.panel, !is_covered);
    });
}

/// Of those that are there for the first time it is known only after layout how large they are.
void Lists::declutter_new(const View& view) {
    if (!std::exchange(has_new_tags_, false)) return;
    for (const auto& list : all_) {
        if (list->tags == nullptr || !list->tags->tags().declutter) continue;
        for (std::size_t number = 0; number < list->slots.size(); ++number) {
            const Slot& slot = list->slots[number];
            if (slot.panel == no_element || !slot.is_taken || !visibility_.is_drawn(slot.panel)) continue;
            const Rect own = layouter_.box(slot.panel);
            const Size size{own.width, own.height};
            if (const std::optional<TagPlace> place = list->tags->place(slot.place, size, view))
                seen_.push_back({.list = list.get(),
                                 .slot = number,
                                 .layer = elements_[list->element].layer,
                                 .distance = slot.distance,
                                 .box = list->tags->box(*place, size)});
        }
    }
    cover_farther([](Slot& slot, bool is_covered) { slot.waits = slot.is_new && is_covered; });
}

void Lists::place_tags(const View& view, const std::function<float(ElementIndex)>& opacity_of) {
    declutter_new(view);
    for (const auto& list : all_)
        if (list->tags != nullptr) place_tags(*list, view, opacity_of);
}

void Lists::place_tags(RunningList& list, const View& view, const std::function<float(ElementIndex)>& opacity_of) {
    list.arrows.clear();
    for (const Slot& slot : list.slots) {
        if (slot.panel == no_element || !visibility_.is_drawn(slot.panel)) continue;
        const Rect own = layouter_.box(slot.panel);
        const Size size{own.width, own.height};
        const std::optional<TagPlace> place = list.tags->place(slot.place, size, view);
        if (!place || slot.waits) {
            // One that leaves while its place is not seen any more, or that has no room.
            elements_.carry(slot.panel, {.opacity = 0});
            continue;
        }
        const Rect box = list.tags->box(*place, size);
        elements_.carry(slot.panel,
                        {.shift = {box.x - own.x, box.y - own.y}, .scale = place->scale, .opacity = place->opacity});
        if (place->is_at_edge && list.tags->tags().at_edge == AtEdge::arrow)
            list.arrows.push_back({place->tip, place->way, place->opacity * opacity_of(slot.panel)});
    }
    if (static_cast<TagsBody&>(*elements_[list.element].body)
            .set_arrows(list.arrows, view.screen.origin, view.screen.scale))
        elements_.mark_changed(list.element);
}

}  // namespace rapido
