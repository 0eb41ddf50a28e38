// The manual page and the completion of a shell, made out of the declared command line, so that none of them can go stale.
#pragma once

#include <iosfwd>

namespace CLI {
class App;
}

namespace rapido::tool {

/// The page of section 1, in the macros of man(7).
void write_manual(const CLI::App& app, std::ostream& to);
/// A function for bash, to be sourced or put under share/bash-completion/completions.
void write_completion(const CLI::App& app, std::ostream& to);

}  // namespace rapido::tool
