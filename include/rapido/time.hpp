// The room `time`: clocks, countdown, frame meter.
#pragma once

#include "rapido/time/clock.hpp"
#include "rapido/time/countdown.hpp"
#include "rapido/time/frame_meter.hpp"
