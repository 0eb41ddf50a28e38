#include "rapido/motion/flight.hpp"

#include <algorithm>
#include <cmath>

namespace rapido {
namespace {

/// Braking may take this part of the motion's duration at most: longer feels like not having noticed.
constexpr double longest_brake = 0.25;

}  // namespace

double Flight::distance(Nanoseconds now) const {
    if (resting(now)) return 0;
    const double t = to_seconds(now - start_).count();
    if (curve_ == Curve::hermite) {
        const double s = t / travel_;
        return distance_ * ((2 * s - 3) * s * s + 1) + velocity_ * travel_ * (((s - 2) * s + 1) * s);
    }
    if (t < brake_) return distance_ + velocity_ * (t - t * t / (2 * brake_));
    return turn_distance_ * (1 - easing_.at((t - brake_) / travel_));
}

double Flight::velocity(Nanoseconds now) const {
    if (resting(now)) return 0;
    // Nothing has moved yet: what counts is how it was launched, not the first slope of the curve.
    if (now <= start_) return velocity_;
    const double t = to_seconds(now - start_).count();
    if (curve_ == Curve::hermite) {
        const double s = t / travel_;
        return distance_ * (6 * s - 6) * s / travel_ + velocity_ * ((3 * s - 4) * s + 1);
    }
    if (t < brake_) return velocity_ * (1 - t / brake_);
    return -turn_distance_ * easing_.slope((t - brake_) / travel_) / travel_;
}

double Flight::run_out(Nanoseconds now) const {
    const double t = to_seconds(now - start_).count();
    if (t < brake_) return std::abs(velocity_) * (brake_ - t) * (brake_ - t) / (2 * brake_);
    return std::abs(distance(now));
}

void Flight::retarget(double shift, Nanoseconds now, const Motion& motion) {
    const double from = distance(now) + shift;
    const double speed = velocity(now);
    const double room = resting(now) ? 0 : run_out(now);
    const double duration = motion.duration.count();
    *this = Flight{};
    if (motion.kind == MotionKind::instant || !(duration > 0) || !std::isfinite(from)) return;
    if (from == 0 && speed == 0) return;

    easing_ = motion.easing;
    start_ = now;
    distance_ = turn_distance_ = from;
    velocity_ = speed;
    travel_ = duration;
    if (from * speed < 0) {
        curve_ = Curve::hermite;
        travel_ = std::min(duration, 3 * std::abs(from) / std::abs(speed));
    } else if (speed != 0) {
        brake_ = std::min(duration * longest_brake, 2 * room / std::abs(speed));
        turn_distance_ = from + speed * brake_ / 2;
    }
    end_ = start_ + to_nanoseconds(Seconds{brake_ + travel_});
    // A flight shorter than a nanosecond has no time in which to be anywhere else.
    if (end_ <= start_) land();
}

}  // namespace rapido
