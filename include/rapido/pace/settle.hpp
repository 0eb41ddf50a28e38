// Waits until a value has come to rest.
#pragma once

#include <optional>

#include "rapido/base/exported.hpp"
#include "rapido/pace/pace.hpp"
#include "rapido/value/kept_value.hpp"

namespace rapido RAPIDO_EXPORTED {

/// Lets a value pass when it has not changed for a while, or when its first change has waited long enough. Times that are
/// passed in must not decrease.
class Settle {
 public:
    /// `cap` of zero is four times `quiet`.
    Settle(Seconds quiet, Seconds cap);

    /// The value changed at `now`.
    void set(const Value& value, Nanoseconds now);
    /// Forgets a value that waits.
    void reset() { waits_ = false; }

    /// Returns when the value that waits will pass.
    std::optional<Nanoseconds> due() const;
    /// Returns a value that has passed by `now`, once. It is valid until the next `set`.
    std::optional<TimedValue> take(Nanoseconds now);

 private:
    Nanoseconds quiet_;
    Nanoseconds cap_;
    KeptValue waiting_;
    Nanoseconds first_{0};  ///< change since the last one passed
    Nanoseconds last_{0};
    bool waits_ = false;
};

}  // namespace rapido
