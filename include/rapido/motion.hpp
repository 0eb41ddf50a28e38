// The room `motion`: easing, and the motions of a shown value.
#pragma once

#include "rapido/motion/easing.hpp"
#include "rapido/motion/flight.hpp"
#include "rapido/motion/motion.hpp"
#include "rapido/motion/moving_number.hpp"
#include "rapido/motion/moving_value.hpp"
#include "rapido/motion/trail.hpp"
