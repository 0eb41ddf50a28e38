#include "rapido/time/frame_meter.hpp"

#include "base/instants.hpp"

namespace rapido {

FrameMeter::FrameMeter(Seconds interval)
    : interval_(
          std::clamp(to_nanoseconds(interval), Nanoseconds{std::chrono::milliseconds{1}}, Clock::longest)),
      next_close_(interval_) {}

bool FrameMeter::advance(Seconds frame) {
    if (!clock_.advance(frame)) return false;
    ++frames_;
    const Nanoseconds now = clock_.now();
    if (now < next_close_ || now == last_close_) return false;
    rate_ = static_cast<double>(frames_) / to_seconds(now - last_close_).count();
    frames_ = 0;
    last_close_ = now;
    next_close_ = grid_after(now, interval_);
    return true;
}

}  // namespace rapido
