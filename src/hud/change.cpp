// A running element is changed by giving it another description: from C++, by a name that comes late, by what the game sets.
#include <cmath>

#include "base/nearest.hpp"
#include "element/fields.hpp"
#include "hud/new_element.hpp"

namespace rapido {
namespace {

/// A description with what the game has set on top.
Element layered(const Element& description, const GameLayer* layer) {
    Element element = description;
    if (layer == nullptr) return element;
    std::visit(
        [layer](auto& any) {
            if constexpr (requires { any.color = Themed<Color>(); })
                if (layer->color) any.color = *layer->color;
            if constexpr (requires { any.format = std::string(); })
                if (layer->format) any.format = *layer->format;
            if (layer->place) any.place = *layer->place;
        },
        element);
    return element;
}

std::string_view inside_of(const Element& element) {
    return std::visit([](const auto& any) -> std::string_view { return any.inside; }, element);
}
std::string_view id_of(const Element& element) {
    return std::visit([](const auto& any) -> std::string_view { return any.id; }, element);
}
const Place& place_of(const Element& element) {
    return std::visit([](const auto& any) -> const Place& { return any.place; }, element);
}
bool is_in_range(const Place& place) {
    bool is_in_range = true;
    check_ranges(Description<Place>::table, &place,
                 [&](std::string_view, const Field&) { is_in_range = false; });
    return is_in_range;
}

/// The layer of the game over an element, made if there is none.
GameLayer& layer_of(RunningElement& element) {
    if (element.layer_of_game == nullptr) element.layer_of_game = std::make_unique<GameLayer>();
    return *element.layer_of_game;
}

}  // namespace

bool Hud::State::change(ElementIndex index, const Element& description) {
    RunningElement& running = elements[index];
    const auto refuse = [&](const std::string& what) {
        problems.report(
            {{}, running.name() + ": " + what, "remove it, and add another one", ProblemCode::fixed});
        return false;
    };
    if (&kind_of(description) != running.kind)
        return refuse("a running element cannot become a " + std::string(kind_of(description).name()));
    if (id_of(description) != running.id()) return refuse("its id cannot change while it runs");
    if (elements.panel(std::string(inside_of(description))) != running.inside)
        return refuse("its panel cannot change while it runs");
    const Notice* const log = std::get_if<Notice>(&description);
    if (log != nullptr && log->at_once != std::get_if<Notice>(running.description.get())->at_once)
        return refuse("its 'at_once' cannot change while it runs");

    const Element wanted = layered(description, running.layer_of_game.get());
    NewElement made(*this, wanted, nullptr, index);
    made.check();
    made.bind();
    made.make();
    if (made.failed()) {
        made.release();
        return false;
    }

    keep_finished(index);
    const std::optional<int> places = running.body->places();
    running.description = std::make_unique<const Element>(description);
    running.clock = made.common.plan.clock;
    const Rest before = running.rest != nullptr ? *running.rest : Rest{};
    if (!(made.common.rest == before)) {
        running.rest = made.rest();
        elements.mark_inside_moved(index);
    }
    elements.replace_body(index, std::move(made.body), made.common.layer);
    const SourceIndex visible = visibility.conditions(index).visible;
    bindings.forget(visible, index);
    bindings.release(visible);
    timers.remove(index);
    readouts.change(index, made.value, std::move(made.readout), plans.share(made.common.plan), time);
    bindings.depend(made.conditions.visible, {index, Dependent::Role::look});
    visibility.change(index, made.conditions);
    layouter.set_place(index, made.common.place);
    effects.change(index, std::move(made.effects), time.now());
    if (places != running.body->places()) pending.set_total(running.path, index);
    lists.change(index, wanted);
    follow_bands(index);
    if (made.notice != nullptr) {
        made.notice->element = index;
        notices.replace(index, std::move(made.notice));
        if (const std::vector<ElementIndex> plates = notices.find(index)->plates; !plates.empty()) {
            for (const ElementIndex plate : plates)
                if (plate != no_element) change(plate, plate_of(*log, elements[plate].id(), running.path));
            notices.set_plates(index, *log, plates);
        }
        find_speakers(index, nullptr);
    }
    if (language != nullptr) speak(index);
    return true;
}

/// The short way, for an element that does without the rest of `change`; false where it cannot, or the format cannot be read.
bool Hud::State::set_format(ElementIndex index, const std::string& format) {
    RunningElement& running = elements[index];
    if (pending.is_asked_for(running.path)) return false;  // which checks its digits
    ProblemLog found;
    ElementContext context(found, running.name(), nullptr, formats);
    know_types(index, context);
    equip(context);
    keep_finished(index);
    if (!running.body->set_format(format, language.get(), context)) return false;
    for (const Problem& problem : found.all())
        problems.report(problem);
    if (running.body->shows_delta()) readouts.must_know(index);
    readouts.refresh_next(index);
    return true;
}

void Hud::State::follow_names() {
    const std::vector<Sources::NamedTimer>& named = bindings.sources().timers();
    for (; timers_of_game < named.size(); ++timers_of_game) {
        const Sources::NamedTimer& timer = named[timers_of_game];
        if (timers.find(timer.name) == no_timer && !bindings.is_told(timer.name + ".rate"))
            timers.add(timer.name, *timer.timer, timer.clock);
    }
    std::vector<ElementIndex> affected;
    for (const SourceIndex source : bindings.follow_names())
        for (const Dependent& dependent : bindings.dependents(source))
            if (dependent.element != no_element) affected.push_back(dependent.element);
    std::sort(affected.begin(), affected.end());
    affected.erase(std::unique(affected.begin(), affected.end()), affected.end());
    for (const ElementIndex index : affected) {
        // What is known of the type and the use of a value may have become another thing.
        if (!elements[index].is_living()) continue;
        change(index, Element(*elements[index].description));
        readouts.take_as_given(index);
    }
}

Element Hud::description(ElementRef ref) const {
    const ElementIndex index = state_->elements.living(ref);
    return index != no_element ? *state_->elements[index].description : Element();
}

bool Hud::change(ElementRef ref, const Element& element) {
    if (!state_->may("change")) return false;
    const ElementIndex index = state_->elements.living(ref);
    if (index == no_element || !state_->change(index, element)) return false;
    state_->record("change", {.elements = {element}}, state_->elements[index].path);
    return true;
}

void Hud::set_color(ElementRef ref, const Themed<Color>& color) {
    if (!state_->may({.name = "set_color", .detail = &color}, &ref)) return;
    const ElementIndex index = state_->elements.living(ref);
    if (index == no_element) return;
    RunningElement& element = state_->elements[index];
    if (layer_of(element).color == color) return;
    Themed<Color> themed = color;
    bool is_known = true;
    state_->themes.apply(themed, [&](std::string_view, const std::string& message, const std::string& hint) {
        state_->problems.report(
            {{}, "the color of " + element.name() + " " + message, hint, ProblemCode::unknown_name});
        is_known = false;
    });
    if (!is_known) return;
    layer_of(element).color = themed;
    const bool follows = std::visit(
        [](const auto& any) {
            return requires {
                any.motion;
            };
        },
        *element.description);
    if (follows)
        state_->readouts.set_color(index, themed, state_->time);
    else
        state_->change(index, Element(*element.description));
}

bool Hud::set_theme(std::string_view id) {
    if (!state_->may({.name = "set_theme", .text = id})) return false;
    if (id == state_->themes.used()) return true;
    if (!state_->themes.use(id)) {
        state_->problems.report({{},
                                 "no theme '" + std::string(id) + "'",
                                 did_you_mean(id, state_->themes.names()),
                                 ProblemCode::unknown_name});
        return false;
    }
    state_->follow_theme();
    return true;
}

std::string_view Hud::theme() const {
    return state_->themes.used();
}

bool Hud::add(const Theme& theme) {
    if (!state_->may("add") || !state_->add(theme, nullptr)) return false;
    state_->record("add", {.themes = {theme}});
    state_->follow_theme();
    return true;
}

void Hud::State::follow_theme() {
    keep_all_finished();
    effects.follow_theme(themes);
    themes.apply(font, nullptr, "font");
    const bool other_styles = text_styles.follow_theme(themes);
    const bool other_font = font.value() != locales.of_all.font;
    locales.of_all.font = font;
    for (ElementIndex index = 0; index < elements.count(); ++index) {
        if (!elements[index].is_living()) continue;
        const Element& description = *elements[index].description;
        const GameLayer* const layer = elements[index].layer_of_game.get();
        const bool is_themed = Themes::has_names(*kind_of(description).table, address_of(description)) ||
                               (layer != nullptr && layer->color && !layer->color->name().empty());
        if (is_themed || other_font || other_styles) change(index, Element(description));
    }
}

bool Hud::set_format(ElementRef ref, std::string_view format) {
    if (!state_->may({.name = "set_format", .text = format}, &ref)) return false;
    const ElementIndex index = state_->elements.living(ref);
    if (index == no_element) return false;
    RunningElement& element = state_->elements[index];
    GameLayer& layer = layer_of(element);
    if (layer.format == format) return true;
    if (!element.kind->can.takes_format) {
        state_->problems.report({{}, element.name() + " has no format", "", ProblemCode::unfit});
        return false;
    }
    const std::optional<std::string> before = std::exchange(layer.format, std::string(format));
    if (state_->set_format(index, *layer.format) || state_->change(index, Element(*element.description)))
        return true;
    layer.format = before;
    return false;
}

bool Hud::set_place(ElementRef ref, const Place& place) {
    if (!state_->may({.name = "set_place", .detail = &place}, &ref)) return false;
    const ElementIndex index = state_->elements.living(ref);
    if (index == no_element) return false;
    RunningElement& element = state_->elements[index];
    const std::optional<Place> before = std::exchange(layer_of(element).place, place);
    if (before == place) return true;
    const Place& last = before ? *before : place_of(*element.description);
    // Only these are known to what the element draws; all else is for the layout alone.
    const bool is_same_inside =
        last.anchor == place.anchor && last.pivot == place.pivot && last.max_size == place.max_size;
    if (is_same_inside && is_in_range(place)) {
        state_->layouter.set_place(index, place);
        return true;
    }
    if (state_->change(index, Element(*element.description))) return true;
    layer_of(element).place = before;
    return false;
}

std::vector<SavedPlace> Hud::save_places() const {
    std::vector<SavedPlace> saved;
    for (ElementIndex index = 0; index < state_->elements.count(); ++index) {
        const RunningElement& element = state_->elements[index];
        if (element.is_living() && element.layer_of_game != nullptr && element.layer_of_game->place)
            saved.push_back({element.path, *element.layer_of_game->place});
    }
    return saved;
}

bool Hud::restore_places(std::span<const SavedPlace> places) {
    if (!state_->may("restore_places")) return false;
    bool all = true;
    for (const SavedPlace& saved : places) {
        const ElementRef element = find(saved.id);
        all = element && set_place(element, saved.place) && all;
    }
    return all;
}

void Hud::set_visible(ElementRef ref, bool visible) {
    if (!state_->may({.name = "set_visible", .flag = visible}, &ref)) return;
    if (const ElementIndex index = state_->elements.living(ref); index != no_element)
        state_->visibility.set_by_game(index, visible, {});
}

void Hud::set_opacity(ElementRef ref, float opacity) {
    if (!state_->may({.name = "set_opacity", .number = opacity}, &ref)) return;
    if (const ElementIndex index = state_->elements.living(ref); index != no_element)
        state_->visibility.set_by_game(index, {}, opacity > 0 ? std::min(opacity, 1.0F) : 0.0F);
}

void Hud::set_visible(bool visible) {
    if (state_->may({.name = "set_visible", .flag = visible}))
        state_->visibility.set_all_by_game(visible, {});
}

void Hud::set_opacity(float opacity) {
    if (state_->may({.name = "set_opacity", .number = opacity}))
        state_->visibility.set_all_by_game({}, opacity > 0 ? std::min(opacity, 1.0F) : 0.0F);
}

void Hud::reset(ElementRef ref) {
    if (!state_->may("reset", ref)) return;
    const ElementIndex index = state_->elements.living(ref);
    if (index == no_element) return;
    state_->visibility.set_by_game(index, true, 1.0F);
    if (std::exchange(state_->elements[index].layer_of_game, nullptr) != nullptr)
        state_->change(index, Element(*state_->elements[index].description));
}

}  // namespace rapido
