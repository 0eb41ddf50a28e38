// Files that are written whole, or not at all.
#pragma once

#include <functional>
#include <string>

#include "rapido/base/problem.hpp"

namespace rapido::tool {

/// Writes a file. `write` is given a path and writes everything there: a new file beside the old one, which then takes its place, so that
/// whoever reads the file sees the old one or the new one, and nothing is lost where the disk is full. A link is followed to the file that
/// it leads to; the mode of a file stays; a file that is read-only is refused, also for root. A file with several names is written in
/// place, as it would lose the others: then `note` says so. What is no file (a pipe, a terminal) is written as it is.
Status write_whole(const std::string& path, const std::function<Status(const std::string& path)>& write,
                   std::string* note = nullptr);

/// That a file cannot be written, and why.
Problem unwritable(const std::string& path, const std::string& why);

/// Writes a text as such a file.
Status write_whole(const std::string& path, const std::string& text, std::string* note = nullptr);

}  // namespace rapido::tool
