// Binds sources to the state of a game.
#pragma once

#include <atomic>
#include <concepts>
#include <functional>
#include <iterator>
#include <memory>
#include <optional>
#include <string>
#include <string_view>
#include <type_traits>
#include <utility>

#include "rapido/base/color.hpp"
#include "rapido/base/exported.hpp"
#include "rapido/value/detail/guarded.hpp"
#include "rapido/value/source.hpp"

namespace rapido RAPIDO_EXPORTED {

/// An enumeration with names, given by a function `std::string_view name_of(Gear gear)` beside it.
template <class T>
concept NamedEnum = std::is_enum_v<T> && requires(T value) {
    { name_of(value) } -> std::convertible_to<std::string_view>;
};

/// The types that a HUD shows as they are.
template <class T>
concept Showable = (std::is_arithmetic_v<T> && !std::same_as<T, wchar_t> && !std::same_as<T, char8_t> &&
                    !std::same_as<T, char16_t> && !std::same_as<T, char32_t>) ||
                   std::same_as<T, std::string> || std::same_as<T, std::string_view> || std::same_as<T, Value> ||
                   std::same_as<T, Color> || is_duration<T> || NamedEnum<T>;

namespace detail {

template <class T>
inline constexpr bool is_optional = false;
template <class T>
inline constexpr bool is_optional<std::optional<T>> = true;
template <class T>
struct OptionalContent {
    using type = T;
};
template <class T>
struct OptionalContent<std::optional<T>> {
    using type = T;
};
template <class T>
inline constexpr bool is_weak = false;
template <class T>
inline constexpr bool is_weak<std::weak_ptr<T>> = true;
template <class T>
inline constexpr bool is_weak<std::shared_ptr<T>> = true;

/// What may be shown, or may be missing.
template <class T>
concept Readable = Showable<typename OptionalContent<T>::type>;

template <class T>
constexpr std::optional<Value::Type> type_of() {
    using Content = typename OptionalContent<T>::type;
    if constexpr (std::same_as<Content, Value>)
        return std::nullopt;
    else if constexpr (NamedEnum<Content> || std::same_as<Content, char> || std::same_as<Content, Color>)
        return Value::Type::text;
    else
        return Value(Content{}).type();
}

template <class T>
Value to_value(const T& thing) {
    if constexpr (is_optional<T>)
        return thing ? to_value(*thing) : Value();
    else if constexpr (NamedEnum<T>) {
        Value value;
        guarded(nullptr, [&] { value = Value(std::string_view(name_of(thing))); });
        return value;
    } else if constexpr (std::same_as<T, char>)
        return Value(std::string_view(&thing, 1));
    else
        return Value(thing);
}

/// A text that is made on the way lives on in `storage`.
template <class T>
Value keep(T&& thing, std::string& storage) {
    using Bare = std::remove_cvref_t<T>;
    if constexpr (std::same_as<Bare, Color>) {
        storage = to_string(thing);
        return Value(std::string_view(storage));
    } else if constexpr (std::same_as<Bare, std::optional<Color>>) {
        return thing ? keep(*thing, storage) : Value();
    } else if constexpr ((std::same_as<Bare, std::string> ||
                          std::same_as<Bare, char>)&&!std::is_lvalue_reference_v<T>) {
        storage = std::forward<T>(thing);
        return Value(std::string_view(storage));
    } else if constexpr ((std::same_as<Bare, std::optional<std::string>> ||
                          std::same_as<Bare, std::optional<char>>)&&!std::is_lvalue_reference_v<T>) {
        return thing ? keep(*std::forward<T>(thing), storage) : Value();
    } else {
        return to_value(thing);
    }
}

/// A member, a member function without arguments, or any callable, applied to an object.
template <class Projection, class Object>
decltype(auto) project(const Projection& projection, const Object& object) {
    if constexpr (std::is_member_object_pointer_v<Projection>)
        return (object.*projection);
    else if constexpr (std::is_member_function_pointer_v<Projection>)
        return (object.*projection)();
    else
        return projection(object);
}

template <class Projection, class Object>
using Projected =
    std::remove_cvref_t<decltype(project(std::declval<const Projection&>(), std::declval<const Object&>()))>;

template <class Read>
class Reading final : public Getter {
 public:
    explicit Reading(Read read) : read_(std::move(read)) {}
    Value read(std::string& storage) const override {
        Value value;
        guarded(this, [&] { value = read_(storage); });
        return value;
    }

 private:
    Read read_;
};

/// A variable whose value needs no storage.
template <class T>
Source watch_variable(const T& thing) noexcept {
    constexpr bool bits_tell = (std::is_arithmetic_v<T> || is_duration<T> || std::is_enum_v<T>)&&sizeof(T) <= 8;
    return Source(Binding::variable(
        &thing, [](const void* address) { return to_value(*static_cast<const T*>(address)); },
        bits_tell ? sizeof(T) : 0, type_of<T>()));
}

template <class Result, class Read>
Source make_getter(Read read) {
    return Source(Binding::getter(std::make_shared<const Reading<Read>>(std::move(read)), type_of<Result>()));
}

template <class T>
inline constexpr bool is_atomic = false;
template <class T>
inline constexpr bool is_atomic<std::atomic<T>> = true;

template <class T>
concept CharacterPointer = std::same_as < std::remove_cv_t<std::remove_pointer_t<std::decay_t<T>>>,
char > &&std::is_pointer_v<std::decay_t<T>>;

/// A list that is read by an index.
template <class List, class Index>
concept Indexed = std::integral<std::remove_cvref_t<Index>> && requires(const std::remove_reference_t<List>& list) {
    std::size(list);
    list[std::size_t{}];
};

/// The first sentence that a compiler says of what cannot be shown.
template <class T>
constexpr void must_be_readable() {
    static_assert(!CharacterPointer<T>,
                  "rapido::watch cannot tell how long an array of characters lives: watch a std::string, or "
                  "a callable that "
                  "returns a std::string_view of it");
    static_assert(!is_atomic<T>,
                  "rapido::watch does not read a std::atomic by itself: watch a callable, [&] { return "
                  "counter.load(); }, or "
                  "use a rapido::Shared for values that belong together");
    static_assert(CharacterPointer<T> || is_atomic<T> || !std::is_pointer_v<T>,
                  "rapido::watch does not follow a pointer by itself: watch(*pointer) where it never changes, "
                  "watch(pointer, &Type::member), or a callable");
    static_assert(CharacterPointer<T> || is_atomic<T> || std::is_pointer_v<T> || Readable<T>,
                  "rapido::watch cannot show a value of this type: it shows a number, a bool, a string, a "
                  "string_view, a "
                  "std::chrono duration, an enumeration with a name_of function, a rapido::Value, or an "
                  "optional of these; "
                  "of anything else name the member to show: rapido::watch(object, &Type::member)");
}

}  // namespace detail

/// Binds a source to live state.
///
/// - A variable (any arithmetic type, a `char` as its character, bool, string, string_view, a std::chrono duration, an enumeration with
///   a `name_of`, a `Value`, an optional of these) is kept by its address: the caller promises that it
///   outlives every HUD that shows it. For what may die before, use `Live`, a shared_ptr, or a callable.
/// - A callable is copied, and called once in an update however many elements show it. It must not call into
/// the HUD. Where it throws there is no value in that update, which is a problem with what it has thrown.
template <class T>
Source watch(T&& thing) noexcept(std::is_arithmetic_v<std::remove_cvref_t<T>> ||
                                 std::same_as<std::remove_cvref_t<T>, std::string>) {
    using Bare = std::remove_cvref_t<T>;
    if constexpr (detail::Readable<Bare>) {
        static_assert(std::is_lvalue_reference_v<T>,
                      "rapido::watch needs a variable that outlives the HUD, and this one is a temporary: "
                      "keep it in a variable, or give a callable that returns it");
        if constexpr (std::same_as<typename detail::OptionalContent<Bare>::type, Color>)
            return detail::make_getter<Bare>(
                [color = &thing](std::string& storage) { return detail::keep(*color, storage); });
        else
            return detail::watch_variable(thing);
    } else if constexpr (std::is_invocable_v<const Bare&>) {
        using Result = std::remove_cvref_t<std::invoke_result_t<const Bare&>>;
        detail::must_be_readable<Result>();
        if constexpr (detail::Readable<Result>)
            return detail::make_getter<Result>(
                [call = Bare(std::forward<T>(thing))](std::string& storage) { return detail::keep(call(), storage); });
        else
            return {};
    } else {
        detail::must_be_readable<Bare>();
        return {};
    }
}

/// Binds a source to a member that is reached through an object: `watch(plane, &Plane::water)`. In place of a member there may
/// be a member function or a callable on the object.
///
/// - A shared_ptr or weak_ptr is kept as a weak one: when the object dies there is no value, and nothing
/// dangles.
/// - A raw pointer, a unique_ptr or an optional is followed where it stands, and may be empty: then there is
///   no value. The pointer itself must outlive the HUD, and what a raw pointer points at must be alive while
///   it does.
/// - Anything else is an object that outlives the HUD.
template <class Owner, class Projection>
requires(!std::integral<std::remove_cvref_t<Projection>>) Source watch(Owner&& owner, Projection projection) {
    using Bare = std::remove_cvref_t<Owner>;
    if constexpr (detail::is_weak<Bare>) {
        using Object = typename Bare::element_type;
        using Result = detail::Projected<Projection, Object>;
        detail::must_be_readable<Result>();
        if constexpr (detail::Readable<Result>)
            return detail::make_getter<Result>([weak = std::weak_ptr<Object>(owner), projection](std::string& storage) {
                const std::shared_ptr<Object> object = weak.lock();
                if (object == nullptr) return Value();
                // A text dies with the object that is held here: keep it.
                const Value value = detail::keep(detail::project(projection, *object), storage);
                if (value.type() != Value::Type::text || value.text().data() == storage.data()) return value;
                storage = value.text();
                return Value(std::string_view(storage));
            });
        else
            return {};
    } else {
        static_assert(std::is_lvalue_reference_v<Owner>,
                      "rapido::watch needs an object that outlives the HUD, and this one is a temporary: keep it in a "
                      "variable, or give a callable");
        if constexpr (requires {
                          static_cast<bool>(owner);
                          *owner;
                      }) {
            using Result = detail::Projected<Projection, std::remove_cvref_t<decltype(*owner)>>;
            detail::must_be_readable<Result>();
            if constexpr (detail::Readable<Result>)
                return detail::make_getter<Result>([pointer = &owner, projection](std::string& storage) {
                    return *pointer ? detail::keep(detail::project(projection, **pointer), storage) : Value();
                });
            else
                return {};
        } else if constexpr (std::is_member_object_pointer_v<Projection>) {
            return watch(owner.*projection);
        } else {
            using Result = detail::Projected<Projection, Bare>;
            detail::must_be_readable<Result>();
            if constexpr (detail::Readable<Result>)
                return detail::make_getter<Result>([object = &owner, projection](std::string& storage) {
                    return detail::keep(detail::project(projection, *object), storage);
                });
            else
                return {};
        }
    }
}

/// Binds a source to the entry of a list (a vector, a `std::array`, an array) at an index that is itself live:
/// `watch(villages, in_danger, &Village::name)`. Beyond the list there is no value. List and index must outlive the HUD; a fixed
/// entry is `watch(list[1])`.
template <class List, class Index, class Projection>
requires detail::Indexed<List, Index> Source watch(List&& list, Index&& index, Projection projection) {
    static_assert(std::is_lvalue_reference_v<List>,
                  "rapido::watch needs a list that outlives the HUD, and this one is a temporary: keep it in "
                  "a variable, or "
                  "give a callable");
    static_assert(std::is_lvalue_reference_v<Index>,
                  "rapido::watch needs an index that is a variable, which is read in each update: for a "
                  "fixed entry write "
                  "rapido::watch(list[1])");
    using Constant = const std::remove_reference_t<List>;
    using Entry = std::remove_cvref_t<decltype(std::declval<Constant&>()[std::size_t{}])>;
    using Result = detail::Projected<Projection, Entry>;
    detail::must_be_readable<Result>();
    if constexpr (detail::Readable<Result>)
        return detail::make_getter<Result>(
            [list = static_cast<Constant*>(&list), index = &index, projection](std::string& storage) {
                if constexpr (std::is_signed_v<std::remove_cvref_t<Index>>)
                    if (*index < 0) return Value();
                const auto at = static_cast<std::size_t>(*index);
                if (at >= std::size(*list)) return Value();
                return detail::keep(detail::project(projection, (*list)[at]), storage);
            });
    else
        return {};
}
template <class List, class Index>
requires detail::Indexed<List, Index> Source watch(List&& list, Index&& index) {
    return watch(std::forward<List>(list), std::forward<Index>(index), std::identity{});
}

}  // namespace rapido
