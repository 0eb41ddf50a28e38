// The room `look`: what a value does to how it looks.
#pragma once

#include "rapido/look/band.hpp"
#include "rapido/look/effect.hpp"
#include "rapido/look/effect_player.hpp"
#include "rapido/look/fading_color.hpp"
#include "rapido/look/flash_limit.hpp"
#include "rapido/look/flash_settings.hpp"
#include "rapido/look/notice_queue.hpp"
#include "rapido/look/reading_time.hpp"
