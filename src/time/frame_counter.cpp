#include "rapido/time/frame_counter.hpp"

#include <algorithm>
#include <utility>

#include "base/instants.hpp"

namespace rapido {

namespace {

constexpr std::size_t most_seen = 1000, least_seen = 100;

}  // namespace

static Nanoseconds limited(Seconds interval) {
    return std::clamp(to_nanoseconds(interval), Nanoseconds{std::chrono::milliseconds{1}}, Clock::longest);
}

FrameCounter::FrameCounter(Seconds interval) : interval_(limited(interval)), next_close_(interval_) {}

void FrameCounter::set_interval(Seconds interval) {
    interval_ = limited(interval);
    next_close_ = grid_after(clock_.now(), interval_);
}

bool FrameCounter::advance(Seconds frame) {
    if (!clock_.advance(frame)) return false;
    ++frames_;
    longest_ = std::max(longest_, frame);
    if (frame.count() > 0) {
        if (frames_seen_.size() < most_seen)
            frames_seen_.push_back(static_cast<float>(frame.count()));
        else
            frames_seen_[next_seen_] = static_cast<float>(frame.count());
        next_seen_ = (next_seen_ + 1) % most_seen;
    }
    const Nanoseconds now = clock_.now();
    if (now < next_close_ || now == last_close_) return false;
    close();
    rate_ = static_cast<double>(frames_) / to_seconds(now - last_close_).count();
    frames_ = 0;
    last_close_ = now;
    next_close_ = grid_after(now, interval_);
    return true;
}

/// Of a hundred frames the second longest is longer than 98 of them: the longest is what 99 % are shorter than.
void FrameCounter::close() {
    worst_ = std::exchange(longest_, Seconds{0});
    if (frames_seen_.size() < least_seen) return;
    ordered_.assign(frames_seen_.begin(), frames_seen_.end());
    const auto slow = ordered_.begin() + static_cast<std::ptrdiff_t>(ordered_.size() * 99 / 100);
    std::nth_element(ordered_.begin(), slow, ordered_.end());
    low_ = 1 / static_cast<double>(*slow);
}

}  // namespace rapido
