// Where on the screen: anchors, offsets, the viewport.
#pragma once

#include "rapido/base/units.hpp"

namespace rapido {

/// One of the nine points of a box that a place is measured from.
enum class Anchor : std::uint8_t {
    top_left,
    top,
    top_right,
    left,
    center,
    right,
    bottom_left,
    bottom,
    bottom_right
};

/// Where an element stands in the viewport, or in the panel that it is inside of.
struct Place {
    Anchor anchor = Anchor::top_left;
    /// Inwards from the anchored edges, in design pixels; right and down along a centred axis. So another
    /// corner is a change of one word.
    Point offset;
    /// In design pixels. Zero along an axis: as large as what the element holds.
    Size size;
    friend bool operator==(const Place&, const Place&) = default;
};

/// The part of a window that a HUD fills, in device pixels. Negative or non-finite measures count as zero.
struct Viewport {
    Point origin;
    Size size{1280, 720};
    friend bool operator==(const Viewport&, const Viewport&) = default;
};

/// The box of a given size at a place in `area`: the same point of the box lies on the anchor, moved by the
/// offset.
Rect place_in(const Rect& area, Size size, const Place& place);

/// 0 for an anchor on the left edge, 0.5 for one in the middle, 1 for one on the right edge.
float horizontal_part(Anchor anchor);

/// How much room a box of a given size needs from an area that it is placed in, so that it does not stick
/// out.
Size room_for(Size size, const Place& place);

/// Device pixels per design pixel: the largest scale at which the whole design size fits the viewport. The
/// anchors follow the real edges, so a wider window shows more room, not larger texts. Zero for an empty
/// viewport.
float scale_to_fit(Size design, Size viewport);

}  // namespace rapido
