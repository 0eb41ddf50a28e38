// At most three flashes a second, whatever the game does.
#pragma once

#include <span>
#include <vector>

#include "rapido/base/color.hpp"
#include "rapido/look/effect.hpp"

namespace rapido {

/// Counts flashes of everything that shares it, on one thread: one for all HUDs of a window (WCAG 2.x, success
/// criterion 2.3.1). A flash is a pair of opposing changes, each of which `is_flash_change`.
class FlashLimit {
 public:
    static constexpr std::size_t most = 3;
    static constexpr Nanoseconds window{1'000'000'000};

    /// Admits these flashes, in order of time, if no second then holds more than three of them; otherwise admits none.
    bool admit(std::span<const Nanoseconds> flashes);
    /// Admits one flash at the earliest possible time from `earliest` on, and returns that time.
    Nanoseconds reserve(Nanoseconds earliest);
    /// Withdraws a flash that was admitted and will not happen.
    void release(Nanoseconds flash);

 private:
    std::vector<Nanoseconds> taken_;  ///< in order
};

/// Relative luminance of an opaque color, 0 to 1 (WCAG 2.x; sRGB, IEC 61966-2-1).
double relative_luminance(Color color);

/// Whether going from one color to the other is half a flash: relative luminance changes by 10 % or more and the darker
/// one is below 0.80, or one is a saturated red (80 % of its linear light) and they are more than 0.2 apart in the CIE
/// 1976 UCS chromaticity diagram (WCAG 2.2, "general flash and red flash thresholds").
bool is_flash_change(Color from, Color to);

/// When an element of this color flashes in one run of an effect, from its start: the moments at which a pair of
/// opposing changes is complete. Opacity counts as on black. Before, the element is at rest, or not there.
std::vector<Nanoseconds> flashes_of(const Effect& effect, Color color, bool from_rest = true);

/// The pose that replaces an effect under reduced motion, or when the flash limit refuses it: its first color, steadily and
/// without movement; a soft white if it has no color.
Pose steady_pose(const Effect& effect);

}  // namespace rapido
