// Reading floating-point numbers.
#pragma once

#include <charconv>

#if defined(_LIBCPP_VERSION) && _LIBCPP_VERSION < 200000
#include <fast_float/fast_float.h>
#endif

#include "rapido/base/exported.hpp"

namespace rapido RAPIDO_EXPORTED {

/// What `std::from_chars` does, also with a standard library that has it for integers alone.
inline std::from_chars_result read_real(const char* first, const char* last, double& number) {
#if defined(_LIBCPP_VERSION) && _LIBCPP_VERSION < 200000
    const auto [end, error] = fast_float::from_chars(first, last, number);
    return {end, error};
#else
    return std::from_chars(first, last, number);
#endif
}

}  // namespace rapido
