// The text of one number between two texts that stay: what most texts on a HUD are.
#pragma once

#include <array>
#include <cstring>
#include <memory>
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

/// How such a number is written: an integer as it is, or a double rounded to nearest.
struct NumberLook {
    int places = -1;           ///< digits after the point, up to 3; negative shows integers
    int width = 0;             ///< padded in front up to so many characters, at most 64
    char fill = ' ';           ///< `0` stands behind the sign, as ISO C++ says
    bool zeros = false;        ///< the fill is the zero of the spec
    char plus = 0;             ///< what stands before a number that is not negative; zero is nothing
    bool grouped = false;      ///< in groups of three digits
    std::string_view group{};  ///< between two groups, at most three bytes
};

/// Writes the characters of a `FormattedText` where only one number of it changes: see `FormattedText::write_into`.
class NumberText {
 public:
    enum class Update : std::uint8_t {
        same,     ///< the characters are as before
        changed,  ///< they are others
        unfit,    ///< this value needs the general way, and nothing was done
    };

    /// The longest texts before and after the number.
    static constexpr std::size_t longest = 512;
    static constexpr int widest = 64;

    /// Begins anew, with the texts around the number and the number that is shown.
    void begin(std::string_view before, std::string_view after, const NumberLook& look, std::uint64_t digits,
               bool negative);
    /// Whether the characters stand here: from `begin` to `forget`.
    bool is_shown() const { return shown_; }
    void forget() { shown_ = false; }

    /// Unfit, too, before `begin` and after `forget`.
    Update update(const Value& value) {
        std::uint64_t digits = 0;
        bool negative = false;
        if (!shown_ || !read(value, digits, negative)) return Update::unfit;
        if (digits == digits_ && negative == negative_) return Update::same;
        if (!write_last_digits(digits, negative)) write(digits, negative);
        ++times_made_;
        return Update::changed;
    }

    std::string_view text() const { return {text_.get(), size_}; }
    std::uint32_t times_made() const { return times_made_; }

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
        if (negative != negative_) return false;
        char* const end = text_.get() + size_ - after_size_;
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

    std::unique_ptr<char[]> text_;
    std::uint64_t digits_ = 0;  ///< what is visible of the number
    std::uint16_t capacity_ = 0;
    std::uint16_t size_ = 0;
    std::uint16_t before_size_ = 0;
    std::uint16_t after_size_ = 0;
    std::uint32_t times_made_ = 0;
    std::int8_t places_ = -1;
    std::uint8_t width_ = 0;
    char fill_ = ' ';
    char plus_ = 0;
    std::array<char, 3> group_{};
    std::uint8_t group_size_ : 2 = 0;
    bool grouped_ : 1 = false;
    bool zeros_ : 1 = false;
    bool negative_ : 1 = false;
    bool shown_ : 1 = false;
};

}  // namespace rapido
