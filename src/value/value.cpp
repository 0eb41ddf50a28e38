#include "rapido/value/value.hpp"

#include <algorithm>
#include <cmath>
#include <limits>

namespace rapido {

__extension__ using Wide = __int128;

double Value::other_number() const {
    switch (type_) {
        case Type::flag:
        case Type::int64:
            return static_cast<double>(integer_);
        case Type::uint64:
            return static_cast<double>(natural_);
        case Type::float32:
        case Type::float64:
            return real_;
        case Type::duration:
            return to_seconds(duration()).count();
        case Type::none:
        case Type::text:
            break;
    }
    return std::numeric_limits<double>::quiet_NaN();
}

bool Value::truth() const {
    if (type_ == Type::text) return size_ != 0;
    if (is_real()) return real_ < 0 || real_ > 0;
    return type_ != Type::none && integer_ != 0;
}

Value amount_like(const Value& example, double amount) {
    switch (example.type()) {
        case Value::Type::int64:
            return Value(static_cast<std::int64_t>(std::clamp(std::nearbyint(amount), -9.2e18, 9.2e18)));
        case Value::Type::uint64:
            return Value(static_cast<std::uint64_t>(std::clamp(std::nearbyint(amount), 0.0, 1.8e19)));
        case Value::Type::float32:
            return Value(static_cast<float>(amount));
        case Value::Type::float64:
            return Value(amount);
        case Value::Type::duration:
            return Value(to_nanoseconds(Seconds{amount}));
        default:
            return example;
    }
}

bool less(const Value& a, const Value& b) {
    if (!a.is_integer() || !b.is_integer()) return a.number() < b.number();
    const bool a_negative = a.type() == Value::Type::int64 && a.int64() < 0;
    const bool b_negative = b.type() == Value::Type::int64 && b.int64() < 0;
    if (a_negative != b_negative) return a_negative;
    return a_negative ? a.int64() < b.int64() : a.uint64() < b.uint64();
}

Value difference(const Value& a, const Value& b) {
    if (!a.is_number() || !b.is_number()) return {};
    if (a.type() == Value::Type::duration && b.type() == Value::Type::duration) {
        const Nanoseconds gap = a.duration() > b.duration() ? Nanoseconds::max() : Nanoseconds::min();
        std::int64_t nanoseconds = 0;
        return __builtin_sub_overflow(a.duration().count(), b.duration().count(), &nanoseconds)
                   ? gap
                   : Nanoseconds{nanoseconds};
    }
    if (a.is_integer() && b.is_integer()) {
        const auto wide = [](const Value& value) {
            return value.type() == Value::Type::uint64 ? Wide{value.uint64()} : Wide{value.int64()};
        };
        const Wide gap = wide(a) - wide(b);
        if (gap >= std::numeric_limits<std::int64_t>::min() && gap <= std::numeric_limits<std::int64_t>::max())
            return Value(static_cast<std::int64_t>(gap));
        if (gap > 0 && gap <= std::numeric_limits<std::uint64_t>::max()) return Value(static_cast<std::uint64_t>(gap));
    }
    return Value(a.number() - b.number());
}

std::string_view to_string(Value::Type type) {
    switch (type) {
        case Value::Type::none:
            return "no value";
        case Value::Type::flag:
            return "flag";
        case Value::Type::int64:
        case Value::Type::uint64:
            return "integer";
        case Value::Type::float32:
        case Value::Type::float64:
            return "number";
        case Value::Type::text:
            return "text";
        case Value::Type::duration:
            return "duration";
    }
    return "no value";
}

}  // namespace rapido
