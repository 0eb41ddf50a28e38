// What effects do to what they run on, and what they draw over it.
#pragma once

#include "element/image_look.hpp"
#include "rapido/draw/display_list.hpp"
#include "rapido/look/effect_player.hpp"

namespace rapido {

/// The dots of an effect around the middle of a box, if it has some.
void draw_dots(const EffectPlayer& player, Nanoseconds now, const Rect& box, float scale, DisplayGroup& into);

/// The particles that fly, as dots or as images: at most so many of an element, the youngest.
inline constexpr int most_particles = 1000;
void draw_particles(const EffectPlayer::Emission& emission, const ImageLook* picture, Nanoseconds now, const Rect& box,
                    float scale, int& left, DisplayGroup& into);

/// Around the pivot of the pose, or without one a point of the box as parts of its size; `scale` is device pixels per design
/// pixel.
Transform transform_of(const Pose& pose, const Rect& box, float scale, Point pivot = {0.5F, 0.5F});

/// A soft stripe of light on its way from the left of a box to the right, as parts over each other.
struct ShineStripe {
    float left = 0, right = 0;
};
template <class Draw>
void for_each_stripe(const Rect& box, float progress, Draw draw) {
    const float width = std::max(box.height, box.width * 0.16F);
    const float middle = box.x - width + progress * (box.width + 2 * width);
    for (const float part : {1.0F, 0.9F, 0.8F, 0.7F, 0.6F, 0.5F, 0.4F, 0.3F, 0.2F}) {
        const float left = std::max(box.x, middle - width * part / 2);
        const float right = std::min(box.right(), middle + width * part / 2);
        if (right > left) draw(ShineStripe{left, right});
    }
}

}  // namespace rapido
