#include "rapido/time/countdown.hpp"

namespace rapido {

Countdown::Countdown(Seconds duration) : duration_(std::max(to_nanoseconds(duration), Nanoseconds::zero())) {}

void Countdown::start() {
    clock_ = Clock{};
    state_ = State::running;
}

void Countdown::pause() {
    if (state_ == State::running) state_ = State::paused;
}

void Countdown::resume() {
    if (state_ == State::paused) state_ = State::running;
}

void Countdown::reset() {
    clock_ = Clock{};
    state_ = State::stopped;
}

std::optional<Seconds> Countdown::advance(Seconds step) {
    if (state_ != State::running || !clock_.advance(step)) return std::nullopt;
    const Nanoseconds overshoot = clock_.now() - duration_;
    if (overshoot < Nanoseconds::zero()) return std::nullopt;
    state_ = State::ended;
    return to_seconds(overshoot);
}

Nanoseconds Countdown::elapsed() const {
    return std::min(clock_.now(), duration_);
}

}  // namespace rapido
