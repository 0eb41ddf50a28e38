// Layout: sizes from the inside out, places from the outside in.
#include "hud/state.hpp"

namespace rapido {

void Hud::State::lay_out() {
    if (!layout_dirty || measurer == nullptr) return;
    layout_dirty = false;
    measure_elements();
    place_elements();
}

void Hud::State::measure_elements() {
    for (const ElementIndex index : parents_first)
        elements[index].content = {};
    for (auto at = parents_first.rbegin(); at != parents_first.rend(); ++at) {
        RunningElement& element = elements[*at];
        if (hot[*at].size_dirty || !element.body->resizes()) {
            hot[*at].size_dirty = false;
            update_body_text(*at);
            const Size own = element.body->measure(measurer, element.content);
            element.natural = {std::max(own.width, element.place.size.width),
                               std::max(own.height, element.place.size.height)};
        }
        if (element.parent == no_element || !element.shown) continue;
        Size& content = elements[element.parent].content;
        const Size room = room_for(element.natural, element.place);
        content = {std::max(content.width, room.width), std::max(content.height, room.height)};
    }
}

void Hud::State::place_elements() {
    const float fitted = scale_to_fit(design, viewport.size);
    const bool rescaled = fitted != scale;
    scale = fitted;
    const Rect screen{0, 0, scale > 0 ? viewport.size.width / scale : 0,
                      scale > 0 ? viewport.size.height / scale : 0};
    for (const ElementIndex index : parents_first) {
        RunningElement& element = elements[index];
        const Rect area = element.parent == no_element
                              ? screen
                              : elements[element.parent].body->content_of(elements[element.parent].box);
        const Rect box = place_in(area, element.natural, element.place);
        if (box == element.box && !rescaled) continue;
        element.box = box;
        ++hot[index].revision;
    }
}

}  // namespace rapido
