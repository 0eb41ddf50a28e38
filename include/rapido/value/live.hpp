// A value that tells of its changes, and of its end.
#pragma once

#include "rapido/base/exported.hpp"
#include "rapido/value/watch.hpp"

namespace rapido RAPIDO_EXPORTED {

/// A value that may die before the HUD that shows it: it then turns into "no value". A HUD does not compare it but looks at a
/// counter of its changes. It belongs to one thread.
///
///     rapido::Live<int> health{100};
///     hud.add(rapido::Bar{.id = "health", .value = rapido::watch(health), .max = 100});
///     health -= 20;
template <Showable T>
class Live {
 public:
    explicit Live(T value = {}) : cell_(std::make_shared<Cell>(std::move(value))) {}
    ~Live() { end(); }
    /// Elements that show `other` show this one from now on; `other` is then like a new one, which nothing shows.
    Live(Live&& other) noexcept = default;
    /// Does the same; elements that showed this one show "no value".
    Live& operator=(Live&& other) noexcept {
        if (this == &other) return *this;
        end();
        cell_ = std::move(other.cell_);
        return *this;
    }
    Live(const Live&) = delete;
    Live& operator=(const Live&) = delete;

    const T& get() const { return cell().value; }
    operator const T&() const { return get(); }

    void set(T value) {
        cell().value = std::move(value);
        ++cell().version;
    }
    /// Sets the value as given: wherever it is shown there is no motion, no gain or loss and no event.
    void snap(T value) {
        ++cell().snap_count;
        set(std::move(value));
    }
    Live& operator=(T value) {
        set(std::move(value));
        return *this;
    }
    template <class Change>
    Live& operator+=(const Change& change) {
        set(static_cast<T>(get() + change));
        return *this;
    }
    template <class Change>
    Live& operator-=(const Change& change) {
        set(static_cast<T>(get() - change));
        return *this;
    }

 private:
    template <Showable U>
    friend Source watch(const Live<U>& live);

    struct Cell final : detail::Getter {
        explicit Cell(T first) : value(std::move(first)) {}
        Value read(std::string&) const override { return alive ? detail::to_value(value) : Value(); }
        std::uint32_t snaps() const override { return snap_count; }

        T value;
        bool alive = true;
        std::uint32_t version = 0;
        std::uint32_t snap_count = 0;
    };
    Cell& cell() const {
        if (cell_ == nullptr) [[unlikely]]
            cell_ = std::make_shared<Cell>(T{});
        return *cell_;
    }
    void end() noexcept {
        if (cell_ == nullptr) return;
        cell_->alive = false;
        ++cell_->version;
    }

    mutable std::shared_ptr<Cell> cell_;  ///< null where it was moved from
};

template <Showable T>
Source watch(const Live<T>& live) {
    const std::uint32_t& version = live.cell().version;
    return Source(detail::Binding::getter(live.cell_, detail::type_of<T>(), &version));
}
template <Showable T>
Source watch(Live<T>& live) {
    return watch(std::as_const(live));
}

}  // namespace rapido
