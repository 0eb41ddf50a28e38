// The inside of a polygon, and the fringe around it.
#pragma once

#include <span>
#include <vector>

#include "rapido/base/units.hpp"

namespace rapido {

/// Divides polygons into triangles, one after the other; its room is used again.
class SmoothPolygon {
 public:
    /// A polygon of more corners is drawn another way.
    static constexpr std::size_t most = 1'000;

    /// A corner of the rim: at `inner` the polygon is whole, at `outer` nothing of it is left.
    struct Rim {
        Point inner, outer;
        bool goes_on;  ///< the rim goes on to the next one
    };
    /// `a` and `c` are the two ends of what was left, of which one has gone on to `b`: the last one, or the first.
    struct Triangle {
        Point a, b, c;
        bool is_last;
    };

    bool take(std::span<const Point> given);
    void find_cut();
    void make_rim();
    bool close_up();
    bool fan_out();

    std::span<const Rim> rim() const { return rim_; }
    std::span<const Point> inside() const { return inside_; }
    std::span<const Triangle> triangles() const { return triangles_; }
    Point middle() const { return middle_; }

    std::vector<Point> outline, device;  ///< room for what is taken

 private:
    std::vector<Point> corners_, normals_, inside_;
    std::vector<Rim> rim_;
    std::vector<Triangle> triangles_;
    std::size_t cut_ = 0;
    Point middle_;
};

}  // namespace rapido
