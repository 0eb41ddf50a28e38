#include "hud/layouter.hpp"

#include <algorithm>
#include <utility>

#include "base/utf8.hpp"

namespace rapido {

void Layouter::set_options(const FitOptions& options, bool mirrors) {
    const float scale = options_.ui_scale;
    options_ = options;
    options_.ui_scale = scale;
    may_mirror_ = mirrors;
    screen_dirty_ = true;
}

void Layouter::set_viewport(const Viewport& viewport) {
    next_viewport_ = viewport;
    screen_dirty_ = true;
}

void Layouter::set_ui_scale(float scale) {
    options_.ui_scale = scale;
    screen_dirty_ = true;
}

void Layouter::set_right_to_left(bool right_to_left) {
    right_to_left_ = right_to_left;
    screen_dirty_ = true;
}

void Layouter::add(ElementIndex index, const Place& place) {
    placed_.grow_to(index + std::size_t{1});
    placed_[index] = {};
    set_place(index, place);
}

void Layouter::set_place(ElementIndex index, const Place& place) {
    const RunningElement& element = elements_[index];
    const Place& of_kind = element.kind->place;
    Place& own = placed_[index].place;
    own = place;
    if (!own.anchor) {
        own.anchor = of_kind.hangs_on();
        // The offset of a kind is from the edge of the screen; in a panel there is no edge to keep away from.
        if (own.offset == Point{} && element.inside().empty()) own.offset = of_kind.offset;
    }
    Size natural = of_kind.size;
    if (element.body->is_upright()) std::swap(natural.width, natural.height);
    if (own.size.width == 0) own.size.width = natural.width;
    if (own.size.height == 0) own.size.height = natural.height;
    placed_[index].natural = {-1, -1};  // so that it is placed anew even in the same size
    must_measure(index);
}

void Layouter::remove(ElementIndex index) {
    placed_[index].shown = false;
    must_measure(elements_[index].parent);
}

void Layouter::relink() {
    screen_dirty_ = true;
    resized_.reserve(placed_.size());
    to_place_.reserve(placed_.size());
}

void Layouter::set_shown(ElementIndex index, bool shown) {
    placed_[index].shown = shown;
    must_measure(elements_[index].parent);
}

void Layouter::lay_out() {
    if (measurer_ == nullptr) return;
    fit();
    // A text that is broken into lines is of another height where its panel gives it less room; what stands around it follows.
    constexpr int most_rounds = 4;
    for (int round = 0; round < most_rounds && (round == 0 || !resized_.empty()); ++round) {
        measure_resized();
        arrange_placed();
    }
}

void Layouter::fit() {
    if (screen_dirty_) fit_to_screen();
}

/// A new screen, or other elements on it: everything may stand elsewhere.
void Layouter::fit_to_screen() {
    screen_dirty_ = false;
    viewport_ = next_viewport_;
    const Fitted fitted = fit_screen(options_, viewport_.value_or(Viewport{}));
    const bool mirrors = may_mirror_ && right_to_left_;
    const bool moved_all = mirrors != mirrored_ || !(fitted == screen_);
    screen_ = fitted;
    mirrored_ = mirrors;
    for (const ElementIndex index : elements_.parents_first()) {
        if (elements_[index].parent == no_element) queue_place(index, false);
        if (elements_[index].kind->can.holds_children) must_measure(index);
        if (moved_all) elements_.mark_moved(index);
    }
}

void Layouter::queue_place(ElementIndex index, bool inside) {
    Placed& placed = placed_[index];
    if (!placed.must_place && !placed.must_arrange) to_place_.push_back(index);
    (inside ? placed.must_arrange : placed.must_place) = true;
}

/// The innermost first: a panel is measured when all inside it are.
void Layouter::measure_resized() {
    if (resized_.empty()) return;
    const auto outer = [this](ElementIndex a, ElementIndex b) { return elements_[a].order < elements_[b].order; };
    std::erase_if(resized_, [this](ElementIndex index) { return elements_[index].body == nullptr; });
    std::make_heap(resized_.begin(), resized_.end(), outer);
    while (!resized_.empty()) {
        std::pop_heap(resized_.begin(), resized_.end(), outer);
        const ElementIndex index = resized_.back();
        resized_.pop_back();
        const std::size_t others = resized_.size();
        measure(index);
        if (resized_.size() > others) std::push_heap(resized_.begin(), resized_.end(), outer);
    }
}

void Layouter::measure(ElementIndex index) {
    const RunningElement& element = elements_[index];
    Placed& placed = placed_[index];
    placed.must_measure = false;
    Size content;
    if (const Arrangement* const arrangement = element.body->arrangement()) {
        content = flow_.measure(*arrangement, items_of(index));
        queue_place(index, true);
    }
    const Size own = element.body->measure(measurer_, content);
    report_missing(element);
    const Place& place = placed.place;
    const auto limited = [](float size, float least, float most) {
        const float at_least = std::max(size, least);
        return most > 0 ? std::min(at_least, most) : at_least;
    };
    const Size natural{limited(own.width, place.size.width, place.max_size.width),
                       limited(own.height, place.size.height, place.max_size.height)};
    const Hold hold = element.body->hold();
    const bool same = natural == placed.natural && hold == placed.hold;
    placed.natural = natural;
    placed.hold = hold;
    if (placed.has_box) element.body->set_width(measurer_, placed.box.width);
    if (same) return;
    if (element.parent == no_element)
        queue_place(index, false);
    else if (placed.shown)
        must_measure(element.parent);
}

/// Nobody should find an empty box where a character was.
void Layouter::report_missing(const RunningElement& element) {
    for (const char32_t c : measurer_->take_missing()) {
        std::string code;
        for (unsigned shift = c > 0xffff ? 20U : 12U;; shift -= 4) {
            code += "0123456789ABCDEF"[(c >> shift) & 15U];
            if (shift == 0) break;
        }
        problems_.report({{},
                          element.name() + ": no font has '" + utf8::encode(c) + "' (U+" + code + ")",
                          "add a family that has it to 'font'",
                          ProblemCode::missing_glyph,
                          Severity::warning});
    }
}

/// What stands inside a panel and is shown, as layout sees it.
std::span<const FlowItem> Layouter::items_of(ElementIndex panel) {
    flow_items_.clear();
    flow_elements_.clear();
    for (const ElementIndex child : elements_.children(panel)) {
        const Placed& placed = placed_[child];
        if (!placed.shown || elements_[child].body == nullptr) continue;
        flow_elements_.push_back(child);
        // Boxes are mirrored when they are drawn, and the digits inside them are not.
        const float digits = mirrored_ ? placed.hold.digits_after : placed.hold.digits;
        flow_items_.push_back({placed.natural, &placed.place, placed.hold.baseline, digits, placed.hold.shrinks});
    }
    return flow_items_;
}

/// The outermost first: what stands inside a panel is arranged when the panel has its box.
void Layouter::arrange_placed() {
    if (to_place_.empty()) return;
    const auto inner = [this](ElementIndex a, ElementIndex b) { return elements_[a].order > elements_[b].order; };
    std::erase_if(to_place_, [this](ElementIndex index) { return elements_[index].body == nullptr; });
    std::make_heap(to_place_.begin(), to_place_.end(), inner);
    while (!to_place_.empty()) {
        std::pop_heap(to_place_.begin(), to_place_.end(), inner);
        const ElementIndex index = to_place_.back();
        to_place_.pop_back();
        std::size_t others = to_place_.size();
        Placed& placed = placed_[index];
        const bool on_screen = std::exchange(placed.must_place, false);
        const bool inside = std::exchange(placed.must_arrange, false);
        const bool moved = on_screen && elements_[index].parent == no_element && place_on_screen(index);
        if (inside || moved) arrange(index);
        while (others < to_place_.size())
            std::push_heap(to_place_.begin(), to_place_.begin() + static_cast<std::ptrdiff_t>(++others), inner);
    }
}

/// True if it stands elsewhere now.
bool Layouter::place_on_screen(ElementIndex index) {
    const Placed& placed = placed_[index];
    const FlowItem alone{placed.natural, &placed.place, -1, -1, placed.hold.shrinks};
    Rect box;
    flow_.arrange({}, screen_.area, std::span(&alone, 1), std::span(&box, 1));
    if (elements_[index].kind->can.stays_on_screen) {
        const Rect& area = screen_.area;
        box.width = std::min(box.width, area.width);
        box.x = std::clamp(box.x, area.x, std::max(area.x, area.right() - box.width));
        box.y = std::clamp(box.y, area.y, std::max(area.y, area.y + area.height - box.height));
    }
    if (box == placed.box && placed.has_box) return false;
    set_box(index, box);
    return true;
}

void Layouter::arrange(ElementIndex panel) {
    const Body& body = *elements_[panel].body;
    const Arrangement* const arrangement = body.arrangement();
    if (arrangement == nullptr) return;
    const auto items = items_of(panel);
    flow_boxes_.resize(items.size());
    flow_.arrange(*arrangement, body.content_of(placed_[panel].box), items, flow_boxes_);
    for (std::size_t i = 0; i < items.size(); ++i) {
        const ElementIndex child = flow_elements_[i];
        if (flow_boxes_[i] == placed_[child].box && placed_[child].has_box) continue;
        set_box(child, flow_boxes_[i]);
        if (elements_[child].body->arrangement() != nullptr) queue_place(child, true);
    }
}

void Layouter::set_box(ElementIndex index, const Rect& box) {
    placed_[index].box = box;
    placed_[index].has_box = true;
    if (elements_[index].body->set_width(measurer_, box.width)) must_measure(index);
    elements_.mark_moved(index);
}

Rect Layouter::box(ElementIndex index) const {
    const Rect& box = placed_[index].box;
    if (!mirrored_) return box;
    return {screen_.area.x + screen_.area.right() - box.right(), box.y, box.width, box.height};
}

std::optional<float> Layouter::column_side(ElementIndex index) const {
    const ElementIndex parent = elements_[index].parent;
    const Arrangement* const around = parent != no_element ? elements_[parent].body->arrangement() : nullptr;
    if (around == nullptr || around->layout != Layout::column) return std::nullopt;
    if (around->align == Align::start) return 0;
    if (around->align == Align::center) return 0.5F;
    return around->align == Align::end ? std::optional(1.0F) : std::nullopt;
}

Point Layouter::pivot(ElementIndex index) const {
    const Place& place = placed_[index].place;
    const Anchor anchor = place.pivot.value_or(place.hangs_on());
    Point part{horizontal_part(anchor), vertical_part(anchor)};
    const ElementIndex parent = elements_[index].parent;
    const Arrangement* const around = parent != no_element ? elements_[parent].body->arrangement() : nullptr;
    if (around != nullptr && around->layout != Layout::free) {
        const bool is_row = around->layout != Layout::column;
        float& along = is_row ? part.x : part.y;
        float& across = is_row ? part.y : part.x;
        along = 0.5F;
        if (around->align != Align::anchor)
            across = around->align == Align::start ? 0 : around->align == Align::end ? 1.0F : 0.5F;
    }
    if (stretches_across(place)) part.x = 0.5F;
    if (stretches_down(place)) part.y = 0.5F;
    // Characters that stand at one side of their box are held there.
    if (const std::optional<float> side = elements_[index].body->aligned_at()) part.x = *side;
    if (mirrored_) part.x = 1 - part.x;
    return part;
}

Rect Layouter::device_box(ElementIndex index) const {
    const Rect seen = box(index);
    const float scale = screen_.scale;
    return {screen_.origin.x + seen.x * scale, screen_.origin.y + seen.y * scale, seen.width * scale,
            seen.height * scale};
}

}  // namespace rapido
