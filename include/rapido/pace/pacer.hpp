// Applies a `Pace` to one value.
#pragma once

#include <memory>
#include <optional>

#include "rapido/base/exported.hpp"
#include "rapido/pace/interval.hpp"
#include "rapido/pace/settle.hpp"

namespace rapido RAPIDO_EXPORTED {

/// Applies settle, window, quantize and smallest change, in this order. A value passes at its exact time, even between two
/// frames. Times that are passed in must not decrease.
///
///     rapido::Pacer pacer{{.interval = 500ms, .pick = rapido::Pick::average}};
///     pacer.set(frame_time, now);                       // in every frame
///     while (const auto passed = pacer.take(now)) show(passed->value);
class Pacer {
 public:
    explicit Pacer(const Pace& pace);

    /// The source has this value from `now` on. A value at `max` or above passes at once, and so does any value with
    /// `at_once`. Call `take` until it returns nothing before the next `set`.
    void set(const Value& value, Nanoseconds now, const Value& max = {}, bool at_once = false);
    /// Starts anew at `value`: nothing waits, and `take` returns nothing.
    void snap(const Value& value, Nanoseconds now);

    /// Returns the earliest change that passes by `now`; call it until it returns nothing. The value is valid until the next
    /// `set`.
    std::optional<TimedValue> take(Nanoseconds now);
    /// Whether a value may still pass even if the source does not change any more.
    bool waits() const { return next_due().has_value(); }

    /// Returns when the next value passes if the source stays as it is; nothing if none does.
    std::optional<Nanoseconds> next_due() const;
    /// The value that passed last.
    Value passed() const { return passed_.get(); }

    /// A source that was quiet for so long is shown as it is.
    static constexpr Nanoseconds rest{500'000'000};

 private:
    std::optional<Nanoseconds> rest_due() const;
    /// Of those that have been looked at.
    Nanoseconds last_change() const { return incoming_ ? before_ : changed_; }
    bool must_pass(const Value& value) const;
    bool pass_by(Nanoseconds now);
    bool to_window(const Value& value, Nanoseconds now);
    bool filter(const Value& value, Nanoseconds now);
    bool give(const Value& value, Nanoseconds now);

    Pace pace_;
    std::optional<Settle> settle_;
    std::optional<Interval> window_;
    KeptValue source_;
    KeptValue windowed_;  ///< what the window gave last
    KeptValue passed_;
    Value max_;
    Nanoseconds changed_{0};  ///< the last `set`
    Nanoseconds before_{0};   ///< the one before it
    bool incoming_ = false;   ///< the last one has not been looked at
    bool at_once_ = false;    ///< and passes by all stages
    Nanoseconds given_at_{0};
};

}  // namespace rapido
