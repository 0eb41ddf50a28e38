#include "draw/outline.hpp"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace rapido {
namespace {

constexpr float pi = std::numbers::pi_v<float>;

/// Points of an ellipse; degrees clockwise from the top.
void add_ellipse(std::vector<Point>& points, Point middle, Point radius, float from, float to, int steps) {
    for (int i = 0; i <= steps; ++i) {
        const float angle = (from + (to - from) * static_cast<float>(i) / static_cast<float>(steps)) * pi / 180;
        points.push_back({middle.x + radius.x * std::sin(angle), middle.y - radius.y * std::cos(angle)});
    }
}

/// The left half follows the right one, which goes from the top down.
ShapeOutline symmetric(std::vector<Point> right, float aspect) {
    for (std::size_t i = right.size(); i-- > 0;)
        right.push_back({1 - right[i].x, right[i].y});
    return {std::move(right), aspect};
}

/// Drawn in a space where both ways are equally long, then stretched to the box of its aspect.
std::vector<Point> squeezed(std::vector<Point> points, float aspect) {
    for (Point& point : points)
        point.x = 0.5F + (point.x - 0.5F) / aspect;
    return points;
}

ShapeOutline circle() {
    ShapeOutline made{{}, 1};
    add_ellipse(made.points, {0.5F, 0.5F}, {0.5F, 0.5F}, 0, 360, 144);
    made.points.pop_back();
    return made;
}

/// A circle, and the tangents to it from a tip.
ShapeOutline drop() {
    constexpr float radius = 0.36F;
    constexpr float middle = 1 - radius;
    const float tangent = std::acos(radius / middle) * 180 / pi;
    std::vector<Point> right{{0.5F, 0}};
    add_ellipse(right, {0.5F, middle}, {radius, radius}, tangent, 180, 40);
    return symmetric(squeezed(std::move(right), 2 * radius), 2 * radius);
}

/// Two arcs over a point.
ShapeOutline heart() {
    std::vector<Point> right{{0.5F, 0.2F}};
    add_ellipse(right, {0.75F, 0.27F}, {0.25F, 0.27F}, -75, 108, 36);
    for (int i = 1; i <= 12; ++i) {
        const float t = static_cast<float>(i) / 12;
        const Point from = right[37];
        // A quadratic Bézier curve down to the point.
        const Point bend{0.93F, 0.62F};
        const float a = (1 - t) * (1 - t);
        const float b = 2 * t * (1 - t);
        right.push_back({a * from.x + b * bend.x + t * t * 0.5F, a * from.y + b * bend.y + t * t});
    }
    return symmetric(std::move(right), 1.06F);
}

/// A head over shoulders.
ShapeOutline person() {
    std::vector<Point> right;
    add_ellipse(right, {0.5F, 0.235F}, {0.235F, 0.235F}, 0, 158, 30);
    add_ellipse(right, {0.52F, 0.86F}, {0.36F, 0.34F}, 12, 90, 24);
    right.push_back({0.88F, 1});
    return symmetric(squeezed(std::move(right), 0.76F), 0.76F);
}

ShapeOutline flask() {
    std::vector<Point> right{{0.64F, 0}, {0.64F, 0.06F}, {0.60F, 0.09F}, {0.60F, 0.36F}};
    add_ellipse(right, {0.845F, 0.90F}, {0.1F, 0.1F}, 55, 180, 12);
    return symmetric(squeezed(std::move(right), 0.89F), 0.89F);
}

/// A tube over a bulb.
ShapeOutline thermometer() {
    constexpr float bulb = 0.17F;
    constexpr float tube = 0.09F;
    const float neck = std::asin(tube / bulb) * 180 / pi;
    std::vector<Point> right;
    add_ellipse(right, {0.5F, tube}, {tube, tube}, 0, 90, 12);
    add_ellipse(right, {0.5F, 1 - bulb}, {bulb, bulb}, neck, 180, 40);
    return symmetric(squeezed(std::move(right), 2 * bulb), 2 * bulb);
}

}  // namespace

const ShapeOutline& outline_of(Shape shape) {
    static const std::vector<ShapeOutline> outlines{
        {{{0, 0}, {1, 0}, {1, 1}, {0, 1}}, 0},
        circle(),
        {{{0.5F, 0}, {1, 0.5F}, {0.5F, 1}, {0, 0.5F}}, 0.8F},
        {{{0.5F, 0}, {1, 0.25F}, {1, 0.75F}, {0.5F, 1}, {0, 0.75F}, {0, 0.25F}}, 0.866F},
        drop(),
        heart(),
        person(),
        flask(),
        thermometer()};
    return outlines[static_cast<std::size_t>(shape)];
}

namespace {

/// Whether all between two corners lies so near to the line through them.
bool is_straight(std::span<const Point> between, Point from, Point to, float tolerance) {
    const float x = to.x - from.x, y = to.y - from.y;
    const float length = std::hypot(x, y);
    return std::all_of(between.begin(), between.end(), [&](Point point) {
        return std::abs((point.x - from.x) * y - (point.y - from.y) * x) <= tolerance * length;
    });
}

/// The left half stays the mirrored right one.
std::vector<Point> without_unseen(std::span<const Point> points, float tolerance) {
    if (points.size() <= 8) return {points.begin(), points.end()};
    const bool is_mirrored = points.front().y == points.back().y;
    if (!is_mirrored) {  // the circle
        std::size_t step = 1;
        for (const std::size_t tried : {2U})
            if (is_straight(points.subspan(1, tried - 1), points[0], points[tried], tolerance)) step = tried;
        std::vector<Point> kept;
        for (std::size_t i = 0; i < points.size(); i += step)
            kept.push_back(points[i]);
        return kept;
    }
    const std::span<const Point> right = points.first(points.size() / 2);
    std::vector<Point> kept;
    for (std::size_t i = 0; i < right.size();) {
        kept.push_back(right[i]);
        std::size_t next = i + 1;
        while (next + 1 < right.size() &&
               is_straight(right.subspan(i + 1, next - i), right[i], right[next + 1], tolerance))
            ++next;
        i = next;
    }
    return symmetric(std::move(kept), 0).points;
}

}  // namespace

std::span<const Point> corners_of(Shape shape, Size box) {
    static constexpr std::array sizes{10.0F, 14.0F, 20.0F, 28.0F, 40.0F, 56.0F, 80.0F};
    using Levels = std::array<std::vector<Point>, sizes.size()>;
    static const std::vector<Levels> shapes = [] {
        std::vector<Levels> made;
        for (int i = 0; i <= static_cast<int>(Shape::thermometer); ++i)
            for (std::size_t level = 0; level < sizes.size(); ++level) {
                if (level == 0) made.emplace_back();
                made.back()[level] = without_unseen(outline_of(static_cast<Shape>(i)).points, 0.05F / sizes[level]);
            }
        return made;
    }();
    const float size = std::max(box.width, box.height);
    for (std::size_t level = 0; level < sizes.size(); ++level)
        if (size <= sizes[level]) return shapes[static_cast<std::size_t>(shape)][level];
    return outline_of(shape).points;
}

Rect fitted_box(const Rect& box, float aspect) {
    if (!(aspect > 0) || !(box.height > 0)) return box;
    const float width = std::min(box.width, box.height * aspect);
    const float height = width / aspect;
    return {box.x + (box.width - width) / 2, box.y + (box.height - height) / 2, width, height};
}

Point Axis::from_unit(Point point) const {
    switch (direction_) {
        case Direction::up:
            return {point.x * box_.width, (1 - point.y) * box_.height};
        case Direction::down:
            return {point.x * box_.width, point.y * box_.height};
        case Direction::right:
            return {point.y * box_.height, point.x * box_.width};
        case Direction::left:
            return {point.y * box_.height, (1 - point.x) * box_.width};
    }
    return point;
}

float Axis::along_of(Point device) const {
    switch (direction_) {
        case Direction::up:
            return box_.bottom() - device.y;
        case Direction::down:
            return device.y - box_.y;
        case Direction::right:
            return device.x - box_.x;
        case Direction::left:
            return box_.right() - device.x;
    }
    return 0;
}

Rect common_part(const Rect& a, const Rect& b) {
    const float x = std::max(a.x, b.x), y = std::max(a.y, b.y);
    return {x, y, std::max(0.0F, std::min(a.right(), b.right()) - x),
            std::max(0.0F, std::min(a.bottom(), b.bottom()) - y)};
}

bool lies_in(const Rect& part, const Rect& whole) {
    constexpr float least = 1.0F / 64;
    return part.x >= whole.x - least && part.y >= whole.y - least && part.right() <= whole.right() + least &&
           part.bottom() <= whole.bottom() + least;
}

std::array<Point, 4> corners_of(const Rect& rect) {
    return {Point{rect.x, rect.y}, Point{rect.right(), rect.y}, Point{rect.right(), rect.bottom()},
            Point{rect.x, rect.bottom()}};
}

Point Axis::to_device(Point point) const {
    switch (direction_) {
        case Direction::up:
            return {box_.x + point.x, box_.bottom() - point.y};
        case Direction::down:
            return {box_.x + point.x, box_.y + point.y};
        case Direction::right:
            return {box_.x + point.y, box_.y + point.x};
        case Direction::left:
            return {box_.right() - point.y, box_.y + point.x};
    }
    return point;
}

AreaLevels::AreaLevels(std::span<const Point> outline, Direction direction) {
    const Axis axis({0, 0, 1, 1}, direction);
    std::vector<Point> points;
    std::vector<double> levels;
    for (const Point& corner : outline) {
        points.push_back(axis.from_unit(corner));
        levels.push_back(static_cast<double>(points.back().y));
    }
    std::sort(levels.begin(), levels.end());
    levels.erase(std::unique(levels.begin(), levels.end()), levels.end());
    // Between the levels of two corners the breadth changes evenly. It is the sum over all edges, those that go up less
    // those that go down, as in the shoelace formula.
    struct Ends {
        double begin = 0, end = 0;
    };
    std::vector<Ends> breadths(levels.size());
    for (std::size_t i = 0; i < points.size(); ++i) {
        const Point a = points[i], b = points[(i + 1) % points.size()];
        const double ay = static_cast<double>(a.y), by = static_cast<double>(b.y);
        const double ax = static_cast<double>(a.x), bx = static_cast<double>(b.x);
        const double sign = by > ay ? 1 : -1;
        const auto first = std::lower_bound(levels.begin(), levels.end(), std::min(ay, by));
        for (auto level = first; level != levels.end() && *level < std::max(ay, by); ++level) {
            const auto across = [&](double at) { return sign * (ax + (bx - ax) * (at - ay) / (by - ay)); };
            Ends& ends = breadths[static_cast<std::size_t>(level - levels.begin())];
            ends.begin += across(*level);
            ends.end += across(*(level + 1));
        }
    }
    for (std::size_t i = 0; i + 1 < levels.size(); ++i)
        add(levels[i], levels[i + 1], std::abs(breadths[i].begin), std::abs(breadths[i].end));
    normalize();
}

AreaLevels::AreaLevels(std::span<const float> slices) {
    const auto count = static_cast<double>(slices.size());
    for (std::size_t i = 0; i < slices.size(); ++i) {
        const double breadth = static_cast<double>(slices[i]);
        add(static_cast<double>(i) / count, static_cast<double>(i + 1) / count, breadth, breadth);
    }
    normalize();
}

void AreaLevels::add(double from, double to, double begin, double end) {
    slices_.push_back({from, to, begin, end, area_});
    area_ += (to - from) * (begin + end) / 2;
}

/// Levels from 0 to 1.
void AreaLevels::normalize() {
    if (slices_.empty()) return;
    const double first = slices_.front().from, length = slices_.back().to - first;
    for (Slice& slice : slices_) {
        slice.from = (slice.from - first) / length;
        slice.to = (slice.to - first) / length;
        slice.area_before /= length;
    }
    area_ /= length;
}

double AreaLevels::level_of(double area) const {
    if (!(area > 0)) return 0;
    if (area >= 1 || !(area_ > 0)) return std::min(area, 1.0);
    const double wanted = area * area_;
    auto slice = std::upper_bound(slices_.begin(), slices_.end(), wanted,
                                  [](double a, const Slice& s) { return a < s.area_before; });
    --slice;
    // begin x + (end - begin) / (2 length) x^2 = rest, in the form that does not cancel.
    const double rest = wanted - slice->area_before;
    const double length = slice->to - slice->from;
    const double bend = (slice->end - slice->begin) / length;
    const double root = std::sqrt(std::max(0.0, slice->begin * slice->begin + 2 * bend * rest));
    const double x = slice->begin + root > 0 ? 2 * rest / (slice->begin + root) : length;
    return slice->from + std::min(x, length);
}

double AreaLevels::area_of(double level) const {
    if (!(level > 0) || !(area_ > 0)) return 0;
    if (level >= 1) return 1;
    auto slice =
        std::upper_bound(slices_.begin(), slices_.end(), level, [](double l, const Slice& s) { return l < s.from; });
    --slice;
    const double x = level - slice->from;
    const double bend = (slice->end - slice->begin) / (slice->to - slice->from);
    return (slice->area_before + slice->begin * x + bend * x * x / 2) / area_;
}

float Surface::at(float across) const {
    return height > 0 ? level + height * std::sin(2 * pi * (across / length + phase)) : level;
}

void cut_polygon(std::span<const Point> polygon, const Surface& surface, bool below, std::vector<Point>& into) {
    into.clear();
    if (polygon.empty()) return;
    // Fine enough that chords of the wave are not seen, and never so many that a huge box would stall.
    const float step = std::max(2.0F, surface.length / 24);
    const auto parts_of = [&](float way) {
        return surface.height > 0 ? std::clamp(static_cast<int>(std::abs(way) / step), 0, 500) + 1 : 1;
    };
    const auto over = [&](Point point) {
        const float difference = point.y - surface.at(point.x);
        return below ? difference : -difference;
    };
    // Sutherland and Hodgman, with the surface in the place of a line.
    bool left = false;  // behind the last point it went out
    Point exit{}, entry{};
    bool begins_outside = false;
    const auto follow_surface = [&](Point from, Point to) {
        const int parts = parts_of(to.x - from.x);
        for (int k = 1; k < parts; ++k) {
            const float x = from.x + (to.x - from.x) * static_cast<float>(k) / static_cast<float>(parts);
            into.push_back({x, surface.at(x)});
        }
    };
    const auto add_edge = [&](Point a, Point b) {
        const float da = over(a), db = over(b);
        if ((da <= 0) != (db <= 0)) {
            const float part = da / (da - db);
            const Point cut{a.x + (b.x - a.x) * part, a.y + (b.y - a.y) * part};
            if (da <= 0) {
                into.push_back(cut);
                exit = cut;
                left = true;
            } else {
                if (left)
                    follow_surface(exit, cut);
                else {
                    begins_outside = true;
                    entry = cut;
                }
                left = false;
                into.push_back(cut);
            }
        }
        if (db <= 0) into.push_back(b);
    };
    for (std::size_t i = 0; i < polygon.size(); ++i) {
        const Point a = polygon[i];
        const Point b = polygon[(i + 1) % polygon.size()];
        const int parts = parts_of(b.x - a.x);
        Point from = a;
        for (int k = 1; k <= parts; ++k) {
            const float part = static_cast<float>(k) / static_cast<float>(parts);
            const Point to = k == parts ? b : Point{a.x + (b.x - a.x) * part, a.y + (b.y - a.y) * part};
            add_edge(from, to);
            from = to;
        }
    }
    if (left && begins_outside) follow_surface(exit, entry);
}

}  // namespace rapido
