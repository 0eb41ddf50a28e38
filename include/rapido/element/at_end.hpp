// What rides at the end of a fill.
#pragma once

#include <string>

#include "rapido/base/exported.hpp"

namespace rapido RAPIDO_EXPORTED {

/// An element whose middle lies where the fill of another one ends: a spark, a runner, the number itself, a whole panel. It is looked for
/// among the siblings first, then by an end of its path. It is laid out as if it were alone, so it best stands in a free panel or on the
/// screen; it is hidden with the fill, and moves with its effects.
struct AtEnd {
    std::string element{};  ///< empty for none
    bool turned =
        true;  ///< whether it is turned to look along the way of the fill, as if it looked to the right by itself
    friend bool operator==(const AtEnd&, const AtEnd&) = default;
};

}  // namespace rapido
