// UTF-8: the only encoding inside Rapido.
#pragma once

#include <cstddef>
#include <string>
#include <string_view>

#include "rapido/base/exported.hpp"

namespace rapido RAPIDO_EXPORTED {
namespace utf8 {

/// How many bytes the code point at the front of `text` takes; 1 for a byte that begins none.
std::size_t front_length(std::string_view text);

/// The code point at the front; U+FFFD for a byte that begins none.
char32_t front(std::string_view text);

/// How many code points `text` holds; a byte that belongs to none counts as one.
std::size_t length(std::string_view text);

/// How many columns `text` takes by the estimate of ISO C++ ([format.string.std]): two for a wide East Asian character or a picture, none
/// for a mark that is combined with the one before.
std::size_t columns(std::string_view text);
/// The same for the code point at the front.
std::size_t front_columns(std::string_view text);

/// One code point.
std::string encode(char32_t c);

/// Whether `text` is well formed: no stray bytes, overlong forms, surrogates or values above U+10FFFF.
bool is_valid(std::string_view text);

/// A word for a message: its first eighty bytes and an ellipsis where it is longer.
std::string shortened(std::string_view word);

/// The line, from 1, of the first byte that is not well formed; zero where all are.
int line_of_fault(std::string_view text);

}  // namespace utf8
}  // namespace rapido
