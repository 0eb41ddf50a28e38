#include "rapido/pace/pacer.hpp"

#include <algorithm>
#include <cmath>

namespace rapido {

Pacer::Pacer(const Pace& pace) : pace_(pace) {
    if (pace.settle > Seconds{0}) settle_.emplace(pace.settle, pace.settle_cap);
    if (pace.interval > Seconds{0}) window_.emplace(pace.interval, pace.pick);
}

void Pacer::set(const Value& value, Nanoseconds now, const Value& max, bool at_once) {
    max_ = max;
    if (value == source_.get()) return;
    source_ = value;
    before_ = last_change();
    changed_ = now;
    incoming_ = true;
    at_once_ = at_once;
}

void Pacer::snap(const Value& value, Nanoseconds now) {
    source_ = value;
    changed_ = now;
    incoming_ = false;
    pass_by(now);
}

/// Everything is at the value of the source; true if that is another one than what passed.
bool Pacer::pass_by(Nanoseconds now) {
    const Value value = source_.get();
    if (settle_) settle_->reset();
    if (window_) window_->reset(value, now);
    windowed_ = value;
    return give(value, now);
}

bool Pacer::give(const Value& value, Nanoseconds now) {
    given_at_ = now;
    if (value == passed_.get()) return false;
    passed_ = value;
    return true;
}

bool Pacer::must_pass(const Value& value) const {
    if (value.type() != passed_.get().type()) return true;
    if (!value.is_number()) return !value.has_value();
    // What is no amount is as good as no value, on its way in and out.
    if (!std::isfinite(value.number()) || !std::isfinite(passed_.get().number())) return true;
    return value.number() == 0 || (max_.number() > 0 && !less(value, max_));
}

std::optional<Nanoseconds> Pacer::rest_due() const {
    if (!(pace_.quantize > 0) && !(pace_.smallest_change > 0)) return std::nullopt;
    if (windowed_.get() == passed_.get()) return std::nullopt;
    return last_change() + rest;
}

std::optional<Nanoseconds> Pacer::next_due() const {
    std::optional<Nanoseconds> next;
    const auto consider = [&](std::optional<Nanoseconds> due) {
        if (due && (!next || *due < *next)) next = due;
    };
    if (incoming_) consider(changed_);
    if (settle_) consider(settle_->due());
    if (window_) consider(window_->due());
    consider(rest_due());
    return next;
}

bool Pacer::to_window(const Value& value, Nanoseconds now) {
    if (!window_) return filter(value, now);
    window_->set(value, now);
    return false;
}

bool Pacer::filter(const Value& value, Nanoseconds now) {
    windowed_ = value;
    // The source rests: nothing is held back any more.
    if (now >= last_change() + rest) return give(value, now);
    const Value rounded = quantize(value, pace_.quantize, max_);
    const double change = std::abs(difference(rounded, passed_.get()).number());
    if (pace_.smallest_change > 0 && change < pace_.smallest_change) return false;
    return give(rounded, now);
}

std::optional<TimedValue> Pacer::take(Nanoseconds now) {
    while (const std::optional<Nanoseconds> next = next_due()) {
        if (*next > now) break;
        bool given = false;
        // At one moment: what settled before the source changed again, the change, the end of the window, rest.
        if (settle_ && settle_->due() == next) {
            const std::optional<TimedValue> quiet = settle_->take(*next);
            given = to_window(quiet->value, quiet->time);
        } else if (incoming_ && changed_ == *next) {
            incoming_ = false;
            const Value value = source_.get();
            if (at_once_ || must_pass(value))
                given = pass_by(*next);
            else if (settle_)
                settle_->set(value, *next);
            else
                given = to_window(value, *next);
        } else if (window_ && window_->due() == next) {
            if (const std::optional<TimedValue> closed = window_->take(*next))
                given = filter(closed->value, closed->time);
        } else {
            given = give(windowed_.get(), *next);
        }
        if (given) return TimedValue{given_at_, passed_.get()};
    }
    return std::nullopt;
}

}  // namespace rapido
