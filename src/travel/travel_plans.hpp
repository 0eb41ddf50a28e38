// Plans that elements which travel alike share.
#pragma once

#include <unordered_map>

#include "travel/travel.hpp"

namespace rapido {

class TravelPlans {
 public:
    /// Returns a plan that equals this one: of an element that still travels by it, or a new one.
    std::shared_ptr<const TravelPlan> share(const TravelPlan& plan);

 private:
    std::unordered_multimap<std::size_t, std::weak_ptr<const TravelPlan>> known_;  ///< by hash
    std::size_t most_ = 64;  ///< known, before those without a user are forgotten
};

}  // namespace rapido
