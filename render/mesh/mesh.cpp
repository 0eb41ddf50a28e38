#include "rapido/mesh.hpp"

#include <algorithm>
#include <cmath>
#include <cstring>

#include "draw/blur.hpp"
#include "draw/outline.hpp"
#include "render/mesh/atlas.hpp"

namespace rapido {
namespace {

/// The parts of a texture key that say what it is of.
enum class Made : int { white, glyph, corner, shape, text, image, silhouette, baked };

struct Bounds {
    float left, top, right, bottom;
    bool is_empty() const { return !(right > left && bottom > top); }
};
Bounds bounds_of(const Rect& rect) {
    return {rect.x, rect.y, rect.right(), rect.bottom()};
}
Bounds common_part(const Bounds& a, const Bounds& b) {
    return {std::max(a.left, b.left), std::max(a.top, b.top), std::min(a.right, b.right),
            std::min(a.bottom, b.bottom)};
}
constexpr Bounds everywhere{-1e6F, -1e6F, 1e6F, 1e6F};

/// A part of a line of pixels that is covered as much everywhere.
struct Span {
    float from, to;
    float part;
};

/// Whole pixels from `first` to `last` as far as they lie between two edges: up to three parts.
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
    if (to - whole_to > 1e-3F)
        spans[static_cast<std::size_t>(count++)] = {whole_to, whole_to + 1, to - whole_to};
    return count;
}

/// The triangles of one group.
struct GroupMesh {
    std::uint64_t revision = 0;
    bool is_made = false;
    std::vector<MeshVertex>
        vertices;  ///< four for each quad: upper left, upper right, lower left, lower right
    struct Run {
        std::uint32_t page, quads;
        friend bool operator==(const Run&, const Run&) = default;
    };
    std::vector<Run> runs;
    std::vector<AtlasIndex> used;
};

/// Makes the triangles of a group.
class GroupMaker {
 public:
    GroupMaker(AtlasPages& atlas, const DrawGroup& group, GroupMesh& into)
        : atlas_(atlas), group_(group), into_(into), adds_light_(group.blend == Blend::add) {
        const Transform& t = group.transform();
        moves_only_ = t.xx == 1 && t.xy == 0 && t.yx == 0 && t.yy == 1;
        // What is drawn larger is made larger, in steps.
        const float grown = std::max(std::hypot(t.xx, t.yx), std::hypot(t.xy, t.yy));
        scale_ = moves_only_ ? 1 : grown <= 1.01F ? 1.0F : std::min(std::ceil(grown * 2) / 2, 4.0F);
    }

    bool is_complete = true;

    void make() {
        for (const DrawCommand& command : group_.commands())
            draw(command);
    }

 private:
    // --- Quads

    Point moved(Point point) const {
        const Transform& t = group_.transform();
        return moves_only_ ? Point{point.x + t.dx, point.y + t.dy} : t.apply(point);
    }
    Rect moved(const Rect& rect) const {
        const Point at = moved(Point{rect.x, rect.y});
        return {at.x, at.y, rect.width, rect.height};
    }

    std::array<std::uint8_t, 4> seen(Color color, float part) const {
        const float alpha = static_cast<float>(color.alpha) / 255 * part;
        const auto channel = [&](std::uint8_t straight) {
            return static_cast<std::uint8_t>(static_cast<float>(straight) * alpha + 0.5F);
        };
        return {channel(color.red), channel(color.green), channel(color.blue),
                adds_light_ ? std::uint8_t{0} : static_cast<std::uint8_t>(255 * alpha + 0.5F)};
    }

    void use(AtlasIndex index) {
        if (std::find(into_.used.begin(), into_.used.end(), index) != into_.used.end()) return;
        into_.used.push_back(index);
        ++atlas_.entries[index].users;
    }

    void begin_quad(std::uint32_t page) {
        if (into_.runs.empty() || into_.runs.back().page != page) into_.runs.push_back({page, 0});
        ++into_.runs.back().quads;
    }
    /// Corners in the order of a `GroupMesh`.
    void add_quad(std::uint32_t page, const std::array<Point, 4>& at, const std::array<Point, 4>& texture,
                  const DrawCommand& command, float part) {
        begin_quad(page);
        for (std::size_t i = 0; i < 4; ++i)
            into_.vertices.push_back({at[i], texture[i], seen(color_at(command, at[i]), part)});
    }
    static std::array<Point, 4> corners(const Bounds& b) {
        return {Point{b.left, b.top}, Point{b.right, b.top}, Point{b.left, b.bottom},
                Point{b.right, b.bottom}};
    }

    /// The color of a command at a point of the screen.
    Color color_at(const DrawCommand& command, Point at) const {
        if (!command.has_gradient) return command.color;
        const Point from = moved(command.gradient_from), to = moved(command.gradient_to);
        const float x = to.x - from.x, y = to.y - from.y;
        const float length = x * x + y * y;
        const float part =
            length > 0 ? std::clamp(((at.x - from.x) * x + (at.y - from.y) * y) / length, 0.0F, 1.0F) : 0;
        return between(command.color, command.end_color, part);
    }
    static Color between(Color a, Color b, float part) {
        const auto mixed = [part](std::uint8_t from, std::uint8_t to) {
            return static_cast<std::uint8_t>(
                static_cast<float>(from) + (static_cast<float>(to) - static_cast<float>(from)) * part + 0.5F);
        };
        return {mixed(a.red, b.red), mixed(a.green, b.green), mixed(a.blue, b.blue), mixed(a.alpha, b.alpha)};
    }

    /// Texels over whole pixels, as far as they lie inside of edges that may cut through pixels. A flip mirrors them.
    struct Cell {
        int x, y, width, height;
    };
    void add_texels(AtlasIndex index, const Cell& cell, const PixelRect& texels, bool flip_x, bool flip_y,
                    const Bounds& inside, const DrawCommand& command) {
        const AtlasEntry& entry = atlas_.entries[index];
        const AtlasPages::Page& page = atlas_.pages[entry.page];
        std::array<Span, 3> columns, rows;
        const float left = static_cast<float>(cell.x), top = static_cast<float>(cell.y);
        const int column_count =
            spans_of(left, left + static_cast<float>(cell.width), inside.left, inside.right, columns);
        const int row_count =
            spans_of(top, top + static_cast<float>(cell.height), inside.top, inside.bottom, rows);
        const auto texture = [&](float at, float begin, int size, int first, int count, bool flips,
                                 int whole) {
            float part = (at - begin) / static_cast<float>(size);
            if (flips) part = 1 - part;
            return (static_cast<float>(first) + part * static_cast<float>(count)) / static_cast<float>(whole);
        };
        for (int r = 0; r < row_count; ++r)
            for (int c = 0; c < column_count; ++c) {
                const Span& x = columns[static_cast<std::size_t>(c)];
                const Span& y = rows[static_cast<std::size_t>(r)];
                const auto u = [&](float at) {
                    return texture(at, left, cell.width, entry.at.x + texels.x, texels.width, flip_x,
                                   page.width);
                };
                const auto v = [&](float at) {
                    return texture(at, top, cell.height, entry.at.y + texels.y, texels.height, flip_y,
                                   page.height);
                };
                add_quad(entry.page, corners({x.from, y.from, x.to, y.to}),
                         corners({u(x.from), v(y.from), u(x.to), v(y.to)}), command, x.part * y.part);
            }
        use(index);
    }

    /// A rectangle, exactly as far as it covers pixels. A gradient along an axis is divided where it begins and ends.
    void add_solid(const Bounds& rect, const DrawCommand& command) {
        if (rect.is_empty()) return;
        if (command.has_gradient) {
            const Point from = moved(command.gradient_from), to = moved(command.gradient_to);
            const bool along_x = from.y == to.y, along_y = from.x == to.x;
            if (along_x || along_y) {
                const float low = along_x ? std::min(from.x, to.x) : std::min(from.y, to.y);
                const float high = along_x ? std::max(from.x, to.x) : std::max(from.y, to.y);
                const float begin = along_x ? rect.left : rect.top, end = along_x ? rect.right : rect.bottom;
                float at = begin;
                for (const float stop : {std::round(low), std::round(high), end}) {
                    const float next = std::clamp(stop, at, end);
                    if (next > at)
                        add_plain(along_x ? Bounds{at, rect.top, next, rect.bottom}
                                          : Bounds{rect.left, at, rect.right, next},
                                  command);
                    at = next;
                }
                return;
            }
        }
        add_plain(rect, command);
    }
    void add_plain(const Bounds& rect, const DrawCommand& command) {
        std::array<Span, 3> columns, rows;
        const int column_count =
            spans_of(std::floor(rect.left), std::ceil(rect.right), rect.left, rect.right, columns);
        const int row_count =
            spans_of(std::floor(rect.top), std::ceil(rect.bottom), rect.top, rect.bottom, rows);
        for (int r = 0; r < row_count; ++r)
            for (int c = 0; c < column_count; ++c) {
                const Span& x = columns[static_cast<std::size_t>(c)];
                const Span& y = rows[static_cast<std::size_t>(r)];
                add_quad(0, corners({x.from, y.from, x.to, y.to}),
                         {atlas_.white, atlas_.white, atlas_.white, atlas_.white}, command, x.part * y.part);
            }
    }

    // --- What is made once and kept

    AtlasKey key_of(Made what) const {
        AtlasKey key;
        key.add(static_cast<int>(what));
        return key;
    }

    /// Coverage by its key, made where it is not there; nowhere where there is no room.
    template <class Make>
    AtlasIndex covered(const AtlasKey& key, int width, int height, Make make) {
        if (const AtlasIndex known = atlas_.find(key); known != nowhere) return known;
        const AtlasIndex index = width > 0 && height > 0 ? atlas_.add(key, width, height) : nowhere;
        if (index == nowhere) {
            is_complete = false;
            return nowhere;
        }
        atlas_.coverage.reset(width, height);
        make(atlas_.rasterizer);
        atlas_.rasterizer.fill(atlas_.coverage);
        atlas_.put_coverage(index);
        return index;
    }

    /// A shape that is made in one piece: `make` adds it to the rasterizer, in the pixels of the draw list. It is blurred, and drawn
    /// through the transform.
    template <class Make>
    void add_shape(AtlasKey key, const Rect& bounds, const DrawCommand& command, const Bounds& clip,
                   Make make) {
        const int reach = command.blur > 0 ? blur_reach(command.blur * scale_) : 1;
        // Where only a shift is left, the shape is made for where it falls on the pixels.
        const Point shift = moves_only_ ? Point{group_.transform().dx, group_.transform().dy} : Point{};
        const float left = std::floor((bounds.x + shift.x) * scale_) - static_cast<float>(reach);
        const float top = std::floor((bounds.y + shift.y) * scale_) - static_cast<float>(reach);
        const float right = std::ceil((bounds.right() + shift.x) * scale_) + static_cast<float>(reach);
        const float bottom = std::ceil((bounds.bottom() + shift.y) * scale_) + static_cast<float>(reach);
        constexpr float most = 8000;
        if (!(right > left && bottom > top && right - left < most && bottom - top < most)) return;
        const int width = static_cast<int>(right - left), height = static_cast<int>(bottom - top);
        const Point origin{left / scale_ - shift.x, top / scale_ - shift.y};
        key.add(command.blur);
        key.add(scale_);
        key.add(width);
        key.add(height);
        key.add(bounds.x - origin.x);
        key.add(bounds.y - origin.y);
        AtlasIndex index = atlas_.find(key);
        if (index == nowhere) {
            index = atlas_.add(key, width, height);
            if (index == nowhere) {
                is_complete = false;
                return;
            }
            atlas_.coverage.reset(width, height);
            atlas_.rasterizer.begin(origin, scale_);
            make(atlas_.rasterizer);
            atlas_.rasterizer.fill(atlas_.coverage);
            if (command.blur > 0)
                blur_opacity(atlas_.coverage.bytes.data(), width, height, width, command.blur * scale_);
            atlas_.put_coverage(index);
        }
        const PixelRect whole{0, 0, width, height};
        if (moves_only_) {
            add_texels(index, {static_cast<int>(left), static_cast<int>(top), width, height}, whole, false,
                       false, clip, command);
            return;
        }
        add_turned(
            index,
            {origin.x, origin.y, static_cast<float>(width) / scale_, static_cast<float>(height) / scale_},
            command, clip);
    }
    void add_points(AtlasKey& key, std::span<const Point> points, Point origin) const {
        for (const Point& point : points) {
            key.add(point.x - origin.x);
            key.add(point.y - origin.y);
        }
        key.add(static_cast<int>(points.size()));
    }

    /// A rectangle of the group, through its transform, with all of an entry over it.
    void add_turned(AtlasIndex index, const Rect& rect, const DrawCommand& command, const Bounds& clip) {
        const AtlasEntry& entry = atlas_.entries[index];
        const AtlasPages::Page& page = atlas_.pages[entry.page];
        const Bounds whole = bounds_of(rect), part = common_part(whole, clip);
        if (part.is_empty()) return;
        const auto u = [&](float x) {
            return (static_cast<float>(entry.at.x) +
                    (x - rect.x) / rect.width * static_cast<float>(entry.at.width)) /
                   static_cast<float>(page.width);
        };
        const auto v = [&](float y) {
            return (static_cast<float>(entry.at.y) +
                    (y - rect.y) / rect.height * static_cast<float>(entry.at.height)) /
                   static_cast<float>(page.height);
        };
        std::array<Point, 4> at = corners(part);
        for (Point& corner : at)
            corner = moved(corner);
        add_quad(entry.page, at, corners({u(part.left), v(part.top), u(part.right), v(part.bottom)}), command,
                 1);
        use(index);
    }

    // --- Commands

    void draw(const DrawCommand& command) {
        switch (command.kind) {
            case DrawCommand::Kind::rect:
                return draw_rect(command);
            case DrawCommand::Kind::border:
                return draw_border(command);
            case DrawCommand::Kind::text:
                return draw_text(command);
            case DrawCommand::Kind::line:
                return draw_points(command);
            case DrawCommand::Kind::polygon:
                return draw_points(command);
            case DrawCommand::Kind::image:
                return draw_image(command);
        }
    }

    /// The clip of a command, where it has one, on the screen for what only moves, and in the group for all else.
    Bounds clip_of(const DrawCommand& command) const {
        const bool is_cut = command.clip.width > 0 && command.clip != command.rect;
        if (!is_cut) return everywhere;
        return bounds_of(moves_only_ ? moved(command.clip) : command.clip);
    }

    void draw_rect(const DrawCommand& command) {
        if (command.rect.width <= 0 || command.rect.height <= 0) return;
        const Bounds clip = clip_of(command);
        const float radius =
            std::clamp(command.radius, 0.0F, std::min(command.rect.width, command.rect.height) / 2);
        if (command.blur > 0 || !moves_only_) {
            AtlasKey key = key_of(Made::shape);
            for (const float number : {command.rect.width, command.rect.height, radius})
                key.add(number);
            return add_shape(key, command.rect, command, clip,
                             [&](Rasterizer& on) { on.add_rounded(command.rect, radius); });
        }
        const Rect rect = moved(command.rect);
        if (radius <= 0) return add_solid(common_part(bounds_of(rect), clip), command);
        add_sliced(rect, radius, 0, command, clip);
    }

    void draw_border(const DrawCommand& command) {
        const Rect& rect = command.rect;
        const float thickness = command.thickness;
        if (rect.width <= 0 || rect.height <= 0 || !(thickness > 0)) return;
        const float radius = std::clamp(command.radius, 0.0F, std::min(rect.width, rect.height) / 2);
        if (command.blur > 0 || !moves_only_) {
            AtlasKey key = key_of(Made::shape);
            for (const float number : {rect.width, rect.height, radius, thickness})
                key.add(number);
            return add_shape(key, rect, command, everywhere, [&](Rasterizer& on) {
                on.add_rounded(rect, radius);
                on.add_rounded(rect.inset({thickness, thickness, thickness, thickness}),
                               std::max(radius - thickness, 0.0F), true);
            });
        }
        add_sliced(moved(rect), radius, thickness, command, everywhere);
    }

    /// A rectangle with round corners, or a line along its inside: four corners, of which one is made, and what lies between them.
    void add_sliced(const Rect& rect, float radius, float thickness, const DrawCommand& command,
                    const Bounds& clip) {
        const int left = static_cast<int>(std::floor(rect.x)), top = static_cast<int>(std::floor(rect.y));
        const int right = static_cast<int>(std::ceil(rect.right())),
                  bottom = static_cast<int>(std::ceil(rect.bottom()));
        const int side = static_cast<int>(std::ceil(std::max(radius, thickness))) + 1;
        if (right - left < 2 * side || bottom - top < 2 * side) {
            // Too small to be divided.
            AtlasKey key = key_of(Made::shape);
            for (const float number : {rect.width, rect.height, radius, thickness,
                                       rect.x - std::floor(rect.x), rect.y - std::floor(rect.y)})
                key.add(number);
            const Point origin{static_cast<float>(left), static_cast<float>(top)};
            const AtlasIndex index = covered(key, right - left, bottom - top, [&](Rasterizer& on) {
                add_ring(on, origin, rect, radius, thickness);
            });
            if (index == nowhere) return;
            const Cell cell{left, top, right - left, bottom - top};
            return add_texels(index, cell, {0, 0, cell.width, cell.height}, false, false, clip, command);
        }
        // How far the edges are from those of the pixels.
        const float from_left = rect.x - static_cast<float>(left),
                    from_top = rect.y - static_cast<float>(top);
        const float from_right = static_cast<float>(right) - rect.right(),
                    from_bottom = static_cast<float>(bottom) - rect.bottom();
        const auto add_corner = [&](bool is_right, bool is_bottom) {
            const float across = is_right ? from_right : from_left, down = is_bottom ? from_bottom : from_top;
            AtlasKey key = key_of(Made::corner);
            for (const float number : {radius, thickness, across, down})
                key.add(number);
            const float far = static_cast<float>(4 * side);
            const AtlasIndex index = covered(key, side, side, [&](Rasterizer& on) {
                add_ring(on, {}, {across, down, far, far}, radius, thickness);
            });
            if (index == nowhere) return;
            add_texels(index, {is_right ? right - side : left, is_bottom ? bottom - side : top, side, side},
                       {0, 0, side, side}, is_right, is_bottom, clip, command);
        };
        for (const bool is_bottom : {false, true})
            for (const bool is_right : {false, true})
                add_corner(is_right, is_bottom);
        const float inner_left = static_cast<float>(left + side),
                    inner_right = static_cast<float>(right - side);
        const float inner_top = static_cast<float>(top + side),
                    inner_bottom = static_cast<float>(bottom - side);
        const auto add_part = [&](const Bounds& part) { add_solid(common_part(part, clip), command); };
        if (thickness > 0) {
            add_part({inner_left, rect.y, inner_right, rect.y + thickness});
            add_part({inner_left, rect.bottom() - thickness, inner_right, rect.bottom()});
            add_part({rect.x, inner_top, rect.x + thickness, inner_bottom});
            add_part({rect.right() - thickness, inner_top, rect.right(), inner_bottom});
            return;
        }
        add_part({inner_left, rect.y, inner_right, rect.bottom()});
        add_part({rect.x, inner_top, inner_left, inner_bottom});
        add_part({inner_right, inner_top, rect.right(), inner_bottom});
    }

    static void add_ring(Rasterizer& on, Point origin, const Rect& rect, float radius, float thickness) {
        on.begin(origin);
        on.add_rounded(rect, radius);
        if (thickness > 0)
            on.add_rounded(rect.inset({thickness, thickness, thickness, thickness}),
                           std::max(radius - thickness, 0.0F), true);
    }

    void draw_points(const DrawCommand& command) {
        const std::span<const Point> points = group_.points_of(command);
        if (points.empty()) return;
        const bool is_line = command.kind == DrawCommand::Kind::line;
        if (!is_line && command.has_mask) return draw_masked(command, points);
        if (!is_line && moves_only_ && command.blur <= 0 && is_rect(points)) {
            const auto [low, high] = std::minmax_element(
                points.begin(), points.end(), [](Point a, Point b) { return a.x + a.y < b.x + b.y; });
            return add_solid(bounds_of(moved(Rect{low->x, low->y, high->x - low->x, high->y - low->y})),
                             command);
        }
        const float around = is_line ? command.thickness / 2 : 0;
        const Rect bounds = bounds_of_points(points).inset({-around, -around, -around, -around});
        AtlasKey key = key_of(Made::shape);
        key.add(static_cast<int>(command.kind));
        key.add(command.thickness);
        add_points(key, points, {std::floor(bounds.x), std::floor(bounds.y)});
        add_shape(key, bounds, command, everywhere, [&](Rasterizer& on) {
            if (is_line)
                on.add_line(points, command.thickness);
            else
                on.add(points);
        });
    }
    static bool is_rect(std::span<const Point> p) {
        return p.size() == 4 &&
               ((p[0].x == p[3].x && p[1].x == p[2].x && p[0].y == p[1].y && p[2].y == p[3].y) ||
                (p[0].x == p[1].x && p[2].x == p[3].x && p[0].y == p[3].y && p[1].y == p[2].y));
    }
    static Rect bounds_of_points(std::span<const Point> points) {
        Bounds all{points[0].x, points[0].y, points[0].x, points[0].y};
        for (const Point& point : points)
            all = {std::min(all.left, point.x), std::min(all.top, point.y), std::max(all.right, point.x),
                   std::max(all.bottom, point.y)};
        return {all.left, all.top, all.right - all.left, all.bottom - all.top};
    }

    void draw_text(const DrawCommand& command) {
        const std::span<const Glyph> glyphs = group_.glyphs_of(command);
        const Bounds clip = clip_of(command);
        // What covers itself is made in one piece: light of several characters, and lines that are seen through.
        if (command.blur > 0 || (command.outline > 0 && command.color.alpha < 255)) {
            const float around = command.size + command.outline;
            const Rect bounds{command.baseline.x - around / 2, command.baseline.y - around - command.size / 4,
                              command.width + around, 2 * around};
            AtlasKey key = key_of(Made::text);
            key.add(command.size);
            key.add(command.outline);
            key.add(command.baseline.x - std::floor(command.baseline.x));
            key.add(command.baseline.y - std::floor(command.baseline.y));
            for (const Glyph& glyph : glyphs) {
                key.add(std::uint64_t{glyph.id} << 32U | glyph.font);
                key.add(glyph.offset.x);
                key.add(glyph.offset.y);
            }
            return add_shape(key, bounds, command, clip, [&](Rasterizer& on) {
                for (const Glyph& glyph : glyphs)
                    on.add_glyph(face(glyph.font), glyph.id, at(command, glyph), command.size);
                on.widen(command.outline);
            });
        }
        for (const Glyph& glyph : glyphs)
            draw_glyph(command, glyph, clip);
    }
    FT_Face face(FontId font) const { return static_cast<FT_Face>(atlas_.fonts.face(font)); }
    static Point at(const DrawCommand& command, const Glyph& glyph) {
        return {command.baseline.x + glyph.offset.x, command.baseline.y + glyph.offset.y};
    }

    /// Characters are made for four places within a pixel, each way.
    void draw_glyph(const DrawCommand& command, const Glyph& glyph, const Bounds& clip) {
        constexpr float places = 4;
        const float size = command.size * scale_;
        if (!(size > 0.25F) || size > 2000) return;
        Point begin = at(command, glyph);
        if (moves_only_) begin = moved(begin);
        const float x = std::round(begin.x * scale_ * places) / places,
                    y = std::round(begin.y * scale_ * places) / places;
        const float whole_x = std::floor(x), whole_y = std::floor(y);
        AtlasKey key = key_of(Made::glyph);
        key.add(std::uint64_t{glyph.id} << 32U | glyph.font);
        key.add(size);
        key.add(command.outline * scale_);
        key.add(x - whole_x);
        key.add(y - whole_y);
        AtlasIndex index = atlas_.find(key);
        if (index == nowhere)
            index = make_glyph(key, glyph, size, command.outline * scale_, {x - whole_x, y - whole_y});
        if (index == nowhere) return;
        const AtlasEntry& entry = atlas_.entries[index];
        const auto [left, top] = glyph_origins()[index];
        if (entry.at.width == 0) return;
        const PixelRect all{0, 0, entry.at.width, entry.at.height};
        const int cell_x = static_cast<int>(whole_x) + left, cell_y = static_cast<int>(whole_y) + top;
        if (moves_only_)
            return add_texels(index, {cell_x, cell_y, all.width, all.height}, all, false, false, clip,
                              command);
        add_turned(index,
                   {static_cast<float>(cell_x) / scale_, static_cast<float>(cell_y) / scale_,
                    static_cast<float>(all.width) / scale_, static_cast<float>(all.height) / scale_},
                   command, clip);
    }

    std::vector<std::array<int, 2>>& glyph_origins() const { return atlas_.glyph_origins; }

    AtlasIndex make_glyph(const AtlasKey& key, const Glyph& glyph, float size, float outline, Point part) {
        const FT_Face font = face(glyph.font);
        if (font == nullptr || FT_Load_Glyph(font, glyph.id, FT_LOAD_NO_SCALE | FT_LOAD_NO_BITMAP | FT_LOAD_IGNORE_TRANSFORM) != 0 ||
            font->units_per_EM == 0)
            return nowhere;
        FT_BBox box{};
        FT_Outline_Get_CBox(&font->glyph->outline, &box);
        if (box.xMax <= box.xMin || box.yMax <= box.yMin) return nowhere;  // a space
        const float scale = size / static_cast<float>(font->units_per_EM);
        const int left =
            static_cast<int>(std::floor(static_cast<float>(box.xMin) * scale + part.x - outline));
        const int right =
            static_cast<int>(std::ceil(static_cast<float>(box.xMax) * scale + part.x + outline));
        const int top = static_cast<int>(std::floor(part.y - static_cast<float>(box.yMax) * scale - outline));
        const int bottom =
            static_cast<int>(std::ceil(part.y - static_cast<float>(box.yMin) * scale + outline));
        const AtlasIndex index = covered(key, right - left, bottom - top, [&](Rasterizer& on) {
            on.begin({static_cast<float>(left), static_cast<float>(top)});
            on.add_glyph(font, glyph.id, part, size);
            on.widen(outline);
        });
        if (index == nowhere) return nowhere;
        if (glyph_origins().size() <= index) glyph_origins().resize(index + 1);
        glyph_origins()[index] = {left, top};
        return index;
    }

    // --- Images

    bool read_image(ImageId image, Size& size) {
        if (atlas_.images == nullptr) return false;
        size = atlas_.images->size(image);
        if (!(size.width >= 1 && size.height >= 1)) return false;
        if (image >= atlas_.image_pixels.size()) atlas_.image_pixels.resize(image + std::size_t{1});
        std::vector<std::uint8_t>& pixels = atlas_.image_pixels[image];
        if (pixels.empty()) pixels = atlas_.images->pixels(image);
        return pixels.size() ==
               static_cast<std::size_t>(size.width) * static_cast<std::size_t>(size.height) * 4;
    }

    /// A part of an image with a row of its own edge around it, so that filtering stays inside. As a silhouette, it is white.
    AtlasIndex image_part(ImageId image, const PixelRect& part, bool as_silhouette) {
        AtlasKey key = key_of(as_silhouette ? Made::silhouette : Made::image);
        key.add(image);
        for (const int number : {part.x, part.y, part.width, part.height})
            key.add(number);
        if (const AtlasIndex known = atlas_.find(key); known != nowhere) return known;
        Size size;
        if (!read_image(image, size)) return nowhere;
        const AtlasIndex index = atlas_.add(key, part.width + 2, part.height + 2);
        if (index == nowhere) {
            is_complete = false;
            return nowhere;
        }
        std::vector<std::uint8_t>& texels = atlas_.texels;
        texels.resize(static_cast<std::size_t>(part.width + 2) * static_cast<std::size_t>(part.height + 2) *
                      4);
        std::size_t at = 0;
        for (int y = -1; y <= part.height; ++y)
            for (int x = -1; x <= part.width; ++x, at += 4) {
                const std::uint8_t* const texel =
                    texel_of(image, size, part.x + std::clamp(x, 0, part.width - 1),
                             part.y + std::clamp(y, 0, part.height - 1));
                for (std::size_t i = 0; i < 4; ++i)
                    texels[at + i] = as_silhouette ? texel[3] : texel[i];
            }
        atlas_.put(index, texels.data());
        return index;
    }
    const std::uint8_t* texel_of(ImageId image, Size size, int x, int y) const {
        const int wide = static_cast<int>(size.width), high = static_cast<int>(size.height);
        const auto at =
            static_cast<std::size_t>(std::clamp(y, 0, high - 1)) * static_cast<std::size_t>(wide) +
            static_cast<std::size_t>(std::clamp(x, 0, wide - 1));
        return atlas_.image_pixels[image].data() + at * 4;
    }

    void draw_image(const DrawCommand& command) {
        const Rect& rect = command.rect;
        Size size;
        if (rect.width <= 0 || rect.height <= 0 || !read_image(command.image, size)) return;
        const std::span<const Point> cut = group_.points_of(command);
        const bool is_turned = !moves_only_ || !command.transform.is_identity();
        const bool is_simple = !command.has_mask && !command.has_map && command.blur <= 0 && command.smooth &&
                               (cut.empty() || (is_rect(cut) && !is_turned));
        if (!is_simple) return draw_baked(command, size, cut);
        const PixelRect part{static_cast<int>(command.source.x), static_cast<int>(command.source.y),
                             std::max(1, static_cast<int>(command.source.width)),
                             std::max(1, static_cast<int>(command.source.height))};
        Bounds clip = everywhere;
        if (!cut.empty()) clip = bounds_of(moved(bounds_of_points(cut)));
        const auto put = [&](bool as_silhouette, const DrawCommand& as, bool only_light) {
            const AtlasIndex index = image_part(command.image, part, as_silhouette);
            if (index != nowhere) add_image(index, as, clip, only_light);
        };
        if (command.silhouette) return put(true, command, false);
        if (!(command.tint.part > 0)) return put(false, command, false);
        // Its own colors and those of the tint, each as far as it counts: the second adds no opacity.
        DrawCommand own = command, tinted = command;
        const float rest = 1 - command.tint.part;
        for (std::uint8_t Color::*const channel : {&Color::red, &Color::green, &Color::blue}) {
            own.color.*channel =
                static_cast<std::uint8_t>(static_cast<float>(command.color.*channel) * rest + 0.5F);
            tinted.color.*channel = static_cast<std::uint8_t>(
                static_cast<float>(command.tint.color.*channel) * command.tint.part + 0.5F);
        }
        put(false, own, false);
        put(true, tinted, true);
    }

    /// Over its rectangle, whose edges may cut through pixels.
    void add_image(AtlasIndex index, const DrawCommand& command, const Bounds& clip, bool only_light) {
        const AtlasEntry& entry = atlas_.entries[index];
        const AtlasPages::Page& page = atlas_.pages[entry.page];
        const Rect& rect = command.rect;
        const auto u = [&](float part) {
            return (static_cast<float>(entry.at.x + 1) + part * static_cast<float>(entry.at.width - 2)) /
                   static_cast<float>(page.width);
        };
        const auto v = [&](float part) {
            return (static_cast<float>(entry.at.y + 1) + part * static_cast<float>(entry.at.height - 2)) /
                   static_cast<float>(page.height);
        };
        const bool before = std::exchange(adds_light_, adds_light_ || only_light);
        if (moves_only_ && command.transform.is_identity()) {
            const Rect at = moved(rect);
            const Bounds inside = common_part(bounds_of(at), clip);
            std::array<Span, 3> columns, rows;
            const int column_count =
                spans_of(std::floor(at.x), std::ceil(at.right()), inside.left, inside.right, columns);
            const int row_count =
                spans_of(std::floor(at.y), std::ceil(at.bottom()), inside.top, inside.bottom, rows);
            for (int r = 0; r < row_count; ++r)
                for (int c = 0; c < column_count; ++c) {
                    const Span& x = columns[static_cast<std::size_t>(c)];
                    const Span& y = rows[static_cast<std::size_t>(r)];
                    const auto across = [&](float along) {
                        return u(std::clamp((along - at.x) / at.width, 0.0F, 1.0F));
                    };
                    const auto down = [&](float along) {
                        return v(std::clamp((along - at.y) / at.height, 0.0F, 1.0F));
                    };
                    add_quad(entry.page, corners({x.from, y.from, x.to, y.to}),
                             corners({across(x.from), down(y.from), across(x.to), down(y.to)}), command,
                             x.part * y.part);
                }
        } else {
            std::array<Point, 4> at = corners(bounds_of(rect));
            for (Point& corner : at)
                corner = moved(command.transform.apply(corner));
            add_quad(entry.page, at, corners({u(0), v(0), u(1), v(1)}), command, 1);
        }
        adds_light_ = before;
        use(index);
    }

    /// A polygon whose opacity is that of an image over its rectangle.
    void draw_masked(const DrawCommand& command, std::span<const Point> points) {
        Size size;
        if (!read_image(command.mask, size)) return;
        bake(command, bounds_of_points(points), points, {}, false);
    }

    void draw_baked(const DrawCommand& command, Size size, std::span<const Point> cut) {
        (void)size;
        bake(command, command.rect, cut, command.source, true);
    }

    /// What one quad cannot do is drawn here, pixel by pixel, and kept as an image of the size in which it is seen.
    void bake(const DrawCommand& command, const Rect& bounds, std::span<const Point> cut, const Rect& source,
              bool has_image) {
        const Transform own = has_image ? command.transform : Transform{};
        const bool is_turned = !moves_only_ || !own.is_identity();
        const int reach = command.blur > 0 ? blur_reach(command.blur) : 1;
        const Point shift = is_turned ? Point{} : Point{group_.transform().dx, group_.transform().dy};
        const float left = std::floor(bounds.x + shift.x) - static_cast<float>(reach),
                    top = std::floor(bounds.y + shift.y) - static_cast<float>(reach);
        const float right = std::ceil(bounds.right() + shift.x) + static_cast<float>(reach),
                    bottom = std::ceil(bounds.bottom() + shift.y) + static_cast<float>(reach);
        if (!(right > left && bottom > top && right - left < 4096 && bottom - top < 4096)) return;
        const int width = static_cast<int>(right - left), height = static_cast<int>(bottom - top);
        const Point origin{left - shift.x, top - shift.y};
        const bool as_mask = !has_image || command.silhouette || command.blur > 0;
        AtlasKey key = key_of(Made::baked);
        key.add(has_image ? command.image : nowhere);
        key.add(command.has_mask ? command.mask : nowhere);
        key.add(command.has_map ? command.map : nowhere);
        for (const float number :
             {source.x, source.y, source.width, source.height, command.rect.x - left, command.rect.y - top,
              command.rect.width, command.rect.height, command.blur, command.map_from * 256,
              command.map_to * 256, command.map_softness * 256, shift.x - std::floor(shift.x),
              shift.y - std::floor(shift.y)})
            key.add(number);
        key.add(static_cast<int>(command.smooth) + 2 * static_cast<int>(as_mask));
        add_points(key, cut, {left, top});
        key.add(width);
        key.add(height);
        if (!as_mask) {
            key.add(command.color.red << 16 | command.color.green << 8 | command.color.blue);
            key.add(command.tint.color.red << 16 | command.tint.color.green << 8 | command.tint.color.blue);
            key.add(command.tint.part * 16);
        }
        AtlasIndex index = atlas_.find(key);
        if (index == nowhere) {
            index = atlas_.add(key, width, height);
            if (index == nowhere) {
                is_complete = false;
                return;
            }
            draw_pixels(command, cut, source, has_image, origin, width, height);
            if (as_mask) {
                if (command.blur > 0)
                    blur_opacity(atlas_.coverage.bytes.data(), width, height, width, command.blur);
                atlas_.put_coverage(index);
            } else {
                atlas_.put(index, atlas_.texels.data());
            }
        }
        DrawCommand as = command;
        if (!as_mask) as.color = {255, 255, 255, command.color.alpha};
        if (!is_turned)
            return add_texels(index, {static_cast<int>(left), static_cast<int>(top), width, height},
                              {0, 0, width, height}, false, false, everywhere, as);
        std::array<Point, 4> at = corners({origin.x, origin.y, origin.x + static_cast<float>(width),
                                           origin.y + static_cast<float>(height)});
        for (Point& corner : at)
            corner = moved(own.apply(corner));
        const AtlasEntry& entry = atlas_.entries[index];
        const AtlasPages::Page& page = atlas_.pages[entry.page];
        const auto texture = [](int first, int count, int whole) {
            return std::pair(static_cast<float>(first) / static_cast<float>(whole),
                             static_cast<float>(first + count) / static_cast<float>(whole));
        };
        const auto [u0, u1] = texture(entry.at.x, entry.at.width, page.width);
        const auto [v0, v1] = texture(entry.at.y, entry.at.height, page.height);
        add_quad(entry.page, at, corners({u0, v0, u1, v1}), as, 1);
        use(index);
    }

    /// Four channels of an image at a place that may lie between pixels.
    std::array<float, 4> sampled(ImageId image, Size size, const Rect& part, Point at, bool smooth) const {
        std::array<float, 4> sum{};
        const auto add = [&](int x, int y, float weight) {
            const int low_x = static_cast<int>(part.x), low_y = static_cast<int>(part.y);
            const std::uint8_t* const texel = texel_of(
                image, size, std::clamp(x, low_x, low_x + std::max(0, static_cast<int>(part.width) - 1)),
                std::clamp(y, low_y, low_y + std::max(0, static_cast<int>(part.height) - 1)));
            for (std::size_t i = 0; i < 4; ++i)
                sum[i] += weight * static_cast<float>(texel[i]);
        };
        if (!smooth) {
            add(static_cast<int>(std::floor(at.x)), static_cast<int>(std::floor(at.y)), 1);
            return sum;
        }
        const float x = at.x - 0.5F, y = at.y - 0.5F;
        const float left = std::floor(x), top = std::floor(y), across = x - left, down = y - top;
        add(static_cast<int>(left), static_cast<int>(top), (1 - across) * (1 - down));
        add(static_cast<int>(left) + 1, static_cast<int>(top), across * (1 - down));
        add(static_cast<int>(left), static_cast<int>(top) + 1, (1 - across) * down);
        add(static_cast<int>(left) + 1, static_cast<int>(top) + 1, across * down);
        return sum;
    }

    /// Fills `coverage` with opacities, and `texels` with colors.
    void draw_pixels(const DrawCommand& command, std::span<const Point> cut, const Rect& source,
                     bool has_image, Point origin, int width, int height) {
        const Rect& rect = command.rect;
        atlas_.coverage.reset(width, height);
        atlas_.rasterizer.begin(origin);
        if (!cut.empty())
            atlas_.rasterizer.add(cut);
        else
            atlas_.rasterizer.add_rounded(rect, 0);
        atlas_.rasterizer.fill(atlas_.coverage);
        atlas_.texels.resize(static_cast<std::size_t>(width) * static_cast<std::size_t>(height) * 4);
        Size image_size, mask_size, map_size;
        const bool has_mask = command.has_mask && read_image(command.mask, mask_size);
        const bool has_map = command.has_map && read_image(command.map, map_size);
        const bool is_there = has_image && read_image(command.image, image_size);
        for (int y = 0; y < height; ++y)
            for (int x = 0; x < width; ++x) {
                const auto at = static_cast<std::size_t>(y) * static_cast<std::size_t>(width) +
                                static_cast<std::size_t>(x);
                float opacity = static_cast<float>(atlas_.coverage.bytes[at]) / 255;
                std::array<float, 4> color{255, 255, 255, 255};
                if (opacity > 0) {
                    const Point part{(origin.x + static_cast<float>(x) + 0.5F - rect.x) / rect.width,
                                     (origin.y + static_cast<float>(y) + 0.5F - rect.y) / rect.height};
                    const auto over = [&](ImageId image, Size size, const Rect& of) {
                        return sampled(image, size, of, {of.x + part.x * of.width, of.y + part.y * of.height},
                                       command.smooth);
                    };
                    if (is_there) color = over(command.image, image_size, source);
                    if (has_mask)
                        opacity *=
                            over(command.mask, mask_size, {0, 0, mask_size.width, mask_size.height})[3] / 255;
                    if (has_map)
                        opacity *= reached(
                            command, over(command.map, map_size, {0, 0, map_size.width, map_size.height}));
                }
                const std::array<std::uint8_t, 3> factors{command.color.red, command.color.green,
                                                          command.color.blue};
                const std::array<std::uint8_t, 3> tints{command.tint.color.red, command.tint.color.green,
                                                        command.tint.color.blue};
                for (std::size_t i = 0; i < 3; ++i) {
                    const float own = color[i] * static_cast<float>(factors[i]) / 255;
                    const float tinted = static_cast<float>(tints[i]) * color[3] / 255;
                    atlas_.texels[at * 4 + i] = static_cast<std::uint8_t>(
                        (own + (tinted - own) * command.tint.part) * opacity + 0.5F);
                }
                atlas_.texels[at * 4 + 3] = static_cast<std::uint8_t>(color[3] * opacity + 0.5F);
                atlas_.coverage.bytes[at] = atlas_.texels[at * 4 + 3];
            }
    }
    /// How far a pixel of a map is drawn: see `DrawCommand::map`.
    static float reached(const DrawCommand& command, const std::array<float, 4>& texel) {
        if (texel[3] <= 0) return 0;
        const float gray = (0.2126F * texel[0] + 0.7152F * texel[1] + 0.0722F * texel[2]) / texel[3];
        const float edge = std::max(command.map_softness, 1e-6F);
        const auto limited = [](float part) { return std::clamp(part, 0.0F, 1.0F); };
        return limited((command.map_to - gray) / edge + 0.5F) *
               limited((gray - command.map_from) / edge + 0.5F) * texel[3] / 255;
    }

    AtlasPages& atlas_;
    const DrawGroup& group_;
    GroupMesh& into_;
    bool adds_light_;
    bool moves_only_;
    float scale_;
};

}  // namespace

struct Mesh::State {
    explicit State(AtlasPages& of) : atlas(of) {}
    ~State() { release_all(); }
    State(const State&) = delete;
    State& operator=(const State&) = delete;

    AtlasPages& atlas;
    std::uint64_t structure = 0;
    std::vector<GroupMesh> groups;
    std::vector<GroupMesh::Run> old_runs;
    std::vector<AtlasIndex> old_used;
    std::vector<MeshVertex> vertices;
    std::vector<std::uint32_t> indices;
    std::vector<MeshBatch> batches;
    Range changed;
    Status status;

    void release(std::vector<AtlasIndex>& used) {
        for (const AtlasIndex index : used)
            atlas.release(index);
        used.clear();
    }
    void release_all() {
        for (GroupMesh& group : groups)
            release(group.used);
    }

    void draw(const DrawList& list) {
        ++atlas.clock;
        const std::span<const DrawGroup> given = list.groups();
        bool is_other = false;
        if (list.structure() != structure || given.size() != groups.size()) {
            release_all();
            structure = list.structure();
            groups.resize(given.size());
            for (GroupMesh& group : groups)
                group.is_made = false;
            is_other = true;
        }
        std::size_t first_changed = SIZE_MAX, behind_changed = 0, at = 0;
        for (std::size_t i = 0; i < given.size(); ++i) {
            GroupMesh& group = groups[i];
            if (!group.is_made || group.revision != given[i].revision) {
                const std::size_t before = group.vertices.size();
                old_runs.swap(group.runs);
                make(given[i], group);
                is_other = is_other || before != group.vertices.size() || old_runs != group.runs;
                first_changed = std::min(first_changed, at);
                behind_changed = at + group.vertices.size();
                if (!is_other)
                    std::copy(group.vertices.begin(), group.vertices.end(),
                              vertices.begin() + static_cast<std::ptrdiff_t>(at));
            }
            at += group.vertices.size();
        }
        changed = {};
        if (is_other) {
            join(at);
            changed = {0, vertices.size()};
        } else if (behind_changed > 0) {
            changed = {first_changed, behind_changed - first_changed};
        }
    }

    void make(const DrawGroup& given, GroupMesh& group) {
        group.vertices.clear();
        group.runs.clear();
        // What it draws again stays where it is.
        old_used.swap(group.used);
        group.used.clear();
        GroupMaker maker(atlas, given, group);
        maker.make();
        release(old_used);
        group.revision = given.revision;
        group.is_made = true;
        if (!maker.is_complete && status)
            status = Problem{{},
                             "the atlas has no room for all that is drawn; some of it is left out",
                             "draw less at once, or larger pages",
                             ProblemCode::too_much,
                             Severity::warning};
    }

    /// All groups one after the other.
    void join(std::size_t count) {
        vertices.clear();
        vertices.reserve(count);
        batches.clear();
        std::uint32_t quads = 0;
        for (const GroupMesh& group : groups) {
            vertices.insert(vertices.end(), group.vertices.begin(), group.vertices.end());
            for (const GroupMesh::Run& run : group.runs) {
                if (batches.empty() || batches.back().page != run.page)
                    batches.push_back({quads * 6, 0, run.page});
                batches.back().index_count += run.quads * 6;
                quads += run.quads;
            }
        }
        for (auto quad = static_cast<std::uint32_t>(indices.size() / 6); quad < quads; ++quad)
            for (const std::uint32_t corner : {0U, 1U, 2U, 2U, 1U, 3U})
                indices.push_back(quad * 4 + corner);
    }
};

Mesh::Mesh(MeshAtlas& atlas) : state_(std::make_unique<State>(*atlas.state_)) {}
Mesh::~Mesh() = default;
Mesh::Mesh(Mesh&&) noexcept = default;
Mesh& Mesh::operator=(Mesh&&) noexcept = default;

void Mesh::draw(const DrawList& list) {
    state_->draw(list);
}
std::span<const MeshVertex> Mesh::vertices() const {
    return state_->vertices;
}
std::span<const std::uint32_t> Mesh::indices() const {
    return state_->indices;
}
std::span<const MeshBatch> Mesh::batches() const {
    return state_->batches;
}
Mesh::Range Mesh::changed() const {
    return state_->changed;
}
const Status& Mesh::status() const {
    return state_->status;
}

}  // namespace rapido
