// A picture: an icon, a frame around others, an animation.
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "rapido/base/color.hpp"
#include "rapido/element/common.hpp"
#include "rapido/element/trigger.hpp"
#include "rapido/layout/place.hpp"
#include "rapido/look/band.hpp"
#include "rapido/motion/motion.hpp"
#include "rapido/pace/pace.hpp"
#include "rapido/time/clock.hpp"
#include "rapido/value/source.hpp"

namespace rapido {

/// How an image fills its box: the words of CSS `object-fit`, in the middle of it.
enum class ImageFit : std::uint8_t { fill, contain, cover, none, scale_down };

/// A file of frames side by side, from the left to the right and then from the top down.
struct Frames {
    int count = 1;
    int columns = 0;  ///< frames in a row; zero: all of them
    float rate = 12;  ///< frames a second, all over again and again, in step with each other
    friend bool operator==(const Frames&, const Frames&) = default;
};

/// A PNG image, or one that the game has added. It is as large as its pixels, one to a design pixel, or as its place says;
/// where it cannot be read there is a crossed box, and a problem.
struct Image {
    std::string id{};
    std::string image{};  ///< a path inside the folder of the HUD; see `Images`
    Source value{};  ///< with a value, `frames` are a scale from empty to full, and time does not move them
    Source max = 1;
    Pace pace{};       ///< when it may change
    Motions motion{};  ///< how value and maximum follow, in units of the value: a growing maximum is no loss
    std::vector<Band> bands{};          ///< where it has another color or another image
    std::vector<Trigger> effects{};     ///< what starts effects
    ClockKind clock = ClockKind::real;  ///< that pace, motion, fades and frames follow
    WhenNoValue when_no_value = WhenNoValue::placeholder;
    Place place{};
    std::string inside{};  ///< the panel that it stands in; empty is the screen
    std::string group{};   ///< shown, hidden, dimmed and snapped with it
    Frames frames{};
    ImageFit fit = ImageFit::contain;
    /// Pixels of the image along each edge: corners keep their size, edges are stretched along, and the middle both ways.
    Insets slice{};
    std::string mask{};           ///< an image; only where that one is opaque, stretched over the same box
    Color color = rgb(0xffffff);  ///< multiplied with those of the image
    bool smooth = true;           ///< false: the nearest pixel, for pixel art
    int layer = 0;                ///< higher is drawn later
    Source visible{};             ///< shown while true; without a source, always
    friend bool operator==(const Image&, const Image&);
};

}  // namespace rapido
