// At most three flashes a second, whatever the game does.
#pragma once

#include <cstdint>
#include <limits>
#include <optional>
#include <span>
#include <vector>

#include "rapido/base/color.hpp"
#include "rapido/base/exported.hpp"
#include "rapido/look/effect.hpp"
#include "rapido/look/flash_settings.hpp"

namespace rapido RAPIDO_EXPORTED {

/// A flash of something: a pair of opposing changes, each of which `is_flash_change`.
struct Flash {
    static constexpr float any_size = std::numeric_limits<float>::infinity();

    Nanoseconds begin{0};   ///< when the first change is complete, on the real clock
    Nanoseconds end{0};     ///< when the second one is
    Rect box{};             ///< where it is, on a screen on which ten degrees are 341 by 256
    float area = any_size;  ///< of what changes inside of the box, in the same unit
};

/// Counts flashes of everything that shares it, on one thread: one for all HUDs of a window.
///
/// WCAG 2.2, success criterion 2.3.1, allows three flashes in any second, and any number of them where what flashes at the same time covers
/// at most 25 % of any ten degrees of the field of view: 21,824 pixels in any window of 341 by 256, of a screen of 1024 by 768. Flashes that
/// overlap in time and together cover more are one flash. It belongs to the second in which its first change is complete.
class FlashLimit {
 public:
    static constexpr std::size_t most = 3;
    static constexpr Nanoseconds window{1'000'000'000};
    static constexpr float least_area = 21'824;
    static constexpr Size field{341, 256};  ///< ten degrees

    /// Returns a number for something that flashes.
    std::uint32_t new_owner() { return ++owners_; }
    /// Takes on a flash, if no second then holds more than three; otherwise returns false and takes on nothing.
    bool admit(const Flash& flash, std::uint32_t owner = 0);
    /// Takes on a flash that takes place in any case.
    void count(const Flash& flash, std::uint32_t owner = 0);
    /// Lets a flash that an owner has begun last until `flash.end`; one that is not known yet is counted.
    void go_on(const Flash& flash, std::uint32_t owner);
    /// Withdraws what an owner would have begun from a moment on; what it has begun before ends there.
    void cut(std::uint32_t owner, Nanoseconds at);
    /// Takes on a flash that is just completed in what frames show, whether it was asked for before or not: those are counted by themselves.
    /// False, and nothing is taken on, where it would be one too many.
    bool admit_shown(const Flash& flash);
    /// Returns the earliest time from `flash.begin` on at which such a flash would be taken on.
    Nanoseconds room_for(const Flash& flash) const;

 private:
    struct Taken {
        Flash flash;
        std::uint32_t owner;
    };
    static bool has_room(const std::vector<Taken>& all, const Flash& flash, std::vector<Flash>& in_field);
    static bool has_room_in(const std::vector<Taken>& all, const Rect& degrees, const Flash& flash,
                            std::vector<Flash>& in_field);
    static void insert(std::vector<Taken>& all, const Flash& flash, std::uint32_t owner);

    std::vector<Taken> taken_;             ///< in the order of `begin`
    std::vector<Taken> shown_;             ///< those of what frames have shown, in the same order
    mutable std::vector<Flash> in_field_;  ///< room that is used again
    std::uint32_t owners_ = 0;
};

/// One color of what an element draws.
struct FlashPart {
    Color color{};
    Rect box{};                    ///< as that of a `Flash`
    float area = Flash::any_size;  ///< what is drawn of it
    std::optional<Color> below{};  ///< the color that it lies on, of the same element, which fades and comes with it
    friend bool operator==(const FlashPart&, const FlashPart&) = default;
};

/// What an element draws at rest, as far as its flashes are concerned.
struct FlashLook {
    std::vector<FlashPart> parts{};
    std::optional<FlashPart> glow{};  ///< the light around it, where an effect lets it shine
    Rect box{};                       ///< as that of a `Flash`
    float unit = 1;                   ///< of that box, in a design pixel
    FlashSettings settings{};
    friend bool operator==(const FlashLook&, const FlashLook&) = default;
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

/// The pose that replaces an effect under reduced motion: its first color, steadily and without movement. Without one, an effect that ends
/// gives a soft white, and one that never ends nothing, as it would lie over what the element shows; neither do dots and particles alone.
Pose steady_pose(const Effect& effect);

}  // namespace rapido
