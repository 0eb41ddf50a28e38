#include "tool/progress.hpp"

#include <cmath>
#include <iostream>

#include "tool/system.hpp"

namespace rapido::tool {

Progress::Progress(std::string what)
    : what_(std::move(what)), is_seen_(is_error_terminal()), begun_(std::chrono::steady_clock::now()) {}

Progress::~Progress() {
    clear();
}

void Progress::at(double part) {
    if (!is_seen_) return;
    const auto now = std::chrono::steady_clock::now();
    // What is done in a moment needs no line, and ten times a second is enough.
    if (now - begun_ < std::chrono::milliseconds(500) || now - written_ < std::chrono::milliseconds(100)) return;
    written_ = now;
    clear();
    write_to_error(what_ + ": " + std::to_string(std::lround(part * 100)) + " %");
    is_written_ = true;
}

void Progress::clear() {
    if (is_written_) write_to_error("\r\033[K");
    is_written_ = false;
}

}  // namespace rapido::tool
