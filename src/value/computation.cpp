#include "value/computation.hpp"

#include <algorithm>
#include <cmath>
#include <limits>

#include "base/fields.hpp"

namespace rapido {
namespace {

using detail::Operation;
using Type = Value::Type;

bool is_comparison(Operation operation) {
    return operation >= Operation::less && operation <= Operation::unequal;
}
bool is_logic(Operation operation) {
    return operation == Operation::both || operation == Operation::either || operation == Operation::opposite;
}
bool is_test(Operation operation) {
    return is_comparison(operation) || is_logic(operation) || operation == Operation::absent ||
           operation == Operation::present;
}
Value compared(Operation operation, const Value& a, const Value& b) {
    if (!a.has_value() || !b.has_value()) return Value(false);
    const bool texts = a.type() == Type::text && b.type() == Type::text;
    const bool numbers = a.is_number() && b.is_number();
    if (numbers && (std::isnan(a.number()) || std::isnan(b.number()))) return Value(operation == Operation::unequal);
    // A text and a number are not equal, and neither is less.
    const bool below = texts ? a.text() < b.text() : numbers && less(a, b);
    const bool above = texts ? a.text() > b.text() : numbers && less(b, a);
    const bool same = (texts || numbers) && !below && !above;
    switch (operation) {
        case Operation::less:
            return Value(below);
        case Operation::less_or_equal:
            return Value(below || same);
        case Operation::greater:
            return Value(above);
        case Operation::greater_or_equal:
            return Value(above || same);
        case Operation::equal:
            return Value(same);
        default:
            return Value(!same);
    }
}

/// Whole numbers, as long as they stay in the range of 64 bits; no value for a division by zero, nothing where they do not fit.
std::optional<Value> of_integers(Operation operation, std::int64_t a, std::int64_t b) {
    std::int64_t result = 0;
    switch (operation) {
        case Operation::sum:
            return __builtin_add_overflow(a, b, &result) ? std::nullopt : std::optional(Value(result));
        case Operation::difference:
            return __builtin_sub_overflow(a, b, &result) ? std::nullopt : std::optional(Value(result));
        case Operation::product:
            return __builtin_mul_overflow(a, b, &result) ? std::nullopt : std::optional(Value(result));
        case Operation::remainder:
            if (b == 0) return Value();
            if (b == -1) return Value(std::int64_t{0});
            result = a % b;
            return Value(result != 0 && (result < 0) != (b < 0) ? result + b : result);
        default:
            return std::nullopt;
    }
}

double of_reals(Operation operation, double a, double b) {
    switch (operation) {
        case Operation::sum:
            return a + b;
        case Operation::difference:
            return a - b;
        case Operation::product:
            return a * b;
        case Operation::quotient:
            return a / b;
        default:
            return a - b * std::floor(a / b);
    }
}

/// What fits in 64 bits with a sign.
std::optional<std::int64_t> integer_of(const Value& value) {
    if (value.type() == Type::int64) return value.int64();
    if (value.type() == Type::flag) return value.flag() ? 1 : 0;
    const bool fits = value.type() == Type::uint64 &&
                      value.uint64() <= static_cast<std::uint64_t>(std::numeric_limits<std::int64_t>::max());
    return fits ? std::optional(static_cast<std::int64_t>(value.uint64())) : std::nullopt;
}

/// Whether the result of an operation on times is a time. Beside one a number is seconds; a product of a time and a number is a time,
/// and a quotient of two times is none.
bool gives_time(Operation operation, bool first, bool second) {
    if (operation == Operation::product) return first != second;
    if (operation == Operation::quotient) return first && !second;
    return first || second;
}

Value of_numbers(Operation operation, const Value& a, const Value& b) {
    if (!a.is_number() || !b.is_number()) return {};
    const bool divides = operation == Operation::quotient || operation == Operation::remainder;
    if (divides && b.number() == 0) return {};
    const bool first = a.type() == Type::duration, second = b.type() == Type::duration;
    if (first && second && operation != Operation::quotient && operation != Operation::product) {
        const auto exact = of_integers(operation, a.duration().count(), b.duration().count());
        return exact && exact->has_value() ? Value(Nanoseconds{exact->int64()}) : exact.value_or(Value());
    }
    if (!first && !second) {
        const std::optional<std::int64_t> whole = integer_of(a), other = integer_of(b);
        if (whole && other)
            if (const auto exact = of_integers(operation, *whole, *other)) return *exact;
    }
    const double result = of_reals(operation, a.number(), b.number());
    if (gives_time(operation, first, second)) return std::isnan(result) ? Value() : Value(Seconds{result});
    // Floats stay floats, as their texts have fewer digits.
    const bool is_float = (a.type() == Type::float32 || !a.is_real()) && (b.type() == Type::float32 || !b.is_real());
    const bool has_float = a.type() == Type::float32 || b.type() == Type::float32;
    return is_float && has_float ? Value(static_cast<float>(result)) : Value(result);
}

Value negative_of(const Value& value) {
    if (value.type() == Type::duration)
        return Value(Nanoseconds{-std::max<std::int64_t>(value.duration().count(), -INT64_MAX)});
    if (value.type() == Type::float32) return Value(static_cast<float>(-value.real()));
    if (value.is_real()) return Value(-value.real());
    return of_numbers(Operation::difference, Value(std::int64_t{0}), value);
}

}  // namespace

std::size_t operands_of(Operation operation) {
    if (operation == Operation::leaf || operation == Operation::constant || operation == Operation::since) return 0;
    const bool is_of_one = operation == Operation::opposite || operation == Operation::negative ||
                           operation == Operation::magnitude || operation == Operation::absent ||
                           operation == Operation::present;
    return is_of_one ? 1 : 2;
}

Value computed(Operation operation, const Value& a, const Value& b) {
    switch (operation) {
        case Operation::both:
            return Value(a.truth() && b.truth());
        case Operation::either:
            return Value(a.truth() || b.truth());
        case Operation::opposite:
            return Value(!a.truth());
        case Operation::absent:
            return Value(!a.has_value());
        case Operation::present:
            return Value(a.has_value());
        case Operation::negative:
            return a.is_number() ? negative_of(a) : Value();
        case Operation::magnitude:
            return a.is_number() && a.number() < 0 ? negative_of(a) : a.is_number() ? a : Value();
        case Operation::least:
            return !a.is_number() || !b.is_number() ? Value() : less(b, a) ? b : a;
        case Operation::greatest:
            return !a.is_number() || !b.is_number() ? Value() : less(a, b) ? b : a;
        case Operation::leaf:
        case Operation::constant:
        case Operation::since:
            return a;
        default:
            return is_comparison(operation) ? compared(operation, a, b) : of_numbers(operation, a, b);
    }
}

namespace detail {

std::size_t Computation::terms() const {
    return static_cast<std::size_t>(
        std::count_if(steps.begin(), steps.end(), [](const Step& step) { return operands_of(step.operation) == 0; }));
}

Value Computation::result(std::span<const Value> of_leaves, std::span<const Value> since_changes) const {
    if (is_too_large) return {};
    std::array<Value, most_depth> stack;
    std::size_t size = 0;
    for (const Step& step : steps) {
        if (step.operation == Operation::leaf) {
            stack[size++] = of_leaves[step.index];
        } else if (step.operation == Operation::since) {
            stack[size++] = since_changes[step.index];
        } else if (step.operation == Operation::constant) {
            stack[size++] = values[step.index].get();
        } else if (operands_of(step.operation) == 1) {
            stack[size - 1] = computed(step.operation, stack[size - 1]);
        } else {
            --size;
            stack[size - 1] = computed(step.operation, stack[size - 1], stack[size]);
        }
    }
    return stack[0];
}

std::optional<Value::Type> Computation::type() const {
    using Known = std::optional<Value::Type>;
    if (is_too_large) return std::nullopt;
    const auto is_whole = [](const Known& type) { return type == Type::int64 || type == Type::flag; };
    std::array<Known, most_depth> stack;
    std::size_t size = 0;
    for (const Step& step : steps) {
        const std::size_t taken = operands_of(step.operation);
        if (taken == 0) {
            stack[size++] = step.operation == Operation::leaf       ? leaves[step.index].type()
                            : step.operation == Operation::constant ? Known(values[step.index].get().type())
                                                                    : Known(Type::duration);
            continue;
        }
        if (taken == 2) --size;
        Known& first = stack[size - 1];
        const Known second = taken == 2 ? stack[size] : first;
        if (is_test(step.operation))
            first = Type::flag;
        else if (first == Type::text || second == Type::text)
            first = Type::none;
        else if (!first || !second)
            first = std::nullopt;
        else if (first == Type::duration || second == Type::duration)
            first = gives_time(step.operation, first == Type::duration, second == Type::duration) ? Type::duration
                                                                                                  : Type::float64;
        else if (step.operation == Operation::quotient || !is_whole(first) || !is_whole(second))
            first = first == second && step.operation != Operation::quotient && first != Type::uint64
                        ? first
                        : Known(Type::float64);
        else
            first = Type::int64;
    }
    // What is not sure to stay whole may be either.
    return stack[0];
}

bool Computation::has_since() const {
    return std::any_of(steps.begin(), steps.end(), [](const Step& step) { return step.operation == Operation::since; });
}

std::string Computation::notation(const std::function<std::string(const Binding&)>& leaf, bool* is_exact) const {
    struct Written {
        std::string text;
        int strength;
        Type type = Type::none;  ///< of a constant
    };
    constexpr int whole = 9;
    std::vector<Written> stack;
    const auto inside = [](const Written& part, int strength) {
        return part.strength < strength ? "(" + part.text + ")" : part.text;
    };
    // A time is written in seconds, and so it can be compared, and be a divisor.
    const auto use = [is_exact](Operation operation, const Written& part) {
        const bool is_inexact = part.type == Type::duration || part.type == Type::float32;
        if (is_exact != nullptr && is_inexact && !is_test(operation)) *is_exact = false;
    };
    const auto constant = [](const Value& value) {
        std::string text;
        if (value.type() == Type::text) {
            for (const char c : value.text())
                text += c == '\'' ? "''" : std::string(1, c);
            return "'" + text + "'";
        }
        if (value.type() == Type::flag) return std::string(value.flag() ? "true" : "false");
        if (value.type() == Type::int64) return std::to_string(value.int64());
        if (value.type() == Type::uint64) return std::to_string(value.uint64());
        text = plain_number(value.number());
        return value.is_real() && text.find_first_of(".e") == std::string::npos ? text + ".0" : text;
    };
    for (const Step& step : steps) {
        const std::size_t taken = operands_of(step.operation);
        if (taken == 0) {
            const std::string text =
                step.operation == Operation::constant ? constant(values[step.index].get()) : leaf(leaves[step.index]);
            stack.push_back({step.operation == Operation::since ? "since(" + text + ")" : text,
                             text.starts_with('-') ? sign_strength : whole,
                             step.operation == Operation::constant ? values[step.index].get().type() : Type::none});
            continue;
        }
        const Written last = std::move(stack.back());
        stack.pop_back();
        const bool is_in_seconds = step.operation == Operation::quotient && last.type == Type::duration;
        if (!is_in_seconds) use(step.operation, last);
        if (step.operation == Operation::opposite) {
            stack.push_back({"not " + inside(last, not_strength), not_strength});
        } else if (step.operation == Operation::negative) {
            stack.push_back({"-" + inside(last, sign_strength + 1), sign_strength});
        } else if (step.operation == Operation::magnitude) {
            stack.push_back({"abs(" + last.text + ")", whole});
        } else if (step.operation == Operation::absent || step.operation == Operation::present) {
            stack.push_back({inside(last, 5) + (step.operation == Operation::absent ? " == none" : " != none"), 4});
        } else {
            const Written first = std::move(stack.back());
            stack.pop_back();
            use(step.operation, first);
            if (is_in_seconds) {
                const std::string in_seconds = "seconds(" + first.text + ")";
                const bool is_one = last.text == "1";
                stack.push_back({is_one ? in_seconds : in_seconds + " / " + last.text, is_one ? whole : 6});
                continue;
            }
            if (step.operation == Operation::least || step.operation == Operation::greatest) {
                const std::string name = step.operation == Operation::least ? "min(" : "max(";
                stack.push_back({name + first.text + ", " + last.text + ")", whole});
                continue;
            }
            const auto written = std::find_if(notations.begin(), notations.end(),
                                              [&](const Notation& known) { return known.operation == step.operation; });
            // From left to right; comparisons do not stand in a row.
            const int left = written->strength == 4 ? 5 : written->strength;
            stack.push_back(
                {inside(first, left) + " " + std::string(written->sign) + " " + inside(last, written->strength + 1),
                 written->strength});
        }
    }
    return stack.empty() ? std::string() : stack.back().text;
}

}  // namespace detail
}  // namespace rapido
