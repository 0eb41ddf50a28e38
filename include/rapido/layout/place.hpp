// Where on the screen: anchors, offsets, the viewport.
#pragma once

#include <optional>

#include "rapido/base/exported.hpp"
#include "rapido/base/units.hpp"

namespace rapido RAPIDO_EXPORTED {

/// Along which axes an element takes all the room of the area that it stands in.
enum class Stretch : std::uint8_t { none, width, height, both };

/// Where an element stands in the viewport, or in the panel that it is inside of. All lengths are design pixels.
struct Place {
    /// The point of the area that the element hangs on; without it, that of its kind: the upper left corner, of a notice the top.
    std::optional<Anchor> anchor{};
    /// Which point of the element lies there; without it, the same one as the anchor.
    std::optional<Anchor> pivot{};
    /// Inwards from the anchored edges; right and down along a centred axis. So another corner is a change of one word. Without an
    /// anchor, zero is the offset of the kind.
    Point offset{};
    /// At least so large; zero along an axis: as large as what the element holds, or as its kind is by itself (a bar 160 x 12).
    Size size{};
    /// At most so large; zero: without a limit. What a text does then is its `overflow`.
    Size max_size{};
    /// Its part of the spare room along a row or column, or of the columns of a grid, as in CSS `flex-grow`. In a `free` layout, above zero, it is as
    /// large as there is room.
    float grow = 0;
    /// As wide or high as the screen or the panel, less the margins: across a row or column, in a `free` layout and on the screen. Along
    /// a row or column it takes a part of the spare room, as with a `grow` of 1.
    Stretch stretch = Stretch::none;
    /// The room that is kept between the element and the edges of its area. Along a row or column it does not count.
    Insets margin{};

    /// Returns the anchor that counts.
    Anchor hangs_on() const { return anchor.value_or(Anchor::top_left); }
    friend RAPIDO_EXPORTED bool operator==(const Place&, const Place&);
};

/// The part of a window that a HUD fills, in device pixels. Negative or non-finite measures count as zero.
struct Viewport {
    Size size{1280, 720};
    Point origin{};
    Insets safe_area{};  ///< what a screen's corners, cut-outs or overscan may hide along each edge
    friend RAPIDO_EXPORTED bool operator==(const Viewport&, const Viewport&);
};

/// How the design size is fitted to a viewport. All but `edges` are the words of CSS `object-fit`, centred.
enum class Fit : std::uint8_t {
    edges,       ///< the whole design fits, and anchors follow the real edges: a wider window shows more room
    contain,     ///< the whole design fits, with bars
    cover,       ///< no bars: what does not fit is cut off
    fill,        ///< stretched, each way by its own scale
    none,        ///< a design pixel is a device pixel
    scale_down,  ///< the smaller of `none` and `contain`
};

/// Where a screen is, for everything that stands on it.
struct Fitted {
    float scale = 1;    ///< device pixels per design pixel
    float stretch = 1;  ///< downwards times so much, with `fill`
    Point origin{};     ///< the corner of the area, in device pixels
    Size size{};        ///< the size of the area, in design pixels
    Rect area{};        ///< where anchors are: without margins and what is unsafe, in design pixels
    friend bool operator==(const Fitted&, const Fitted&) = default;
};

/// How a screen is fitted.
struct FitOptions {
    Size design{1280, 720};
    Fit fit = Fit::edges;
    bool whole_scale = false;  ///< only whole scales and their reciprocals, rounded down: for pixel art
    float ui_scale = 1;        ///< the player's
    Insets margin{};           ///< design pixels
};

/// Everything is zero for an empty viewport or design.
Fitted fit_screen(const FitOptions& options, const Viewport& viewport);

/// Returns whether an element is as wide, or as high, as there is room.
bool stretches_across(const Place& place);
bool stretches_down(const Place& place);

/// The box of a given size at a place in `area`: the same point of the box lies on the anchor, moved by the
/// offset. The area ends at the margins; along an axis that is stretched the box reaches from one to the other.
Rect place_in(const Rect& area, Size size, const Place& place);

/// 0 for an anchor on the left edge, 0.5 for one in the middle, 1 for one on the right edge.
float horizontal_part(Anchor anchor);
/// 0 for an anchor on the upper edge, 0.5 for one in the middle, 1 for one on the lower edge.
float vertical_part(Anchor anchor);

/// How much room a box of a given size needs from an area that it is placed in, so that it does not stick
/// out.
Size room_for(Size size, const Place& place);

}  // namespace rapido
