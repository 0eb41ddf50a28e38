// The calls of a game on a HUD. Each is an aggregate with a description: a recorder is told it, a recording holds it as its description
// says, and it is played again. It stands, with the function that it records, in one of the files `calls_*.cpp`.
#pragma once

#include <array>
#include <cstdint>
#include <memory>
#include <optional>
#include <span>
#include <string>
#include <string_view>

#include "element/fields.hpp"
#include "rapido/base/exported.hpp"
#include "rapido/hud/hud.hpp"
#include "rapido/hud/recorder.hpp"

namespace rapido RAPIDO_EXPORTED {

// clang-format off
template <> struct FieldTypeOf<std::uint64_t> : KnownFieldType<FieldType::natural> {};
template <> struct FieldTypeOf<Nanoseconds> : KnownFieldType<FieldType::nanoseconds> {};
template <> struct FieldTypeOf<HudDefinition> : KnownFieldType<FieldType::part> {};
// clang-format on
/// The types of values, and any.
enum class GivenType : std::uint8_t { any, flag, int64, uint64, float32, float64, text, duration };
template <>
inline constexpr std::array<std::string_view, 8> choices_of<GivenType>{"any",     "flag",    "int64", "uint64",
                                                                       "float32", "float64", "text",  "duration"};
template <>
inline constexpr std::array<std::string_view, 3> choices_of<detail::ValueUse>{"amount", "time_left", "time_passed"};

/// Where calls are played: a HUD, and what stands for the game.
class CallStage {
 public:
    explicit CallStage(Hud& of) : hud(of) {}
    virtual ~CallStage() = default;

    /// The element of a path; dead, with a problem of the HUD, for none.
    ElementRef element(const std::string& path) { return hud.find(path); }
    virtual Language language(const std::string& tag) = 0;
    virtual FlashLimit& flash_limit() = 0;
    /// Marks a thing that has this number from now on, or gives what marks it.
    virtual void add_marker(std::uint64_t thing, ElementRef markers) = 0;
    virtual MarkerRef thing(std::uint64_t thing) = 0;
    /// Gives the timers of the game that are new with this call to the HUD.
    virtual void add_timers() = 0;
    /// What is wrong with a call, where the HUD itself does not keep it.
    virtual void tell(const Problems&) {}

    Hud& hud;
};

struct CallTraits {
    bool lasts = true;         ///< whether it counts for a recording that begins later
    bool adds_timers = false;  ///< it calls `CallStage::add_timers`
};

/// What there is to know of a call besides what it was given.
struct CallKind {
    Table table;            ///< its name and its fields
    std::string_view help;  ///< one sentence
    CallTraits traits;
    std::shared_ptr<void> (*make)();  ///< an aggregate as it is by itself
    void (*play)(const void* given, CallStage& stage);
    std::string_view (*lacks)(const void* given);  ///< a field that it cannot do without; empty for none

    std::string_view name() const { return table.name; }
};

/// The same of one whose aggregate is known.
template <class Call>
struct KnownCall : CallKind {};

/// Describes a call. `apply(const Call&, CallStage&)` beside it plays it; where it has a member function `lacks`, that names a field that it
/// cannot do without.
template <class Call>
constexpr KnownCall<Call> call_kind(std::string_view name, std::string_view help, std::span<const Field> described = {},
                                    CallTraits traits = {}) {
    return {{.table = {name, described},
             .help = help,
             .traits = traits,
             .make = []() -> std::shared_ptr<void> { return std::make_shared<Call>(); },
             .play = [](const void* given, CallStage& stage) { apply(*static_cast<const Call*>(given), stage); },
             .lacks = [](const void* given) -> std::string_view {
                 if constexpr (requires(const Call& call) { call.lacks(); })
                     return static_cast<const Call*>(given)->lacks();
                 else
                     return {};
             }}};
}

inline constexpr std::string_view element_help = "The path of the element.";

using CallKinds = std::span<const CallKind* const>;
CallKinds element_calls();
CallKinds change_calls();
CallKinds effect_calls();
CallKinds message_calls();
CallKinds setting_calls();
CallKinds timer_calls();
CallKinds visibility_calls();
CallKinds world_calls();

/// All of them.
std::vector<const CallKind*> all_calls();

/// A source that gives one value, of a type that is perhaps not fixed.
Source source_of(const KeptValue& value, std::optional<GivenType> type, std::optional<detail::ValueUse> use);

}  // namespace rapido
