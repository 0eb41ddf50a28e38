#include "rapido/pace/interval.hpp"

#include <algorithm>
#include <cmath>

#include "base/instants.hpp"

namespace rapido {
Interval::Interval(Seconds interval, Pick kind)
    : interval_(std::max(to_nanoseconds(interval), Nanoseconds{1000})), kind_(kind) {}

Nanoseconds Interval::start_of(Nanoseconds now) const {
    // The end of a window belongs to it.
    return grid_before(now, interval_);
}

void Interval::begin(Nanoseconds start) {
    start_ = since_ = start;
    area_ = 0;
    counted_ = Nanoseconds{0};
    const Value value = value_.get();
    least_ = most_ = value.is_number() ? value : Value();
    mixed_ = false;
}

/// The time up to now counts for the value that has held; the time of what is no number does not count at all.
void Interval::count(Nanoseconds now) {
    const double amount = value_.get().number();
    if (!std::isfinite(amount)) return;
    area_ += amount * static_cast<double>((now - since_).count());
    counted_ += now - since_;
}

void Interval::set(const Value& value, Nanoseconds now) {
    if (!has_news() && start_of(now) != start_) begin(start_of(now));
    count(now);
    since_ = now;
    value_ = value;
    mixed_ = true;
    if (less(value, least_)) least_ = value;
    if (less(most_, value)) most_ = value;
}

void Interval::reset(const Value& value, Nanoseconds now) {
    value_ = value;
    given_ = value;
    begin(start_of(now));
    since_ = now;
}

std::optional<Nanoseconds> Interval::due() const {
    if (!has_news()) return std::nullopt;
    return start_ + interval_;
}

Value Interval::result(Nanoseconds end) {
    const Value value = value_.get();
    if (!mixed_ || kind_ == Pick::last || !value.is_number()) return value;
    if (kind_ == Pick::minimum) return least_;
    if (kind_ == Pick::maximum) return most_;
    if (!std::isfinite(value.number())) return value;
    count(end);
    since_ = end;
    const auto counted = static_cast<double>(counted_.count());
    return counted > 0 ? amount_like(value, area_ / counted) : value;
}

std::optional<TimedValue> Interval::take(Nanoseconds now) {
    while (const std::optional<Nanoseconds> end = due()) {
        if (*end > now) return std::nullopt;
        const Value given = result(*end);
        const bool is_news = !(given == given_.get());
        given_ = given;
        begin(*end);
        if (is_news) return TimedValue{*end, given_.get()};
    }
    return std::nullopt;
}

}  // namespace rapido
