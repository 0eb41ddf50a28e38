// When a shown value may change, as a description says it.
#pragma once

#include "rapido/base/exported.hpp"
#include "rapido/value/value.hpp"

namespace rapido RAPIDO_EXPORTED {

/// Which value passes at the end of an interval.
enum class Pick : std::uint8_t {
    last,     ///< the value at the end of the interval
    average,  ///< the average over time; that of integers is rounded to the nearest integer
    minimum,
    maximum,
};

/// The stages of pace, in the order in which a value passes them. Zero switches a stage off. Some values always pass at once:
/// the first value, a value of another type, "no value", zero, and a value at or above the maximum. When the source has been
/// quiet for half a second, the truth passes, neither quantized nor held back.
struct Pace {
    Seconds settle{0};           ///< a change passes when the value has been quiet for so long: many become one
    Seconds settle_cap{0};       ///< or when the first of them has waited for so long; zero is four times `settle`
    Seconds interval{0};         ///< changes pass at multiples of it on the real clock
    Pick pick = Pick::last;      ///< which of the values in the interval passes
    double quantize = 0;         ///< the nearest multiple of this passes, in units of the value
    double smallest_change = 0;  ///< a smaller one is held back, in units of the value
    friend RAPIDO_EXPORTED bool operator==(const Pace&, const Pace&);
};

/// A value and the time since which it holds.
struct TimedValue {
    Nanoseconds time{0};
    Value value{};
};

/// Returns the nearest multiple of `step`, ties to the even one, in the value's own type; a duration counts in seconds.
/// An amount that is not zero becomes at least one step, and an amount below its maximum stays below it; if no multiple lies
/// between, the amount is returned as it is. Texts, flags, and a step that is not positive and
/// finite change nothing.
Value quantize(const Value& value, double step, const Value& max = {});

}  // namespace rapido
