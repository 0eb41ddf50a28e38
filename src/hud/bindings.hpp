// Where values come from: the sources of a HUD, who depends on them, and which changed.
#pragma once

#include <functional>
#include <optional>
#include <set>
#include <span>
#include <string>
#include <unordered_map>
#include <vector>

#include "base/problem_log.hpp"
#include "hud/element_index.hpp"
#include "rapido/base/exported.hpp"
#include "rapido/value/entries.hpp"
#include "value/scan.hpp"

namespace rapido RAPIDO_EXPORTED {

/// Who is told when a source changes.
struct Dependent {
    enum class Role : std::uint8_t {
        value,    ///< an element shows it
        simple,   ///< the same, and it is a simple one: see `HotElement`
        other,    ///< an element shows it besides its value: a maximum, a part
        look,     ///< an element or a group is visible or dimmed by it
        trigger,  ///< a trigger of an element waits for a change of it
        data,     ///< a field of an element comes from it
    };
    ElementIndex element;  ///< no element for a group
    Role role;
};

/// Finds sources by name, reads them once a frame, and lists those that changed. Sources that the HUD itself tells (timers,
/// meters, what is pending) have names, too, and can be negated and computed with like those of the game.
class Bindings {
 public:
    explicit Bindings(const ProblemLog& problems) : problems_(problems) {}

    // Between frames

    void set_sources(Sources sources);
    const Sources& sources() const { return sources_; }
    /// Whether the game or the HUD has a source of this name now.
    bool is_known(const std::string& name) const { return is_told(name) || sources_.find(name) != nullptr; }

    /// Returns the source that is read for a description, with one user more; `no_source` for an empty one. For a name that nobody
    /// has yet, with a problem, one that has no value until the name is there; nothing for one that can never be.
    std::optional<SourceIndex> find(const Source& source, Problem& problem);
    /// Returns what a source is bound to: itself, unless it is a name; empty for an unknown name.
    detail::Binding bound(const Source& source) const;
    /// Takes one user away from what `find` gave.
    void release(SourceIndex index);
    void depend(SourceIndex index, Dependent dependent);
    /// The element that shows a source depends on it in another way from now on.
    void set_role(SourceIndex index, ElementIndex element, Dependent::Role from, Dependent::Role to);
    /// An element depends on this source no more.
    void forget(SourceIndex index, ElementIndex element);
    /// The same of one role alone.
    void forget(SourceIndex index, Dependent dependent);

    /// A name that the game is expected to have at some time: that it is not there yet is no problem.
    void declare(const std::string& name) { declared_.insert(name); }
    /// The names that were asked for and are not told by the HUD, and those that it tells, both in alphabetical order.
    std::vector<std::string> asked() const;
    std::vector<std::string> told() const;

    /// Adds a source that the HUD tells.
    SourceIndex add_told(const std::string& name, std::optional<Value::Type> type,
                         detail::ValueUse use = detail::ValueUse::amount);
    /// A told source gives another type from now on.
    void set_told_type(const std::string& name, std::optional<Value::Type> type);
    bool is_told(const std::string& name) const { return told_.contains(name); }
    /// Whether anybody has asked for a told source.
    bool is_used(SourceIndex index) const { return used_[index] != 0; }
    /// Binds names that the game has set since the last call, or set anew. Returns their sources; valid until the next call.
    std::span<const SourceIndex> follow_names();
    /// Offers names that nobody has once more: something that counts was added.
    void offer_again();

    /// Asked for a name that is neither the game's nor told yet; true if it is told from now on.
    std::function<bool(const std::string& name, Problem&)> offer;

    // In a frame

    /// Forgets what changed.
    void begin();
    /// Reads all sources of the game. A getter that calls into the HUD finds it reading.
    void read(Nanoseconds now);
    bool is_reading() const { return reading_ > 0; }
    /// What getters have thrown since the last call.
    std::vector<detail::ReadFailure> take_failures() { return std::exchange(failures_, {}); }
    /// Reads a source once, at once; a text in it is kept in `storage`.
    Value read_once(const detail::Binding& source, std::string& storage);
    /// Reads the entries of a container, whose getters may not call into the HUD either.
    std::size_t count(const detail::EntryReader& reader);
    void read(const detail::EntryReader& reader, std::size_t field, std::span<const std::uint8_t> wanted,
              std::span<KeptValue> into);
    void read_numbers(const detail::EntryReader& reader, std::size_t field, std::span<double> into);
    bool read_positions(const detail::EntryReader& reader, std::span<WorldPoint> into);
    WorldPoint read_position(const PositionSource& at);
    void tell(SourceIndex index, const Value& value) { scan_.tell(index, value, changed_); }
    /// Tells a time that went on from its value before, by so many seconds in a second of the real clock, up to this one; whether it still
    /// does.
    void tell_moving(SourceIndex index, const Value& value, double rate, bool goes_on);
    /// Follows what was read and told with what is made of it: negated, counted down, computed from several.
    void tell_derived(Nanoseconds now);
    /// What is wrong with names of the game, since the last call.
    std::vector<Problem> take_faults() { return std::exchange(faults_, {}); }

    /// The value of a source; no value for none.
    const Value& value(SourceIndex index) const { return index == no_source ? nothing_ : scan_.value(index); }
    bool is_true(SourceIndex index) const { return value(index).truth(); }
    std::span<const SourceIndex> changed() const { return changed_; }
    /// Remembers when the sources that have changed did.
    void note_changes(Nanoseconds now) {
        changed_at_.resize(scan_.size(), Nanoseconds::min());
        for (const SourceIndex source : changed_)
            changed_at_[source] = now;
        for (const auto& [source, at] : solved_)
            changed_at_[source] = at;
    }
    /// When a source that has changed in this frame did so: what is computed from times that the HUD tells, at its exact moment; all else
    /// at the end of the frame, as what has not changed.
    Nanoseconds moment(SourceIndex index) const {
        return index < changed_at_.size() && changed_at_[index] > frame_start_ ? changed_at_[index] : frame_end_;
    }
    /// When a source last changed, or had its first value; nothing for one that never has had any.
    std::optional<Nanoseconds> changed_at(SourceIndex index) const {
        if (index >= changed_at_.size() || changed_at_[index] == Nanoseconds::min()) return std::nullopt;
        return changed_at_[index];
    }
    /// What a source is made of, in the order of the leaves of its computation; none for one that is read.
    std::span<const SourceIndex> inputs(SourceIndex index) const {
        const auto own = derived_places_.find(index);
        return own != derived_places_.end() ? std::span<const SourceIndex>(derived_[own->second].from)
                                            : std::span<const SourceIndex>();
    }
    /// Those whose value came with a snap.
    std::span<const SourceIndex> snapped() const { return snapped_; }
    std::span<const Dependent> dependents(SourceIndex index) const {
        const Dependents& of = dependents_[index];
        if (of.several == Dependents::one) [[likely]]
            return {&of.only, 1};
        return of.several == Dependents::none ? std::span<const Dependent>() : several_[of.several];
    }

 private:
    /// While it lives, getters of the game are called: they must not call into the HUD, and what they throw is kept.
    class Reading {
     public:
        explicit Reading(Bindings& bindings) : bindings_(bindings), failures_(bindings.failures_) {
            ++bindings_.reading_;
        }
        ~Reading() { --bindings_.reading_; }
        Reading(const Reading&) = delete;
        Reading& operator=(const Reading&) = delete;

     private:
        Bindings& bindings_;
        detail::ReadFailures failures_;
    };
    struct Told {
        SourceIndex index;
        detail::Binding kind;  ///< its type and use
    };
    /// A source that is told what is made of others: negated, counted down or computed. Its place is free without a source.
    struct Derived {
        std::vector<SourceIndex> from{};  ///< in the order of the leaves, if it is computed
        SourceIndex to = no_source;
        detail::Binding how{};
        std::uint32_t users = 1;
        std::uint32_t rank = 1;  ///< more than those of all that it is made of
        std::size_t hash = 0;
        bool is_due = false, snaps = false;
        bool is_stepped = false;  ///< something that it is made of has changed at once, and not in the course of time
        /// Where it asks how long ago its leaves have changed; else empty.
        struct Leaf {
            bool is_read = false;  ///< has had a value
            std::optional<Nanoseconds> changed{};
        };
        std::vector<Leaf> leaves{};
    };
    using Place = std::uint32_t;  ///< in `derived_`
    /// Most sources have one dependent, which stands in the array itself.
    struct Dependents {
        static constexpr std::uint32_t none = UINT32_MAX, one = UINT32_MAX - 1;
        Dependent only{no_element, Dependent::Role::value};
        std::uint32_t several = none;  ///< none, one, or where all of them stand in `several_`
    };
    /// A source that is read by its name.
    struct Named {
        detail::Binding asked;
        std::uint32_t users = 1;
        std::uint64_t revision = 0;  ///< of the name; zero while nobody has it
        std::size_t hash = 0;
    };
    SourceIndex named(const detail::Binding& asked);
    std::optional<SourceIndex> computed(const detail::Binding& how, Problem& problem);
    std::optional<std::vector<SourceIndex>> leaves_of(const detail::Binding& how, Problem& problem);
    void offer_name(SourceIndex index);
    void check_names(std::uint64_t since);
    bool is_made_of(SourceIndex source, SourceIndex part) const;
    void derive(std::vector<SourceIndex> from, SourceIndex to, const detail::Binding& how, std::uint32_t users);
    void underive(SourceIndex to);
    void rank(Place place);
    void make_due(Place place, bool snaps);
    bool is_moving(SourceIndex source) const;
    Value result_at(const Derived& made, Nanoseconds at);
    void solve(const Derived& made, bool before);
    std::span<const Place> fed_by(SourceIndex source) const;
    void follow(Place place, Nanoseconds now);
    void note_change(Derived& made, SourceIndex source, Nanoseconds now);
    void follow_told(const std::string& name, SourceIndex told);
    bool release_named(SourceIndex index);
    void forget_name(SourceIndex index);
    template <class IsGone>
    void forget_if(SourceIndex index, IsGone is_gone);
    SourceIndex derived(std::vector<SourceIndex> from, const detail::Binding& how);
    void grow();

    const ProblemLog& problems_;
    Sources sources_;
    Scan scan_;
    std::vector<Dependents> dependents_;  ///< by source
    std::vector<std::vector<Dependent>> several_;
    std::vector<std::uint32_t> free_several_;  ///< places in `several_`
    std::vector<std::uint8_t> used_;           ///< by source
    std::unordered_map<SourceIndex, Named> named_;
    std::unordered_multimap<std::size_t, SourceIndex> known_named_;  ///< by a hash of what is asked for
    std::uint64_t names_revision_ = 0;  ///< of the names of the game, when they were followed
    std::vector<SourceIndex> rebound_;
    std::vector<SourceIndex> linked_;  ///< since the last call of `follow_names`, to what the HUD tells
    std::unordered_map<std::string, Told> told_;
    std::set<std::string, std::less<>> declared_;
    std::vector<Derived> derived_;
    std::vector<Place> free_derived_;
    std::unordered_map<SourceIndex, Place> derived_places_;
    std::unordered_multimap<std::size_t, SourceIndex> known_derived_;  ///< by a hash of what they are made of
    static constexpr std::uint32_t feeds_none = UINT32_MAX;
    std::vector<std::uint32_t> feeds_;  ///< by source: where in `fed_` stands what is made of it
    std::vector<std::vector<Place>> fed_;
    std::vector<std::uint32_t> free_fed_;
    std::vector<std::pair<std::uint32_t, Place>> due_;  ///< a heap of what is to be made again, by rank
    std::vector<Place> timed_;
    std::size_t followed_ = 0, followed_snaps_ = 0;  ///< so many of those that changed, or snapped
    std::vector<SourceIndex> circular_;              ///< names that are made of themselves
    std::vector<Problem> faults_;
    std::vector<Value> of_leaves_, since_changes_;
    /// A time that went on in this frame.
    struct Moving {
        SourceIndex source;
        Nanoseconds from, to;
        double rate;
        bool goes_on;  ///< also at the end of the frame
    };
    std::vector<Moving> moving_;            ///< of what something is computed from
    std::vector<std::uint32_t> moving_at_;  ///< places there, by source; of another one where it is not
    std::vector<std::pair<SourceIndex, Nanoseconds>> solved_;  ///< conditions that have changed, and when
    Nanoseconds frame_start_{0}, frame_end_{0};
    std::vector<SourceIndex> changed_, snapped_;
    std::vector<Nanoseconds> changed_at_;  ///< by source
    int reading_ = 0;
    std::vector<detail::ReadFailure> failures_;
    Value nothing_;
};

}  // namespace rapido
