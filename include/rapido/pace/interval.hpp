// Lets a value change only at multiples of an interval.
#pragma once

#include <optional>

#include "rapido/base/exported.hpp"
#include "rapido/pace/pace.hpp"
#include "rapido/value/kept_value.hpp"

namespace rapido RAPIDO_EXPORTED {

/// The time of NaN, an infinity and no value does not count. Windows lie between the multiples of an interval, counted from time zero, so that the interval is exact on
/// average whatever the frames are. A window gives one value at its end, if that differs from the value before. A
/// value that is read exactly at the end of a window belongs to it. Times that are passed in must not decrease.
class Interval {
 public:
    /// An interval below a microsecond counts as one.
    Interval(Seconds interval, Pick kind);

    /// The value changes at `now`. Call `take` until it returns nothing for times before `now` first.
    void set(const Value& value, Nanoseconds now);
    /// The value bypasses the window and starts a new one.
    void reset(const Value& value, Nanoseconds now);

    /// Returns when the window closes, if it will then give another value.
    std::optional<Nanoseconds> due() const;
    /// Returns the value of the earliest window that closes by `now`; call it until it returns nothing. The value is valid
    /// until the next `set`.
    std::optional<TimedValue> take(Nanoseconds now);

 private:
    void count(Nanoseconds now);
    bool has_news() const { return mixed_ || !(value_.get() == given_.get()); }
    Value result(Nanoseconds end);
    /// The window that `now` lies in begins, with the value that holds.
    void begin(Nanoseconds start);
    Nanoseconds start_of(Nanoseconds now) const;

    Nanoseconds interval_;
    Pick kind_;
    KeptValue value_;       ///< holds since `since_`
    KeptValue given_;       ///< by the last window
    Nanoseconds start_{0};  ///< of the window
    Nanoseconds since_{0};
    double area_ = 0;         ///< amount times nanoseconds, up to `since_`
    Nanoseconds counted_{0};  ///< of them, those in which there was an amount
    Value least_;
    Value most_;
    bool mixed_ = false;  ///< the window has more than one value
};

}  // namespace rapido
