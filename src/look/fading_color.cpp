#include "rapido/look/fading_color.hpp"

#include <array>

namespace rapido {

bool FadingColor::completes_flash(Color color, Nanoseconds now) const {
    if (!before_ || now - start_ >= FlashLimit::window || !is_flash_change(to_, color)) return false;
    const double back = relative_luminance(color) - relative_luminance(to_);
    const double there = relative_luminance(to_) - relative_luminance(*before_);
    return back * there <= 0;
}

void FadingColor::begin(Color color, Nanoseconds now, Seconds fade) {
    from_ = at(now);
    to_ = color;
    start_ = now;
    end_ = now + to_nanoseconds(fade > Seconds{0} ? fade : Seconds{0});
}

void FadingColor::set(Color color, Nanoseconds now, Seconds fade, FlashLimit* limit) {
    advance(now);
    if (held_) {
        // Still the same flash: it will go to the newer color, or not take place.
        held_->color = color;
        held_->fade = fade;
        if (!(color == to_)) return;
        held_->limit->release(held_->until);
        held_.reset();
        return;
    }
    if (limit == nullptr || !completes_flash(color, now)) {
        before_ = is_flash_change(to_, color) ? std::optional(to_) : std::nullopt;
        return begin(color, now, fade);
    }
    const std::array flash{now};
    if (limit->admit(flash)) {
        before_.reset();
        return begin(color, now, fade);
    }
    held_ = Held{color, fade, limit->reserve(now), limit};
}

void FadingColor::advance(Nanoseconds now) {
    if (!held_ || now < held_->until) return;
    const Held due = *held_;
    held_.reset();
    before_.reset();
    begin(due.color, due.until, due.fade);
}

Color FadingColor::at(Nanoseconds now) const {
    if (now >= end_) return to_;
    return mix(from_, to_, to_seconds(now - start_) / to_seconds(end_ - start_));
}

}  // namespace rapido
