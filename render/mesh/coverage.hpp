// How far shapes cover pixels, exactly, by the rasterizer of FreeType.
#pragma once

#include <ft2build.h>
#include FT_FREETYPE_H
#include FT_OUTLINE_H
#include FT_STROKER_H

#include <cstdint>
#include <span>
#include <type_traits>
#include <vector>

#include "rapido/base/units.hpp"

namespace rapido {

/// A byte for each pixel of a rectangle, row by row from the top.
struct Coverage {
    int width = 0, height = 0;
    std::vector<std::uint8_t> bytes;

    void reset(int wide, int high) {
        width = wide;
        height = high;
        bytes.assign(static_cast<std::size_t>(wide) * static_cast<std::size_t>(high), 0);
    }
};

/// Adds outlines and fills them; what is inside any of them is inside. Where they overlap, nothing is inside twice.
class Rasterizer {
 public:
    Rasterizer();
    ~Rasterizer();
    Rasterizer(const Rasterizer&) = delete;
    Rasterizer& operator=(const Rasterizer&) = delete;

    /// Begins a shape. Points are taken from `origin`, which becomes the upper left corner, times `scale`.
    void begin(Point origin, float scale = 1);
    /// A closed outline. With `as_hole`, it is taken away from others around it.
    void add(std::span<const Point> points, bool as_hole = false);
    /// A line through points, with round ends and corners.
    void line(std::span<const Point> points, float thickness);
    void add_rounded(const Rect& rect, float radius, bool as_hole = false);
    /// The outline of a glyph whose baseline starts at a point, at a size in pixels; false for one without.
    bool add_glyph(FT_Face face, std::uint32_t glyph, Point at, float size, float stretch);
    /// Widens all that was added so far by `radius` on every side, with round corners, when it is filled.
    void widen(float radius) { widening_ = radius; }

    /// Fills a rectangle that has a size already.
    void fill(Coverage& into);

 private:
    void add_point(Point point, char tag = 1);
    void end_contour(bool turns_back);
    void fill(FT_Outline& outline, Coverage& into);

    FT_Library library_ = nullptr;
    FT_Stroker stroker_ = nullptr;
    Point origin_{};
    float scale_ = 1;
    float widening_ = 0;
    std::vector<FT_Vector> points_;
    // What they hold differs between versions of FreeType.
    std::vector<std::remove_pointer_t<decltype(FT_Outline::tags)>> tags_;
    std::vector<std::remove_pointer_t<decltype(FT_Outline::contours)>> ends_;
    std::vector<Point> arc_;
    std::vector<std::uint8_t> other_;
};

}  // namespace rapido
