#include "element/pip_row.hpp"

#include <algorithm>
#include <cmath>
#include <utility>

namespace rapido {
namespace {

/// How much of a pip is full: a little of the first is a whole step of it, and the last is full with the maximum only.
float lit_of(int pip, double value, double max, int steps) {
    if (!(value > 0)) return 0;
    if (steps <= 0) return static_cast<float>(std::clamp(value - pip, 0.0, 1.0));
    const double all = std::ceil(max) * steps;
    double lit = std::round(std::min(value, max) * steps);
    if (value < max) lit = std::min(lit, all - 1);
    return static_cast<float>(std::clamp(std::max(lit, 1.0) / steps - pip, 0.0, 1.0));
}

}  // namespace

const Effect* PipRules::effect_of(PipChange change) const {
    switch (change) {
        case PipChange::appear:
            return appear;
        case PipChange::gain:
            return gain;
        case PipChange::loss:
            return loss;
        case PipChange::nothing:
            break;
    }
    return nullptr;
}

bool PipRow::set(double value, double max, const PipRules& rules, bool silent) {
    const int count = max > 0 ? static_cast<int>(std::ceil(max)) : 0;
    bool differs = false;
    int number = 0;
    for (Pip& pip : pips_) {
        const float lit = number < count ? lit_of(number, value, max, rules.steps) : 0;
        if (lit != pip.lit) {
            differs = true;
            begin(pip, lit > pip.lit ? PipChange::gain : PipChange::loss, rules, silent);
            pip.before = std::exchange(pip.lit, lit);
        }
        // An extra pip that is lost leaves with what was lost of it, one of the others with its place.
        const bool runs = pip.begins == PipChange::loss || (pip.leaves && !pip.player.resting());
        pip.leaves = number >= count && !has_empty_ && runs;
        ++number;
    }
    const auto kept = static_cast<std::size_t>(count);
    while (pips_.size() > kept && !pips_.back().leaves) {
        pips_.pop_back();
        differs = true;
    }
    while (pips_.size() < kept) {
        Pip& pip = pips_.emplace_back();
        pip.lit = pip.before = lit_of(static_cast<int>(pips_.size()) - 1, value, max, rules.steps);
        const bool has_own = has_empty_ || rules.appear != nullptr;
        begin(pip, has_own ? PipChange::appear : PipChange::gain, rules, silent);
        differs = true;
    }
    return differs;
}

void PipRow::begin(Pip& pip, PipChange change, const PipRules& rules, bool silent) {
    pip.begins = silent || rules.effect_of(change) == nullptr ? PipChange::nothing : change;
    if (pip.begins != PipChange::nothing || pip.runs == PipChange::nothing) return;
    pip.player.clear();
    pip.runs = PipChange::nothing;
}

bool PipRow::advance(const Moment& at, const PipRules& rules, Color color, std::uint32_t first) {
    // By the first effect it is known what they draw.
    if (at.flashes.looks != nullptr && rules.has_effects() && !std::exchange(is_looked_at_, true))
        at.flashes.looks->want(at.flashes.element);
    bool differs = false;
    for (Pip& pip : pips_)
        differs = advance(pip, at, rules, color, first++) || differs;
    const auto left = [](const Pip& pip) { return pip.leaves && pip.player.resting(); };
    return std::erase_if(pips_, left) > 0 || differs;
}

/// What a pip does as long as it is the last one left, as the state of a band.
bool PipRow::play_last(const Moment& at, const PipRules& rules, Color color) {
    const auto full = std::count_if(pips_.begin(), pips_.end(), [](const Pip& pip) { return pip.lit > 0; });
    bool differs = false;
    for (Pip& pip : pips_) {
        const bool is_last = full == 1 && pip.lit > 0;
        const bool runs = pip.player.running(EffectCause::band) != nullptr;
        const bool is_endless = rules.last->repeat == 0;
        const bool begins = is_last && at.shown && (is_endless ? !runs : !pip.is_last);
        pip.is_last = is_last && at.shown;
        if (begins) {
            show_limit(pip, at, color);
            pip.player.set_reduced_motion(at.reduced_motion);
            pip.player.play(*rules.last, at.real, {.cause = EffectCause::band});
        } else if (!is_last && runs && is_endless) {
            pip.player.stop(*rules.last, at.real, EffectCause::band);
        }
        differs = differs || begins;
    }
    return differs;
}

/// Shows the flash limit what a pip draws: its share of all of them.
void PipRow::show_limit(Pip& pip, const Moment& at, Color color) {
    pip.player.set_limit(at.flashes.limit);
    if (at.flashes.limit == nullptr || at.flashes.looks == nullptr) return pip.player.set_color(color);
    look_ = at.flashes.looks->look_of(at.flashes.element);
    for (FlashPart& part : look_.parts)
        part.area /= static_cast<float>(pips_.size());
    pip.player.set_look(look_, at.real);
}

bool PipRow::advance(Pip& pip, const Moment& at, const PipRules& rules, Color color, std::uint32_t number) {
    const bool was_resting = pip.player.resting();
    pip.player.advance(at.real);
    if (pip.player.resting()) pip.runs = PipChange::nothing;
    const PipChange next = std::exchange(pip.begins, PipChange::nothing);
    const auto play = [&](const Effect& effect, Nanoseconds from, PlayAs as) {
        show_limit(pip, at, color);
        pip.player.set_reduced_motion(at.reduced_motion);
        return pip.player.play(effect, from, {.seed = number, .as = as});
    };
    if (next != PipChange::nothing && at.shown && !(next == PipChange::loss && at.reduced_motion)) {
        const PlayAs as = next == PipChange::loss ? PlayAs::leave : PlayAs::enter;
        if (play(*rules.effect_of(next), at.real, as)) pip.runs = next;
    }
    if (rules.shine != nullptr && rules.shine_every.count() > 0) {
        // Its own moment of each round; what was missed while it was busy or hidden is not made up for.
        const Nanoseconds own = at.real - rules.shine_step * number;
        const std::int64_t round = own.count() > 0 ? own / rules.shine_every : 0;
        if (round > pip.shone && pip.lit >= 1 && at.shown && pip.player.resting())
            play(*rules.shine, rules.shine_every * round + rules.shine_step * number, PlayAs::effect);
        pip.shone = round;
        pip.player.advance(at.real);
    }
    if (at.flashes.limit != nullptr && !pip.player.resting()) {
        pip.player.set_look(look_, at.real);
        pip.player.watch(at.real);
    }
    if (at.flashes.looks != nullptr && pip.player.is_limited(at.real)) at.flashes.looks->note_limited();
    return !(was_resting && pip.player.resting());
}

bool PipRow::is_busy() const {
    return std::any_of(pips_.begin(), pips_.end(),
                       [](const Pip& pip) { return pip.begins != PipChange::nothing || !pip.player.resting(); });
}

bool PipRow::forget(const Effect& effect) {
    bool is_free = true;
    for (Pip& pip : pips_)
        is_free = pip.player.forget(effect) && is_free;
    return is_free;
}

}  // namespace rapido
