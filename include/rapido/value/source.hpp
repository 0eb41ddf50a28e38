// Where a value comes from: something of the game that is watched, a name to be looked up, or a constant.
#pragma once

#include <memory>
#include <string>
#include <string_view>
#include <type_traits>
#include <utility>
#include <vector>

#include "rapido/time/game_timer.hpp"
#include "rapido/value/detail/binding.hpp"

namespace rapido {

/// Where an element finds a value. `watch` binds it to the game's own state; a string is a name, looked up in the `Sources`
/// that the HUD is made with, and negated by a leading `!`; a number is a constant.
class Source {
 public:
    Source() = default;
    Source(std::string_view name) : binding_(detail::Binding::named(name)) {}
    Source(const char* name) : Source(std::string_view(name)) {}
    Source(const std::string& name) : Source(std::string_view(name)) {}
    template <class T>
    requires std::is_arithmetic_v<T> Source(T constant)
        : binding_(detail::Binding::constant(Value(constant))) {}
    explicit Source(detail::Binding binding) : binding_(std::move(binding)) {}

    /// Returns the amount times `scale` plus `offset`, as a double: `watch(speed).scaled(3.6)` shows m/s as km/h. A
    /// duration counts in seconds; a text has no amount and gives no value.
    Source scaled(double scale, double offset = 0) const { return Source(binding_.scaled(scale, offset)); }
    /// Returns the opposite of its truth: `.visible = watch(paused).negated()`.
    Source negated() const { return Source(binding_.negated()); }
    /// Returns the same source, with a promise for checks that a watched `Value` is of this type, or no value.
    Source expecting(Value::Type type) const { return Source(binding_.expecting(type)); }

    /// Whether it is given at all.
    explicit operator bool() const { return binding_.access() != detail::Binding::Access::none; }
    /// The name that is looked up; empty for a source that is bound or constant.
    const std::string& name() const { return binding_.name(); }

    /// How the core reads it.
    const detail::Binding& binding() const { return binding_; }

    /// Equal for the same name or constant, and for what is bound to the same thing.
    friend bool operator==(const Source&, const Source&) = default;

 private:
    detail::Binding binding_;
};

/// The names under which a game offers its state to HUD files. It is a handle: copies share one table, and a HUD keeps one,
/// so that the object that a HUD was made with may go. What is watched must live as `watch` says.
class Sources {
 public:
    Sources();

    /// Offers `source` as `name`; a name given before now means this one. HUDs that are made, and elements that are added,
    /// from here on see it.
    void set(std::string_view name, Source source);
    /// Offers everything that `nested` holds now, with `name.` before it.
    void set(std::string_view name, const Sources& nested);

    /// Offers a timer that the game advances, by this clock, as `name.left`, `name.elapsed`, `name.duration` and
    /// `name.running`, with its events. The timer must outlive every HUD that is made with this.
    void set(std::string_view name, const GameTimer& timer, ClockKind clock = ClockKind::game);

    struct NamedTimer {
        std::string name;
        const GameTimer* timer = nullptr;
        ClockKind clock = ClockKind::game;
    };
    const std::vector<NamedTimer>& timers() const { return table_->timers; }

    /// Null for a name that is not there. Valid until the next `set`.
    const Source* find(std::string_view name) const;
    /// All names, in alphabetical order; valid until the next `set`.
    std::vector<std::string_view> names() const;

 private:
    struct Table {
        std::vector<std::pair<std::string, Source>> entries;  ///< ordered by name
        std::vector<NamedTimer> timers;
    };
    std::shared_ptr<Table> table_;
};

}  // namespace rapido
