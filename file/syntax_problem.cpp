#include "file/syntax_problem.hpp"

#include <algorithm>
#include <cctype>

namespace rapido {
namespace {

std::string_view line_of(std::string_view text, int line) {
    for (int i = 1; i < line && !text.empty(); ++i)
        text.remove_prefix(std::min(text.find('\n'), text.size() - 1) + 1);
    return text.substr(0, text.find('\n'));
}

/// Whether the value of a line is a word without quotes.
bool has_bare_word(std::string_view line) {
    const std::size_t equals = line.find('=');
    if (equals == std::string_view::npos) return false;
    std::string_view value = line.substr(equals + 1);
    value.remove_prefix(std::min(value.find_first_not_of(" \t[{"), value.size()));
    for (const std::string_view known : {"true", "false", "inf", "nan"})
        if (value.starts_with(known)) return false;
    return !value.empty() &&
           (std::isalpha(static_cast<unsigned char>(value[0])) != 0 || value[0] == '!' || value[0] == '#');
}

}  // namespace

Problem syntax_problem(const toml::parse_error& error, std::string_view text, const std::string& name) {
    const toml::source_region& at = error.source();
    const auto line = static_cast<int>(at.begin.line);
    return {{name, line, static_cast<int>(at.begin.column)},
            std::string(error.description()),
            has_bare_word(line_of(text, line)) ? "a text stands in quotes, as in value = \"plane.water\"" : "",
            ProblemCode::syntax};
}

}  // namespace rapido
