// The frame loop. Each phase is one function; the formulas live in the rooms that they belong to.
#include "rapido/hud/hud.hpp"

#include <algorithm>
#include <atomic>

#include "hud/state.hpp"

namespace rapido {
namespace {

/// References of one HUD mean nothing in another: each has a number of its own.
std::uint32_t next_hud_id() {
    static std::atomic<std::uint32_t> last{0};
    return ++last;
}

}  // namespace

std::string_view to_string(EventKind kind) {
    switch (kind) {
        case EventKind::start:
            return "start";
        case EventKind::end:
            return "end";
        case EventKind::empty:
            return "empty";
        case EventKind::full:
            return "full";
    }
    return "";
}

Hud::Hud() : state_(std::make_unique<State>()) {
    state_->id = next_hud_id();
}

Hud::Hud(const HudDefinition& definition, const Sources& sources, TextMeasurer* measurer) : Hud() {
    state_->measurer = measurer;
    state_->make(definition, sources);
}

Hud::~Hud() = default;
Hud::Hud(Hud&&) noexcept = default;
Hud& Hud::operator=(Hud&&) noexcept = default;

Result<Hud> Hud::make(const HudDefinition& definition, const Sources& sources, TextMeasurer* measurer) {
    Hud hud(definition, sources, measurer);
    if (!hud.problems().empty()) return hud.problems();
    return hud;
}

ElementRef Hud::add(const Element& element) {
    const ElementRef added = state_->add(element, nullptr, {});
    if (added) state_->link_parents();
    return added;
}

void Hud::update(Step step) {
    state_->update(step);
}

void Hud::State::update(Step step) {
    begin_frame();
    advance_clocks(step);
    read_sources();
    control_timers();
    tell_timers();
    queue_dependents();
    report_value_events();
    retarget();
    refresh_texts();
    refresh_visibility();
    lay_out();
}

void Hud::State::begin_frame() {
    for (const ElementIndex index : changed)
        elements[index].changed = elements[index].text_changed = false;
    changed.clear();
    changed_sources.clear();
    events.clear();
}

void Hud::State::advance_clocks(Step step) {
    const bool real_taken = real_clock.advance(step.real);
    const bool game_taken = game_clock.advance(step.game);
    if (!real_taken || !game_taken)
        report({{}, "a step of time that is negative or not finite counts as zero", ""});
    frame_start = now;
    now = real_clock.now();
    game_start = game_now;
    game_now = game_clock.now();

    const Seconds game_step = to_seconds(game_now - game_start);
    for (RunningTimer& timer : timers) {
        const std::optional<Seconds> overshoot = timer.countdown.advance(game_step);
        if (!overshoot) continue;
        // An event at a fraction of the game step lies at that fraction of the real step.
        const Nanoseconds after = to_nanoseconds(*overshoot);
        const Nanoseconds real_step = now - frame_start;
        const double part = game_step.count() > 0 ? *overshoot / game_step : 0;
        const bool same_pace = real_step == game_now - game_start;
        events.push_back({now - (same_pace ? after : to_nanoseconds(to_seconds(real_step) * part)), timer.id,
                          EventKind::end});
    }
    std::stable_sort(events.begin(), events.end(),
                     [](const Event& a, const Event& b) { return a.time < b.time; });
    const Seconds real_step = to_seconds(now - frame_start);
    for (RunningMeter& meter : meters)
        if (real_step.count() > 0) meter.meter.advance(real_step);
}

void Hud::State::read_sources() {
    scan.read(changed_sources);
}

void Hud::State::control_timers() {
    for (RunningTimer& timer : timers) {
        const bool start = timer.start == no_source || scan.value(timer.start).truth();
        if (start && !timer.start_was_true) {
            timer.countdown.start();
            events.push_back({now, timer.id, EventKind::start});
        }
        timer.start_was_true = start;

        const bool hold = timer.pause != no_source && scan.value(timer.pause).truth();
        if (hold) timer.countdown.pause();
        if (!hold && timer.held) timer.countdown.resume();
        timer.held = hold;
    }
}

void Hud::State::tell_timers() {
    for (const RunningTimer& timer : timers) {
        scan.tell(timer.left, timer.countdown.left(), changed_sources);
        scan.tell(timer.elapsed, timer.countdown.elapsed(), changed_sources);
        scan.tell(timer.duration, timer.countdown.duration(), changed_sources);
        scan.tell(timer.running, timer.countdown.running(), changed_sources);
    }
    for (const RunningMeter& meter : meters) {
        const std::optional<double> rate = meter.meter.rate();
        scan.tell(meter.rate, rate ? Value(*rate) : Value(), changed_sources);
    }
    for (const auto& [told, turned] : told_negations)
        scan.tell(turned, Value(!scan.value(told).truth()), changed_sources);
}

void Hud::State::queue_dependents() {
    for (const SourceIndex source : changed_sources) {
        for (const Dependent& dependent : dependents[source]) {
            if (dependent.role == Dependent::Role::visible) {
                visibility_dirty = true;
                continue;
            }
            RunningElement& element = elements[dependent.element];
            if (!element.queued) queue.push_back(dependent.element);
            element.queued = true;
        }
    }
    std::sort(queue.begin(), queue.end());
}

void Hud::State::report_value_events() {
    for (const ElementIndex index : queue) {
        RunningElement& element = elements[index];
        if (element.value == no_source) continue;
        const Value value = scan.value(element.value);
        const Value before = element.truth;
        element.truth = value;
        if (value == before || !value.is_number() || !before.is_number()) continue;
        const double amount = value.number();
        const double old_amount = before.number();
        if (amount <= 0 && old_amount > 0) events.push_back({now, element.path, EventKind::empty});
        const double max = max_of(element).number();
        if (max > 0 && amount >= max && old_amount < max)
            events.push_back({now, element.path, EventKind::full});
    }
}

void Hud::State::retarget() {
    for (const ElementIndex index : queue) {
        RunningElement& element = elements[index];
        if (element.value == no_source) continue;
        const Value& value = scan.value(element.value);
        if (element.started && element.moving.target() == value) continue;
        element.moving.set_target(value, now, element.motion);
        if (!element.moving.resting(now) && !element.active) {
            element.active = true;
            active.push_back(index);
        }
    }
}

void Hud::State::refresh_texts() {
    for (const ElementIndex index : queue) {
        elements[index].queued = false;
        if (!elements[index].active) refresh(index);
    }
    queue.clear();
    std::erase_if(active, [this](ElementIndex index) {
        refresh(index);
        elements[index].active = !elements[index].moving.resting(now);
        return !elements[index].active;
    });
}

void Hud::State::refresh(ElementIndex index) {
    RunningElement& element = elements[index];
    element.started = true;
    if (!element.body->show({.value = element.moving.at(now), .max = max_of(element)})) return;
    mark_changed(index);
    if (!element.body->resizes()) return;
    element.text_changed = element.size_dirty = layout_dirty = true;
}

Value Hud::State::max_of(const RunningElement& element) const {
    return element.max == no_source ? Value() : scan.value(element.max);
}

void Hud::State::mark_changed(ElementIndex index) {
    RunningElement& element = elements[index];
    ++element.revision;
    if (element.changed) return;
    element.changed = true;
    changed.push_back(index);
}

void Hud::State::refresh_visibility() {
    if (!visibility_dirty) return;
    visibility_dirty = false;
    for (const ElementIndex index : parents_first) {
        RunningElement& element = elements[index];
        const bool around = element.parent == no_element || elements[element.parent].shown;
        const bool shown = around && (element.visible == no_source || scan.value(element.visible).truth());
        if (shown == element.shown) continue;
        element.shown = shown;
        mark_changed(index);
        layout_dirty = true;
    }
}

void Hud::resize(const Viewport& viewport) {
    const auto length = [](float given) { return given > 0 && std::isfinite(given) ? given : 0.0F; };
    const auto place = [](float given) { return std::isfinite(given) ? given : 0.0F; };
    state_->viewport = {{place(viewport.origin.x), place(viewport.origin.y)},
                        {length(viewport.size.width), length(viewport.size.height)}};
    state_->layout_dirty = true;
}

Shown Hud::operator[](ElementRef ref) const {
    if (ref.hud != state_->id || ref.index >= state_->elements.size()) return {};
    const RunningElement& element = state_->elements[ref.index];
    return {.id = element.path,
            .kind = element.kind->name,
            .text = element.body->text(),
            .fill = element.body->fill(),
            .color = element.body->color(),
            .visible = element.shown,
            .box = element.box,
            .changed = element.changed,
            .text_changed = element.text_changed};
}

std::vector<ElementRef> Hud::elements() const {
    std::vector<ElementRef> refs;
    for (ElementIndex index = 0; index < state_->elements.size(); ++index)
        refs.push_back({index, state_->id});
    return refs;
}

std::span<const Event> Hud::events() const {
    return state_->events;
}
Nanoseconds Hud::now() const {
    return state_->now;
}
const Problems& Hud::problems() const {
    return state_->problems;
}

void Hud::draw(DrawList& list) const {
    const std::uint64_t structure = (std::uint64_t{state_->id} << 32) | state_->structure;
    if (list.structure_ != structure) {
        list.structure_ = structure;
        list.groups_.assign(state_->draw_order.size(), {});
    }
    for (std::size_t i = 0; i < state_->draw_order.size(); ++i) {
        const RunningElement& element = state_->elements[state_->draw_order[i]];
        DrawGroup& group = list.groups_[i];
        if (group.revision == element.revision) continue;
        group.revision = element.revision;
        group.clear();
        if (!element.shown || state_->measurer == nullptr) continue;
        const float scale = state_->scale;
        const Rect device{state_->viewport.origin.x + element.box.x * scale,
                          state_->viewport.origin.y + element.box.y * scale, element.box.width * scale,
                          element.box.height * scale};
        element.body->draw(device, scale, state_->measurer, group);
    }
}

}  // namespace rapido
