#include "rapido/layout/place.hpp"

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

float along(Side side, float origin, float room, float length, float offset) {
    if (side == Side::start) return origin + offset;
    if (side == Side::end) return origin + room - length - offset;
    return origin + (room - length) / 2 + offset;
}

float room_along(Side side, float length, float offset) {
    return side == Side::middle ? length + 2 * std::abs(offset) : std::max(0.0F, length + offset);
}

}  // namespace

Rect place_in(const Rect& area, Size size, const Place& place) {
    return {along(horizontal(place.anchor), area.x, area.width, size.width, place.offset.x),
            along(vertical(place.anchor), area.y, area.height, size.height, place.offset.y), size.width,
            size.height};
}

float horizontal_part(Anchor anchor) {
    return static_cast<float>(horizontal(anchor)) / 2;
}

Size room_for(Size size, const Place& place) {
    return {room_along(horizontal(place.anchor), size.width, place.offset.x),
            room_along(vertical(place.anchor), size.height, place.offset.y)};
}

float scale_to_fit(Size design, Size viewport) {
    if (!(viewport.width > 0) || !(viewport.height > 0) || !(design.width > 0) || !(design.height > 0))
        return 0;
    return std::min(viewport.width / design.width, viewport.height / design.height);
}

}  // namespace rapido
