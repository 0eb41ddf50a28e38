// The room `element`: the list of kinds.
#pragma once

#include <variant>

#include "rapido/element/bar.hpp"
#include "rapido/element/dial.hpp"
#include "rapido/element/graph.hpp"
#include "rapido/element/image.hpp"
#include "rapido/element/level.hpp"
#include "rapido/element/notice.hpp"
#include "rapido/element/panel.hpp"
#include "rapido/element/pips.hpp"
#include "rapido/element/ring.hpp"
#include "rapido/element/scale.hpp"
#include "rapido/element/text.hpp"

namespace rapido {

/// The description of one element, of any kind.
using Element = std::variant<Panel, Text, Bar, Ring, Level, Pips, Dial, Scale, Graph, Image, Notice>;

}  // namespace rapido
