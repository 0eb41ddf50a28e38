// What is computed from sources: a small program over their values.
#pragma once

#include <array>
#include <functional>
#include <span>
#include <string>
#include <string_view>
#include <vector>

#include "rapido/base/exported.hpp"
#include "rapido/value/detail/binding.hpp"
#include "rapido/value/kept_value.hpp"

namespace rapido RAPIDO_EXPORTED {

/// How an operation is written in a file, and how tightly it binds: higher ones first.
struct Notation {
    detail::Operation operation;
    std::string_view sign;
    int strength;
};
/// Those with an operand on each side.
inline constexpr std::array<Notation, 13> notations{{
    {detail::Operation::either, "or", 1},
    {detail::Operation::both, "and", 2},
    {detail::Operation::equal, "==", 4},
    {detail::Operation::unequal, "!=", 4},
    {detail::Operation::less_or_equal, "<=", 4},
    {detail::Operation::greater_or_equal, ">=", 4},
    {detail::Operation::less, "<", 4},
    {detail::Operation::greater, ">", 4},
    {detail::Operation::sum, "+", 5},
    {detail::Operation::difference, "-", 5},
    {detail::Operation::product, "*", 6},
    {detail::Operation::quotient, "/", 6},
    {detail::Operation::remainder, "%", 6},
}};
/// Of `not`, and of a minus in front.
inline constexpr int not_strength = 3, sign_strength = 7;

namespace detail {

/// Steps that put the value of a leaf, or a constant, on a stack, or replace the last one or two by a result.
struct Computation {
    static constexpr std::size_t most_terms = 64, most_depth = 16;

    struct Step {
        Operation operation;
        std::uint8_t index = 0;  ///< of a leaf, or of a constant
        friend bool operator==(const Step&, const Step&) = default;
    };
    std::vector<Binding> leaves;    ///< what is read; none of them is computed
    std::vector<KeptValue> values;  ///< constants
    std::vector<Step> steps;
    std::size_t depth = 1;      ///< of the stack
    bool is_too_large = false;  ///< more than so many terms, or deeper; then it is not whole

    /// How many names and constants stand in it, each as often as it does.
    std::size_t terms() const;
    /// Gives the result for the values of the leaves, in their order, and for how long ago each of them has changed.
    Value result(std::span<const Value> of_leaves, std::span<const Value> since_changes) const;
    /// The type that it gives, where that is known from those of the leaves.
    std::optional<Value::Type> type() const;
    /// Whether it lets time pass.
    bool has_since() const;
    /// Writes it as files do; `leaf` gives the text of a leaf. Not exact is what a file cannot say: a constant time that is added or
    /// multiplied, and a `float`.
    std::string notation(const std::function<std::string(const Binding&)>& leaf, bool* is_exact = nullptr) const;
    friend bool operator==(const Computation&, const Computation&) = default;
};

}  // namespace detail

/// How many values an operation takes.
std::size_t operands_of(detail::Operation operation);
/// One operation on values: see `docs/conditions.md` for what each of them means.
Value computed(detail::Operation operation, const Value& a, const Value& b = {});

}  // namespace rapido
