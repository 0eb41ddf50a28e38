// What happens in one frame, for those parts of a HUD that react to it.
#pragma once

#include <span>
#include <vector>

#include "hud/element_index.hpp"
#include "rapido/base/units.hpp"

namespace rapido {

enum class HappeningKind : std::uint8_t {
    // Of a timer.
    start,
    mark,  ///< the detail is the mark, in nanoseconds
    end,
    skipped,  ///< the detail is how many were
    // Of the truth of an element; the detail is the number of a source of a trigger, from 1, or zero for its value; of
    // markers that of an emptied thing in this frame, from -1 down.
    gain,  ///< the amount is the change
    loss,
    empty,
    full,
    // Of its bands; the detail is the number of the band.
    band_enter,
    band_leave,
    // Of a notice; the detail is the number of its text among those of this frame.
    message_enter,
    message_leave,
    message_gone,
    message_skipped,
};

/// Something that happened in a frame, by indices.
struct Happening {
    Nanoseconds time{0};  ///< on the real clock
    HappeningKind kind = HappeningKind::start;
    bool is_event = true;       ///< the game is told of it
    std::uint32_t subject = 0;  ///< the index of the timer or of the element
    std::int64_t detail = 0;
    double amount = 0;
    std::uint32_t order = 0;  ///< as they came, set by `Happenings::add`

    bool is_of_timer() const { return kind <= HappeningKind::skipped; }
};

/// The happenings of one frame. They are appended as they come; `sort` puts them in order.
class Happenings {
 public:
    /// One frame tells so many events. A hostile file may want many more: the others are lost, which `overflowed` says.
    static constexpr std::size_t most_events = 1000;
    /// And so many that are no events.
    static constexpr std::size_t most_others = 5000;

    void clear();
    void add(const Happening& happening);
    /// Orders them by time, those of timers before those of elements, elements in their order, and else as they came.
    void sort();
    std::span<const Happening> all() const { return all_; }
    bool overflowed() const { return overflowed_; }
    /// Makes room for a busy frame, so that the first one does not allocate.
    void reserve(std::size_t count);

 private:
    std::vector<Happening> all_;
    std::size_t events_ = 0;
    bool overflowed_ = false;
};

}  // namespace rapido
