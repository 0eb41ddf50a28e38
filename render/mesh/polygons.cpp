// Polygons with smooth edges, as triangles: their inside, and a fringe of a pixel around it in which they fade.
#include <algorithm>
#include <cmath>
#include <utility>

#include "draw/arc.hpp"
#include "render/mesh/group_maker.hpp"

namespace rapido {
namespace {

/// Half of the fringe: as far as an edge that goes along the pixels covers those beside it.
constexpr float half = 0.5F;
/// What turns more (the cosine of the angle) has a corner of its own in the fringe: two points on its outer side.
constexpr float blunt = 0.85F;
/// What lies so near to each other is one point.
constexpr float same = 1.0F / 256;

bool is_same(Point a, Point b) {
    return std::abs(a.x - b.x) <= same && std::abs(a.y - b.y) <= same;
}

/// Twice the area of a triangle, positive where it goes round clockwise on the screen.
float area_of(Point a, Point b, Point c) {
    return (b.x - a.x) * (c.y - a.y) - (b.y - a.y) * (c.x - a.x);
}

/// The outer side of an edge of an outline that goes round clockwise.
Point normal_of(Point from, Point to) {
    const float x = to.x - from.x, y = to.y - from.y;
    const float length = std::sqrt(x * x + y * y);
    return {y / length, -x / length};
}

float distance(Point a, Point b) {
    return (a.x - b.x) * (a.x - b.x) + (a.y - b.y) * (a.y - b.y);
}

}  // namespace

/// Takes the corners, clockwise, without those that lie on each other, and without ways to a point and back. False where there is no area.
bool SmoothPolygon::take(std::span<const Point> given) {
    corners_.clear();
    float area = 0;
    for (const Point& point : given) {
        if (!corners_.empty() && is_same(corners_.back(), point)) continue;
        if (corners_.size() > 1 && is_same(corners_[corners_.size() - 2], point))
            corners_.pop_back();
        else
            corners_.push_back(point);
    }
    while (corners_.size() > 2 && is_same(corners_.back(), corners_.front()))
        corners_.pop_back();
    if (corners_.size() > 2 && is_same(corners_[corners_.size() - 2], corners_.front()))
        corners_.resize(corners_.size() - 2);
    if (corners_.size() < 3 || corners_.size() > most) return false;
    for (std::size_t i = 2; i < corners_.size(); ++i)
        area += area_of(corners_[0], corners_[i - 1], corners_[i]);
    if (area < 0) std::reverse(corners_.begin(), corners_.end());
    return std::abs(area) > 0.5F;
}

/// A closed ring is cut open: it comes back to its first corner, and goes from there to the hole and back. Sets the last corner of the
/// outline, or the number of corners where it is not cut.
void SmoothPolygon::find_cut() {
    const std::size_t count = corners_.size();
    cut_ = count;
    for (std::size_t i = 3; i + 4 < count; ++i)
        if (is_same(corners_[i], corners_[0]) && is_same(corners_[i + 1], corners_[count - 1])) cut_ = i;
}

/// The points of the rim: where the polygon is whole, and where nothing of it is left.
void SmoothPolygon::make_rim() {
    const std::size_t count = corners_.size();
    const bool is_cut = cut_ < count;
    normals_.clear();
    for (std::size_t i = 0; i < count; ++i)
        normals_.push_back(normal_of(corners_[i], corners_[i + 1 < count ? i + 1 : 0]));
    if (is_cut) {
        normals_[cut_] = normals_[0];
        normals_[count - 1] = normals_[cut_ + 1];
    }
    rim_.clear();
    for (std::size_t i = 0; i < count; ++i) {
        std::size_t before = i > 0 ? i - 1 : count - 1;
        if (is_cut && i == 0) before = cut_ - 1;
        if (is_cut && i == cut_ + 1) before = count - 2;
        const bool ends = is_cut && (i == cut_ || i == count - 1);
        const Point at = corners_[i], a = normals_[before], b = normals_[i];
        const float along = a.x * b.x + a.y * b.y;
        const float length = half / std::max(1 + along, 1e-4F);
        const Point mitre{(a.x + b.x) * length, (a.y + b.y) * length};
        const Point inner{at.x - mitre.x, at.y - mitre.y}, outer{at.x + mitre.x, at.y + mitre.y};
        if (along > blunt) {
            rim_.push_back({inner, outer, !ends});
        } else if (a.x * b.y - a.y * b.x > 0) {
            rim_.push_back({inner, {at.x + a.x * half, at.y + a.y * half}, true});
            rim_.push_back({inner, {at.x + b.x * half, at.y + b.y * half}, !ends});
        } else {
            rim_.push_back({{at.x - a.x * half, at.y - a.y * half}, outer, true});
            rim_.push_back({{at.x - b.x * half, at.y - b.y * half}, outer, !ends});
        }
    }
    inside_.clear();
    for (const Rim& rim : rim_)
        if (inside_.empty() || !(inside_.back() == rim.inner)) inside_.push_back(rim.inner);
    if (cut_ == count && inside_.size() > 1 && inside_.front() == inside_.back()) inside_.pop_back();
}

/// Triangles from both ends of the outline at once, each of them the narrower one: of a band along a line, of all that bulges.
bool SmoothPolygon::close_up() {
    triangles_.clear();
    std::size_t first = 0, last = inside_.size() - 1;
    while (last - first > 1) {
        const Point a = inside_[first], b = inside_[first + 1], c = inside_[last - 1], d = inside_[last];
        const float by_first = area_of(a, b, d), by_last = area_of(a, c, d);
        const bool first_goes = by_last < 0 || (by_first >= 0 && distance(b, d) <= distance(a, c));
        if ((first_goes ? by_first : by_last) < 0) return false;
        if (first_goes)
            triangles_.push_back({a, b, d, false}), ++first;
        else
            triangles_.push_back({a, c, d, true}), --last;
    }
    return true;
}

/// Triangles around the middle.
bool SmoothPolygon::fan_out() {
    if (cut_ < corners_.size()) return false;
    double x = 0, y = 0, whole = 0;
    for (std::size_t i = 2; i < inside_.size(); ++i) {
        const auto area = static_cast<double>(area_of(inside_[0], inside_[i - 1], inside_[i]));
        x += area * static_cast<double>(inside_[0].x + inside_[i - 1].x + inside_[i].x);
        y += area * static_cast<double>(inside_[0].y + inside_[i - 1].y + inside_[i].y);
        whole += area;
    }
    if (!(whole > 0.5)) return false;
    middle_ = {static_cast<float>(x / (3 * whole)), static_cast<float>(y / (3 * whole))};
    for (std::size_t i = 0; i < inside_.size(); ++i)
        if (area_of(middle_, inside_[i], inside_[i + 1 < inside_.size() ? i + 1 : 0]) < 0) return false;
    return true;
}

namespace {

/// Clockwise from the left; no point of a corner is further than a twentieth of a pixel from the circle at a scale.
void add_rounded(std::vector<Point>& points, const Rect& rect, float radius, float scale) {
    const float left = rect.x + radius, right = rect.right() - radius;
    const float top = rect.y + radius, bottom = rect.bottom() - radius;
    float from = 270;
    for (const Point middle : {Point{left, top}, Point{right, top}, Point{right, bottom}, Point{left, bottom}}) {
        append_circle(points, middle, radius, from, from + 90, 0.05F / scale);
        from += 90;
    }
}

}  // namespace

/// Adds a rectangle with round corners, or a line along its inside, that is turned or larger or smaller.
bool GroupMaker::add_box(const Rect& rect, float radius, float thickness, const DisplayItem& item, const Bounds& clip) {
    std::vector<Point>& points = atlas_.polygon.outline;
    points.clear();
    add_rounded(points, rect, radius, scale_);
    if (thickness > 0 && 2 * thickness < std::min(rect.width, rect.height)) {
        points.push_back(points.front());
        const std::size_t hole = points.size();
        add_rounded(points, rect.inset({thickness, thickness, thickness, thickness}),
                    std::max(radius - thickness, 0.0F), scale_);
        std::reverse(points.begin() + static_cast<std::ptrdiff_t>(hole), points.end());
        points.push_back(points[hole]);
    } else if (clip.right < everywhere.right) {
        std::vector<Point>& room = atlas_.polygon.device;
        for (const auto& [first, last] : {std::pair(clip.top, clip.bottom), std::pair(clip.left, clip.right)}) {
            cut_polygon(points, {.level = first}, false, room);
            cut_polygon(room, {.level = last}, true, points);
            for (Point& point : points)
                std::swap(point.x, point.y);
        }
    }
    return add_polygon(points, item);
}

/// Adds a polygon that neither crosses itself nor is thinner than a pixel; false, and nothing, where that cannot be seen at once.
bool GroupMaker::add_polygon(std::span<const Point> points, const DisplayItem& item) {
    SmoothPolygon& polygon = atlas_.polygon;
    polygon.device.clear();
    for (const Point& point : points)
        polygon.device.push_back(moved(point));
    if (!polygon.take(polygon.device)) return false;
    polygon.find_cut();
    polygon.make_rim();
    const std::span<const Point> inside = polygon.inside();
    if (inside.size() < 3) return false;
    const std::array<std::uint8_t, 4> whole = seen(item.color, 1), nothing{};
    const auto color = [&](Point at) { return item.has_gradient ? seen(color_at(item, at), 1) : whole; };
    const std::span<const SmoothPolygon::Rim> rim = polygon.rim();
    const std::size_t first = into_.vertices.size();
    const auto add = [&](Point a, Point b, Point c, Point d) {
        for (const Point at : {a, b, c, d})
            into_.vertices.push_back({at, atlas_.white, color(at)});
    };
    if (polygon.close_up()) {
        const auto triangles = polygon.triangles();
        for (std::size_t i = 0; i < triangles.size(); ++i) {
            const SmoothPolygon::Triangle& one = triangles[i];
            // The edge to the next one is the one from the end that has just gone on to the other end.
            const Point left = one.is_last ? one.a : one.b, right = one.is_last ? one.b : one.c;
            const Point own = one.is_last ? one.c : one.a;
            if (i + 1 == triangles.size()) {
                add(own, left, right, right);
                break;
            }
            const SmoothPolygon::Triangle& next = triangles[++i];
            add(own, left, right, next.b);
        }
    } else if (polygon.fan_out()) {
        const Point middle = polygon.middle();
        for (std::size_t i = 0; i < inside.size(); i += 2) {
            const Point a = inside[i], b = inside[i + 1 < inside.size() ? i + 1 : 0];
            add(a, b, middle, i + 1 < inside.size() ? inside[i + 2 < inside.size() ? i + 2 : 0] : middle);
        }
    } else {
        return false;
    }
    for (std::size_t i = 0; i < rim.size(); ++i) {
        if (!rim[i].goes_on) continue;
        const SmoothPolygon::Rim &a = rim[i], &b = rim[i + 1 < rim.size() ? i + 1 : 0];
        into_.vertices.push_back({a.outer, atlas_.white, nothing});
        into_.vertices.push_back({b.outer, atlas_.white, nothing});
        into_.vertices.push_back({a.inner, atlas_.white, color(a.inner)});
        into_.vertices.push_back({b.inner, atlas_.white, color(b.inner)});
    }
    begin_quads(0, (into_.vertices.size() - first) / 4);
    return true;
}

}  // namespace rapido
