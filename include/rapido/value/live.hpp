// A value that tells of its changes, and of its end.
#pragma once

#include "rapido/value/watch.hpp"

namespace rapido {

/// A value that may die before the HUD that shows it: it then turns into "no value". It is told rather than
/// compared: a HUD looks at a counter of its changes. One thread.
///
///     rapido::Live<int> health{100};
///     hud.add(rapido::Bar{.id = "health", .value = rapido::watch(health), .max = 100});
///     health -= 20;
template <Showable T>
class Live {
 public:
    explicit Live(T value = {}) : cell_(std::make_shared<Cell>(std::move(value))) {}
    ~Live() {
        if (cell_ == nullptr) return;
        cell_->alive = false;
        ++cell_->version;
    }
    Live(Live&&) noexcept = default;
    Live& operator=(Live&& other) noexcept {
        std::swap(cell_, other.cell_);
        return *this;
    }
    Live(const Live&) = delete;
    Live& operator=(const Live&) = delete;

    const T& get() const { return cell_->value; }
    operator const T&() const { return get(); }

    void set(T value) {
        cell_->value = std::move(value);
        ++cell_->version;
    }
    /// Sets it as given: no motion, no gain or loss, no event, wherever it is shown.
    void snap(T value) {
        ++cell_->snap_count;
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

    struct Cell final : Getter {
        explicit Cell(T first) : value(std::move(first)) {}
        Value read(std::string&) const override { return alive ? detail::to_value(value) : Value(); }
        std::uint32_t snaps() const override { return snap_count; }

        T value;
        bool alive = true;
        std::uint32_t version = 0;
        std::uint32_t snap_count = 0;
    };
    std::shared_ptr<Cell> cell_;
};

template <Showable T>
Source watch(const Live<T>& live) {
    return Source::getter(live.cell_, detail::type_of<T>(), &live.cell_->version);
}
template <Showable T>
Source watch(Live<T>& live) {
    return watch(std::as_const(live));
}

}  // namespace rapido
