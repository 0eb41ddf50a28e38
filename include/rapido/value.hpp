// The room `value`: what a source gives, and where it comes from.
#pragma once

#include "rapido/value/amount.hpp"
#include "rapido/value/entries.hpp"
#include "rapido/value/kept_value.hpp"
#include "rapido/value/live.hpp"
#include "rapido/value/position.hpp"
#include "rapido/value/shared.hpp"
#include "rapido/value/source.hpp"
#include "rapido/value/value.hpp"
#include "rapido/value/watch.hpp"
#include "rapido/value/watch_time.hpp"
