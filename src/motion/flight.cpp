#include "rapido/motion/flight.hpp"

#include <algorithm>
#include <cmath>

#include "base/instants.hpp"
#include "motion/elementary.hpp"
#include "motion/spring.hpp"

namespace rapido {
namespace {

/// Braking may take this part of the motion's duration at most: longer feels like not having noticed.
constexpr double longest_brake = 0.25;

/// A spring that is never again further away than this part of its flight has landed.
constexpr double spring_end = 1e-6;

/// Once per value in flight and frame: a product is several times faster than a quotient.
double seconds(Nanoseconds time) {
    return static_cast<double>(time.count()) * 1e-9;
}

/// How long a roll takes: even for each tenfold jump.
double roll_duration(double jump, const Motion& motion) {
    const double longest = motion.length().count();
    const double shortest = std::min(motion.shortest.count(), longest);
    const double longest_way = logarithm(std::max(motion.full_duration_at, 1.0));
    const double part = longest_way > 0 ? logarithm(std::max(jump, 1.0)) / longest_way : 1;
    return shortest + (longest - shortest) * std::min(part, 1.0);
}

}  // namespace

/// x(t) = e^(-decay t) (distance C + follow_up S) with C and S the cosine and sine, or their hyperbolic twins, or 1
/// and t.
double Flight::spring_at(double t, bool derivative) const {
    const double k = follow_up_;
    if (swing_ == 0) {
        const double fade = exponential(-decay_ * t);
        return derivative ? fade * (k - decay_ * (distance_ + k * t)) : fade * (distance_ + k * t);
    }
    if (swing_ > 0) {
        const double fade = exponential(-decay_ * t);
        const auto [s, c] = sine_cosine(swing_ * t);
        if (!derivative) return fade * (distance_ * c + k * s);
        return fade * ((k * swing_ - decay_ * distance_) * c - (distance_ * swing_ + decay_ * k) * s);
    }
    // Two exponentials, as the hyperbolic functions alone would overflow.
    const double slow_rate = -decay_ - swing_;
    const double fast_rate = -decay_ + swing_;
    const double slow = (distance_ + k) / 2 * exponential(slow_rate * t);
    const double fast = (distance_ - k) / 2 * exponential(fast_rate * t);
    return derivative ? slow_rate * slow + fast_rate * fast : slow + fast;
}

double Flight::distance_in_flight(Nanoseconds now) const {
    if (now <= start_) return distance_;
    const double t = seconds(now - start_);
    if (curve_ == Curve::spring) return spring_at(t, false);
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
    const double t = seconds(now - start_);
    if (curve_ == Curve::spring) return spring_at(t, true);
    if (curve_ == Curve::hermite) {
        const double s = t / travel_;
        return distance_ * (6 * s - 6) * s / travel_ + velocity_ * ((3 * s - 4) * s + 1);
    }
    if (t < brake_) return velocity_ * (1 - t / brake_);
    return -turn_distance_ * easing_.slope((t - brake_) / travel_) / travel_;
}

double Flight::run_out(Nanoseconds now) const {
    const double t = seconds(now - start_);
    if (curve_ == Curve::spring) {
        const double x = distance(now);
        const double v = std::abs(velocity(now));
        // Towards its target it goes that far at least. Away from it, it is slowed down by no more than this.
        if (x * velocity(now) < 0) return std::abs(x);
        const double slowing = natural_ * natural_ * (std::abs(x) + v / natural_) + 2 * decay_ * v;
        return slowing > 0 ? v * v / (2 * slowing) : 0;
    }
    if (curve_ == Curve::hermite) return std::abs(distance(now));
    if (t < brake_) return std::abs(velocity_) * (brake_ - t) * (brake_ - t) / (2 * brake_);
    const double progress = (t - brake_) / travel_;
    return std::abs(turn_distance_ * (easing_.turn(progress) - easing_.at(progress)));
}

void Flight::retarget(double shift, Nanoseconds now, const Motion& motion, Scale scale) {
    const double from = distance(now) + shift;
    const double speed = velocity(now);
    const double room = resting(now) ? 0 : run_out(now);
    const double duration =
        motion.kind == MotionKind::roll ? roll_duration(std::abs(from) / scale.unit, motion) : motion.length().count();
    land();
    if (motion.kind == MotionKind::instant || !(duration > 0) || !std::isfinite(from)) return;
    if (from == 0 && speed == 0) return;

    start_ = now;
    distance_ = from;
    velocity_ = speed;
    brake_ = 0;
    if (motion.kind == MotionKind::spring) {
        launch_spring(from, speed, motion, scale.grain);
    } else {
        if (!(easing_ == motion.easing)) easing_ = motion.easing;
        launch_curve(from, speed, room, duration);
    }
    end_ = saturated_sum(start_, to_nanoseconds(Seconds{brake_ + travel_}));
    // A flight shorter than a nanosecond has no time in which to be anywhere else.
    if (end_ <= start_) land();
}

void Flight::launch_curve(double from, double speed, double room, double duration) {
    curve_ = Curve::easing;
    turn_distance_ = from;
    travel_ = duration;
    if (from * speed < 0) {
        curve_ = Curve::hermite;
        travel_ = std::min(duration, 3 * std::abs(from) / std::abs(speed));
    } else if (speed != 0) {
        brake_ = std::min(duration * longest_brake, 2 * room / std::abs(speed));
        turn_distance_ = from + speed * brake_ / 2;
    }
}

void Flight::launch_spring(double from, double speed, const Motion& motion, double grain) {
    curve_ = Curve::spring;
    if (motion.length().count() != settling_ || static_cast<double>(motion.damping) != damping_) {
        settling_ = motion.length().count();
        damping_ = static_cast<double>(motion.damping);
        const double ratio = std::clamp(damping_, 0.05, 20.0);
        natural_ = settling_product(ratio) / settling_;
        decay_ = ratio * natural_;
        const double root = std::sqrt(std::abs(1 - ratio * ratio));
        swing_ = root < 1e-5 ? 0 : (ratio < 1 ? root : -root) * natural_;
    }
    follow_up_ = speed + decay_ * from;
    if (swing_ != 0) follow_up_ /= std::abs(swing_);

    // The envelope of the rest of the flight falls to `least` at the end.
    const double reach = std::abs(from) + std::abs(speed) / natural_;
    const double least = std::max(reach * spring_end, grain);
    if (swing_ > 0) {
        const double large = std::max(std::abs(from), std::abs(follow_up_));
        const double other = std::min(std::abs(from), std::abs(follow_up_)) / large;
        travel_ = logarithm(large * std::sqrt(1 + other * other) / least) / decay_;
    } else if (swing_ < 0) {
        travel_ = logarithm((std::abs(from) + std::abs(follow_up_)) / least) / (decay_ + swing_);
    } else {
        // (|from| + |follow_up| t) e^(-decay t) = least, by fixed-point steps from below; from its peak on it
        // falls.
        const double peak = 1 / decay_;
        travel_ = peak;
        for (int i = 0; i < 12; ++i)
            travel_ = std::max(peak, logarithm((std::abs(from) + std::abs(follow_up_) * travel_) / least) / decay_);
    }
    travel_ = std::max(travel_, 0.0);
}

}  // namespace rapido
