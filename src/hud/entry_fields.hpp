// Fields of the entries of a container by name, and the keys that tell entries apart.
#pragma once

#include <algorithm>
#include <bit>
#include <cstdint>
#include <span>
#include <string_view>
#include <vector>

#include "rapido/base/exported.hpp"
#include "rapido/value/entries.hpp"

namespace rapido RAPIDO_EXPORTED {

constexpr std::uint64_t mixed(std::uint64_t bits) {
    // The finalizer of MurmurHash3.
    bits = (bits ^ (bits >> 33U)) * 0xff51afd7ed558ccdULL;
    bits = (bits ^ (bits >> 33U)) * 0xc4ceb9fe1a85ec53ULL;
    return bits ^ (bits >> 33U);
}

/// What tells an entry apart, as one number.
inline std::uint64_t key_of(const Value& value) {
    if (value.type() != Value::Type::text) {
        const bool is_real = value.type() == Value::Type::float64;
        return is_real ? mixed(std::bit_cast<std::uint64_t>(value.number())) : mixed(value.uint64());
    }
    std::uint64_t hash = 14695981039346656037ULL;  // FNV-1a
    for (const char c : value.text())
        hash = (hash ^ static_cast<unsigned char>(c)) * 1099511628211ULL;
    return hash;
}

inline constexpr std::size_t no_field = static_cast<std::size_t>(-1);

inline std::size_t find_field(const detail::EntryReader* reader, std::string_view name) {
    if (reader == nullptr || name.empty()) return no_field;
    const auto& fields = reader->fields();
    const auto found =
        std::find_if(fields.begin(), fields.end(), [name](const auto& field) { return field.name == name; });
    return found != fields.end() ? static_cast<std::size_t>(found - fields.begin()) : no_field;
}

/// Reads the places of entries that have them as the fields `x`, `y` and perhaps `z`. False where they have none.
inline bool read_fields_as_positions(const detail::EntryReader& reader, std::span<WorldPoint> into) {
    const std::size_t x = find_field(&reader, "x"), y = find_field(&reader, "y"), z = find_field(&reader, "z");
    if (x == no_field || y == no_field) return false;
    static thread_local std::vector<double> numbers;
    numbers.resize(into.size());
    const auto read = [&](std::size_t field, double WorldPoint::*part) {
        reader.read_numbers(field, numbers);
        for (std::size_t entry = 0; entry < into.size(); ++entry)
            into[entry].*part = numbers[entry];
    };
    std::fill(into.begin(), into.end(), WorldPoint{});
    read(x, &WorldPoint::x);
    read(y, &WorldPoint::y);
    if (z != no_field) read(z, &WorldPoint::z);
    return true;
}

}  // namespace rapido
