#include "text/plain_text.hpp"

#include <algorithm>

namespace rapido {
namespace {

/// How many decimal digits a number has.
int count_digits(std::uint64_t number) {
    int count = 1;
    for (; number >= 10000; number /= 10000)
        count += 4;
    return count + (number >= 10 ? 1 : 0) + (number >= 100 ? 1 : 0) + (number >= 1000 ? 1 : 0);
}

/// Writes a number in front of `end`, where its digits are known to fit; gives where it begins.
char* write_backwards(char* end, std::uint64_t number) {
    for (; number >= 100; number /= 100)
        std::memcpy(end -= 2, &digit_pairs[2 * (number % 100)], 2);
    if (number < 10) {
        *--end = static_cast<char>('0' + number);
        return end;
    }
    std::memcpy(end -= 2, &digit_pairs[2 * number], 2);
    return end;
}

/// Division by a constant is a multiplication: worth an instance for each of the few scales.
template <std::uint64_t Scale>
void write_fixed(char* end, std::uint64_t digits) {
    std::uint64_t fraction = digits % Scale;
    for (std::uint64_t scale = Scale; scale > 1; scale /= 10, fraction /= 10)
        *--end = static_cast<char>('0' + fraction % 10);
    *--end = '.';
    write_backwards(end, digits / Scale);
}

}  // namespace

PlainText::PlainText(std::string_view before, std::string_view after, int places)
    : size_(static_cast<std::uint8_t>(before.size() + after.size())),
      before_size_(static_cast<std::uint8_t>(before.size())),
      after_size_(static_cast<std::uint8_t>(after.size())),
      places_(static_cast<std::int8_t>(places)) {
    std::memcpy(text_.data(), before.data(), before.size());
    std::memcpy(text_.data() + before.size(), after.data(), after.size());
}

void PlainText::write(std::uint64_t digits, bool negative) {
    digits_ = digits;
    negative_ = negative;
    shown_ = true;

    const int point = places_ > 0 ? places_ + 1 : 0;
    const int whole = places_ > 0 ? std::max(count_digits(digits) - places_, 1) : count_digits(digits);
    const auto length = static_cast<std::size_t>(whole + point + (negative ? 1 : 0));
    char* const at = text_.data() + before_size_;
    char* const end = at + length;
    // What stands after the number moves only where the number becomes longer or shorter.
    const auto size = static_cast<std::uint8_t>(before_size_ + length + after_size_);
    if (size != size_) std::memmove(end, text_.data() + size_ - after_size_, after_size_);
    size_ = size;
    if (negative) *at = '-';
    switch (places_) {
        case 1:
            write_fixed<10>(end, digits);
            break;
        case 2:
            write_fixed<100>(end, digits);
            break;
        case 3:
            write_fixed<1000>(end, digits);
            break;
        default:
            write_backwards(end, digits);
    }
}

}  // namespace rapido
