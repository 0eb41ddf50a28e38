// The words of recordings, for those who write and those who read them.
#pragma once

#include <array>
#include <nlohmann/json.hpp>
#include <optional>
#include <string_view>

#include "hud/call.hpp"
#include "hud/definition_tables.hpp"

namespace rapido {

using Json = nlohmann::ordered_json;

/// By type; a value that has none is of any.
inline constexpr auto& value_types = choices_of<GivenType>;
inline constexpr auto& value_uses = choices_of<detail::ValueUse>;
inline constexpr auto& timer_kinds = choices_of<TimerKind>;
inline constexpr auto& clock_kinds = choices_of<ClockKind>;
inline constexpr auto& timer_runs = choices_of<TimerState::Run>;
inline constexpr std::array<std::string_view, 3> timer_event_kinds{"mark", "end", "skipped"};

}  // namespace rapido
