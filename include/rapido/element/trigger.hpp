// What starts an effect on an element.
#pragma once

#include <optional>
#include <string>

#include "rapido/base/exported.hpp"
#include "rapido/base/units.hpp"
#include "rapido/value/source.hpp"

namespace rapido RAPIDO_EXPORTED {

enum class TriggerOn : std::uint8_t {
    gain,        ///< the truth rose
    loss,        ///< it fell
    empty,       ///< it fell to zero or below
    full,        ///< it rose to its maximum
    band_enter,  ///< the value came into a band
    band_leave,  ///< it left one
    start,       ///< a timer began to run
    mark,        ///< it passed a mark
    end,         ///< it ended
};

/// `{.on = TriggerOn::loss, .effect = "shake"}`. A hidden element starts no effect.
struct Trigger {
    TriggerOn on = TriggerOn::gain;
    std::string effect{};         ///< the id of an effect of this HUD, or of a built-in one
    Source source{};              ///< whose `gain`, `loss` and `empty` count, in place of the value of the element
    std::string band{};           ///< which one, for `band_enter` and `band_leave`; empty is any
    std::string timer{};          ///< which one, for `start`, `mark` and `end`
    std::optional<Seconds> at{};  ///< which mark; without it, any
    double full_strength_at =
        0;  ///< a gain or loss of this plays at full strength, a smaller one weaker; zero: always full
    friend RAPIDO_EXPORTED bool operator==(const Trigger&, const Trigger&);
};

}  // namespace rapido
