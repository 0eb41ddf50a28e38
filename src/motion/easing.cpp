#include "rapido/motion/easing.hpp"

#include <algorithm>
#include <array>
#include <cmath>
#include <utility>

namespace rapido {
namespace {

constexpr std::array<std::string_view, 5> names{"linear", "ease", "ease-in", "ease-out", "ease-in-out"};

/// One coordinate of a cubic Bezier curve from 0 to 1, in Horner form, and its derivative.
struct Cubic {
    double a, b, c;
    Cubic(double first, double second)
        : a(1 + 3 * first - 3 * second), b(3 * second - 6 * first), c(3 * first) {}
    double at(double t) const { return ((a * t + b) * t + c) * t; }
    double slope(double t) const { return (3 * a * t + 2 * b) * t + c; }
};

}  // namespace

const std::string_view* Easing::begin_names() {
    return names.data();
}
const std::string_view* Easing::end_names() {
    return names.data() + names.size();
}

std::optional<Easing> Easing::parse(std::string_view text) {
    if (text == names[0]) return linear();
    if (text == names[1]) return ease();
    if (text == names[2]) return ease_in();
    if (text == names[3]) return ease_out();
    if (text == names[4]) return ease_in_out();
    return std::nullopt;
}

double Easing::parameter(double progress) const {
    const Cubic x(x1_, x2_);
    // x rises from 0 to 1 without turning: Newton's method, kept inside a bracket that bisection narrows.
    double low = 0;
    double high = 1;
    double t = progress;
    for (int i = 0; i < 64; ++i) {
        const double miss = x.at(t) - progress;
        if (std::abs(miss) < 1e-15) break;
        (miss < 0 ? low : high) = t;
        const double slope = x.slope(t);
        const double step = slope > 1e-9 ? t - miss / slope : low - 1;
        const double next = step > low && step < high ? step : (low + high) / 2;
        if (next == t) break;
        t = next;
    }
    return t;
}

double Easing::at(double progress) const {
    if (!(progress > 0)) return 0;
    if (progress >= 1) return 1;
    if (*this == Easing{}) return progress;
    return Cubic(y1_, y2_).at(parameter(progress));
}

double Easing::slope(double progress) const {
    if (*this == Easing{}) return 1;
    const double t = parameter(std::clamp(progress, 0.0, 1.0));
    const Cubic x(x1_, x2_);
    const Cubic y(y1_, y2_);
    // Where a control point lies on its end point both derivatives vanish there: look a little further
    // inside.
    constexpr double inside = 1e-6;
    if (x.slope(t) > 1e-9) return y.slope(t) / x.slope(t);
    const double near = t < 0.5 ? t + inside : t - inside;
    return y.slope(near) / x.slope(near);
}

}  // namespace rapido
