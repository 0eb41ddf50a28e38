// The room `time`: clocks, countdown, frame meter.
#pragma once

#include "rapido/time/clock.hpp"
#include "rapido/time/frame_counter.hpp"
#include "rapido/time/game_timer.hpp"
