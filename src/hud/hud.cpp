// The frame loop. Each phase is one function; the formulas live in the rooms that they belong to.
#include "rapido/hud/hud.hpp"

#include <algorithm>
#include <array>
#include <atomic>
#include <limits>
#include <utility>

#include "hud/state.hpp"

namespace rapido {
namespace {

/// Cheap for integers: only a change of it can be an event.
bool is_positive(const Value& value) {
    if (value.type() == Value::Type::int64) return value.int64() > 0;
    if (value.type() == Value::Type::float64) return value.real() > 0;
    return value.is_number() && value.number() > 0;
}

/// References of one HUD mean nothing in another: each has a number of its own.
std::uint32_t next_hud_id() {
    static std::atomic<std::uint32_t> last{0};
    return ++last;
}

}  // namespace

std::string_view to_string(EventKind kind) {
    constexpr std::array<std::string_view, 8> words{"start", "mark", "end",   "skipped",
                                                    "empty", "full", "enter", "leave"};
    return words[static_cast<std::size_t>(kind)];
}

Hud::State::State() : id(next_hud_id()) {
    for (const Effect& effect : built_in_effects())
        effects_by_name.emplace(effect.id, &effect);
}

Hud::Hud() : state_(std::make_unique<State>()) {}

Hud::Hud(const HudDefinition& definition, const Sources& sources, TextMeasurer* measurer, ImageFinder* images)
    : Hud() {
    state_->measurer = measurer;
    state_->images = images;
    state_->sources = sources;
    state_->make(definition);
}

Hud::~Hud() = default;
Hud::Hud(Hud&& other) noexcept : Hud() {
    state_.swap(other.state_);
}
Hud& Hud::operator=(Hud&& other) noexcept {
    Hud taken(std::move(other));
    state_.swap(taken.state_);
    return *this;
}

Result<Hud> Hud::make(const HudDefinition& definition, const Sources& sources, TextMeasurer* measurer,
                      ImageFinder* images) {
    Hud hud(definition, sources, measurer, images);
    if (!hud.problems().empty()) return hud.problems();
    return hud;
}

ElementRef Hud::add(const Element& element) {
    return state_->may("add") ? state_->add(element, nullptr) : ElementRef{};
}

bool Hud::add(const Group& group) {
    return state_->may("add") && state_->add(group, nullptr);
}

void Hud::update(Step step) {
    if (state_->may("update")) state_->update(step);
}

void Hud::State::update(Step step) {
    begin_frame();
    advance_clocks(step);
    read_sources();
    control_timers();
    tell_timers();
    tell_meters();
    mark_snapped();
    refresh_plain_texts();
    queue_dependents();
    drop_without_value();
    report_value_events();
    retarget();
    refresh_active();
    refresh_queued();
    remove_left();
    follow_pending();
    refresh_visibility();
    post_messages();
    show_messages();
    start_effects();
    play_effects();
    advance_bodies();
    lay_out();
    finish_events();
}

void Hud::State::begin_frame() {
    ++frame;
    changed_sources.clear();
    snapped_sources.clear();
    free_removed();
    if (structure_dirty) link_parents();
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

    mark_band_edges();
    advance_timers();
    const Seconds real_step = to_seconds(now - frame_start);
    for (RunningMeter& meter : meters)
        if (real_step.count() > 0) meter.meter.advance(real_step);
}

void Hud::State::read_sources() {
    is_reading = true;
    scan.read(changed_sources, snapped_sources);
    is_reading = false;
}

bool Hud::State::may(std::string_view call) {
    if (is_reading)
        report({{},
                "a getter calls '" + std::string(call) + "' of the HUD that is reading it; nothing was done",
                "call it before or after 'update'"});
    return !is_reading;
}

/// Puts the events in order, for whoever asks for them.
void Hud::State::finish_events() {
    events.all();
    if (events.overflowed())
        report({{},
                "more than " + std::to_string(EventList::most) + " events in one update; the others are lost",
                "let timers with many marks loop more slowly"});
}

void Hud::State::tell_meters() {
    for (const RunningMeter& meter : meters) {
        const std::optional<double> rate = meter.meter.rate();
        scan.tell(meter.rate, rate ? Value(*rate) : Value(), changed_sources);
        if (told_used[meter.frame_time] != 0 && now > frame_start)
            scan.tell(meter.frame_time, Value(now - frame_start), changed_sources);
    }
    for (const Adjusted& adjusted : told_adjusted)
        scan.tell(adjusted.to, adjusted.how.adjusted(scan.value(adjusted.from)), changed_sources);
}

void Hud::State::queue_element(ElementIndex index) {
    if (!hot[index].queued) queue.push_back(index);
    hot[index].queued = true;
}

void Hud::State::mark_snapped() {
    for (const SourceIndex source : snapped_sources) {
        for (const Dependent& dependent : dependents[source]) {
            if (dependent.element == no_element) continue;
            hot[dependent.element].snaps = true;
            queue_element(dependent.element);
        }
    }
}

void Hud::State::queue_dependents() {
    for (const SourceIndex source : changed_sources) {
        for (const Dependent& dependent : dependents[source]) {
            if (dependent.role == Dependent::Role::look)
                visibility_dirty = true;
            else
                queue_element(dependent.element);
        }
    }
    std::sort(queue.begin(), queue.end());
}

void Hud::State::drop_without_value() {
    for (const ElementIndex index : queue) {
        const RunningElement& element = elements[index];
        if (element.when_no_value == WhenNoValue::placeholder || hot[index].value == no_source) continue;
        visibility_dirty = true;
        const bool lost = element.truth.has_value() && !scan.value(hot[index].value).has_value();
        if (lost && element.when_no_value == WhenNoValue::remove) kill(index);
    }
    std::erase_if(queue, [this](ElementIndex index) { return elements[index].dead; });
}

void Hud::State::refresh_plain_texts() {
    const std::uint32_t this_frame = frame;
    const bool measures = measurer != nullptr;
    std::uint64_t made = 0;
    std::size_t others = 0;  // what is left for the general way moves to the front
    for (const SourceIndex source : changed_sources) {
        const ElementIndex index = only_dependent[source];
        if (index == no_element || hot[index].queued) {
            changed_sources[others++] = source;
            continue;
        }
        HotElement& element = hot[index];
        const Value& value = scan.value(source);
        const PlainText::Update update = element.plain.update(value);
        if (update == PlainText::Update::unfit) {
            changed_sources[others++] = source;
            continue;
        }
        const bool positive = is_positive(value);
        if (element.was_positive && !positive) value_events.emplace_back(index, EventKind::empty);
        element.was_positive = positive;
        if (update == PlainText::Update::same) continue;
        element.show(this_frame);
        if (measures && !element.size_dirty) must_measure(index);
        ++made;
    }
    changed_sources.resize(others);
    plain_texts_made += made;
}

void Hud::State::report_value_events() {
    for (const ElementIndex index : queue) {
        RunningElement& element = elements[index];
        HotElement& state = hot[index];
        if (state.value == no_source) continue;
        const Value& value = scan.value(state.value);
        const Value before = element.truth;
        const bool was_positive = state.was_positive;
        state.was_positive = is_positive(value);
        if (value == before && !state.is_plain) continue;
        // A text may be gone by the next frame, and no event asks for it.
        element.truth = value.type() == Value::Type::text ? Value("") : value;
        element.delta = state.snaps ? Value() : difference(value, before);
        if (element.effects != nullptr && element.delta.is_number()) start_on_change(index, element.delta);
        if (state.snaps || !value.is_number() || element.is_silent) continue;
        const double amount = value.number();
        if (amount <= 0 && was_positive) value_events.emplace_back(index, EventKind::empty);
        const double max = max_of(element).number();
        if (max > 0 && amount >= max && before.number() < max)
            value_events.emplace_back(index, EventKind::full);
    }
    if (value_events.empty()) return;
    std::sort(value_events.begin(), value_events.end());
    for (const auto& [index, kind] : value_events)
        report_event({now, elements[index].path, kind, ""});
    value_events.clear();
}

void Hud::State::retarget() {
    for (const ElementIndex index : queue) {
        RunningElement& element = elements[index];
        const bool snaps = hot[index].snaps;
        hot[index].snaps = false;
        if (snaps && element.effects != nullptr) {
            element.effects->player.clear();
            // What a timer started earlier in this frame was before the snap.
            std::erase_if(effect_starts,
                          [index](const EffectStart& start) { return start.element == index; });
        }
        if (snaps && element.notice != nullptr) snap_notice(*element.notice);
        if (snaps) element.body->snap();
        if (element.travel == nullptr || hot[index].value == no_source) continue;
        Travel& travel = *element.travel;
        const Value& value = scan.value(hot[index].value);
        const Nanoseconds at = moment(travel.clock());
        if (snaps)
            travel.snap(value, max_of(element), at);
        else
            travel.read(value, max_of(element), at, reduced_motion);
        report_bands(index);
        if (element.active || travel.resting(at)) continue;
        element.active = true;
        active.push_back({index, element.max, element.travel.get(), element.body.get()});
    }
}

void Hud::State::refresh_active() {
    std::erase_if(active, [this](const Active& moving) {
        show_moving(moving);
        if (!moving.travel->resting(moment(moving.travel->clock()))) return false;
        elements[moving.index].active = false;
        return true;
    });
}

void Hud::State::show_moving(const Active& moving) {
    if (hot[moving.index].is_plain) return refresh(moving.index);
    const Value max = moving.max == no_source ? Value() : scan.value(moving.max);
    const Travelled now_at = travelled(moving.index, *moving.travel, max);
    show(moving.index, *moving.body, now_at.values, now_at.trail);
}

/// Where the travel of an element has come to.
Hud::State::Travelled Hud::State::travelled(ElementIndex index, Travel& travel, const Value& max) {
    const Nanoseconds at = moment(travel.clock());
    Travelled made{{.value = {}, .max = max, .delta = travel.delta()},
                   std::numeric_limits<double>::quiet_NaN()};
    if (!travel.is_plain()) {
        travel.advance(at, reduced_motion);
        report_bands(index);
        made.values.max = travel.shown_max(at, max);
        made.trail = travel.trail(at);
    }
    made.values.value = travel.shown(at);
    return made;
}

void Hud::State::refresh_queued() {
    for (const ElementIndex index : queue) {
        hot[index].queued = false;
        // One that moves has been refreshed with the others.
        if (!elements[index].active || elements[index].shows_pending) refresh(index);
    }
    queue.clear();
}

void Hud::State::remove_left() {
    std::erase_if(leaving, [this](ElementIndex index) {
        if (elements[index].leaving && !elements[index].active) {
            ElementEffects* const effects_of = elements[index].effects.get();
            if (effects_of != nullptr) effects_of->player.advance(now);
            const Effect* const effect = elements[index].leave_effect;
            const bool left =
                effect == nullptr || effects_of == nullptr || effects_of->player.running() != effect;
            if (left) kill(index);
        }
        return !elements[index].leaving || elements[index].dead;
    });
}

/// What is pending is known only now, when all totals have moved; whoever shows it follows in the same frame.
void Hud::State::follow_pending() {
    if (pending.empty()) return;
    changed_sources.clear();
    for (PendingAmount& amount : pending)
        tell_pending(amount);
    for (const Adjusted& adjusted : told_adjusted)
        scan.tell(adjusted.to, adjusted.how.adjusted(scan.value(adjusted.from)), changed_sources);
    if (changed_sources.empty()) return;
    refresh_plain_texts();
    queue_dependents();
    drop_without_value();
    report_value_events();
    retarget();
    refresh_queued();
}

void Hud::State::refresh(ElementIndex index) {
    RunningElement& element = elements[index];
    Travelled made{{.value = {}, .max = max_of(element), .delta = element.delta},
                   std::numeric_limits<double>::quiet_NaN()};
    if (element.travel != nullptr)
        made = travelled(index, *element.travel, made.values.max);
    else if (hot[index].value != no_source)
        made.values.value = scan.value(hot[index].value);
    if (hot[index].is_plain) {
        const PlainText::Update update = hot[index].plain.update(made.values.value);
        if (update == PlainText::Update::changed) {
            hot[index].show(frame);
            must_measure(index);
            ++plain_texts_made;
        }
        if (update != PlainText::Update::unfit) return;
        update_body_text(index);
    }
    show(index, *element.body, made.values, made.trail);
}

/// Tells what bands were entered and left, and takes over what they say about being visible.
void Hud::State::report_bands(ElementIndex index) {
    RunningElement& element = elements[index];
    const BandSet* const bands = element.travel->bands();
    if (bands == nullptr) return;
    for (const BandChange& change : element.travel->band_changes()) {
        const std::string& name = bands->bands()[change.band].id;
        const ClockKind clock = element.travel->clock();
        const Nanoseconds before = moment(clock) - change.time;
        const Nanoseconds at = clock == ClockKind::real ? change.time : real_time(before, clock);
        start_on_band(index, change.band, change.entered, at);
        if (name.empty() || element.shows_pending) continue;
        report_event({at, element.path, change.entered ? EventKind::enter : EventKind::leave, name});
    }
    element.travel->forget_band_changes();
    if (bands->visible() == element.band_visible) return;
    element.band_visible = bands->visible();
    visibility_dirty = true;
}

void Hud::State::show(ElementIndex index, Body& body, const FieldValues& values, double trail) {
    News news = News::none;
    if (const Travel* const travel = elements[index].travel.get();
        travel != nullptr && travel->bands() != nullptr)
        news = body.set_look({.color = travel->color(moment(travel->clock())),
                              .format = travel->bands()->format(),
                              .image = travel->bands()->image(),
                              .pattern = travel->bands()->pattern()});
    if (!elements[index].further.empty()) {
        further_values.clear();
        for (const SourceIndex source : elements[index].further)
            further_values.push_back(source == no_source ? Value() : scan.value(source));
        body.show_further(further_values);
    }
    take_news(index, std::max(news, body.show(values, trail)));
}

void Hud::State::take_news(ElementIndex index, News news) {
    if (news == News::none) return;
    hot[index].mark_changed(frame, news == News::text);
    if (news >= News::size) must_measure(index);
}

/// What lives in time goes on: frames of an image, waves, graphs, the effects of single pips.
void Hud::State::advance_bodies() {
    for (const ElementIndex index : living_bodies) {
        const RunningElement& element = elements[index];
        if (element.body == nullptr) continue;
        const Moment moment_of{.now = moment(element.clock),
                               .real = now,
                               .shown = element.shown,
                               .reduced_motion = reduced_motion,
                               .flash_limit = flash_limit};
        take_news(index, element.body->advance(moment_of));
        if (const std::string problem = element.body->take_problem(); !problem.empty())
            report({{}, std::string(element.kind->name) + " '" + element.path + "': " + problem, ""});
    }
}

/// A body whose text was shown by its plain writer catches up; the plain writer begins anew after it.
void Hud::State::update_body_text(ElementIndex index) {
    if (hot[index].shows_plain) elements[index].body->set_text(hot[index].plain.text());
    hot[index].shows_plain = false;
    hot[index].plain.forget();
}

Value Hud::State::max_of(const RunningElement& element) const {
    return element.max == no_source ? Value() : scan.value(element.max);
}

void Hud::State::mark_changed(ElementIndex index) {
    hot[index].mark_changed(frame, false);
}

void Hud::State::refresh_visibility() {
    if (!visibility_dirty) return;
    visibility_dirty = false;
    const auto is_true = [this](SourceIndex source) {
        return source == no_source || scan.value(source).truth();
    };
    for (const ElementIndex index : parents_first) {
        RunningElement& element = elements[index];
        const bool hides = element.when_no_value == WhenNoValue::hide && hot[index].value != no_source;
        bool shown = !element.dead && element.band_visible.value_or(is_true(element.visible)) &&
                     !(hides && !scan.value(hot[index].value).has_value());
        float opacity = 1;
        if (element.group != no_group) {
            const RunningGroup& group = groups[element.group];
            shown = shown && group.game_shows && is_true(group.visible);
            const bool dimmed = group.dimmed != no_source && scan.value(group.dimmed).truth();
            opacity = group.game_opacity * (dimmed ? group.dim : 1);
        }
        if (element.parent != no_element) {
            shown = shown && elements[element.parent].shown;
            opacity *= elements[element.parent].opacity;
        }
        if (element.notice != nullptr) {
            element.notice->seen = shown;
            shown = shown && element.notice->queue.shown() != nullptr;
        }
        if (shown == element.shown && opacity == element.opacity) continue;
        if (shown != element.shown) must_measure(element.parent);
        element.shown = shown;
        element.opacity = opacity;
        mark_changed(index);
    }
}

}  // namespace rapido
