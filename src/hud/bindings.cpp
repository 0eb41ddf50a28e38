#include "hud/bindings.hpp"

#include <algorithm>
#include <functional>

#include "base/nearest.hpp"
#include "value/computation.hpp"
#include "value/source_name.hpp"

namespace rapido {

using detail::Binding;

void Bindings::grow() {
    dependents_.resize(scan_.size());
    used_.resize(scan_.size());
    feeds_.resize(scan_.size(), feeds_none);
}

void Bindings::set_sources(Sources sources) {
    sources_ = std::move(sources);
    check_names(0);
}

/// A HUD of C++ finds them under any name, a file does not.
void Bindings::check_names(std::uint64_t since) {
    for (const std::string_view name : sources_.names())
        if (const std::string_view fault = fault_of_name(name); !fault.empty() && sources_.revision_of(name) > since)
            faults_.push_back({{},
                               "the name of source '" + std::string(name) + "' " + std::string(fault),
                               "no HUD file can ask for it",
                               ProblemCode::bad_id,
                               Severity::warning});
}

SourceIndex Bindings::add_told(const std::string& name, std::optional<Value::Type> type, detail::ValueUse use) {
    const SourceIndex index = scan_.add_told();
    grow();
    const Binding told = Binding::named(name).used_as(use);
    told_.emplace(name, Told{index, type ? told.expecting(*type) : told});
    follow_told(name, index);
    return index;
}

void Bindings::set_told_type(const std::string& name, std::optional<Value::Type> type) {
    Told& told = told_.at(name);
    const Binding plain = Binding::named(name).used_as(told.kind.use());
    told.kind = type ? plain.expecting(*type) : plain;
}

std::optional<SourceIndex> Bindings::find(const Source& source, Problem& problem) {
    const Binding& asked = source.binding();
    if (!source.is_given()) return no_source;
    if (asked.access() == Binding::Access::computed) return computed(asked, problem);
    if (asked.access() != Binding::Access::name) {
        const SourceIndex index = scan_.add(asked);
        grow();
        return index;
    }
    const std::string& name = source.name();
    const bool is_known = is_told(name) || sources_.find(name) != nullptr || declared_.contains(name);
    if (!is_known && (!offer || !offer(name, problem))) {
        if (!problem.message.empty()) return std::nullopt;
        problem.code = ProblemCode::unknown_source;
        problem.message = "unknown source '" + name + "'";
        if (!problems_.is_full() && problem.hint.empty()) {
            std::vector<std::string_view> names = sources_.names();
            for (const auto& [told, index] : told_)
                names.push_back(told);
            names.insert(names.end(), declared_.begin(), declared_.end());
            std::sort(names.begin(), names.end());
            problem.hint = did_you_mean(name, names);
        }
    }
    if (!is_told(name)) return named(asked);
    const SourceIndex told = told_.at(name).index;
    used_[told] = 1;
    return asked.is_adjusted() ? derived({told}, asked) : told;
}

/// Those who ask for the same share it.
std::optional<SourceIndex> Bindings::computed(const Binding& how, Problem& problem) {
    std::optional<std::vector<SourceIndex>> from = leaves_of(how, problem);
    if (!from) return std::nullopt;
    const std::vector<SourceIndex> users = *from;
    const std::size_t before = derived_places_.size();
    const SourceIndex to = derived(std::move(*from), how);
    // One that was there has users of its leaves already.
    if (derived_places_.size() == before)
        for (const SourceIndex leaf : users)
            release(leaf);
    return to;
}

/// The sources of its leaves, with one user more each; nothing, with a problem, where one can never be.
std::optional<std::vector<SourceIndex>> Bindings::leaves_of(const Binding& how, Problem& problem) {
    const detail::Computation& made = *how.computation();
    if (made.is_too_large) {
        problem.code = ProblemCode::too_large;
        problem.message = "is computed from more than 64 terms, or more than 16 deep";
        problem.hint = "give a part of it a name in 'Sources'; 'since' takes a source that is read, and nothing else";
        return std::nullopt;
    }
    std::vector<SourceIndex> from;
    for (const Binding& leaf : made.leaves) {
        // A name that nobody has yet is a problem, and is waited for all the same.
        Problem of_leaf;
        const std::optional<SourceIndex> index = find(Source(leaf), of_leaf);
        if (problem.message.empty() || !index) problem = std::move(of_leaf);
        if (!index) {
            for (const SourceIndex known : from)
                release(known);
            return std::nullopt;
        }
        from.push_back(*index);
    }
    return from;
}

std::vector<std::string> Bindings::asked() const {
    std::set<std::string> names;
    for (const auto& [index, known] : named_)
        if (!is_told(known.asked.name())) names.insert(known.asked.name());
    return {names.begin(), names.end()};
}

std::vector<std::string> Bindings::told() const {
    std::vector<std::string> names;
    for (const auto& [name, told] : told_)
        names.push_back(name);
    std::sort(names.begin(), names.end());
    return names;
}

/// Those who ask for the same share it; it goes on when the name means something else.
SourceIndex Bindings::named(const Binding& asked) {
    const std::size_t hash = asked.hash();
    const auto [first, last] = known_named_.equal_range(hash);
    for (auto known = first; known != last; ++known) {
        Named& same = named_[known->second];
        if (!(same.asked == asked)) continue;
        ++same.users;
        return known->second;
    }
    const SourceIndex index = scan_.add_told();
    grow();
    named_.emplace(index, Named{asked, 1, sources_.revision_of(asked.name()), hash});
    known_named_.emplace(hash, index);
    offer_name(index);
    return index;
}

/// Lets a source that is read by its name read what the name means now.
void Bindings::offer_name(SourceIndex index) {
    const Binding asked = named_.at(index).asked;
    const Source* const offered = sources_.find(asked.name());
    underive(index);
    if (offered == nullptr || !offered->is_given()) {
        scan_.let_tell(index);
        return scan_.tell(index, {}, changed_);
    }
    const Binding how = asked.applied_to(offered->binding());
    if (how.access() != Binding::Access::computed) {
        std::erase(circular_, index);
        return scan_.rebind(index, how);
    }
    scan_.let_tell(index);
    Problem problem;
    std::optional<std::vector<SourceIndex>> from = leaves_of(how, problem);
    if (!problem.message.empty() && named_.at(index).users == 1) {
        problem.message = "source '" + asked.name() + "': " + problem.message;
        faults_.push_back(std::move(problem));
    }
    if (!from) return;
    const bool is_circle =
        std::any_of(from->begin(), from->end(), [&](SourceIndex source) { return is_made_of(source, index); });
    if (!is_circle) {
        std::erase(circular_, index);
        return derive(std::move(*from), index, how, 0);
    }
    // A name that is made of itself has no value, until another name means something else.
    scan_.tell(index, {}, changed_);
    if (std::find(circular_.begin(), circular_.end(), index) == circular_.end()) {
        circular_.push_back(index);
        faults_.push_back({{},
                           "source '" + asked.name() + "' is computed from itself",
                           "it has no value",
                           ProblemCode::contradiction});
    }
    for (const SourceIndex source : *from)
        release(source);
}

bool Bindings::is_made_of(SourceIndex source, SourceIndex part) const {
    std::vector<SourceIndex> found{source};
    for (std::size_t i = 0; i < found.size(); ++i) {
        if (found[i] == part) return true;
        for (const SourceIndex inner : inputs(found[i]))
            if (std::find(found.begin(), found.end(), inner) == found.end()) found.push_back(inner);
    }
    return false;
}

std::span<const SourceIndex> Bindings::follow_names() {
    rebound_ = std::move(linked_);
    linked_.clear();
    if (names_revision_ == sources_.revision()) return rebound_;
    check_names(std::exchange(names_revision_, sources_.revision()));
    for (auto& [index, known] : named_) {
        const std::uint64_t revision = sources_.revision_of(known.asked.name());
        if (revision == known.revision) continue;
        known.revision = revision;
        rebound_.push_back(index);
    }
    for (const SourceIndex index : circular_)
        if (std::find(rebound_.begin(), rebound_.end(), index) == rebound_.end()) rebound_.push_back(index);
    const std::vector<SourceIndex> offered = rebound_;
    for (const SourceIndex index : offered)
        if (named_.contains(index)) offer_name(index);
    // What is made of them means something else, too.
    for (std::size_t i = 0; i < rebound_.size(); ++i)
        for (const Place place : fed_by(rebound_[i]))
            if (std::find(rebound_.begin(), rebound_.end(), derived_[place].to) == rebound_.end())
                rebound_.push_back(derived_[place].to);
    std::sort(rebound_.begin(), rebound_.end());
    return rebound_;
}

void Bindings::offer_again() {
    std::vector<std::string> waiting;
    for (const auto& [index, known] : named_)
        if (known.revision == 0) waiting.push_back(known.asked.name());
    for (const std::string& name : waiting) {
        Problem none;
        if (offer && !is_told(name)) offer(name, none);
    }
}

/// Who has waited for a name that the HUD tells from now on follows it.
void Bindings::follow_told(const std::string& name, SourceIndex told) {
    std::vector<SourceIndex> waiting;
    for (const auto& [index, known] : named_)
        if (known.revision == 0 && known.asked.name() == name) waiting.push_back(index);
    for (const SourceIndex index : waiting) {
        const Named known = named_.at(index);
        forget_name(index);
        used_[told] = 1;
        derive({told}, index, known.asked, known.users);
        linked_.push_back(index);
    }
}

void Bindings::forget_name(SourceIndex index) {
    const auto known = named_.find(index);
    const auto [first, last] = known_named_.equal_range(known->second.hash);
    known_named_.erase(std::find_if(first, last, [&](const auto& other) { return other.second == index; }));
    named_.erase(known);
}

/// True if this is a source that is read by its name.
bool Bindings::release_named(SourceIndex index) {
    const auto known = named_.find(index);
    if (known == named_.end()) return false;
    if (--known->second.users > 0) return true;
    const bool is_read = scan_.reads(index);
    underive(index);
    std::erase(circular_, index);
    if (is_read)
        scan_.release(index);
    else
        scan_.remove_told(index);
    forget_name(index);
    return true;
}

Binding Bindings::bound(const Source& source) const {
    const auto meaning = [this](const Binding& asked) {
        if (asked.access() != Binding::Access::name) return asked;
        if (const auto told = told_.find(asked.name()); told != told_.end()) return asked.applied_to(told->second.kind);
        const Source* const named = sources_.find(asked.name());
        return asked.applied_to(named != nullptr ? named->binding() : Binding());
    };
    Binding made = meaning(source.binding());
    // Names may be computed from names, but not for ever.
    constexpr int most_rounds = 8;
    for (int round = 0; round < most_rounds && made.computation() != nullptr; ++round) {
        const Binding next = made.with_leaves(meaning);
        if (next == made) break;
        made = next;
    }
    return made;
}

/// Those who ask for the same share it.
SourceIndex Bindings::derived(std::vector<SourceIndex> from, const Binding& how) {
    std::size_t hash = how.hash();
    for (const SourceIndex source : from)
        hash = hash * 31 + source;
    const auto [first, last] = known_derived_.equal_range(hash);
    for (auto known = first; known != last; ++known) {
        Derived& same = derived_[derived_places_[known->second]];
        if (same.from != from || !(same.how == how) || same.users == 0) continue;
        ++same.users;
        return same.to;
    }
    const SourceIndex to = scan_.add_told();
    grow();
    derive(std::move(from), to, how, 1);
    return to;
}

/// Without users it is that of a name, and goes with it.
void Bindings::derive(std::vector<SourceIndex> from, SourceIndex to, const Binding& how, std::uint32_t users) {
    if (free_derived_.empty()) {
        free_derived_.push_back(static_cast<Place>(derived_.size()));
        derived_.emplace_back();
    }
    const Place place = free_derived_.back();
    free_derived_.pop_back();
    std::size_t hash = how.hash();
    for (const SourceIndex source : from) {
        hash = hash * 31 + source;
        if (feeds_[source] == feeds_none && free_fed_.empty()) {
            free_fed_.push_back(static_cast<std::uint32_t>(fed_.size()));
            fed_.emplace_back();
        }
        if (feeds_[source] == feeds_none) {
            feeds_[source] = free_fed_.back();
            free_fed_.pop_back();
        }
        fed_[feeds_[source]].push_back(place);
    }
    known_derived_.emplace(hash, to);
    derived_places_.emplace(to, place);
    const detail::Computation* const made = how.computation();
    derived_[place] = {.from = std::move(from), .to = to, .how = how, .users = users, .hash = hash};
    if (made != nullptr && made->has_since()) {
        timed_.push_back(place);
        for (const SourceIndex source : derived_[place].from)
            derived_[place].leaves.push_back({.is_read = value(source).has_value()});
    }
    for (const Place fed : fed_by(to))
        rank(fed);
    rank(place);
    make_due(place, false);
}

std::span<const Bindings::Place> Bindings::fed_by(SourceIndex source) const {
    return feeds_[source] == feeds_none ? std::span<const Place>() : fed_[feeds_[source]];
}

/// It is told nothing any more.
void Bindings::underive(SourceIndex to) {
    const auto own = derived_places_.find(to);
    if (own == derived_places_.end()) return;
    const Place place = own->second;
    const Derived gone = std::exchange(derived_[place], Derived{});
    free_derived_.push_back(place);
    const auto [first, last] = known_derived_.equal_range(gone.hash);
    known_derived_.erase(std::find_if(first, last, [&](const auto& known) { return known.second == to; }));
    derived_places_.erase(own);
    std::erase(timed_, place);
    std::erase_if(due_, [place](const auto& due) { return due.second == place; });
    std::make_heap(due_.begin(), due_.end(), std::greater<>());
    for (const SourceIndex source : gone.from) {
        std::vector<Place>& fed = fed_[feeds_[source]];
        fed.erase(std::find(fed.begin(), fed.end(), place));
        if (fed.empty()) free_fed_.push_back(std::exchange(feeds_[source], feeds_none));
    }
    if (gone.how.computation() != nullptr)
        for (const SourceIndex source : gone.from)
            release(source);
}

void Bindings::release(SourceIndex index) {
    if (index == no_source || release_named(index)) return;
    const auto own = derived_places_.find(index);
    if (own == derived_places_.end()) return scan_.release(index);
    if (--derived_[own->second].users > 0) return;
    underive(index);
    scan_.remove_told(index);
}

/// What is made of others comes after them. A name that means something only now may feed what is there already.
void Bindings::rank(Place place) {
    Derived& made = derived_[place];
    std::uint32_t rank_of_made = 1;
    for (const SourceIndex source : made.from)
        if (const auto own = derived_places_.find(source); own != derived_places_.end())
            rank_of_made = std::max(rank_of_made, derived_[own->second].rank + 1);
    // There are no circles, so that this ends.
    const bool differs = std::exchange(made.rank, rank_of_made) != rank_of_made;
    if (differs)
        for (const Place fed : fed_by(made.to))
            rank(fed);
}

/// It is to be made again.
void Bindings::make_due(Place place, bool snaps) {
    Derived& made = derived_[place];
    made.snaps = made.snaps || snaps;
    if (std::exchange(made.is_due, true)) return;
    due_.emplace_back(made.rank, place);
    std::push_heap(due_.begin(), due_.end(), std::greater<>());
}

void Bindings::follow(Place place, Nanoseconds now) {
    Derived& made = derived_[place];
    made.is_due = false;
    const bool snaps = std::exchange(made.snaps, false);
    const bool is_stepped = std::exchange(made.is_stepped, false);
    if (snaps) snapped_.push_back(made.to);
    const detail::Computation* const program = made.how.computation();
    if (program == nullptr) return scan_.tell(made.to, made.how.adjusted(scan_.value(made.from.front())), changed_);
    const Value before = value(made.to), result = result_at(made, now);
    const bool turns =
        before.type() == Value::Type::flag && result.type() == Value::Type::flag && before.flag() != result.flag();
    if (turns && !snaps && !is_stepped && frame_start_ < now) solve(made, before.flag());
    scan_.tell(made.to, result, changed_);
}

/// What is computed at a moment of this frame.
Value Bindings::result_at(const Derived& made, Nanoseconds at) {
    of_leaves_.clear();
    since_changes_.clear();
    for (const SourceIndex source : made.from) {
        if (at == frame_end_ || !is_moving(source)) {
            of_leaves_.push_back(value(source));
            continue;
        }
        // One that goes on may have begun in the frame, and is known from its end; one that has ended, from its beginning.
        const Moving& moving = moving_[moving_at_[source]];
        const auto [low, high] = std::minmax(moving.from, moving.to);
        const auto gone =
            static_cast<double>((at - (moving.goes_on ? frame_end_ : frame_start_)).count()) * moving.rate;
        of_leaves_.emplace_back(std::clamp(
            (moving.goes_on ? moving.to : moving.from) + Nanoseconds{static_cast<std::int64_t>(gone)}, low, high));
    }
    for (const Derived::Leaf& leaf : made.leaves)
        since_changes_.push_back(leaf.changed ? Value(at - *leaf.changed) : Value());
    return made.how.adjusted(made.how.computation()->result(of_leaves_, since_changes_));
}

/// When a condition that times have turned did so: the first moment at which it is not what it was before, to a nanosecond.
void Bindings::solve(const Derived& made, bool before) {
    Nanoseconds low = frame_start_, high = frame_end_;
    while (high - low > Nanoseconds{1}) {
        const Nanoseconds middle = low + (high - low) / 2;
        (result_at(made, middle).truth() == before ? low : high) = middle;
    }
    solved_.emplace_back(made.to, high);
}

bool Bindings::is_moving(SourceIndex source) const {
    return source < moving_at_.size() && moving_at_[source] < moving_.size() &&
           moving_[moving_at_[source]].source == source;
}

void Bindings::tell_moving(SourceIndex index, const Value& now, double rate, bool goes_on) {
    const Value before = value(index);
    tell(index, now);
    const bool are_times = before.type() == Value::Type::duration && now.type() == Value::Type::duration;
    if (fed_by(index).empty() || !are_times || is_moving(index)) return;
    // What was set, or began again, did so at once.
    const Nanoseconds way = now.duration() - before.duration();
    if (way.count() == 0 || (way.count() > 0) != (rate > 0)) return;
    moving_at_.resize(std::max(moving_at_.size(), index + std::size_t{1}));
    moving_at_[index] = static_cast<std::uint32_t>(moving_.size());
    moving_.push_back({index, before.duration(), now.duration(), rate, goes_on});
}

/// A first value is no change, and what came with a snap is none.
void Bindings::note_change(Derived& made, SourceIndex source, Nanoseconds now) {
    const bool snaps = std::find(snapped_.begin(), snapped_.end(), source) != snapped_.end();
    for (std::size_t i = 0; i < made.leaves.size(); ++i) {
        if (made.from[i] != source) continue;
        const bool is_first = !std::exchange(made.leaves[i].is_read, true);
        made.leaves[i].changed = is_first || snaps ? std::nullopt : std::optional(now);
    }
}

void Bindings::depend(SourceIndex index, Dependent dependent) {
    if (index == no_source) return;
    Dependents& of = dependents_[index];
    if (of.several == Dependents::none) {
        of = {dependent, Dependents::one};
        return;
    }
    if (of.several == Dependents::one) {
        if (free_several_.empty()) {
            free_several_.push_back(static_cast<std::uint32_t>(several_.size()));
            several_.emplace_back();
        }
        of.several = free_several_.back();
        free_several_.pop_back();
        several_[of.several] = {of.only};
    }
    several_[of.several].push_back(dependent);
}

void Bindings::set_role(SourceIndex index, ElementIndex element, Dependent::Role from, Dependent::Role to) {
    if (index == no_source) return;
    Dependents& of = dependents_[index];
    const bool is_one = of.several == Dependents::one;
    for (Dependent& dependent : is_one ? std::span(&of.only, 1) : std::span(several_[of.several]))
        if (dependent.element == element && dependent.role == from) dependent.role = to;
}

template <class IsGone>
void Bindings::forget_if(SourceIndex index, IsGone is_gone) {
    if (index == no_source) return;
    Dependents& of = dependents_[index];
    if (of.several == Dependents::none) return;
    if (of.several == Dependents::one) {
        if (is_gone(of.only)) of = {};
        return;
    }
    std::vector<Dependent>& all = several_[of.several];
    std::erase_if(all, is_gone);
    if (!all.empty()) return;
    free_several_.push_back(of.several);
    of = {};
}

void Bindings::forget(SourceIndex index, ElementIndex element) {
    forget_if(index, [element](const Dependent& dependent) { return dependent.element == element; });
}

void Bindings::forget(SourceIndex index, Dependent gone) {
    forget_if(index, [gone](const Dependent& dependent) {
        return dependent.element == gone.element && dependent.role == gone.role;
    });
}

void Bindings::begin() {
    changed_.clear();
    snapped_.clear();
    followed_ = followed_snaps_ = 0;
}

void Bindings::read(Nanoseconds now) {
    frame_start_ = std::exchange(frame_end_, now);
    moving_.clear();
    solved_.clear();
    {
        const Reading reading(*this);
        scan_.read(changed_, snapped_);
    }
    tell_derived(now);
}

Value Bindings::read_once(const detail::Binding& source, std::string& storage) {
    const Reading reading(*this);
    return source.read(storage);
}

std::size_t Bindings::count(const detail::EntryReader& reader) {
    const Reading reading(*this);
    return reader.count();
}

void Bindings::read(const detail::EntryReader& reader, std::size_t field, std::span<const std::uint8_t> wanted,
                    std::span<KeptValue> into) {
    const Reading reading(*this);
    reader.read_field(field, wanted, into);
}

void Bindings::read_numbers(const detail::EntryReader& reader, std::size_t field, std::span<double> into) {
    const Reading reading(*this);
    reader.read_numbers(field, into);
}

bool Bindings::read_positions(const detail::EntryReader& reader, std::span<WorldPoint> into) {
    const Reading reading(*this);
    return reader.read_positions(into);
}

WorldPoint Bindings::read_position(const PositionSource& at) {
    const Reading reading(*this);
    return at.read();
}

void Bindings::tell_derived(Nanoseconds now) {
    if (derived_places_.empty()) return;
    for (const Place place : timed_)
        make_due(place, false);
    while (true) {
        for (; followed_snaps_ < snapped_.size(); ++followed_snaps_)
            for (const Place place : fed_by(snapped_[followed_snaps_]))
                make_due(place, true);
        for (; followed_ < changed_.size(); ++followed_)
            for (const Place place : fed_by(changed_[followed_])) {
                note_change(derived_[place], changed_[followed_], now);
                derived_[place].is_stepped = derived_[place].is_stepped || !is_moving(changed_[followed_]);
                make_due(place, false);
            }
        if (due_.empty()) return;
        std::pop_heap(due_.begin(), due_.end(), std::greater<>());
        const Place place = due_.back().second;
        due_.pop_back();
        follow(place, now);
    }
}

}  // namespace rapido
