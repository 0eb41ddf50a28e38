// What waits for something to happen, compiled to indices.
#pragma once

#include <optional>
#include <string_view>
#include <vector>

#include "hud/happenings.hpp"
#include "rapido/element/trigger.hpp"
#include "rapido/look/band.hpp"

namespace rapido {

/// What starts an effect, or posts a message.
struct CompiledTrigger {
    TriggerOn on = TriggerOn::gain;
    std::uint32_t subject = UINT32_MAX;  ///< a timer or an element; nothing has the last index
    std::uint32_t bands = ~0U;           ///< a bit for each number of a band
    std::optional<std::int64_t> mark;    ///< nanoseconds; without it, any
    std::int64_t of_source = 0;  ///< the number of a source of its own, from 1; zero for the value of the element

    bool waits_for(const Happening& happening) const;
};

bool is_of_timer(TriggerOn on);
/// Returns a bit for each band of this name, all bits for no name.
std::uint32_t bands_named(const std::vector<Band>& bands, std::string_view name);

}  // namespace rapido
