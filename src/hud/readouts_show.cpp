// What is shown of values: where they have come to, and what texts, looks and bands make of it.
#include <algorithm>
#include <limits>
#include <utility>

#include "hud/readouts.hpp"

namespace rapido {
namespace {

constexpr double no_trail = std::numeric_limits<double>::quiet_NaN();

}  // namespace

void Readouts::show(Lane lane, const FrameTime& time) {
    follow_simple(time);
    std::erase_if(of(lane).active, [&](const Active& moving) {
        const Shown now = shown(moving.index, *moving.travel, bindings_.value(moving.max), time);
        show(moving.index, *moving.body, now, time);
        if (!moving.travel->resting(time.now(moving.travel->clock()))) return false;
        all_[moving.index].active = false;
        return true;
    });
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
    Shown now{{.value = value(index), .max = max(index), .delta = readout.delta}, no_trail};
    if (readout.travel != nullptr) now = shown(index, *readout.travel, now.values.max, time);
    show(index, *elements_[index].body, now, time);
}

/// Where the travel of an element has come to.
Readouts::Shown Readouts::shown(ElementIndex index, Travel& travel, const Value& max, const FrameTime& time) {
    const Nanoseconds at = time.now(travel.clock());
    Shown made{{.value = {}, .max = max, .delta = travel.delta()}, no_trail};
    if (!travel.is_plain()) {
        travel.advance(at, settings_.reduced_motion);
        report_bands(index, time);
        made.values.max = travel.shown_max(at, max);
        made.trail = travel.trail(at);
    }
    made.values.value = travel.shown(at);
    travel.set_way(made.values, at);
    return made;
}

void Readouts::show(ElementIndex index, Body& body, const Shown& shown, const FrameTime& time) {
    if (all_[index].seen_while == no_source) return show_now(index, body, shown, time);
    Shown said = shown;
    say_what_it_was(index, said.values.value);
    show_now(index, body, said, time);
}

void Readouts::show_now(ElementIndex index, Body& body, const Shown& shown, const FrameTime& time) {
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
    if (!readout.further.empty()) {
        further_values_.clear();
        for (const SourceIndex source : readout.further)
            further_values_.push_back(bindings_.value(source));
        body.show_further(further_values_);
    }
    take_change(index, std::max(change, body.show(shown.values, shown.trail)));
}

/// What leaves because its amount is gone goes on saying how much it was.
void Readouts::say_what_it_was(ElementIndex index, Value& value) {
    Readout& readout = all_[index];
    const bool is_gone = value.is_number() && value.number() == 0;
    if (!is_gone) {
        readout.seen = value;
    } else if (readout.seen.has_value() && visibility_.is_drawn(index) &&
               !bindings_.value(readout.seen_while).truth()) {
        value = readout.seen;
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

/// Tells what bands were entered and left, and takes over what they say about being visible.
void Readouts::report_bands(ElementIndex index, const FrameTime& time) {
    const Readout& readout = all_[index];
    const BandSet* const bands = readout.travel->bands();
    if (bands == nullptr) return;
    for (const BandChange& change : readout.travel->band_changes()) {
        const ClockKind clock = readout.travel->clock();
        const Nanoseconds before = time.now(clock) - change.time;
        happenings_.add({.time = clock == ClockKind::real ? change.time : time.real_time(before, clock),
                         .kind = change.entered ? HappeningKind::band_enter : HappeningKind::band_leave,
                         .is_event = !bands->bands()[change.band].id.empty() && !readout.shows_pending,
                         .subject = index,
                         .detail = static_cast<std::int64_t>(change.band)});
    }
    readout.travel->forget_band_changes();
    visibility_.set_by_band(index, bands->visible());
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
