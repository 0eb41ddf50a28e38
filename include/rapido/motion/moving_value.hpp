// A value of any type on its way to its target.
#pragma once

#include "rapido/base/exported.hpp"
#include "rapido/motion/flight.hpp"
#include "rapido/value/value.hpp"

namespace rapido RAPIDO_EXPORTED {

/// The target is kept exactly, in its own type, and only the distance to it as a double, so that an integer lands on the
/// integer over the whole range of 64 bits. Texts, flags and "no value" change at once; a text is a view, as in
/// `Value`. Times that are passed in must not decrease.
class MovingValue {
 public:
    /// Puts the value at `value`, at rest.
    void snap(Value value);
    /// Lets the value travel to `target` from where it is at `now`, by the motion for the direction of that way. It is there
    /// at once if there was no value, or one of another type.
    void set_target(Value target, Nanoseconds now, const Motions& motions);

    /// Returns where the value is. An integer or a duration in flight is the target minus or plus the remaining distance
    /// rounded up: it starts on the old value and reaches the target only at the end.
    Value at(Nanoseconds now) const;
    /// Returns the same as a double, which may lie between two integers; NaN for a text and for no value.
    double number_at(Nanoseconds now) const;
    /// Both of these, for the price of one.
    struct Position {
        Value value;
        double number;
    };
    Position position(Nanoseconds now) const;
    const Value& target() const { return target_; }
    /// Returns the value at which it last was at rest.
    const Value& start() const { return start_; }
    bool resting(Nanoseconds now) const { return flight_.resting(now); }
    /// Returns when it is at its target.
    Nanoseconds lands_at() const { return flight_.end(); }

 private:
    Value in_cycle(double distance) const;
    Value in_flight(double distance) const;
    double number_in_flight(double distance) const;

    Value target_;
    Value origin_;  ///< what was shown when the flight began
    Value start_;   ///< the last one at rest
    Flight flight_;
    double cycle_ = 0;  ///< of the motions of the last target
};

}  // namespace rapido
