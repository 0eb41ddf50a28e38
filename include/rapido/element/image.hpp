// An image: an icon, a frame around others, an animation.
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "rapido/base/exported.hpp"
#include "rapido/base/themed.hpp"
#include "rapido/element/common.hpp"
#include "rapido/element/image_name.hpp"
#include "rapido/element/trigger.hpp"
#include "rapido/layout/place.hpp"
#include "rapido/look/band.hpp"
#include "rapido/motion/motion.hpp"
#include "rapido/pace/pace.hpp"
#include "rapido/time/clock.hpp"
#include "rapido/value/source.hpp"

namespace rapido RAPIDO_EXPORTED {

/// How an image fills its box: the words of CSS `object-fit`, in the middle of it.
enum class ImageFit : std::uint8_t { fill, contain, cover, none, scale_down };

/// Frames of an animation that stand side by side in one image, from the left to the right and then from the top down.
struct Frames {
    int count = 1;
    int columns = 0;  ///< how many frames stand in a row; zero means all of them
    float rate = 12;  ///< frames a second; all animations repeat, in step with each other
    friend bool operator==(const Frames&, const Frames&) = default;
};

/// A lid over an image that goes round it like a hand, such as the time until it can be used again.
struct Lid {
    Themed<Color> color = rgb(0x10161c, 0.7);
    float start = 0;        ///< degrees clockwise from the top: where the covered part ends
    bool clockwise = true;  ///< which way it opens
    friend RAPIDO_EXPORTED bool operator==(const Lid&, const Lid&);
};

/// A PNG image, or one that the game has added. It is as large as its pixels, one to a design pixel, or as its place says.
/// An image that cannot be read is a problem, and a crossed box stands for it.
struct Image {
    std::string id{};
    ImageName image{};  ///< a path inside the folder of the HUD; see `Images`
    Source value{};     ///< with a value, `frames` are a scale from empty to full, and time does not move them
    Source max = 1;
    Pace pace{};                ///< when the shown value may change
    Motions motion{};           ///< how value and maximum follow, in units of the value: a growing maximum is no loss
    std::vector<Band> bands{};  ///< ranges of the value with another color or another image
    std::vector<Trigger> triggers{};    ///< what starts effects
    ClockKind clock = ClockKind::real;  ///< the clock that pace, motion, fades and frames follow
    WhenNoValue when_no_value = WhenNoValue::placeholder;
    Place place{};
    std::string inside{};  ///< the panel that the element stands in; empty is the screen
    std::string group{};   ///< the group that it is shown, hidden, dimmed and snapped with
    /// With them the value is the number of the one that is shown, from 0: below the first it is the first, beyond the last the last.
    /// Without a value, `image` is shown.
    std::vector<std::string> images{};
    std::optional<Lid> lid{};  ///< with it the value, as a part of the maximum, is how much of the image is covered
    Frames frames{};
    ImageFit fit = ImageFit::contain;
    /// How many pixels of the image along each edge keep their size: edges are stretched along, the middle both ways.
    Insets slice{};
    std::string mask{};  ///< another image, stretched over the same box: only where it is opaque is this one drawn
    Themed<Color> color = rgb(0xffffff);  ///< the color that the colors of the image are multiplied by
    bool smooth = true;                   ///< whether pixels are blended; false takes the nearest one, for pixel art
    Amount opacity = 1;                   ///< 0 to 1, of it and of what stands inside
    Amount rotation = 0;                  ///< degrees clockwise around its middle, of it and of what stands inside
    Amount scale = 1;  ///< of it and of what stands inside, around the point by which it is held in its place
    Shift shift{};     ///< how far it is drawn from its place, to the right and down, design pixels
    Blend blend = Blend::normal;  ///< how its colors are put over those below
    std::optional<Glow> glow{};   ///< a soft light around it
    int layer = 0;                ///< among siblings, a higher layer is drawn later
    Source visible{};             ///< the element is shown while this is true; without a source, always
    std::string enter{};          ///< the effect with which it becomes visible; empty means at once
    std::string leave{};          ///< the effect with which it becomes hidden; empty is `enter`, backwards
    friend RAPIDO_EXPORTED bool operator==(const Image&, const Image&);
};

}  // namespace rapido
