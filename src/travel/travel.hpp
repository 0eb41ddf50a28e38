// The way of one value to the screen: pace, bands, motion and trail, in this order.
#pragma once

#include <memory>
#include <span>
#include <vector>

#include "look/flash_looks.hpp"
#include "rapido/base/exported.hpp"
#include "rapido/look/band.hpp"
#include "rapido/look/fading_color.hpp"
#include "rapido/motion.hpp"
#include "rapido/pace.hpp"
#include "rapido/text/format.hpp"
#include "rapido/time/clock.hpp"

namespace rapido RAPIDO_EXPORTED {

/// How an element paces and moves what it shows; equal for all HUDs of a definition.
struct TravelPlan {
    Pace pace;
    Motions motions;
    Trail trail;
    std::vector<Band> bands;
    bool has_value = false;
    bool has_max = false;
    Color color;  ///< outside all bands
    ClockKind clock = ClockKind::real;
    Nanoseconds text_interval{0};

    /// Whether a value goes through it unchanged and at once.
    bool is_direct() const;
    /// Equal for equal plans; of what usually differs.
    std::size_t hash() const;
    friend bool operator==(const TravelPlan&, const TravelPlan&) = default;
};

/// Only for an element whose plan is not direct.
class Travel {
 public:
    explicit Travel(std::shared_ptr<const TravelPlan> plan);

    /// Goes on by another plan from `now`, when the source gives `value`: a changed motion is a new target at this moment.
    /// `given` is what the sources of its bands give.
    void change(std::shared_ptr<const TravelPlan> plan, const Value& value, const Value& max,
                std::span<const Value> given, Nanoseconds now, bool reduced);
    /// Takes what the sources of its bands give, before the next value is read.
    void give(std::span<const Value> given) {
        if (looks_ != nullptr) looks_->bands.give(given);
    }
    /// The source gives `value`, and it is taken as given.
    void snap(const Value& value, const Value& max, Nanoseconds now);
    /// The source gives `value` from `now` on.
    void read(const Value& value, const Value& max, Nanoseconds now, bool reduced);
    /// Lets time pass without news. True if a new target passed.
    void advance(Nanoseconds now, bool reduced);
    /// Motions in flight have landed.
    void land(Nanoseconds now);

    const Value& target() const { return value_.target(); }
    /// The last change of the target; no value after a snap.
    const Value& delta() const { return delta_; }
    Value shown(Nanoseconds now) const { return value_.at(is_plain_ ? now : shown_moment(now)); }
    /// The same with the number that it is, which may lie between two integers.
    MovingValue::Position position(Nanoseconds now) const {
        return value_.position(is_plain_ ? now : shown_moment(now));
    }
    /// The value in flight of one that is plain.
    const MovingValue& moving() const { return value_; }
    /// Sets where a value in flight comes from and where it goes.
    void set_way(FieldValues& values, Nanoseconds now) const {
        // Only the digits after a point come and go.
        if (!value_.target().is_real() || value_.resting(now)) return;
        values.start = value_.start();
        values.target = value_.target();
    }
    Value shown_max(Nanoseconds now, const Value& max) const;
    /// The same as a number.
    double most(Nanoseconds now, const Value& max) const {
        return max_ != nullptr ? max_->number_at(shown_moment(now)) : max.number();
    }
    /// Value or maximum are on their way; so is the trail.
    bool moves(Nanoseconds now) const { return !value_.resting(now) || (max_ != nullptr && !max_->resting(now)); }
    bool trail_moves(Nanoseconds now) const { return trail_ != nullptr && !trail_->resting(now); }
    /// It does nothing but move: nothing is paced, and there is no trail, no interval and no motion of a maximum.
    bool is_plain() const { return is_plain_; }
    /// Where the trail ends, in units of the value; NaN without one.
    double trail(Nanoseconds now) const;

    /// Where the motion in flight comes from, and when it lands.
    const Value& start() const { return value_.start(); }
    Nanoseconds lands_at() const { return value_.lands_at(); }
    /// When pace lets the next change pass, if it holds one back.
    std::optional<Nanoseconds> due() const { return pacer_ != nullptr ? pacer_->next_due() : std::nullopt; }
    /// Pace holds something back.
    bool waits() const { return pacer_ != nullptr && pacer_->waits(); }
    /// The value of a timer passed the edge of a band inside a frame.
    void pass_edge(const Value& value, const Value& max, Nanoseconds at, bool reduced);

    /// Bands, if it has any.
    const BandSet* bands() const { return looks_ != nullptr ? &looks_->bands : nullptr; }
    Color color(Nanoseconds now) const { return looks_ != nullptr ? looks_->color.at(now) : plan_->color; }
    /// What bands multiply the colors and the opacity of all by.
    Color filter(Nanoseconds now) const { return looks_ != nullptr ? looks_->filter.at(now) : rgb(0xffffff); }
    /// Replaces the color outside all bands, at once.
    void set_color(Color color, Nanoseconds now);
    /// What was entered and left since they were forgotten.
    std::span<const BandChange> band_changes() const;
    void forget_band_changes();
    /// Changes of color from here on ask it.
    void set_flash_limit(const FlashAsker& asker) {
        if (looks_ != nullptr) looks_->flashes = asker;
    }
    /// Whether the flash limit holds a change of its color back.
    bool is_limited() const { return looks_ != nullptr && (looks_->color.is_limited() || looks_->filter.is_limited()); }
    bool is_paced() const { return pacer_ != nullptr; }
    ClockKind clock() const { return plan_->clock; }

    /// Nothing moves and nothing waits.
    bool resting(Nanoseconds now) const { return value_.resting(now) && (is_plain_ || others_rest(now)); }

 private:
    bool others_rest(Nanoseconds now) const;
    struct Looks {
        BandSet bands;
        FadingColor color;
        FadingColor filter;
        std::vector<BandChange> changes;
        Color base;                ///< outside all bands
        bool begun = false;        ///< has had a value, or none, once
        bool has_sources = false;  ///< bands read more than the value
        FlashAsker flashes;
    };

    /// How far the real clock is ahead of its own.
    Nanoseconds ahead() const {
        return looks_->flashes.looks != nullptr ? looks_->flashes.looks->ahead_of(plan_->clock) : Nanoseconds{0};
    }
    void make_trail(const Value& value);
    void make_looks();
    bool has_motion_alone() const;
    void set_color(FadingColor& color, Color next, Nanoseconds now, Seconds fade, bool reduced);
    void update_bands(BandReads on, const Value& value, const Value& max, Nanoseconds now, bool reduced);
    void update_shown_bands(Nanoseconds now, bool reduced);
    void take_passed(Nanoseconds now, bool reduced);
    void set_target(const Value& target, Nanoseconds now, bool reduced);
    /// A moving text is made at multiples of its interval only.
    Nanoseconds shown_moment(Nanoseconds now) const;

    MovingValue value_;
    KeptValue kept_;  ///< a target that is a text, whatever becomes of where it came from
    bool is_plain_ = false;
    std::shared_ptr<const TravelPlan> plan_;
    Value delta_;
    std::unique_ptr<Pacer> pacer_;
    std::unique_ptr<MovingValue> max_;  ///< null where it follows at once
    std::unique_ptr<MovingTrail> trail_;
    std::unique_ptr<Looks> looks_;
    Value source_max_;  ///< what the maximum is, whatever is shown of it
};

}  // namespace rapido
