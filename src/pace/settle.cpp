#include "rapido/pace/settle.hpp"

#include <algorithm>

namespace rapido {

Settle::Settle(Seconds quiet, Seconds cap)
    : quiet_(to_nanoseconds(quiet)), cap_(to_nanoseconds(cap > Seconds{0} ? cap : 4 * quiet)) {}

void Settle::set(const Value& value, Nanoseconds now) {
    if (!waits_) first_ = now;
    waits_ = true;
    last_ = now;
    waiting_ = value;
}

std::optional<Nanoseconds> Settle::due() const {
    if (!waits_) return std::nullopt;
    return std::max(last_, std::min(last_ + quiet_, first_ + cap_));
}

std::optional<TimedValue> Settle::take(Nanoseconds now) {
    const std::optional<Nanoseconds> at = due();
    if (!at || *at > now) return std::nullopt;
    waits_ = false;
    return TimedValue{*at, waiting_.get()};
}

}  // namespace rapido
