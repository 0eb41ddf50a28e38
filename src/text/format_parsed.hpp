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
    std::vector<Piece> pieces;
    std::string tail;
    bool has_sign = false;  ///< one of the fields is the sign of the first number
};

}  // namespace rapido
