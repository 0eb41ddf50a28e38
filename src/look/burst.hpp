// Bursts of particles that are a flash.
#pragma once

#include "rapido/look/effect.hpp"

namespace rapido {

/// Whether particles that are born at once light up so much of a screen that they are a flash, as on black: a quarter of what is seen within
/// 10 degrees, 21 824 pixels of a design pixel each (WCAG 2.2, "general flash and red flash thresholds", of a screen of 1024 by 768).
bool burst_flashes(const Particles& particles);

}  // namespace rapido
