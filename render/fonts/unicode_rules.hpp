// What texts of all scripts need beside a font: their order, their lines and their letters. A build with RAPIDO_UNICODE off needs no
// ICU, and goes by simpler rules.
#pragma once

#include <memory>
#include <string>
#include <string_view>
#include <vector>

#include "rapido/layout/measurer.hpp"

namespace rapido {

/// A part of a text that goes in one direction.
struct DirectedPart {
    std::size_t begin = 0, end = 0;  ///< bytes
    bool right_to_left = false;
};

class UnicodeRules {
 public:
    UnicodeRules();
    ~UnicodeRules();
    UnicodeRules(const UnicodeRules&) = delete;
    UnicodeRules& operator=(const UnicodeRules&) = delete;

    /// The parts of a text in the order in which they stand, from left to right: by the bidirectional algorithm (UAX #9), its first strong
    /// letter deciding. Without ICU, what is written from right to left goes from there to the next letter or digit that is not.
    const std::vector<DirectedPart>& order(std::string_view text);
    /// Appends where lines may end (UAX #14); false where that is not known.
    bool find_line_ends(std::string_view text, std::vector<LineEnd>& ends);
    /// Appends where characters end, as a reader counts them (UAX #29); false where that is not known.
    bool find_character_ends(std::string_view text, std::vector<std::size_t>& ends);
    /// Other letters, by the rules of a language; empty where these are not known.
    std::string transformed(std::string_view text, TextTransform transform, std::string_view language) const;

 private:
    struct State;
    std::unique_ptr<State> state_;
};

}  // namespace rapido
