// Boxes, lines, polygons and texts.
#include "render/mesh/group_maker.hpp"

namespace rapido {

void GroupMaker::make() {
    for (const DisplayItem& item : group_.items())
        draw(item);
}

void GroupMaker::draw(const DisplayItem& item) {
    switch (item.kind) {
        case DisplayItem::Kind::rect:
            return draw_rect(item);
        case DisplayItem::Kind::border:
            return draw_border(item);
        case DisplayItem::Kind::text:
            return draw_text(item);
        case DisplayItem::Kind::line:
            return draw_points(item);
        case DisplayItem::Kind::polygon:
            return draw_points(item);
        case DisplayItem::Kind::image:
            return draw_image(item);
    }
}

/// The clip of a item, where it has one, on the screen for what only moves, and in the group for all else.
Bounds GroupMaker::clip_of(const DisplayItem& item) const {
    const bool is_cut = item.clip.width > 0 && item.clip != item.rect;
    if (!is_cut) return everywhere;
    return bounds_of(moves_only_ ? moved(item.clip) : item.clip);
}

void GroupMaker::draw_rect(const DisplayItem& item) {
    if (item.rect.width <= 0 || item.rect.height <= 0) return;
    const Bounds clip = clip_of(item);
    const float radius = std::clamp(item.radius, 0.0F, std::min(item.rect.width, item.rect.height) / 2);
    if (item.blur > 0 || !moves_only_) {
        if (item.blur <= 0 && add_box(item.rect, radius, 0, item, clip)) return;
        AtlasKey key = key_of(Made::shape);
        for (const float number : {item.rect.width, item.rect.height, radius})
            key.add(number);
        return add_shape(key, item.rect, item, clip, [&](Rasterizer& on) { on.add_rounded(item.rect, radius); });
    }
    const Rect rect = moved(item.rect);
    if (radius <= 0) return add_solid(common_part(bounds_of(rect), clip), item);
    add_sliced(rect, radius, 0, item, clip);
}

void GroupMaker::draw_border(const DisplayItem& item) {
    const Rect& rect = item.rect;
    const float thickness = item.thickness;
    if (rect.width <= 0 || rect.height <= 0 || !(thickness > 0)) return;
    const float radius = std::clamp(item.radius, 0.0F, std::min(rect.width, rect.height) / 2);
    if (item.blur > 0 || !moves_only_) {
        if (item.blur <= 0 && add_box(rect, radius, thickness, item, everywhere)) return;
        AtlasKey key = key_of(Made::shape);
        for (const float number : {rect.width, rect.height, radius, thickness})
            key.add(number);
        return add_shape(key, rect, item, everywhere, [&](Rasterizer& on) {
            on.add_rounded(rect, radius);
            on.add_rounded(rect.inset({thickness, thickness, thickness, thickness}), std::max(radius - thickness, 0.0F),
                           true);
        });
    }
    add_sliced(moved(rect), radius, thickness, item, everywhere);
}

/// A rectangle with round corners, or a line along its inside: four corners, of which one is made, and what lies between them. One that is
/// too low or too narrow for that has two ends.
void GroupMaker::add_sliced(const Rect& rect, float radius, float thickness, const DisplayItem& item,
                            const Bounds& clip) {
    const int left = static_cast<int>(std::floor(rect.x)), top = static_cast<int>(std::floor(rect.y));
    const int right = static_cast<int>(std::ceil(rect.right())), bottom = static_cast<int>(std::ceil(rect.bottom()));
    const int side = static_cast<int>(std::ceil(std::max(radius, thickness))) + 1;
    const bool divides_across = right - left >= 2 * side, divides_down = bottom - top >= 2 * side;
    if (!divides_across && !divides_down) {
        AtlasKey key = key_of(Made::shape);
        for (const float number :
             {rect.width, rect.height, radius, thickness, rect.x - std::floor(rect.x), rect.y - std::floor(rect.y)})
            key.add(number);
        const Point origin{static_cast<float>(left), static_cast<float>(top)};
        const AtlasIndex index = covered(key, right - left, bottom - top,
                                         [&](Rasterizer& on) { add_ring(on, origin, rect, radius, thickness); });
        if (index == nowhere) return;
        const Cell cell{left, top, right - left, bottom - top};
        return add_texels(index, cell, {0, 0, cell.width, cell.height}, false, false, clip, item);
    }
    // How far the edges are from those of the pixels.
    const float from_left = rect.x - static_cast<float>(left), from_top = rect.y - static_cast<float>(top);
    const float from_right = static_cast<float>(right) - rect.right(),
                from_bottom = static_cast<float>(bottom) - rect.bottom();
    const float far = static_cast<float>(4 * side);
    const int wide = divides_across ? side : right - left, high = divides_down ? side : bottom - top;
    const auto add_corner = [&](bool is_right, bool is_bottom) {
        const float across = is_right ? from_right : from_left, down = is_bottom ? from_bottom : from_top;
        const float width = divides_across ? far : rect.width, height = divides_down ? far : rect.height;
        AtlasKey key = key_of(Made::corner);
        for (const float number : {radius, thickness, across, down, width, height})
            key.add(number);
        const AtlasIndex index = covered(key, wide, high, [&](Rasterizer& on) {
            add_ring(on, {}, {across, down, width, height}, radius, thickness);
        });
        if (index == nowhere) return;
        add_texels(index, {is_right ? right - wide : left, is_bottom ? bottom - high : top, wide, high},
                   {0, 0, wide, high}, is_right, is_bottom, clip, item);
    };
    for (const bool is_bottom : {false, true})
        for (const bool is_right : {false, true})
            if ((divides_across || !is_right) && (divides_down || !is_bottom)) add_corner(is_right, is_bottom);
    const float inner_left = divides_across ? static_cast<float>(left + side) : rect.x;
    const float inner_right = divides_across ? static_cast<float>(right - side) : rect.right();
    const float inner_top = divides_down ? static_cast<float>(top + side) : rect.y;
    const float inner_bottom = divides_down ? static_cast<float>(bottom - side) : rect.bottom();
    const auto add_part = [&](const Bounds& part) { add_solid(common_part(part, clip), item); };
    const bool is_line = thickness > 0 && 2 * thickness < std::min(rect.width, rect.height);
    if (is_line && divides_across) {
        add_part({inner_left, rect.y, inner_right, rect.y + thickness});
        add_part({inner_left, rect.bottom() - thickness, inner_right, rect.bottom()});
    }
    if (is_line && divides_down) {
        add_part({rect.x, inner_top, rect.x + thickness, inner_bottom});
        add_part({rect.right() - thickness, inner_top, rect.right(), inner_bottom});
    }
    if (is_line) return;
    if (divides_across) add_part({inner_left, rect.y, inner_right, rect.bottom()});
    if (divides_down && !divides_across) add_part({rect.x, inner_top, rect.right(), inner_bottom});
    if (!divides_down || !divides_across) return;
    add_part({rect.x, inner_top, inner_left, inner_bottom});
    add_part({inner_right, inner_top, rect.right(), inner_bottom});
}

void GroupMaker::add_ring(Rasterizer& on, Point origin, const Rect& rect, float radius, float thickness) {
    on.begin(origin);
    on.add_rounded(rect, radius);
    if (thickness > 0)
        on.add_rounded(rect.inset({thickness, thickness, thickness, thickness}), std::max(radius - thickness, 0.0F),
                       true);
}

void GroupMaker::draw_points(const DisplayItem& item) {
    const std::span<const Point> points = group_.points_of(item);
    if (points.empty()) return;
    const bool is_line = item.kind == DisplayItem::Kind::line;
    if (!is_line && item.has_mask) return draw_masked(item, points);
    if (!is_line && moves_only_ && item.blur <= 0 && is_rect(points)) {
        const auto [low, high] =
            std::minmax_element(points.begin(), points.end(), [](Point a, Point b) { return a.x + a.y < b.x + b.y; });
        return add_solid(bounds_of(moved(Rect{low->x, low->y, high->x - low->x, high->y - low->y})), item);
    }
    if (!moves_only_ && item.blur <= 0) {
        if (is_line || !add_polygon(points, item)) add_where_seen(points, item);
        return;
    }
    const float around = is_line ? item.thickness / 2 : 0;
    const Rect bounds = bounds_of_points(points).inset({-around, -around, -around, -around});
    AtlasKey key = key_of(Made::shape);
    key.add(static_cast<int>(item.kind));
    key.add(item.thickness);
    add_points(key, points, {std::floor(bounds.x), std::floor(bounds.y)});
    // What grows or turns is another shape in each frame, and drawn by its triangles.
    const auto draw_once = [&](const AtlasKey& whole) {
        return !is_line && item.blur <= 0 && !atlas_.is_asked_again(whole) && add_polygon(points, item);
    };
    const auto make = [&](Rasterizer& on) {
        if (is_line)
            on.line(points, item.thickness);
        else
            on.add(points);
    };
    add_shape(key, bounds, item, everywhere, make, draw_once);
}

/// Adds what is turned or larger or smaller, and too thin for triangles: it is made for the pixels on which it falls.
void GroupMaker::add_where_seen(std::span<const Point> points, const DisplayItem& item) {
    const Transform& t = group_.transform();
    std::vector<Point>& seen = atlas_.polygon.device;
    seen.clear();
    for (const Point& point : points)
        seen.push_back(moved(point));
    const bool is_line = item.kind == DisplayItem::Kind::line;
    const float thickness = item.thickness * std::sqrt(std::abs(t.xx * t.yy - t.xy * t.yx));
    const float around = is_line ? thickness / 2 + 1 : 1;
    const Rect bounds = bounds_of_points(seen).inset({-around, -around, -around, -around});
    const Point origin{std::floor(bounds.x), std::floor(bounds.y)};
    constexpr float most = 8000;
    if (!(bounds.width < most && bounds.height < most) || std::abs(origin.x) > 1e6F || std::abs(origin.y) > 1e6F)
        return;
    const int width = static_cast<int>(std::ceil(bounds.right()) - origin.x);
    const int height = static_cast<int>(std::ceil(bounds.bottom()) - origin.y);
    AtlasKey key = key_of(Made::seen);
    key.add(static_cast<int>(item.kind));
    key.add(thickness);
    add_points(key, seen, origin);
    const AtlasIndex index = covered(key, width, height, [&](Rasterizer& on) {
        on.begin(origin);
        if (is_line)
            on.line(seen, thickness);
        else
            on.add(seen);
    });
    if (index == nowhere) return;
    add_texels(index, {static_cast<int>(origin.x), static_cast<int>(origin.y), width, height}, {0, 0, width, height},
               false, false, everywhere, item);
}

bool GroupMaker::is_rect(std::span<const Point> p) {
    return p.size() == 4 && ((p[0].x == p[3].x && p[1].x == p[2].x && p[0].y == p[1].y && p[2].y == p[3].y) ||
                             (p[0].x == p[1].x && p[2].x == p[3].x && p[0].y == p[3].y && p[1].y == p[2].y));
}

Rect GroupMaker::bounds_of_points(std::span<const Point> points) {
    Bounds all{points[0].x, points[0].y, points[0].x, points[0].y};
    for (const Point& point : points)
        all = {std::min(all.left, point.x), std::min(all.top, point.y), std::max(all.right, point.x),
               std::max(all.bottom, point.y)};
    return {all.left, all.top, all.right - all.left, all.bottom - all.top};
}

void GroupMaker::draw_text(const DisplayItem& item) {
    const std::span<const Glyph> glyphs = group_.glyphs_of(item);
    const Bounds clip = clip_of(item);
    // What covers itself is made in one piece: light of several characters, and lines that are seen through.
    if (item.blur > 0 || (item.outline > 0 && item.color.alpha < 255)) {
        const float around = item.size + item.outline;
        const Rect bounds{item.baseline.x - around / 2, item.baseline.y - around - item.size / 4, item.width + around,
                          2 * around};
        AtlasKey key = key_of(Made::text);
        key.add(item.size);
        key.add(item.outline);
        key.add(item.stretch);
        key.add(item.baseline.x - std::floor(item.baseline.x));
        key.add(item.baseline.y - std::floor(item.baseline.y));
        for (const Glyph& glyph : glyphs) {
            key.add(std::uint64_t{glyph.id} << 32U | glyph.font);
            key.add(glyph.offset.x);
            key.add(glyph.offset.y);
        }
        return add_shape(key, bounds, item, clip, [&](Rasterizer& on) {
            for (const Glyph& glyph : glyphs)
                on.add_glyph(face(glyph.font), glyph.id, at(item, glyph), item.size, item.stretch);
            on.widen(item.outline);
        });
    }
    for (const Glyph& glyph : glyphs)
        draw_glyph(item, glyph, clip);
}

/// Characters are made for four places within a pixel, each way.
void GroupMaker::draw_glyph(const DisplayItem& item, const Glyph& glyph, const Bounds& clip) {
    constexpr float places = 4, stretches = 32;
    const float size = item.size * scale_;
    const float stretch = item.stretch == 1 ? 1 : std::ceil(item.stretch * stretches) / stretches;
    if (!(size > 0.25F) || size > 2000) return;
    Point begin = at(item, glyph);
    if (moves_only_) begin = moved(begin);
    const float x = std::round(begin.x * scale_ * places) / places, y = std::round(begin.y * scale_ * places) / places;
    const float whole_x = std::floor(x), whole_y = std::floor(y);
    AtlasKey key = key_of(Made::glyph);
    key.add(std::uint64_t{glyph.id} << 32U | glyph.font);
    key.add(size);
    key.add(stretch);
    key.add(item.outline * scale_);
    key.add(x - whole_x);
    key.add(y - whole_y);
    AtlasIndex index = atlas_.find(key);
    if (index == nowhere)
        index = make_glyph(key, glyph, {size, stretch}, item.outline * scale_, {x - whole_x, y - whole_y});
    if (index == nowhere) return;
    const AtlasEntry& entry = atlas_.entries[index];
    const auto [left, top] = glyph_locations()[index];
    if (entry.at.width == 0) return;
    const PixelRect all{0, 0, entry.at.width, entry.at.height};
    const int cell_x = static_cast<int>(whole_x) + left, cell_y = static_cast<int>(whole_y) + top;
    if (moves_only_) return add_texels(index, {cell_x, cell_y, all.width, all.height}, all, false, false, clip, item);
    add_turned(index,
               {static_cast<float>(cell_x) / scale_, static_cast<float>(cell_y) / scale_,
                static_cast<float>(all.width) / scale_, static_cast<float>(all.height) / scale_},
               item, clip);
}

AtlasIndex GroupMaker::make_glyph(const AtlasKey& key, const Glyph& glyph, Em em, float outline, Point part) {
    const FT_Face font = face(glyph.font);
    if (font == nullptr ||
        FT_Load_Glyph(font, glyph.id, FT_LOAD_NO_SCALE | FT_LOAD_NO_BITMAP | FT_LOAD_IGNORE_TRANSFORM) != 0 ||
        font->units_per_EM == 0)
        return nowhere;
    FT_BBox box{};
    FT_Outline_Get_CBox(&font->glyph->outline, &box);
    if (box.xMax <= box.xMin || box.yMax <= box.yMin) return nowhere;  // a space
    const float scale = em.size / static_cast<float>(font->units_per_EM), high = scale * em.stretch;
    const int left = static_cast<int>(std::floor(static_cast<float>(box.xMin) * scale + part.x - outline));
    const int right = static_cast<int>(std::ceil(static_cast<float>(box.xMax) * scale + part.x + outline));
    const int top = static_cast<int>(std::floor(part.y - static_cast<float>(box.yMax) * high - outline));
    const int bottom = static_cast<int>(std::ceil(part.y - static_cast<float>(box.yMin) * high + outline));
    const AtlasIndex index = covered(key, right - left, bottom - top, [&](Rasterizer& on) {
        on.begin({static_cast<float>(left), static_cast<float>(top)});
        on.add_glyph(font, glyph.id, part, em.size, em.stretch);
        on.widen(outline);
    });
    if (index == nowhere) return nowhere;
    if (glyph_locations().size() <= index) glyph_locations().resize(index + 1);
    glyph_locations()[index] = {left, top};
    return index;
}

}  // namespace rapido
