// Bands: parts of a value's range in which an element looks different.
#pragma once

#include <memory>
#include <optional>
#include <span>
#include <string>
#include <vector>

#include "rapido/base/color.hpp"
#include "rapido/motion/motion.hpp"
#include "rapido/value/value.hpp"

namespace rapido {

/// What the edges of a band mean.
enum class BandOf : std::uint8_t {
    automatic,  ///< the ratio where the element has a maximum, else the value
    value,      ///< the value; a duration in seconds
    ratio,      ///< value over maximum: 0.25 is a quarter
};

/// Which of an element's values a band reads.
enum class BandOn : std::uint8_t { target, truth, shown };

/// How the fill of a bar, a ring or a level is drawn.
enum class FillPattern : std::uint8_t {
    plain,
    stripes,  ///< dark ones across it, four design pixels each: to be told apart without its color
};

/// One part of the range, and what it changes; what is not given stays as it is. It is entered at its edge and left
/// beyond it, by more than `margin`: a value that trembles there changes the look once. A value that begins between the
/// two edges is outside, and so are no value, NaN, and a ratio without a positive, finite maximum. Where bands
/// overlap the one that is listed last wins, field by field.
struct Band {
    std::string id;               ///< named by the events `enter` and `leave`; without one there are none
    std::optional<double> below;  ///< inside at this or less
    std::optional<double> above;  ///< inside at this or more; with both, between them
    double margin = 0;            ///< how far beyond its edge a value must be to leave
    BandOf of = BandOf::automatic;
    BandOn on = BandOn::target;
    std::optional<Color> color;
    Seconds fade{0};  ///< of the change to this color, and back
    std::optional<bool> visible;
    std::string format;                        ///< of a text, instead of its own
    std::string image;                         ///< of an image, instead of its own
    FillPattern pattern = FillPattern::plain;  ///< of a fill; plain leaves it as it is
    std::optional<Motion> motion;              ///< instead of all others, to new targets
    std::string effect;                        ///< started on entering; an endless one ends on leaving
    friend bool operator==(const Band&, const Band&) = default;
};

/// A band that was entered or left.
struct BandChange {
    std::size_t band = 0;  ///< its place in the list
    bool entered = false;
    Nanoseconds time{0};
    friend bool operator==(const BandChange&, const BandChange&) = default;
};

/// Which bands a value is in.
///
///     rapido::BandSet bands{{{.below = 0.25, .margin = 0.02, .color = amber}}, true};
///     bands.update(rapido::BandOn::target, hull, max, now, changes);
class BandSet {
 public:
    /// `has_max` is what `automatic` asks.
    BandSet(std::vector<Band> bands, bool has_max);
    /// The same for bands that others share.
    BandSet(std::shared_ptr<const std::vector<Band>> bands, bool has_max);

    /// The value that bands of this kind read is this one from `now` on; appends what is entered and left, in order.
    void update(BandOn on, const Value& value, const Value& max, Nanoseconds now,
                std::vector<BandChange>& changes);
    /// Whether such a value would change anything.
    bool would_change(BandOn on, const Value& value, const Value& max) const;
    /// Whether any band reads this one.
    bool reads(BandOn on) const;

    bool inside(std::size_t band) const { return inside_[band] != 0; }
    const std::vector<Band>& bands() const { return *bands_; }

    /// Where the edges lie, leaving edges too, as values of this kind; ratios as parts of `max`, if that is above
    /// zero.
    std::vector<double> edges(BandOn on, double max) const;

    // Of the last band inside that changes it; without one, null, nothing or the count of bands.
    const Color* color() const;
    std::optional<bool> visible() const;
    std::size_t format() const;
    std::size_t image() const;
    FillPattern pattern() const;
    const Motion* motion() const;

 private:
    bool is_ratio(const Band& band) const {
        return band.of == BandOf::ratio || (band.of == BandOf::automatic && has_max_);
    }
    std::size_t last_with(std::string Band::*text) const;
    bool inside_next(std::size_t band, const Value& value, const Value& max) const;

    std::shared_ptr<const std::vector<Band>> bands_;
    std::vector<std::uint8_t> inside_;
    bool has_max_;
};

}  // namespace rapido
