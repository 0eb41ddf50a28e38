// The way to a target, as a function of time.
#pragma once

#include "rapido/base/exported.hpp"
#include "rapido/motion/motion.hpp"

namespace rapido RAPIDO_EXPORTED {

/// How far the shown value still is from its target, and how that distance closes. Positive is above the
/// target. Everything is a function of the time since the last target, never a sum over frames.
///
/// From rest the motion's easing shapes the flight of a tween or a roll. In mid-flight position and velocity
/// go on: a target ahead is reached by a cubic Hermite curve whose duration is cut to 3 |distance| /
/// |velocity| where needed, the longest that is monotone (Fritsch and Carlson 1980, end slope zero), so that
/// it never passes the target. A target behind is reached by braking with constant deceleration, for a quarter
/// of the duration at most and never beyond where the flight would have turned, and a flight from rest after
/// that.
///
/// A spring is the exact solution of x'' + 2 r w x' + w^2 x = 0, r the damping ratio, from any position and
/// velocity; it may pass its target where it arrives fast or is damped less than critically. It lands when it
/// can never again be further away than a millionth of its flight, or than `grain`.
class Flight {
 public:
    /// How distances relate to the value.
    struct Scale {
        double unit =
            1;  ///< one unit of the value, which a roll counts: 1e9 where a distance counts nanoseconds of a duration
        double grain = 0;  ///< the smallest distance that is seen: a spring lands when less is left
    };

    /// Moves the target at `now`, so that the distance to it grows by `shift`, the old target minus the new one.
    void retarget(double shift, Nanoseconds now, const Motion& motion, Scale scale = {1, 0});
    /// Ends the flight: the value is at its target, at rest.
    void land() { end_ = (Nanoseconds::min)(); }

    double distance(Nanoseconds now) const { return resting(now) ? 0 : distance_in_flight(now); }
    /// Returns the change of `distance` in units a second, zero at rest.
    double velocity(Nanoseconds now) const;
    bool resting(Nanoseconds now) const { return now >= end_; }
    Nanoseconds start() const { return start_; }
    /// Returns when it ends, or has ended.
    Nanoseconds end() const { return end_; }

 private:
    enum class Curve : std::uint8_t { easing, hermite, spring };

    double distance_in_flight(Nanoseconds now) const;
    void launch_spring(double from, double speed, const Motion& motion, double grain);
    void launch_curve(double from, double speed, double room, double duration);
    /// How far it would still go away from a target behind it, if that were nothing to it.
    double run_out(Nanoseconds now) const;
    double spring_at(double t, bool derivative) const;

    // What a spring in flight needs comes first, so that it lies together.
    Nanoseconds end_{(Nanoseconds::min)()};
    Nanoseconds start_{0};
    double distance_ = 0;   ///< at the start
    double follow_up_ = 0;  ///< factor of a spring's second solution
    double decay_ = 0;      ///< rate of a spring's envelope, 1/s
    double swing_ = 0;      ///< angular frequency if it swings; minus the rate of the sinh if it creeps; else 0
    Curve curve_ = Curve::easing;
    double velocity_ = 0;       ///< at the start, units a second
    double brake_ = 0;          ///< seconds of braking before the easing begins
    double travel_ = 0;         ///< seconds of the curve itself
    double turn_distance_ = 0;  ///< where the easing begins: the distance at the end of braking
    double settling_ = 0;       ///< of the spring that the constants are known for
    double damping_ = 0;
    double natural_ = 0;  ///< its undamped angular frequency, radians a second
    Easing easing_;
};

}  // namespace rapido
