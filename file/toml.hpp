// toml++ for texts that nobody vouches for.
#pragma once

#define TOML_HEADER_ONLY 1
#define TOML_EXCEPTIONS 0
#define TOML_ENABLE_FORMATTERS 0
#include <toml++/impl/preprocessor.h>

// Some damaged files break its internal assertions, which would end a program, or let Clang assume what is
// not so. Without them the same places report an ordinary syntax error.
#undef TOML_ASSERT
#define TOML_ASSERT(expression) static_assert(true)
#undef TOML_ASSERT_ASSUME
#define TOML_ASSERT_ASSUME(expression) static_assert(true)

#include <toml++/toml.h>
