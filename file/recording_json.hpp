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
inline constexpr auto& value_types = Choices<GivenType>::names;
inline constexpr auto& value_uses = Choices<detail::ValueUse>::names;
inline constexpr auto& timer_kinds = Choices<TimerKind>::names;
inline constexpr auto& clock_kinds = Choices<ClockKind>::names;
inline constexpr auto& timer_runs = Choices<TimerState::Run>::names;
inline constexpr std::array<std::string_view, 3> timer_event_kinds{"mark", "end", "skipped"};

}  // namespace rapido
