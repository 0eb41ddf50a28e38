#include "hud/travel.hpp"

#include <cmath>
#include <limits>

namespace rapido {
namespace {

const Motions at_once;

}  // namespace

bool TravelPlan::is_direct() const {
    return pace == Pace{} && motions.is_instant() && max_motion.kind == MotionKind::instant &&
           trail == BarTrail{};
}

Travel::Travel(std::shared_ptr<const TravelPlan> plan) : plan_(std::move(plan)) {
    if (!(plan_->pace == Pace{})) pacer_ = std::make_unique<Pacer>(plan_->pace);
    if (plan_->max_motion.kind != MotionKind::instant) max_ = std::make_unique<MovingValue>();
    if (plan_->trail.delay > Seconds{0})
        trail_ =
            std::make_unique<Trail>(plan_->trail.delay, tween(plan_->trail.duration, plan_->trail.easing));
    is_plain_ =
        pacer_ == nullptr && max_ == nullptr && trail_ == nullptr && plan_->text_interval <= Nanoseconds{0};
}

void Travel::snap(const Value& value, const Value& max, Nanoseconds now) {
    if (pacer_ != nullptr) pacer_->snap(value, now);
    value_.snap(pacer_ != nullptr ? pacer_->passed() : value);
    delta_ = {};
    if (max_ != nullptr) max_->snap(max);
    if (trail_ != nullptr) trail_->snap(value.number());
}

void Travel::read(const Value& value, const Value& max, Nanoseconds now, bool reduced) {
    if (max_ != nullptr && !(max_->target() == max))
        max_->set_target(max, now, reduced ? at_once : Motions{.both = plan_->max_motion});
    if (pacer_ == nullptr) return set_target(value, now, reduced);
    pacer_->set(value, now, max);
    take_passed(now, reduced);
}

void Travel::advance(Nanoseconds now, bool reduced) {
    if (pacer_ != nullptr) take_passed(now, reduced);
    if (trail_ != nullptr) trail_->advance(now, reduced);
}

void Travel::land(Nanoseconds now) {
    value_.snap(value_.target());
    if (max_ != nullptr) max_->snap(max_->target());
    if (trail_ != nullptr) trail_->advance(now, true);
}

void Travel::take_passed(Nanoseconds now, bool reduced) {
    while (const std::optional<TimedValue> passed = pacer_->take(now))
        set_target(passed->value, passed->time, reduced);
}

void Travel::set_target(const Value& target, Nanoseconds now, bool reduced) {
    if (value_.target() == target) return;
    const bool is_first = value_.target().type() != target.type();
    delta_ = difference(target, value_.target());
    if (trail_ != nullptr) {
        if (is_first)
            trail_->snap(target.number());
        else
            trail_->set_target(target.number(), value_.number_at(now), now, reduced);
    }
    value_.set_target(target, now, reduced ? at_once : plan_->motions);
}

Nanoseconds Travel::shown_moment(Nanoseconds now) const {
    if (plan_->text_interval <= Nanoseconds{0} || value_.resting(now)) return now;
    return now / plan_->text_interval * plan_->text_interval;
}

Value Travel::shown_max(Nanoseconds now, const Value& max) const {
    return max_ != nullptr ? max_->at(shown_moment(now)) : max;
}

double Travel::trail(Nanoseconds now) const {
    if (trail_ == nullptr) return std::numeric_limits<double>::quiet_NaN();
    return trail_->at(now, value_.number_at(now));
}

bool Travel::others_rest(Nanoseconds now) const {
    return (max_ == nullptr || max_->resting(now)) && (trail_ == nullptr || trail_->resting(now)) &&
           (pacer_ == nullptr || !pacer_->waits());
}

}  // namespace rapido
