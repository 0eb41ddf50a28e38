// Outlines of shapes, and what of them lies below a surface.
#pragma once

#include <array>
#include <span>
#include <vector>

#include "rapido/base/exported.hpp"
#include "rapido/base/units.hpp"
#include "rapido/draw/shape.hpp"

namespace rapido RAPIDO_EXPORTED {

/// The corners of a shape.
struct ShapeOutline {
    std::vector<Point> points;  ///< clockwise, in a box of 1 by 1, y down
    float aspect = 0;           ///< its width over its height; zero: as its box
};
const ShapeOutline& outline_of(Shape shape);
/// Its corners without those that are not seen in a box of this size in device pixels: none of what is left out is further than a twentieth
/// of a pixel from what is left.
std::span<const Point> corners_of(Shape shape, Size box);

/// The largest box of this aspect in the middle of another one; that itself without an aspect.
Rect fitted_box(const Rect& box, float aspect);

/// Seen along the way in which something is filled: `along` grows from the empty end, `across` to the right of it.
class Axis {
 public:
    Axis(const Rect& box, Direction direction) : box_(box), direction_(direction) {}
    float length() const { return is_upright() ? box_.height : box_.width; }
    float breadth() const { return is_upright() ? box_.width : box_.height; }
    /// A corner of an outline, in a box of 1 by 1, to { across, along }.
    Point from_unit(Point point) const;
    /// { across, along } to where it is drawn.
    Point to_device(Point point) const;
    /// How far along such a place is.
    float along_of(Point device) const;

 private:
    bool is_upright() const { return direction_ == Direction::up || direction_ == Direction::down; }
    Rect box_;
    Direction direction_;
};

/// What lies in both; nothing, if they are apart.
Rect common_part(const Rect& a, const Rect& b);
/// Whether no part of it is outside of the other one, to a sixty-fourth of a unit.
bool lies_in(const Rect& part, const Rect& whole);
/// From the upper left one clockwise.
std::array<Point, 4> corners_of(const Rect& rect);

/// Where the level is that has a part of an area below it: exactly, for a polygon.
class AreaLevels {
 public:
    /// Of an outline that is filled this way.
    AreaLevels(std::span<const Point> outline, Direction direction);
    /// Of something that is so opaque from the empty end on, in even slices.
    explicit AreaLevels(std::span<const float> slices);

    /// Both from 0 to 1, of the whole area and of the way from its first point to its last.
    double level_of(double area) const;
    double area_of(double level) const;

 private:
    /// From one level to the next the breadth changes evenly.
    struct Slice {
        double from, to;
        double begin, end;   ///< breadth
        double area_before;  ///< of all slices before it
    };
    void add(double from, double to, double begin, double end);
    void normalize();
    std::vector<Slice> slices_;
    double area_ = 0;
};

/// A surface that may be in waves: at `across` it is `level + height sin(2 pi (across / length + phase))`.
struct Surface {
    float level = 0;
    float height = 0;
    float length = 1;
    float phase = 0;
    float at(float across) const;
};

/// The part of a polygon of { across, along } that is below a surface, or above it. Replaces `into`.
void cut_polygon(std::span<const Point> polygon, const Surface& surface, bool below, std::vector<Point>& into);

}  // namespace rapido
