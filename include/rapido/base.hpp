// The room `base`: units, colours, problems.
#pragma once

#include "rapido/base/color.hpp"
#include "rapido/base/problem.hpp"
#include "rapido/base/themed.hpp"
#include "rapido/base/units.hpp"
