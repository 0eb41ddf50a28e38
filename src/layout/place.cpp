#include "rapido/layout/place.hpp"

#include <algorithm>
#include <cmath>

namespace rapido {
namespace {

/// Along one axis: at the start, in the middle, at the end.
enum class Side : std::uint8_t { start, middle, end };

Side horizontal(Anchor anchor) {
    return static_cast<Side>(static_cast<int>(anchor) % 3);
}
Side vertical(Anchor anchor) {
    return static_cast<Side>(static_cast<int>(anchor) / 3);
}

float part_of(Side side) {
    return static_cast<float>(side) / 2;
}

float along(Side anchor, Side pivot, float origin, float room, float length, float offset) {
    return origin + room * part_of(anchor) - length * part_of(pivot) + (anchor == Side::end ? -offset : offset);
}

/// How much of a length must stand on each side of the anchor decides how much room there must be.
float room_along(Side anchor, Side pivot, float length, float offset) {
    const float before = length * part_of(pivot) - (anchor == Side::end ? -offset : offset);
    const float after = length - before;
    if (anchor == Side::start) return std::max(0.0F, after);
    if (anchor == Side::end) return std::max(0.0F, before);
    return 2 * std::max({0.0F, before, after});
}

float whole(float scale) {
    if (scale >= 1) return std::floor(scale);
    return scale > 0 ? 1 / std::ceil(1 / scale) : 0;
}

}  // namespace

bool stretches_across(const Place& place) {
    return place.stretch == Stretch::width || place.stretch == Stretch::both;
}
bool stretches_down(const Place& place) {
    return place.stretch == Stretch::height || place.stretch == Stretch::both;
}

Rect place_in(const Rect& area, Size size, const Place& place) {
    const Anchor anchor = place.hangs_on();
    const Anchor pivot = place.pivot.value_or(anchor);
    const Insets& margin = place.margin;
    const Rect inner{area.x + margin.left, area.y + margin.top, area.width - margin.left - margin.right,
                     area.height - margin.top - margin.bottom};
    Rect box{along(horizontal(anchor), horizontal(pivot), inner.x, inner.width, size.width, place.offset.x),
             along(vertical(anchor), vertical(pivot), inner.y, inner.height, size.height, place.offset.y), size.width,
             size.height};
    // As CSS stretches a box between two insets; a largest size leaves spare room, which the anchor divides.
    const auto stretch = [](float& at, float& length, float origin, float room, float most, Side side) {
        length = std::max(room, 0.0F);
        if (most > 0) length = std::min(length, most);
        at = origin + (room - length) * part_of(side);
    };
    if (stretches_across(place))
        stretch(box.x, box.width, inner.x, inner.width, place.max_size.width, horizontal(anchor));
    if (stretches_down(place))
        stretch(box.y, box.height, inner.y, inner.height, place.max_size.height, vertical(anchor));
    return box;
}

float horizontal_part(Anchor anchor) {
    return static_cast<float>(horizontal(anchor)) / 2;
}

float vertical_part(Anchor anchor) {
    return static_cast<float>(vertical(anchor)) / 2;
}

Size room_for(Size size, const Place& place) {
    const Anchor anchor = place.hangs_on();
    const Anchor pivot = place.pivot.value_or(anchor);
    Size room{room_along(horizontal(anchor), horizontal(pivot), size.width, place.offset.x),
              room_along(vertical(anchor), vertical(pivot), size.height, place.offset.y)};
    if (stretches_across(place)) room.width = size.width;
    if (stretches_down(place)) room.height = size.height;
    room.width += place.margin.left + place.margin.right;
    room.height += place.margin.top + place.margin.bottom;
    return room;
}

Fitted fit_screen(const FitOptions& options, const Viewport& viewport) {
    const Size design = options.design;
    const Size window = viewport.size;
    Fitted fitted{.scale = 0, .stretch = 1, .origin = viewport.origin, .size = {}, .area = {}};
    if (!(window.width > 0) || !(window.height > 0) || !(design.width > 0) || !(design.height > 0)) return fitted;
    const float across = window.width / design.width;
    const float down = window.height / design.height;
    float scale = 1;
    if (options.fit == Fit::edges || options.fit == Fit::contain) scale = std::min(across, down);
    if (options.fit == Fit::scale_down) scale = std::min({1.0F, across, down});
    if (options.fit == Fit::cover) scale = std::max(across, down);
    if (options.fit == Fit::fill) scale = across;
    if (options.whole_scale) scale = whole(scale);
    if (options.fit == Fit::fill) fitted.stretch = down / across;

    // The area in device pixels stays where it is when the player wants everything larger.
    Size device = options.fit == Fit::edges ? window : Size{design.width * scale, design.height * scale};
    if (options.fit == Fit::fill) device = {window.width, design.height * scale};
    const Size seen = options.fit == Fit::fill ? device : window;
    fitted.origin = {viewport.origin.x + std::round((seen.width - device.width) / 2),
                     viewport.origin.y + std::round((seen.height - device.height) / 2)};
    fitted.scale = options.whole_scale ? whole(scale * options.ui_scale) : scale * options.ui_scale;
    if (!(fitted.scale > 0)) return fitted;
    fitted.size = {device.width / fitted.scale, device.height / fitted.scale};

    // What is unsafe counts from the edges of the viewport, not from those of the area.
    const auto unsafe = [&](float safe, float bar, float stretch) {
        return safe > 0 ? std::max(0.0F, safe / stretch - bar) / fitted.scale : 0.0F;
    };
    const Insets& safe = viewport.safe_area;
    const float left = fitted.origin.x - viewport.origin.x;
    const float top = fitted.origin.y - viewport.origin.y;
    const Insets inset{unsafe(safe.top, top, fitted.stretch) + options.margin.top,
                       unsafe(safe.right, seen.width - device.width - left, 1) + options.margin.right,
                       unsafe(safe.bottom, seen.height - device.height - top, fitted.stretch) + options.margin.bottom,
                       unsafe(safe.left, left, 1) + options.margin.left};
    fitted.area = Rect{0, 0, fitted.size.width, fitted.size.height}.inset(inset);
    return fitted;
}

}  // namespace rapido
