// Comparisons of what is described, which need not be compiled wherever it is.
#include <tuple>

#include "rapido/hud/definition.hpp"
#include "rapido/hud/event.hpp"
#include "rapido/hud/hud.hpp"

namespace rapido {

bool operator==(const Timer& a, const Timer& b) {
    const auto rest = [](const Timer& of) {
        return std::tie(of.id, of.kind, of.duration, of.elapsed, of.loop, of.marks, of.clock);
    };
    return a.start_when.is_same(b.start_when) && a.pause_when.is_same(b.pause_when) && a.speed.is_same(b.speed) &&
           rest(a) == rest(b);
}
bool operator==(const FrameMeter&, const FrameMeter&) = default;
bool operator==(const Group& a, const Group& b) {
    return a.visible.is_same(b.visible) && a.dimmed.is_same(b.dimmed) &&
           std::tie(a.id, a.dim, a.enter, a.leave) == std::tie(b.id, b.dim, b.enter, b.leave);
}
bool operator==(const Theme&, const Theme&) = default;
bool operator==(const LanguageOptions&, const LanguageOptions&) = default;
bool operator==(const Accepted&, const Accepted&) = default;
bool operator==(const Event&, const Event&) = default;
bool operator==(const Announcement&, const Announcement&) = default;
bool operator==(const SavedPlace&, const SavedPlace&) = default;
bool operator==(const FrameCost&, const FrameCost&) = default;

}  // namespace rapido
