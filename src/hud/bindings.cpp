#include "hud/bindings.hpp"

#include <algorithm>

#include "base/nearest.hpp"

namespace rapido {

using detail::Binding;

void Bindings::grow() {
    dependents_.resize(scan_.size());
    used_.resize(scan_.size());
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
    if (!source) return no_source;
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
        if (!problems_.is_full()) {
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
    return asked.is_adjusted() ? derived(told, asked) : told;
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
    const Source* const offered = sources_.find(asked.name());
    const SourceIndex index =
        offered != nullptr ? scan_.add_own(asked.applied_to(offered->binding())) : scan_.add_told();
    grow();
    named_.emplace(index, Named{asked, 1, sources_.revision_of(asked.name()), hash});
    known_named_.emplace(hash, index);
    return index;
}

std::span<const SourceIndex> Bindings::follow_names() {
    rebound_ = std::move(linked_);
    linked_.clear();
    if (names_revision_ == sources_.revision()) return rebound_;
    names_revision_ = sources_.revision();
    for (auto& [index, known] : named_) {
        const std::uint64_t revision = sources_.revision_of(known.asked.name());
        if (revision == known.revision) continue;
        known.revision = revision;
        scan_.rebind(index, known.asked.applied_to(sources_.find(known.asked.name())->binding()));
        rebound_.push_back(index);
    }
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
        derive(told, index, known.asked, known.users);
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
    if (known->second.revision != 0)
        scan_.release(index);
    else
        scan_.remove_told(index);
    forget_name(index);
    return true;
}

Binding Bindings::bound(const Source& source) const {
    const Binding& asked = source.binding();
    if (asked.access() != Binding::Access::name) return asked;
    if (const auto told = told_.find(asked.name()); told != told_.end()) return asked.applied_to(told->second.kind);
    const Source* const named = sources_.find(asked.name());
    return named != nullptr ? asked.applied_to(named->binding()) : Binding();
}

/// Those who ask for the same share it.
SourceIndex Bindings::derived(SourceIndex from, const Binding& how) {
    const std::size_t hash = how.hash() * 31 + from;
    const auto [first, last] = known_derived_.equal_range(hash);
    for (auto known = first; known != last; ++known) {
        Derived& same = derived_[derived_places_[known->second]];
        if (same.from != from || !(same.how == how)) continue;
        ++same.users;
        return same.to;
    }
    const SourceIndex to = scan_.add_told();
    grow();
    derive(from, to, how, 1);
    return to;
}

void Bindings::derive(SourceIndex from, SourceIndex to, const Binding& how, std::uint32_t users) {
    const std::size_t hash = how.hash() * 31 + from;
    known_derived_.emplace(hash, to);
    derived_places_.emplace(to, derived_.size());
    derived_.push_back({from, to, how, users, hash});
}

void Bindings::release(SourceIndex index) {
    if (index == no_source || release_named(index)) return;
    const auto own = derived_places_.find(index);
    if (own == derived_places_.end()) return scan_.release(index);
    const std::size_t place = own->second;
    if (--derived_[place].users > 0) return;
    const auto [first, last] = known_derived_.equal_range(derived_[place].hash);
    known_derived_.erase(std::find_if(first, last, [&](const auto& known) { return known.second == index; }));
    derived_places_.erase(own);
    scan_.remove_told(index);
    // The last one takes its place.
    if (place + 1 != derived_.size()) {
        derived_[place] = std::move(derived_.back());
        derived_places_[derived_[place].to] = place;
    }
    derived_.pop_back();
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

void Bindings::forget(SourceIndex index, ElementIndex element) {
    if (index == no_source) return;
    Dependents& of = dependents_[index];
    if (of.several == Dependents::none) return;
    if (of.several == Dependents::one) {
        if (of.only.element == element) of = {};
        return;
    }
    std::vector<Dependent>& all = several_[of.several];
    std::erase_if(all, [element](const Dependent& dependent) { return dependent.element == element; });
    if (!all.empty()) return;
    free_several_.push_back(of.several);
    of = {};
}

void Bindings::begin() {
    changed_.clear();
    snapped_.clear();
}

void Bindings::read() {
    const Reading reading(*this);
    scan_.read(changed_, snapped_);
}

Value Bindings::read_once(const Source& source, std::string& storage) {
    const Reading reading(*this);
    return source.binding().read(storage);
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

void Bindings::tell_derived() {
    for (const Derived& made : derived_)
        scan_.tell(made.to, made.how.adjusted(scan_.value(made.from)), changed_);
}

}  // namespace rapido
