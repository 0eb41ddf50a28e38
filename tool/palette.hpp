// The colors of what the tool itself draws.
#pragma once

#include "rapido/base/color.hpp"

namespace rapido::tool {

inline constexpr Color ink = rgb(0xf2efe6), dim = rgb(0xf2efe6, 0.62), teal = rgb(0x38b6c9), ember = rgb(0xff7a3c),
                       amber = rgb(0xffc24a);
inline constexpr Color backdrop = rgb(0x39485a);  ///< behind a HUD that has no scene

}  // namespace rapido::tool
