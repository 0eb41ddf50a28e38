#include "rapido/draw/draw_list.hpp"

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

void DrawGroup::begin(float opacity, const Tint& tint, const Transform& transform) {
    opacity_ = opacity;
    part_ = 1;
    tint_ = tint;
    transform_ = transform;
    blend = Blend::normal;
    commands_.clear();
    text_.clear();
    glyphs_.clear();
    points_.clear();
}

/// Tinted, and with the opacity of the group.
Color DrawGroup::seen(Color color) const {
    if (tint_.part > 0) {
        const std::uint8_t alpha = color.alpha;
        color = mix(color, tint_.color, static_cast<double>(tint_.part));
        color.alpha = alpha;
    }
    color.alpha = static_cast<std::uint8_t>(static_cast<float>(color.alpha) * opacity_ * part_ + 0.5F);
    return color;
}

void DrawGroup::add(DrawCommand command) {
    command.color = seen(command.color);
    commands_.push_back(command);
}

void DrawGroup::soften_from(std::size_t first, float outline, float blur) {
    for (std::size_t i = first; i < commands_.size(); ++i) {
        commands_[i].outline = outline;
        commands_[i].blur = blur;
    }
}

void DrawGroup::clip_from(std::size_t first, const Rect& clip) {
    for (std::size_t i = first; i < commands_.size(); ++i)
        commands_[i].clip = clip;
}

void DrawGroup::glow(float radius, Color color) {
    const std::size_t count = commands_.size();
    const Color light = seen(color);
    for (std::size_t i = 0; i < count; ++i) {
        DrawCommand command = commands_[i];
        // What is hardly seen itself hardly shines.
        const float opacity = static_cast<float>(command.color.alpha) / 255;
        command.color = light;
        command.color.alpha = static_cast<std::uint8_t>(static_cast<float>(light.alpha) * opacity + 0.5F);
        command.has_gradient = false;
        command.silhouette = true;
        command.blur += radius;
        commands_.push_back(command);
    }
    std::rotate(commands_.begin(), commands_.begin() + static_cast<std::ptrdiff_t>(count), commands_.end());
}

void DrawGroup::shade_last(Color end_color, Point from, Point to) {
    DrawCommand& command = commands_.back();
    command.has_gradient = true;
    command.end_color = seen(end_color);
    command.gradient_from = from;
    command.gradient_to = to;
}

void DrawGroup::add_polygon(std::span<const Point> points, Color color) {
    DrawCommand command;
    command.kind = DrawCommand::Kind::polygon;
    command.color = color;
    command.first_point = static_cast<std::uint32_t>(points_.size());
    command.point_count = static_cast<std::uint32_t>(points.size());
    points_.insert(points_.end(), points.begin(), points.end());
    add(command);
}

void DrawGroup::add_rect(const Rect& rect, float radius, Color color) {
    add_rect(rect, radius, color, rect);
}

void DrawGroup::add_rect(const Rect& rect, float radius, Color color, const Rect& clip) {
    DrawCommand command;
    command.kind = DrawCommand::Kind::rect;
    command.color = color;
    command.rect = rect;
    command.clip = clip;
    command.radius = radius;
    add(command);
}

void DrawGroup::add_arc(const Arc& arc, Color color) {
    const std::size_t first = points_.size();
    append_outline(arc, points_);
    if (points_.size() == first) return;
    DrawCommand command;
    command.kind = DrawCommand::Kind::polygon;
    command.color = color;
    command.first_point = static_cast<std::uint32_t>(first);
    command.point_count = static_cast<std::uint32_t>(points_.size() - first);
    add(command);
}

void DrawGroup::add_border(const Rect& rect, float radius, float thickness, Color color) {
    DrawCommand command;
    command.kind = DrawCommand::Kind::border;
    command.color = color;
    command.rect = command.clip = rect;
    command.radius = radius;
    command.thickness = thickness;
    add(command);
}

void DrawGroup::add_line(std::span<const Point> points, float thickness, Color color) {
    DrawCommand command;
    command.kind = DrawCommand::Kind::line;
    command.color = color;
    command.thickness = thickness;
    command.first_point = static_cast<std::uint32_t>(points_.size());
    command.point_count = static_cast<std::uint32_t>(points.size());
    points_.insert(points_.end(), points.begin(), points.end());
    add(command);
}

void DrawGroup::add_image(ImageId image, const Rect& source, const Rect& rect, Color color, bool smooth) {
    // Not `add`: the tint is kept apart, as the colors of an image are not known here.
    DrawCommand command;
    command.kind = DrawCommand::Kind::image;
    command.color = color;
    command.color.alpha = static_cast<std::uint8_t>(static_cast<float>(color.alpha) * opacity_ + 0.5F);
    command.image = image;
    command.source = source;
    command.rect = rect;
    command.smooth = smooth;
    command.tint = tint_;
    commands_.push_back(command);
}

void DrawGroup::cut_last(std::span<const Point> points) {
    DrawCommand& command = commands_.back();
    command.first_point = static_cast<std::uint32_t>(points_.size());
    command.point_count = static_cast<std::uint32_t>(points.size());
    points_.insert(points_.end(), points.begin(), points.end());
}

void DrawGroup::tint_last(const Tint& tint) {
    // One tint after the other is one tint, too: m(m(c, own), group) with m(c, t) = c (1 - t.part) + t.color t.part.
    const float own = std::clamp(tint.part, 0.0F, 1.0F), group = std::clamp(tint_.part, 0.0F, 1.0F);
    const float both = 1 - (1 - own) * (1 - group);
    if (!(both > 0)) return;
    Color color = tint.color, over = tint_.color;
    color.alpha = over.alpha = 255;
    commands_.back().tint = {mix(color, over, static_cast<double>(group / both)), both};
}

void DrawGroup::mask_last(ImageId mask, const Rect& rect) {
    commands_.back().has_mask = true;
    commands_.back().mask = mask;
    commands_.back().rect = rect;
}

void DrawGroup::map_last(ImageId map, float from, float to, float softness) {
    DrawCommand& command = commands_.back();
    const auto placed = [&](float value) { return value * (1 + softness) - softness / 2; };
    command.has_map = true;
    command.map = map;
    command.map_from = from > 0 ? placed(from) : -1 - softness;
    command.map_to = placed(to);
    command.map_softness = softness;
}

void DrawGroup::add_text(FontId font, float size, Point baseline, float width, Color color, std::string_view text,
                         std::span<const Glyph> glyphs, float scale) {
    DrawCommand command;
    command.kind = DrawCommand::Kind::text;
    command.color = color;
    command.font = font;
    command.size = size;
    command.baseline = baseline;
    command.width = width;
    command.first_byte = static_cast<std::uint32_t>(text_.size());
    command.byte_count = static_cast<std::uint32_t>(text.size());
    command.first_glyph = static_cast<std::uint32_t>(glyphs_.size());
    command.glyph_count = static_cast<std::uint32_t>(glyphs.size());
    text_ += text;
    for (const Glyph& glyph : glyphs)
        glyphs_.push_back({glyph.id, {glyph.offset.x * scale, glyph.offset.y * scale}, glyph.font});
    add(command);
}

}  // namespace rapido
