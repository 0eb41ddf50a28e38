// The room `draw`: the draw list.
#pragma once

#include "rapido/draw/draw_list.hpp"
#include "rapido/draw/image_finder.hpp"
#include "rapido/draw/shape.hpp"
