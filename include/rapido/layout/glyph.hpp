// The glyphs of a text.
#pragma once

#include <cstdint>

#include "rapido/base/exported.hpp"
#include "rapido/base/units.hpp"

namespace rapido RAPIDO_EXPORTED {

/// A font of one measurer, by its number there.
using FontId = std::uint32_t;

/// One glyph of a shaped text: where it is drawn, from the start of the baseline, at the size asked for.
struct Glyph {
    std::uint32_t id = 0;
    Point offset{};
    FontId font = 0;  ///< the one that has it: not always the one asked for
    friend bool operator==(const Glyph&, const Glyph&) = default;
};

/// How the letters of a text change, as CSS `text-transform` says.
enum class TextTransform : std::uint8_t { none, uppercase, lowercase };

}  // namespace rapido
