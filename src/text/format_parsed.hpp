// A pattern after parsing.
#pragma once

#include "rapido/text/format.hpp"
#include "text/spec.hpp"

namespace rapido {

inline constexpr std::size_t most_fields = 8;

struct Format::Parsed {
    /// A field and the literal text before it.
    struct Piece {
        std::string literal;
        FieldName field = FieldName::value;
        std::size_t named = 0;
        Spec spec;
        std::string spec_text;
        std::size_t offset = 0;
    };
    /// The beginning or the end of a styled piece, or an image, in the literal text before a field or in the tail.
    struct Markup {
        enum class Kind : std::uint8_t { begin, end, image };
        Kind kind = Kind::begin;
        std::size_t before = 0;  ///< the field; the count of fields for the tail
        std::size_t at = 0;      ///< bytes into the literal text
        std::size_t offset = 0;  ///< bytes into the pattern
        std::string name;
    };
    std::vector<Piece> pieces;
    std::string tail;
    std::vector<Markup> markup;
    bool has_sign = false;  ///< one of the fields is the sign of the first number
};

}  // namespace rapido
