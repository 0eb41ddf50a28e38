#include "rapido/base/problem.hpp"

namespace rapido {

std::string to_string(const Problem& problem) {
    std::string text;
    if (!problem.location.file.empty()) text += problem.location.file + ":";
    if (problem.location.line > 0) {
        text += std::to_string(problem.location.line) + ":";
        if (problem.location.column > 0) text += std::to_string(problem.location.column) + ":";
    }
    if (!text.empty()) text += ' ';
    text += "error: " + problem.message;
    if (!problem.hint.empty()) text += "; " + problem.hint;
    return text;
}

}  // namespace rapido
