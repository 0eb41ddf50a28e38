// What the TOML parser says, in our words, with a hint where the usual mistake is known.
#pragma once

#include <string>
#include <string_view>

#include "file/toml.hpp"
#include "rapido/base/problem.hpp"

namespace rapido {

Problem syntax_problem(const toml::parse_error& error, std::string_view text, const std::string& name);

}  // namespace rapido
