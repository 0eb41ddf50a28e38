#include "rapido/base/problem.hpp"

#include <array>

namespace rapido {

std::string_view to_string(Severity severity) {
    constexpr std::array<std::string_view, 3> words{"error", "warning", "note"};
    return words[static_cast<std::size_t>(severity)];
}

std::string_view to_string(ProblemCode code) {
    constexpr std::array<std::string_view, 39> words{
        "other",         "syntax",       "unreadable",     "unwritable",    "too_large",     "unknown_key",
        "missing_key",   "wrong_type",   "unknown_word",   "out_of_range",  "bad_id",        "duplicate",
        "bad_format",    "bad_easing",   "unknown_source", "unknown_name",  "circle",        "unfit",
        "contradiction", "fixed",        "missing_font",   "missing_glyph", "missing_image", "bad_call",
        "getter_threw",  "bad_step",     "too_much",       "wrong_size",    "no_room",       "overlap",
        "off_screen",    "low_contrast", "small_text",     "color_only",    "flicker",       "flash",
        "unreachable",   "unused",       "untranslated"};
    return words[static_cast<std::size_t>(code)];
}

std::string to_string(const Problem& problem) {
    std::string text;
    if (!problem.location.file.empty()) text += problem.location.file + ":";
    if (problem.location.line > 0) {
        text += std::to_string(problem.location.line) + ":";
        if (problem.location.column > 0) text += std::to_string(problem.location.column) + ":";
    }
    if (!text.empty()) text += ' ';
    text += std::string(to_string(problem.severity)) + ": " + problem.message;
    if (!problem.hint.empty()) text += "; " + problem.hint;
    return text;
}

}  // namespace rapido
