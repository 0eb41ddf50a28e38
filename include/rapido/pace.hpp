// The room `pace`: when a shown value may change.
#pragma once

#include "rapido/pace/interval.hpp"
#include "rapido/pace/pace.hpp"
#include "rapido/pace/pacer.hpp"
#include "rapido/pace/settle.hpp"
