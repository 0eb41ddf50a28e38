// Calls on an element by its name.
#include "hud/state.hpp"
#include "rapido/look/notice_queue.hpp"

namespace rapido {

bool Hud::play(std::string_view element, std::string_view effect, float strength) {
    const ElementRef found = find(element);
    return found && play(found, effect, strength);
}

void Hud::stop(std::string_view element, std::string_view effect) {
    if (const ElementRef found = find(element)) stop(found, effect);
}

bool Hud::notify(std::string_view notice, const Message& message) {
    const ElementRef found = find(notice);
    return found && notify(found, message);
}

bool Hud::notify(std::string_view notice, std::string_view message) {
    const ElementRef found = find(notice);
    return found && notify(found, message);
}

bool Hud::dismiss(std::string_view notice, std::string_view message) {
    const ElementRef found = find(notice);
    return found && dismiss(found, message);
}

bool Hud::pop_up(std::string_view pop_ups, const PopUp& pop) {
    const ElementRef found = find(pop_ups);
    return found && pop_up(found, pop);
}

MarkerRef Hud::add_marker(std::string_view markers, const PositionSource& at, std::initializer_list<Source> values) {
    const ElementRef found = find(markers);
    return found ? add_marker(found, at, values) : MarkerRef();
}

bool Hud::set_color(std::string_view element, const Themed<Color>& color) {
    const ElementRef found = find(element);
    if (found) set_color(found, color);
    return static_cast<bool>(found);
}

bool Hud::set_format(std::string_view element, std::string_view format) {
    const ElementRef found = find(element);
    return found && set_format(found, format);
}

}  // namespace rapido
