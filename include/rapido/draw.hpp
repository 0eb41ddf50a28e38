// The room `draw`: the draw list.
#pragma once

#include "rapido/draw/draw_list.hpp"
