#include "text/number_text.hpp"

#include <algorithm>

namespace rapido {
namespace {

/// Any number that is read has room: twenty digits with a point and a sign, and six separators of three bytes.
constexpr std::size_t longest_number = 22 + 18;

/// Writes a number in front of `end`; gives where it begins.
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

char* write_grouped(char* end, std::uint64_t number, std::string_view group) {
    for (; number >= 1000; number /= 1000) {
        std::uint64_t last = number % 1000;
        for (int i = 0; i < 3; ++i, last /= 10)
            *--end = static_cast<char>('0' + last % 10);
        std::memcpy(end -= group.size(), group.data(), group.size());
    }
    return write_backwards(end, number);
}

/// Division by a constant is a multiplication: worth an instance for each of the few scales.
template <std::uint64_t Scale>
std::uint64_t write_fraction(char*& end, std::uint64_t digits) {
    std::uint64_t fraction = digits % Scale;
    for (std::uint64_t scale = Scale; scale > 1; scale /= 10, fraction /= 10)
        *--end = static_cast<char>('0' + fraction % 10);
    *--end = '.';
    return digits / Scale;
}

}  // namespace

void NumberText::begin(std::string_view before, std::string_view after, const NumberLook& look, std::uint64_t digits,
                       bool negative) {
    const std::size_t room = std::max<std::size_t>(look.grouped ? longest_number : longest_number - 18,
                                                   static_cast<std::size_t>(look.width));
    // What stands after the number is kept at the end, too: the number may become longer or shorter.
    const std::size_t needed = before.size() + room + 2 * after.size();
    if (needed > capacity_) {
        text_ = std::make_unique<char[]>(needed);
        capacity_ = static_cast<std::uint16_t>(needed);
    }
    before_size_ = static_cast<std::uint16_t>(before.size());
    after_size_ = static_cast<std::uint16_t>(after.size());
    std::copy(before.begin(), before.end(), text_.get());
    std::copy(after.begin(), after.end(), text_.get() + capacity_ - after.size());
    places_ = static_cast<std::int8_t>(look.places);
    width_ = static_cast<std::uint8_t>(look.width);
    fill_ = look.fill;
    zeros_ = look.zeros;
    plus_ = look.plus;
    grouped_ = look.grouped;
    group_size_ = static_cast<std::uint8_t>(look.group.size()) & 3U;
    std::copy(look.group.begin(), look.group.end(), group_.begin());
    write(digits, negative);
    shown_ = true;
}

void NumberText::write(std::uint64_t digits, bool negative) {
    digits_ = digits;
    negative_ = negative;

    std::array<char, longest_number> number;
    char* const end = number.data() + number.size();
    char* at = end;
    std::uint64_t whole = digits;
    switch (places_) {
        case 1:
            whole = write_fraction<10>(at, digits);
            break;
        case 2:
            whole = write_fraction<100>(at, digits);
            break;
        case 3:
            whole = write_fraction<1000>(at, digits);
            break;
        default:
            break;
    }
    at = grouped_ ? write_grouped(at, whole, {group_.data(), group_size_}) : write_backwards(at, whole);
    const char sign = negative ? '-' : plus_;
    const auto bytes = static_cast<std::size_t>(end - at);

    char* into = text_.get() + before_size_;
    if (width_ > 0) {
        // A separator is one character, whatever its bytes.
        const std::size_t shorter = grouped_ && group_size_ > 1
                                        ? static_cast<std::size_t>(std::count(at, end, group_[0])) * (group_size_ - 1U)
                                        : 0;
        const std::size_t characters = bytes - shorter + (sign != 0 ? 1 : 0);
        const std::size_t missing = width_ > characters ? width_ - characters : 0;
        if (zeros_ && sign != 0) *into++ = sign;
        into = std::fill_n(into, missing, zeros_ ? '0' : fill_);
        if (!zeros_ && sign != 0) *into++ = sign;
    } else if (sign != 0) {
        *into++ = sign;
    }
    into = std::copy(at, end, into);
    into = std::copy_n(text_.get() + capacity_ - after_size_, after_size_, into);
    size_ = static_cast<std::uint16_t>(into - text_.get());
}

}  // namespace rapido
