// What the tool asks of the system that it runs on: for each system a file of its own.
#pragma once

#include <chrono>
#include <cstddef>
#include <optional>
#include <span>
#include <string>
#include <string_view>

namespace rapido::tool {

/// Whether standard error is a terminal that understands `\033[K`.
bool is_error_terminal();

/// Writes to standard error at once, past all buffers: for what is a command to a terminal.
void write_to_error(std::string_view text);

/// The path of the running program, in UTF-8; empty where the system does not say it.
std::string program_path();

/// Reads what has come on standard input, waiting for it at most as long as given. Returns the number of bytes that were read; 0 at the end of
/// the input; nothing where none has come yet.
std::optional<std::size_t> read_input(std::span<char> into, std::chrono::milliseconds longest);

}  // namespace rapido::tool
