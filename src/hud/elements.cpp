#include "hud/elements.hpp"

#include <algorithm>
#include <atomic>
#include <utility>

#include "base/nearest.hpp"
#include "element/notice_body.hpp"

namespace rapido {
namespace {

/// References of one HUD mean nothing in another: each has a number of its own.
std::uint32_t next_hud() {
    static std::atomic<std::uint32_t> last{0};
    return ++last;
}

}  // namespace

std::string path_of(std::string_view inside, std::string_view id) {
    return inside.empty() ? std::string(id) : std::string(inside) + "." + std::string(id);
}

Elements::Elements(const ProblemLog& problems) : problems_(problems), hud_(next_hud()) {}

void Elements::announce(const std::vector<Element>& elements) {
    const auto each = [&](bool Abilities::*ability, auto announce_one) {
        for (const Element& element : elements) {
            if (!(kind_of(element).can.*ability)) continue;
            // A notice holds others only where it is a log.
            const std::optional<Notice> notice = element.as<Notice>();
            if (!notice || is_log(*notice)) announce_one(element.inside(), element.id());
        }
    };
    each(&Abilities::holds_children, [&](const std::string& inside, const std::string& id) {
        panels_.insert(path_of(inside, id));
        panel_parents_.emplace(id, inside);
    });
    each(&Abilities::holds_children, [&](const std::string& inside, const std::string& id) {
        const bool in_circle = !inside.empty() && !panels_.contains(inside) && stands_around(id, inside);
        if (in_circle) panels_.erase(path_of(inside, id));
    });
    // Where the beginning of a path is left away, it is known when that of the panel around is.
    bool found_more = true;
    for (int depth = 0; depth < 64 && std::exchange(found_more, false); ++depth)
        each(&Abilities::holds_children, [&](const std::string& inside, const std::string& id) {
            const std::string around = panel(inside);
            if (around == inside || panels_.erase(path_of(inside, id)) == 0) return;
            found_more = panels_.insert(path_of(around, id)).second || found_more;
        });
    each(&Abilities::counts,
         [&](const std::string& inside, const std::string& id) { counters_.insert(path_of(panel(inside), id)); });
}

std::string Elements::whole(const Paths& paths, const std::string& name) {
    if (name.empty() || paths.contains(name)) return name;
    const std::string end = "." + name;
    const std::string* found = nullptr;
    for (const std::string& path : paths) {
        if (!path.ends_with(end)) continue;
        if (found != nullptr) return name;
        found = &path;
    }
    return found != nullptr ? *found : name;
}

ElementIndex Elements::at(std::string_view path) const {
    const auto known = paths_.find(path);
    return known != paths_.end() ? known->second : no_element;
}

ElementIndex Elements::find(std::string_view name, Problem& problem) const {
    const std::string word(name);
    problem.code = ProblemCode::unknown_name;
    if (const ElementIndex index = at(word); index != no_element) return index;
    const bool has_panel = word.find('.') != std::string::npos;
    const std::string end = "." + word;
    const auto [first, last] = ids_.equal_range(word.substr(word.rfind('.') + 1));
    ElementIndex found = no_element;
    for (auto known = first; known != last; ++known) {
        if (has_panel && !all_[known->second].path.ends_with(end)) continue;
        if (found != no_element) {
            problem.message = has_panel ? "several elements end with '" + word + "'; give more of the path"
                                        : "several elements have the id '" + word + "'; give the whole path";
            return no_element;
        }
        found = known->second;
    }
    if (found != no_element) return found;
    problem.message = "no element '" + word + "'";
    if (problems_.is_full()) return no_element;
    std::vector<std::string_view> names;
    for (const RunningElement& element : all_)
        if (element.is_living()) names.push_back(has_panel ? element.path : element.id());
    problem.hint = did_you_mean(name, names);
    return no_element;
}

bool Elements::stands_around(const std::string& id, const std::string& panel) const {
    // As deep as keys of a file may be.
    std::string at = panel.substr(panel.rfind('.') + 1);
    for (int depth = 0; depth < 64 && at != id; ++depth) {
        const auto around = panel_parents_.find(at);
        if (around == panel_parents_.end() || around->second.empty()) return false;
        at = around->second.substr(around->second.rfind('.') + 1);
    }
    return at == id;
}

Problem Elements::missing_panel(const std::string& panel, const std::string& id) const {
    if (panel.substr(panel.rfind('.') + 1) == id)
        return {{}, "'" + id + "' stands inside itself", "", ProblemCode::circle};
    if (stands_around(id, panel))
        return {{}, "'" + panel + "' stands inside '" + id + "' in turn: a circle of panels", "", ProblemCode::circle};
    const auto ends_so = [&](const std::string& path) { return path.ends_with("." + panel); };
    if (std::count_if(panels_.begin(), panels_.end(), ends_so) > 1)
        return {{}, "several panels end with '" + panel + "'", "give more of the path", ProblemCode::unknown_name};
    const std::vector<std::string_view> names(panels_.begin(), panels_.end());
    return {{},
            "no panel '" + panel + "'",
            problems_.is_full() ? "" : did_you_mean(panel, names),
            ProblemCode::unknown_name};
}

ElementIndex Elements::add(RunningElement element) {
    ElementIndex index = count();
    if (free_.empty()) {
        all_.grow_to(all_.size() + 1);
        hot_.grow_to(all_.size());
    } else {
        index = free_.back();
        free_.pop_back();
    }
    element.generation = all_[index].generation;
    element.rank = next_rank_++;
    if (element.kind->can.counts) counters_.insert(element.path);
    if (element.body->arrangement() != nullptr) panels_.insert(element.path);
    all_[index] = std::move(element);
    paths_.emplace(all_[index].path, index);
    ids_.emplace(all_[index].id(), index);
    all_[index].body->write_into(&hot_[index].number);
    structure_dirty_ = true;
    return index;
}

void Elements::mark_inside_moved(ElementIndex index) {
    for (ElementIndex inner = 0; inner < count(); ++inner)
        for (ElementIndex at = inner; at != no_element; at = all_[at].parent)
            if (at == index && all_[inner].is_living()) changed_next_.push_back(inner);
}

void Elements::replace_body(ElementIndex index, std::unique_ptr<Body> body, int layer) {
    RunningElement& element = all_[index];
    hot_[index].number.forget();
    body->take_over(*element.body);
    element.body = std::move(body);
    element.body->write_into(&hot_[index].number);
    structure_dirty_ = structure_dirty_ || element.layer != layer;
    element.layer = layer;
    mark_changed(index);
}

ElementIndex Elements::living(ElementRef ref) const {
    if (ref.hud != hud_ || ref.index >= all_.size()) return no_element;
    const RunningElement& element = all_[ref.index];
    return element.generation == ref.generation && element.is_living() ? ref.index : no_element;
}

std::span<const ElementIndex> Elements::kill(ElementIndex index) {
    first_killed_ = removed_.size();
    gather(index);
    return std::span(removed_).subspan(first_killed_);
}

void Elements::gather(ElementIndex index) {
    RunningElement& element = all_[index];
    if (!element.is_living()) return;
    element.dead = true;
    hot_[index].queued = true;  // so that nothing follows it any more
    mark_moved(index);
    removed_.push_back(index);
    paths_.erase(element.path);
    panels_.erase(element.path);
    counters_.erase(element.path);
    const auto [first, last] = ids_.equal_range(element.id());
    ids_.erase(std::find_if(first, last, [&](const auto& known) { return known.second == index; }));
    if (!element.kind->can.holds_children) return;
    for (ElementIndex child = 0; child < count(); ++child)
        if (!all_[child].inside().empty() && all_[child].inside() == all_[index].path) gather(child);
}

void Elements::free_removed() {
    for (const ElementIndex index : removed_) {
        const std::uint32_t generation = all_[index].generation + 1;
        all_[index] = RunningElement{};
        all_[index].generation = generation;
        hot_[index] = HotElement{};
        free_.push_back(index);
    }
    structure_dirty_ = structure_dirty_ || !removed_.empty();
    removed_.clear();
}

void Elements::carry(ElementIndex index, const Carried& carried) {
    if (all_[index].carried == carried) return;
    all_[index].carried = carried;
    all_[index].is_carried = carried != Carried{};
    mark_inside_changed(index);
}

void Elements::ride(ElementIndex index, ElementIndex fill) {
    if (std::exchange(all_[index].rides_on, fill) != fill) mark_inside_changed(index);
}

void Elements::mark_inside_changed(ElementIndex index) {
    mark_changed(index);
    for (const ElementIndex child : children(index))
        mark_inside_changed(child);
}

void Elements::order_children(ElementIndex panel, std::span<const ElementIndex> order) {
    const auto first = children_.begin() + static_cast<std::ptrdiff_t>(all_[panel].first_child);
    const auto last = first + static_cast<std::ptrdiff_t>(all_[panel].child_count);
    auto next = first;
    for (const ElementIndex child : order) {
        const auto found = std::find(next, last, child);
        if (found != last) std::rotate(next++, found, found + 1);
    }
}

template <class Wanted>
std::vector<ElementIndex> Elements::ranked(const Wanted& wanted) const {
    std::vector<ElementIndex> found;
    for (ElementIndex index = 0; index < count(); ++index)
        if (wanted(all_[index])) found.push_back(index);
    const auto by_rank = [this](ElementIndex a, ElementIndex b) { return all_[a].rank < all_[b].rank; };
    if (!std::is_sorted(found.begin(), found.end(), by_rank)) std::sort(found.begin(), found.end(), by_rank);
    return found;
}

std::vector<ElementIndex> Elements::by_rank() const {
    return ranked([](const RunningElement& each) { return each.is_living(); });
}

void Elements::rank(std::span<const ElementIndex> order) {
    std::vector<bool> is_given(all_.size());
    for (const ElementIndex index : order)
        is_given[index] = true;
    std::vector<ElementIndex> all(order.begin(), order.end());
    for (const ElementIndex index : by_rank())
        if (!is_given[index]) all.push_back(index);
    next_rank_ = 0;
    for (const ElementIndex index : all)
        all_[index].rank = next_rank_++;
    structure_dirty_ = true;
}

/// The panel around an element: most often the same as before.
ElementIndex Elements::parent_of(const RunningElement& element) const {
    const std::string_view panel = element.inside();
    if (panel.empty()) return no_element;
    if (element.parent != no_element && all_[element.parent].is_living() && all_[element.parent].path == panel)
        return element.parent;
    return at(panel);
}

bool Elements::link() {
    if (!structure_dirty_) return false;
    ++structure_;
    structure_dirty_ = false;
    // A path begins with the path of its panel, so that panels cannot stand inside one another in a circle.
    const std::vector<ElementIndex> all = ranked([](const RunningElement& each) { return each.body != nullptr; });
    // Those inside of each, one after the other, and behind them those that stand on the screen.
    const std::size_t screen = all_.size();
    std::vector<std::uint32_t> ends(screen + 2);
    for (const ElementIndex index : all) {
        RunningElement& element = all_[index];
        element.parent = parent_of(element);
        ++ends[(element.parent != no_element ? element.parent : screen) + 1];
    }
    for (std::size_t i = 1; i < ends.size(); ++i)
        ends[i] += ends[i - 1];
    std::vector<ElementIndex> inside(all.size());
    for (const ElementIndex index : all)
        inside[ends[all_[index].parent != no_element ? all_[index].parent : screen]++] = index;
    const auto held_by = [&](std::size_t around) {
        const std::uint32_t begin = around > 0 ? ends[around - 1] : 0;
        return std::span(inside).subspan(begin, ends[around] - begin);
    };
    std::vector<ElementIndex> waiting;
    const auto wait = [&waiting](std::span<const ElementIndex> siblings) {
        waiting.insert(waiting.end(), siblings.rbegin(), siblings.rend());
    };

    parents_first_.clear();
    children_.clear();
    wait(held_by(screen));
    while (!waiting.empty()) {
        const ElementIndex index = waiting.back();
        waiting.pop_back();
        RunningElement& element = all_[index];
        element.order = static_cast<std::uint32_t>(parents_first_.size());
        element.first_child = static_cast<std::uint32_t>(children_.size());
        const std::span<const ElementIndex> held = held_by(index);
        element.child_count = static_cast<std::uint32_t>(held.size());
        parents_first_.push_back(index);
        children_.insert(children_.end(), held.begin(), held.end());
        wait(held);
    }
    // A layer orders siblings: what stands inside a panel is drawn with it.
    const auto by_layer = [this](ElementIndex a, ElementIndex b) { return all_[a].layer < all_[b].layer; };
    const auto wait_by_layer = [&](std::span<ElementIndex> siblings) {
        if (!std::is_sorted(siblings.begin(), siblings.end(), by_layer))
            std::stable_sort(siblings.begin(), siblings.end(), by_layer);
        wait(siblings);
    };
    draw_order_.clear();
    wait_by_layer(held_by(screen));
    while (!waiting.empty()) {
        const ElementIndex index = waiting.back();
        waiting.pop_back();
        draw_order_.push_back(index);
        wait_by_layer(held_by(index));
    }
    return true;
}

}  // namespace rapido
