// The gain beside the counter: what a text has not shown yet, in units of its last digit.
#include <algorithm>
#include <cmath>

#include "hud/state.hpp"

namespace rapido {
namespace {

/// So many units of the last digit as an amount.
Value amount_of(std::int64_t units, int places) {
    if (places == 0) return Value(units);
    return Value(static_cast<double>(units) / std::pow(10.0, places));
}

}  // namespace

/// Total shown and pending add up to the true value. What pace still holds back counts as gains and losses as
/// they came; what travels already, by the way that it travels.
void Hud::State::tell_pending(PendingAmount& amount) {
    const RunningElement* const total = amount.total == no_element ? nullptr : &elements[amount.total];
    const Travel* const travel = total != nullptr ? total->travel.get() : nullptr;
    const Value truth = total != nullptr ? total->truth : Value();
    const Value target = travel != nullptr ? travel->target() : truth;
    const Value shown = travel != nullptr ? travel->shown(moment(travel->clock())) : truth;
    const bool waits = travel != nullptr && travel->waits();
    const bool same = truth == amount.truth && target == amount.target && shown == amount.shown;
    const bool is_settled = amount.waiting_gain == 0 || amount.waiting_loss == 0;
    if (same && (waits || is_settled)) return;
    amount.truth = truth;
    amount.target = target;
    amount.shown = shown;

    const auto units = [&](const Value& value) -> std::optional<std::int64_t> {
        if (total == nullptr || !value.is_number()) return std::nullopt;
        return total->body->count({.value = value, .max = max_of(*total), .delta = {}});
    };
    const auto of_truth = units(truth);
    const auto of_target = units(target);
    const auto of_shown = units(shown);
    if (!of_truth || !of_target || !of_shown) {
        for (const SourceIndex source : {amount.net, amount.gain, amount.loss})
            scan.tell(source, Value(), changed_sources);
        return;
    }
    const std::int64_t change = *of_truth - amount.counted;
    (change > 0 ? amount.waiting_gain : amount.waiting_loss) += change;
    amount.counted = *of_truth;
    const std::int64_t held = *of_truth - *of_target;
    if (!waits || amount.waiting_gain + amount.waiting_loss != held) {
        amount.waiting_gain = std::max<std::int64_t>(held, 0);
        amount.waiting_loss = std::min<std::int64_t>(held, 0);
    }
    const std::int64_t travels = *of_target - *of_shown;
    const int places = total->body->places().value_or(0);
    const auto tell = [&](SourceIndex source, std::int64_t count) {
        scan.tell(source, amount_of(count, places), changed_sources);
    };
    tell(amount.net, held + travels);
    tell(amount.gain, amount.waiting_gain + std::max<std::int64_t>(travels, 0));
    tell(amount.loss, amount.waiting_loss + std::min<std::int64_t>(travels, 0));
}

}  // namespace rapido
