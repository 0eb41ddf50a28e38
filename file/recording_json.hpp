// The words of recordings, for those who write and those who read them.
#pragma once

#include <array>
#include <nlohmann/json.hpp>
#include <optional>
#include <string_view>

#include "rapido/hud/recorder.hpp"

namespace rapido {

using Json = nlohmann::ordered_json;

/// By type; a value that has none is of any.
inline constexpr std::array<std::string_view, 8> value_types{"any",     "boolean", "int64", "uint64",
                                                             "float32", "float64", "text",  "duration"};
inline constexpr std::array<std::string_view, 3> value_uses{"amount", "time_left", "time_passed"};
inline constexpr std::array<std::string_view, 2> timer_kinds{"countdown", "stopwatch"};
inline constexpr std::array<std::string_view, 2> clock_kinds{"real", "game"};
inline constexpr std::array<std::string_view, 4> timer_runs{"stopped", "running", "paused", "ended"};
inline constexpr std::array<std::string_view, 3> timer_event_kinds{"mark", "end", "skipped"};

/// What a call says by a text, a number or a flag, by the name of the call.
struct CallWords {
    std::string_view call;
    std::string_view text = "group", number = "opacity", flag = "visible";
    bool lasts = true;  ///< whether it counts for a recording that begins later
};
inline constexpr std::array call_words{
    CallWords{"add"},
    CallWords{"add_timer"},
    CallWords{"change"},
    CallWords{"reload"},
    CallWords{"remove"},
    CallWords{.call = "leave", .text = "effect"},
    CallWords{"reset"},
    CallWords{.call = "snap", .lasts = false},
    CallWords{.call = "play", .text = "effect", .number = "strength", .lasts = false},
    CallWords{.call = "stop", .text = "effect", .lasts = false},
    CallWords{.call = "notify", .text = "message", .lasts = false},
    CallWords{.call = "dismiss", .text = "message", .lasts = false},
    CallWords{.call = "pop", .lasts = false},
    CallWords{"tag"},
    CallWords{"set_visible"},
    CallWords{"set_opacity"},
    CallWords{.call = "set_color"},
    CallWords{.call = "set_format", .text = "format"},
    CallWords{"set_place"},
    CallWords{.call = "set_theme", .text = "theme"},
    CallWords{.call = "set_language", .text = "language"},
    CallWords{.call = "set_scale", .number = "scale"},
    CallWords{.call = "set_text_scale", .number = "scale"},
    CallWords{.call = "set_reduced_motion", .flag = "reduced"},
    CallWords{.call = "set_interval", .text = "meter", .number = "interval"},
    CallWords{"set_flash_limit"},
    CallWords{"set_flash_settings"},
    CallWords{"set_camera"},
    CallWords{"set_cost"},
    CallWords{"resize"},
    CallWords{.call = "restore_timers", .lasts = false},
};
constexpr const CallWords* words_of(std::string_view call) {
    for (const CallWords& words : call_words)
        if (words.call == call) return &words;
    return nullptr;
}

}  // namespace rapido
