// Where a value comes from: a variable of the game, a callable, a name to be looked up, or a constant.
#pragma once

#include <concepts>
#include <memory>
#include <optional>
#include <string>
#include <string_view>
#include <type_traits>
#include <utility>
#include <vector>

#include "rapido/value/value.hpp"

namespace rapido {

/// A callable behind one face. `storage` keeps a text alive that the callable returned by value.
class Getter {
 public:
    virtual ~Getter() = default;
    virtual Value read(std::string& storage) const = 0;
};

/// One source. Written as a string it is a name, looked up in the `Sources` that the HUD is made with; a
/// leading `!` negates it. Written as a number it is a constant. `watch` binds it to the game's own state.
class Source {
 public:
    enum class Access : std::uint8_t { none, name, constant, variable, getter };

    Source() = default;
    Source(std::string_view name);
    Source(const char* name) : Source(std::string_view(name)) {}
    Source(const std::string& name) : Source(std::string_view(name)) {}
    template <class T>
    requires std::is_arithmetic_v<T> Source(T constant)
        : access_(Access::constant), type_(Value(constant).type()), constant_(constant) {}

    Access access() const { return access_; }
    explicit operator bool() const { return access_ != Access::none; }
    const std::string& name() const { return name_; }
    bool is_negated() const { return negated_; }

    /// The type of what it gives, where that is fixed; nothing for a name and for a watched `Value`.
    std::optional<Value::Type> type() const { return negated_ ? Value::Type::boolean : type_; }

    /// The same source, with a promise for checks that a watched `Value` is of this type, or no value.
    Source expecting(Value::Type type) const;

    /// Reads it now. Nothing for a name. A text may live in `storage`, until the next read into it.
    Value read(std::string& storage) const;

    /// The address that is read; null for anything but a variable.
    const void* address() const { return address_; }
    /// The bytes of a variable that can be compared by its bits (1, 2, 4 or 8), otherwise zero.
    std::size_t scan_width() const { return scan_width_; }
    const Getter* getter() const { return getter_.get(); }

    /// The truth of it, turned round: `.visible = watch(paused).negated()`.
    Source negated() const;

    /// Same name or constant, or bound to the same thing.
    friend bool operator==(const Source&, const Source&) = default;

 private:
    friend class Watch;

    Access access_ = Access::none;
    bool negated_ = false;
    std::uint8_t scan_width_ = 0;
    std::optional<Value::Type> type_;
    const void* address_ = nullptr;
    Value (*read_variable_)(const void* address) = nullptr;
    std::shared_ptr<const Getter> getter_;
    std::string name_;
    Value constant_;
};

/// Types that a HUD shows as they are.
template <class T>
concept Showable = (std::is_arithmetic_v<T> && !std::same_as<T, wchar_t> && !std::same_as<T, char8_t> &&
                    !std::same_as<T, char16_t> && !std::same_as<T, char32_t>) ||
                   std::same_as<T, std::string> || std::same_as<T, std::string_view> ||
                   std::same_as<T, Value> || is_duration<T>;

/// Makes bound sources; use `watch`.
class Watch {
 public:
    template <Showable T>
    static Source variable(const T& variable) {
        Source source;
        source.access_ = Source::Access::variable;
        source.address_ = &variable;
        source.read_variable_ = [](const void* address) { return Value(*static_cast<const T*>(address)); };
        constexpr bool bits_tell = (std::is_arithmetic_v<T> || is_duration<T>)&&sizeof(T) <= 8;
        source.scan_width_ = bits_tell ? static_cast<std::uint8_t>(sizeof(T)) : std::uint8_t{0};
        if constexpr (!std::same_as<T, Value>) source.type_ = Value(T{}).type();
        return source;
    }

    template <class Callable>
    static Source getter(Callable callable) {
        using Given = std::remove_cvref_t<std::invoke_result_t<const Callable&>>;
        class Bound final : public Getter {
         public:
            explicit Bound(Callable held) : callable_(std::move(held)) {}
            Value read(std::string& storage) const override {
                if constexpr (std::same_as<Given, std::string>) {
                    storage = callable_();
                    return Value(std::string_view(storage));
                } else {
                    return Value(callable_());
                }
            }

         private:
            Callable callable_;
        };
        Source source;
        source.access_ = Source::Access::getter;
        source.getter_ = std::make_shared<const Bound>(std::move(callable));
        if constexpr (!std::same_as<Given, Value>) source.type_ = Value(Given{}).type();
        return source;
    }
};

/// Binds a source to live state.
///
/// A variable (any arithmetic type, bool, string, string_view, a std::chrono duration, a `Value`) is kept by
/// its address: the caller promises that it outlives every HUD it is shown in. A callable is copied, called
/// once in an update however many elements show it, and must not call into the HUD.
template <class T>
Source watch(T&& thing) {
    using Bare = std::remove_cvref_t<T>;
    if constexpr (Showable<Bare>) {
        static_assert(std::is_lvalue_reference_v<T>,
                      "rapido::watch needs a variable that outlives the HUD, and this one is a temporary: "
                      "keep it in a variable, or give a callable that returns it");
        return Watch::variable(thing);
    } else if constexpr (std::is_invocable_v<const Bare&>) {
        static_assert(
            Showable<std::remove_cvref_t<std::invoke_result_t<const Bare&>>>,
            "rapido::watch cannot show what this callable returns: return a number, a bool, a string, "
            "a string_view, a std::chrono duration or a rapido::Value");
        return Watch::getter(std::forward<T>(thing));
    } else {
        static_assert(
            Showable<Bare>,
            "rapido::watch cannot show a value of this type: watch a number, a bool, a string, a "
            "string_view, a std::chrono duration or a rapido::Value, or give a callable that returns one");
        return {};
    }
}

/// The names under which a game offers its state to HUD files.
class Sources {
 public:
    /// Offers `source` as `name`; a name given before now means this one.
    void set(std::string_view name, Source source);
    /// Offers everything in `nested` with `name.` before it.
    void set(std::string_view name, const Sources& nested);

    /// Null for a name that is not there. Valid until the next `set`.
    const Source* find(std::string_view name) const;
    /// All names, in alphabetical order; valid until the next `set`.
    std::vector<std::string_view> names() const;

 private:
    std::vector<std::pair<std::string, Source>> entries_;  ///< ordered by name
};

}  // namespace rapido
