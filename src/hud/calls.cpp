// What a game asks of a running HUD between two frames.
#include <algorithm>
#include <cmath>
#include <utility>

#include "base/nearest.hpp"
#include "element/popups_body.hpp"
#include "hud/state.hpp"
#include "rapido/hud/hud.hpp"

namespace rapido {
namespace {

/// The group of an id; null, with a problem, for none.
RunningGroup* find_group(Parts& hud, std::string_view id) {
    const GroupIndex index = hud.visibility.find(std::string(id));
    if (index != no_group) return &hud.visibility.group(index);
    hud.problems.report({{},
                         "no group '" + std::string(id) + "'",
                         did_you_mean(id, hud.visibility.group_names()),
                         ProblemCode::unknown_name});
    return nullptr;
}

/// The effect of a name; null, with a problem, for none.
const Effect* find_effect(Parts& hud, std::string_view name) {
    Problem problem;
    const Effect* const found = hud.effects.find(name, problem);
    if (found == nullptr) hud.problems.report(std::move(problem));
    return found;
}

/// The notice that a reference means; null for none.
RunningNotice* find_notice(const Parts& hud, ElementRef ref) {
    const ElementIndex index = hud.elements.living(ref);
    return index != no_element ? hud.notices.find(index) : nullptr;
}

}  // namespace

void Hud::State::snap(ElementIndex index) {
    readouts.snap(index);
    lists.snap(index);
}

void Hud::snap() {
    if (!state_->may("snap")) return;
    for (ElementIndex index = 0; index < state_->elements.count(); ++index)
        if (state_->elements[index].body != nullptr) state_->snap(index);
}

void Hud::snap(ElementRef ref) {
    if (!state_->may("snap")) return;
    const ElementIndex outer = state_->elements.living(ref);
    if (outer == no_element) return;
    const std::string& path = state_->elements[outer].path;
    for (ElementIndex index = 0; index < state_->elements.count(); ++index)
        if (index == outer || state_->elements[index].stands_in(path)) state_->snap(index);
}

void Hud::snap(std::string_view group) {
    if (!state_->may("snap") || find_group(*state_, group) == nullptr) return;
    const GroupIndex found = state_->visibility.find(std::string(group));
    for (ElementIndex index = 0; index < state_->elements.count(); ++index)
        if (state_->elements[index].body != nullptr && state_->visibility.conditions(index).group == found)
            state_->snap(index);
}

void Hud::set_visible(std::string_view group, bool visible) {
    if (!state_->may("set_visible")) return;
    if (RunningGroup* const found = find_group(*state_, group)) found->game_shows = visible;
    state_->visibility.touch();
}

void Hud::set_opacity(std::string_view group, float opacity) {
    if (!state_->may("set_opacity")) return;
    if (RunningGroup* const found = find_group(*state_, group))
        found->game_opacity = opacity > 0 ? std::min(opacity, 1.0F) : 0.0F;
    state_->visibility.touch();
}

void Hud::set_reduced_motion(bool reduced) {
    if (!state_->may("set_reduced_motion") || reduced == state_->effects.reduced_motion()) return;
    state_->effects.set_reduced_motion(reduced);
    state_->readouts.set_reduced_motion(reduced, state_->time);
    state_->moving_order.set_reduced_motion(reduced);
}

void Hud::set_flash_limit(FlashLimit& limit) {
    if (!state_->may("set_flash_limit")) return;
    state_->effects.set_limit(limit);
    state_->readouts.set_limit(&limit);
}

void Hud::set_language(const Language& language) {
    if (!state_->may("set_language")) return;
    state_->language = std::make_shared<const Language>(state_->locales.with_names(language));
    state_->layouter.set_right_to_left(language.right_to_left);
    for (ElementIndex index = 0; index < state_->elements.count(); ++index)
        if (state_->elements[index].body != nullptr) state_->speak(index);
}

void Hud::resize(const Viewport& viewport) {
    if (!state_->may("resize")) return;
    const auto length = [](float given) { return given > 0 && std::isfinite(given) ? given : 0.0F; };
    const auto place = [](float given) { return std::isfinite(given) ? given : 0.0F; };
    const Insets& safe = viewport.safe_area;
    state_->layouter.set_viewport(
        {{place(viewport.origin.x), place(viewport.origin.y)},
         {length(viewport.size.width), length(viewport.size.height)},
         {length(safe.top), length(safe.right), length(safe.bottom), length(safe.left)}});
}

void Hud::set_scale(float scale) {
    if (!state_->may("set_scale")) return;
    state_->layouter.set_scale(scale >= 0.25F ? std::min(scale, 4.0F) : scale > 0 ? 0.25F : 1.0F);
}

void Hud::set_text_scale(float scale) {
    if (!state_->may("set_text_scale")) return;
    const float limited = scale > 0 ? std::clamp(scale, 0.5F, 3.0F) : 1.0F;
    if (std::exchange(state_->text_scale, limited) == limited) return;
    for (ElementIndex index = 0; index < state_->elements.count(); ++index)
        if (state_->elements[index].is_living())
            state_->change(index, Element(*state_->elements[index].description));
}

bool Hud::play(ElementRef ref, std::string_view effect, float strength) {
    if (!state_->may("play")) return false;
    if (!std::isfinite(strength)) {
        state_->problems.report(
            {{},
             "the strength of effect '" + std::string(effect) + "' must be a finite number",
             "",
             ProblemCode::out_of_range});
        return false;
    }
    const Effect* const found = find_effect(*state_, effect);
    const ElementIndex index = state_->elements.living(ref);
    return found != nullptr && index != no_element &&
           state_->effects.request(index, *found, state_->time.now(), strength);
}

void Hud::stop(ElementRef ref, std::string_view effect) {
    if (!state_->may("stop")) return;
    const Effect* const found = find_effect(*state_, effect);
    const ElementIndex index = state_->elements.living(ref);
    if (found != nullptr && index != no_element) state_->effects.stop(index, *found, state_->time.now());
}

bool Hud::notify(ElementRef ref, const Message& message) {
    if (!state_->may("notify")) return false;
    RunningNotice* const notice = find_notice(*state_, ref);
    if (notice == nullptr) {
        state_->problems.report({{}, "only a notice can be notified", "", ProblemCode::bad_call});
        return false;
    }
    ElementContext context(state_->problems, "a message of " + state_->elements[notice->element].name(),
                           nullptr, state_->formats);
    context.check_numbers(message_table(), &message);
    state_->equip(context);
    if (context.failed()) return false;
    std::string storage;
    const Value value = state_->bindings.read_once(message.value, storage);
    Message themed = message;
    if (themed.color) state_->themes.apply(*themed.color);
    const Language* const language = state_->language.get();
    std::string text;
    if (!notice->plates.empty()) text = notice->body->text_of(themed, value, language, context);
    if (context.failed()) return false;
    RunningNotice& plate = state_->notices.plate_for(
        *notice, message.priority,
        [&](const RunningNotice& known) { return known.body->says(message.id, text); });
    const std::size_t index = plate.body->add(themed, value, language, context);
    if (index == NoticeBody::no_message) return false;
    if (context.failed()) {
        plate.body->forget(index);
        return false;
    }
    state_->notices.post(plate, index, state_->time.now());
    return true;
}

bool Hud::notify(ElementRef ref, std::string_view message) {
    if (!state_->may("notify")) return false;
    RunningNotice* const notice = find_notice(*state_, ref);
    RunningNotice* const plate = notice != nullptr ? state_->notices.plate_with(*notice, message) : nullptr;
    if (plate == nullptr) {
        state_->problems.report(
            {{}, "no message '" + std::string(message) + "' of a notice", "", ProblemCode::unknown_name});
        return false;
    }
    // Of a log, one that it has declared is said by the plate that is free.
    const std::size_t index = plate->body->find(message);
    state_->notices.post(index < notice->body->declared() ? *notice : *plate, index, state_->time.now());
    return true;
}

bool Hud::dismiss(ElementRef ref, std::string_view message) {
    if (!state_->may("dismiss")) return false;
    RunningNotice* const notice = find_notice(*state_, ref);
    return notice != nullptr && state_->notices.take_away(*notice, message, state_->time.now());
}

void Hud::set_camera(const Camera& camera) {
    if (state_->may("set_camera")) state_->camera = camera;
}

TagRef Hud::tag(ElementRef ref, const PositionSource& at, std::span<const Source> values) {
    if (!state_->may("tag")) return {};
    const auto refuse = [this](std::string message, std::string hint) -> TagRef {
        state_->problems.report({{}, std::move(message), std::move(hint), ProblemCode::bad_call});
        return {};
    };
    const ElementIndex index = state_->elements.living(ref);
    GameThings* const things = index != no_element ? state_->lists.things(index) : nullptr;
    if (things == nullptr)
        return refuse("only tags without 'entries' take things one by one",
                      "a container that they have is followed by itself");
    const std::size_t wanted = things->fields().size() - 1;  // without their key
    if (values.size() != wanted)
        return refuse(state_->elements[index].name() + " takes " + std::to_string(wanted) +
                          " values with each thing, and was given " + std::to_string(values.size()),
                      "they are in the order of 'parameters'");
    std::vector<detail::Binding>& bound = state_->bound_values;
    bound.clear();
    for (const Source& value : values) {
        bound.push_back(state_->bindings.bound(value));
        if (value && bound.back().access() == detail::Binding::Access::none)
            return refuse("unknown source '" + value.name() + "'",
                          did_you_mean(value.name(), state_->bindings.sources().names()));
    }
    const std::uint32_t thing = things->add(at, bound);
    return {ref.index, ref.generation, thing, things->generation(thing), ref.hud};
}

/// The things that a reference is one of; null for a dead one.
GameThings* Hud::State::things_of(const TagRef& tag) {
    const ElementIndex index = elements.living({tag.element, tag.element_generation, tag.hud});
    GameThings* const things = index != no_element ? lists.things(index) : nullptr;
    return things != nullptr && things->is_there(tag.index, tag.generation) ? things : nullptr;
}

bool Hud::alive(TagRef tag) const {
    return state_->things_of(tag) != nullptr;
}

void Hud::remove(TagRef tag) {
    if (!state_->may("remove")) return;
    if (GameThings* const things = state_->things_of(tag)) things->remove(tag.index);
}

void Hud::set_visible(TagRef tag, bool visible) {
    if (!state_->may("set_visible")) return;
    if (GameThings* const things = state_->things_of(tag)) things->set_visible(tag.index, visible);
}

bool Hud::pop(ElementRef ref, const Pop& pop) {
    if (!state_->may("pop")) return false;
    const ElementIndex index = state_->elements.living(ref);
    if (index == no_element) return false;
    const RunningElement& element = state_->elements[index];
    PopupsBody* const popups = element.body->popups();
    if (popups != nullptr)
        return popups->add(pop, state_->time.now(element.clock), state_->camera,
                           state_->layouter.screen().size);
    state_->problems.report({{}, element.name() + " is no popups", "", ProblemCode::bad_call});
    return false;
}

bool Hud::alive(ElementRef ref) const {
    return state_->elements.living(ref) != no_element;
}

const Shown Hud::operator[](ElementRef ref) const {
    const ElementIndex index = state_->elements.living(ref);
    if (index == no_element) return {};
    const Parts& hud = *state_;
    const RunningElement& element = hud.elements[index];
    const Travel* const travel = hud.readouts[index].travel.get();
    const bool drawn = hud.visibility.is_drawn(index);
    const Rect box = drawn ? hud.layouter.box(index) : Rect{};
    const Moved moved = hud.effects.moved_in_design(index, hud.time.now());
    const Point pivot = hud.layouter.pivot(index);
    const Point held{box.x + box.width * pivot.x, box.y + box.height * pivot.y};
    const Point now = moved.transform.apply(held);
    const Value& truth = hud.readouts.value(index);
    return {.id = element.path,
            .kind = element.kind->name(),
            .text = element.body->text(),
            .fill = element.body->fill(),
            .trail = element.body->trail(),
            .truth = truth,
            .target = travel != nullptr ? travel->target() : truth,
            .shown = travel != nullptr ? travel->shown(hud.time.now(travel->clock())) : truth,
            .color = mix(element.body->color(), moved.tint.color, static_cast<double>(moved.tint.part)),
            .opacity = hud.visibility.opacity(index) * moved.opacity,
            .scale = moved.scale,
            .offset = {now.x - held.x, now.y - held.y},
            .rotation = moved.rotation,
            .visible = drawn,
            .box = box,
            .changed = hud.elements.changed(index),
            .text_changed = hud.elements.text_changed(index)};
}

std::string_view Hud::text(ElementRef ref) const {
    const ElementIndex index = state_->elements.living(ref);
    return index != no_element ? state_->elements[index].body->text() : std::string_view();
}

std::optional<double> Hud::fill(ElementRef ref) const {
    const ElementIndex index = state_->elements.living(ref);
    return index != no_element ? state_->elements[index].body->fill() : std::nullopt;
}

bool Hud::text_changed(ElementRef ref) const {
    const ElementIndex index = state_->elements.living(ref);
    return index != no_element && state_->elements.text_changed(index);
}

std::vector<ElementRef> Hud::elements() const {
    std::vector<ElementRef> refs;
    for (ElementIndex index = 0; index < state_->elements.count(); ++index)
        if (state_->elements[index].is_living()) refs.push_back(state_->elements.ref(index));
    return refs;
}

ElementRef Hud::find(std::string_view id) {
    Problem problem;
    const ElementIndex found = state_->elements.find(id, problem);
    if (found != no_element) return state_->elements.ref(found);
    state_->problems.report(std::move(problem));
    return {};
}

void Hud::show_watches(const Source& visible) {
    if (!state_->may("show_watches")) return;
    if (const ElementIndex shown = state_->elements.at("watches");
        shown != no_element && state_->watches != nullptr) {
        Element table = *state_->elements[shown].description;
        std::get_if<Panel>(&table)->visible = visible;
        state_->change(shown, table);
        return;
    }
    state_->watches = debug::WatchList::of_thread();
    add(debug::watch_table(state_->watches, visible));
}

/// Twice a second, into the corner in which it covers least; it stays where it is, if that is as good as any other.
void Hud::State::place_watches() {
    constexpr int every = 30;
    if (watches == nullptr || watch_frames++ % every != 1) return;
    const ElementIndex table = elements.at("watches");
    if (table == no_element || !visibility.is_drawn(table)) return;
    const Rect box = layouter.box(table);
    std::vector<Rect> others;
    for (ElementIndex index = 0; index < elements.count(); ++index) {
        const RunningElement& element = elements[index];
        const bool is_own = index == table || element.stands_in("watches");
        if (element.is_living() && !is_own && visibility.is_drawn(index) && elements.children(index).empty())
            others.push_back(layouter.box(index));
    }
    const Anchor present = std::get_if<Panel>(elements[table].description.get())->place.hangs_on();
    const Anchor best =
        debug::freest_corner(others, {box.width, box.height}, layouter.screen().area, present);
    if (best == present) return;
    Element moved = *elements[table].description;
    std::get_if<Panel>(&moved)->place.anchor = best;
    change(table, moved);
}

GameTimer* Hud::timer(std::string_view id) {
    const TimerIndex index = state_->timers.find(std::string(id));
    if (index != no_timer && state_->timers[index].owned != nullptr) return state_->timers[index].owned.get();
    state_->problems.report({{},
                             "no timer '" + std::string(id) + "' of this HUD",
                             did_you_mean(id, state_->timers.names()),
                             ProblemCode::unknown_name});
    return nullptr;
}

std::vector<TimerState> Hud::save_timers() const {
    return state_->timers.save();
}

bool Hud::restore_timers(std::span<const TimerState> timers) {
    if (!state_->may("restore_timers")) return false;
    bool all = true;
    for (const TimerState& saved : timers) {
        const TimerIndex index = state_->timers.find(saved.id);
        if (index != no_timer && state_->timers[index].owned != nullptr) {
            state_->timers.restore(index, saved);
            continue;
        }
        all = false;
        state_->problems.report({{},
                                 "no timer '" + saved.id + "' of this HUD",
                                 did_you_mean(saved.id, state_->timers.names()),
                                 ProblemCode::unknown_name});
    }
    return all;
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
std::span<const Announcement> Hud::announcements() const {
    return state_->notices.announcements();
}
Nanoseconds Hud::now() const {
    return state_->time.now();
}
const Problems& Hud::problems() const {
    return state_->problems.all();
}

}  // namespace rapido
