#include "hud/readouts.hpp"

#include <algorithm>
#include <cmath>
#include <limits>
#include <utility>

namespace rapido {
namespace {

constexpr double no_trail = std::numeric_limits<double>::quiet_NaN();

/// More than the value at which it is empty.
bool is_above(const Value& value, double min) {
    return value.is_number() && value.number() > min;
}

/// The same of what is empty at zero, cheap for integers: only a change of it can be an event.
bool is_positive(const Value& value) {
    if (value.type() == Value::Type::int64) return value.int64() > 0;
    if (value.type() == Value::Type::float64) return value.real() > 0;
    return value.is_number() && value.number() > 0;
}

}  // namespace

void Readouts::add(ElementIndex index, SourceIndex value, Readout readout) {
    all_.grow_to(index + std::size_t{1});
    begin(index, value, std::move(readout));
}

void Readouts::set_triggers(ElementIndex index, std::vector<TriggerSource> triggers) {
    std::vector<TriggerSource> before;
    if (const auto known = triggers_.find(index); known != triggers_.end()) {
        before = std::move(known->second);
        triggers_.erase(known);
        for (const TriggerSource& trigger : before) {
            bindings_.forget(trigger.source, {index, Dependent::Role::trigger});
            bindings_.release(trigger.source);
        }
    }
    if (triggers.empty()) return;
    for (TriggerSource& trigger : triggers) {
        for (const TriggerSource& old : before)
            if (old.source == trigger.source) trigger = old;
        bindings_.depend(trigger.source, {index, Dependent::Role::trigger});
    }
    triggers_[index] = std::move(triggers);
    next_triggers_.push_back(index);
}

void Readouts::set_data(ElementIndex index, std::vector<DataSource> data) {
    if (const auto known = data_.find(index); known != data_.end()) {
        for (const DataSource& before : known->second) {
            bindings_.forget(before.source, {index, Dependent::Role::data});
            bindings_.release(before.source);
        }
        data_.erase(known);
    }
    add_data(index, std::move(data));
}

void Readouts::add_data(ElementIndex index, std::vector<DataSource> data) {
    if (data.empty()) return;
    std::vector<DataSource>& all = data_[index];
    for (DataSource& each : data) {
        bindings_.depend(each.source, {index, Dependent::Role::data});
        all.push_back(std::move(each));
    }
}

/// Depends on the sources, and finds out which way is the shortest.
void Readouts::begin(ElementIndex index, SourceIndex value, Readout readout) {
    for (const SourceIndex source : readout.further)
        bindings_.depend(source, {index, Dependent::Role::other});
    bindings_.depend(readout.max, {index, Dependent::Role::other});

    HotElement& hot = elements_.hot(index);
    hot.value = value;
    const bool has_bands = readout.travel != nullptr && readout.travel->bands() != nullptr;
    hot.is_direct = readout.further.empty() && !has_bands && readout.seen_while == no_source;
    hot.is_still = readout.travel == nullptr;
    hot.has_max = readout.max != no_source;
    hot.is_simple = hot.is_still && !readout.starts_effects && readout.min == 0 &&
                    readout.when_no_value == WhenNoValue::placeholder && !readout.is_silent &&
                    !elements_[index].body->shows_delta();
    bindings_.depend(value, {index, hot.is_simple ? Dependent::Role::simple : Dependent::Role::value});
    all_[index] = std::move(readout);
    if (elements_[index].body->lives_in_time()) in_time_.push_back(index);
    // Its first frame shows it, whether or not a source has news.
    refresh_next(index);
}

void Readouts::change(ElementIndex index, SourceIndex value, Readout readout, std::shared_ptr<const TravelPlan> plan,
                      const FrameTime& time) {
    Readout& before = all_[index];
    const HotElement& hot = elements_.hot(index);
    const bool same_source = value == hot.value;
    const bool was_positive = hot.was_positive;
    if (before.travel != nullptr) {
        readout.travel = std::move(before.travel);
        readout.travel->change(std::move(plan), bindings_.value(value), bindings_.value(readout.max),
                               given_to_bands(readout), time.now(readout.travel->clock()), settings_.reduced_motion);
    } else if (readout.travel != nullptr) {
        readout.travel->give(given_to_bands(readout));
        readout.travel->snap(bindings_.value(value), bindings_.value(readout.max), time.now(readout.travel->clock()));
    }
    readout.truth = before.truth;
    readout.delta = before.delta;
    readout.seen = before.seen;
    for (Followed& lane : lanes_)
        std::erase_if(lane.active, [&](const Active& moving) { return moving.index == index; });
    std::erase(in_time_, index);
    release(index);
    std::erase_if(next_colors_, [index](const auto& next) { return next.first == index; });
    begin(index, value, std::move(readout));
    elements_.hot(index).was_positive = was_positive;
    if (!elements_.hot(index).is_simple || elements_.hot(index).has_max) keep_truth(index, bindings_.value(value));
    if (!same_source) take_as_given(index);
}

void Readouts::look_anew(ElementIndex index, std::shared_ptr<const TravelPlan> plan, const FrameTime& time) {
    Readout& readout = all_[index];
    if (readout.travel != nullptr)
        readout.travel->change(std::move(plan), value(index), max(index), given_to_bands(readout),
                               time.now(readout.travel->clock()), settings_.reduced_motion);
    for (Followed& lane : lanes_)
        for (Active& moving : lane.active)
            if (moving.index == index) moving = active(index);
    std::erase(in_time_, index);
    if (elements_[index].body->lives_in_time()) in_time_.push_back(index);
    elements_.hot(index).must_show = true;
    layouter_.must_measure(index);
}

void Readouts::release(ElementIndex index) {
    Readout& readout = all_[index];
    for (const SourceIndex source : readout.further) {
        bindings_.forget(source, index);
        bindings_.release(source);
    }
    for (const SourceIndex source : {elements_.hot(index).value, readout.max}) {
        bindings_.forget(source, index);
        bindings_.release(source);
    }
    readout = {};
}

void Readouts::free_removed() {
    for (const ElementIndex index : elements_.removed())
        release(index);
    for (const ElementIndex index : elements_.removed()) {
        set_data(index, {});
        set_triggers(index, {});
    }
    const auto gone = [this](ElementIndex index) { return elements_[index].dead; };
    std::erase_if(next_triggers_, gone);
    for (Followed& lane : lanes_) {
        std::erase_if(lane.queue, gone);
        std::erase_if(lane.active, [&](const Active& moving) { return gone(moving.index); });
    }
    std::erase_if(in_time_, gone);
    std::erase_if(show_again_, gone);
    std::erase_if(given_, gone);
}

void Readouts::queue(ElementIndex index, Lane lane) {
    HotElement& hot = elements_.hot(index);
    if (!hot.queued) of(lane).queue.push_back(index);
    hot.queued = true;
}

void Readouts::must_know(ElementIndex index) {
    HotElement& hot = elements_.hot(index);
    if (!hot.is_simple) return;
    hot.is_simple = false;
    bindings_.set_role(hot.value, index, Dependent::Role::simple, Dependent::Role::value);
    keep_truth(index, bindings_.value(hot.value));
}

void Readouts::refresh_next(ElementIndex index) {
    elements_.hot(index).must_show = true;
    queue(index, lane_of(index));
}

void Readouts::snap(ElementIndex index) {
    std::erase(given_, index);
    begin_snap(index);
}

void Readouts::take_as_given(ElementIndex index) {
    // One that shows no value has none to take, and goes on.
    if (elements_.hot(index).value == no_source) return refresh_next(index);
    if (!elements_.hot(index).snaps) given_.push_back(index);
    begin_snap(index);
}

void Readouts::begin_snap(ElementIndex index) {
    elements_.hot(index).snaps = true;
    if (const auto known = triggers_.find(index); known != triggers_.end()) {
        for (TriggerSource& trigger : known->second)
            trigger.is_known = false;
        next_triggers_.push_back(index);
    }
    if (elements_[index].body != nullptr) elements_[index].body->snap();
    refresh_next(index);
}

void Readouts::begin_from(ElementIndex index, const Value& value) {
    from_.push_back({index, value});
    refresh_next(index);
}

/// Those that begin from another value have had it before.
void Readouts::begin_begun(const FrameTime& time) {
    for (const auto& [index, value] : from_) {
        Readout& readout = all_[index];
        HotElement& hot = elements_.hot(index);
        hot.snaps = false;
        std::erase(given_, index);
        readout.truth = value;
        readout.delta = {};
        hot.was_positive = is_above(value, readout.min);
        if (readout.travel == nullptr) continue;
        readout.travel->give(given_to_bands(readout));
        readout.travel->snap(value, max(index), time.now(readout.travel->clock()));
    }
    // Bodies compare what they show with what they showed: single pips that are lost, parts of a graph.
    for (const auto& [index, value] : from_)
        show(index, *elements_[index].body,
             {{.value = value, .max = max(index), .delta = {}}, value.number(), max(index).number(), no_trail}, time);
}

void Readouts::land(const FrameTime& time) {
    for (ElementIndex index = 0; index < all_.size(); ++index) {
        Travel* const travel = all_[index].travel.get();
        if (travel == nullptr) continue;
        travel->land(time.now(travel->clock()));
        refresh_next(index);
    }
}

void Readouts::set_limit(const FlashAsker& asker) {
    for (ElementIndex index = 0; index < all_.size(); ++index)
        if (all_[index].travel != nullptr) all_[index].travel->set_flash_limit({asker.limit, asker.looks, index});
}

void Readouts::pass_edge(ElementIndex index, const Value& value, const FrameTime& time, Nanoseconds before,
                         ClockKind of_timer) {
    Travel& travel = *all_[index].travel;
    Nanoseconds at = time.real_time(before, of_timer);
    if (travel.clock() == ClockKind::game) {
        at = time.now(ClockKind::game);
        if (of_timer == ClockKind::game) at -= before;
    }
    travel.pass_edge(value, max(index), at, settings_.reduced_motion);
    report_bands(index, time);
}

std::span<const ElementIndex> Readouts::take_changes(Lane lane) {
    lost_.clear();
    for (const SourceIndex source : bindings_.snapped())
        for (const Dependent& dependent : bindings_.dependents(source)) {
            if (dependent.role == Dependent::Role::trigger)
                for (TriggerSource& trigger : triggers_[dependent.element])
                    trigger.is_known = trigger.is_known && trigger.source != source;
            else if (dependent.element != no_element && dependent.role != Dependent::Role::data)
                snap(dependent.element);
        }
    for (const SourceIndex source : bindings_.changed())
        for (const Dependent& dependent : bindings_.dependents(source))
            // Simple ones are followed later, without a queue.
            if (dependent.role != Dependent::Role::simple) take_change_of(dependent, source, lane);
    std::vector<ElementIndex>& queue = of(lane).queue;
    // The scan reads in nearly the order of elements.
    if (!std::is_sorted(queue.begin(), queue.end())) std::sort(queue.begin(), queue.end());
    return lost_;
}

void Readouts::take_change_of(const Dependent& dependent, SourceIndex source, Lane lane) {
    if (dependent.role == Dependent::Role::look) return visibility_.touch();
    const ElementIndex index = dependent.element;
    if (dependent.role == Dependent::Role::trigger) return next_triggers_.push_back(index);
    if (dependent.role == Dependent::Role::data) {
        for (const DataSource& data : data_[index])
            if (data.source == source) data_changes_.push_back({index, data});
        return;
    }
    HotElement& hot = elements_.hot(index);
    hot.must_show = hot.must_show || dependent.role == Dependent::Role::other;
    queue(index, lane == Lane::pending ? lane : lane_of(index));
    const Readout& readout = all_[index];
    if (readout.when_no_value == WhenNoValue::placeholder || hot.value == no_source) return;
    visibility_.touch();
    if (readout.when_no_value == WhenNoValue::remove && readout.truth.has_value() && !value(index).has_value())
        lost_.push_back(index);
}

void Readouts::drop_dead() {
    for (Followed& lane : lanes_)
        std::erase_if(lane.queue, [this](ElementIndex index) { return elements_[index].dead; });
}

/// All of the way of those that neither travel nor have bands: the value is compared, told and written.
void Readouts::follow_simple(const FrameTime& time) {
    const Nanoseconds now = time.now();
    const std::uint32_t frame = elements_.frame();
    const bool measures = layouter_.measurer() != nullptr;
    for (const SourceIndex source : bindings_.changed()) {
        const Value& value = bindings_.value(source);
        for (const auto& [index, role] : bindings_.dependents(source)) {
            if (role != Dependent::Role::simple) continue;
            HotElement& hot = elements_.hot(index);
            if (hot.queued) continue;  // something besides its value differs, too
            if (hot.has_max || hot.was_positive != is_positive(value)) tell_simple(index, hot, value, now);
            // As `show_number` does, here without a call.
            const bool is_short = hot.is_direct && !hot.must_show;
            const NumberText::Update update = is_short ? hot.number.update(value) : NumberText::Update::unfit;
            if (update == NumberText::Update::changed) {
                hot.mark_changed(frame, true);
                if (measures) layouter_.must_measure(index);
            } else if (update == NumberText::Update::unfit) {
                refresh(index, time);
            }
        }
    }
}

void Readouts::tell_changes(Lane lane, const FrameTime& time) {
    if (lane == Lane::ordinary) begin_begun(time);
    tell_triggers(time.now());
    for (const ElementIndex index : of(lane).queue) {
        HotElement& hot = elements_.hot(index);
        if (hot.value == no_source) continue;
        if (hot.is_simple)
            tell_simple(index, hot, bindings_.value(hot.value), time.now());
        else
            tell_change(index, time.now());
    }
}

/// Only whether it is empty or full. Most values stay on their side of zero.
void Readouts::tell_simple(ElementIndex index, HotElement& hot, const Value& value, Nanoseconds now) {
    const bool was_positive = std::exchange(hot.was_positive, is_positive(value));
    if (hot.has_max) return tell_amount(index, value, keep_truth(index, value), was_positive, now);
    if (was_positive && !hot.was_positive && !hot.snaps && value.is_number() && value.number() <= 0)
        happenings_.add({.time = now, .kind = HappeningKind::empty, .subject = index});
}

/// Keeps the truth, and returns the one before. A text may be gone by the next frame, and no event asks for it.
Value Readouts::keep_truth(ElementIndex index, const Value& value) {
    return std::exchange(all_[index].truth, value.type() == Value::Type::text ? Value("") : value);
}

void Readouts::tell_amount(ElementIndex index, const Value& value, const Value& before, bool was_positive,
                           Nanoseconds now) {
    if (value == before || elements_.hot(index).snaps || !value.is_number() || all_[index].is_silent) return;
    const double amount = value.number();
    const double min = all_[index].min;
    if (amount <= min && was_positive) happenings_.add({.time = now, .kind = HappeningKind::empty, .subject = index});
    const double most = max(index).number();
    if (most > min && amount >= most && before.number() < most)
        happenings_.add({.time = now, .kind = HappeningKind::full, .subject = index});
}

void Readouts::tell_change(ElementIndex index, Nanoseconds now) {
    Readout& readout = all_[index];
    HotElement& hot = elements_.hot(index);
    const Value& value = bindings_.value(hot.value);
    const bool was_positive = std::exchange(hot.was_positive, is_above(value, readout.min));
    if (value == readout.truth) return;
    const Value before = keep_truth(index, value);
    readout.delta = hot.snaps ? Value() : difference(value, before);
    if (const double change = readout.delta.number(); readout.starts_effects && (change > 0 || change < 0))
        happenings_.add({.time = now,
                         .kind = change > 0 ? HappeningKind::gain : HappeningKind::loss,
                         .is_event = false,
                         .subject = index,
                         .amount = change});
    tell_amount(index, value, before, was_positive, now);
}

/// Compares the sources of triggers with what they were.
void Readouts::tell_triggers(Nanoseconds now) {
    for (const ElementIndex index : next_triggers_) {
        std::vector<TriggerSource>& sources = triggers_[index];
        for (std::size_t i = 0; i < sources.size(); ++i) {
            const Value value = bindings_.value(sources[i].source);
            const bool was_known = std::exchange(sources[i].is_known, true);
            // No amount is computed from a text, which may be gone by the next frame.
            const Value before = std::exchange(sources[i].truth, value.is_number() ? value : Value());
            const double change = was_known ? difference(value, before).number() : 0;
            Happening happening{.time = now,
                                .kind = change > 0 ? HappeningKind::gain : HappeningKind::loss,
                                .is_event = false,
                                .subject = index,
                                .detail = static_cast<std::int64_t>(i) + 1,
                                .amount = change};
            if (!(change > 0) && !(change < 0)) continue;
            happenings_.add(happening);
            if (!is_positive(before) || is_positive(value)) continue;
            happening.kind = HappeningKind::empty;
            happening.amount = 0;
            happenings_.add(happening);
        }
    }
    next_triggers_.clear();
}

std::span<const ElementIndex> Readouts::aim(Lane lane, const FrameTime& time) {
    snapped_.clear();
    for (const ElementIndex index : of(lane).queue) {
        HotElement& hot = elements_.hot(index);
        const bool snaps = hot.snaps;
        if (hot.is_simple && !snaps) continue;
        hot.snaps = false;
        if (snaps && std::erase(given_, index) == 0) snapped_.push_back(index);
        Readout& readout = all_[index];
        if (readout.travel == nullptr) continue;
        Travel& travel = *readout.travel;
        if (readout.of_bands > 0) travel.give(given_to_bands(readout));
        const Value& value = bindings_.value(hot.value);
        const Nanoseconds at = time.now(travel.clock());
        if (snaps)
            travel.snap(value, max(index), at);
        else
            travel.read(value, max(index), at, settings_.reduced_motion);
        report_bands(index, time);
        if (readout.active || travel.resting(at)) continue;
        readout.active = true;
        of(lane_of(index)).active.push_back(active(index));
    }
    return snapped_;
}

void Readouts::show(Lane lane, const FrameTime& time) {
    follow_simple(time);
    std::erase_if(of(lane).active, [&](Active& moving) { return !show_active(moving, time); });
    for (const ElementIndex index : of(lane).queue) {
        HotElement& hot = elements_.hot(index);
        hot.queued = false;
        if (hot.is_still && show_number(index, hot, bindings_.value(hot.value))) continue;
        // One that moves has been shown with the others of its lane.
        const bool moves = all_[index].active && lane_of(index) == lane;
        if (!moves) refresh(index, time);
    }
    of(lane).queue.clear();
    for (const ElementIndex index : show_again_)
        refresh_next(index);
    show_again_.clear();
}

/// The short way of a text in which one number changes. False where the long one is needed.
bool Readouts::show_number(ElementIndex index, HotElement& hot, const Value& value) {
    if (!hot.is_direct || hot.must_show) return false;
    const NumberText::Update update = hot.number.update(value);
    if (update == NumberText::Update::unfit) return false;
    if (update == NumberText::Update::same) return true;
    hot.mark_changed(elements_.frame(), true);
    layouter_.must_measure(index);
    return true;
}

void Readouts::refresh(ElementIndex index, const FrameTime& time) {
    Readout& readout = all_[index];
    if (readout.travel != nullptr)
        return show(index, *elements_[index].body, shown(index, *readout.travel, max(index), time), time);
    const ShownValue now{{.value = value(index), .max = max(index), .delta = readout.delta},
                         value(index).number(),
                         max(index).number(),
                         no_trail};
    show(index, *elements_[index].body, now, time);
}

Readouts::Active Readouts::active(ElementIndex index) const {
    const Readout& readout = all_[index];
    const bool is_alone = readout.travel->is_plain() && readout.further.empty() && readout.seen_while == no_source;
    return {.index = index,
            .max = readout.max,
            .travel = readout.travel.get(),
            .body = elements_[index].body.get(),
            .clock = readout.travel->clock(),
            .alone = is_alone ? &readout.travel->moving() : nullptr};
}

/// Shows one that moves or waits, where anything is seen of that. False when it does so no more.
bool Readouts::show_active(Active& moving, const FrameTime& time) {
    const Nanoseconds now = time.now(moving.clock);
    HotElement& hot = elements_.hot(moving.index);
    if (moving.alone != nullptr && !hot.must_show && !moving.alone->resting(now)) {
        if (hot.number.is_shown() && show_number(moving.index, hot, moving.alone->at(now))) return true;
        const bool may_be_same = moving.same.above < moving.same.below && hot.revision == moving.revision;
        const double amount = may_be_same ? moving.alone->number_at(now) : moving.same.below;
        if (moving.same.above < amount && amount < moving.same.below) return true;
    }
    const ShownValue now_shown = shown(moving.index, *moving.travel, bindings_.value(moving.max), time);
    show(moving.index, *moving.body, now_shown, time);
    const bool rests = moving.travel->resting(now);
    all_[moving.index].active = !rests;
    if (rests || moving.alone == nullptr) return !rests;
    // Far from its target, where the way is not exact to a small part of an integer, each one is shown.
    constexpr double far = 1e5;
    const bool is_far =
        now_shown.values.value.is_integer() && std::abs(now_shown.amount - moving.travel->target().number()) > far;
    moving.same = is_far ? Amounts{} : moving.body->looks_same(now_shown);
    moving.revision = hot.revision;
    return true;
}

/// Into how many steps its shape is divided while it moves: of a sixteenth of a device pixel at most, around a circle, too. Tens of
/// thousands, so that what is short in decimals stays so.
double Readouts::steps(ElementIndex index) const {
    const Rect box = layouter_.device_box(index);
    const double side = static_cast<double>(std::clamp(std::max(box.width, box.height), 1.0F, 16'384.0F));
    return std::ceil(side * 64 / 10'000) * 10'000;
}

/// Where the travel of an element has come to.
ShownValue Readouts::shown(ElementIndex index, Travel& travel, const Value& max, const FrameTime& time) {
    const Nanoseconds at = time.now(travel.clock());
    ShownValue made{{.value = {}, .max = max, .delta = travel.delta()}, 0, max.number(), no_trail};
    if (!travel.is_plain()) {
        travel.advance(at, settings_.reduced_motion);
        report_bands(index, time);
        made.values.max = travel.shown_max(at, max);
        made.max = travel.most(at, max);
        made.trail = travel.trail(at);
        if (travel.trail_moves(at)) made.trail_steps = steps(index);
    }
    const MovingValue::Position position = travel.position(at);
    made.values.value = position.value;
    made.amount = position.number;
    if (position.value.is_integer() && travel.moves(at)) made.values.amount = position.number;
    if (travel.moves(at)) made.steps = steps(index);
    travel.set_way(made.values, at);
    return made;
}

void Readouts::show(ElementIndex index, Body& body, const ShownValue& shown, const FrameTime& time) {
    if (all_[index].seen_while == no_source) return show_now(index, body, shown, time);
    ShownValue said = shown;
    say_what_it_was(index, said);
    show_now(index, body, said, time);
}

void Readouts::show_now(ElementIndex index, Body& body, const ShownValue& shown, const FrameTime& time) {
    HotElement& hot = elements_.hot(index);
    if (show_number(index, hot, shown.values.value)) return;
    hot.must_show = false;
    const Readout& readout = all_[index];
    Change change = Change::none;
    if (const Travel* const travel = readout.travel.get(); travel != nullptr && travel->bands() != nullptr)
        change = body.set_look({.color = travel->color(time.now(travel->clock())),
                                .format = travel->bands()->format(),
                                .image = travel->bands()->image(),
                                .pattern = travel->bands()->pattern()});
    const std::size_t further = readout.further.size() - readout.of_bands;
    if (further > 0) body.show_further(further_values({readout.further.data(), further}));
    take_change(index, std::max(change, body.show(shown)));
}

std::span<const Value> Readouts::further_values(std::span<const SourceIndex> sources) {
    further_values_.clear();
    for (const SourceIndex source : sources)
        further_values_.push_back(bindings_.value(source));
    return further_values_;
}

/// What the sources of its bands give.
std::span<const Value> Readouts::given_to_bands(const Readout& readout) {
    return further_values(std::span(readout.further).last(readout.of_bands));
}

/// What leaves because its amount is gone goes on saying how much it was.
void Readouts::say_what_it_was(ElementIndex index, ShownValue& shown) {
    Readout& readout = all_[index];
    Value& value = shown.values.value;
    const bool is_gone = value.is_number() && value.number() == 0;
    if (!is_gone) {
        readout.seen = value;
    } else if (readout.seen.has_value() && visibility_.is_drawn(index) &&
               !bindings_.value(readout.seen_while).truth()) {
        value = readout.seen;
        shown.amount = value.number();
        show_again_.push_back(index);
    }
}

void Readouts::set_color(ElementIndex index, Color color, const FrameTime& time) {
    Travel* const travel = all_[index].travel.get();
    if (travel != nullptr && travel->bands() != nullptr) {
        travel->set_color(color, time.now(travel->clock()));
        return refresh_next(index);
    }
    next_colors_.push_back({index, color});
}

void Readouts::take_colors() {
    for (const auto& [index, color] : next_colors_) {
        if (!elements_[index].is_living()) continue;
        // Without bands nothing else is said about its look.
        elements_[index].body->set_look({.color = color});
        elements_.mark_changed(index);
    }
    next_colors_.clear();
}

/// The source of the condition of a band that reads nothing else; none for another band.
SourceIndex Readouts::condition_alone(const Readout& readout, const std::vector<Band>& bands, std::size_t band) {
    const Band& of = bands[band];
    if (!of.when.is_given() || of.below || of.above || of.is.get().has_value()) return no_source;
    const std::vector<BandSet::BandSource> sources = BandSet::sources(bands);
    const auto own = std::find_if(sources.begin(), sources.end(),
                                  [&](const BandSet::BandSource& each) { return each.band == band; });
    return readout.further[readout.further.size() - readout.of_bands + static_cast<std::size_t>(own - sources.begin())];
}

/// Tells what bands were entered and left, and takes over what they say about being visible.
void Readouts::report_bands(ElementIndex index, const FrameTime& time) {
    const Readout& readout = all_[index];
    const BandSet* const bands = readout.travel->bands();
    if (bands == nullptr) return;
    for (const BandChange& change : readout.travel->band_changes()) {
        const ClockKind clock = readout.travel->clock();
        const Nanoseconds before = time.now(clock) - change.time;
        const SourceIndex when = condition_alone(readout, bands->bands(), change.band);
        happenings_.add({.time = when != no_source          ? bindings_.moment(when)
                                 : clock == ClockKind::real ? change.time
                                                            : time.real_time(before, clock),
                         .kind = change.entered ? HappeningKind::band_enter : HappeningKind::band_leave,
                         .is_event = !bands->bands()[change.band].id.empty() && !readout.shows_pending,
                         .subject = index,
                         .detail = static_cast<std::int64_t>(change.band)});
    }
    readout.travel->forget_band_changes();
    visibility_.set_by_band(index, bands->visible(), readout.travel->filter(time.now(readout.travel->clock())));
}

void Readouts::take_change(ElementIndex index, Change change) {
    if (change == Change::none) return;
    elements_.mark_changed(index, change == Change::text);
    if (change >= Change::size) layouter_.must_measure(index);
}

void Readouts::advance_bodies(const FrameTime& time, const FlashAsker& flashes, const Camera& camera,
                              ProblemLog& problems) {
    for (const ElementIndex index : in_time_) {
        const RunningElement& element = elements_[index];
        const Moment moment{.now = time.now(element.clock),
                            .real = time.now(),
                            .shown = visibility_.is_shown(index),
                            .reduced_motion = settings_.reduced_motion,
                            .flashes = {flashes.limit, flashes.looks, index},
                            .camera = &camera,
                            .screen = &layouter_.screen()};
        take_change(index, element.body->advance(moment));
        if (const std::string problem = element.body->take_problem(); !problem.empty())
            problems.report({{}, element.name() + ": " + problem, ""});
    }
}

}  // namespace rapido
