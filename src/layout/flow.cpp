#include "rapido/layout/flow.hpp"

#include <algorithm>
#include <limits>

namespace rapido {
namespace {

constexpr float no_limit = std::numeric_limits<float>::max();

float most_of(float max) {
    return max > 0 ? max : no_limit;
}

/// What items that are aligned by a line of their own need: before it and after it.
struct Lined {
    float before = 0, after = 0;
    void add(float size, float line) {
        before = std::max(before, line);
        after = std::max(after, size - line);
    }
    float size() const { return before + after; }
};

std::size_t columns_of(const Arrangement& arrangement) {
    return static_cast<std::size_t>(std::max(arrangement.columns, 1));
}

float row_gap_of(const Arrangement& arrangement) {
    return arrangement.row_gap.value_or(arrangement.gap);
}

/// The needs of items across their line: together, those with digits or a baseline in line.
template <class Items>
float across_of(const Items& items, bool is_row, Align align) {
    float most = 0;
    Lined lined;
    for (const FlowItem& item : items) {
        const float line = is_row ? item.baseline : item.digits;
        const float size = is_row ? item.size.height : item.size.width;
        const bool is_lined = is_row ? align == Align::baseline && line >= 0 : line >= 0;
        const Size room = room_for(item.size, *item.place);
        if (is_lined)
            lined.add(size, line);
        else
            most = std::max(most, align != Align::anchor ? size : is_row ? room.height : room.width);
    }
    return std::max(most, lined.size());
}

template <class Items>
Lined lined_of(const Items& items, bool is_row) {
    Lined lined;
    for (const FlowItem& item : items) {
        const float line = is_row ? item.baseline : item.digits;
        if (line >= 0) lined.add(is_row ? item.size.height : item.size.width, line);
    }
    return lined;
}

/// What is stretched along a line takes a part of its spare room.
float grow_of(const Place& place, bool is_row) {
    const bool stretches = is_row ? stretches_across(place) : stretches_down(place);
    return std::max(stretches ? 1.0F : 0.0F, place.grow);
}

/// Where along one side something of a size stands.
float aligned(Align align, float origin, float room, float size) {
    if (align == Align::center) return origin + (room - size) / 2;
    if (align == Align::end) return origin + room - size;
    return origin;
}

/// The items of one column of a grid.
struct EveryNth {
    std::span<const FlowItem> items;
    std::size_t first, step;
    struct At {
        const EveryNth* all;
        std::size_t i;
        const FlowItem& operator*() const { return all->items[i]; }
        At& operator++() {
            i = std::min(i + all->step, all->items.size());
            return *this;
        }
        bool operator!=(const At& other) const { return i != other.i; }
    };
    At begin() const { return {this, std::min(first, items.size())}; }
    At end() const { return {this, items.size()}; }
};

}  // namespace

Size Flow::measure(const Arrangement& arrangement, std::span<const FlowItem> items) {
    Size size;
    if (arrangement.layout == Layout::free) {
        for (const FlowItem& item : items) {
            const Size room = room_for(item.size, *item.place);
            size = {std::max(size.width, room.width), std::max(size.height, room.height)};
        }
        return size;
    }
    if (arrangement.layout == Layout::grid) {
        measure_grid(arrangement, items);
        for (const Lane& column : lanes_)
            size.width += column.size;
        for (const Lane& row : rows_)
            size.height += row.size;
        size.width += arrangement.gap * static_cast<float>(lanes_.size() - 1);
        if (!rows_.empty()) size.height += row_gap_of(arrangement) * static_cast<float>(rows_.size() - 1);
        return size;
    }
    const bool is_row = arrangement.layout == Layout::row;
    float along = items.empty() ? 0 : arrangement.gap * static_cast<float>(items.size() - 1);
    for (const FlowItem& item : items)
        along += is_row ? item.size.width : item.size.height;
    const float across = across_of(items, is_row, arrangement.align);
    return is_row ? Size{along, across} : Size{across, along};
}

void Flow::arrange(const Arrangement& arrangement, const Rect& area, std::span<const FlowItem> items,
                   std::span<Rect> boxes) {
    switch (arrangement.layout) {
        case Layout::free:
            for (std::size_t i = 0; i < items.size(); ++i) {
                Place place = *items[i].place;
                if (place.grow > 0) place.stretch = Stretch::both;
                boxes[i] = place_in(area, items[i].size, place);
                if (items[i].shrinks && boxes[i].width > area.width) {
                    const Size less{area.width, items[i].size.height};
                    boxes[i] = place_in(area, less, *items[i].place);
                }
            }
            return;
        case Layout::row:
        case Layout::column:
            return arrange_line(arrangement, area, items, boxes, arrangement.layout == Layout::row);
        case Layout::grid:
            return arrange_grid(arrangement, area, items, boxes);
    }
}

/// Gives the lanes their part of the room (CSS Flexible Box Layout, 9.7: what would go beyond its limit is frozen
/// there, and the others share again).
void Flow::share(float room, float gap) {
    if (lanes_.empty()) return;
    room -= gap * static_cast<float>(lanes_.size() - 1);
    frozen_.assign(lanes_.size(), 0);
    float needed = 0;
    for (const Lane& lane : lanes_)
        needed += lane.size;
    const bool grows = room > needed;
    for (std::size_t round = 0; round <= lanes_.size(); ++round) {
        float left = room;
        float weight = 0;
        for (std::size_t i = 0; i < lanes_.size(); ++i) {
            left -= lanes_[i].size;
            if (frozen_[i] != 0) continue;
            weight += grows ? lanes_[i].grow : std::max(0.0F, lanes_[i].size - lanes_[i].least);
        }
        if (weight <= 0 || (grows ? left <= 0 : left >= 0)) return;
        bool froze = false;
        const float part = grows ? left / std::max(weight, 1.0F) : std::max(left / weight, -1.0F);
        for (std::size_t i = 0; i < lanes_.size(); ++i) {
            if (frozen_[i] != 0) continue;
            Lane& lane = lanes_[i];
            const float share = part * (grows ? lane.grow : std::max(0.0F, lane.size - lane.least));
            if (grows && lane.size + share > lane.most) {
                lane.size = std::max(lane.size, lane.most);
                frozen_[i] = 1;
                froze = true;
            }
        }
        if (froze) continue;
        for (std::size_t i = 0; i < lanes_.size(); ++i)
            if (frozen_[i] == 0)
                lanes_[i].size += part * (grows ? lanes_[i].grow : std::max(0.0F, lanes_[i].size - lanes_[i].least));
        return;
    }
}

void Flow::arrange_line(const Arrangement& arrangement, const Rect& area, std::span<const FlowItem> items,
                        std::span<Rect> boxes, bool is_row) {
    lanes_.clear();
    for (const FlowItem& item : items) {
        const float size = is_row ? item.size.width : item.size.height;
        const Size max = item.place->max_size;
        lanes_.push_back({size, grow_of(*item.place, is_row), item.shrinks && is_row ? 0 : size,
                          most_of(is_row ? max.width : max.height)});
    }
    const float room = is_row ? area.width : area.height;
    share(room, arrangement.gap);
    float used = lanes_.empty() ? 0 : arrangement.gap * static_cast<float>(lanes_.size() - 1);
    for (const Lane& lane : lanes_)
        used += lane.size;
    const float spare = room - used;
    float at = is_row ? area.x : area.y;
    float between = arrangement.gap;
    if (arrangement.justify == Justify::center) at += spare / 2;
    if (arrangement.justify == Justify::end) at += spare;
    if (arrangement.justify == Justify::space_between && spare > 0 && items.size() > 1)
        between += spare / static_cast<float>(items.size() - 1);

    const Lined lined = lined_of(items, is_row);
    const float across = is_row ? area.height : area.width;
    for (std::size_t i = 0; i < items.size(); ++i) {
        const FlowItem& item = items[i];
        const Place& place = *item.place;
        Rect& box = boxes[i];
        const bool stretches = arrangement.align == Align::stretch;
        float thick = is_row ? item.size.height : item.size.width;
        if (is_row ? stretches_down(place) : stretches_across(place)) {
            const Rect whole = place_in(area, item.size, place);
            box = is_row ? Rect{at + place.offset.x, whole.y, lanes_[i].size, whole.height}
                         : Rect{whole.x, at + place.offset.y, whole.width, lanes_[i].size};
            at += lanes_[i].size + between;
            continue;
        }
        if (stretches || (!is_row && item.shrinks && thick > across))
            thick = std::min(stretches ? std::max(across, 0.0F) : across,
                             most_of(is_row ? place.max_size.height : place.max_size.width));
        // Inside the area as if it stood there alone: for its anchor, and for those that are in line together.
        const Size size = is_row ? Size{lanes_[i].size, thick} : Size{thick, lanes_[i].size};
        box = {is_row ? at : area.x, is_row ? area.y : at, size.width, size.height};
        const float origin = is_row ? area.y : area.x;
        float& side = is_row ? box.y : box.x;
        const float offset = is_row ? place.offset.y : place.offset.x;
        const bool in_line =
            is_row ? arrangement.align == Align::baseline && item.baseline >= 0 : item.digits >= 0 && !stretches;
        if (in_line) {
            const Size block = is_row ? Size{0, lined.size()} : Size{lined.size(), 0};
            const Rect whole = place_in(area, block, Place{.anchor = place.anchor});
            const bool anchored = arrangement.align == Align::anchor;
            const float start = is_row     ? area.y
                                : anchored ? whole.x
                                           : aligned(arrangement.align, origin, across, lined.size());
            side = start + lined.before - (is_row ? item.baseline : item.digits) + offset;
        } else if (arrangement.align == Align::anchor) {
            const Rect alone = place_in(area, size, place);
            side = is_row ? alone.y : alone.x;
        } else {
            side = aligned(arrangement.align, origin, across, thick) + offset;
        }
        (is_row ? box.x : box.y) += is_row ? place.offset.x : place.offset.y;
        at += lanes_[i].size + between;
    }
}

void Flow::measure_grid(const Arrangement& arrangement, std::span<const FlowItem> items) {
    const std::size_t columns = columns_of(arrangement);
    lanes_.assign(columns, {.most = no_limit});
    for (std::size_t c = 0; c < columns; ++c) {
        const EveryNth column{items, c, columns};
        lanes_[c].size = across_of(column, false, Align::anchor);
        for (const FlowItem& item : column) {
            lanes_[c].grow = std::max(lanes_[c].grow, grow_of(*item.place, true));
            if (!item.shrinks) lanes_[c].least = std::max(lanes_[c].least, item.size.width);
        }
    }
    rows_.assign((items.size() + columns - 1) / columns, {});
    for (std::size_t r = 0; r < rows_.size(); ++r) {
        const std::size_t first = r * columns;
        rows_[r].size =
            across_of(items.subspan(first, std::min(columns, items.size() - first)), true, arrangement.align);
    }
}

void Flow::arrange_grid(const Arrangement& arrangement, const Rect& area, std::span<const FlowItem> items,
                        std::span<Rect> boxes) {
    measure_grid(arrangement, items);
    share(area.width, arrangement.gap);
    const std::size_t columns = lanes_.size();
    float y = area.y;
    for (std::size_t r = 0; r < rows_.size(); ++r) {
        const std::size_t first = r * columns;
        const auto row = items.subspan(first, std::min(columns, items.size() - first));
        const Lined on_line = lined_of(row, true);
        float x = area.x;
        for (std::size_t c = 0; c < row.size(); ++c) {
            const FlowItem& item = row[c];
            const Rect cell{x, y, lanes_[c].size, rows_[r].size};
            Size size = item.size;
            // In line with others it keeps its width.
            const bool grows = grow_of(*item.place, true) > 0 && item.digits < 0;
            if (grows || (item.shrinks && size.width > cell.width))
                size.width = std::min(cell.width, most_of(item.place->max_size.width));
            if (arrangement.align == Align::stretch || stretches_down(*item.place))
                size.height = std::min(cell.height, most_of(item.place->max_size.height));
            Rect& box = boxes[first + c];
            box = place_in(cell, size, *item.place);
            if (item.digits >= 0) {
                const Lined digits = lined_of(EveryNth{items, c, columns}, false);
                const Rect block = place_in(cell, {digits.size(), 0}, *item.place);
                box.x = block.x + digits.before - item.digits;
            }
            if (arrangement.align == Align::baseline && item.baseline >= 0)
                box.y = cell.y + on_line.before - item.baseline + item.place->offset.y;
            else if (arrangement.align != Align::anchor)
                box.y = aligned(arrangement.align, cell.y, cell.height, size.height) + item.place->offset.y;
            x += cell.width + arrangement.gap;
        }
        y += rows_[r].size + row_gap_of(arrangement);
    }
}

}  // namespace rapido
