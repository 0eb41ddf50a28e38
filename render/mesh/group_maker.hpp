// From the items of a group to quads.
#pragma once

#include <algorithm>
#include <array>
#include <cmath>
#include <cstdint>
#include <span>
#include <vector>

#include "draw/blur.hpp"
#include "draw/outline.hpp"
#include "rapido/mesh.hpp"
#include "render/mesh/atlas.hpp"

namespace rapido {

/// The parts of a texture key that say what it is of.
enum class Made : int { white, glyph, corner, shape, seen, text, image, silhouette, baked };

struct Bounds {
    float left, top, right, bottom;
    bool is_empty() const { return !(right > left && bottom > top); }
};
inline Bounds bounds_of(const Rect& rect) {
    return {rect.x, rect.y, rect.right(), rect.bottom()};
}
inline Bounds common_part(const Bounds& a, const Bounds& b) {
    return {std::max(a.left, b.left), std::max(a.top, b.top), std::min(a.right, b.right), std::min(a.bottom, b.bottom)};
}
inline constexpr Bounds everywhere{-1e6F, -1e6F, 1e6F, 1e6F};

/// A part of a line of pixels that is covered as much everywhere.
struct Span {
    float from, to;
    float part;
};

/// Whole pixels from `first` to `last` as far as they lie between two edges: up to three parts.
int spans_of(float first, float last, float from, float to, std::array<Span, 3>& spans);

/// The triangles of one group.
struct GroupMesh {
    std::uint64_t revision = 0;
    bool is_made = false;
    std::vector<MeshVertex> vertices;  ///< four for each quad: upper left, upper right, lower left, lower right
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
    GroupMaker(AtlasPages& atlas, const DisplayGroup& group, GroupMesh& into)
        : atlas_(atlas), group_(group), into_(into), adds_light_(group.blend == Blend::add) {
        const Transform& t = group.transform();
        moves_only_ = t.xx == 1 && t.xy == 0 && t.yx == 0 && t.yy == 1;
        // What is drawn larger is made larger, in steps.
        const float grown = std::max(std::hypot(t.xx, t.yx), std::hypot(t.xy, t.yy));
        scale_ = moves_only_ ? 1 : grown <= 1.01F ? 1.0F : std::min(std::ceil(grown * 2) / 2, 4.0F);
    }

    bool is_complete = true;

    void make();

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

    std::array<std::uint8_t, 4> seen(Color color, float part) const;

    void use(AtlasIndex index);

    void begin_quads(std::uint32_t page, std::size_t count);
    /// Corners in the order of a `GroupMesh`.
    void add_quad(std::uint32_t page, const std::array<Point, 4>& at, const std::array<Point, 4>& texture,
                  const DisplayItem& item, float part);
    static std::array<Point, 4> corners(const Bounds& b) {
        return {Point{b.left, b.top}, Point{b.right, b.top}, Point{b.left, b.bottom}, Point{b.right, b.bottom}};
    }

    /// The color of a item at a point of the screen.
    Color color_at(const DisplayItem& item, Point at) const;
    static Color between(Color a, Color b, float part);

    /// Texels over whole pixels, as far as they lie inside of edges that may cut through pixels. A flip mirrors them.
    struct Cell {
        int x, y, width, height;
    };
    void add_texels(AtlasIndex index, const Cell& cell, const PixelRect& texels, bool flip_x, bool flip_y,
                    const Bounds& inside, const DisplayItem& item);

    /// A rectangle, exactly as far as it covers pixels. A gradient along an axis is divided where it begins and ends.
    void add_solid(const Bounds& rect, const DisplayItem& item);
    void add_plain(const Bounds& rect, const DisplayItem& item);

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

    /// A shape that is made in one piece: `make` adds it to the rasterizer, in the pixels of the display list. It is blurred, and drawn
    /// through the transform. What is seen for the first time may be drawn another way: where `draw_once` returns true, nothing is kept.
    template <class Make, class DrawOnce>
    void add_shape(AtlasKey key, const Rect& bounds, const DisplayItem& item, const Bounds& clip, Make make,
                   DrawOnce draw_once) {
        const int reach = item.blur > 0 ? blur_reach(item.blur * scale_) : 1;
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
        key.add(item.blur);
        key.add(scale_);
        key.add(width);
        key.add(height);
        key.add(bounds.x - origin.x);
        key.add(bounds.y - origin.y);
        AtlasIndex index = atlas_.find(key);
        if (index == nowhere) {
            if (draw_once(key)) return;
            index = atlas_.add(key, width, height);
            if (index == nowhere) {
                is_complete = false;
                return;
            }
            atlas_.coverage.reset(width, height);
            atlas_.rasterizer.begin(origin, scale_);
            make(atlas_.rasterizer);
            atlas_.rasterizer.fill(atlas_.coverage);
            if (item.blur > 0) blur_opacity(atlas_.coverage.bytes.data(), width, height, width, item.blur * scale_);
            atlas_.put_coverage(index);
        }
        const PixelRect whole{0, 0, width, height};
        if (moves_only_) {
            add_texels(index, {static_cast<int>(left), static_cast<int>(top), width, height}, whole, false, false, clip,
                       item);
            return;
        }
        add_turned(index, {origin.x, origin.y, static_cast<float>(width) / scale_, static_cast<float>(height) / scale_},
                   item, clip);
    }
    template <class Make>
    void add_shape(const AtlasKey& key, const Rect& bounds, const DisplayItem& item, const Bounds& clip, Make make) {
        add_shape(key, bounds, item, clip, make, [](const AtlasKey&) { return false; });
    }
    void add_points(AtlasKey& key, std::span<const Point> points, Point origin) const {
        for (const Point& point : points)
            key.add(Point{point.x - origin.x, point.y - origin.y});
        key.add(static_cast<int>(points.size()));
    }

    /// A rectangle of the group, through its transform, with all of an entry over it.
    void add_turned(AtlasIndex index, const Rect& rect, const DisplayItem& item, const Bounds& clip);

    // --- Commands

    void draw(const DisplayItem& item);

    /// The clip of a item, where it has one, on the screen for what only moves, and in the group for all else.
    Bounds clip_of(const DisplayItem& item) const;

    void draw_rect(const DisplayItem& item);

    void draw_border(const DisplayItem& item);

    /// A rectangle with round corners, or a line along its inside: four corners, of which one is made, and what lies between them.
    void add_sliced(const Rect& rect, float radius, float thickness, const DisplayItem& item, const Bounds& clip);

    static void add_ring(Rasterizer& on, Point origin, const Rect& rect, float radius, float thickness);

    void draw_points(const DisplayItem& item);
    bool add_polygon(std::span<const Point> points, const DisplayItem& item);
    bool add_box(const Rect& rect, float radius, float thickness, const DisplayItem& item, const Bounds& clip);
    void add_where_seen(std::span<const Point> points, const DisplayItem& item);
    static bool is_rect(std::span<const Point> p);
    static Rect bounds_of_points(std::span<const Point> points);

    void draw_text(const DisplayItem& item);
    FT_Face face(FontId font) const { return static_cast<FT_Face>(atlas_.fonts.face(font)); }
    static Point at(const DisplayItem& item, const Glyph& glyph) {
        return {item.baseline.x + glyph.offset.x, item.baseline.y + glyph.offset.y};
    }

    /// Characters are made for four places within a pixel, each way.
    void draw_glyph(const DisplayItem& item, const Glyph& glyph, const Bounds& clip);

    std::vector<std::array<int, 2>>& glyph_locations() const { return atlas_.glyph_locations; }
    /// How large characters are made, and how many times as high.
    struct Em {
        float size, stretch;
    };
    AtlasIndex make_glyph(const AtlasKey& key, const Glyph& glyph, Em em, float outline, Point part);

    // --- Images

    bool read_image(ImageId image, Size& size);

    /// A part of an image with a row of its own edge around it, so that filtering stays inside. As a silhouette, it is white.
    AtlasIndex image_part(ImageId image, const PixelRect& part, bool as_silhouette);
    const std::uint8_t* texel_of(ImageId image, Size size, int x, int y) const;

    void draw_image(const DisplayItem& item);

    /// Over its rectangle, whose edges may cut through pixels.
    void image(AtlasIndex index, const DisplayItem& item, const Bounds& clip, bool only_light);

    /// A polygon whose opacity is that of an image over its rectangle.
    void draw_masked(const DisplayItem& item, std::span<const Point> points);

    void draw_baked(const DisplayItem& item, Size size, std::span<const Point> cut);

    /// What one quad cannot do is drawn here, pixel by pixel, and kept as an image of the size in which it is seen.
    void bake(const DisplayItem& item, const Rect& bounds, std::span<const Point> cut, const Rect& source,
              bool has_image);

    /// Four channels of an image at a place that may lie between pixels.
    std::array<float, 4> sampled(ImageId image, Size size, const Rect& part, Point at, bool smooth) const;

    /// Fills `coverage` with opacities, and `texels` with colors.
    void draw_pixels(const DisplayItem& item, std::span<const Point> cut, const Rect& source, bool has_image,
                     Point origin, int width, int height);
    /// How far a pixel of a map is drawn: see `DisplayItem::map`.
    static float reached(const DisplayItem& item, const std::array<float, 4>& texel);

    AtlasPages& atlas_;
    const DisplayGroup& group_;
    GroupMesh& into_;
    bool adds_light_;
    bool moves_only_;
    float scale_;
};

}  // namespace rapido
