// Quads: solid, textured, turned.
#include "render/mesh/group_maker.hpp"

namespace rapido {

int spans_of(float first, float last, float from, float to, std::array<Span, 3>& spans) {
    from = std::max(from, first);
    to = std::min(to, last);
    if (!(to > from)) return 0;
    int count = 0;
    const float whole_from = std::ceil(from - 1e-4F), whole_to = std::floor(to + 1e-4F);
    if (whole_from > whole_to) {  // within one pixel
        spans[0] = {whole_to, whole_from, to - from};
        return 1;
    }
    if (whole_from - from > 1e-3F)
        spans[static_cast<std::size_t>(count++)] = {whole_from - 1, whole_from, whole_from - from};
    if (whole_to > whole_from) spans[static_cast<std::size_t>(count++)] = {whole_from, whole_to, 1};
    if (to - whole_to > 1e-3F) spans[static_cast<std::size_t>(count++)] = {whole_to, whole_to + 1, to - whole_to};
    return count;
}

std::array<std::uint8_t, 4> GroupMaker::seen(Color color, float part) const {
    const float alpha = static_cast<float>(color.alpha) / 255 * part;
    const auto channel = [&](std::uint8_t straight) {
        return static_cast<std::uint8_t>(static_cast<float>(straight) * alpha + 0.5F);
    };
    return {channel(color.red), channel(color.green), channel(color.blue),
            adds_light_ ? std::uint8_t{0} : static_cast<std::uint8_t>(255 * alpha + 0.5F)};
}

void GroupMaker::use(AtlasIndex index) {
    if (std::find(into_.used.begin(), into_.used.end(), index) != into_.used.end()) return;
    into_.used.push_back(index);
    ++atlas_.entries[index].users;
}

void GroupMaker::begin_quads(std::uint32_t page, std::size_t count) {
    if (into_.runs.empty() || into_.runs.back().page != page) into_.runs.push_back({page, 0});
    into_.runs.back().quads += static_cast<std::uint32_t>(count);
}

/// Corners in the order of a `GroupMesh`.
void GroupMaker::add_quad(std::uint32_t page, const std::array<Point, 4>& at, const std::array<Point, 4>& texture,
                          const DisplayItem& item, float part) {
    begin_quads(page, 1);
    for (std::size_t i = 0; i < 4; ++i)
        into_.vertices.push_back({at[i], texture[i], seen(color_at(item, at[i]), part)});
}

/// The color of a item at a point of the screen.
Color GroupMaker::color_at(const DisplayItem& item, Point at) const {
    if (!item.has_gradient) return item.color;
    const Point from = moved(item.gradient_from), to = moved(item.gradient_to);
    const float x = to.x - from.x, y = to.y - from.y;
    const float length = x * x + y * y;
    const float part = length > 0 ? std::clamp(((at.x - from.x) * x + (at.y - from.y) * y) / length, 0.0F, 1.0F) : 0;
    return between(item.color, item.end_color, part);
}

Color GroupMaker::between(Color a, Color b, float part) {
    const auto mixed = [part](std::uint8_t from, std::uint8_t to) {
        return static_cast<std::uint8_t>(static_cast<float>(from) +
                                         (static_cast<float>(to) - static_cast<float>(from)) * part + 0.5F);
    };
    return {mixed(a.red, b.red), mixed(a.green, b.green), mixed(a.blue, b.blue), mixed(a.alpha, b.alpha)};
}

void GroupMaker::add_texels(AtlasIndex index, const Cell& cell, const PixelRect& texels, bool flip_x, bool flip_y,
                            const Bounds& inside, const DisplayItem& item) {
    const AtlasEntry& entry = atlas_.entries[index];
    const AtlasPages::Page& page = atlas_.pages[entry.page];
    std::array<Span, 3> columns, rows;
    const float left = static_cast<float>(cell.x), top = static_cast<float>(cell.y);
    const int column_count = spans_of(left, left + static_cast<float>(cell.width), inside.left, inside.right, columns);
    const int row_count = spans_of(top, top + static_cast<float>(cell.height), inside.top, inside.bottom, rows);
    const auto texture = [&](float at, float begin, int size, int first, int count, bool flips, int whole) {
        float part = (at - begin) / static_cast<float>(size);
        if (flips) part = 1 - part;
        return (static_cast<float>(first) + part * static_cast<float>(count)) / static_cast<float>(whole);
    };
    for (int r = 0; r < row_count; ++r)
        for (int c = 0; c < column_count; ++c) {
            const Span& x = columns[static_cast<std::size_t>(c)];
            const Span& y = rows[static_cast<std::size_t>(r)];
            const auto u = [&](float at) {
                return texture(at, left, cell.width, entry.at.x + texels.x, texels.width, flip_x, page.width);
            };
            const auto v = [&](float at) {
                return texture(at, top, cell.height, entry.at.y + texels.y, texels.height, flip_y, page.height);
            };
            add_quad(entry.page, corners({x.from, y.from, x.to, y.to}),
                     corners({u(x.from), v(y.from), u(x.to), v(y.to)}), item, x.part * y.part);
        }
    use(index);
}

/// A rectangle, exactly as far as it covers pixels. A gradient along an axis is divided where it begins and ends.
void GroupMaker::add_solid(const Bounds& rect, const DisplayItem& item) {
    if (rect.is_empty()) return;
    if (item.has_gradient) {
        const Point from = moved(item.gradient_from), to = moved(item.gradient_to);
        const bool along_x = from.y == to.y, along_y = from.x == to.x;
        if (along_x || along_y) {
            const float low = along_x ? std::min(from.x, to.x) : std::min(from.y, to.y);
            const float high = along_x ? std::max(from.x, to.x) : std::max(from.y, to.y);
            const float begin = along_x ? rect.left : rect.top, end = along_x ? rect.right : rect.bottom;
            float at = begin;
            for (const float stop : {std::round(low), std::round(high), end}) {
                const float next = std::clamp(stop, at, end);
                if (next > at)
                    add_plain(
                        along_x ? Bounds{at, rect.top, next, rect.bottom} : Bounds{rect.left, at, rect.right, next},
                        item);
                at = next;
            }
            return;
        }
    }
    add_plain(rect, item);
}

void GroupMaker::add_plain(const Bounds& rect, const DisplayItem& item) {
    std::array<Span, 3> columns, rows;
    const int column_count = spans_of(std::floor(rect.left), std::ceil(rect.right), rect.left, rect.right, columns);
    const int row_count = spans_of(std::floor(rect.top), std::ceil(rect.bottom), rect.top, rect.bottom, rows);
    for (int r = 0; r < row_count; ++r)
        for (int c = 0; c < column_count; ++c) {
            const Span& x = columns[static_cast<std::size_t>(c)];
            const Span& y = rows[static_cast<std::size_t>(r)];
            add_quad(0, corners({x.from, y.from, x.to, y.to}), {atlas_.white, atlas_.white, atlas_.white, atlas_.white},
                     item, x.part * y.part);
        }
}

/// A rectangle of the group, through its transform, with all of an entry over it.
void GroupMaker::add_turned(AtlasIndex index, const Rect& rect, const DisplayItem& item, const Bounds& clip) {
    const AtlasEntry& entry = atlas_.entries[index];
    const AtlasPages::Page& page = atlas_.pages[entry.page];
    const Bounds whole = bounds_of(rect), part = common_part(whole, clip);
    if (part.is_empty()) return;
    const auto u = [&](float x) {
        return (static_cast<float>(entry.at.x) + (x - rect.x) / rect.width * static_cast<float>(entry.at.width)) /
               static_cast<float>(page.width);
    };
    const auto v = [&](float y) {
        return (static_cast<float>(entry.at.y) + (y - rect.y) / rect.height * static_cast<float>(entry.at.height)) /
               static_cast<float>(page.height);
    };
    std::array<Point, 4> at = corners(part);
    for (Point& corner : at)
        corner = moved(corner);
    add_quad(entry.page, at, corners({u(part.left), v(part.top), u(part.right), v(part.bottom)}), item, 1);
    use(index);
}

}  // namespace rapido
