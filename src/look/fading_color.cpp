#include "rapido/look/fading_color.hpp"

#include <algorithm>

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

void FadingColor::set(Color color, Nanoseconds now, Seconds fade, FlashLimit* limit, const FlashPart& where,
                      Nanoseconds ahead) {
    advance(now, ahead);
    if (held_) {
        // Still the same flash: it will go to the newer color, or not take place.
        held_->color = color;
        held_->fade = fade;
        if (color == to_) held_.reset();
        return;
    }
    if (limit == nullptr || !completes_flash(color, now)) {
        before_ = is_flash_change(to_, color) ? std::optional(to_) : std::nullopt;
        return begin(color, now, fade);
    }
    // It began with the first change, as long as that is not long ago.
    const Nanoseconds length = to_nanoseconds(std::max(fade, Seconds{0}));
    Flash flash{start_ + ahead, now + ahead + length, where.box, where.area};
    if (limit->admit(flash)) {
        before_.reset();
        return begin(color, now, fade);
    }
    flash.begin += FlashLimit::window;
    flash.end = flash.begin + length;
    flash.begin = limit->room_for(flash);
    flash.end = flash.begin + length;
    held_ = Held{color, fade, flash, limit};
}

void FadingColor::advance(Nanoseconds now, Nanoseconds ahead) {
    while (held_ && now + ahead >= held_->flash.begin) {
        const Held due = *held_;
        if (due.limit->admit(due.flash)) {
            held_.reset();
            before_.reset();
            return begin(due.color, std::max(due.flash.begin - ahead, start_), due.fade);
        }
        // Another one came first.
        const Nanoseconds later = due.limit->room_for(due.flash);
        held_->flash.end = later + (due.flash.end - due.flash.begin);
        held_->flash.begin = std::max(later, due.flash.begin + Nanoseconds{1});
    }
}

Color FadingColor::at(Nanoseconds now) const {
    if (now >= end_) return to_;
    return mix(from_, to_, to_seconds(now - start_) / to_seconds(end_ - start_));
}

}  // namespace rapido
