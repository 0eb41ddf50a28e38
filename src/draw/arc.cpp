#include "draw/arc.hpp"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace rapido {

/// By the sagitta of a step: r (1 - cos(step / 2)).
void append_circle(std::vector<Point>& points, Point middle, float radius, float from, float to, float tolerance) {
    const float half = radius > tolerance ? std::acos(1 - tolerance / radius) : 1;
    const float step = half * 2 * 180 / std::numbers::pi_v<float>;
    const int count = std::clamp(static_cast<int>(std::ceil(std::abs(to - from) / step)), 1, 720);
    points.push_back(point_at(middle, radius, from));
    // Each point is the one before it, turned by the same angle; the ends are exact.
    const auto turned = static_cast<double>(to - from) / count * std::numbers::pi / 180;
    const double c = std::cos(turned), s = std::sin(turned);
    double x = static_cast<double>(points.back().x - middle.x);
    double y = static_cast<double>(points.back().y - middle.y);
    for (int i = 1; i < count; ++i) {
        const double next = x * c - y * s;
        y = x * s + y * c;
        x = next;
        points.push_back({middle.x + static_cast<float>(x), middle.y + static_cast<float>(y)});
    }
    points.push_back(point_at(middle, radius, to));
}

Point point_at(Point middle, float radius, float degrees) {
    const float turn = degrees - 360 * std::floor(degrees / 360);
    if (turn == 0) return {middle.x, middle.y - radius};
    if (turn == 90) return {middle.x + radius, middle.y};
    if (turn == 180) return {middle.x, middle.y + radius};
    if (turn == 270) return {middle.x - radius, middle.y};
    const float angle = turn * std::numbers::pi_v<float> / 180;
    return {middle.x + radius * std::sin(angle), middle.y - radius * std::cos(angle)};
}

void append_outline(const Arc& arc, std::vector<Point>& points) {
    if (!(arc.outer > 0) || arc.from == arc.to) return;
    const float inner = std::clamp(arc.inner, 0.0F, arc.outer);
    const float forwards = arc.to > arc.from ? 1.0F : -1.0F;
    const float radius = (arc.outer - inner) / 2;
    const auto add_circle = [&points](Point middle, float around, float from, float to) {
        append_circle(points, middle, around, from, to, 0.05F);
    };
    const auto add_end = [&](float at, float begin) {
        if (arc.round_ends) add_circle(point_at(arc.middle, inner + radius, at), radius, begin, begin + forwards * 180);
    };
    add_circle(arc.middle, arc.outer, arc.from, arc.to);
    add_end(arc.to, arc.to);
    add_circle(arc.middle, inner, arc.to, arc.from);
    add_end(arc.from, arc.from + 180);
}

}  // namespace rapido
