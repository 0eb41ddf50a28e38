// Elements that ride at the end of the fill of others.
#pragma once

#include <functional>
#include <set>
#include <string>
#include <vector>

#include "hud/visibility.hpp"

namespace rapido {

/// Knows who rides on whom, and carries the riders.
class Riders {
 public:
    Riders(Elements& elements, Layouter& layouter, Visibility& visibility)
        : elements_(elements), layouter_(layouter), visibility_(visibility) {}

    /// Elements were added, removed or changed: who rides is found anew in the next frame.
    void must_relink() { is_linked_ = false; }
    /// Tells of a fill what is wrong with its rider, once.
    void relink(const std::function<void(ElementIndex fill, const Problem&)>& tell);
    /// After layout, and after effects: carries each one to where the fill ends.
    void place(PointRoom& room);

 private:
    struct Rider {
        ElementIndex fill, element;
        std::uint64_t revision = 0;  ///< of the fill, when the rider was drawn
    };
    ElementIndex find(ElementIndex fill, const std::string& name, Problem& problem) const;
    bool leads_to(ElementIndex from, ElementIndex to) const;

    Elements& elements_;
    Layouter& layouter_;
    Visibility& visibility_;
    std::vector<Rider> all_;
    std::set<std::string> told_;
    bool is_linked_ = false;
};

}  // namespace rapido
