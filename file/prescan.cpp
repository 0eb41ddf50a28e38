#include "file/prescan.hpp"

#include <algorithm>

namespace rapido {
namespace {

constexpr int deepest = 64;
/// The parser takes about two microseconds for each.
constexpr int most_values = 300'000;

/// The position behind the string or comment that begins at `at`, or `at` where neither does.
std::size_t skip_opaque(std::string_view text, std::size_t at) {
    if (text[at] == '#') return std::min(text.find('\n', at), text.size());
    if (text[at] != '"' && text[at] != '\'') return at;
    const char quote = text[at];
    const std::string_view triple = quote == '"' ? "\"\"\"" : "'''";
    const bool multi_line = text.substr(at, 3) == triple;
    std::size_t i = at + (multi_line ? 3 : 1);
    for (; i < text.size(); ++i) {
        if (quote == '"' && text[i] == '\\') {
            ++i;
        } else if (multi_line) {
            if (text.substr(i, 3) == triple) return i + 3;
        } else if (text[i] == quote) {
            return i + 1;
        } else if (text[i] == '\n') {
            return i;  // the parser will report it
        }
    }
    return text.size();
}

}  // namespace

std::optional<Problem> prescan_toml(std::string_view text, const std::string& name, int most_keys) {
    int line = 1;
    int depth = 0;
    int parts = 1;
    int values = 0;
    int keys = 0;                   // of the table that the last header begins
    bool is_behind_equals = false;  // on this line
    for (std::size_t at = 0; at < text.size(); ++at) {
        if (const std::size_t behind = skip_opaque(text, at); behind != at) {
            line += static_cast<int>(std::count(text.begin() + static_cast<std::ptrdiff_t>(at),
                                                text.begin() + static_cast<std::ptrdiff_t>(behind), '\n'));
            at = behind - 1;
            continue;
        }
        switch (text[at]) {
            case '\n':
                ++line;
                parts = 1;
                is_behind_equals = is_behind_equals && depth > 0;
                break;
            case '[':
            case '{':
                if (depth == 0 && !is_behind_equals) keys = 0;
                ++depth;
                parts = 1;
                break;
            case ']':
            case '}':
                --depth;
                break;
            case '=':
                if (depth == 0) ++keys;
                is_behind_equals = true;
                [[fallthrough]];
            case ',':
                parts = 1;
                ++values;
                break;
            case '.':
                ++parts;
                break;
            default:
                break;
        }
        if (keys > most_keys)
            return Problem{{name, line, 0},
                           "a table has more than " + std::to_string(most_keys) + " keys before this line",
                           "",
                           ProblemCode::too_large};
        if (values > most_values)
            return Problem{
                {name, line, 0}, "more than 300000 values stand before this line", "", ProblemCode::too_large};
        if (depth > deepest || parts > deepest)
            return Problem{{name, line, 0},
                           depth > deepest ? "brackets are nested more than 64 deep" : "a key has more than 64 parts",
                           "",
                           ProblemCode::too_large};
    }
    return std::nullopt;
}

}  // namespace rapido
