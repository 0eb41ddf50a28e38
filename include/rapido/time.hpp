// The room `time`: clocks, countdown, frame meter.
#pragma once

#include "rapido/time/clock.hpp"
#include "rapido/time/frame_meter.hpp"
#include "rapido/time/game_timer.hpp"
