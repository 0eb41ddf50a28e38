// The way to a target, as a function of time.
#pragma once

#include "rapido/motion/motion.hpp"

namespace rapido {

/// How far the shown value still is from its target, and how that distance closes. Positive is above the
/// target. Everything is a function of the time since the last target, never a sum over frames.
///
/// From rest the motion's easing shapes the flight. In mid-flight position and velocity go on: a target ahead
/// is reached by a cubic Hermite curve whose duration is cut to 3 |distance| / |velocity| where needed, the
/// longest that is monotone (Fritsch and Carlson 1980, end slope zero), so that it never passes the target. A
/// target behind is reached by braking with constant deceleration, for a quarter of the duration at most and
/// never beyond where the flight would have ended, and a flight from rest after that.
class Flight {
 public:
    /// The target moved at `now`, so that the distance to it grew by `shift` (old target minus new target).
    void retarget(double shift, Nanoseconds now, const Motion& motion);
    /// At the target, at rest.
    void land() { *this = Flight{}; }

    double distance(Nanoseconds now) const;
    /// The change of `distance` in units a second; zero at rest.
    double velocity(Nanoseconds now) const;
    bool resting(Nanoseconds now) const { return now >= end_; }
    Nanoseconds start() const { return start_; }

 private:
    enum class Curve : std::uint8_t { easing, hermite };

    /// How far it will still go the way it goes now.
    double run_out(Nanoseconds now) const;

    Curve curve_ = Curve::easing;
    Easing easing_;
    Nanoseconds start_{0};
    Nanoseconds end_{Nanoseconds::min()};
    double distance_ = 0;       ///< at the start
    double velocity_ = 0;       ///< at the start, units a second
    double brake_ = 0;          ///< seconds of braking before the easing begins
    double travel_ = 0;         ///< seconds of the curve itself
    double turn_distance_ = 0;  ///< where the easing begins: the distance at the end of braking
};

}  // namespace rapido
