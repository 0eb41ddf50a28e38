// Format specs of the ISO C++ grammar ([format.string.std], [time.format]), parsed.
#pragma once

#include <string>
#include <string_view>
#include <vector>

#include "rapido/value/value.hpp"

namespace rapido {

/// One part of a chrono spec: a unit, or literal text between units.
struct TimePart {
    char unit = 0;  ///< 'H', 'I', 'M', 'S', 'p'; zero for literal text
    std::string literal;

    /// `p` counts as an hour.
    static Nanoseconds length(char unit);
};

struct Spec {
    std::string fill = " ";
    char align = 0;  ///< '<', '>', '^'; zero is by type: numbers right, texts left
    char sign = '-';
    bool alternate = false;
    bool zero = false;
    bool localized = false;
    int width = 0;
    int precision = -1;
    char type = 0;
    std::vector<TimePart> time;  ///< empty but for a chrono spec

    bool is_time() const { return !time.empty(); }
    /// Whether the last unit shown is a second, a minute or an hour.
    Nanoseconds smallest_unit() const;
    Nanoseconds largest_unit() const;
    /// Whether hours are those of a clock with twelve.
    bool is_half_day() const;
};

/// What is wrong with a spec, and at which of its bytes.
struct SpecFault {
    std::string message;
    std::size_t offset = 0;
    std::string hint;
};

inline constexpr int widest = 256;
inline constexpr int most_precise = 30;

/// Parses what stands after the colon. False on a fault.
bool parse_spec(std::string_view text, Spec& spec, SpecFault& fault);

/// Why a value of this type cannot be shown by this spec; empty if it can.
std::string spec_mismatch(const Spec& spec, Value::Type type);

}  // namespace rapido
