// How a HUD limits its flashes.
#pragma once

#include <cstdint>
#include <optional>

#include "rapido/base/color.hpp"
#include "rapido/base/exported.hpp"

namespace rapido RAPIDO_EXPORTED {

/// Which flashes count.
enum class FlashRule : std::uint8_t {
    area,  ///< those that cover, with all that flashes at the same time, more than a quarter of ten degrees of what the player sees
    any_size,  ///< all of them
};

/// How a HUD limits its flashes.
struct FlashSettings {
    std::optional<FlashRule> rule{};  ///< without it that of the HUD's definition
    bool on = true;                   ///< false: nothing is limited; no HUD file can say so
    /// What the game shows behind the HUD; without it both black and white are looked at.
    std::optional<Color> ground{};
    float field_of_view = 30;  ///< degrees, 1 to 180: how wide the viewport of the HUD is in the eyes of the player
    friend bool operator==(const FlashSettings&, const FlashSettings&) = default;
};

}  // namespace rapido
