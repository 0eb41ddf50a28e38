// Which things of the world are marked, and where their markers are on the screen.
#pragma once

#include <limits>
#include <optional>
#include <span>
#include <vector>

#include "rapido/element/markers.hpp"
#include "rapido/layout/camera.hpp"
#include "rapido/layout/place.hpp"

namespace rapido {

/// How the world is looked at.
struct View {
    Camera camera;
    Fitted screen;
};

/// What is known of things in this frame, by thing; empty where nobody asks for it.
struct SeenThings {
    std::vector<WorldPoint> places;
    std::vector<std::uint64_t> keys;
    std::vector<double> values, maxima;
    std::vector<double> in_sight;  ///< zero where something stands before it
};

/// Where a marker is drawn: the point of the screen on which its pivot lies, or, of one that is kept at the edge, on which its middle does.
struct MarkerPlace {
    Point at{};  ///< design pixels
    float scale = 1;
    float opacity = 1;
    bool is_at_edge = false;
    Point tip{}, way{};  ///< of the arrow of one that is at the edge
};

class MarkerRanking {
 public:
    void set(const Markers& markers);
    const Markers& markers() const { return markers_; }

    /// To be filled before `rank`.
    SeenThings& things() { return things_; }
    /// Appends the nearest of those that may be shown, at most so many.
    void rank(const View& view, Nanoseconds now, std::size_t most, std::vector<std::uint32_t>& ranking);
    /// What the value of a thing was in the frame before, if it is another one now.
    std::optional<double> value_before(std::uint32_t thing) const;
    /// Things whose value has come to zero or below since the frame before.
    std::span<const std::uint32_t> emptied() const { return emptied_; }
    /// Things of the frame before that are not there any more and had a value above zero, by their places there.
    std::span<const std::uint32_t> gone() const { return gone_; }
    /// The key that one of them had.
    std::uint64_t key_of_gone(std::uint32_t thing) const { return now_[thing].key; }
    double distance(std::uint32_t thing) const { return candidates_at_[thing]; }
    /// Whether a marker may be seen at a place: it is on the screen, or kept at the edge, and not too far away.
    bool is_in_reach(const WorldPoint& place, const View& view) const;

    /// Where the marker of a thing of a size is drawn; nothing where it cannot be seen.
    std::optional<MarkerPlace> place(const WorldPoint& thing, Size size, const View& view) const;
    /// The box of a marker on the screen.
    Rect box(const MarkerPlace& place, Size size) const;

 private:
    bool may_show(std::size_t thing, Nanoseconds now);
    void follow_changes(Nanoseconds now);
    std::uint32_t known(std::uint64_t key) const;
    float scale_at(double distance) const;
    float opacity_at(double distance) const;

    struct Candidate {
        double distance;
        std::uint32_t thing;
    };
    /// What was seen of a thing before.
    struct Before {
        std::uint64_t key = 0;
        double value = 0;
        double last = std::numeric_limits<double>::quiet_NaN();  ///< in the frame before; NaN where that is not known
        Nanoseconds changed{Nanoseconds::min()};
    };
    Markers markers_;
    SeenThings things_;
    std::vector<Candidate> candidates_;
    std::vector<double> candidates_at_;  ///< distances, by thing
    std::vector<Before> before_, now_;   ///< by thing; `now_` is that of the frame before, once it is ranked
    std::vector<std::uint32_t> emptied_, gone_;
    std::vector<std::uint8_t> is_there_;  ///< of those of the frame before
    std::vector<std::uint32_t> table_;    ///< of `before_`, by key: open addressing
};

}  // namespace rapido
