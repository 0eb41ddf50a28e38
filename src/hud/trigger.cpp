#include "hud/trigger.hpp"

#include <algorithm>

namespace rapido {
namespace {

HappeningKind kind_of(TriggerOn on) {
    switch (on) {
        case TriggerOn::gain:
            return HappeningKind::gain;
        case TriggerOn::loss:
            return HappeningKind::loss;
        case TriggerOn::empty:
            return HappeningKind::empty;
        case TriggerOn::full:
            return HappeningKind::full;
        case TriggerOn::band_enter:
            return HappeningKind::band_enter;
        case TriggerOn::band_leave:
            return HappeningKind::band_leave;
        case TriggerOn::mark:
            return HappeningKind::mark;
        case TriggerOn::end:
            return HappeningKind::end;
        case TriggerOn::start:
            break;
    }
    return HappeningKind::start;
}

}  // namespace

bool is_of_timer(TriggerOn on) {
    return on == TriggerOn::start || on == TriggerOn::mark || on == TriggerOn::end;
}

std::uint32_t bands_named(const std::vector<Band>& bands, std::string_view name) {
    if (name.empty()) return ~0U;
    std::uint32_t named = 0;
    for (std::size_t i = 0; i < bands.size() && i < 32; ++i)
        if (bands[i].id == name) named |= 1U << i;
    return named;
}

bool CompiledTrigger::waits_for(const Happening& happening) const {
    if (happening.kind != kind_of(on) || happening.subject != subject) return false;
    switch (happening.kind) {
        case HappeningKind::mark:
            return !mark || *mark == happening.detail;
        case HappeningKind::band_enter:
        case HappeningKind::band_leave:
            return ((bands >> (happening.detail & 31)) & 1U) != 0;
        case HappeningKind::gain:
        case HappeningKind::loss:
        case HappeningKind::empty:
            // Those of the things of markers have numbers below zero.
            return std::max<std::int64_t>(happening.detail, 0) == of_source;
        default:
            return true;
    }
}

}  // namespace rapido
