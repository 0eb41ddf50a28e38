// What to draw, in order, in device pixels: for a renderer of your own, or for one of ours.
#pragma once

#include <cstdint>
#include <optional>
#include <span>
#include <string>
#include <string_view>
#include <vector>

#include "rapido/base/color.hpp"
#include "rapido/base/exported.hpp"
#include "rapido/draw/image_finder.hpp"
#include "rapido/draw/shape.hpp"
#include "rapido/layout/glyph.hpp"
#include "rapido/layout/place.hpp"

namespace rapido RAPIDO_EXPORTED {

namespace detail {
struct HudAccess;
}

/// An affine transform: x' = xx x + xy y + dx, y' = yx x + yy y + dy.
struct Transform {
    float xx = 1, xy = 0, yx = 0, yy = 1;
    float dx = 0, dy = 0;

    bool is_identity() const { return *this == Transform{}; }
    Point apply(Point point) const { return {xx * point.x + xy * point.y + dx, yx * point.x + yy * point.y + dy}; }
    /// Returns the transform that applies this one first and then `next`.
    Transform then(const Transform& next) const;
    /// Returns a transform that scales and rotates clockwise around a point, and then moves.
    static Transform around(Point middle, float scale, float degrees, Point offset);
    friend bool operator==(const Transform&, const Transform&) = default;
};

/// A part of a ring; angles are degrees clockwise from the top.
struct Arc {
    Point middle{};
    float outer = 0;  ///< radius
    float inner = 0;
    float from = 0, to = 0;
    bool round_ends = false;
};

/// A color that is mixed into all colors of a group.
struct Tint {
    Color color{};
    float part = 0;  ///< 0 to 1
};

/// One thing to draw. Which fields count depends on the kind.
struct DisplayItem {
    enum class Kind : std::uint8_t {
        rect,     ///< fill `rect` with rounded corners, inside `clip`
        border,   ///< a line of `thickness` along the inside of `rect`
        text,     ///< glyphs from `baseline` on
        line,     ///< a line of `thickness` through points, with round ends and corners
        polygon,  ///< fill the area inside points; nothing is inside twice
        image,    ///< the pixels in `source` of an image, stretched over `rect`
    };
    Kind kind = Kind::rect;
    Color color{};
    /// A linear gradient: `color` at the first point and before, `end_color` at the second and beyond.
    bool has_gradient = false;
    Color end_color{};
    Point gradient_from{}, gradient_to{};

    Rect rect{};
    Rect clip{};  ///< nothing of a rect or a text is drawn outside; equal to `rect`, or empty, where nothing is cut
    float radius = 0;
    float thickness = 0;

    FontId font = 0;
    float size = 0;    ///< device pixels per em
    Point baseline{};  ///< where the text starts
    float width = 0;
    std::uint32_t first_byte = 0, byte_count = 0;    ///< the string, in the group's text
    std::uint32_t first_glyph = 0, glyph_count = 0;  ///< in the group's glyphs
    std::uint32_t first_point = 0, point_count = 0;  ///< in the group's points

    // Of an image: only what is inside the points is drawn, if there are any; its colors are multiplied by `color`, and
    // then mixed with the tint.
    ImageId image = 0;
    Rect source{};  ///< the part of the image that is drawn, in its own pixels
    Tint tint{};
    /// Of a text: its characters are wider by so much on every side, with round corners.
    float outline = 0;
    /// Of a text: its characters are so many times as high, from the baseline on: less than one while a figure turns.
    float stretch = 1;
    /// Of any kind: what is drawn is blurred by a Gaussian whose standard deviation is half of this (CSS `blur-radius`).
    float blur = 0;
    /// Of an image: only its opacity counts, and all of it has `color`.
    bool silhouette = false;

    bool smooth = true;     ///< false: the nearest pixel, for pixel art
    Transform transform{};  ///< before that of the group

    // Of an image: each pixel is drawn as far as its gray in another image, the map, lies between two values. With s for the
    // softness and g for the gray (0 to 1), its opacity is c((to - g) / s + 1/2) c((g - from) / s + 1/2), each c limited to 0 to 1;
    // `from` and `to` go from -s/2 to 1 + s/2.
    bool has_map = false;
    ImageId map = 0;
    float map_from = 0, map_to = 1;
    float map_softness = 0;

    // Of an image and a polygon: only as far as another image is opaque, stretched over `rect`.
    bool has_mask = false;
    ImageId mask = 0;
};

/// The items of one element.
class DisplayGroup {
 public:
    /// Changes whenever the items do: a renderer that keeps buffers makes again only what has a new
    /// revision.
    std::uint64_t revision = 0;

    std::span<const DisplayItem> items() const { return {items_.data(), items_.size()}; }
    std::string_view text_of(const DisplayItem& item) const {
        return {text_.data() + item.first_byte, item.byte_count};
    }
    std::span<const Glyph> glyphs_of(const DisplayItem& item) const {
        return {glyphs_.data() + item.first_glyph, item.glyph_count};
    }

    std::span<const Point> points_of(const DisplayItem& item) const {
        return {points_.data() + item.first_point, item.point_count};
    }

    std::size_t glyph_count() const { return glyphs_.size(); }
    std::size_t point_count() const { return points_.size(); }

    /// What all items go through, in device pixels; the identity for an element at rest.
    const Transform& transform() const { return transform_; }

    Blend blend = Blend::normal;

    /// Removes all items. The colors of commands that are added from here on are multiplied by `filter`, then tinted, and their
    /// alpha is multiplied by `opacity`.
    void begin(float opacity = 1, const Tint& tint = {}, const Transform& transform = {}, Color filter = rgb(0xffffff));
    /// From here on the alpha of items is multiplied by this part of the opacity of the group, too.
    void dim(float part) { part_ = part; }
    void rect(const Rect& box, float radius, Color color);
    void rect(const Rect& box, float radius, Color color, const Rect& clip);
    void border(const Rect& box, float radius, float thickness, Color color);
    void line(std::span<const Point> points, float thickness, Color color);
    void polygon(std::span<const Point> points, Color color);
    /// Adds a part of a ring as a polygon, no point of which is further than a twentieth of a pixel from the true outline.
    /// Adds nothing for an arc without an angle or a radius.
    void arc(const Arc& arc, Color color);
    /// Adds a part of an image, stretched over `rect`.
    void image(ImageId image, const Rect& source, const Rect& rect, Color color, bool smooth = true);
    /// These three change the last item, which must be an image: `cut_last` draws only what is inside of the points,
    /// `tint_last` tints it and `transform_last` transforms it, each before the group does.
    void cut_last(std::span<const Point> points);
    void tint_last(const Tint& tint);
    void transform_last(const Transform& transform) { items_.back().transform = transform; }
    /// Masks the last item, an image or a polygon: it is drawn only as far as another image over `rect` is opaque.
    void mask_last(ImageId mask, const Rect& rect);
    /// Draws of the last item, an image, only what lies between two values, 0 to 1, of a map that is stretched over the same
    /// rectangle; its edges are soft over a part of the way of `softness`.
    void map_last(ImageId map, float from, float to, float softness);
    /// Draws the last item, an image, all in its color.
    void silhouette_last() { items_.back().silhouette = true; }
    /// Gives the last item a linear gradient.
    void shade_last(Color end_color, Point from, Point to);
    /// Blurs the last item; zero draws it sharp.
    void blur_last(float radius) { items_.back().blur = radius; }
    /// Makes the characters of the last item, a text, so many times as high.
    void stretch_last(float stretch) { items_.back().stretch = stretch; }
    /// Widens the characters of all items from one on by `outline`, and blurs them.
    void soften_from(std::size_t first, float outline, float blur);
    /// Clips all items from one on to a rectangle.
    void clip_from(std::size_t first, const Rect& clip);
    /// Puts a soft copy of all items below them.
    void glow(float radius, Color color);
    /// `glyphs` are at a size that is multiplied by `scale`.
    void text(FontId font, float size, Point baseline, float width, Color color, std::string_view text,
              std::span<const Glyph> glyphs, float scale);

 private:
    void add(DisplayItem item);
    Color seen(Color color) const;

    float opacity_ = 1;
    float part_ = 1;
    Color filter_ = rgb(0xffffff);
    Tint tint_;
    Transform transform_;
    std::vector<DisplayItem> items_;
    std::string text_;
    std::vector<Glyph> glyphs_;
    std::vector<Point> points_;
};

/// All items of one HUD, grouped by element, in draw order. It owns all it holds: two of them can
/// alternate between a game thread and a render thread.
class DisplayList {
 public:
    /// A HUD draws so much at most; elements that come later are left out, with a problem in the HUD.
    static constexpr std::size_t most_items = 250'000;
    static constexpr std::size_t most_glyphs = 2'000'000;
    static constexpr std::size_t most_points = 2'000'000;

    std::span<const DisplayGroup> groups() const { return {groups_.data(), groups_.size()}; }
    /// Changes when the groups are those of other elements, or of another HUD: revisions are comparable as long as it stays.
    std::uint64_t structure() const { return structure_; }
    /// Returns the viewport that the HUD was resized to, in device pixels; nothing where it never was, and the items are for
    /// the size of the default viewport. A renderer whose target is smaller, or another one in that case, should say so.
    const std::optional<Viewport>& viewport() const { return viewport_; }

 private:
    friend class Hud;
    friend struct detail::HudAccess;
    std::vector<DisplayGroup> groups_;
    std::optional<Viewport> viewport_;
    std::uint64_t structure_ = 0;  ///< the HUD and the set of elements that the groups belong to
};

}  // namespace rapido
