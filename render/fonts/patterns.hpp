// Texts that were shaped before, but for their digits.
#pragma once

#include <array>
#include <cstdint>
#include <optional>
#include <string>
#include <string_view>
#include <unordered_map>
#include <vector>

#include "render/fonts/faces.hpp"

namespace rapido {

/// Numbers need no shaping anew: where the digits of a font stand the same beside each other, whichever they are, a text is its pattern, which was
/// shaped once with each digit in all places, and the digits that stand in it now. Whatever kerns, joins or changes its look by what is beside
/// it, as letters do, is that of the pattern.
class Patterns {
 public:
    explicit Patterns(Faces& faces) : faces_(faces) {}

    /// A glyph in units of the font, from where the pattern begins.
    struct Placed {
        std::uint32_t id;
        std::int32_t x, y;
    };
    struct Pattern {
        std::vector<Placed> glyphs;     ///< with each digit in turn, or once where there is none
        std::vector<std::uint16_t> at;  ///< the byte of a digit, for each glyph; `no_digit` for all others
        std::int64_t width = 0;
    };
    static constexpr std::uint16_t no_digit = UINT16_MAX;

    /// The pattern of a simple text in a face, once it has come more than once; null for what is to be shaped. `font` tells faces apart.
    const Pattern* find(FontId font, const Face& face, std::string_view text);
    /// The glyphs of a text, as they are placed.
    template <class Add>
    static void place(const Pattern& pattern, std::string_view text, Add add) {
        const std::size_t count = pattern.at.size();
        for (std::size_t i = 0; i < count; ++i) {
            const std::size_t digit =
                pattern.at[i] == no_digit ? 0 : static_cast<std::size_t>(text[pattern.at[i]] - '0');
            add(pattern.glyphs[digit * count + i]);
        }
    }

 private:
    static constexpr std::size_t longest = 128;  ///< bytes of a text
    static constexpr std::size_t most = 1'024;   ///< patterns: 16 MB of the longest with digits

    struct Hash {
        using is_transparent = void;
        std::size_t operator()(std::string_view key) const { return std::hash<std::string_view>{}(key); }
    };
    bool has_even_digits(FontId font, const Face& face);
    std::optional<Pattern> made(FontId font, const Face& face, std::string_view text);
    std::optional<Pattern> with_digits(const Face& face, std::string_view text);
    /// Appends the glyphs of a text; false where one is not there. The bytes that they are of go into `at`.
    bool append(const Face& face, std::string_view text, Pattern& into, std::vector<std::uint32_t>& clusters);

    Faces& faces_;
    std::unordered_map<std::string, std::optional<Pattern>, Hash, std::equal_to<>>
        known_;                             ///< by font and text; nothing for what is none
    std::vector<std::size_t> asked_;        ///< the latest hashes of what came once
    std::vector<std::int8_t> even_digits_;  ///< by font; less than zero while unknown
    std::string key_, variant_;
    std::vector<std::uint32_t> clusters_, other_clusters_;
};

}  // namespace rapido
