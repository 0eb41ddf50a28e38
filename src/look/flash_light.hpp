// The light of what flashes, followed from moment to moment.
#pragma once

#include <optional>
#include <span>
#include <vector>

#include "rapido/look/flash_limit.hpp"

namespace rapido {

/// Two opposing changes.
struct FlashPair {
    Nanoseconds turned{0};  ///< when the first change began: at the extreme before it
    Nanoseconds begin{0};   ///< when it was complete
    Nanoseconds end{0};     ///< when the second one was
};

/// Finds pairs of opposing changes of relative luminance, each of 10 % of its maximum or more, the darker below 0.80.
class LightTrack {
 public:
    explicit LightTrack(double light = 0) : low_(light), high_(light), light_(light) {}
    /// Follows the light to its next value. Returns the pair that it completes.
    std::optional<FlashPair> follow(Nanoseconds now, double light);
    /// The light is still what it was: the same as following it to that.
    void go_on(Nanoseconds now) {
        if (light_ == low_) low_at_ = now;
        if (light_ == high_) high_at_ = now;
    }
    /// A first change that waits for its second one, which may come from `now` on.
    std::optional<FlashPair> open(Nanoseconds now) const {
        return way_ != 0 ? std::optional(FlashPair{pair_.turned, pair_.begin, now}) : std::nullopt;
    }

 private:
    double low_, high_, light_;
    Nanoseconds low_at_{Nanoseconds::min()}, high_at_{Nanoseconds::min()};
    int way_ = 0;   ///< of the first change; zero while there is none
    int last_ = 0;  ///< of the second change of the pair before; zero before there was one
    FlashPair pair_;
};

/// Finds pairs of opposing changes to and from a saturated red.
class RedTrack {
 public:
    explicit RedTrack(Color color = {}) : from_(color) {}
    std::optional<FlashPair> follow(Nanoseconds now, Color color);
    /// The color is still what it was.
    void go_on(Nanoseconds now) {
        if (!pair_) from_at_ = now;
    }

 private:
    Color from_;
    Nanoseconds from_at_{Nanoseconds::min()};
    std::optional<FlashPair> pair_;
};

/// A color over an opaque one, as renderers blend it.
Color over(Color ground, Color color, float opacity);

}  // namespace rapido
