#include "hud/happenings.hpp"

#include <algorithm>
#include <tuple>

namespace rapido {
namespace {

bool happened_before(const Happening& a, const Happening& b) {
    const auto key = [](const Happening& one) {
        return std::tuple(one.time, !one.is_of_timer(), one.is_of_timer() ? 0 : one.subject, one.order);
    };
    return key(a) < key(b);
}

}  // namespace

void Happenings::clear() {
    all_.clear();
    events_ = 0;
    overflowed_ = false;
}

void Happenings::add(const Happening& happening) {
    const std::size_t others = all_.size() - events_;
    if (happening.is_event ? events_ == most_events : others == most_others) {
        overflowed_ = overflowed_ || happening.is_event;
        return;
    }
    events_ += happening.is_event ? 1 : 0;
    all_.push_back(happening);
    all_.back().order = static_cast<std::uint32_t>(all_.size());
}

void Happenings::sort() {
    if (!std::is_sorted(all_.begin(), all_.end(), happened_before))
        std::sort(all_.begin(), all_.end(), happened_before);
}

void Happenings::reserve(std::size_t count) {
    all_.reserve(count);
}

}  // namespace rapido
