// The command line of each command: its options, and where they go.
#pragma once

#include <CLI/CLI.hpp>

#include "tool/check.hpp"
#include "tool/drive.hpp"
#include "tool/files.hpp"
#include "tool/preview.hpp"
#include "tool/why.hpp"

namespace rapido::tool {

/// Reads `1280x800`: 1 to 16384 pixels each way. Throws the library's error for anything else, under the name of the option.
Size read_size(const std::string& text, const std::string& option);
/// Reads `LOW..HIGH` or `A@B`, two numbers with something between them.
std::array<double, 2> read_pair(const std::string& text, const std::string& between, const std::string& option,
                                const std::string& expected);
/// Ranges of the library let what is no finite number through.
std::string check_finite(const std::string& text);

/// What every command that replays a trace takes.
void add_replay(CLI::App& command, ReplayOptions& options);
CLI::App* add_check(CLI::App& app, CheckOptions& options);
CLI::App* add_preview(CLI::App& app, PreviewOptions& options);
CLI::App* add_drive(CLI::App& app, DriveOptions& options);
CLI::App* add_header(CLI::App& app, HeaderCommand& command);
CLI::App* add_format(CLI::App& app, FormatCommand& command);
CLI::App* add_schema(CLI::App& app);
CLI::App* add_why(CLI::App& app, WhyOptions& options);

}  // namespace rapido::tool
