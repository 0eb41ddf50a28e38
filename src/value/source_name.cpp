#include "value/source_name.hpp"

#include <algorithm>
#include <array>

namespace rapido {

std::string_view fault_of_name(std::string_view name) {
    const auto is_letter = [](char c) { return (c >= 'a' && c <= 'z') || (c >= 'A' && c <= 'Z') || c == '_'; };
    const auto may_stand = [&](char c) {
        return is_letter(c) || (c >= '0' && c <= '9') || c == '-' || c == '.' || c == ':' || c == '#';
    };
    constexpr std::array<std::string_view, 7> reserved{"and", "or", "not", "none", "true", "false", "screen"};
    if (name.empty()) return "is empty";
    if (!is_letter(name.front())) return "does not begin with a letter or '_'";
    if (!std::all_of(name.begin(), name.end(), may_stand))
        return "has other signs than letters, digits, '_' and '-', and '.' between its parts";
    if (name.ends_with('.') || name.find("..") != std::string_view::npos) return "lacks a part";
    if (std::find(reserved.begin(), reserved.end(), name.substr(0, name.find('.'))) != reserved.end())
        return "begins with a word that has a meaning of its own";
    return {};
}

}  // namespace rapido
