#include "text/plain_text.hpp"

#include <charconv>
#include <cstring>

#include "text/decimal.hpp"

namespace rapido {
namespace {

/// Division by a constant is a multiplication: worth a line for each of the few scales.
template <std::uint64_t Scale>
char* write_fixed(char* at, std::uint64_t digits, int places) {
    at = std::to_chars(at, at + 20, digits / Scale).ptr;
    *at++ = '.';
    std::uint64_t fraction = digits % Scale;
    for (int i = places - 1; i >= 0; --i, fraction /= 10)
        at[i] = static_cast<char>('0' + fraction % 10);
    return at + places;
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

PlainText::Update PlainText::update(const Value& value) {
    std::uint64_t digits = 0;
    bool negative = false;
    if (places_ < 0) {
        if (!value.is_integer()) return Update::unfit;
        negative = value.type() == Value::Type::int64 && value.int64() < 0;
        digits = negative ? 0 - value.uint64() : value.uint64();
    } else {
        if (value.type() != Value::Type::float64) return Update::unfit;
        const auto decimal = round_decimal(value.real(), false, places_, Rounding::nearest);
        if (!decimal) return Update::unfit;
        digits = decimal->digits;
        negative = decimal->negative;
    }
    if (shown_ && digits == digits_ && negative == negative_) return Update::same;
    digits_ = digits;
    negative_ = negative;
    shown_ = true;

    std::array<char, 24> number;
    char* at = number.data();
    if (negative) *at++ = '-';
    switch (places_) {
        case 1:
            at = write_fixed<10>(at, digits, 1);
            break;
        case 2:
            at = write_fixed<100>(at, digits, 2);
            break;
        case 3:
            at = write_fixed<1000>(at, digits, 3);
            break;
        default:
            at = std::to_chars(at, at + 20, digits).ptr;
    }
    const auto length = static_cast<std::size_t>(at - number.data());
    char* const begin = text_.data() + before_size_;
    const auto size = static_cast<std::uint8_t>(before_size_ + length + after_size_);
    // What stands after the number moves only where the number becomes longer or shorter.
    if (size != size_) std::memmove(begin + length, text_.data() + size_ - after_size_, after_size_);
    std::memcpy(begin, number.data(), length);
    size_ = size;
    return Update::changed;
}

}  // namespace rapido
