#include "element/effect_drawing.hpp"

#include <cmath>
#include <numbers>

namespace rapido {

Transform transform_of(const Pose& pose, const Rect& box, float scale, Point pivot) {
    if (pose.pivot) pivot = {horizontal_part(*pose.pivot), vertical_part(*pose.pivot)};
    const Point fixed{box.x + box.width * pivot.x, box.y + box.height * pivot.y};
    return Transform::around(fixed, pose.scale, pose.rotation, {pose.offset.x * scale, pose.offset.y * scale});
}

void draw_dots(const EffectPlayer& player, Nanoseconds now, const Rect& box, float scale, DisplayGroup& into) {
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
        into.rect({x - size / 2, y - size / 2, size, size}, size / 2, color);
    }
}

namespace {

/// One particle of an emission: its number chooses its way.
struct Particle {
    const EffectPlayer::Emission& emission;
    std::uint32_t number;
    double age;  ///< seconds

    double by_chance(std::uint32_t which) const { return chance(emission.seed + 0x9e37U * (which + 1), number); }
};

void draw_particle(const Particle& particle, const ImageLook* picture, const Rect& box, float scale,
                   DisplayGroup& into) {
    const Particles& all = particle.emission.effect->particles;
    const auto part = static_cast<float>(std::clamp(particle.age / all.life.count(), 0.0, 1.0));
    const double turn =
        (static_cast<double>(all.direction) + (particle.by_chance(0) - 0.5) * static_cast<double>(all.spread)) *
        std::numbers::pi / 180;
    const double far = static_cast<double>(all.speed) * (0.5 + 0.5 * particle.by_chance(1)) * particle.age;
    const double fall = 0.5 * static_cast<double>(all.gravity) * particle.age * particle.age;
    const double across = all.anywhere ? particle.by_chance(2) : 0.5;
    const double down = all.anywhere ? particle.by_chance(3) : 0.5;
    const Point at{
        box.x + static_cast<float>(across) * box.width + static_cast<float>(far * std::sin(turn)) * scale,
        box.y + static_cast<float>(down) * box.height + static_cast<float>(fall - far * std::cos(turn)) * scale};
    const float size = (all.size + (all.end_size - all.size) * part) * scale;
    Color color = all.color;
    if (all.end_color)
        color = mix(color, *all.end_color, static_cast<double>(part));
    else
        color.alpha = static_cast<std::uint8_t>(static_cast<float>(color.alpha) * (1 - part) + 0.5F);
    if (!(size > 0) || color.alpha == 0) return;
    const Rect dot{at.x - size / 2, at.y - size / 2, size, size};
    if (picture != nullptr && picture->image())
        into.image(*picture->image(), picture->frame(0), dot, color);
    else
        into.rect(dot, size / 2, color);
}

}  // namespace

void draw_particles(const EffectPlayer::Emission& emission, const ImageLook* picture, Nanoseconds now, const Rect& box,
                    float scale, int& left, DisplayGroup& into) {
    const Particles& all = emission.effect->particles;
    const double life = all.life.count();
    const double passed = to_seconds(now - emission.start).count();
    const bool goes_on = emission.end == Nanoseconds::max();
    const double ends = goes_on ? passed : to_seconds(emission.end - emission.start).count();
    if (!(passed >= 0) || !(life > 0)) return;
    // Those of the rate, the youngest first, each up to one interval later than evenly.
    if (all.rate > 0) {
        const double rate = static_cast<double>(all.rate);
        const auto oldest = static_cast<std::int64_t>(std::max(0.0, std::floor((passed - life) * rate) - 1));
        for (auto i = static_cast<std::int64_t>(std::floor(std::min(passed, ends) * rate)); i >= oldest && left > 0;
             --i) {
            const auto number = static_cast<std::uint32_t>(i);
            const double birth = (static_cast<double>(i) + chance(~emission.seed, number)) / rate;
            if (birth > passed || birth > ends || passed - birth >= life) continue;
            draw_particle({emission, number, passed - birth}, picture, box, scale, into);
            --left;
        }
    }
    // Those of the bursts, which come with each run.
    const double run = emission.effect->duration.count();
    const double last = emission.effect->repeat > 0 ? emission.effect->repeat - 1 : std::floor(ends / run);
    for (double k = std::min(std::floor(passed / run), last); all.burst > 0 && k >= 0 && passed - k * run < life; --k) {
        if (!goes_on && k * run >= ends) continue;
        for (int i = 0; i < all.burst && left > 0; ++i, --left) {
            constexpr std::uint32_t of_bursts = 0x80000000U;
            const auto number = of_bursts + static_cast<std::uint32_t>(k) * 500U + static_cast<std::uint32_t>(i);
            draw_particle({emission, number, passed - k * run}, picture, box, scale, into);
        }
    }
}

}  // namespace rapido
