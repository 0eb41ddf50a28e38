// What a game reads of a HUD, between two frames.
#include <algorithm>
#include <array>
#include <cmath>

#include "base/nearest.hpp"
#include "hud/state.hpp"

namespace rapido {
namespace {

/// Whether a polygon without dents holds a point.
bool holds(std::span<const Point> corners, Point point) {
    bool left = false, right = false;
    for (std::size_t i = 0; i < corners.size(); ++i) {
        const Point a = corners[i], b = corners[(i + 1) % corners.size()];
        const float side = (b.x - a.x) * (point.y - a.y) - (b.y - a.y) * (point.x - a.x);
        left = left || side < 0;
        right = right || side > 0;
    }
    return !(left && right);
}

}  // namespace

std::array<Point, 4> Parts::corners(ElementIndex index) const {
    const Rect box = layouter.device_box(index);
    const Transform transform = effects.moved(index, time.now()).transform;
    return {transform.apply({box.x, box.y}), transform.apply({box.right(), box.y}),
            transform.apply({box.right(), box.bottom()}), transform.apply({box.x, box.bottom()})};
}

ElementIndex Parts::element_under(Point point) const {
    ElementIndex found = no_element;
    for (const ElementIndex index : elements.draw_order()) {
        if (!visibility.is_drawn(index) || !layouter.is_placed(index)) continue;
        // What has no area holds no point.
        const Rect box = layouter.box(index);
        if (!(box.width > 0 && box.height > 0) || !holds(corners(index), point)) continue;
        const bool holds_others = !elements.children(index).empty();
        if (found != no_element && holds_others && elements.children(found).empty()) continue;
        found = index;
    }
    return found;
}

namespace {

Rect seen_at(const Rect& box, const Transform& moved) {
    const Point first = moved.apply({box.x, box.y}), last = moved.apply({box.right(), box.bottom()});
    return {std::min(first.x, last.x), std::min(first.y, last.y), std::abs(first.x - last.x),
            std::abs(first.y - last.y)};
}

}  // namespace

Rect Parts::seen_box(ElementIndex index) const {
    return seen_at(layouter.box(index), effects.moved_in_design(index, time.now()).transform);
}

bool Hud::alive(ElementRef ref) const {
    return state_->elements.living(ref) != no_element;
}

Shown Hud::State::shown(ElementIndex index) const {
    const RunningElement& element = elements[index];
    const Travel* const travel = readouts[index].travel.get();
    const bool drawn = visibility.is_drawn(index);
    const Rect box = drawn ? layouter.box(index) : Rect{};
    const Moved moved = effects.moved_in_design(index, time.now());
    const Point pivot = layouter.pivot(index);
    const Point held{box.x + box.width * pivot.x, box.y + box.height * pivot.y};
    const Point now = moved.transform.apply(held);
    const Value& truth = readouts.value(index);
    return {.id = element.path,
            .kind = element.kind->name(),
            .text = element.body->text(),
            .fill = element.body->fill(),
            .trail = element.body->trail(),
            .truth = truth,
            .target = travel != nullptr ? travel->target() : truth,
            .shown = travel != nullptr ? travel->shown(time.now(travel->clock())) : truth,
            .color = mix(multiply(element.body->color(), visibility.filter(index)), moved.tint.color,
                         static_cast<double>(moved.tint.part)),
            .opacity = visibility.opacity(index) * moved.opacity,
            .scale = moved.scale,
            .offset = {now.x - held.x, now.y - held.y},
            .rotation = moved.rotation,
            .visible = drawn,
            .box = box,
            .drawn_box = drawn ? seen_at(box, moved.transform) : Rect{},
            .changed = elements.changed(index),
            .text_changed = elements.text_changed(index)};
}

const Shown Hud::operator[](ElementRef ref) const {
    const ElementIndex index = state_->elements.living(ref);
    if (index == no_element) return {};
    const Finished::Kept* const kept = state_->finished.find(index);
    if (kept == nullptr) return state_->shown(index);
    Shown shown = kept->shown;
    shown.id = state_->elements[index].path;
    shown.text = kept->text;
    shown.truth = kept->truth.get();
    shown.target = kept->target.get();
    shown.shown = kept->value.get();
    return shown;
}

std::string_view Hud::text_of(ElementRef ref) const {
    const ElementIndex index = state_->elements.living(ref);
    if (index == no_element) return {};
    const Finished::Kept* const kept = state_->finished.find(index);
    return kept != nullptr ? kept->text : state_->elements[index].body->text();
}

std::optional<double> Hud::fill_of(ElementRef ref) const {
    const ElementIndex index = state_->elements.living(ref);
    if (index == no_element) return std::nullopt;
    const Finished::Kept* const kept = state_->finished.find(index);
    return kept != nullptr ? kept->shown.fill : state_->elements[index].body->fill();
}

bool Hud::text_changed(ElementRef ref) const {
    const ElementIndex index = state_->elements.living(ref);
    return index != no_element && state_->elements.text_changed(index);
}

std::vector<ElementRef> Hud::elements() const {
    std::vector<ElementRef> refs;
    for (const ElementIndex index : state_->elements.by_rank())
        refs.push_back(state_->elements.ref(index));
    return refs;
}

std::vector<ElementRef> Hud::draw_order() const {
    std::vector<ElementRef> refs;
    for (const ElementIndex index : state_->elements.draw_order())
        refs.push_back(state_->elements.ref(index));
    return refs;
}

ElementRef Hud::element_at(Point point) const {
    const ElementIndex index = state_->element_under(point);
    return index != no_element ? state_->elements.ref(index) : ElementRef();
}

ElementRef Hud::find(std::string_view id) {
    Problem problem;
    const ElementIndex found = state_->elements.find(id, problem);
    if (found != no_element) return state_->elements.ref(found);
    state_->problems.report(std::move(problem));
    return {};
}

RunningGroup* Hud::State::find_group(std::string_view id) {
    const GroupIndex index = visibility.find(std::string(id));
    if (index != no_group) return &visibility.group(index);
    problems.report({{},
                     "no group '" + std::string(id) + "'",
                     did_you_mean(id, visibility.group_names()),
                     ProblemCode::unknown_name});
    return nullptr;
}

std::vector<std::string> Hud::wanted_sources() const {
    return state_->bindings.asked();
}

std::vector<std::string> Hud::offered_sources() const {
    return state_->bindings.told();
}

std::uint64_t Hud::texts_made() const {
    std::uint64_t count = 0;
    for (ElementIndex index = 0; index < state_->elements.count(); ++index)
        if (const Body* const body = state_->elements[index].body.get()) count += body->times_made();
    return count;
}

std::span<const Event> Hud::events() const {
    return state_->events.all();
}
Nanoseconds Hud::now() const {
    return state_->time.now();
}
const Problems& Hud::problems() const {
    return state_->problems.all();
}
std::span<const Problem> Hud::new_problems() {
    return state_->problems.take_new();
}

void Hud::set_log(std::function<void(const Problem&)> log) {
    state_->write = std::move(log);
    state_->write_log();
}

void Hud::State::write_log() {
    if (!write) return;
    // What the function calls may report more.
    const std::span<const Problem> fresh = problems.take_new();
    for (const Problem& problem : Problems(fresh.begin(), fresh.end()))
        write(problem);
}

}  // namespace rapido
