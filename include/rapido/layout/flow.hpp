// Rows, columns and grids: where boxes stand beside each other.
#pragma once

#include <cstdint>
#include <optional>
#include <span>
#include <vector>

#include "rapido/base/exported.hpp"
#include "rapido/layout/place.hpp"

namespace rapido RAPIDO_EXPORTED {

enum class Layout : std::uint8_t {
    free,    ///< each at its own anchor, over each other
    row,     ///< side by side
    column,  ///< below each other
    grid,    ///< row by row; each in a cell as wide as its column and as high as its row
};

/// Where boxes stand across the direction of a row or column, and in the height of a row of a grid.
enum class Align : std::uint8_t {
    anchor,  ///< each where its own anchor says
    start,   ///< at the top of a row, the left of a column
    center,
    end,
    stretch,   ///< as large as there is room
    baseline,  ///< texts of a row on one line; in a column as `start`
};

/// Where boxes stand along a row or column that has more room than they need (CSS `justify-content`).
enum class Justify : std::uint8_t { start, center, end, space_between };

/// How boxes are arranged; lengths in design pixels.
struct Arrangement {
    Layout layout = Layout::free;
    float gap = 0;                   ///< between neighbors
    std::optional<float> row_gap{};  ///< between the rows of a grid, instead
    int columns = 2;                 ///< how many columns a grid has, at least 1
    Align align = Align::anchor;
    Justify justify = Justify::start;
    friend bool operator==(const Arrangement&, const Arrangement&) = default;
};

/// A box to be arranged.
struct FlowItem {
    Size size{};                   ///< as large as it is by itself
    const Place* place = nullptr;  ///< its anchor, pivot, offset, grow and largest size
    float baseline = -1;           ///< the distance from its top to its baseline; negative if it has none
    float digits = -1;     ///< the distance from its left to the end of its whole digits; negative: not aligned by them
    bool shrinks = false;  ///< may get less room than its size
};

/// Arranges boxes. It keeps only scratch memory: the same input gives the same boxes.
class Flow {
 public:
    /// The size that an area must have for all items.
    Size measure(const Arrangement& arrangement, std::span<const FlowItem> items);
    /// Puts a box for each item into `boxes`, which has room for all. Spare room along a row or column (of a grid, across
    /// its columns) goes to those that grow, in proportion, as CSS `flex-grow` does; missing room is taken from those
    /// that shrink, in proportion to their size. Offsets move a box in a row or column and nothing else.
    void arrange(const Arrangement& arrangement, const Rect& area, std::span<const FlowItem> items,
                 std::span<Rect> boxes);

 private:
    struct Lane {
        float size = 0, grow = 0, least = 0, most = 0;
    };
    void measure_grid(const Arrangement& arrangement, std::span<const FlowItem> items);
    void share(float room, float gap);
    void arrange_line(const Arrangement& arrangement, const Rect& area, std::span<const FlowItem> items,
                      std::span<Rect> boxes, bool is_row);
    void arrange_grid(const Arrangement& arrangement, const Rect& area, std::span<const FlowItem> items,
                      std::span<Rect> boxes);

    std::vector<Lane> lanes_;  ///< what shares the room: the items of a line, the columns of a grid
    std::vector<Lane> rows_;
    std::vector<std::uint8_t> frozen_;
};

}  // namespace rapido
