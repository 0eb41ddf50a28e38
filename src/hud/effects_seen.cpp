// What effects do to the look of elements: transforms, tints, light and dots.
#include "element/effect_drawing.hpp"
#include "hud/effects.hpp"

namespace rapido {
namespace {

/// Downwards from where the screen begins.
Transform stretched(const Fitted& screen) {
    return {.yy = screen.stretch, .dy = screen.origin.y * (1 - screen.stretch)};
}

}  // namespace

Pose Effects::pose(ElementIndex index, Nanoseconds now) const {
    return on_[index].own != nullptr ? on_[index].own->player.pose(now) : Pose{};
}

template <class BoxOf>
Moved Effects::moved(ElementIndex index, Nanoseconds now, float scale, BoxOf&& box_of) const {
    Moved all;
    for (ElementIndex at = index; at != no_element; at = elements_[at].parent) {
        if (const Rest* const rest = elements_[at].rest.get(); rest != nullptr) {
            const Rect box = box_of(at);
            const Point middle{box.x + box.width / 2, box.y + box.height / 2};
            const Point pivot = layouter_.pivot(at);
            const Point held{box.x + box.width * pivot.x, box.y + box.height * pivot.y};
            all.transform = all.transform.then(Transform::around(held, rest->scale, 0, {}))
                                .then(Transform::around(middle, 1, rest->rotation, {}));
            all.scale *= rest->scale;
            all.rotation += rest->rotation;
        }
        if (const Pose here = playing_.empty() ? Pose{} : pose(at, now); here != Pose{}) {
            all.transform = all.transform.then(transform_of(here, box_of(at), scale, layouter_.pivot(at)));
            all.opacity *= here.opacity;
            all.scale *= here.scale;
            all.rotation += here.rotation;
            if (all.tint.part == 0) all.tint = {here.color, here.color_part};
        }
        if (const Carried& carried = elements_[at].carried; carried != Carried{}) {
            const Rect box = box_of(at);
            const Point shift{carried.shift.x * scale, carried.shift.y * scale};
            all.transform = all.transform.then(Transform::around({box.x, box.y}, carried.scale, 0, shift));
            all.scale *= carried.scale;
            all.opacity *= carried.opacity;
        }
    }
    return all;
}

Moved Effects::moved(ElementIndex index, Nanoseconds now) const {
    const Fitted& screen = layouter_.screen();
    Moved all = moved(index, now, screen.scale, [this](ElementIndex at) { return layouter_.device_box(at); });
    if (screen.stretch != 1) all.transform = all.transform.then(stretched(screen));
    return all;
}

Moved Effects::moved_in_design(ElementIndex index, Nanoseconds now) const {
    return moved(index, now, 1, [this](ElementIndex at) { return layouter_.box(at); });
}

void Effects::draw_over(ElementIndex index, Nanoseconds now, const Rect& box, DrawGroup& into) const {
    const ElementEffects* const own = on_[index].own.get();
    if (own == nullptr || own->player.resting()) return;
    const float scale = layouter_.screen().scale;
    if (const Pose here = own->player.pose(now); here.shine >= 0) {
        const Body::Face face = elements_[index].body->face(box, scale);
        for_each_stripe(face.rect, here.shine, [&](const ShineStripe& stripe) {
            into.add_rect(face.rect, face.radius, rgb(0xffffff, 0.07),
                          {stripe.left, face.rect.y, stripe.right - stripe.left, face.rect.height});
        });
    }
    draw_dots(own->player, now, box, scale, into);
    if (settings_.reduced_motion) return;
    int left = most_particles;
    for (const EffectPlayer::Emission& emission : own->player.emissions()) {
        const auto picture = pictures_.find(emission.effect);
        draw_particles(emission, picture != pictures_.end() ? &picture->second : nullptr, now, box, scale, left, into);
    }
}

}  // namespace rapido
