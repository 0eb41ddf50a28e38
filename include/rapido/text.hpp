// The room `text`: formats.
#pragma once

#include "rapido/text/format.hpp"
