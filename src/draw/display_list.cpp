#include "rapido/draw/display_list.hpp"

#include <algorithm>
#include <cmath>
#include <numbers>

#include "draw/arc.hpp"

namespace rapido {

Transform Transform::then(const Transform& next) const {
    const Point moved = next.apply({dx, dy});
    return {next.xx * xx + next.xy * yx,
            next.xx * xy + next.xy * yy,
            next.yx * xx + next.yy * yx,
            next.yx * xy + next.yy * yy,
            moved.x,
            moved.y};
}

Transform Transform::around(Point middle, float scale, float degrees, Point offset) {
    const float angle = degrees * std::numbers::pi_v<float> / 180;
    const float c = scale * std::cos(angle);
    const float s = scale * std::sin(angle);
    return {c,
            -s,
            s,
            c,
            middle.x - c * middle.x + s * middle.y + offset.x,
            middle.y - s * middle.x - c * middle.y + offset.y};
}

void DisplayGroup::begin(float opacity, const Tint& tint, const Transform& transform, Color filter) {
    opacity_ = opacity;
    part_ = 1;
    filter_ = filter;
    tint_ = tint;
    transform_ = transform;
    blend = Blend::normal;
    items_.clear();
    text_.clear();
    glyphs_.clear();
    points_.clear();
}

/// Filtered and tinted, and with the opacity of the group.
Color DisplayGroup::seen(Color color) const {
    if (filter_ != rgb(0xffffff)) color = multiply(color, filter_);
    if (tint_.part > 0) {
        const std::uint8_t alpha = color.alpha;
        color = mix(color, tint_.color, static_cast<double>(tint_.part));
        color.alpha = alpha;
    }
    color.alpha = static_cast<std::uint8_t>(static_cast<float>(color.alpha) * opacity_ * part_ + 0.5F);
    return color;
}

void DisplayGroup::add(DisplayItem item) {
    item.color = seen(item.color);
    items_.push_back(item);
}

void DisplayGroup::soften_from(std::size_t first, float outline, float blur) {
    for (std::size_t i = first; i < items_.size(); ++i) {
        items_[i].outline = outline;
        items_[i].blur = blur;
    }
}

void DisplayGroup::clip_from(std::size_t first, const Rect& clip) {
    for (std::size_t i = first; i < items_.size(); ++i)
        items_[i].clip = clip;
}

void DisplayGroup::glow(float radius, Color color) {
    const std::size_t count = items_.size();
    const Color light = seen(color);
    for (std::size_t i = 0; i < count; ++i) {
        DisplayItem item = items_[i];
        // What is hardly seen itself hardly shines.
        const float opacity = static_cast<float>(item.color.alpha) / 255;
        item.color = light;
        item.color.alpha = static_cast<std::uint8_t>(static_cast<float>(light.alpha) * opacity + 0.5F);
        item.has_gradient = false;
        item.silhouette = true;
        item.blur += radius;
        items_.push_back(item);
    }
    std::rotate(items_.begin(), items_.begin() + static_cast<std::ptrdiff_t>(count), items_.end());
}

void DisplayGroup::shade_last(Color end_color, Point from, Point to) {
    DisplayItem& item = items_.back();
    item.has_gradient = true;
    item.end_color = seen(end_color);
    item.gradient_from = from;
    item.gradient_to = to;
}

void DisplayGroup::polygon(std::span<const Point> points, Color color) {
    DisplayItem item;
    item.kind = DisplayItem::Kind::polygon;
    item.color = color;
    item.first_point = static_cast<std::uint32_t>(points_.size());
    item.point_count = static_cast<std::uint32_t>(points.size());
    points_.insert(points_.end(), points.begin(), points.end());
    add(item);
}

void DisplayGroup::rect(const Rect& box, float radius, Color color) {
    rect(box, radius, color, box);
}

void DisplayGroup::rect(const Rect& box, float radius, Color color, const Rect& clip) {
    DisplayItem item;
    item.kind = DisplayItem::Kind::rect;
    item.color = color;
    item.rect = box;
    item.clip = clip;
    item.radius = radius;
    add(item);
}

void DisplayGroup::arc(const Arc& arc, Color color) {
    const std::size_t first = points_.size();
    append_outline(arc, points_);
    if (points_.size() == first) return;
    DisplayItem item;
    item.kind = DisplayItem::Kind::polygon;
    item.color = color;
    item.first_point = static_cast<std::uint32_t>(first);
    item.point_count = static_cast<std::uint32_t>(points_.size() - first);
    add(item);
}

void DisplayGroup::border(const Rect& box, float radius, float thickness, Color color) {
    DisplayItem item;
    item.kind = DisplayItem::Kind::border;
    item.color = color;
    item.rect = item.clip = box;
    item.radius = radius;
    item.thickness = thickness;
    add(item);
}

void DisplayGroup::line(std::span<const Point> points, float thickness, Color color) {
    DisplayItem item;
    item.kind = DisplayItem::Kind::line;
    item.color = color;
    item.thickness = thickness;
    item.first_point = static_cast<std::uint32_t>(points_.size());
    item.point_count = static_cast<std::uint32_t>(points.size());
    points_.insert(points_.end(), points.begin(), points.end());
    add(item);
}

void DisplayGroup::image(ImageId image, const Rect& source, const Rect& rect, Color color, bool smooth) {
    // Not `add`: the tint is kept apart, as the colors of an image are not known here.
    DisplayItem item;
    item.kind = DisplayItem::Kind::image;
    item.color = multiply(color, filter_);
    item.color.alpha = static_cast<std::uint8_t>(static_cast<float>(color.alpha) * opacity_ + 0.5F);
    item.image = image;
    item.source = source;
    item.rect = rect;
    item.smooth = smooth;
    item.tint = tint_;
    items_.push_back(item);
}

void DisplayGroup::cut_last(std::span<const Point> points) {
    DisplayItem& item = items_.back();
    item.first_point = static_cast<std::uint32_t>(points_.size());
    item.point_count = static_cast<std::uint32_t>(points.size());
    points_.insert(points_.end(), points.begin(), points.end());
}

void DisplayGroup::tint_last(const Tint& tint) {
    // One tint after the other is one tint, too: m(m(c, own), group) with m(c, t) = c (1 - t.part) + t.color t.part.
    const float own = std::clamp(tint.part, 0.0F, 1.0F), group = std::clamp(tint_.part, 0.0F, 1.0F);
    const float both = 1 - (1 - own) * (1 - group);
    if (!(both > 0)) return;
    Color color = tint.color, over = tint_.color;
    color.alpha = over.alpha = 255;
    items_.back().tint = {mix(color, over, static_cast<double>(group / both)), both};
}

void DisplayGroup::mask_last(ImageId mask, const Rect& rect) {
    items_.back().has_mask = true;
    items_.back().mask = mask;
    items_.back().rect = rect;
}

void DisplayGroup::map_last(ImageId map, float from, float to, float softness) {
    DisplayItem& item = items_.back();
    const auto placed = [&](float value) { return value * (1 + softness) - softness / 2; };
    item.has_map = true;
    item.map = map;
    item.map_from = from > 0 ? placed(from) : -1 - softness;
    item.map_to = placed(to);
    item.map_softness = softness;
}

void DisplayGroup::text(FontId font, float size, Point baseline, float width, Color color, std::string_view text,
                        std::span<const Glyph> glyphs, float scale) {
    DisplayItem item;
    item.kind = DisplayItem::Kind::text;
    item.color = color;
    item.font = font;
    item.size = size;
    item.baseline = baseline;
    item.width = width;
    item.first_byte = static_cast<std::uint32_t>(text_.size());
    item.byte_count = static_cast<std::uint32_t>(text.size());
    item.first_glyph = static_cast<std::uint32_t>(glyphs_.size());
    item.glyph_count = static_cast<std::uint32_t>(glyphs.size());
    text_ += text;
    for (const Glyph& glyph : glyphs)
        glyphs_.push_back({glyph.id, {glyph.offset.x * scale, glyph.offset.y * scale}, glyph.font});
    add(item);
}

}  // namespace rapido
