// Bursts of particles that are a flash.
#pragma once

#include "rapido/look/effect.hpp"

namespace rapido {

/// Whether particles that are born at once are seen as a flash, on black or on white, where they cover enough.
bool burst_flashes(const Particles& particles);
/// The area that they cover at most, in square design pixels.
float burst_area(const Particles& particles);

}  // namespace rapido
