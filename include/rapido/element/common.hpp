// What several kinds of element share.
#pragma once

#include <cstdint>

namespace rapido {

/// What becomes of an element when its value does: an enemy dies, a level unloads.
enum class WhenNoValue : std::uint8_t {
    placeholder,  ///< it stays, with its placeholder
    hide,         ///< it is hidden until there is a value again
    remove,       ///< it is removed when the value that it had is gone
};

/// From `low` to `high`; nothing is declared while they are equal.
struct Limits {
    double low = 0;
    double high = 0;
    friend bool operator==(const Limits&, const Limits&) = default;
};

}  // namespace rapido
