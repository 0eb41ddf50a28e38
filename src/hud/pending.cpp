#include "hud/pending.hpp"

#include <algorithm>
#include <cmath>

#include "base/instants.hpp"
#include "base/nearest.hpp"

namespace rapido {
namespace {

/// So many units of the last digit as an amount.
Value amount_of(std::int64_t units, int places) {
    if (places == 0) return Value(units);
    return Value(static_cast<double>(units) / std::pow(10.0, places));
}

}  // namespace

bool PendingAmounts::offer(const std::string& name, Problem& problem) {
    const std::size_t dot = name.rfind('.');
    if (dot == std::string::npos) return false;
    const std::string part = name.substr(dot + 1);
    if (part != "pending" && part != "gain" && part != "loss") return false;
    // It may be the end of a path; then what it means can become another one.
    const std::string asked = name.substr(0, dot);
    const std::string path = elements_.counter(asked);
    if (!elements_.counts(path)) {
        // An end of a path will do, of as many parts as are given.
        std::vector<std::string_view> ends = elements_.counters();
        const auto parts = std::count(name.begin(), name.end(), '.');
        for (std::string_view& end : ends) {
            std::size_t from = end.size();
            for (auto left = parts; left > 0 && from != std::string_view::npos; --left)
                from = from == 0 ? std::string_view::npos : end.rfind('.', from - 1);
            if (from != std::string_view::npos) end.remove_prefix(from + 1);
        }
        const std::string_view near = nearest(asked, ends);
        if (!near.empty()) problem.hint = "did you mean '" + std::string(near) + "." + part + "'?";
        return false;
    }
    const ElementIndex total = elements_.at(path);
    std::optional<Value::Type> type;
    if (total != no_element) {
        const std::optional<int> places = elements_[total].body->places();
        if (!places || readouts_[total].shows_pending) {
            problem.message = "'" + path + "' " +
                              (places ? "shows what is pending of another one"
                                      : std::string(needs_fixed_digits) + " for '" + name + "'");
            return false;
        }
        type = *places > 0 ? Value::Type::float64 : Value::Type::int64;
    }
    Amount made;
    made.net = bindings_.add_told(asked + ".pending", type);
    made.gain = bindings_.add_told(asked + ".gain", type);
    made.loss = bindings_.add_told(asked + ".loss", type);
    sources_.insert({made.net, made.gain, made.loss});
    made.asked = asked;
    all_.push_back(std::move(made));
    if (total != no_element) set_total(path, total);
    return true;
}

bool PendingAmounts::Amount::may_mean(const std::string& path) const {
    return path.ends_with(asked) && (path.size() == asked.size() || path[path.size() - asked.size() - 1] == '.');
}

bool PendingAmounts::is_asked_for(const std::string& path) const {
    return std::any_of(all_.begin(), all_.end(), [&](const Amount& amount) { return amount.may_mean(path); });
}

void PendingAmounts::set_total(const std::string& path, ElementIndex total) {
    for (Amount& amount : all_) {
        if (!amount.may_mean(path) || elements_.counter(amount.asked) != path) continue;
        amount.total = total;
        readouts_.must_know(total);
    }
}

void PendingAmounts::remove(ElementIndex total) {
    for (Amount& amount : all_)
        if (amount.total == total) amount.total = no_element;
}

void PendingAmounts::tell(const FrameTime& time) {
    for (Amount& amount : all_)
        tell(amount, time);
}

/// Total shown and pending add up to the truth. What pace still holds back counts as gains and losses as
/// they came; what travels already, by the way that it travels.
void PendingAmounts::tell(Amount& amount, const FrameTime& time) {
    const Readout* const total = amount.total == no_element ? nullptr : &readouts_[amount.total];
    const Travel* const travel = total != nullptr ? total->travel.get() : nullptr;
    const Value truth = total != nullptr ? total->truth : Value();
    const Value target = travel != nullptr ? travel->target() : truth;
    const Value shown = travel != nullptr ? travel->shown(time.now(travel->clock())) : truth;
    const bool waits = travel != nullptr && travel->waits();
    const bool same = truth == amount.truth && target == amount.target && shown == amount.shown;
    const bool is_settled = amount.waiting_gain == 0 || amount.waiting_loss == 0;
    if (same && (waits || is_settled)) return;
    amount.truth = truth;
    amount.target = target;
    amount.shown = shown;

    const auto units = [&](const Value& value) -> std::optional<std::int64_t> {
        if (total == nullptr || !value.is_number()) return std::nullopt;
        return elements_[amount.total].body->count({.value = value, .max = readouts_.max(amount.total), .delta = {}});
    };
    const auto of_truth = units(truth);
    const auto of_target = units(target);
    const auto of_shown = units(shown);
    if (!of_truth || !of_target || !of_shown) {
        for (const SourceIndex source : {amount.net, amount.gain, amount.loss})
            bindings_.tell(source, Value());
        return;
    }
    const std::int64_t change = saturated_difference(*of_truth, amount.counted);
    std::int64_t& waiting = change > 0 ? amount.waiting_gain : amount.waiting_loss;
    waiting = saturated_sum(waiting, change);
    amount.counted = *of_truth;
    const std::int64_t held = saturated_difference(*of_truth, *of_target);
    if (!waits || saturated_sum(amount.waiting_gain, amount.waiting_loss) != held) {
        amount.waiting_gain = std::max<std::int64_t>(held, 0);
        amount.waiting_loss = std::min<std::int64_t>(held, 0);
    }
    const std::int64_t travels = saturated_difference(*of_target, *of_shown);
    const int places = elements_[amount.total].body->places().value_or(0);
    const auto tell = [&](SourceIndex source, std::int64_t count) { bindings_.tell(source, amount_of(count, places)); };
    tell(amount.net, saturated_sum(held, travels));
    tell(amount.gain, saturated_sum(amount.waiting_gain, std::max<std::int64_t>(travels, 0)));
    tell(amount.loss, saturated_sum(amount.waiting_loss, std::min<std::int64_t>(travels, 0)));
}

}  // namespace rapido
