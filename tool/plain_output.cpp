#include "tool/plain_output.hpp"

namespace rapido::tool {
namespace {

constexpr unsigned char first_of_c1 = 0xc2;  // of U+0080 to U+009F in UTF-8; 0xc2 begins printable characters, too
constexpr bool is_second_of_c1(unsigned char c) {
    return c >= 0x80 && c <= 0x9f;
}

}  // namespace

bool PlainBuffer::put_escaped(unsigned char c) {
    constexpr char digits[] = "0123456789abcdef";
    const char text[] = {'\\', 'x', digits[c >> 4], digits[c & 15]};
    return into_->sputn(text, sizeof text) == sizeof text;
}

bool PlainBuffer::put_waiting() {
    if (waiting_ < 0) return true;
    const auto c = static_cast<unsigned char>(waiting_);
    waiting_ = -1;
    return c == '\r' ? put_escaped(c) : into_->sputc(static_cast<char>(c)) != traits_type::eof();
}

bool PlainBuffer::put(char given) {
    const auto c = static_cast<unsigned char>(given);
    if (waiting_ == '\r' && c == '\n') {
        waiting_ = -1;
        return into_->sputn("\r\n", 2) == 2;
    }
    if (waiting_ == first_of_c1 && is_second_of_c1(c)) {
        waiting_ = -1;
        return put_escaped(c);
    }
    if (!put_waiting()) return false;
    if (c == '\r' || c == first_of_c1) {
        waiting_ = c;
        return true;
    }
    const bool is_control = (c < 0x20 && c != '\n' && c != '\t') || c == 0x7f;
    return is_control ? put_escaped(c) : into_->sputc(given) != traits_type::eof();
}

PlainBuffer::int_type PlainBuffer::overflow(int_type c) {
    if (traits_type::eq_int_type(c, traits_type::eof())) return traits_type::not_eof(c);
    return put(traits_type::to_char_type(c)) ? c : traits_type::eof();
}

std::streamsize PlainBuffer::xsputn(const char* text, std::streamsize count) {
    for (std::streamsize i = 0; i < count; ++i)
        if (!put(text[i])) return i;
    return count;
}

int PlainBuffer::sync() {
    return put_waiting() ? into_->pubsync() : -1;
}

}  // namespace rapido::tool
