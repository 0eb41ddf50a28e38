// Arcs as polygons.
#pragma once

#include <vector>

#include "rapido/base/units.hpp"

namespace rapido {

/// A part of a ring; angles are degrees clockwise from the top.
struct Arc {
    Point middle;
    float outer = 0;  ///< radius
    float inner = 0;
    float from = 0, to = 0;
    bool round_ends = false;
};

/// Its outline, no point of which is further than a twentieth of a unit from the true one. Nothing for an arc of no angle or
/// no radius.
std::vector<Point> outline_of(const Arc& arc);

/// Where a radius at an angle ends.
Point point_at(Point middle, float radius, float degrees);

}  // namespace rapido
