// Arcs as polygons.
#pragma once

#include <vector>

#include "rapido/base/exported.hpp"
#include "rapido/draw/display_list.hpp"

namespace rapido RAPIDO_EXPORTED {

/// Appends points of a circle from one angle to another, both included; no chord is further from it than a tolerance.
void append_circle(std::vector<Point>& points, Point middle, float radius, float from, float to, float tolerance);
/// Appends the outline of an arc.
void append_outline(const Arc& arc, std::vector<Point>& points);

/// Where a radius at an angle ends, degrees clockwise from the top; at the quarters exactly.
Point point_at(Point middle, float radius, float degrees);

}  // namespace rapido
