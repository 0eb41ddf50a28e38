#include "hud/riders.hpp"

#include <algorithm>
#include <utility>

namespace rapido {

/// Among the siblings of the fill first, then among those of the panels around it.
ElementIndex Riders::find(ElementIndex fill, const std::string& name, Problem& problem) const {
    for (std::string_view around = elements_[fill].inside(); !around.empty();) {
        if (const ElementIndex found = elements_.at(path_of(around, name)); found != no_element) return found;
        const std::size_t end = around.rfind('.');
        around = end != std::string_view::npos ? around.substr(0, end) : std::string_view();
    }
    return elements_.find(name, problem);
}

/// Whether one is another, or stands in it or rides with it, in however many steps.
bool Riders::leads_to(ElementIndex from, ElementIndex to) const {
    std::vector<ElementIndex> found{from};
    for (std::size_t i = 0; i < found.size(); ++i) {
        if (found[i] == to) return true;
        for (const ElementIndex next : {elements_[found[i]].rides_on, elements_.at(elements_[found[i]].inside())})
            if (next != no_element && std::find(found.begin(), found.end(), next) == found.end()) found.push_back(next);
    }
    return false;
}

void Riders::relink(const std::function<void(ElementIndex fill, const Problem&)>& tell) {
    if (std::exchange(is_linked_, true)) return;
    const bool had_any = !all_.empty();
    for (const Rider& rider : all_) {
        if (!elements_[rider.element].is_living()) continue;
        elements_.ride(rider.element, no_element);
        elements_.carry(rider.element, {});
    }
    all_.clear();
    for (ElementIndex fill = 0; fill < elements_.count(); ++fill) {
        if (!elements_[fill].is_living()) continue;
        const AtEnd* const at_end = elements_[fill].body->at_end();
        if (at_end == nullptr) continue;
        Problem problem;
        const ElementIndex element = find(fill, at_end->element, problem);
        if (element != no_element && leads_to(fill, element)) {
            problem.message = "'" + at_end->element + "' holds it, or is at its end in turn";
            problem.code = ProblemCode::circle;
        } else if (element != no_element && elements_[element].rides_on != no_element) {
            problem.message = "'" + at_end->element + "' is at the end of " +
                              elements_[elements_[element].rides_on].name() + " already";
            problem.code = ProblemCode::contradiction;
        }
        if (!problem.message.empty()) {
            if (told_.insert(elements_[fill].path + " " + problem.message).second) tell(fill, problem);
            continue;
        }
        elements_.ride(element, fill);
        all_.push_back({fill, element});
    }
    if (had_any || !all_.empty()) visibility_.set_riders(!all_.empty());
}

void Riders::place(PointRoom& room) {
    const float scale = layouter_.screen().scale;
    if (!(scale > 0)) return;
    for (Rider& rider : all_) {
        const RunningElement& fill = elements_[rider.fill];
        const FillEnd end = fill.body->fill_end({.box = layouter_.device_box(rider.fill),
                                                 .scale = scale,
                                                 .mirrored = layouter_.mirrored(),
                                                 .column_side = layouter_.column_side(rider.fill),
                                                 .measurer = layouter_.measurer(),
                                                 .room = &room});
        const Rect own = layouter_.device_box(rider.element);
        elements_.carry(rider.element, {.shift = {(end.at.x - own.x - own.width / 2) / scale,
                                                  (end.at.y - own.y - own.height / 2) / scale},
                                        .rotation = fill.body->at_end()->turned ? end.rotation : 0});
        // What moves the fill, and what hides it, counts for it, too.
        const std::uint64_t revision = elements_.hot(rider.fill).revision;
        if (std::exchange(rider.revision, revision) != revision) elements_.mark_inside_changed(rider.element);
    }
}

}  // namespace rapido
