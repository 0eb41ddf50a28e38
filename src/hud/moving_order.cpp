#include "hud/moving_order.hpp"

#include <algorithm>
#include <utility>

namespace rapido {

MovingOrder::Panel* MovingOrder::find(ElementIndex index) {
    const auto found =
        std::find_if(all_.begin(), all_.end(), [index](const Panel& panel) { return panel.index == index; });
    return found != all_.end() ? &*found : nullptr;
}

void MovingOrder::add(ElementIndex index, const Motion& motion) {
    if (Panel* const known = find(index))
        known->motion = motion;
    else
        all_.push_back({.index = index, .motion = motion});
}

void MovingOrder::remove(ElementIndex index) {
    std::erase_if(all_, [index](const Panel& panel) { return panel.index == index; });
}

void MovingOrder::set(ElementIndex index, std::span<const ElementIndex> order) {
    Panel& panel = *find(index);
    if (std::equal(order.begin(), order.end(), panel.order.begin(), panel.order.end())) return;
    panel.order.assign(order.begin(), order.end());
    panel.has_changed = true;
    elements_.order_children(index, panel.order);
    layouter_.must_measure(index);
}

void MovingOrder::set_last(ElementIndex index, std::span<const ElementIndex> order) {
    std::vector<ElementIndex> all;
    for (const ElementIndex child : elements_.children(index))
        if (std::find(order.begin(), order.end(), child) == order.end()) all.push_back(child);
    all.insert(all.end(), order.begin(), order.end());
    set(index, all);
}

void MovingOrder::snap(ElementIndex index, ElementIndex child) {
    for (Child& known : find(index)->children)
        if (known.index == child) known.is_known = false;
}

void MovingOrder::note(ElementIndex index, Nanoseconds at) {
    Panel* const panel = find(index);
    if (panel != nullptr) panel->changed = std::max(panel->changed.value_or(at), at);
}

void MovingOrder::relink() {
    for (Panel& panel : all_) {
        const std::span<const ElementIndex> children = elements_.children(panel.index);
        std::erase_if(panel.children, [&](const Child& child) {
            return std::find(children.begin(), children.end(), child.index) == children.end();
        });
        for (const ElementIndex index : children)
            if (std::none_of(panel.children.begin(), panel.children.end(),
                             [index](const Child& child) { return child.index == index; }))
                panel.children.push_back({.index = index, .at = {}, .is_known = false, .x = {}, .y = {}});
        elements_.order_children(panel.index, panel.order);
    }
}

void MovingOrder::advance(Nanoseconds now) {
    for (Panel& panel : all_)
        advance(panel, now);
}

void MovingOrder::advance(Panel& panel, Nanoseconds now) {
    for (const Child& child : panel.children)
        panel.has_changed = panel.has_changed || child.is_known != layouter_.is_placed(child.index);
    // What moves for another reason, such as a text that grew, does so at once.
    const bool has_changed = std::exchange(panel.has_changed, false);
    const Nanoseconds begins = std::min(std::exchange(panel.changed, {}).value_or(now), now);
    for (Child& child : panel.children) {
        const bool is_placed = layouter_.is_placed(child.index);
        const Rect box = layouter_.box(child.index);
        const Point at{box.x, box.y};
        if (!is_placed || !child.is_known || settings_.reduced_motion) {
            child.x.land();
            child.y.land();
        } else if (has_changed) {
            const auto retarget = [&](Flight& flight, float from, float to) {
                constexpr double grain = 0.01;  // design pixels
                if (from != to)
                    flight.retarget(static_cast<double>(from) - static_cast<double>(to), begins, panel.motion,
                                    {.unit = 1, .grain = grain});
            };
            retarget(child.x, child.at.x, at.x);
            retarget(child.y, child.at.y, at.y);
        }
        child.at = at;
        child.is_known = is_placed;
        elements_.carry(child.index, {.shift = {static_cast<float>(child.x.distance(now)),
                                                static_cast<float>(child.y.distance(now))}});
    }
}

}  // namespace rapido
