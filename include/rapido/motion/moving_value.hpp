// A value of any type on its way to its target.
#pragma once

#include "rapido/motion/flight.hpp"
#include "rapido/value/value.hpp"

namespace rapido {

/// Keeps the target exactly, in its own type, and only the distance to it as a double: an integer lands on
/// the integer, over the whole range of 64 bits. Texts, booleans and "no value" change at once; a text is a
/// view, as in `Value`. Moments must not go back.
class MovingValue {
 public:
    /// Is at `value`, at rest.
    void snap(Value value);
    /// Travels there from where it is at `now`, by the motion for the way that it has to go; at once where
    /// there was no value, or one of another type.
    void set_target(Value target, Nanoseconds now, const Motions& motions);

    /// Where it is. An integer or a duration in flight is the target minus or plus the remaining distance
    /// rounded up: it starts on the old value and reaches the target only at the end.
    Value at(Nanoseconds now) const;
    /// The same as a double, between the integers, too; NaN for a text and for no value.
    double number_at(Nanoseconds now) const;
    const Value& target() const { return target_; }
    bool resting(Nanoseconds now) const { return flight_.resting(now); }

 private:
    Value target_;
    Value origin_;  ///< what was shown when the flight began
    Flight flight_;
};

}  // namespace rapido
