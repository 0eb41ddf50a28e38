// What elements draw, for whoever asks the flash limit.
#pragma once

#include <cstdint>

#include "rapido/base/units.hpp"
#include "rapido/look/flash_limit.hpp"
#include "rapido/time/clock.hpp"

namespace rapido {

class FlashLooks {
 public:
    virtual ~FlashLooks() = default;
    /// Has it known by the next frame what an element draws.
    virtual void want(std::uint32_t element) = 0;
    /// What an element, and all that stands inside it, drew at rest when it was last looked at, or its whole box before that. Of an unknown
    /// size where nothing is drawn by the HUD itself. Valid until the next call.
    virtual const FlashLook& look_of(std::uint32_t element) = 0;
    /// How far the real clock is ahead of another one.
    virtual Nanoseconds ahead_of(ClockKind clock) const = 0;
    /// Something is held in this frame.
    virtual void note_limited() = 0;
};

/// The limit of a HUD as an element sees it; null where nothing is limited.
struct FlashAsker {
    FlashLimit* limit = nullptr;
    FlashLooks* looks = nullptr;
    std::uint32_t element = 0;
};

}  // namespace rapido
