// Calls that change an element, and what the game sets on top of its description.
#include "base/nearest.hpp"
#include "hud/call.hpp"
#include "hud/state.hpp"
#include "rapido/element/panel.hpp"

namespace rapido {
namespace {

Place place_of(const Element& element) {
    return *WrittenElement(element).field<Place>("place");
}

/// A call that cannot do without one element in its part of a HUD.
std::string_view lacks_one(const HudDefinition& hud) {
    return hud.elements.size() == 1 ? "" : "hud";
}

struct ChangeElement {
    std::string element{};
    HudDefinition hud{};
    std::string_view lacks() const { return lacks_one(hud); }
};
constexpr std::array change_fields{
    field<&ChangeElement::element>("element", element_help),
    field<&ChangeElement::hud>("hud", "Its new description, as a HUD file of one element."),
};
void apply(const ChangeElement& call, CallStage& at) {
    at.hud.change(at.element(call.element), call.hud.elements.front());
}
constexpr auto change_call = call_kind<ChangeElement>("change", "Gives an element another description.", change_fields);

struct SetColor {
    std::string element{};
    Themed<Color> color{};
};
constexpr std::array set_color_fields{
    field<&SetColor::element>("element", element_help),
    required_field<&SetColor::color>("color", "The color, or its name in the theme."),
};
void apply(const SetColor& call, CallStage& at) {
    at.hud.set_color(at.element(call.element), call.color);
}
constexpr auto set_color_call = call_kind<SetColor>("set_color", "Replaces the color of an element.", set_color_fields);

struct SetFormat {
    std::string element{}, format{};
};
constexpr std::array set_format_fields{
    field<&SetFormat::element>("element", element_help),
    field<&SetFormat::format>("format", "The pattern."),
};
void apply(const SetFormat& call, CallStage& at) {
    at.hud.set_format(at.element(call.element), call.format);
}
constexpr auto set_format_call =
    call_kind<SetFormat>("set_format", "Replaces the format of a text.", set_format_fields);

struct SetPlace {
    std::string element{};
    HudDefinition part{};
    std::string_view lacks() const { return lacks_one(part); }
};
constexpr std::array set_place_fields{
    field<&SetPlace::element>("element", element_help),
    field<&SetPlace::part>("hud", "A HUD file of one element in that place."),
};
void apply(const SetPlace& call, CallStage& at) {
    at.hud.set_place(at.element(call.element), place_of(call.part.elements.front()));
}
constexpr auto set_place_call = call_kind<SetPlace>("set_place", "Replaces the place of an element.", set_place_fields);

struct Reset {
    std::string element{};
};
constexpr std::array reset_fields{field<&Reset::element>("element", element_help)};
void apply(const Reset& call, CallStage& at) {
    at.hud.reset(at.element(call.element));
}
constexpr auto reset_call =
    call_kind<Reset>("reset", "Takes back all that the game has set of an element.", reset_fields);

struct SetTheme {
    std::string theme{};
};
constexpr std::array set_theme_fields{field<&SetTheme::theme>("theme", "The id of the theme.")};
void apply(const SetTheme& call, CallStage& at) {
    at.hud.set_theme(call.theme);
}
constexpr auto set_theme_call = call_kind<SetTheme>("set_theme", "Shows another theme.", set_theme_fields);

constexpr std::array<const CallKind*, 6> change_kinds{&change_call,    &set_color_call, &set_format_call,
                                                      &set_place_call, &reset_call,     &set_theme_call};

bool is_in_range(const Place& place) {
    bool is_in_range = true;
    check_ranges(table_of<Place>, &place, [&](std::string_view, const Field&) { is_in_range = false; });
    return is_in_range;
}

/// Names a field that differs, and that the game has set on top: the change of it is not seen. Empty for none.
std::string_view covered(const Element& before, const Element& now, const GameLayer& layer) {
    WrittenElement first(before), second(now);
    const auto differs = [&]<class T>(std::string_view field, const std::optional<T>& set) {
        const T* const from = first.field<T>(field);
        const T* const to = second.field<T>(field);
        return set && from != nullptr && to != nullptr && !(*from == *to) && !(*to == *set);
    };
    return differs("format", layer.format) ? "format"
           : differs("color", layer.color) ? "color"
           : differs("place", layer.place) ? "place"
                                           : "";
}

/// The layer of the game over an element, made if there is none.
GameLayer& layer_of(RunningElement& element) {
    if (element.layer_of_game == nullptr) element.layer_of_game = std::make_unique<GameLayer>();
    return *element.layer_of_game;
}

}  // namespace

CallKinds change_calls() {
    return change_kinds;
}

Element Hud::description(ElementRef ref) const {
    const ElementIndex index = state_->elements.living(ref);
    return index != no_element ? state_->elements[index].description : Element();
}

bool Hud::change(ElementRef ref, const Element& element) {
    const ElementIndex index = state_->target(change_call, ref);
    if (index == no_element) return false;
    const RunningElement& running = state_->elements[index];
    const std::string under(
        running.layer_of_game != nullptr ? covered(running.description, element, *running.layer_of_game) : "");
    if (!state_->change(index, element)) return false;
    if (!under.empty())
        state_->problems.report({{},
                                 "the changed '" + under + "' of " + running.name() + " is not seen, as 'set_" + under +
                                     "' of the game lies over it",
                                 "call 'reset', or 'set_" + under + "' again",
                                 ProblemCode::bad_call,
                                 Severity::warning});
    state_->note(change_call, [&] { return ChangeElement{state_->elements[index].path, {.elements = {element}}}; });
    return true;
}

void Hud::set_color(ElementRef ref, const Themed<Color>& color) {
    const ElementIndex index = state_->target(set_color_call, ref);
    if (index == no_element) return;
    RunningElement& element = state_->elements[index];
    state_->note(set_color_call, [&] { return SetColor{element.path, color}; });
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
    if (element.kind->follows)
        state_->readouts.set_color(index, themed, state_->time);
    else
        state_->change(index, Element(element.description));
}

bool Hud::set_theme(std::string_view id) {
    if (!state_->may(set_theme_call)) return false;
    state_->note(set_theme_call, [&] { return SetTheme{std::string(id)}; });
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

bool Hud::set_format(ElementRef ref, std::string_view format) {
    const ElementIndex index = state_->target(set_format_call, ref);
    if (index == no_element) return false;
    RunningElement& element = state_->elements[index];
    state_->note(set_format_call, [&] { return SetFormat{element.path, std::string(format)}; });
    GameLayer& layer = layer_of(element);
    if (layer.format == format) return true;
    if (!element.kind->can.takes_format) {
        state_->problems.report({{}, element.name() + " has no format", "", ProblemCode::unfit});
        return false;
    }
    const std::optional<std::string> before = std::exchange(layer.format, std::string(format));
    if (state_->set_format(index, *layer.format) || state_->change(index, Element(element.description))) return true;
    layer.format = before;
    return false;
}

bool Hud::set_place(ElementRef ref, const Place& place) {
    const ElementIndex index = state_->target(set_place_call, ref);
    if (index == no_element) return false;
    RunningElement& element = state_->elements[index];
    state_->note(set_place_call, [&] {
        return SetPlace{element.path, {.elements = {Panel{.id = "panel", .place = place}}}};
    });
    const std::optional<Place> before = std::exchange(layer_of(element).place, place);
    if (before == place) return true;
    const Place last = before ? *before : place_of(element.description);
    // Only these are known to what the element draws; all else is for the layout alone.
    const bool is_same_inside =
        last.anchor == place.anchor && last.pivot == place.pivot && last.max_size == place.max_size;
    if (is_same_inside && is_in_range(place)) {
        state_->layouter.set_place(index, place);
        return true;
    }
    if (state_->change(index, Element(element.description))) return true;
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

void Hud::reset(ElementRef ref) {
    const ElementIndex index = state_->target(reset_call, ref);
    if (index == no_element) return;
    state_->note(reset_call, [&] { return Reset{state_->elements[index].path}; });
    state_->visibility.set_by_game(index, true, 1.0F);
    if (std::exchange(state_->elements[index].layer_of_game, nullptr) != nullptr)
        state_->change(index, Element(state_->elements[index].description));
}

}  // namespace rapido
