// Who looks on while a HUD runs. They are made by the library `rapido::debug` alone: a HUD that nobody observes carries nothing of them.
#pragma once

#include <optional>
#include <vector>

#include "base/problem_log.hpp"
#include "hud/call.hpp"
#include "hud/elements.hpp"
#include "rapido/base/exported.hpp"
#include "rapido/element/markers.hpp"

namespace rapido RAPIDO_EXPORTED {

struct Parts;

/// What a recorder is told of a HUD.
class HudRecording {
 public:
    virtual ~HudRecording() = default;

    // Between frames

    /// Gives names to what is bound in what was added, or changed, and is told next.
    virtual void name(HudDefinition& definition) = 0;
    virtual void call(const CallKind& kind, const void* given) = 0;
    /// An element is gone, and with it its things.
    virtual void forget(ElementIndex index) = 0;
    /// A thing was marked: its number.
    virtual std::uint64_t add(const MarkerRef& marker, const PositionSource& at,
                              const std::vector<detail::Binding>& values) = 0;
    virtual std::optional<std::uint64_t> number_of(const MarkerRef& marker) const = 0;
    virtual void remove(const MarkerRef& marker) = 0;

    // In a frame

    /// Before timers are advanced: what the game has done to them.
    virtual void note_timers() = 0;
    /// After all sources are read.
    virtual void tell(Nanoseconds time, Nanoseconds game_time) = 0;
    /// After the frame.
    virtual void keep_timers() = 0;
};

/// A table of what the game watches, which is an element of the HUD.
class ProbeTable {
 public:
    virtual ~ProbeTable() = default;
    virtual void begin_frame(Seconds step, ProblemLog& problems) = 0;
    /// After the layout: the corner into which the table goes; nothing where it stays.
    virtual std::optional<Anchor> better_corner(const Parts& hud) = 0;
};

}  // namespace rapido
