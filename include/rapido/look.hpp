// The room `look`: what a value does to how it looks.
#pragma once

#include "rapido/look/band.hpp"
#include "rapido/look/fading_color.hpp"
