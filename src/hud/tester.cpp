// What a tester sees: watches, and what a frame cost.
#include <algorithm>
#include <array>
#include <cmath>

#include "hud/state.hpp"

namespace rapido {

bool Hud::State::offer_cost(const std::string& name) {
    if (name == "hud.flash_limited") {
        flash_source = bindings.add_told(name, Value::Type::boolean);
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

void Hud::show_watches(const Source& visible) {
    if (!state_->may("show_watches")) return;
    if (const ElementIndex shown = state_->elements.at("watches"); shown != no_element) {
        Element table = *state_->elements[shown].description;
        Panel* const panel = std::get_if<Panel>(&table);
        if (state_->watches == nullptr || panel == nullptr) {
            state_->problems.report(
                {{},
                 "the HUD has an element 'watches' of its own: the table of watches cannot be shown",
                 "give that element another id",
                 ProblemCode::duplicate});
            return;
        }
        panel->visible = visible;
        state_->change(shown, table);
        return;
    }
    state_->watches = debug::WatchList::of_thread();
    add(debug::watch_table(state_->watches, visible));
}

/// Where an element is drawn: tags, and what is on its way, are not where they are laid out.
Rect Hud::State::seen_box(ElementIndex index) const {
    const Rect box = layouter.box(index);
    const Transform moved = effects.moved_in_design(index, time.now()).transform;
    const Point first = moved.apply({box.x, box.y}), last = moved.apply({box.right(), box.bottom()});
    return {std::min(first.x, last.x), std::min(first.y, last.y), std::abs(first.x - last.x),
            std::abs(first.y - last.y)};
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
            others.push_back(seen_box(index));
    }
    const Panel* const panel = std::get_if<Panel>(elements[table].description.get());
    if (panel == nullptr) return;
    const Anchor present = panel->place.hangs_on();
    const Anchor best = debug::freest_corner(others, {box.width, box.height}, layouter.screen().area, present);
    if (best == present) return;
    Element moved = *elements[table].description;
    std::get_if<Panel>(&moved)->place.anchor = best;
    change(table, moved);
}

}  // namespace rapido
