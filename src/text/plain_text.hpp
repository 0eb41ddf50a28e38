// The text of one number and nothing special: what most texts on a HUD are, in one cache line.
#pragma once

#include <array>
#include <string_view>

#include "rapido/value/value.hpp"

namespace rapido {

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

    Update update(const Value& value);
    /// The next update writes, whatever was shown before.
    void forget() { shown_ = false; }

    std::string_view text() const { return {text_.data(), size_}; }

 private:
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
