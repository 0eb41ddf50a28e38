// Arcs as polygons.
#pragma once

#include <vector>

#include "rapido/draw/display_list.hpp"

namespace rapido {

/// Appends the outline of an arc.
void append_outline(const Arc& arc, std::vector<Point>& points);

/// Where a radius at an angle ends, degrees clockwise from the top; at the quarters exactly.
Point point_at(Point middle, float radius, float degrees);

}  // namespace rapido
