// How long a message is to be read.
#pragma once

#include <string_view>

#include "rapido/base/exported.hpp"
#include "rapido/base/units.hpp"

namespace rapido RAPIDO_EXPORTED {

/// How long a message stays on screen, computed from the length of its text.
struct ReadingTime {
    double speed = 12;     ///< characters a second
    Seconds attention{1};  ///< time until the player has noticed the message
    Seconds shortest{2};
    Seconds longest{8};

    /// `attention` and a second for each `speed` characters (code points, spaces too), within the two limits. Subtitles
    /// are made for 12 to 20 characters a second; a player has other things to look at, hence the slow end.
    Seconds of(std::string_view text) const;
    friend RAPIDO_EXPORTED bool operator==(const ReadingTime&, const ReadingTime&);
};

}  // namespace rapido
