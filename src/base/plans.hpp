// Plans that elements which are described alike share.
#pragma once

#include <algorithm>
#include <memory>
#include <unordered_map>
#include <utility>

namespace rapido {

/// Of plans with `hash` and `==`: equal ones have the same hash.
template <class Plan>
class Plans {
 public:
    /// Returns a plan that equals this one: of an element that still goes by it, or a new one.
    std::shared_ptr<const Plan> share(Plan plan) {
        const std::size_t hash = plan.hash();
        const auto [first, last] = known_.equal_range(hash);
        for (auto known = first; known != last; ++known)
            if (const auto same = known->second.lock(); same != nullptr && *same == plan) return same;
        if (known_.size() >= most_) {
            std::erase_if(known_, [](const auto& known) { return known.second.expired(); });
            most_ = std::max(most_, 2 * known_.size());
        }
        auto made = std::make_shared<const Plan>(std::move(plan));
        known_.emplace(hash, made);
        return made;
    }

 private:
    std::unordered_multimap<std::size_t, std::weak_ptr<const Plan>> known_;  ///< by hash
    std::size_t most_ = 64;  ///< known, before those without a user are forgotten
};

}  // namespace rapido
