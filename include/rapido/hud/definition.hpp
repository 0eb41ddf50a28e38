// What a HUD is made of, before it runs.
#pragma once

#include <string>
#include <utility>
#include <vector>

#include "rapido/base/problem.hpp"
#include "rapido/element.hpp"

namespace rapido {

/// A countdown that the HUD advances itself, with its game clock. It gives the sources `ID.left`,
/// `ID.elapsed`, `ID.duration` (durations) and `ID.running` (a boolean), and the event `end` at its exact
/// time.
struct Timer {
    std::string id;
    Seconds duration{60};
    Source start;  ///< runs from the full duration each time this becomes true; without a source, from the
                   ///< first frame
    Source pause;  ///< stands still while this is true
    friend bool operator==(const Timer&, const Timer&) = default;
};

/// Frames a second by the real clock, as the source `ID.rate`: no value until the first interval has passed.
struct Meter {
    std::string id;
    Seconds interval{0.5};  ///< at least a millisecond
    friend bool operator==(const Meter&, const Meter&) = default;
};

/// Elements that are shown, hidden, dimmed and snapped together: a cutscene, a menu, spectating.
struct Group {
    std::string id;
    Source visible;     ///< its elements are shown while this is true; without a source, always
    Source dimmed;      ///< dimmed while this is true
    float dim = 0.35F;  ///< opacity while dimmed, 0 to 1
    friend bool operator==(const Group&, const Group&) = default;
};

/// Where something was written, and each of its fields by its name (`motion.easing` for one in a table).
struct Origin {
    Location location;
    std::vector<std::pair<std::string, Location>> fields;

    /// The place of a field, or of the whole where the field was not written.
    const Location& of(std::string_view field) const {
        for (const auto& [name, place] : fields)
            if (name == field) return place;
        return location;
    }
};

/// Everything that a HUD file says. A source in it is a name, or bound by `watch`. Two definitions are equal
/// if they say the same, wherever they were written.
struct HudDefinition {
    Size design{1280, 720};           ///< in design pixels: the screen that offsets and sizes were chosen for
    std::string font = "sans-serif";  ///< the family of texts that name none
    std::vector<Timer> timers;
    std::vector<Meter> meters;
    std::vector<Group> groups;
    std::vector<Element> elements;  ///< their order is the draw order within a layer

    // As long as what they belong to, or empty where it was written in C++.
    Origin origin;
    std::vector<Origin> timer_origins;
    std::vector<Origin> meter_origins;
    std::vector<Origin> group_origins;
    std::vector<Origin> element_origins;

    friend bool operator==(const HudDefinition& a, const HudDefinition& b) {
        return a.design == b.design && a.font == b.font && a.timers == b.timers && a.meters == b.meters &&
               a.groups == b.groups && a.elements == b.elements;
    }
};

}  // namespace rapido
