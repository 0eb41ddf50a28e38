#include "travel/travel.hpp"

#include <algorithm>
#include <cmath>
#include <limits>

#include "base/instants.hpp"

namespace rapido {
namespace {

const Motions at_once;

}  // namespace

bool TravelPlan::is_direct() const {
    return pace == Pace{} && motions.is_instant() && motions.max.kind == MotionKind::instant && trail == Trail{} &&
           bands.empty();
}

std::size_t TravelPlan::hash() const {
    std::size_t hash = bands.size();
    const auto add = [&](double part) { hash = hash * 31 + std::hash<double>{}(part); };
    const auto add_motion = [&](const Motion& motion) {
        add(static_cast<double>(motion.kind));
        add(motion.length().count());
        add(motion.full_duration_at);
    };
    add_motion(motions.both);
    add_motion(motions.towards(true));
    add_motion(motions.towards(false));
    add_motion(motions.max);
    add(pace.interval.count());
    add(pace.quantize);
    add(pace.smallest_change);
    add(pace.settle.count());
    add(trail.delay.count());
    add((color.red * 256 + color.green) * 256 + color.blue);
    add(color.alpha);
    add(static_cast<double>(text_interval.count()));
    for (const Band& band : bands) {
        add(band.below ? band.below->number() : -1);
        add(band.above ? band.above->number() : -1);
        add(band.hysteresis);
        hash = hash * 31 + std::hash<std::string>{}(band.id);
        hash = hash * 31 + std::hash<std::string>{}(band.format);
        if (!band.color) continue;
        const Color inside = *band.color;
        add((inside.red * 256 + inside.green) * 256 + inside.blue);
    }
    return hash;
}

Travel::Travel(std::shared_ptr<const TravelPlan> plan) : plan_(std::move(plan)) {
    if (!(plan_->pace == Pace{})) pacer_ = std::make_unique<Pacer>(plan_->pace);
    if (plan_->motions.max.kind != MotionKind::instant) max_ = std::make_unique<MovingValue>();
    make_trail({});
    make_looks();
    is_plain_ = has_motion_alone();
}

void Travel::make_trail(const Value& value) {
    trail_.reset();
    if (plan_->trail.delay > Seconds{0})
        trail_ = std::make_unique<MovingTrail>(plan_->trail.delay, tween(plan_->trail.duration, plan_->trail.easing));
    if (trail_ != nullptr && value.is_number()) trail_->snap(value.number());
}

/// What bands need.
void Travel::make_looks() {
    const std::unique_ptr<Looks> before = std::move(looks_);
    if (!plan_->bands.empty())
        looks_ = std::make_unique<Looks>(
            Looks{BandSet(std::shared_ptr<const std::vector<Band>>(plan_, &plan_->bands), plan_->has_max),
                  FadingColor(plan_->color),
                  FadingColor(rgb(0xffffff)),
                  {},
                  plan_->color,
                  false,
                  !BandSet::sources(plan_->bands).empty(),
                  {}});
    if (before != nullptr && looks_ != nullptr) {
        looks_->bands.take_over(before->bands);
        looks_->color = before->color;
        looks_->filter = before->filter;
        looks_->flashes = before->flashes;
    }
}

bool Travel::has_motion_alone() const {
    return pacer_ == nullptr && max_ == nullptr && trail_ == nullptr && looks_ == nullptr &&
           plan_->text_interval <= Nanoseconds{0};
}

void Travel::change(std::shared_ptr<const TravelPlan> plan, const Value& value, const Value& max,
                    std::span<const Value> given, Nanoseconds now, bool reduced) {
    const std::shared_ptr<const TravelPlan> before = std::move(plan_);
    plan_ = std::move(plan);
    make_looks();
    give(given);
    // Silently: what differs was changed, and did not happen.
    if (looks_ != nullptr) looks_->begun = false;
    if (!(plan_->pace == before->pace)) {
        pacer_ = plan_->pace == Pace{} ? nullptr : std::make_unique<Pacer>(plan_->pace);
        if (pacer_ != nullptr) pacer_->snap(value, now);
        set_target(pacer_ != nullptr ? pacer_->passed() : value, now, reduced);
    }
    const Motions& motions = plan_->motions;
    const bool same_way = motions.both == before->motions.both && motions.up == before->motions.up &&
                          motions.down == before->motions.down;
    if (!same_way) value_.set_target(value_.target(), now, reduced ? at_once : motions);
    if (!(motions.max == before->motions.max)) {
        if (motions.max.kind == MotionKind::instant) {
            max_.reset();
        } else if (max_ == nullptr) {
            max_ = std::make_unique<MovingValue>();
            max_->snap(max);
        } else {
            max_->set_target(max_->target(), now, reduced ? at_once : Motions(motions.max));
        }
    }
    if (!(plan_->trail == before->trail)) make_trail(value_.target());
    is_plain_ = has_motion_alone();
    if (looks_ == nullptr) return;
    // A source that is new has no value before the next read, which is silent then, too. What reads conditions alone needs none.
    if ((plan_->has_value && !value.has_value()) || (plan_->has_max && !max.has_value())) return;
    update_bands(BandReads::truth, value, max, now, true);
    update_bands(BandReads::target, target(), max, now, true);
    update_shown_bands(now, true);
    looks_->begun = true;
}

void Travel::snap(const Value& value, const Value& max, Nanoseconds now) {
    source_max_ = max;
    if (pacer_ != nullptr) pacer_->snap(value, now);
    kept_ = pacer_ != nullptr ? pacer_->passed() : value;
    value_.snap(kept_.get());
    delta_ = {};
    if (max_ != nullptr) max_->snap(max);
    if (trail_ != nullptr) trail_->snap(value.number());
    if (looks_ == nullptr) return;
    looks_->begun = false;
    for (const BandReads on : {BandReads::truth, BandReads::target, BandReads::shown})
        update_bands(on, value, max, now, true);
    looks_->begun = true;
}

void Travel::read(const Value& value, const Value& max, Nanoseconds now, bool reduced) {
    if (max_ != nullptr && !(max_->target() == max))
        max_->set_target(max, now, reduced ? at_once : Motions(plan_->motions.max));
    const bool max_changed = !(source_max_ == max);
    source_max_ = max;
    update_bands(BandReads::truth, value, max, now, reduced);
    if (pacer_ == nullptr) {
        set_target(value, now, reduced);
    } else {
        const bool must_pass = looks_ != nullptr && looks_->bands.would_change(BandReads::target, value, max);
        pacer_->set(value, now, max, must_pass);
        take_passed(now, reduced);
    }
    if (looks_ == nullptr) return;
    if (max_changed || !looks_->begun || looks_->has_sources)
        update_bands(BandReads::target, target(), max, now, reduced);
    update_shown_bands(now, reduced);
    looks_->begun = true;
}

void Travel::advance(Nanoseconds now, bool reduced) {
    if (pacer_ != nullptr) take_passed(now, reduced);
    if (trail_ != nullptr) trail_->advance(now, reduced);
    if (looks_ == nullptr) return;
    looks_->color.advance(now, ahead());
    looks_->filter.advance(now, ahead());
    if (is_limited() && looks_->flashes.looks != nullptr) looks_->flashes.looks->note_limited();
    update_shown_bands(now, reduced);
}

void Travel::pass_edge(const Value& value, const Value& max, Nanoseconds at, bool reduced) {
    if (looks_ == nullptr || !looks_->begun) return;
    update_bands(BandReads::truth, value, max, at, reduced);
    update_bands(BandReads::target, value, max, at, reduced);
}

void Travel::update_shown_bands(Nanoseconds now, bool reduced) {
    if (looks_->bands.reads(BandReads::shown))
        update_bands(BandReads::shown, value_.at(now), shown_max(now, source_max_), now, reduced);
}

/// The first look is there silently; after that a change of color may fade.
void Travel::update_bands(BandReads on, const Value& value, const Value& max, Nanoseconds now, bool reduced) {
    if (looks_ == nullptr) return;
    const std::size_t before = looks_->changes.size();
    looks_->bands.update(on, value, max, now, looks_->changes);
    Seconds fade{0};
    for (std::size_t i = before; i < looks_->changes.size(); ++i)
        fade = std::max(fade, plan_->bands[looks_->changes[i].band].fade);
    const Color* const color = looks_->bands.color();
    if (!looks_->begun) looks_->changes.resize(before);
    set_color(looks_->color, color != nullptr ? *color : looks_->base, now, fade, reduced);
    set_color(looks_->filter, looks_->bands.filter(), now, fade, reduced);
}

void Travel::set_color(FadingColor& color, Color next, Nanoseconds now, Seconds fade, bool reduced) {
    if (next == color.target()) return;
    const FlashAsker& flashes = looks_->flashes;
    FlashLimit* const limit = looks_->begun ? flashes.limit : nullptr;
    FlashPart where;
    const bool asks = limit != nullptr && flashes.looks != nullptr;
    if (asks && !color.completes_flash(next, now)) {
        flashes.looks->want(flashes.element);  // for the way back
    } else if (asks) {
        const FlashLook& look = flashes.looks->look_of(flashes.element);
        where.box = look.box;
        where.area = 0;
        for (const FlashPart& part : look.parts)
            where.area += part.area;
    }
    color.set(next, now, looks_->begun && !reduced ? fade : Seconds{0}, limit, where, ahead());
}

void Travel::set_color(Color color, Nanoseconds now) {
    if (looks_ == nullptr) return;
    looks_->base = color;
    if (looks_->bands.color() == nullptr) looks_->color.set(color, now, Seconds{0}, nullptr, {}, ahead());
}

std::span<const BandChange> Travel::band_changes() const {
    if (looks_ == nullptr) return {};
    return looks_->changes;
}

void Travel::forget_band_changes() {
    if (looks_ != nullptr) looks_->changes.clear();
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
    const bool is_text = target.type() == Value::Type::text;
    if (is_text) kept_ = target;
    const Value next = is_text ? kept_.get() : target;
    const bool is_first = value_.target().type() != target.type();
    delta_ = difference(target, value_.target());
    if (trail_ != nullptr) {
        if (is_first)
            trail_->snap(target.number());
        else
            trail_->set_target(target.number(), value_.number_at(now), now, reduced);
    }
    update_bands(BandReads::target, target, source_max_, now, reduced);
    const Motion* const own = looks_ != nullptr ? looks_->bands.motion() : nullptr;
    if (reduced || own == nullptr)
        value_.set_target(next, now, reduced ? at_once : plan_->motions);
    else
        value_.set_target(next, now, Motions(*own));
}

Nanoseconds Travel::shown_moment(Nanoseconds now) const {
    if (plan_->text_interval <= Nanoseconds{0} || value_.resting(now)) return now;
    return grid_at(now, plan_->text_interval);
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
           (pacer_ == nullptr || !pacer_->waits()) &&
           (looks_ == nullptr || (looks_->color.resting(now) && looks_->filter.resting(now)));
}

}  // namespace rapido
