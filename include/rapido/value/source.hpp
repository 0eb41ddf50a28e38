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

#include "rapido/base/exported.hpp"
#include "rapido/time/game_timer.hpp"
#include "rapido/value/detail/binding.hpp"

namespace rapido RAPIDO_EXPORTED {

class Source;
class Condition;

namespace detail {

/// Whether something is a string literal, or looks like one: a constant array of characters.
template <class T>
concept Literal =
    std::is_array_v<std::remove_reference_t<T>> && std::same_as < std::remove_extent_t<std::remove_reference_t<T>>,
const char > ;

/// What a `Source` can be written as, besides another one: see `Source`.
template <class T>
concept WrittenSource =
    !std::derived_from<std::remove_cvref_t<T>, Source> && !std::same_as<std::remove_cvref_t<T>, Binding> && !Literal<T>;

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
/// taken for a name. A condition that is computed where it is written (`.visible = !paused`) is a constant, too: compute it from
/// sources, `.visible = !watch(paused)`, or watch a callable.
///
/// Sources are computed from others by the operators of C++: `watch(shield) && !watch(paused)`, `watch(cost) > watch(mana)`,
/// `watch(speed) * 3.6`, `watch(rank) == "Skimmer"`, `rapido::min(watch(a), 5)`, and `watch(time) / 1s` for seconds as a number. An operand that is no source is a constant:
/// a literal number or duration, an enumerator, or a literal text. A variable as an operand does not compile, as it would be read
/// only once. See `docs/conditions.md`.
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

    /// Returns the same seconds, as the time that is left of something which the game counts down itself: rounded up by default, so
    /// that 0 means over, and never below zero. In a file `{ source = "bomb.seconds", time_left = true }`.
    Source as_time_left() const { return Source(binding_.counting_down()); }
    /// Returns the opposite of its truth, as `!` does.
    Source negated() const { return Source(binding_.negated()); }
    /// Returns the same source, with a promise for checks that a watched `Value` is of this type, or no value.
    Source expecting(Value::Type type) const { return Source(binding_.expecting(type)); }

    /// Whether it is given at all.
    bool is_given() const { return binding_.access() != detail::Binding::Access::none; }
    /// The name that is looked up; empty for a source that is bound or constant.
    const std::string& name() const { return binding_.name(); }
    /// All names that it looks up, also those that it is computed from.
    std::vector<std::string> names() const;

    /// How the core reads it.
    const detail::Binding& binding() const { return binding_; }

    /// Its opposite, and the amount with the other sign.
    inline Condition operator!() const;
    Source operator-() const { return Source(detail::Binding::computed(detail::Operation::negative, {binding_})); }

    /// Whether the other one is the same name or constant, is bound to the same thing, or is computed from the same in the same way.
    bool is_same(const Source& other) const { return binding_ == other.binding_; }

 private:
    detail::Binding binding_;
};

/// A source that is true or false.
class Condition : public Source {
 public:
    explicit Condition(detail::Binding binding) noexcept : Source(std::move(binding)) {}
};

namespace detail {

template <class T>
concept AnySource = std::derived_from<std::remove_cvref_t<T>, Source>;
template <class A, class B>
concept Operands = AnySource<A> || AnySource<B>;

/// What is written beside a source in an operation.
template <class T>
Binding operand(T&& written) {
    using Bare = std::remove_cvref_t<T>;
    constexpr bool is_variable = std::is_lvalue_reference_v<T>;
    if constexpr (AnySource<T>) {
        return written.binding();
    } else if constexpr (Literal<T>) {
        return Binding::kept(Value(std::string_view(written)));
    } else if constexpr (std::is_convertible_v<const Bare&, std::string_view>) {
        static_assert(!sizeof(T),
                      "a text that is no literal would be read only once: write rapido::watch(s) to follow it, or "
                      "rapido::constant(s) for its present characters");
    } else if constexpr (std::is_arithmetic_v<Bare> || std::is_enum_v<Bare> || is_duration<Bare>) {
        static_assert(!is_variable,
                      "a variable as an operand would be read only once: write rapido::watch(x) to follow it, or "
                      "rapido::constant(x) for its present value");
        static_assert(is_variable || !std::is_same_v<Bare, bool>,
                      "a condition that is computed where it is written would be read only once: write "
                      "rapido::watch(x), or rapido::watch([&] { return ...; }), to follow it");
        if constexpr (std::is_enum_v<Bare>)
            return Binding::constant(Value(static_cast<std::underlying_type_t<Bare>>(written)));
        else
            return Binding::constant(Value(written));
    } else if constexpr (std::is_invocable_v<const Bare&>) {
        static_assert(!sizeof(T), "a callable by itself is no operand: write rapido::watch(callable)");
    } else {
        static_assert(!sizeof(T),
                      "this is no operand beside a source: write a source, a number, a duration or a literal text");
    }
}

template <class Made, class A, class B>
Made computed(Operation operation, A&& a, B&& b) {
    return Made(Binding::computed(operation, {operand(std::forward<A>(a)), operand(std::forward<B>(b))}));
}
template <class A, class B>
Condition ordered(Operation operation, A&& a, B&& b) {
    static_assert(!std::same_as<std::remove_cvref_t<A>, Condition> && !std::same_as<std::remove_cvref_t<B>, Condition>,
                  "what is true or false is not less than anything: write 0 < a && a < 10");
    return computed<Condition>(operation, std::forward<A>(a), std::forward<B>(b));
}

}  // namespace detail

template <class A, class B>
requires detail::Operands<A, B> Source operator+(A&& a, B&& b) {
    return detail::computed<Source>(detail::Operation::sum, std::forward<A>(a), std::forward<B>(b));
}
template <class A, class B>
requires detail::Operands<A, B> Source operator-(A&& a, B&& b) {
    return detail::computed<Source>(detail::Operation::difference, std::forward<A>(a), std::forward<B>(b));
}
template <class A, class B>
requires detail::Operands<A, B> Source operator*(A&& a, B&& b) {
    return detail::computed<Source>(detail::Operation::product, std::forward<A>(a), std::forward<B>(b));
}
template <class A, class B>
requires detail::Operands<A, B> Source operator/(A&& a, B&& b) {
    return detail::computed<Source>(detail::Operation::quotient, std::forward<A>(a), std::forward<B>(b));
}
template <class A, class B>
requires detail::Operands<A, B> Source operator%(A&& a, B&& b) {
    return detail::computed<Source>(detail::Operation::remainder, std::forward<A>(a), std::forward<B>(b));
}
template <class A, class B>
requires detail::Operands<A, B> Condition operator<(A&& a, B&& b) {
    return detail::ordered(detail::Operation::less, std::forward<A>(a), std::forward<B>(b));
}
template <class A, class B>
requires detail::Operands<A, B> Condition operator<=(A&& a, B&& b) {
    return detail::ordered(detail::Operation::less_or_equal, std::forward<A>(a), std::forward<B>(b));
}
template <class A, class B>
requires detail::Operands<A, B> Condition operator>(A&& a, B&& b) {
    return detail::ordered(detail::Operation::greater, std::forward<A>(a), std::forward<B>(b));
}
template <class A, class B>
requires detail::Operands<A, B> Condition operator>=(A&& a, B&& b) {
    return detail::ordered(detail::Operation::greater_or_equal, std::forward<A>(a), std::forward<B>(b));
}
template <class A, class B>
requires detail::Operands<A, B> Condition operator==(A&& a, B&& b) {
    return detail::computed<Condition>(detail::Operation::equal, std::forward<A>(a), std::forward<B>(b));
}
template <class A, class B>
requires detail::Operands<A, B> Condition operator!=(A&& a, B&& b) {
    return detail::computed<Condition>(detail::Operation::unequal, std::forward<A>(a), std::forward<B>(b));
}
template <class A, class B>
requires detail::Operands<A, B> Condition operator&&(A&& a, B&& b) {
    return detail::computed<Condition>(detail::Operation::both, std::forward<A>(a), std::forward<B>(b));
}
template <class A, class B>
requires detail::Operands<A, B> Condition operator||(A&& a, B&& b) {
    return detail::computed<Condition>(detail::Operation::either, std::forward<A>(a), std::forward<B>(b));
}
inline Condition Source::operator!() const {
    return Condition(binding_.negated());
}

/// The smaller and the larger of two, the size of one without its sign, and one between two limits.
template <class A, class B>
requires detail::Operands<A, B> Source(min)
(A&& a, B&& b) {
    return detail::computed<Source>(detail::Operation::least, std::forward<A>(a), std::forward<B>(b));
}
template <class A, class B>
requires detail::Operands<A, B> Source(max)
(A&& a, B&& b) {
    return detail::computed<Source>(detail::Operation::greatest, std::forward<A>(a), std::forward<B>(b));
}
template <detail::AnySource S>
Source abs(const S& source) {
    return Source(detail::Binding::computed(detail::Operation::magnitude, {source.binding()}));
}
template <detail::AnySource S, class Low, class High>
Source clamp(const S& source, Low&& low, High&& high) {
    return (min)((max)(source, std::forward<Low>(low)), std::forward<High>(high));
}

/// Returns the time since a source that is read last changed, as a duration; no value for one that has not changed yet. What came with a
/// snap is no change.
template <detail::AnySource S>
Source since(const S& source) {
    return Source(detail::Binding::computed(detail::Operation::since, {source.binding()}));
}

/// A source with a name of its own, for a text that shows several: `.values = {{"hp", watch(hull)}}` for `{hp}`.
struct NamedSource {
    std::string name{};
    Source value{};
    friend RAPIDO_EXPORTED bool operator==(const NamedSource&, const NamedSource&);
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
    /// this one: what shows it takes the value as given, as after `Hud::snap`. Names are ASCII letters, digits, `_` and `-` in parts that are
    /// joined by dots, and begin with a letter or `_`; of another one, of `screen`, and of a word of a condition, HUDs warn.
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
