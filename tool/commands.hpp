// The command line of each command: its options, and where they go.
#pragma once

#include <CLI/CLI.hpp>

#include "tool/check.hpp"

namespace rapido::tool {

/// Reads `1280x800`: 1 to 16384 pixels each way. Throws the library's error for anything else, under the name of the option.
Size read_size(const std::string& text, const std::string& option);
/// Reads `LOW..HIGH` or `A@B`, two numbers with something between them.
std::array<double, 2> read_pair(const std::string& text, const std::string& between,
                                const std::string& option, const std::string& expected);
/// Ranges of the library let what is no finite number through.
std::string check_finite(const std::string& text);

CLI::App* add_check(CLI::App& app, CheckOptions& options);

}  // namespace rapido::tool
