#include "element/effect_drawing.hpp"

#include <cmath>
#include <numbers>

namespace rapido {

Pose pose_of_body(const EffectPlayer& player, Nanoseconds now) {
    const Effect* const effect = player.running();
    if (effect == nullptr) return {};
    return effect->dots.count == 0 || player.is_steady(now) ? player.pose(now) : Pose{};
}

Transform transform_of(const Pose& pose, const Rect& box, float scale) {
    const Point middle{box.x + box.width / 2, box.y + box.height / 2};
    return Transform::around(middle, pose.scale, pose.rotation,
                             {pose.offset.x * scale, pose.offset.y * scale});
}

void draw_dots(const EffectPlayer& player, Nanoseconds now, const Rect& box, float scale, DrawGroup& into) {
    const Effect* const effect = player.running();
    if (effect == nullptr || effect->dots.count == 0 || player.is_steady(now)) return;
    const Pose pose = player.pose(now);
    if (pose == Pose{}) return;
    const Point middle{box.x + box.width / 2, box.y + box.height / 2};
    const std::uint32_t seed = player.seed();
    const float size = effect->dots.size * scale * pose.scale;
    Color color = effect->dots.color;
    color.alpha = static_cast<std::uint8_t>(static_cast<float>(color.alpha) * pose.opacity + 0.5F);
    for (int i = 0; i < effect->dots.count; ++i) {
        // Evenly around, each a little off its way and of its own speed.
        const auto number = static_cast<std::uint32_t>(i);
        const double turn = (i + chance(seed, number)) / effect->dots.count * 2 * std::numbers::pi;
        const double far = static_cast<double>(pose.offset.x * scale) * (0.55 + 0.45 * chance(~seed, number));
        const float x = middle.x + static_cast<float>(far * std::cos(turn));
        const float y = middle.y + static_cast<float>(far * std::sin(turn));
        into.add_rect({x - size / 2, y - size / 2, size, size}, size / 2, color);
    }
}

}  // namespace rapido
