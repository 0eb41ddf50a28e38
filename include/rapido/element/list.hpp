// A component for each entry of a container of the game.
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "rapido/base/exported.hpp"
#include "rapido/element/common.hpp"
#include "rapido/element/trigger.hpp"
#include "rapido/layout/flow.hpp"
#include "rapido/layout/place.hpp"
#include "rapido/look/band.hpp"
#include "rapido/motion/motion.hpp"
#include "rapido/value/entries.hpp"
#include "rapido/value/source.hpp"

namespace rapido RAPIDO_EXPORTED {

/// In which direction entries are ordered.
enum class SortOrder : std::uint8_t { ascending, descending };

/// A scoreboard, a party, an inventory: as many panels as are shown at most, one for each entry. `list_of` makes the list with its
/// panels, which are its elements `1`, `2` and so on. What stands in the third panel of the list `board` shows the field `score` of its
/// entry as the source `board.3.score`, and its place in the order, from 1, as `board.3.rank`.
///
/// An entry keeps its panel while it is shown, and the panel travels when the order changes. A new entry takes the panel of none: its values
/// are taken as given, and it enters as its panel says. The source `board.count` is the number of entries, `board.more` of those
/// that are not shown.
struct List {
    std::string id{};
    Source entries{};   ///< `watch_entries`, or its name
    std::string key{};  ///< the field by which entries are told apart; empty is their position
    /// The field by which they are ordered, numbers by amount and texts by code point; empty: as they are.
    std::string sort{};
    SortOrder sort_order = SortOrder::ascending;  ///< equal ones as they are; those without a value last
    /// What fields are from the frame in which their thing is no longer there: `{{"health", 0}}` lets the last hit be seen before it
    /// leaves. It needs a `key`.
    std::vector<NamedSource> when_gone{};
    int at_most = 8;                             ///< how many are shown, 1 to 200: the first in that order
    Motion place_motion = tween(Seconds{0.25});  ///< how an entry travels to another place
    Place place{};
    Layout layout = Layout::column;
    float gap = 4;                   ///< between neighbors in a row, a column or a grid, design pixels
    std::optional<float> row_gap{};  ///< between the rows of a grid, instead
    int columns = 2;                 ///< how many columns a grid has
    Align align = Align::anchor;
    Justify justify = Justify::start;
    std::vector<Band> bands{};        ///< conditions in which it looks different
    std::vector<Trigger> triggers{};  ///< what starts effects, which move what stands inside, too
    std::string inside{};             ///< the panel that the element stands in; empty is the screen
    std::string group{};              ///< the group that it is shown, hidden and dimmed with
    Amount opacity = 1;               ///< 0 to 1, of it and of what stands inside
    Amount rotation = 0;              ///< degrees clockwise around its middle, of it and of what stands inside
    Amount scale = 1;  ///< of it and of what stands inside, around the point by which it is held in its place
    Shift shift{};     ///< how far it is drawn from its place, to the right and down, design pixels
    Blend blend = Blend::normal;  ///< how its colors are put over those below
    std::optional<Glow> glow{};   ///< a soft light around it
    int layer = 0;                ///< among siblings, a higher layer is drawn later
    Source visible{};             ///< it and what stands inside are shown while true; without a source, always
    std::string enter{};          ///< the effect with which it becomes visible; empty means at once
    std::string leave{};          ///< the effect with which it becomes hidden; empty is `enter`, backwards
    friend RAPIDO_EXPORTED bool operator==(const List&, const List&);
};

/// How many panels a list has: some more than it shows, for entries that leave while others enter.
int panels_of(const List& list);

}  // namespace rapido
