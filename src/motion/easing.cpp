#include "rapido/motion/easing.hpp"

#include <algorithm>
#include <array>
#include <cmath>

namespace rapido {
namespace {

/// One coordinate of a cubic Bezier curve from 0 to 1, in Horner form, and its derivative.
struct Cubic {
    double a, b, c;
    Cubic(double first, double second) : a(1 + 3 * first - 3 * second), b(3 * second - 6 * first), c(3 * first) {}
    double at(double t) const { return ((a * t + b) * t + c) * t; }
    double slope(double t) const { return (3 * a * t + 2 * b) * t + c; }
    double bend(double t) const { return 6 * a * t + 2 * b; }
};

/// How often a curve of so many steps jumps (CSS Easing Functions, step easing functions).
int jumps_of(int count, Easing::JumpTerm term) {
    if (term == Easing::JumpTerm::jump_none) return count - 1;
    return term == Easing::JumpTerm::jump_both ? count + 1 : count;
}

}  // namespace

Easing::Easing(const Easing&) noexcept = default;
Easing::Easing(Easing&&) noexcept = default;
Easing& Easing::operator=(const Easing&) noexcept = default;
Easing& Easing::operator=(Easing&&) noexcept = default;
Easing::~Easing() = default;

Easing Easing::ease() noexcept {
    return cubic_bezier(0.25, 0.1, 0.25, 1.0);
}
Easing Easing::ease_in() noexcept {
    return cubic_bezier(0.42, 0.0, 1.0, 1.0);
}
Easing Easing::ease_out() noexcept {
    return cubic_bezier(0.0, 0.0, 0.58, 1.0);
}
Easing Easing::ease_in_out() noexcept {
    return cubic_bezier(0.42, 0.0, 0.58, 1.0);
}

Easing Easing::cubic_bezier(double x1, double y1, double x2, double y2) noexcept {
    const auto finite = [](double number) { return std::isfinite(number) ? number : 0; };
    Easing made;
    made.curve_ = Curve::bezier;
    made.x1_ = std::clamp(finite(x1), 0.0, 1.0);
    made.y1_ = finite(y1);
    made.x2_ = std::clamp(finite(x2), 0.0, 1.0);
    made.y2_ = finite(y2);
    return made;
}

Easing Easing::steps(int count, JumpTerm term) {
    Easing made;
    made.curve_ = Curve::steps;
    made.term_ = term;
    made.count_ = std::max(count, term == JumpTerm::jump_none ? 2 : 1);
    return made;
}

Easing Easing::linear(std::vector<Stop> stops) {
    Easing made;
    if (stops.size() < 2) return made;
    made.curve_ = Curve::stops;
    for (std::size_t i = 1; i < stops.size(); ++i)
        stops[i].input = std::max(stops[i].input, stops[i - 1].input);
    made.stops_ = std::make_shared<const std::vector<Stop>>(std::move(stops));
    return made;
}

bool Easing::has_jumps() const {
    if (curve_ != Curve::stops) return curve_ == Curve::steps;
    for (std::size_t i = 1; i < stops_->size(); ++i)
        if ((*stops_)[i].input == (*stops_)[i - 1].input && (*stops_)[i].output != (*stops_)[i - 1].output) return true;
    return false;
}

bool operator==(const Easing& a, const Easing& b) {
    if (a.curve_ != b.curve_) return false;
    switch (a.curve_) {
        case Easing::Curve::line:
            return true;
        case Easing::Curve::bezier:
            return a.x1_ == b.x1_ && a.y1_ == b.y1_ && a.x2_ == b.x2_ && a.y2_ == b.y2_;
        case Easing::Curve::steps:
            return a.count_ == b.count_ && a.term_ == b.term_;
        case Easing::Curve::stops:
            return *a.stops_ == *b.stops_;
    }
    return false;
}

double Easing::parameter(double progress) const {
    const Cubic x(x1_, x2_);
    // x rises from 0 to 1 without turning. Halley's method, which triples the digits with each step, is there after three on most curves.
    double t = progress;
    for (int i = 0; i < 4; ++i) {
        const double miss = x.at(t) - progress;
        const double slope = x.slope(t);
        if (!(slope > 1e-3)) break;
        const double step = 2 * miss * slope / (2 * slope * slope - miss * x.bend(t));
        t -= step;
        if (!(t >= 0 && t <= 1)) break;
        // So near, that step was as good as exact.
        if (std::abs(step) < 2e-6 * slope) return t;
    }
    // Newton's method, kept inside a bracket that bisection narrows.
    double low = 0;
    double high = 1;
    t = progress;
    for (int i = 0; i < 64; ++i) {
        const double miss = x.at(t) - progress;
        (miss < 0 ? low : high) = t;
        const double slope = x.slope(t);
        const double step = slope > 1e-9 ? t - miss / slope : low - 1;
        // So near, one more step of Newton's method is as good as exact.
        if (std::abs(miss) < 1e-9 && slope > 1e-3) return std::clamp(step, 0.0, 1.0);
        const double next = step > low && step < high ? step : (low + high) / 2;
        if (next == t) break;
        t = next;
    }
    return t;
}

double Easing::at_step(double progress) const {
    const int jumps = jumps_of(count_, term_);
    const bool early = term_ == JumpTerm::jump_start || term_ == JumpTerm::jump_both;
    const double step = std::floor(progress * count_) + (early ? 1 : 0);
    return std::min(step, static_cast<double>(jumps)) / jumps;
}

std::size_t Easing::segment(double progress) const {
    const std::vector<Stop>& stops = *stops_;
    const auto after = std::upper_bound(stops.begin(), stops.end(), progress,
                                        [](double input, const Stop& stop) { return input < stop.input; });
    const auto index = static_cast<std::size_t>(after - stops.begin());
    // Before the first and behind the last stop the outermost lines go on.
    return std::min(index == 0 ? 0 : index - 1, stops.size() - 2);
}

double Easing::at(double progress) const {
    progress = progress > 0 ? std::min(progress, 1.0) : 0;
    switch (curve_) {
        case Curve::line:
            return progress;
        case Curve::bezier:
            if (progress == 0 || progress == 1) return progress;
            return Cubic(y1_, y2_).at(parameter(progress));
        case Curve::steps:
            return at_step(progress);
        case Curve::stops:
            break;
    }
    const std::vector<Stop>& stops = *stops_;
    const auto after = std::upper_bound(stops.begin(), stops.end(), progress,
                                        [](double input, const Stop& stop) { return input < stop.input; });
    // On a stop it has the output of the last stop there.
    if (after != stops.begin() && (after - 1)->input == progress) return (after - 1)->output;
    const Stop& a = stops[segment(progress)];
    const Stop& b = stops[segment(progress) + 1];
    if (a.input == b.input) return after == stops.begin() ? a.output : b.output;
    return a.output + (b.output - a.output) * (progress - a.input) / (b.input - a.input);
}

double Easing::slope(double progress) const {
    progress = std::clamp(progress, 0.0, 1.0);
    if (curve_ == Curve::line) return 1;
    if (curve_ == Curve::steps) return 0;
    if (curve_ == Curve::stops) {
        const Stop& a = (*stops_)[segment(progress)];
        const Stop& b = (*stops_)[segment(progress) + 1];
        return a.input == b.input ? 0 : (b.output - a.output) / (b.input - a.input);
    }
    const double t = parameter(progress);
    const Cubic x(x1_, x2_);
    const Cubic y(y1_, y2_);
    // Where a control point lies on its end point both derivatives vanish there: look a little further
    // inside.
    constexpr double inside = 1e-6;
    if (x.slope(t) > 1e-9) return y.slope(t) / x.slope(t);
    const double near = t < 0.5 ? t + inside : t - inside;
    return y.slope(near) / x.slope(near);
}

double Easing::turn(double progress) const {
    if (curve_ == Curve::bezier) {
        // Where the derivative of y is zero: 3 a t^2 + 2 b t + c = 0.
        const Cubic y(y1_, y2_);
        const double from = parameter(std::clamp(progress, 0.0, 1.0));
        double first = 1;
        const double root = y.b * y.b - 3 * y.a * y.c;
        const auto consider = [&](double t) {
            if (t > from + 1e-12 && t < first) first = t;
        };
        if (std::abs(y.a) < 1e-12) {
            if (y.b != 0) consider(-y.c / (2 * y.b));
        } else if (root >= 0) {
            consider((-y.b - std::sqrt(root)) / (3 * y.a));
            consider((-y.b + std::sqrt(root)) / (3 * y.a));
        }
        return y.at(first);
    }
    if (curve_ != Curve::stops) return 1;
    const std::vector<Stop>& stops = *stops_;
    const double way = slope(progress);
    std::size_t next = segment(progress) + 1;
    while (next + 1 < stops.size() && (stops[next + 1].output - stops[next].output) * way > 0)
        ++next;
    return stops[next].output;
}

}  // namespace rapido
