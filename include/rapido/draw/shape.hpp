// Shapes, and the way in which something is filled and put over what is below.
#pragma once

#include <cstdint>

#include "rapido/base/exported.hpp"

namespace rapido RAPIDO_EXPORTED {

/// Which way something grows when its value does.
enum class Direction : std::uint8_t { right, left, up, down };

/// As large as fits its box, in the middle of it; only `box` takes all of it.
enum class Shape : std::uint8_t { box, circle, diamond, hexagon, drop, heart, person, flask, thermometer };

/// How colors are put over those below: `normal` covers them (source over), `add` adds light to them.
enum class Blend : std::uint8_t { normal, add };

}  // namespace rapido
