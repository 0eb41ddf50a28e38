// The room `value`: what a source gives, and where it comes from.
#pragma once

#include "rapido/value/source.hpp"
#include "rapido/value/value.hpp"
