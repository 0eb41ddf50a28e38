#include "rapido/value/value.hpp"

#include <bit>
#include <limits>

namespace rapido {

double Value::number() const {
    switch (type_) {
        case Type::boolean:
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

bool operator==(const Value& a, const Value& b) {
    if (a.type_ != b.type_) return false;
    if (a.type_ == Value::Type::text) return a.text() == b.text();
    if (a.is_real()) return std::bit_cast<std::uint64_t>(a.real_) == std::bit_cast<std::uint64_t>(b.real_);
    return a.integer_ == b.integer_;
}

std::string_view to_string(Value::Type type) {
    switch (type) {
        case Value::Type::none:
            return "no value";
        case Value::Type::boolean:
            return "boolean";
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
