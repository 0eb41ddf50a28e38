// A text with live values in it.
#pragma once

#include <string>

#include "rapido/base/color.hpp"
#include "rapido/layout/place.hpp"
#include "rapido/motion/motion.hpp"
#include "rapido/text/format.hpp"
#include "rapido/value/source.hpp"

namespace rapido {

/// A counter, a score, a time, a caption: a pattern and what it shows. It is as large as its text.
struct Text {
    std::string id;
    Source value;                           ///< what `{}` shows; a caption has none
    Source max;                             ///< what `{max}` shows
    std::string format = "{}";              ///< see `Format`
    std::string placeholder = "--";         ///< in place of a field that has no value
    Rounding rounding = Rounding::nearest;  ///< of the digits that are not shown
    Motion motion;                          ///< how the shown value follows
    Place place;
    std::string inside;  ///< the panel that it stands in; empty is the screen
    Color color = rgb(0xf2efe6);
    std::string font;  ///< a family; empty is the HUD's
    int weight = 400;  ///< 1 to 1000, as in CSS
    float size = 24;   ///< design pixels per em
    int layer = 0;     ///< higher is drawn later
    Source visible;    ///< shown while true; without a source, always
    friend bool operator==(const Text&, const Text&) = default;
};

}  // namespace rapido
