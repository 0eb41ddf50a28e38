// What a pattern says of values.
#pragma once

#include "rapido/text.hpp"
#include "support.hpp"

namespace rapido::test {

inline std::string shown(std::string_view pattern, const FieldValues& values, const TextOptions& options = {},
                         const NumberStyle* numbers = nullptr) {
    const Result<Format> format = Format::parse(pattern);
    if (!format) return "problem: " + format.problems().front().message;
    FormattedText text(*format, options);
    text.set_numbers(numbers);
    text.update(values);
    return std::string(text.text());
}

}  // namespace rapido::test
