#include "base/utf8.hpp"

#include <cstdint>
#include <initializer_list>
#include <utility>

namespace rapido::utf8 {
namespace {

/// The length of the well-formed sequence at the front (Unicode 15, table 3-7), or zero.
std::size_t well_formed(std::string_view text) {
    const auto byte = [&](std::size_t at) {
        return at < text.size() ? static_cast<std::uint8_t>(text[at]) : std::uint8_t{0};
    };
    const auto continues = [&](std::size_t at, unsigned low = 0x80, unsigned high = 0xbf) {
        return byte(at) >= low && byte(at) <= high;
    };
    const unsigned lead = byte(0);
    if (text.empty()) return 0;
    if (lead < 0x80) return 1;
    if (lead >= 0xc2 && lead <= 0xdf) return continues(1) ? 2 : 0;
    if (lead >= 0xe0 && lead <= 0xef) {
        const bool second = continues(1, lead == 0xe0 ? 0xa0U : 0x80U, lead == 0xed ? 0x9fU : 0xbfU);
        return second && continues(2) ? 3 : 0;
    }
    if (lead >= 0xf0 && lead <= 0xf4) {
        const bool second = continues(1, lead == 0xf0 ? 0x90U : 0x80U, lead == 0xf4 ? 0x8fU : 0xbfU);
        return second && continues(2) && continues(3) ? 4 : 0;
    }
    return 0;
}

}  // namespace

std::size_t front_length(std::string_view text) {
    const std::size_t length = well_formed(text);
    return length == 0 ? 1 : length;
}

char32_t front(std::string_view text) {
    const std::size_t bytes = well_formed(text);
    if (bytes == 0) return 0xfffd;
    const auto byte = [&](std::size_t at) { return static_cast<char32_t>(static_cast<std::uint8_t>(text[at])); };
    if (bytes == 1) return byte(0);
    char32_t c = byte(0) & (0xffU >> (bytes + 1));
    for (std::size_t i = 1; i < bytes; ++i)
        c = c << 6U | (byte(i) & 0x3fU);
    return c;
}

std::size_t length(std::string_view text) {
    std::size_t count = 0;
    for (; !text.empty(); ++count)
        text.remove_prefix(front_length(text));
    return count;
}

std::size_t front_columns(std::string_view text) {
    if (well_formed(text) < 2) return text.empty() ? 0 : 1;
    const char32_t c = front(text);
    const auto is_in = [c](std::initializer_list<std::pair<char32_t, char32_t>> ranges) {
        for (const auto& [first, last] : ranges)
            if (c >= first && c <= last) return true;
        return false;
    };
    if (is_in({{0x300, 0x36f}, {0x200d, 0x200d}, {0x20d0, 0x20ff}, {0xfe00, 0xfe0f}, {0xfe20, 0xfe2f}})) return 0;
    return is_in({{0x1100, 0x115f},
                  {0x2329, 0x232a},
                  {0x2e80, 0x303e},
                  {0x3040, 0xa4cf},
                  {0xac00, 0xd7a3},
                  {0xf900, 0xfaff},
                  {0xfe10, 0xfe19},
                  {0xfe30, 0xfe6f},
                  {0xff00, 0xff60},
                  {0xffe0, 0xffe6},
                  {0x1f300, 0x1f64f},
                  {0x1f900, 0x1f9ff},
                  {0x20000, 0x2fffd},
                  {0x30000, 0x3fffd}})
               ? 2
               : 1;
}

std::size_t columns(std::string_view text) {
    std::size_t count = 0;
    for (; !text.empty(); text.remove_prefix(front_length(text)))
        count += front_columns(text);
    return count;
}

std::string encode(char32_t c) {
    const auto part = [c](unsigned shift, unsigned lead, unsigned mask) {
        return static_cast<char>(lead | ((c >> shift) & mask));
    };
    if (c < 0x80) return {static_cast<char>(c)};
    if (c < 0x800) return {part(6, 0xc0, 0x1f), part(0, 0x80, 0x3f)};
    if (c < 0x10000) return {part(12, 0xe0, 0x0f), part(6, 0x80, 0x3f), part(0, 0x80, 0x3f)};
    return {part(18, 0xf0, 0x07), part(12, 0x80, 0x3f), part(6, 0x80, 0x3f), part(0, 0x80, 0x3f)};
}

bool is_valid(std::string_view text) {
    while (!text.empty()) {
        const std::size_t step = well_formed(text);
        if (step == 0) return false;
        text.remove_prefix(step);
    }
    return true;
}

std::string shortened(std::string_view word) {
    constexpr std::size_t longest = 80;
    if (word.size() <= longest) return std::string(word);
    std::size_t end = longest;
    while (end > 0 && (static_cast<std::uint8_t>(word[end]) & 0xc0U) == 0x80U)
        --end;
    return std::string(word.substr(0, end)) + "…";
}

int line_of_fault(std::string_view text) {
    int line = 1;
    while (!text.empty()) {
        const std::size_t step = well_formed(text);
        if (step == 0) return line;
        line += text.front() == '\n' ? 1 : 0;
        text.remove_prefix(step);
    }
    return 0;
}

}  // namespace rapido::utf8
