// The room `layout`: places, the viewport, the face of a text measurer.
#pragma once

#include "rapido/layout/camera.hpp"
#include "rapido/layout/flow.hpp"
#include "rapido/layout/glyph.hpp"
#include "rapido/layout/measurer.hpp"
#include "rapido/layout/place.hpp"
