#include "rapido/look/fading_color.hpp"

namespace rapido {

void FadingColor::set(Color color, Nanoseconds now, Seconds fade) {
    from_ = at(now);
    to_ = color;
    start_ = now;
    end_ = now + to_nanoseconds(fade > Seconds{0} ? fade : Seconds{0});
}

Color FadingColor::at(Nanoseconds now) const {
    if (resting(now)) return to_;
    return mix(from_, to_, to_seconds(now - start_) / to_seconds(end_ - start_));
}

}  // namespace rapido
