// A component over each thing in the world.
#pragma once

#include <array>
#include <optional>
#include <string>
#include <vector>

#include "rapido/base/exported.hpp"
#include "rapido/base/themed.hpp"
#include "rapido/element/common.hpp"
#include "rapido/element/trigger.hpp"
#include "rapido/layout/place.hpp"
#include "rapido/look/band.hpp"
#include "rapido/value/entries.hpp"
#include "rapido/value/source.hpp"

namespace rapido RAPIDO_EXPORTED {

/// What becomes of a marker whose thing is not on the screen.
enum class AtEdge : std::uint8_t {
    hide,
    clamp,  ///< it stays at the edge on the way to the thing
    arrow,  ///< the same, with an arrow that points there, also at what is behind the camera
};

/// When markers are shown.
enum class ShowMarker : std::uint8_t {
    always,
    after_change,  ///< for a while after its value has changed
    below_full,    ///< while its value is below its maximum
};

/// Bars over enemies, names over villages, marks over fires: a component for each thing in the world, at the place where the camera of
/// `Hud::set_camera` sees it. The things are the entries of a container with places, `watch_entries` with `entry_position`, or given one by
/// one by `Hud::add_marker`.
///
/// `markers_of` makes the element with its panels, which are its elements `1`, `2` and so on: as many as are shown at most. What stands in the
/// third of the markers `fires` shows the field `heat` of its thing as the source `fires.3.heat`; `fires.3.distance` is its distance,
/// `fires.3.at_edge` whether it is kept at the edge, `fires.3.rank` its number by distance, from 1, `fires.count` the number of things.
///
/// A marker faces the viewer. The nearest come first. A thing keeps its panel while it is shown; a new one takes the panel of none, and its
/// values are taken as given. One that is gone leaves where it was, as its panel says.
struct Markers {
    std::string id{};
    Source entries{};  ///< `watch_entries`, or its name; without it, things come by `Hud::add_marker`
    std::vector<std::string> parameters{};  ///< the names of the sources that `Hud::add_marker` gives, in their order
    std::string key{};                      ///< the field by which entries are told apart; empty is their position
    /// What fields are from the frame in which their thing is no longer there: `{{"health", 0}}` lets the last hit be seen before it
    /// leaves. It needs a `key`.
    std::vector<NamedSource> when_gone{};
    int at_most = 40;  ///< how many are shown, 1 to 200: the nearest
    AtEdge at_edge = AtEdge::hide;
    float edge_margin = 24;         ///< the room between the edges of the screen and what is kept there, design pixels
    Anchor pivot = Anchor::bottom;  ///< the point of the panel that lies where the thing is seen
    std::array<double, 3> world_offset{};  ///< how far from its thing it stands, in units of the world: above its head
    Point offset{};  ///< how far from there, design pixels, right and down; it scales with the marker
    double reference_distance =
        0;                   ///< where a marker has its own size: at twice the distance half of it; zero is at any
    float min_scale = 0.5F;  ///< it gets no smaller
    float max_scale = 1;     ///< and no larger
    double fade_from = 0;    ///< the distance at which a marker begins to fade
    double fade_to = 0;      ///< the distance from which on it is not shown; zero is none
    std::string in_sight{};  ///< the field that is false while something stands before it; empty is none
    ShowMarker show = ShowMarker::always;
    std::string value_of{};  ///< the field whose changes, or fill, decide that
    std::string max_of{};    ///< the field with its maximum
    Seconds show_for{4};     ///< how long a marker is shown after a change
    bool declutter = true;   ///< what would cover a nearer marker, or one of a higher layer, is not shown
    float arrow_size = 14;   ///< the length of an arrow, design pixels
    Themed<Color> arrow_color = rgb(0xf2efe6);
    std::vector<Band> bands{};        ///< conditions in which it looks different
    std::vector<Trigger> triggers{};  ///< what starts effects, which move all of them
    Place place{};                    ///< does not count: they stand where the world is seen
    std::string inside{};             ///< the panel that the element stands in; empty is the screen
    std::string group{};              ///< the group that it is shown, hidden and dimmed with
    Amount opacity = 1;               ///< 0 to 1, of all of them
    Amount rotation = 0;              ///< degrees clockwise around its middle
    Amount scale = 1;                 ///< of all of them, around the point by which it is held in its place
    Shift shift{};                    ///< how far it is drawn from its place, to the right and down, design pixels
    Blend blend = Blend::normal;      ///< how its colors are put over those below
    std::optional<Glow> glow{};       ///< a soft light around it
    int layer = 0;                    ///< among siblings, a higher layer is drawn later
    Source visible{};                 ///< they are shown while this is true; without a source, always
    std::string enter{};              ///< the effect with which it becomes visible; empty means at once
    std::string leave{};              ///< the effect with which it becomes hidden; empty is `enter`, backwards
    friend RAPIDO_EXPORTED bool operator==(const Markers&, const Markers&);
};

/// How many panels markers have: some more than are shown, for things that leave while others enter.
int panels_of(const Markers& markers);

}  // namespace rapido
