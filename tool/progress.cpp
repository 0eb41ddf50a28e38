#include "tool/progress.hpp"

#include <unistd.h>

#include <cmath>
#include <iostream>

namespace rapido::tool {

namespace {

/// To the terminal itself: these are commands to it.
void write(const std::string& text) {
    std::cerr.flush();
    if (::write(2, text.data(), text.size()) < 0) return;  // then it is not seen
}

}  // namespace

Progress::Progress(std::string what)
    : what_(std::move(what)), is_seen_(::isatty(2) == 1), begun_(std::chrono::steady_clock::now()) {}

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
    write(what_ + ": " + std::to_string(std::lround(part * 100)) + " %");
    is_written_ = true;
}

void Progress::clear() {
    if (is_written_) write("\r\033[K");
    is_written_ = false;
}

}  // namespace rapido::tool
