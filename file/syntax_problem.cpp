#include "file/syntax_problem.hpp"

#include <algorithm>
#include <cctype>
#include <optional>
#include <string>

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

struct Cause {
    std::string message, hint;
};

/// What is usually meant by a line that is no TOML, of which the reader has said this.
std::optional<Cause> cause_of(std::string_view line, std::string_view said) {
    const auto has = [](std::string_view text, std::string_view part) {
        return text.find(part) != std::string_view::npos;
    };
    for (const std::string_view quote : {"\u201c", "\u201d", "\u201e", "\u2018", "\u2019"})
        if (has(line, quote) && has(said, "could not determine"))
            return Cause{"a curly quote does not begin a text", "write straight quotes, as in \"text\""};
    if (has_bare_word(line) && has(said, "could not determine"))
        return Cause{"a word without quotes", "a text stands in quotes, as in value = \"plane.water\""};
    if (has(said, "control characters") && has(said, "string"))
        return Cause{"a text in this line has no closing quote", "a text ends in the line in which it begins"};
    if (has(said, "inline table") && (has(said, "\\n") || has(said, "end-of-file")))
        return Cause{"a table in braces goes on in the next line",
                     "write it in one line, or as a table of its own below, such as [element.place]"};
    if (has(said, "expected '='") && has(said, "saw ':'")) return Cause{"a key is followed by ':'", "write '='"};
    if (has(said, "saw ','"))
        return Cause{"a comma stands behind a value",
                     "commas stand between the parts of a list, and of a table in braces, only"};
    if (has(said, "saw '''"))
        return Cause{"a single quote ends the text before its end",
                     "write a text with a single quote in it in double quotes"};
    return std::nullopt;
}

}  // namespace

Problem syntax_problem(const toml::parse_error& error, std::string_view text, const std::string& name) {
    const toml::source_region& at = error.source();
    const auto line = static_cast<int>(at.begin.line);
    if (const std::optional<Cause> cause = cause_of(line_of(text, line), error.description()))
        return {{name, line, static_cast<int>(at.begin.column)}, cause->message, cause->hint, ProblemCode::syntax};
    return {{name, line, static_cast<int>(at.begin.column)},
            std::string(error.description()),
            has_bare_word(line_of(text, line)) ? "a text stands in quotes, as in value = \"plane.water\"" : "",
            ProblemCode::syntax};
}

}  // namespace rapido
