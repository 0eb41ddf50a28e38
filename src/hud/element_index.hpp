// How the parts of a running HUD name what they work on.
#pragma once

#include <cstdint>

namespace rapido {

/// The place of an element; every part of a HUD keeps what it knows of that element at the same place.
using ElementIndex = std::uint32_t;
inline constexpr ElementIndex no_element = UINT32_MAX;

using GroupIndex = std::uint32_t;
inline constexpr GroupIndex no_group = UINT32_MAX;

using TimerIndex = std::uint32_t;
inline constexpr TimerIndex no_timer = UINT32_MAX;

}  // namespace rapido
