// The frame loop. Each phase is a call on the part that owns its data; the formulas live in the rooms that they belong to.
#include "rapido/hud/hud.hpp"

#include <algorithm>
#include <utility>

#include "base/fields.hpp"
#include "element/sources_of.hpp"
#include "hud/state.hpp"

namespace rapido {

void Hud::State::update(Step step) {
    begin_frame();
    follow_names();
    if (recording != nullptr) recording->note_timers();
    advance_clocks(step);
    if (probes != nullptr) probes->begin_frame(to_seconds(time.step()), problems);
    read_sources();
    follow(Readouts::Lane::ordinary);
    follow_pending();
    follow_data();
    remove_left();
    visibility.decide();
    run_notices();
    run_effects();
    readouts.advance_bodies(time, effects.flashes(), camera, problems);
    layouter.lay_out();
    moving_order.advance(time.now());
    lists.place_markers({camera, layouter.screen()},
                        [this](ElementIndex panel) { return effects.pose(panel, time.now()).opacity; });
    riders.place(point_room);
    effects.look_at_flashes(time.now());
    place_probes();
    write_events();
    tell_failures();
    if (recording != nullptr) recording->keep_timers();
    finished.end_frame();
}

void Hud::State::begin_frame() {
    finished.begin_frame();
    elements.begin_frame();
    happenings.clear();
    bindings.begin();
    readouts.take_colors();
    if (!elements.removed().empty()) {
        for (const ElementIndex index : elements.removed()) {
            bindings.forget(visibility.conditions(index).visible, index);
            bindings.release(visibility.conditions(index).visible);
        }
        readouts.free_removed();
        effects.free_removed();
        elements.free_removed();
    }
    effects.free_undefined();
    if (elements.link()) {
        layouter.relink();
        moving_order.relink();
        lists.relink();
        riders.must_relink();
        // Room for more than a frame usually tells, so that the first busy one does not allocate.
        happenings.reserve(64);
        events.reserve(32);
    }
    link_riders(nullptr);
    layouter.fit();
}

void Hud::State::advance_clocks(Step step) {
    if (!time.advance(step))
        problems.report({{},
                         "a step of time that is negative or not finite counts as zero",
                         "",
                         ProblemCode::bad_step,
                         Severity::warning});
    // Sixteen milliseconds that are given as seconds: half a second of such frames is no hitch.
    constexpr Seconds shortest{4}, longest{100};
    constexpr int many = 30;
    long_steps = step.real >= shortest && step.real <= longest ? long_steps + 1 : 0;
    if (long_steps == many)
        problems.report({{},
                         "steps of " + plain_number(step.real.count()) + " s, one after the other",
                         "a step of time is in seconds: write update(0.016), or update(16ms)",
                         ProblemCode::bad_step,
                         Severity::warning});
    effects.begin_frame(time.now() - time.now(ClockKind::game));
    timers.advance(time);
    frame_meters.advance(time);
}

void Hud::State::read_sources() {
    bindings.read(time.now());
    if (recording != nullptr) recording->tell(time.now(), time.now(ClockKind::game));
    lists.tell({camera, layouter.screen()}, time.now());
    tell_emptied();
    timers.obey(time);
    timers.tell(time);
    frame_meters.tell(time);
    tell_cost();
    bindings.tell_derived(time.now());
    bindings.note_changes(time.now());
    // What a time of the HUD starts begins at that moment, and may start another one in the same frame.
    constexpr int most_rounds = 8;
    for (int round = 0; round < most_rounds && timers.obey(time); ++round) {
        timers.tell(time);
        bindings.tell_derived(time.now());
        bindings.note_changes(time.now());
    }
}

/// Things whose value is gone, whether or not they are on the screen; the detail is the number among those of this frame, from -1 down.
void Hud::State::tell_emptied() {
    std::int64_t number = 0;
    for (const Lists::Emptied& thing : lists.emptied())
        happenings.add(
            {.time = time.now(), .kind = HappeningKind::empty, .subject = thing.markers, .detail = --number});
}

/// Value events, pace, bands, motion and text.
void Hud::State::follow(Readouts::Lane lane) {
    const std::span<const ElementIndex> lost = readouts.take_changes(lane);
    for (const ElementIndex index : lost)
        kill(index);
    if (!lost.empty()) readouts.drop_dead();
    readouts.tell_changes(lane, time);
    for (const ElementIndex index : readouts.aim(lane, time)) {
        effects.snap(index);
        notices.snap(index);
    }
    // What played for the thing that they showed before has ended.
    readouts.take_begun([this](ElementIndex index) { effects.end_all(index); });
    readouts.show(lane, time);
}

/// What is pending is known only when all totals have moved; whoever shows it follows in the same frame.
void Hud::State::follow_pending() {
    if (pending.empty()) return;
    bindings.begin();
    pending.tell(time);
    bindings.tell_derived(time.now());
    bindings.note_changes(time.now());
    follow(Readouts::Lane::pending);
}

void Hud::State::remove_left() {
    effects.take_left(
        time.now(), [this](ElementIndex index) { return readouts[index].active; },
        [this](ElementIndex index) { kill(index); });
}

void Hud::State::run_notices() {
    happenings.sort();
    notices.post_messages(happenings.all(), time, bindings, visibility);
    notices.show_messages(happenings, [this](ElementIndex index) { readouts.refresh(index, time); });
}

void Hud::State::run_effects() {
    happenings.sort();
    effects.show_changes();
    effects.start(happenings.all(), time.now());
    effects.advance(time.now());
    // Those behind begin to close up when it is gone, whenever the frame is.
    for (const Effects::Hidden& gone : effects.hidden())
        moving_order.note(elements[gone.index].parent, gone.at);
    visibility.decide();
}

void Hud::State::write_events() {
    events.write(happenings, elements, readouts, timers, notices, lists);
    if (happenings.overflowed())
        problems.report(
            {{},
             "more than " + std::to_string(Happenings::most_events) + " events in one update; the others are lost",
             "let timers with many marks loop more slowly",
             ProblemCode::too_much,
             Severity::warning});
}

std::string Hud::State::owner_of(const void* getter) const {
    const auto is_it = [getter](const Source& source) {
        return getter != nullptr && source.binding().getter() == getter;
    };
    for (const std::string_view name : bindings.sources().names())
        if (const Source* const source = bindings.sources().find(name); source != nullptr && is_it(*source))
            return "source '" + std::string(name) + "'";
    std::string found;
    for (ElementIndex index = 0; index < elements.count() && found.empty(); ++index) {
        if (!elements[index].is_living()) continue;
        WrittenElement written(elements[index].description);
        for_each_source(*written.kind().table, written.data(), [&](const std::string& field, Source& source) {
            if (is_it(source)) found = "'" + field + "' of " + elements[index].name();
        });
    }
    return found;
}

void Hud::State::tell_failures() {
    for (detail::ReadFailure& failure : bindings.take_failures()) {
        // To find whose it is takes long, and a getter that throws once does so in every frame.
        const bool is_known = std::find(failures.begin(), failures.end(), failure) != failures.end();
        if (is_known || failures.size() == ProblemLog::most) continue;
        const std::string owner = owner_of(failure.reader);
        problems.report(
            {{},
             (owner.empty() ? "what a HUD reads" : "the getter of " + owner) + " has thrown: " + failure.what,
             "there is no value in this frame",
             ProblemCode::getter_threw});
        failures.push_back(std::move(failure));
    }
}

bool Hud::State::is_between_frames(std::string_view call) {
    if (!bindings.is_reading()) return true;
    problems.report({{},
                     "a getter calls '" + std::string(call) + "' of the HUD that is reading it; nothing was done",
                     "call it before or after 'update'",
                     ProblemCode::bad_call});
    return false;
}

bool Hud::State::may(std::string_view call) {
    was_called = true;
    return is_between_frames(call);
}

void Hud::State::keep_finished(ElementIndex index) {
    if (!finished.lacks(index) || !elements[index].is_living()) return;
    Finished::Kept& kept = finished.keep(index);
    kept.shown = shown(index);
    kept.text = kept.shown.text;
    kept.truth = kept.shown.truth;
    kept.target = kept.shown.target;
    kept.value = kept.shown.shown;
    kept.group.revision = elements.hot(index).revision;
    draw(index, kept.group);
    for (const ElementIndex inside : elements.children(index))
        keep_finished(inside);
}

void Hud::State::keep_all_finished() {
    for (ElementIndex index = 0; index < elements.count(); ++index)
        keep_finished(index);
}

bool Hud::State::is_in(const Layers& layers, ElementIndex index) const {
    while (elements[index].parent != no_element)
        index = elements[index].parent;
    return elements[index].layer >= layers.from && elements[index].layer <= layers.to;
}

/// With layers, the groups of all others are empty.
void Hud::State::draw(DisplayList& list, const Layers* layers) {
    const std::span<const ElementIndex> order = elements.draw_order();
    list.viewport_ = layouter.viewport();
    if (list.structure_ != elements.structure()) {
        list.structure_ = elements.structure();
        list.groups_.assign(order.size(), {});
    }
    std::size_t items = 0, glyphs = 0, points = 0;
    for (std::size_t i = 0; i < order.size(); ++i) {
        DisplayGroup& group = list.groups_[i];
        if (layers != nullptr && !is_in(*layers, order[i])) {
            if (group.revision != 0) group = {};
            continue;
        }
        const Finished::Kept* const kept = finished.find(order[i]);
        const std::uint64_t revision = kept != nullptr ? kept->group.revision : elements.hot(order[i]).revision;
        if (group.revision != revision && kept != nullptr) {
            group = kept->group;
        } else if (group.revision != revision) {
            group.revision = revision;
            draw(order[i], group);
        }
        items += group.items().size();
        glyphs += group.glyph_count();
        points += group.point_count();
        if (items <= DisplayList::most_items && glyphs <= DisplayList::most_glyphs &&
            points <= DisplayList::most_points)
            continue;
        for (; i < order.size(); ++i)
            list.groups_[i] = {};
        problems.report({{},
                         "the HUD draws more than a screen can show; what comes later is left out",
                         "",
                         ProblemCode::too_much,
                         Severity::warning});
    }
}

/// What an element draws by itself, without what effects do to it.
void Hud::State::draw_body(ElementIndex index, DisplayGroup& group) {
    elements[index].body->draw({.box = layouter.device_box(index),
                                .scale = layouter.screen().scale,
                                .mirrored = layouter.mirrored(),
                                .column_side = layouter.column_side(index),
                                .measurer = layouter.measurer(),
                                .room = &point_room},
                               group);
}

/// All that an element draws, into a group that is empty or out of date.
void Hud::State::draw(ElementIndex index, DisplayGroup& group) {
    if (!visibility.is_drawn(index) || layouter.measurer() == nullptr) return group.begin();
    const Moved moved = effects.moved(index, time.now());
    group.begin(visibility.opacity(index) * moved.opacity, moved.tint, moved.transform, visibility.filter(index));
    draw_body(index, group);
    const Rect device = layouter.device_box(index);
    const Rest* const rest = elements[index].rest.get();
    if (rest != nullptr) group.blend = rest->blend;
    if (const float light = effects.pose(index, time.now()).glow; light > 0 || (rest != nullptr && rest->glow)) {
        // Without a glow of its own, an element shines in its own color.
        const Glow glow =
            rest != nullptr && rest->glow ? *rest->glow : Glow{.strength = 0, .color = elements[index].body->color()};
        Color color = glow.color;
        const float strength = std::clamp(glow.strength + light, 0.0F, 1.0F);
        color.alpha = static_cast<std::uint8_t>(static_cast<float>(color.alpha) * strength + 0.5F);
        if (strength > 0) group.glow(glow.radius * layouter.screen().scale, color);
    }
    effects.draw_over(index, time.now(), device, group);
}

void Hud::update(Step step) {
    if (!state_->may("update")) return;
    state_->update(step);
    state_->write_log();
}

void Hud::draw(DisplayList& list) const {
    if (state_->is_between_frames("draw")) state_->draw(list, nullptr);
}

void Hud::draw(DisplayList& list, const Layers& layers) const {
    if (state_->is_between_frames("draw")) state_->draw(list, &layers);
}

}  // namespace rapido
