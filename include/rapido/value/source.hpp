// Where a value comes from: something of the game that is watched, a name to be looked up, or a constant.
#pragma once

#include <concepts>
#include <cstddef>
#include <memory>
#include <string>
#include <string_view>
#include <type_traits>
#include <utility>
#include <vector>

#include "rapido/time/game_timer.hpp"
#include "rapido/value/detail/binding.hpp"

namespace rapido {

class Source;

namespace detail {

/// Whether something is a string literal, or looks like one: a constant array of characters.
template <class T>
concept Literal =
    std::is_array_v<std::remove_reference_t<T>> && std::same_as < std::remove_extent_t<std::remove_reference_t<T>>,
const char > ;

/// What a `Source` can be written as, besides another one: see `Source`.
template <class T>
concept WrittenSource =
    !std::same_as<std::remove_cvref_t<T>, Source> && !std::same_as<std::remove_cvref_t<T>, Binding> && !Literal<T>;

}  // namespace detail

/// Where an element finds a value.
///
/// - `watch(x)` follows the game's own state.
/// - A literal such as `"plane.water"` is a name, looked up in the `Sources` that the HUD is made with, and negated by a leading
///   `!`; `by_name(s)` is the same for a name in a variable.
/// - A number or a duration that is written where it is used, as `.max = 100` or `.max = 90s`, is a constant; `constant(x)` is
///   the same for a variable.
///
/// A variable by itself (`.value = score`, `.visible = flag`, a `std::string`) does not compile: it would be read once, or be
/// taken for a name. A condition that is computed where it is written (`.visible = !paused`) is a constant, too: watch a callable
/// instead.
class Source {
 public:
    Source() = default;
    template <std::size_t size>
    Source(const char (&name)[size]) noexcept : Source(detail::Binding::named(name)) {}
    template <class T>
    requires detail::WrittenSource<T> Source(T&& written)
    noexcept {
        using Bare = std::remove_cvref_t<T>;
        if constexpr (std::is_arithmetic_v<Bare> || is_duration<Bare>) {
            static_assert(!std::is_lvalue_reference_v<T>,
                          "a variable by itself is no source, as it would be read only once: write "
                          "rapido::watch(x) to follow "
                          "it, or rapido::constant(x) for its present value");
            binding_ = detail::Binding::constant(Value(written));
        } else if constexpr (std::is_convertible_v<const Bare&, std::string_view> ||
                             std::is_convertible_v<T, const char*>) {
            static_assert(!sizeof(T),
                          "a text that is no literal is no source by itself: write rapido::watch(s) to show the text, "
                          "rapido::by_name(s) for the name of a source, or rapido::constant(s) for its present "
                          "characters");
        } else if constexpr (std::is_invocable_v<const Bare&>) {
            static_assert(!sizeof(T), "a callable by itself is no source: write rapido::watch(callable)");
        } else {
            static_assert(!sizeof(T),
                          "this is no source: write rapido::watch(x) for something of the game, a literal name such as "
                          "\"plane.water\", a number, or rapido::constant(x)");
        }
    }
    explicit Source(detail::Binding binding) noexcept : binding_(std::move(binding)) {}

    /// Returns the amount times `scale` plus `offset`, as a double: `watch(speed).scaled(3.6)` shows m/s as km/h. A
    /// duration counts in seconds; a text has no amount and gives no value.
    Source scaled(double scale, double offset = 0) const { return Source(binding_.scaled(scale, offset)); }
    /// Returns the same seconds, as the time that is left of something which the game counts down itself: rounded up by default, so
    /// that 0 means over, and never below zero. In a file `{ source = "bomb.seconds", time_left = true }`.
    Source as_time_left() const { return Source(binding_.counting_down()); }
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
    friend bool operator==(const Source& a, const Source& b);

 private:
    detail::Binding binding_;
};

/// A source with a name of its own, for a text that shows several: `.values = {{"hp", watch(hull)}}` for `{hp}`.
struct NamedSource {
    std::string name{};
    Source value{};
    friend bool operator==(const NamedSource&, const NamedSource&);
};

/// Returns the source that a game offers under a name, as a literal does: for names in variables.
inline Source by_name(std::string_view name) {
    return Source(detail::Binding::named(name));
}

/// Returns a source that always has the value that `value` has now: an arithmetic type or a duration, or a text, which is
/// copied.
template <class T>
requires(std::is_arithmetic_v<T> || is_duration<T>) Source constant(T value) {
    return Source(detail::Binding::constant(Value(value)));
}
Source constant(std::string_view text);

/// The names under which a game offers its state to HUD files. It is a handle: copies share one table, and a HUD keeps one,
/// so that the object that a HUD was made with may go. What is watched must live as `watch` says.
class Sources {
 public:
    Sources();

    /// Offers `source` as `name`, to HUDs that are there already, too, from their next update on. A name given before now means
    /// this one: what shows it takes the value as given, as after `Hud::snap`.
    void set(std::string_view name, Source source);
    /// Offers everything that `nested` holds now, with `name.` before it.
    void set(std::string_view name, const Sources& nested);

    /// Offers a timer that the game advances, by this clock, as `name.left`, `name.elapsed`, `name.duration` and
    /// `name.running`, with its events. The timer must outlive every HUD that is made with this. A name is given to one timer only.
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

    /// How often anything was set, and when this name was: a HUD asks for it in each update.
    std::uint64_t revision() const { return table_->revision; }
    std::uint64_t revision_of(std::string_view name) const;

 private:
    struct Entry {
        std::string name;
        Source source;
        std::uint64_t revision = 0;
    };
    struct Table {
        std::vector<Entry> entries;  ///< ordered by name
        std::vector<NamedTimer> timers;
        std::uint64_t revision = 0;
    };
    const Entry* entry(std::string_view name) const;
    std::shared_ptr<Table> table_;
};

}  // namespace rapido
