// The room `base`: units, colors, problems.
#pragma once

#include "rapido/base/color.hpp"
#include "rapido/base/problem.hpp"
#include "rapido/base/themed.hpp"
#include "rapido/base/units.hpp"
