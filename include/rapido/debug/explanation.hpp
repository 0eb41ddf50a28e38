// Why an element shows what it shows.
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "rapido/base/exported.hpp"
#include "rapido/base/units.hpp"

namespace rapido RAPIDO_EXPORTED {

/// What a part of an explanation speaks of, in the order of a value's way to the screen.
enum class ExplainedPart : std::uint8_t { source, maximum, pace, motion, text, band, effect, visibility, layout };

/// A part of an explanation: one sentence.
struct ExplanationLine {
    ExplainedPart part = ExplainedPart::source;
    std::string says{};
    friend RAPIDO_EXPORTED bool operator==(const ExplanationLine&, const ExplanationLine&);
};

/// Why an element shows what it shows, from its source to its place, as it was after the last update: for a tester who looks at a screen
/// that seems wrong. Texts are English.
struct Explanation {
    std::string kind{};                    ///< "text"; empty for a dead element
    std::string id{};                      ///< the path
    std::string shows{};                   ///< the characters, or the fill
    std::optional<Nanoseconds> changed{};  ///< when its source last changed, on the real clock; nothing if it never did
    std::optional<Nanoseconds> held_until{};   ///< when pace lets the next change pass, on the clock of the element
    std::optional<Nanoseconds> moves_until{};  ///< when the motion in flight lands
    std::vector<std::string> bands{};          ///< those that its value is in, by id, or by number where they have none
    std::vector<std::string> effects{};        ///< those that run on it
    bool flash_limited = false;                ///< the flash limit holds it
    bool is_visible = false;                   ///< it is drawn, perhaps outside of the screen
    /// What its text lacks room for, as a sentence without a subject; empty where it has all that it needs.
    std::string lacks{};
    std::vector<ExplanationLine> lines{};

    /// All of it, a line each.
    std::string text() const;
};

/// Returns the word for a part: "source".
std::string_view to_string(ExplainedPart part);

}  // namespace rapido
