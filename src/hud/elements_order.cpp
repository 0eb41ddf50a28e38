// In which order elements stand: by rank, parents before children, and as they are drawn.
#include <algorithm>
#include <utility>

#include "hud/elements.hpp"

namespace rapido {

template <class Wanted>
std::vector<ElementIndex> Elements::ranked(const Wanted& wanted) const {
    std::vector<ElementIndex> found;
    for (ElementIndex index = 0; index < count(); ++index)
        if (wanted(all_[index])) found.push_back(index);
    std::sort(found.begin(), found.end(),
              [this](ElementIndex a, ElementIndex b) { return all_[a].rank < all_[b].rank; });
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

bool Elements::link() {
    if (!structure_dirty_) return false;
    ++structure_;
    structure_dirty_ = false;
    // A path begins with the path of its panel, so that panels cannot stand inside one another in a circle.
    std::vector<std::vector<ElementIndex>> inside(all_.size());
    std::vector<ElementIndex> outermost;
    for (const ElementIndex index : ranked([](const RunningElement& each) { return each.body != nullptr; })) {
        RunningElement& element = all_[index];
        element.parent = element.inside.empty() ? no_element : at(element.inside);
        (element.parent == no_element ? outermost : inside[element.parent]).push_back(index);
    }

    parents_first_.clear();
    std::vector<ElementIndex> waiting(outermost.rbegin(), outermost.rend());
    while (!waiting.empty()) {
        const ElementIndex index = waiting.back();
        waiting.pop_back();
        parents_first_.push_back(index);
        waiting.insert(waiting.end(), inside[index].rbegin(), inside[index].rend());
    }
    children_.clear();
    for (std::uint32_t i = 0; i < parents_first_.size(); ++i) {
        RunningElement& element = all_[parents_first_[i]];
        const auto& held = inside[parents_first_[i]];
        element.order = i;
        element.first_child = static_cast<std::uint32_t>(children_.size());
        element.child_count = static_cast<std::uint32_t>(held.size());
        children_.insert(children_.end(), held.begin(), held.end());
    }
    // A layer orders siblings: what stands inside a panel is drawn with it.
    const auto by_layer = [this](ElementIndex a, ElementIndex b) { return all_[a].layer < all_[b].layer; };
    const auto wait = [&](std::vector<ElementIndex>& siblings) {
        std::stable_sort(siblings.begin(), siblings.end(), by_layer);
        waiting.insert(waiting.end(), siblings.rbegin(), siblings.rend());
    };
    draw_order_.clear();
    wait(outermost);
    while (!waiting.empty()) {
        const ElementIndex index = waiting.back();
        waiting.pop_back();
        draw_order_.push_back(index);
        wait(inside[index]);
    }
    return true;
}

}  // namespace rapido
