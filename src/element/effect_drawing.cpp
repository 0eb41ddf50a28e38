#include "element/effect_drawing.hpp"

#include <cmath>
#include <numbers>

namespace rapido {

Transform transform_of(const Pose& pose, const Rect& box, float scale, Point pivot) {
    if (pose.pivot) pivot = {horizontal_part(*pose.pivot), vertical_part(*pose.pivot)};
    const Point fixed{box.x + box.width * pivot.x, box.y + box.height * pivot.y};
    return Transform::around(fixed, pose.scale, pose.rotation,
                             {pose.offset.x * scale, pose.offset.y * scale});
}

void draw_dots(const EffectPlayer& player, Nanoseconds now, const Rect& box, float scale, DrawGroup& into) {
    const std::optional<EffectPlayer::FlyingDots> flying = player.dots(now);
    if (!flying) return;
    const auto& [dots, pose, seed] = *flying;
    const Point middle{box.x + box.width / 2, box.y + box.height / 2};
    const float size = dots->size * scale * pose.scale;
    Color color = dots->color;
    color.alpha = static_cast<std::uint8_t>(static_cast<float>(color.alpha) * pose.opacity + 0.5F);
    for (int i = 0; i < dots->count; ++i) {
        // Evenly around, each a little off its way and of its own speed.
        const auto number = static_cast<std::uint32_t>(i);
        const double turn = (i + chance(seed, number)) / dots->count * 2 * std::numbers::pi;
        const double far = static_cast<double>(pose.offset.x * scale) * (0.55 + 0.45 * chance(~seed, number));
        const float x = middle.x + static_cast<float>(far * std::cos(turn));
        const float y = middle.y + static_cast<float>(far * std::sin(turn));
        into.add_rect({x - size / 2, y - size / 2, size, size}, size / 2, color);
    }
}

}  // namespace rapido
