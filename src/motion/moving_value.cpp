#include "rapido/motion/moving_value.hpp"

#include <algorithm>
#include <cmath>
#include <limits>

namespace rapido {
namespace {

/// a - b as a double, each 64-bit integer taken whole.
template <class Integer>
double difference(Integer a, Integer b) {
    const auto gap = [](Integer large, Integer small) {
        return static_cast<double>(static_cast<std::uint64_t>(large) - static_cast<std::uint64_t>(small));
    };
    return a >= b ? gap(a, b) : -gap(b, a);
}

/// target + distance, the distance rounded away from zero, limited to the range of the type.
template <class Integer>
Integer away_from(Integer target, double distance) {
    using Limits = std::numeric_limits<Integer>;
    // A distance that is whole but for the rounding of its formula counts as whole; there is always one step
    // to go.
    constexpr double formula_error = 1e-12;
    const double steps = std::max(1.0, std::ceil(std::abs(distance) * (1 - formula_error)));
    const auto bits = static_cast<std::uint64_t>(target);
    const std::uint64_t room = distance > 0 ? static_cast<std::uint64_t>(Limits::max()) - bits
                                            : bits - static_cast<std::uint64_t>(Limits::min());
    if (steps >= 18446744073709551616.0 || static_cast<std::uint64_t>(steps) > room)
        return distance > 0 ? Limits::max() : Limits::min();
    const auto count = static_cast<std::uint64_t>(steps);
    return static_cast<Integer>(distance > 0 ? bits + count : bits - count);
}

bool travels(const Value& value) {
    return value.is_integer() || value.is_real() || value.type() == Value::Type::duration;
}

}  // namespace

void MovingValue::snap(Value value) {
    target_ = origin_ = start_ = value;
    flight_.land();
}

void MovingValue::set_target(Value target, Nanoseconds now, const Motions& motions) {
    if (target.type() != target_.type() || !travels(target)) return snap(target);
    double shift = 0;
    // A spring lands where less than one step is left; a millisecond of a duration is one.
    Flight::Scale scale{.unit = 1, .grain = 1};
    if (target.type() == Value::Type::uint64) {
        shift = difference(target_.uint64(), target.uint64());
    } else if (target.is_real()) {
        shift = target_.real() - target.real();
        scale.grain = 0;
    } else {
        shift = difference(target_.int64(), target.int64());
        if (target.type() == Value::Type::duration) scale = {.unit = 1e9, .grain = 1e6};
    }
    cycle_ = std::isfinite(motions.cycle) && motions.cycle > 0 ? motions.cycle : 0;
    const double unit = target.type() == Value::Type::duration ? 1e9 : 1;
    // The shorter way round: the distance to the target is half a cycle at most.
    if (cycle_ > 0) {
        const double way = flight_.distance(now) + shift;
        shift -= std::round(way / (cycle_ * unit)) * cycle_ * unit;
    }
    const Motion& motion = motions.towards(flight_.distance(now) + shift < 0);
    if (motion.kind == MotionKind::instant) return snap(target);
    if (flight_.resting(now)) start_ = target_;
    origin_ = at(now);
    flight_.retarget(shift, now, motion, scale);
    target_ = target;
}

Value MovingValue::at(Nanoseconds now) const {
    if (flight_.resting(now)) return target_;
    return now <= flight_.start() ? origin_ : in_flight(flight_.distance(now));
}

MovingValue::Position MovingValue::position(Nanoseconds now) const {
    if (flight_.resting(now)) return {target_, target_.number()};
    const double distance = flight_.distance(now);
    if (now <= flight_.start()) return {origin_, number_in_flight(distance)};
    const Value value = in_flight(distance);
    return {value, cycle_ > 0 ? value.number() : number_in_flight(distance)};
}

Value MovingValue::in_flight(double distance) const {
    if (cycle_ > 0) return in_cycle(distance);
    switch (target_.type()) {
        case Value::Type::int64:
            return Value(away_from(target_.int64(), distance));
        case Value::Type::uint64:
            return Value(away_from(target_.uint64(), distance));
        case Value::Type::duration:
            return Value(Nanoseconds{away_from(target_.duration().count(), distance)});
        case Value::Type::float32:
            return Value(static_cast<float>(target_.real() + distance));
        default:
            return Value(target_.real() + distance);
    }
}

/// The value in flight where values come round again. Integers that are so counted are far from the limits of a double.
Value MovingValue::in_cycle(double distance) const {
    const bool is_duration = target_.type() == Value::Type::duration;
    const double length = cycle_ * (is_duration ? 1e9 : 1);
    const double target = is_duration ? static_cast<double>(target_.duration().count()) : target_.number();
    const double start = is_duration && start_.type() == target_.type() ? static_cast<double>(start_.duration().count())
                                                                        : start_.number();
    const double lowest = target < 0 || start < 0 ? -length / 2 : 0;
    const auto inside = [&](double value) { return value - std::floor((value - lowest) / length) * length; };
    // As everywhere: a whole number that is on its way has not arrived.
    const double whole = distance > 0 ? std::ceil(distance) : std::floor(distance);
    switch (target_.type()) {
        case Value::Type::int64:
            return Value(static_cast<std::int64_t>(inside(target + whole)));
        case Value::Type::uint64:
            return Value(static_cast<std::uint64_t>(inside(target + whole)));
        case Value::Type::duration:
            return Value(Nanoseconds{static_cast<std::int64_t>(inside(target + whole))});
        case Value::Type::float32:
            return Value(static_cast<float>(inside(target + distance)));
        default:
            return Value(inside(target + distance));
    }
}

double MovingValue::number_at(Nanoseconds now) const {
    if (flight_.resting(now)) return target_.number();
    if (cycle_ > 0 && now > flight_.start()) return at(now).number();
    return number_in_flight(flight_.distance(now));
}

double MovingValue::number_in_flight(double distance) const {
    const bool is_duration = target_.type() == Value::Type::duration;
    return target_.number() + (is_duration ? distance / 1e9 : distance);
}

}  // namespace rapido
