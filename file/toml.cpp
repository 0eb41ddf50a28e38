// The TOML parser, compiled once.
#define TOML_IMPLEMENTATION
#include "file/toml.hpp"
