// For games whose texts go in one direction, and that count the libraries that they need.
#include <hb.h>

#include <algorithm>

#include "base/utf8.hpp"
#include "render/fonts/unicode_rules.hpp"

namespace rapido {
namespace {

enum class Direction { left, right, either };

/// By the script and the general category that HarfBuzz knows of a character.
Direction direction_of(char32_t c) {
    hb_unicode_funcs_t* const unicode = hb_unicode_funcs_get_default();
    if (hb_unicode_general_category(unicode, c) == HB_UNICODE_GENERAL_CATEGORY_DECIMAL_NUMBER) return Direction::right;
    const hb_script_t script = hb_unicode_script(unicode, c);
    if (script == HB_SCRIPT_COMMON || script == HB_SCRIPT_INHERITED) return Direction::either;
    return hb_script_get_horizontal_direction(script) == HB_DIRECTION_RTL ? Direction::left : Direction::right;
}

bool is_letter(char32_t c) {
    const hb_script_t script = hb_unicode_script(hb_unicode_funcs_get_default(), c);
    return script != HB_SCRIPT_COMMON && script != HB_SCRIPT_INHERITED;
}

}  // namespace

struct UnicodeRules::State {
    std::vector<DirectedPart> parts;
};

UnicodeRules::UnicodeRules() : state_(std::make_unique<State>()) {}
UnicodeRules::~UnicodeRules() = default;

const std::vector<DirectedPart>& UnicodeRules::order(std::string_view text) {
    std::vector<DirectedPart>& parts = state_->parts;
    parts.clear();
    bool whole_goes_left = false, has_letter = false;
    for (std::size_t i = 0; i < text.size();) {
        const std::size_t next = i + utf8::front_length(text.substr(i));
        const char32_t c = utf8::front(text.substr(i));
        const Direction direction = direction_of(c);
        if (!has_letter && is_letter(c)) {
            has_letter = true;
            whole_goes_left = direction == Direction::left;
        }
        const bool left = direction == Direction::left;
        if (parts.empty() || (direction != Direction::either && parts.back().right_to_left != left))
            parts.push_back({i, next, left});
        parts.back().end = next;
        i = next;
    }
    if (whole_goes_left) std::reverse(parts.begin(), parts.end());
    return parts;
}

bool UnicodeRules::find_line_ends(std::string_view /*text*/, std::vector<LineEnd>& /*ends*/) {
    return false;
}

bool UnicodeRules::find_character_ends(std::string_view /*text*/, std::vector<std::size_t>& /*ends*/) {
    return false;
}

std::string UnicodeRules::transformed(std::string_view /*text*/, TextTransform /*transform*/,
                                      std::string_view /*language*/) const {
    return {};
}

}  // namespace rapido
