#include "draw/flash_parts.hpp"

#include <algorithm>
#include <cmath>
#include <span>

namespace rapido {
namespace {

/// How much of the box of a line of text its characters cover, about: of a regular weight.
constexpr float ink = 0.22F;
/// So many colors are told apart.
constexpr std::size_t most_parts = 4;

float area_of(std::span<const Point> points) {
    float twice = 0;
    for (std::size_t i = 0; i < points.size(); ++i) {
        const Point &a = points[i], &b = points[(i + 1) % points.size()];
        twice += a.x * b.y - b.x * a.y;
    }
    return std::abs(twice) / 2;
}

Rect box_of(std::span<const Point> points) {
    if (points.empty()) return {};
    Point first = points.front(), last = first;
    for (const Point& point : points) {
        first = {std::min(first.x, point.x), std::min(first.y, point.y)};
        last = {std::max(last.x, point.x), std::max(last.y, point.y)};
    }
    return {first.x, first.y, last.x - first.x, last.y - first.y};
}

Rect common(const Rect& a, const Rect& b) {
    const float x = std::max(a.x, b.x), y = std::max(a.y, b.y);
    return {x, y, std::max(0.0F, std::min(a.right(), b.right()) - x),
            std::max(0.0F, std::min(a.bottom(), b.bottom()) - y)};
}

Rect around(const Rect& a, const Rect& b) {
    const float x = std::min(a.x, b.x), y = std::min(a.y, b.y);
    return {x, y, std::max(a.right(), b.right()) - x, std::max(a.bottom(), b.bottom()) - y};
}

/// One item as a part; of no area where it draws nothing that counts.
FlashPart part_of(const DisplayGroup& group, const DisplayItem& item) {
    FlashPart part{.color = item.color, .box = item.rect, .area = 0};
    const auto length_of = [](std::span<const Point> points) {
        float length = 0;
        for (std::size_t i = 1; i < points.size(); ++i)
            length += std::hypot(points[i].x - points[i - 1].x, points[i].y - points[i - 1].y);
        return length;
    };
    switch (item.kind) {
        case DisplayItem::Kind::rect:
        case DisplayItem::Kind::image: {
            const bool is_cut = item.kind == DisplayItem::Kind::rect && item.clip.width > 0;
            if (is_cut) part.box = common(item.rect, item.clip);
            part.area = part.box.width * part.box.height;
            break;
        }
        case DisplayItem::Kind::border:
            part.area = 2 * (item.rect.width + item.rect.height) * item.thickness;
            break;
        case DisplayItem::Kind::text:
            part.box = {item.baseline.x, item.baseline.y - item.size * 0.8F, item.width, item.size};
            part.area = part.box.width * part.box.height * ink;
            break;
        case DisplayItem::Kind::line:
            part.box = box_of(group.points_of(item));
            part.area = length_of(group.points_of(item)) * item.thickness;
            break;
        case DisplayItem::Kind::polygon:
            part.box = box_of(group.points_of(item));
            part.area = area_of(group.points_of(item));
            break;
    }
    if (item.color.alpha == 0) part.area = 0;
    return part;
}

double distance(const FlashPart& a, const FlashPart& b) {
    const double light = std::abs(relative_luminance(a.color) - relative_luminance(b.color));
    return light + std::abs(a.color.alpha - b.color.alpha) / 255.0;
}

}  // namespace

void add_flash_parts(const DisplayGroup& group, std::vector<FlashPart>& into) {
    constexpr std::size_t most_covered = 64;
    for (const DisplayItem& item : group.items()) {
        FlashPart part = part_of(group, item);
        if (!(part.area > 0)) continue;
        const bool covers = item.kind == DisplayItem::Kind::rect && item.color.alpha > 230;
        for (std::size_t i = into.size() - std::min(into.size(), most_covered); covers && i < into.size(); ++i) {
            const Rect both = common(into[i].box, part.box);
            const float whole = into[i].box.width * into[i].box.height;
            if (!(whole > 0)) continue;
            const float covered = std::min(1.0F, both.width * both.height / whole);
            into[i].area *= 1 - covered;
            if (covered > 0.5F) part.below = into[i].color;
        }
        into.push_back(part);
    }
}

void join_flash_parts(const std::vector<FlashPart>& parts, std::vector<FlashPart>& joined) {
    joined.clear();
    for (const FlashPart& part : parts) {
        if (!(part.area > 0)) continue;
        const auto nearest = std::min_element(
            joined.begin(), joined.end(),
            [&](const FlashPart& a, const FlashPart& b) { return distance(a, part) < distance(b, part); });
        if (nearest == joined.end() || (distance(*nearest, part) > 0.02 && joined.size() < most_parts)) {
            joined.push_back(part);
            continue;
        }
        if (part.area > nearest->area) {
            nearest->color = part.color;
            nearest->below = part.below;
        }
        nearest->area += part.area;
        nearest->box = around(nearest->box, part.box);
    }
}

}  // namespace rapido
