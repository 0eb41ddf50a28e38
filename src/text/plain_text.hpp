// The text of one number and nothing special: what most texts on a HUD are, in one cache line.
#pragma once

#include <array>
#include <cstring>
#include <string_view>

#include "rapido/value/value.hpp"
#include "text/decimal.hpp"

namespace rapido {

/// "00" to "99".
inline constexpr std::array<char, 200> digit_pairs = [] {
    std::array<char, 200> made{};
    for (std::size_t i = 0; i < 100; ++i) {
        made[2 * i] = static_cast<char>('0' + i / 10);
        made[2 * i + 1] = static_cast<char>('0' + i % 10);
    }
    return made;
}();

/// An integer as it is, or a double rounded to nearest with some places, between two short literals. It
/// writes the same characters as `FormattedText`, which makes it where it will do.
class PlainText {
 public:
    enum class Update : std::uint8_t { same, changed, unfit };  ///< unfit: this value needs the general way

    PlainText() = default;
    /// `places` below zero shows integers.
    PlainText(std::string_view before, std::string_view after, int places);

    /// The most bytes that the two literals may have together: any number fits beside them.
    static constexpr std::size_t longest_literals = 15;

    Update update(const Value& value) {
        std::uint64_t digits = 0;
        bool negative = false;
        if (!read(value, digits, negative)) return Update::unfit;
        if (shown_ && digits == digits_ && negative == negative_) return Update::same;
        if (!write_last_digits(digits, negative)) write(digits, negative);
        return Update::changed;
    }
    /// The next update writes, whatever was shown before.
    void forget() { shown_ = false; }

    std::string_view text() const { return {text_.data(), size_}; }

 private:
    /// The digits that the value has here; false where it needs the general way.
    bool read(const Value& value, std::uint64_t& digits, bool& negative) const {
        if (places_ >= 0) {
            if (value.type() != Value::Type::float64) return false;
            const std::optional<Decimal> decimal = round_nearest(value.real(), places_);
            if (!decimal) return false;
            digits = decimal->digits;
            negative = decimal->negative;
            return true;
        }
        if (!value.is_integer()) return false;
        negative = value.type() == Value::Type::int64 && value.int64() < 0;
        digits = negative ? 0 - value.uint64() : value.uint64();
        return true;
    }
    /// Most changes are one of the last digit of a fraction, or of the last two of an integer: the rest of
    /// the text is as it was.
    bool write_last_digits(std::uint64_t digits, bool negative) {
        if (!shown_ || negative != negative_) return false;
        char* const end = text_.data() + size_ - after_size_;
        if (places_ > 0) {
            if (digits / 10 != digits_ / 10) return false;
            end[-1] = static_cast<char>('0' + digits % 10);
        } else {
            if (digits < 100 || digits / 100 != digits_ / 100) return false;
            std::memcpy(end - 2, &digit_pairs[2 * (digits % 100)], 2);
        }
        digits_ = digits;
        return true;
    }
    void write(std::uint64_t digits, bool negative);

    std::uint64_t digits_ = 0;  ///< what is visible of the number
    std::uint8_t size_ = 0;
    std::uint8_t before_size_ = 0;
    std::uint8_t after_size_ = 0;
    std::int8_t places_ = -1;
    bool negative_ : 1 = false;
    bool shown_ : 1 = false;
    std::array<char, 35> text_{};  ///< the literals are always in it
};
static_assert(sizeof(PlainText) == 48);

}  // namespace rapido
