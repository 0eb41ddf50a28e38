// What comes from files is written to a terminal as text, never as commands to it.
#pragma once

#include <iostream>
#include <streambuf>

namespace rapido::tool {

/// Writes control characters (C0 and C1 of ISO/IEC 6429) as `\x1b`, all but tabulators and the ends of lines, and passes all others on.
class PlainBuffer final : public std::streambuf {
 public:
    explicit PlainBuffer(std::streambuf* into) : into_(into) {}

 protected:
    int_type overflow(int_type c) override;
    std::streamsize xsputn(const char* text, std::streamsize count) override;
    int sync() override;

 private:
    bool put(char c);
    bool put_escaped(unsigned char c);
    bool put_waiting();

    std::streambuf* into_;
    int waiting_ = -1;  ///< a carriage return, or the first byte of what may be a control character of C1
};

/// Standard output and standard error as plain text, for as long as it lives.
class PlainStreams {
 public:
    PlainStreams()
        : out_(std::cout.rdbuf()),
          err_(std::cerr.rdbuf()),
          old_out_(std::cout.rdbuf(&out_)),
          old_err_(std::cerr.rdbuf(&err_)) {}
    ~PlainStreams() {
        std::cout.flush();
        std::cerr.flush();
        std::cout.rdbuf(old_out_);
        std::cerr.rdbuf(old_err_);
    }
    PlainStreams(const PlainStreams&) = delete;
    PlainStreams& operator=(const PlainStreams&) = delete;

 private:
    PlainBuffer out_, err_;
    std::streambuf *old_out_, *old_err_;
};

}  // namespace rapido::tool
