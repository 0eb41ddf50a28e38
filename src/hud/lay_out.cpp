// Layout: sizes from the inside out, places from the outside in; only of what changed, and of what depends on it.
#include <algorithm>

#include "base/utf8.hpp"
#include "hud/element_context.hpp"

namespace rapido {

void Hud::State::lay_out() {
    if (measurer == nullptr) return;
    if (screen_dirty) fit_to_screen();
    measure_resized();
    arrange_placed();
}

/// A new screen, or other elements on it: everything may stand elsewhere.
void Hud::State::fit_to_screen() {
    screen_dirty = false;
    const Fitted fitted = fit_screen(fit, viewport);
    const bool mirrors = definition_mirrors && language != nullptr && language->right_to_left;
    const bool moved_all = mirrors != mirrored || fitted.scale != screen.scale ||
                           !(fitted.origin == screen.origin) || !(fitted.area == screen.area) ||
                           fitted.stretch != screen.stretch;
    screen = fitted;
    mirrored = mirrors;
    for (const ElementIndex index : parents_first) {
        RunningElement& element = elements[index];
        if (element.parent == no_element) must_place(index);
        if (element.child_count > 0 || element.kind == &Description<Panel>::table) must_measure(index);
        if (moved_all) ++hot[index].revision;
    }
}

void Hud::State::must_measure(ElementIndex index) {
    if (measurer == nullptr || index == no_element || hot[index].size_dirty) return;
    hot[index].size_dirty = true;
    resized.push_back(index);
}

void Hud::State::must_place(ElementIndex index) {
    RunningElement& element = elements[index];
    if (!element.must_place && !element.must_arrange) to_place.push_back(index);
    element.must_place = true;
}

void Hud::State::must_arrange(ElementIndex index) {
    RunningElement& element = elements[index];
    if (!element.must_place && !element.must_arrange) to_place.push_back(index);
    element.must_arrange = true;
}

/// The innermost first: a panel is measured when all inside it are.
void Hud::State::measure_resized() {
    if (resized.empty()) return;
    const auto outer = [this](ElementIndex a, ElementIndex b) {
        return elements[a].order < elements[b].order;
    };
    std::erase_if(resized, [this](ElementIndex index) { return elements[index].body == nullptr; });
    std::make_heap(resized.begin(), resized.end(), outer);
    while (!resized.empty()) {
        std::pop_heap(resized.begin(), resized.end(), outer);
        const ElementIndex index = resized.back();
        resized.pop_back();
        const std::size_t others = resized.size();
        measure(index);
        if (resized.size() > others) std::push_heap(resized.begin(), resized.end(), outer);
    }
}

void Hud::State::measure(ElementIndex index) {
    RunningElement& element = elements[index];
    hot[index].size_dirty = false;
    update_body_text(index);
    Size content;
    if (const Arrangement* const arrangement = element.body->arrangement()) {
        content = flow.measure(*arrangement, items_of(element));
        must_arrange(index);
    }
    const Size own = element.body->measure(measurer, content);
    report_missing(element);
    const Place& place = element.place;
    const auto limited = [](float size, float least, float most) {
        const float at_least = std::max(size, least);
        return most > 0 ? std::min(at_least, most) : at_least;
    };
    const Size natural{limited(own.width, place.size.width, place.max_size.width),
                       limited(own.height, place.size.height, place.max_size.height)};
    const Hold hold = element.body->hold();
    const bool same = natural == element.natural && hold == element.hold;
    element.natural = natural;
    element.hold = hold;
    if (element.placed) element.body->set_width(measurer, element.box.width);
    if (same) return;
    if (element.parent == no_element)
        must_place(index);
    else if (element.shown)
        must_measure(element.parent);
}

/// Nobody should find an empty box where a character was.
void Hud::State::report_missing(const RunningElement& element) {
    for (const char32_t c : measurer->take_missing()) {
        std::string code;
        for (unsigned shift = c > 0xffff ? 20U : 12U;; shift -= 4) {
            code += "0123456789ABCDEF"[(c >> shift) & 15U];
            if (shift == 0) break;
        }
        report({{},
                std::string(element.kind->name) + " '" + element.path + "': no font has '" + utf8::encode(c) +
                    "' (U+" + code + ")",
                "add a family that has it to 'font'"});
    }
}

/// What stands inside a panel and is shown, as layout sees it.
std::span<const FlowItem> Hud::State::items_of(const RunningElement& panel) {
    flow_items.clear();
    flow_elements.clear();
    const auto first = children.begin() + panel.first_child;
    for (auto child = first; child != first + panel.child_count; ++child) {
        const RunningElement& element = elements[*child];
        if (!element.shown || element.body == nullptr) continue;
        flow_elements.push_back(*child);
        flow_items.push_back({element.natural, &element.place, element.hold.baseline, element.hold.digits,
                              element.hold.shrinks});
    }
    return flow_items;
}

/// The outermost first: what stands inside a panel is arranged when the panel has its box.
void Hud::State::arrange_placed() {
    if (to_place.empty()) return;
    const auto inner = [this](ElementIndex a, ElementIndex b) {
        return elements[a].order > elements[b].order;
    };
    std::erase_if(to_place, [this](ElementIndex index) { return elements[index].body == nullptr; });
    std::make_heap(to_place.begin(), to_place.end(), inner);
    while (!to_place.empty()) {
        std::pop_heap(to_place.begin(), to_place.end(), inner);
        const ElementIndex index = to_place.back();
        to_place.pop_back();
        RunningElement& element = elements[index];
        const bool on_screen = std::exchange(element.must_place, false);
        bool holds = std::exchange(element.must_arrange, false);
        if (on_screen && element.parent == no_element) {
            const FlowItem alone{element.natural, &element.place, -1, -1, element.hold.shrinks};
            Rect box;
            flow.arrange({}, screen.area, std::span(&alone, 1), std::span(&box, 1));
            if (!(box == element.box) || !element.placed) {
                place(index, box);
                holds = true;
            }
        }
        const Arrangement* const arrangement = element.body->arrangement();
        if (!holds || arrangement == nullptr) continue;
        const auto items = items_of(element);
        flow_boxes.resize(items.size());
        flow.arrange(*arrangement, element.body->content_of(element.box), items, flow_boxes);
        for (std::size_t i = 0; i < items.size(); ++i) {
            const ElementIndex child = flow_elements[i];
            if (flow_boxes[i] == elements[child].box && elements[child].placed) continue;
            const std::size_t others = to_place.size();
            place(child, flow_boxes[i]);
            if (elements[child].body->arrangement() != nullptr) must_arrange(child);
            if (to_place.size() > others) std::push_heap(to_place.begin(), to_place.end(), inner);
        }
    }
}

void Hud::State::place(ElementIndex index, const Rect& box) {
    RunningElement& element = elements[index];
    element.box = box;
    element.placed = true;
    element.body->set_width(measurer, box.width);
    ++hot[index].revision;
}

Rect Hud::State::screen_box(const Rect& box) const {
    if (!mirrored) return box;
    return {screen.area.x + screen.area.right() - box.right(), box.y, box.width, box.height};
}

}  // namespace rapido
