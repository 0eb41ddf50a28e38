// What a game includes to bind, run and draw a HUD. What can be used alone, without a HUD, stands in the headers of the rooms:
// <rapido/look.hpp> (effects, flash limit, queues), <rapido/motion.hpp>, <rapido/pace.hpp>, <rapido/text.hpp> (formats, languages),
// <rapido/time.hpp>, <rapido/layout.hpp> (measurers of text).
#pragma once

#include "rapido/base.hpp"
#include "rapido/draw/display_list.hpp"
#include "rapido/element.hpp"
#include "rapido/hud.hpp"
#include "rapido/value.hpp"
