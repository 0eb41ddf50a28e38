// Children of a panel in an order that changes while they run, and how they travel to their new places.
#pragma once

#include <optional>
#include <span>
#include <vector>

#include "hud/frame_time.hpp"
#include "hud/layouter.hpp"
#include "hud/settings.hpp"
#include "rapido/motion/flight.hpp"

namespace rapido {

/// Gives panels orders of their own for what stands inside. Where a child is then placed elsewhere in its panel, it is drawn on its way
/// there.
class MovingOrder {
 public:
    MovingOrder(const Settings& settings, Elements& elements, Layouter& layouter)
        : settings_(settings), elements_(elements), layouter_(layouter) {}

    /// From now on what stands in this panel travels to new places by a motion.
    void add(ElementIndex panel, const Motion& motion);
    void remove(ElementIndex panel);
    /// The children of a panel stand in this order; those that are left out, behind.
    void set(ElementIndex panel, std::span<const ElementIndex> order);
    /// The same with those that are left out before them.
    void set_last(ElementIndex panel, std::span<const ElementIndex> order);
    /// A child shows something else: it is at its next place without a way there.
    void snap(ElementIndex panel, ElementIndex child);
    /// What stands in a panel changed at this moment of the frame; ways that begin in it begin there. Without one they begin with
    /// the frame.
    void note(ElementIndex panel, Nanoseconds at);
    /// Elements were ordered anew.
    void relink();

    /// After layout: starts and advances the ways.
    void advance(Nanoseconds now);

 private:
    struct Child {
        ElementIndex index = no_element;
        Point at;  ///< where it stands, as it is seen
        bool is_known = false;
        Flight x, y;
    };
    struct Panel {
        ElementIndex index = no_element;
        Motion motion;
        std::vector<ElementIndex> order{};
        std::vector<Child> children{};
        bool has_changed = false;  ///< who stands in it, or their order, since the last frame
        std::optional<Nanoseconds> changed{};
    };
    Panel* find(ElementIndex index);
    void advance(Panel& panel, Nanoseconds now);

    const Settings& settings_;
    Elements& elements_;
    Layouter& layouter_;
    std::vector<Panel> all_;
};

}  // namespace rapido
