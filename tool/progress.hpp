// How far long work has come, on a terminal only.
#pragma once

#include <chrono>
#include <cstddef>
#include <iosfwd>
#include <string>

namespace rapido::tool {

/// Writes one line on standard error again and again, and takes it away at the end; nothing where that is no terminal.
class Progress {
 public:
    explicit Progress(std::string what);
    ~Progress();
    Progress(const Progress&) = delete;
    Progress& operator=(const Progress&) = delete;

    /// So much of the whole is done, 0 to 1.
    void at(double part);

 private:
    void clear();
    std::string what_;
    bool is_seen_ = false;  ///< somebody looks at it
    bool is_written_ = false;
    std::chrono::steady_clock::time_point begun_{}, written_{};
};

}  // namespace rapido::tool
