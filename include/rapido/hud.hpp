// The room `hud`: a definition, and the running HUD.
#pragma once

#include "rapido/hud/definition.hpp"
#include "rapido/hud/event.hpp"
#include "rapido/hud/hud.hpp"
