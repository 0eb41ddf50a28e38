#include "travel/travel_plans.hpp"

#include <algorithm>

namespace rapido {

std::shared_ptr<const TravelPlan> TravelPlans::share(const TravelPlan& plan) {
    const std::size_t hash = plan.hash();
    const auto [first, last] = known_.equal_range(hash);
    for (auto known = first; known != last; ++known)
        if (const auto same = known->second.lock(); same != nullptr && *same == plan) return same;
    if (known_.size() >= most_) {
        std::erase_if(known_, [](const auto& known) { return known.second.expired(); });
        most_ = std::max(most_, 2 * known_.size());
    }
    auto made = std::make_shared<const TravelPlan>(plan);
    known_.emplace(hash, made);
    return made;
}

}  // namespace rapido
