// Binds places of the world to the state of a game.
#pragma once

#include <concepts>
#include <functional>
#include <limits>
#include <tuple>
#include <type_traits>
#include <utility>

#include "rapido/base/exported.hpp"
#include "rapido/base/units.hpp"
#include "rapido/value/detail/guarded.hpp"

namespace rapido RAPIDO_EXPORTED {

/// What has x, y and perhaps z, or two or three numbers by index: the vectors of a game or of a library, arrays.
template <class T>
concept Position = requires(const T& point) {
    static_cast<double>(point.x);
    static_cast<double>(point.y);
}
|| requires(const T& point) {
    static_cast<double>(point[0]);
    static_cast<double>(point[1]);
};

/// Returns a place of the game as a `WorldPoint`.
template <Position T>
WorldPoint world_point(const T& point) {
    WorldPoint made;
    if constexpr (requires { static_cast<double>(point.x); }) {
        made = {static_cast<double>(point.x), static_cast<double>(point.y), 0};
        if constexpr (requires { static_cast<double>(point.z); }) made.z = static_cast<double>(point.z);
    } else {
        made = {static_cast<double>(point[0]), static_cast<double>(point[1]), 0};
        // A vector of a library knows its size where it is compiled; an array, too.
        if constexpr (std::is_array_v<T>) {
            if constexpr (std::extent_v < T >> 2) made.z = static_cast<double>(point[2]);
        } else if constexpr (requires { std::tuple_size<T>::value; }) {
            if constexpr (std::tuple_size<T>::value > 2) made.z = static_cast<double>(point[2]);
        } else if constexpr (requires { T::RowsAtCompileTime; }) {
            if constexpr (T::RowsAtCompileTime * T::ColsAtCompileTime > 2) made.z = static_cast<double>(point[2]);
        }
    }
    return made;
}

namespace detail {

/// Nowhere, where what a game has given throws. It is made where the game is compiled, as the core is compiled without exceptions.
template <class Read>
WorldPoint guarded_place(const Read& read) {
    constexpr double nowhere = std::numeric_limits<double>::quiet_NaN();
    WorldPoint place{nowhere, nowhere, nowhere};
    guarded(nullptr, [&] { place = read(); });
    return place;
}

}  // namespace detail

/// A place that is read in each update: see `watch_position`.
class PositionSource {
 public:
    using Read = WorldPoint (*)(const void* thing);
    PositionSource(const void* thing, Read how) : thing_(thing), read_(how) {}
    template <std::invocable Call>
    explicit PositionSource(Call call) : call_([call = std::move(call)] { return detail::guarded_place(call); }) {}

    WorldPoint read() const { return read_ != nullptr ? read_(thing_) : call_(); }

 private:
    const void* thing_ = nullptr;
    Read read_ = nullptr;
    std::function<WorldPoint()> call_;
};

/// Binds a place of the world: a variable, which must live as long as what it places, or a callable, which is copied and called once in
/// an update.
template <class T>
PositionSource watch_position(T&& thing) {
    using Bare = std::remove_cvref_t<T>;
    if constexpr (Position<Bare>) {
        static_assert(std::is_lvalue_reference_v<T>,
                      "rapido::watch_position needs a variable that outlives what it places, and this one is a "
                      "temporary: keep it in a variable, or give a callable");
        return {&thing, [](const void* address) {
                    return detail::guarded_place([address] { return world_point(*static_cast<const Bare*>(address)); });
                }};
    } else {
        static_assert(std::is_invocable_v<const Bare&>,
                      "rapido::watch_position takes what has x, y and perhaps z, what has two or three numbers "
                      "by index, or a callable that returns such");
        return PositionSource([call = Bare(std::forward<T>(thing))] { return world_point(call()); });
    }
}

}  // namespace rapido
