// The room `draw`: the display list.
#pragma once

#include "rapido/draw/display_list.hpp"
#include "rapido/draw/image_finder.hpp"
#include "rapido/draw/shape.hpp"
