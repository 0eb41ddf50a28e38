// Effects: short movements and colors that say that something happened.
#pragma once

#include <optional>
#include <span>
#include <string>
#include <string_view>
#include <vector>

#include "rapido/base/exported.hpp"
#include "rapido/base/themed.hpp"
#include "rapido/base/units.hpp"
#include "rapido/motion/easing.hpp"

namespace rapido RAPIDO_EXPORTED {

/// The state of an element at one moment of an effect. A property that a keyframe does not give is interpolated between the
/// nearest keyframes before and after it that give it; before the first and after the last of those it is at rest.
struct Keyframe {
    double at = 0;                         ///< part of the duration, 0 to 1
    std::optional<float> scale{};          ///< around the pivot of the effect; 1 is at rest
    std::optional<Point> offset{};         ///< design pixels to the right and down
    std::optional<float> rotation{};       ///< degrees clockwise around the pivot
    std::optional<float> opacity{};        ///< 0 to 1, on top of the element's
    std::optional<Themed<Color>> color{};  ///< instead of all its colors
    std::optional<float> glow{};           ///< 0 to 1, on top of the strength of the glow of the element; at rest 0
    std::optional<float> shine{};          ///< where a bright stripe is on its way across, 0 to 1
    Easing easing{};                       ///< the shape of the way to the next keyframe, as in CSS
    friend RAPIDO_EXPORTED bool operator==(const Keyframe&, const Keyframe&);
};

/// What an effect does when it is started while another one runs on the same element.
enum class WhenBusy : std::uint8_t { interrupt, wait, drop };

/// Dots that fly out of the middle of an element, each in a direction of its own. The keyframes then describe the dots and
/// not the element: their x offset is how far a dot has flown, and scale and opacity are those of a dot.
struct Dots {
    int count = 0;
    float size = 6;  ///< design pixels across
    Themed<Color> color = rgb(0xffc24a);
    friend bool operator==(const Dots&, const Dots&) = default;
};

/// Particles that leave an element while an effect runs, and fly on when it has ended. Where each of them is follows from the time of
/// its birth alone: the same at every frame rate and in every run. With reduced motion there are none.
struct Particles {
    float rate = 0;         ///< how many are born in a second, 0 to 500
    int burst = 0;          ///< how many are born at once when the effect starts, and at each repeat, 0 to 500
    Seconds life{0.8};      ///< how long one lives, at most 10 s
    float speed = 80;       ///< of the fastest at its birth, design pixels a second; the slowest has half of it
    float direction = 0;    ///< degrees clockwise from straight up
    float spread = 360;     ///< degrees around that direction
    float gravity = 0;      ///< design pixels a second squared, downwards; below zero they rise
    bool anywhere = false;  ///< born anywhere in the element; otherwise in its middle
    float size = 6;         ///< across, at birth, design pixels
    float end_size = 0;     ///< the same at the end
    Themed<Color> color = rgb(0xffc24a);
    std::optional<Themed<Color>> end_color{};  ///< the color at the end; without it, they fade
    std::string image{};                       ///< an image in place of a dot, multiplied by the color
    friend RAPIDO_EXPORTED bool operator==(const Particles&, const Particles&);
};

/// A whole effect. It begins and ends at rest, whatever its keyframes say.
struct Effect {
    std::string id{};
    Seconds duration{0.3};
    int repeat = 1;   ///< how many times it runs; zero: until it is stopped
    Easing easing{};  ///< the shape of the way from rest to the first keyframe
    std::vector<Keyframe> keyframes{};
    bool scatter = false;  ///< each keyframe's offset goes in a random direction, its rotation to a random side
    Dots dots{};
    Particles particles{};
    WhenBusy when_busy = WhenBusy::interrupt;
    /// It starts so long after its cause. What enters with it is so long as its first moment says; what turns round while it enters or leaves, or has
    /// waited for another one, does so at once.
    Seconds delay{0};
    Seconds cool_down{0};  ///< after a start it does not start again for so long on the same element
    Seconds beat{0};       ///< it starts at multiples of this on the real clock, in step with others
    /// The point of the element around which it scales and turns; without it, the one by which it is anchored or
    /// aligned.
    std::optional<Anchor> pivot{};
    friend RAPIDO_EXPORTED bool operator==(const Effect&, const Effect&);
};

/// How far an element is from rest at one moment.
struct Pose {
    float scale = 1;
    Point offset{};
    float rotation = 0;
    float opacity = 1;
    Color color{};
    float color_part = 0;           ///< how much of `color` there is in all its colors, 0 to 1
    float glow = 0;                 ///< added to the strength of the glow of the element
    float shine = -1;               ///< below zero there is none
    std::optional<Anchor> pivot{};  ///< around which it scales and turns, where the effect says so
    friend bool operator==(const Pose&, const Pose&) = default;
};

/// The pose at a progress of 0 to 1. `strength`, -100 to 100, multiplies the distance from rest; `seed` chooses
/// the random directions: the same seed gives the same pose.
Pose pose_of(const Effect& effect, double progress, float strength = 1, std::uint32_t seed = 0);
/// Only the opacity and the color of that pose, at full strength.
Pose light_of(const Effect& effect, double progress);

/// `swell`, `flash`, `shake`, `fade`, `pulse`, `blink`, `shine`, `burst`, written with nothing but the fields above.
std::span<const Effect> built_in_effects();

/// Returns a pseudo-random number from 0 up to 1, the same for the same two arguments.
double chance(std::uint32_t seed, std::uint32_t index);

}  // namespace rapido
