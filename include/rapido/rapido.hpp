// All of the core: values on a screen, kept right.
#pragma once

#include "rapido/base.hpp"
#include "rapido/draw.hpp"
#include "rapido/element.hpp"
#include "rapido/hud.hpp"
#include "rapido/layout.hpp"
#include "rapido/look.hpp"
#include "rapido/motion.hpp"
#include "rapido/pace.hpp"
#include "rapido/text.hpp"
#include "rapido/time.hpp"
#include "rapido/value.hpp"
