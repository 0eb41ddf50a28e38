#include "debug/recording.hpp"

#include <algorithm>
#include <cmath>

#include "element/kinds.hpp"
#include "element/sources_of.hpp"
#include "hud/definition_tables.hpp"
#include "hud/state.hpp"
#include "rapido/debug.hpp"
#include "rapido/value/expression.hpp"

namespace rapido {
namespace {

using detail::Binding;

/// Whether a file can say it as it is.
bool is_plain_constant(const Binding& binding) {
    if (binding.access() != Binding::Access::constant || binding.is_adjusted()) return false;
    const std::optional<Value::Type> type = binding.type();
    return type == Value::Type::flag || type == Value::Type::int64 || type == Value::Type::float64;
}

const detail::EntryReader* entries_of(const Binding& binding) {
    return binding.getter() != nullptr ? binding.getter()->entries() : nullptr;
}

}  // namespace

RunningRecording::~RunningRecording() {
    for (const auto& [name, tracked] : tracked_)
        bindings_.release(tracked.index);
}

void RunningRecording::begin(HudDefinition definition) {
    name_all(definition);
    tell_new_timers();
    recorder_.begin(definition, names_);
    names_.clear();
}

void RunningRecording::name(HudDefinition& definition) {
    name_all(definition);
    drop_unused(definition);
}

void RunningRecording::call(const CallKind& kind, const void* given) {
    tell_new_timers();
    recorder_.call({&kind, given, names_});
    names_.clear();
}

/// The path that it has, where its panel may be written by the end of its path.
std::string RunningRecording::path_of(const Element& element) const {
    return rapido::path_of(elements_.panel(element.inside()), element.id());
}

void RunningRecording::name_all(HudDefinition& definition) {
    used_.clear();
    const auto name_in = [this](const Table& table, void* aggregate, const std::string& owner) {
        for_each_source(table, aggregate,
                        [&](const std::string& field, Source& source) { name_one(source, owner, field); });
    };
    for (Timer& timer : definition.timers)
        name_in(timer_table, &timer, "timer:" + timer.id);
    for (Group& group : definition.groups)
        name_in(group_table, &group, "group:" + group.id);
    for (Element& element : definition.elements) {
        WrittenElement written(element);
        name_in(*written.kind().table, written.data(), path_of(element));
        element = written.element();
    }
}

/// What an element was bound to before may be gone soon.
void RunningRecording::drop_unused(const HudDefinition& definition) {
    for (const Element& element : definition.elements)
        std::erase_if(tracked_, [&, path = path_of(element)](auto& known) {
            if (known.second.owner != path || used_.contains(known.first)) return false;
            bindings_.release(known.second.index);
            return true;
        });
}

void RunningRecording::name_one(Source& source, const std::string& owner, const std::string& field) {
    const Binding binding = source.binding();
    if (!source.is_given() || is_plain_constant(binding)) return;
    // What is computed is written, with names for what it is computed from; else its result is what is kept.
    if (binding.computation() != nullptr) {
        const auto unnamed = [](const Binding& leaf) {
            return leaf.access() == Binding::Access::name ? leaf : Binding::named("x");
        };
        if (!write_expression(Source(binding.with_leaves(unnamed))).empty()) {
            source = Source(binding.with_leaves([&](const Binding& leaf) {
                Source read(leaf);
                name_one(read, owner, field);
                return read.binding();
            }));
            return;
        }
    }
    Tracked made;
    std::string name;
    if (binding.access() == Binding::Access::name) {
        name = binding.name();
        if (tracked_.contains(name)) return;
        made.source = rapido::by_name(name);
    } else {
        made.source = source;
        made.owner = owner;
        made.field = owner + "." + field;
        const auto same = std::find_if(tracked_.begin(), tracked_.end(), [&](const auto& known) {
            return known.second.field == made.field && known.second.source.is_same(source);
        });
        if (same != tracked_.end()) {
            source = rapido::by_name(same->first);
            used_.insert(same->first);
            return;
        }
        name = made.field;
        for (int number = 2;
             tracked_.contains(name) || bindings_.is_told(name) || bindings_.sources().find(name) != nullptr; ++number)
            name = made.field + "#" + std::to_string(number);
        source = rapido::by_name(name);
        used_.insert(name);
    }
    // A container is not read as a value, but followed by itself.
    const bool is_container = entries_of(bindings_.bound(made.source)) != nullptr;
    if (!is_container) {
        Problem none;
        const std::optional<SourceIndex> index = bindings_.find(made.source, none);
        if (!index) return;
        if (made.owner.empty() && bindings_.is_told(name)) return bindings_.release(*index);
        made.index = *index;
    }
    if (made.owner.empty()) made.revision = bindings_.sources().revision_of(name);
    if (!made.owner.empty() || made.revision != 0) names_.push_back(described(name, made.source));
    tracked_.emplace(std::move(name), std::move(made));
}

RecordedName RunningRecording::described(const std::string& name, const Source& source) const {
    const Binding bound = bindings_.bound(source);
    RecordedName made{.name = name, .type = bound.type(), .use = bound.use()};
    if (const detail::EntryReader* const reader = entries_of(bound)) {
        made.fields = reader->fields();
        std::vector<WorldPoint> places(bindings_.count(*reader));
        made.has_places = bindings_.read_positions(*reader, places);
    }
    return made;
}

void RunningRecording::forget(ElementIndex index) {
    std::erase_if(tracked_, [&](auto& known) {
        if (known.second.owner != elements_[index].path) return false;
        bindings_.release(known.second.index);
        return true;
    });
    for (std::size_t i = things_.size(); i-- > 0;)
        if (things_[i].marker.element == index) remove(things_[i].marker);
}

// Things

/// Which of which markers: of those that are there, no two have the same.
static std::uint64_t key_of(const MarkerRef& marker) {
    return std::uint64_t{marker.element} << 32U | marker.index;
}

std::uint64_t RunningRecording::add(const MarkerRef& marker, const PositionSource& at,
                                    const std::vector<Binding>& values) {
    places_[key_of(marker)] = things_.size();
    things_.push_back({.number = thing_count_,
                       .marker = marker,
                       .at = at,
                       .values = values,
                       .place = {},
                       .last = std::vector<KeptValue>(values.size())});
    return thing_count_++;
}

std::optional<std::uint64_t> RunningRecording::number_of(const MarkerRef& marker) const {
    const auto known = places_.find(key_of(marker));
    if (known == places_.end() || !(things_[known->second].marker == marker)) return std::nullopt;
    return things_[known->second].number;
}

void RunningRecording::remove(const MarkerRef& marker) {
    const auto known = places_.find(key_of(marker));
    if (known == places_.end() || !(things_[known->second].marker == marker)) return;
    const std::size_t place = known->second;
    places_.erase(known);
    // The last one takes its place: what is written of each names it.
    if (place + 1 < things_.size()) {
        things_[place] = std::move(things_.back());
        places_[key_of(things_[place].marker)] = place;
    }
    things_.pop_back();
}

void RunningRecording::read_things() {
    changed_things_.clear();
    for (Thing& thing : things_) {
        const WorldPoint place = bindings_.read_position(thing.at);
        bool differs = !std::exchange(thing.is_told, true) || !(place == thing.place);
        thing.place = place;
        for (std::size_t i = 0; i < thing.values.size(); ++i) {
            const Value value = bindings_.read_once(thing.values[i], storage_);
            if (value == thing.last[i].get()) continue;
            thing.last[i] = value;
            differs = true;
        }
        if (differs) changed_things_.push_back({thing.number, thing.place, thing.last});
    }
}

// Timers

/// Those that the recorder does not know yet: of the game, whose names it has to offer, and of the HUD.
void RunningRecording::tell_new_timers() {
    for (const RunningTimer& timer : timers_.all()) {
        const auto [known, is_new] = timer_numbers_.try_emplace(timer.id);
        if (!is_new) continue;
        known->second = timer.owned != nullptr ? timer.timer->numbers() : detail::TimerNumbers{};
        if (timer.owned == nullptr)
            names_.push_back({.name = timer.id,
                              .timer = timer.timer->counts_down() ? TimerKind::countdown : TimerKind::stopwatch,
                              .clock = timer.clock,
                              .starts = timer.starts});
    }
}

void RunningRecording::note_timers() {
    tell_new_timers();
    timer_changes_.clear();
    for (const RunningTimer& timer : timers_.all()) {
        detail::TimerNumbers& known = timer_numbers_.find(timer.id)->second;
        const detail::TimerNumbers now = timer.timer->numbers();
        if (now == known) continue;
        timer_changes_.push_back({timer.id, now, timer.timer->events(known.events)});
        known = now;
    }
}

void RunningRecording::keep_timers() {
    for (const RunningTimer& timer : timers_.all())
        if (timer.owned != nullptr) timer_numbers_[timer.id] = timer.timer->numbers();
}

// The frame

void RunningRecording::read_entries(const std::string& name, Tracked& tracked, const detail::EntryReader& reader) {
    Entries now;
    now.count = bindings_.count(reader);
    const std::size_t fields = reader.fields().size();
    now.values.resize(now.count * fields);
    std::vector<KeptValue> column(now.count);
    for (std::size_t field = 0; field < fields; ++field) {
        bindings_.read(reader, field, {}, column);
        for (std::size_t entry = 0; entry < now.count; ++entry)
            now.values[entry * fields + field] = column[entry];
    }
    now.places.resize(now.count);
    if (!bindings_.read_positions(reader, now.places)) now.places.clear();
    const auto is_same = [](const KeptValue& a, const KeptValue& b) { return a.get() == b.get(); };
    if (tracked.entries && tracked.entries->count == now.count && tracked.entries->places == now.places &&
        std::equal(now.values.begin(), now.values.end(), tracked.entries->values.begin(), tracked.entries->values.end(),
                   is_same))
        return;
    tracked.entries = std::move(now);
    entries_.push_back({name, tracked.entries->count, tracked.entries->values, tracked.entries->places});
}

void RunningRecording::tell(Nanoseconds time, Nanoseconds game_time) {
    changed_.clear();
    entries_.clear();
    const std::span<const SourceIndex> snapped = bindings_.snapped();
    for (auto known = tracked_.begin(); known != tracked_.end();) {
        auto& [name, tracked] = *known;
        // The HUD may tell it by now.
        if (tracked.owner.empty() && bindings_.is_told(name)) {
            bindings_.release(tracked.index);
            known = tracked_.erase(known);
            continue;
        }
        ++known;
        if (tracked.owner.empty()) {
            const std::uint64_t revision = bindings_.sources().revision_of(name);
            if (std::exchange(tracked.revision, revision) != revision) {
                names_.push_back(described(name, tracked.source));
                tracked.last.reset();
                tracked.entries.reset();
            }
            if (revision == 0) continue;
        }
        const detail::EntryReader* const reader = entries_of(bindings_.bound(tracked.source));
        if (reader != nullptr) {
            read_entries(name, tracked, *reader);
            continue;
        }
        if (tracked.index == no_source) continue;
        const Value& value = bindings_.value(tracked.index);
        const bool snaps = std::find(snapped.begin(), snapped.end(), tracked.index) != snapped.end();
        if (!snaps && tracked.last && tracked.last->get() == value) continue;
        tracked.last = value;
        changed_.push_back({name, tracked.last->get(), snaps});
    }
    read_things();
    recorder_.frame({.time = time,
                     .game_time = game_time,
                     .names = names_,
                     .timers = timer_changes_,
                     .values = changed_,
                     .entries = entries_,
                     .things = changed_things_});
    names_.clear();
}

bool record(Hud& hud, Recorder* recorder) {
    detail::HudAccess::State& state = detail::HudAccess::of(hud);
    if (recorder == nullptr) {
        state.recording.reset();
        return true;
    }
    if (state.was_called) {
        state.problems.report({{},
                               "a recording begins before all other calls",
                               "call 'record' right behind the constructor",
                               ProblemCode::bad_call});
        return false;
    }
    HudDefinition definition = state.made_of != nullptr ? *state.made_of : HudDefinition{};
    for (ElementIndex index = 0; index < state.elements.count(); ++index) {
        const RunningElement& element = state.elements[index];
        const bool is_plate = state.notices.known_as(index) != index;
        if (element.is_living() && !is_plate) definition.elements.push_back(element.description);
    }
    auto made = std::make_unique<RunningRecording>(*recorder, state.bindings, state.timers, state.elements);
    made->begin(std::move(definition));
    state.recording = std::move(made);
    return true;
}

}  // namespace rapido
