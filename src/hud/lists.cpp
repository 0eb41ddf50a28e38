#include "hud/lists.hpp"

#include <algorithm>
#include <charconv>
#include <cmath>
#include <numeric>
#include <utility>

#include "base/nearest.hpp"
#include "hud/entry_fields.hpp"
#include "rapido/element/list.hpp"
#include "rapido/element/markers.hpp"

namespace rapido {
namespace {

/// Negative where `a` stands before `b`, in ascending order; what has no value stands behind whatever the order.
int compare(const Value& a, const Value& b, bool descends) {
    const auto is_something = [](const Value& value) {
        return value.type() == Value::Type::text || (value.is_number() && !std::isnan(value.number()));
    };
    if (is_something(a) != is_something(b)) return is_something(a) ? -1 : 1;
    if (!is_something(a)) return 0;
    const auto way_of = [](auto x, auto y) { return x < y ? -1 : y < x ? 1 : 0; };
    const bool is_exact = a.type() == b.type() && (a.type() == Value::Type::int64 || a.type() == Value::Type::duration);
    const int way = a.type() == Value::Type::text ? way_of(a.text(), b.text())
                    : is_exact                    ? way_of(a.int64(), b.int64())
                                                  : way_of(a.number(), b.number());
    return descends ? -way : way;
}

/// The number that a panel of a list has as its id; zero for none.
std::size_t number_of(std::string_view id) {
    std::size_t number = 0;
    const auto [end, fault] = std::from_chars(id.data(), id.data() + id.size(), number);
    return fault == std::errc() && end == id.data() + id.size() ? number : 0;
}

}  // namespace

void Lists::announce(const std::vector<Element>& elements) {
    for (const Element& element : elements)
        if (kind_of(element).can.tells) announced_.insert(path_of(elements_.panel(element.inside()), element.id()));
}

void Lists::add(ElementIndex index, const Element& description) {
    if (!kind_of(description).can.tells) return;
    RunningList& list = *all_.emplace_back(std::make_unique<RunningList>());
    list.element = index;
    list.path = elements_[index].path;
    if (auto told = without_list_.extract(list.path)) list.told = std::move(told.mapped());
    set(list, description);
}

void Lists::change(ElementIndex index, const Element& description) {
    if (RunningList* const list = find(index)) set(*list, description);
}

void Lists::set(RunningList& list, const Element& description) {
    if (const auto described = description.as<List>()) set(list, *described);
    if (const auto described = description.as<Markers>()) set(list, *described);
    for (Told& told : list.told) {
        told.field = find_field(list.reader, told.name);
        bindings_.set_told_type(told.path, type_of(list, told));
    }
}

void Lists::set_when_gone(RunningList& list, const std::vector<NamedSource>& fields) {
    list.when_gone.clear();
    for (const NamedSource& field : fields)
        list.when_gone.push_back(field.name);
}

void Lists::set_entries(RunningList& list, const Source& entries, int most, int panels) {
    const detail::Binding bound = bindings_.bound(entries);
    if (!(bound == list.binding)) list.snaps = true;
    list.reader = bound.getter() != nullptr ? bound.getter()->entries() : nullptr;
    list.binding = bound;
    list.most = static_cast<std::size_t>(std::clamp(most, 1, 200));
    list.slots.resize(std::max(list.slots.size(), static_cast<std::size_t>(panels)));
}

void Lists::set(RunningList& list, const List& description) {
    set_when_gone(list, description.when_gone);
    set_entries(list, description.entries, description.at_most, panels_of(description));
    list.key = find_field(list.reader, description.key);
    list.sort = find_field(list.reader, description.sort);
    list.descends = description.sort_order == SortOrder::descending;
    order_.add(list.element, description.place_motion);
}

void Lists::remove(ElementIndex index) {
    const auto found =
        std::find_if(all_.begin(), all_.end(), [index](const auto& list) { return list->element == index; });
    if (found == all_.end()) return;
    gone_.push_back((*found)->path);
    without_list_[(*found)->path] = std::move((*found)->told);
    all_.erase(found);
}

Lists::RunningList* Lists::find(ElementIndex index) {
    const auto found =
        std::find_if(all_.begin(), all_.end(), [index](const auto& list) { return list->element == index; });
    return found != all_.end() ? found->get() : nullptr;
}

bool Lists::offer(const std::string& name, Problem& problem) {
    const std::size_t dot = name.rfind('.');
    if (dot == std::string::npos) return false;
    const std::string field = name.substr(dot + 1);
    std::string around = name.substr(0, dot);
    const std::size_t before = around.rfind('.');
    const std::size_t number = before != std::string::npos ? number_of(std::string_view(around).substr(before + 1)) : 0;
    if (number > 0) around.resize(before);
    if (number == 0 && field != "count" && field != "more") return false;
    const std::string path = elements_.panel(around);
    RunningList* const list = find(elements_.at(path));
    if (list == nullptr) {
        if (!announced_.contains(path)) return false;
        Told told{no_source, number > 0 ? number - 1 : of_list, field, no_field, name};
        told.source = bindings_.add_told(name, type_of({}, told));
        put(without_list_[path], std::move(told));
        return true;
    }
    if (number > list->slots.size()) return false;
    const std::size_t found = number > 0 ? find_field(list->reader, field) : no_field;
    const bool is_of_markers = list->markers != nullptr && (field == "distance" || field == "at_edge");
    if (number > 0 && found == no_field && field != "rank" && !is_of_markers && list->reader != nullptr) {
        problem.code = ProblemCode::unknown_source;
        problem.message = "the entries of " + elements_[list->element].name() + " have no field '" + field + "'";
        std::vector<std::string_view> names{"rank"};
        if (list->markers != nullptr) names.insert(names.end(), {"distance", "at_edge"});
        for (const detail::EntryReader::Field& known : list->reader->fields())
            names.push_back(known.name);
        problem.hint = did_you_mean(field, names);
        return false;
    }
    Told told{no_source, number > 0 ? number - 1 : of_list, field, found, name};
    told.source = bindings_.add_told(name, type_of(*list, told));
    put(list->told, std::move(told));
    return true;
}

/// By the name of the field, so that each is read once.
void Lists::put(std::vector<Told>& all, Told told) {
    const auto place = std::upper_bound(all.begin(), all.end(), told.name,
                                        [](const std::string& a, const Told& b) { return a < b.name; });
    all.insert(place, std::move(told));
}

std::optional<Value::Type> Lists::type_of(const RunningList& list, const Told& told) {
    if (told.field != no_field) return list.reader->fields()[told.field].type;
    if (list.markers != nullptr && told.name == "distance") return Value::Type::float64;
    if (list.markers != nullptr && told.name == "at_edge") return Value::Type::flag;
    const bool is_count = told.slot == of_list || told.name == "rank";
    return is_count ? std::optional(Value::Type::int64) : std::nullopt;
}

void Lists::relink() {
    for (const auto& list : all_) {
        std::vector<ElementIndex> panels(list->slots.size(), no_element);
        list->others.clear();
        for (const ElementIndex child : elements_.children(list->element)) {
            const std::size_t number = number_of(elements_[child].id());
            if (number == 0 || number > panels.size())
                list->others.push_back(child);
            else
                panels[number - 1] = child;
        }
        for (std::size_t i = 0; i < panels.size(); ++i) {
            Slot& slot = list->slots[i];
            if (slot.panel == panels[i]) continue;
            slot = {.panel = panels[i]};
            if (slot.panel != no_element) visibility_.set_by_list(slot.panel, false);
        }
    }
}

void Lists::snap(ElementIndex index) {
    if (RunningList* const list = find(index)) list->snaps = true;
}

void Lists::tell(const View& view, Nanoseconds now) {
    for (const std::string& path : gone_)
        if (const auto left = without_list_.find(path); left != without_list_.end())
            for (const Told& told : left->second)
                bindings_.tell(told.source, {});
    gone_.clear();
    emptied_.clear();
    for (const auto& list : all_)
        tell(*list, view, now);
    declutter();
}

void Lists::tell(RunningList& list, const View& view, Nanoseconds now) {
    const std::size_t count = list.reader != nullptr ? bindings_.count(*list.reader) : 0;
    std::size_t panels = 0;
    for (const Slot& slot : list.slots)
        if (slot.panel != no_element) ++panels;
    std::size_t shown = std::min({count, list.most, panels});
    if (list.markers != nullptr)
        rank_things(list, count, shown, view, now);
    else
        rank(list, count, shown);
    shown = list.ranking.size();
    give_panels(list, shown);
    follow_left(list, count, now);
    if (list.memory != nullptr) bring_up_gone(list, view, now);
    if (list.markers != nullptr) find_places(list, view);
    tell_fields(list, count, shown);
    if (list.markers != nullptr) begin_from_before(list);
    if (list.markers == nullptr) arrange(list);
    if (list.memory != nullptr) remember(list, count);
    list.snaps = false;
}

/// The first in the order that is asked for.
void Lists::rank(RunningList& list, std::size_t count, std::size_t shown) {
    list.ranking.resize(count);
    std::iota(list.ranking.begin(), list.ranking.end(), 0U);
    if (list.keys.size() < count) {
        list.keys.resize(count);
        list.sorted_by.resize(count);
        list.values.resize(count);
    }
    list.wanted.assign(count, 0);
    if (list.sort != no_field) {
        bindings_.read(*list.reader, list.sort, {}, std::span(list.sorted_by).first(count));
        const auto first = [&](std::uint32_t a, std::uint32_t b) {
            const int way = compare(list.sorted_by[a].get(), list.sorted_by[b].get(), list.descends);
            return way != 0 ? way < 0 : a < b;
        };
        const auto end = list.ranking.begin() + static_cast<std::ptrdiff_t>(shown);
        std::partial_sort(list.ranking.begin(), end, list.ranking.end(), first);
    }
    list.ranking.resize(shown);
    for (const std::uint32_t entry : list.ranking)
        list.wanted[entry] = 1;
}

/// Reads the keys of those that are shown, and of those that panels have shown before.
void Lists::read_keys(RunningList& list, std::size_t count) {
    bool reads = !list.ranking.empty();
    for (const Slot& slot : list.slots) {
        if (slot.panel == no_element || slot.entry >= count) continue;
        if (!slot.is_taken && !visibility_.is_drawn(slot.panel)) continue;
        list.wanted[slot.entry] = 1;
        reads = true;
    }
    if (list.key != no_field && reads)
        bindings_.read(*list.reader, list.key, list.wanted, std::span(list.keys).first(count));
}

/// Who is shown already keeps the panel; who is new takes one that nobody has.
void Lists::give_panels(RunningList& list, std::size_t shown) {
    const auto leaves = [this](const Slot& slot) {
        return !slot.is_taken && slot.panel != no_element && visibility_.is_drawn(slot.panel);
    };
    read_keys(list, list.wanted.size());
    list.ranked_keys.clear();
    list.by_rank.assign(shown, no_slot);
    for (Slot& slot : list.slots)
        slot.rank = not_ranked;
    for (std::size_t rank = 0; rank < shown; ++rank) {
        const std::uint32_t entry = list.ranking[rank];
        std::uint64_t key = list.key != no_field ? key_of(list.keys[entry].get()) : entry;
        // Equal ones are told apart by their order.
        while (std::find(list.ranked_keys.begin(), list.ranked_keys.end(), key) != list.ranked_keys.end())
            ++key;
        list.ranked_keys.push_back(key);
        for (std::size_t i = 0; i < list.slots.size(); ++i) {
            Slot& slot = list.slots[i];
            if (!slot.is_taken || slot.key != key) continue;
            slot.rank = rank;
            list.by_rank[rank] = i;
        }
        // One that comes back while it leaves is the same one, and turns round.
        for (std::size_t i = 0; i < list.slots.size() && list.by_rank[rank] == no_slot; ++i) {
            Slot& slot = list.slots[i];
            if (slot.key != key || !leaves(slot)) continue;
            slot.is_taken = true;
            slot.ends = slot.is_gone = false;
            slot.rank = rank;
            list.by_rank[rank] = i;
            visibility_.set_by_list(slot.panel, true);
        }
    }
    for (std::size_t rank = 0; rank < shown; ++rank) {
        if (list.by_rank[rank] != no_slot) {
            list.slots[list.by_rank[rank]].entry = list.ranking[rank];
            continue;
        }
        // One that nobody sees; else one that leaves; else the one whose end began first.
        const auto hardly = [this](const Slot& slot) {
            if (!visibility_.is_drawn(slot.panel)) return Nanoseconds::min();
            return slot.ends ? slot.ends_since : Nanoseconds::min() + Nanoseconds{1};
        };
        std::size_t free = no_slot;
        for (std::size_t i = 0; i < list.slots.size(); ++i) {
            const Slot& slot = list.slots[i];
            if (slot.panel == no_element || slot.rank != not_ranked) continue;
            if (free == no_slot || hardly(slot) < hardly(list.slots[free])) free = i;
            if (hardly(slot) == Nanoseconds::min()) break;
        }
        Slot& slot = list.slots[free];
        slot = {.panel = slot.panel,
                .key = list.ranked_keys[rank],
                .rank = rank,
                .is_taken = true,
                .entry = list.ranking[rank],
                .is_fresh = true};
        if (list.key != no_field) slot.key_value = list.keys[slot.entry];
        list.by_rank[rank] = free;
        visibility_.set_by_list(slot.panel, true);
        snap_inside(slot.panel);
        if (list.markers == nullptr) order_.snap(list.element, slot.panel);
    }
    if (!list.snaps) return;
    for (const Slot& slot : list.slots) {
        if (slot.panel == no_element) continue;
        snap_inside(slot.panel);
        if (list.markers == nullptr) order_.snap(list.element, slot.panel);
    }
}

/// What is not shown any more leaves, and shows what it reads until it is gone. Of a thing that is not there any more that is what
/// `when_gone` says, and its panel leaves when all of that has been seen.
void Lists::follow_left(RunningList& list, std::size_t count, Nanoseconds now) {
    bool has_all_keys = false;
    const auto find = [&](Slot& slot) {
        const auto is_at = [&](std::size_t entry) { return key_of(list.keys[entry].get()) == slot.key; };
        if (list.key == no_field || count == 0) return false;
        if (slot.entry < count && is_at(slot.entry)) return true;
        // All keys are read once for one that leaves, and not while it does.
        if (std::exchange(slot.is_gone, true)) return false;
        if (!std::exchange(has_all_keys, true))
            bindings_.read(*list.reader, list.key, {}, std::span(list.keys).first(count));
        for (std::size_t entry = 0; entry < count; ++entry) {
            if (!is_at(entry)) continue;
            slot.entry = entry;
            slot.is_gone = false;
            list.wanted[entry] = 1;
            return true;
        }
        return false;
    };
    constexpr Nanoseconds longest = std::chrono::seconds(2);
    for (Slot& slot : list.slots) {
        slot.is_followed = false;
        if (slot.panel == no_element || slot.rank != not_ranked) continue;
        const bool goes = std::exchange(slot.is_taken, false);
        if (!goes && !visibility_.is_drawn(slot.panel)) {
            if (std::exchange(slot.ends, false)) visibility_.set_by_list(slot.panel, false);
            continue;
        }
        slot.is_followed = find(slot);
        if (goes && !slot.is_followed && !list.when_gone.empty() && list.key != no_field && !list.snaps) {
            slot.ends = true;
            slot.ends_since = now;
            continue;
        }
        if (slot.ends && !slot.is_followed && now - slot.ends_since < longest &&
            (now == slot.ends_since || !rests(slot.panel)))
            continue;
        slot.ends = false;
        visibility_.set_by_list(slot.panel, false);
    }
}

/// A thing that is gone with the hit that would have brought its marker up: it is as it was, and has its end.
void Lists::bring_up_gone(RunningList& list, const View& view, Nanoseconds now) {
    const Memory& memory = *list.memory;
    for (const std::uint32_t thing : list.markers->gone()) {
        if (list.snaps || thing >= memory.places.size()) return;
        const std::uint64_t key = list.markers->key_of_gone(thing);
        const auto shows_it = [&](const Slot& slot) {
            return slot.panel != no_element && slot.key == key && (slot.ends || visibility_.is_drawn(slot.panel));
        };
        if (std::any_of(list.slots.begin(), list.slots.end(), shows_it)) continue;
        const bool is_hidden = list.in_sight != no_field && !memory.value(list.in_sight, thing).truth();
        if (is_hidden || !list.markers->is_in_reach(memory.places[thing], view)) continue;
        const auto slot = std::find_if(list.slots.begin(), list.slots.end(), [this](const Slot& free) {
            return free.panel != no_element && free.rank == not_ranked && !free.ends &&
                   !visibility_.is_drawn(free.panel);
        });
        if (slot == list.slots.end()) return;
        *slot = {.panel = slot->panel,
                 .key = key,
                 .ends = true,
                 .ends_since = now,
                 .key_value = list.keys_before[thing],
                 .is_gone = true,
                 .place = memory.places[thing]};
        visibility_.set_by_list(slot->panel, true);
        snap_inside(slot->panel);
        const auto number = static_cast<std::size_t>(slot - list.slots.begin());
        for (const Told& told : list.told)
            if (told.slot == number) tell_remembered(list, told, thing, view);
    }
}

void Lists::tell_remembered(const RunningList& list, const Told& told, std::size_t thing, const View& view) {
    if (told.field == no_field) {
        const double distance = view.camera.project(list.memory->places[thing], view.screen.size).distance;
        return bindings_.tell(told.source, told.name == "distance" ? Value(std::abs(distance)) : Value());
    }
    const Value last = list.memory->value(told.field, thing);
    bindings_.tell(told.source, last);
    if (told.field == list.value) begin_from(told.source, last);
}

/// What shows a source begins from another value.
void Lists::begin_from(SourceIndex source, const Value& value) {
    for (const Dependent& dependent : bindings_.dependents(source))
        if (dependent.element != no_element && readouts_.value_source(dependent.element) == source)
            readouts_.begin_from(dependent.element, value);
}

/// Reads all that may be shown of all things.
void Lists::remember(RunningList& list, std::size_t count) {
    Memory& memory = *list.memory;
    memory.places = list.markers->things().places;
    memory.values.resize(list.reader != nullptr ? list.reader->fields().size() : 0);
    for (std::size_t field = 0; field < memory.values.size(); ++field) {
        const bool is_shown =
            field == list.in_sight ||
            std::any_of(list.told.begin(), list.told.end(), [field](const Told& told) { return told.field == field; });
        memory.values[field].resize(is_shown ? count : 0);
        if (is_shown && count > 0) bindings_.read(*list.reader, field, {}, memory.values[field]);
    }
}

/// Nothing that stands inside moves or waits.
bool Lists::rests(ElementIndex panel) const {
    for (const ElementIndex child : elements_.children(panel))
        if (readouts_[child].active || !rests(child)) return false;
    return true;
}

/// What a change brings to the screen begins from what it was before.
void Lists::begin_from_before(RunningList& list) {
    for (const Told& told : list.told) {
        if (told.field == no_field || told.field != list.value || told.slot >= list.slots.size()) continue;
        const Slot& slot = list.slots[told.slot];
        if (!slot.is_fresh || slot.rank == not_ranked || list.snaps) continue;
        const std::optional<double> before = list.markers->value_before(list.ranking[slot.rank]);
        if (!before) continue;
        begin_from(told.source, amount_like(bindings_.value(told.source), *before));
    }
    for (Slot& slot : list.slots)
        slot.is_fresh = false;
}

const KeptValue* Lists::key(ElementIndex index) const {
    for (ElementIndex at = index; at != no_element; at = elements_[at].parent) {
        const ElementIndex around = elements_[at].parent;
        if (around == no_element || !elements_[around].kind->can.tells) continue;
        for (const auto& list : all_)
            if (list->element == around)
                for (const Slot& slot : list->slots)
                    if (slot.panel == at) return slot.key_value.get().has_value() ? &slot.key_value : nullptr;
    }
    return nullptr;
}

void Lists::tell_fields(RunningList& list, std::size_t count, std::size_t shown) {
    std::size_t read = no_field;
    for (const Told& told : list.told) {
        if (told.slot == of_list) {
            const std::size_t amount = told.name == "count" ? count : count - shown;
            bindings_.tell(told.source, Value(static_cast<std::int64_t>(amount)));
            continue;
        }
        // A list that was there before at this path may have had more panels.
        const std::size_t rank = told.slot < list.slots.size() ? list.slots[told.slot].rank : not_ranked;
        const bool is_followed = rank == not_ranked && told.slot < list.slots.size() &&
                                 list.slots[told.slot].is_followed && told.field != no_field;
        if (rank == not_ranked && !is_followed) {
            if (told.slot < list.slots.size() && list.slots[told.slot].ends) tell_when_gone(list, told);
            continue;
        }
        if (told.field == no_field) {
            if (told.name == "rank") bindings_.tell(told.source, Value(static_cast<std::int64_t>(rank + 1)));
            if (list.markers != nullptr && told.name == "distance")
                bindings_.tell(told.source, Value(list.markers->distance(list.ranking[rank])));
            if (list.markers != nullptr && told.name == "at_edge")
                bindings_.tell(told.source, Value(list.slots[told.slot].is_at_edge));
            continue;
        }
        if (told.field != read)
            bindings_.read(*list.reader, told.field, list.wanted, std::span(list.values).first(list.wanted.size()));
        read = told.field;
        const std::size_t entry = is_followed ? list.slots[told.slot].entry : list.ranking[rank];
        bindings_.tell(told.source, list.values[entry].get());
    }
}

void Lists::tell_when_gone(const RunningList& list, const Told& told) {
    const auto found = std::find(list.when_gone.begin(), list.when_gone.end(), told.name);
    if (found == list.when_gone.end()) return;
    const Value& gone = gone_value(list, static_cast<std::size_t>(found - list.when_gone.begin()));
    // An amount of another type would be another value, and no way from the one before.
    const Value& before = bindings_.value(told.source);
    bindings_.tell(told.source, before.is_number() && gone.is_number() ? amount_like(before, gone.number()) : gone);
}

/// What `when_gone` says of a field: its sources stand behind that of the entries.
const Value& Lists::gone_value(const RunningList& list, std::size_t number) const {
    return bindings_.value(readouts_[list.element].further[number + 1]);
}

/// One that leaves stays where it is among the others.
void Lists::arrange(RunningList& list) {
    list.next.clear();
    for (const std::size_t slot : list.by_rank)
        list.next.push_back(list.slots[slot].panel);
    for (std::size_t i = 0; i < list.standing.size(); ++i) {
        const ElementIndex panel = list.standing[i];
        const bool leaves =
            visibility_.is_drawn(panel) && std::find(list.next.begin(), list.next.end(), panel) == list.next.end();
        if (leaves)
            list.next.insert(list.next.begin() + static_cast<std::ptrdiff_t>(std::min(i, list.next.size())), panel);
    }
    list.standing = list.next;
    list.next.insert(list.next.begin(), list.others.begin(), list.others.end());
    order_.set(list.element, list.next);
}

void Lists::snap_inside(ElementIndex panel) {
    for (const ElementIndex child : elements_.children(panel)) {
        readouts_.snap(child);
        snap_inside(child);
    }
}

void Lists::set(RunningList& list, const Markers& description) {
    set_when_gone(list, description.when_gone);
    set_entries(list, description.entries, description.at_most, panels_of(description));
    if (description.entries.is_given()) {
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
    if (list.markers == nullptr) list.markers = std::make_unique<MarkerRanking>();
    list.markers->set(description);
    const bool may_come_late = description.show != ShowMarker::always && !list.when_gone.empty() &&
                               list.key != no_field && list.value != no_field;
    if (!may_come_late)
        list.memory.reset();
    else if (list.memory == nullptr)
        list.memory = std::make_unique<Memory>();
}

GameThings* Lists::things(ElementIndex index) {
    RunningList* const list = find(index);
    return list != nullptr ? list->things.get() : nullptr;
}

/// The nearest of those that may be shown.
void Lists::rank_things(RunningList& list, std::size_t count, std::size_t shown, const View& view, Nanoseconds now) {
    MarkerRanking& ranking = *list.markers;
    const Markers& markers = ranking.markers();
    SeenThings& things = ranking.things();
    list.ranking.clear();
    list.wanted.assign(count, 0);
    if (list.keys.size() < count) {
        list.keys.resize(count);
        list.values.resize(count);
    }
    things.places.resize(count);
    if (count > 0 && !bindings_.read_positions(*list.reader, things.places)) return;
    if (const auto& by = markers.world_offset; by != std::array<double, 3>{})
        for (WorldPoint& place : things.places)
            place = {place.x + by[0], place.y + by[1], place.z + by[2]};
    const auto read = [&](bool is_wanted, std::size_t field, std::vector<double>& into) {
        into.resize(is_wanted && field != no_field ? count : 0);
        if (!into.empty()) bindings_.read_numbers(*list.reader, field, into);
    };
    read(true, list.in_sight, things.in_sight);
    read(!markers.value_of.empty(), list.value, things.values);
    read(markers.show == ShowMarker::below_full, list.max, things.maxima);
    things.keys.clear();
    if (!markers.value_of.empty() && list.value != no_field) {
        list.keys_before.swap(list.keys);
        list.keys.resize(std::max(list.keys.size(), count));
        things.keys.resize(count);
        if (list.key != no_field) bindings_.read(*list.reader, list.key, {}, std::span(list.keys).first(count));
        for (std::size_t i = 0; i < count; ++i)
            things.keys[i] = list.key != no_field ? key_of(list.keys[i].get()) : i;
    }
    ranking.rank(view, now, shown, list.ranking);
    for (const std::uint32_t entry : list.ranking)
        list.wanted[entry] = 1;
    for (const std::uint32_t entry : ranking.emptied())
        emptied_.push_back({list.element, list.key != no_field ? list.keys[entry].get() : Value()});
    const auto value = std::find(list.when_gone.begin(), list.when_gone.end(), markers.value_of);
    if (value == list.when_gone.end() || list.key == no_field || list.snaps) return;
    if (!(gone_value(list, static_cast<std::size_t>(value - list.when_gone.begin())).number() <= 0)) return;
    for (const std::uint32_t entry : ranking.gone())
        emptied_.push_back({list.element, list.keys_before[entry].get()});
}

void Lists::find_places(RunningList& list, const View& view) {
    for (Slot& slot : list.slots)
        if (slot.is_followed && slot.entry < list.markers->things().places.size())
            slot.place = list.markers->things().places[slot.entry];
    for (std::size_t rank = 0; rank < list.ranking.size(); ++rank) {
        const std::size_t number = list.by_rank[rank];
        Slot& slot = list.slots[number];
        slot.place = list.markers->things().places[list.ranking[rank]];
        // One that was never laid out will be about as large as the others.
        const Rect own = layouter_.box(slot.panel);
        slot.is_new = own.width <= 0;
        has_new_markers_ = has_new_markers_ || slot.is_new;
        slot.waits = false;
        slot.distance = list.markers->distance(list.ranking[rank]);
        if (own.width > 0) list.usual_size = {own.width, own.height};
        const Size size = own.width > 0 ? Size{own.width, own.height} : list.usual_size;
        const std::optional<MarkerPlace> place = list.markers->place(slot.place, size, view);
        slot.is_at_edge = place && place->is_at_edge;
        if (!list.markers->markers().declutter && std::exchange(slot.is_covered, false))
            visibility_.set_by_list(slot.panel, true);
        if (!place || !list.markers->markers().declutter) continue;
        seen_.push_back({.list = &list,
                         .slot = number,
                         .layer = elements_[list.element].layer,
                         .distance = slot.distance,
                         .box = list.markers->box(*place, size)});
    }
}

/// Calls `cover` for each marker, the nearest of the highest layer first; one that is shown then is in the way of the others.
template <class Cover>
void Lists::cover_farther(Cover cover) {
    constexpr float margin = 3;  // design pixels
    std::sort(seen_.begin(), seen_.end(), [](const SeenMarker& a, const SeenMarker& b) {
        if (a.layer != b.layer) return a.layer > b.layer;
        if (a.distance != b.distance) return a.distance < b.distance;
        return std::pair(a.list->element, a.slot) < std::pair(b.list->element, b.slot);
    });
    covered_.clear();
    for (const SeenMarker& marker : seen_) {
        Slot& slot = marker.list->slots[marker.slot];
        const float grow = slot.is_covered ? margin : -margin;
        const Rect box{marker.box.x - grow, marker.box.y - grow, marker.box.width + 2 * grow,
                       marker.box.height + 2 * grow};
        const bool is_covered = std::any_of(covered_.begin(), covered_.end(), [&](const Rect& other) {
            return box.x < other.right() && other.x < box.right() && box.y < other.bottom() && other.y < box.bottom();
        });
        if (!is_covered) covered_.push_back(marker.box);
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
    if (!std::exchange(has_new_markers_, false)) return;
    for (const auto& list : all_) {
        if (list->markers == nullptr || !list->markers->markers().declutter) continue;
        for (std::size_t number = 0; number < list->slots.size(); ++number) {
            const Slot& slot = list->slots[number];
            if (slot.panel == no_element || !slot.is_taken || !visibility_.is_drawn(slot.panel)) continue;
            const Rect own = layouter_.box(slot.panel);
            const Size size{own.width, own.height};
            if (const std::optional<MarkerPlace> place = list->markers->place(slot.place, size, view))
                seen_.push_back({.list = list.get(),
                                 .slot = number,
                                 .layer = elements_[list->element].layer,
                                 .distance = slot.distance,
                                 .box = list->markers->box(*place, size)});
        }
    }
    cover_farther([](Slot& slot, bool is_covered) { slot.waits = slot.is_new && is_covered; });
}

void Lists::place_markers(const View& view, const std::function<float(ElementIndex)>& opacity_of) {
    declutter_new(view);
    for (const auto& list : all_)
        if (list->markers != nullptr) place_markers(*list, view, opacity_of);
}

void Lists::place_markers(RunningList& list, const View& view, const std::function<float(ElementIndex)>& opacity_of) {
    list.arrows.clear();
    for (const Slot& slot : list.slots) {
        if (slot.panel == no_element || !visibility_.is_drawn(slot.panel)) continue;
        const Rect own = layouter_.box(slot.panel);
        const Size size{own.width, own.height};
        const std::optional<MarkerPlace> place = list.markers->place(slot.place, size, view);
        if (!place || slot.waits) {
            // One that leaves while its place is not seen any more, or that has no room.
            elements_.carry(slot.panel, {.opacity = 0});
            continue;
        }
        const Rect box = list.markers->box(*place, size);
        elements_.carry(slot.panel,
                        {.shift = {box.x - own.x, box.y - own.y}, .scale = place->scale, .opacity = place->opacity});
        if (place->is_at_edge && list.markers->markers().at_edge == AtEdge::arrow)
            list.arrows.push_back({place->tip, place->way, place->opacity * opacity_of(slot.panel)});
    }
    if (static_cast<MarkersBody&>(*elements_[list.element].body)
            .set_arrows(list.arrows, view.screen.origin, view.screen.scale))
        elements_.mark_changed(list.element);
}

}  // namespace rapido
