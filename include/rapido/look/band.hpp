// Bands: parts of a value's range in which an element looks different.
#pragma once

#include <memory>
#include <optional>
#include <span>
#include <string>
#include <vector>

#include "rapido/base/exported.hpp"
#include "rapido/base/themed.hpp"
#include "rapido/motion/motion.hpp"
#include "rapido/value/amount.hpp"
#include "rapido/value/kept_value.hpp"

namespace rapido RAPIDO_EXPORTED {

/// What the edges of a band mean.
enum class EdgeUnit : std::uint8_t {
    automatic,  ///< the ratio where the element has a maximum, else the value
    value,      ///< the value; a duration in seconds
    ratio,      ///< value over maximum: 0.25 is a quarter
};

/// Which value of its element a band compares with its edges: the target that pace let through, the truth of the
/// source, or the value shown by motion.
enum class BandReads : std::uint8_t { target, truth, shown };

/// How the fill of a bar, a ring or a level is drawn.
enum class FillPattern : std::uint8_t {
    plain,
    stripes,  ///< dark stripes across the fill, four design pixels each, so that it differs without its color
};

/// How an element looks while its value is in a part of its range, is a certain one, or while a condition is true; with several
/// of these, while all of them hold. A field that is not given changes nothing. A value enters a band at its edge and leaves
/// it only when it is more than `hysteresis` beyond the edge, so that a value that trembles at the edge changes the look
/// once. A value that starts between these two edges is outside; so are "no value", NaN, and a ratio without a positive,
/// finite maximum. Where bands overlap, the one listed last wins, field by field.
struct Band {
    std::string id{};               ///< named by the events `band_enter` and `band_leave`; without one there are none
    Source when{};                  ///< inside while this is true, whatever pace holds back
    KeptValue is{};                 ///< inside while the value is this text, enumerator, flag or number
    std::optional<Amount> above{};  ///< inside at this or more
    std::optional<Amount> below{};  ///< inside at this or less; with both, between them
    double hysteresis = 0;          ///< how far beyond its edge a value must be to leave
    EdgeUnit edge_unit = EdgeUnit::automatic;
    BandReads reads = BandReads::target;
    std::optional<Themed<Color>> color{};
    bool all = false;                ///< the color multiplies all colors of the element and of what stands inside
    std::optional<float> opacity{};  ///< 0 to 1, besides its own, of the element and of what stands inside
    Seconds fade{0};                 ///< how long the change to this color and opacity, and back, takes
    std::optional<bool> visible{};
    std::string format{};                      ///< replaces the format of a text
    std::string image{};                       ///< replaces the image of an image
    FillPattern pattern = FillPattern::plain;  ///< the pattern of a fill; plain leaves it as it is
    std::optional<Motion> motion{};            ///< instead of all others, to new targets
    std::string effect{};                      ///< starts on entering; an endless effect ends on leaving
    friend RAPIDO_EXPORTED bool operator==(const Band&, const Band&);
};

/// A band that was entered or left.
struct BandChange {
    std::size_t band = 0;  ///< its place in the list
    bool entered = false;
    Nanoseconds time{0};
    friend RAPIDO_EXPORTED bool operator==(const BandChange&, const BandChange&);
};

/// Tracks which bands a value is in.
///
///     rapido::BandSet bands{{{.below = 0.25, .hysteresis = 0.02, .color = amber}}, true};
///     bands.update(rapido::BandReads::target, hull, max, now, changes);
class BandSet {
 public:
    /// With `has_max`, the edges of bands that are `EdgeUnit::automatic` are ratios.
    BandSet(std::vector<Band> bands, bool has_max);
    /// The same, for a list of bands that several sets share.
    BandSet(std::shared_ptr<const std::vector<Band>> bands, bool has_max);

    /// A source that a band reads besides the value.
    struct BandSource {
        std::size_t band = 0;  ///< its place in the list
        const char* field = "";
        const Source* source = nullptr;
    };
    /// All of them, in the order in which `give` takes what they give.
    static std::vector<BandSource> sources(const std::vector<Band>& bands);
    /// Takes what these sources give from now on; before the first time, no value.
    void give(std::span<const Value> values);

    /// Takes the value that bands with this `reads` read from `now` on, and appends the bands that it enters and leaves, in
    /// the order of the list.
    void update(BandReads on, const Value& value, const Value& max, Nanoseconds now, std::vector<BandChange>& changes);
    /// Returns whether `update` with this value would append anything.
    bool would_change(BandReads on, const Value& value, const Value& max) const;
    /// Returns whether any band has this `reads`. One that reads nothing but a condition counts as one that reads the truth.
    bool reads(BandReads on) const;

    /// Takes over which bands the value is in from a set before this one: those of the same id, or without one at the same place with
    /// the same edges.
    void take_over(const BandSet& before);

    bool inside(std::size_t band) const { return inside_[band] != 0; }
    /// When it was entered or left last.
    Nanoseconds since(std::size_t band) const { return since_[band]; }
    const std::vector<Band>& bands() const { return *bands_; }

    /// Returns all edges of the bands with this `reads`, those for leaving too, in units of the value. Edges that are ratios are
    /// multiplied by `max`, and left out if `max` is not above zero.
    std::vector<double> edges(BandReads on, double max) const;

    // Of the last band inside that changes it; without one, null, nothing or the count of bands.
    const Color* color() const;
    /// What multiplies the colors of all: white and opaque where no band says otherwise.
    Color filter() const;
    std::optional<bool> visible() const;
    std::size_t format() const;
    std::size_t image() const;
    FillPattern pattern() const;
    const Motion* motion() const;

 private:
    bool is_ratio(const Band& band) const {
        return band.edge_unit == EdgeUnit::ratio || (band.edge_unit == EdgeUnit::automatic && has_max_);
    }
    /// What a band reads that is given by sources; a number stands here, too.
    struct Given {
        bool when = true;
        double above = 0, below = 0;
    };
    std::size_t last_with(std::string Band::*text) const;
    bool inside_next(std::size_t band, const Value& value, const Value& max) const;

    std::shared_ptr<const std::vector<Band>> bands_;
    std::vector<Given> given_;
    std::vector<std::uint8_t> inside_;
    std::vector<Nanoseconds> since_;
    bool has_max_;
};

}  // namespace rapido
