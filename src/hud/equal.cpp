// Comparisons of what is described, which need not be compiled wherever it is.
#include "rapido/hud/definition.hpp"
#include "rapido/hud/event.hpp"
#include "rapido/hud/hud.hpp"

namespace rapido {

bool operator==(const Timer&, const Timer&) = default;
bool operator==(const FrameMeter&, const FrameMeter&) = default;
bool operator==(const Group&, const Group&) = default;
bool operator==(const Theme&, const Theme&) = default;
bool operator==(const LanguageOptions&, const LanguageOptions&) = default;
bool operator==(const Accepted&, const Accepted&) = default;
bool operator==(const Event&, const Event&) = default;
bool operator==(const Announcement&, const Announcement&) = default;
bool operator==(const SavedPlace&, const SavedPlace&) = default;
bool operator==(const FrameCost&, const FrameCost&) = default;

}  // namespace rapido
