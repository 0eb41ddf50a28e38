// What a frame cost, and where the table of probes goes.
#include <algorithm>
#include <array>

#include "hud/state.hpp"
#include "rapido/element/panel.hpp"

namespace rapido {

bool Hud::State::offer_cost(const std::string& name) {
    if (name == "hud.flash_limited") {
        flash_source = bindings.add_told(name, Value::Type::flag);
        return true;
    }
    constexpr std::array<std::string_view, 3> names{"hud.update_time", "hud.draw_time", "hud.render_time"};
    const auto found = std::find(names.begin(), names.end(), name);
    if (found == names.end()) return false;
    cost_sources[static_cast<std::size_t>(found - names.begin())] = bindings.add_told(name, Value::Type::duration);
    return true;
}

void Hud::State::tell_cost() {
    if (flash_source != no_source) bindings.tell(flash_source, Value(effects.was_limited()));
    if (!cost) return;
    const std::array times{cost->update, cost->draw, cost->render};
    for (std::size_t i = 0; i < times.size(); ++i)
        if (cost_sources[i] != no_source) bindings.tell(cost_sources[i], Value(times[i]));
}

void Hud::State::place_probes() {
    if (probes == nullptr) return;
    const std::optional<Anchor> corner = probes->better_corner(*this);
    if (!corner) return;
    const ElementIndex table = elements.at("probes");
    Panel moved = *elements[table].description.as<Panel>();
    moved.place.anchor = *corner;
    change(table, moved);
}

}  // namespace rapido
