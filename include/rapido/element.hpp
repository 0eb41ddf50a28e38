// The room `element`: an element of any kind, and the kinds.
#pragma once

#include "rapido/element/bar.hpp"
#include "rapido/element/dial.hpp"
#include "rapido/element/element.hpp"
#include "rapido/element/graph.hpp"
#include "rapido/element/image.hpp"
#include "rapido/element/level.hpp"
#include "rapido/element/list.hpp"
#include "rapido/element/markers.hpp"
#include "rapido/element/notice.hpp"
#include "rapido/element/panel.hpp"
#include "rapido/element/pips.hpp"
#include "rapido/element/pop_ups.hpp"
#include "rapido/element/ring.hpp"
#include "rapido/element/ruler.hpp"
#include "rapido/element/text.hpp"
