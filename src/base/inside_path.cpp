#include "base/inside_path.hpp"

#include <algorithm>
#include <array>
#include <string>

namespace rapido {
namespace {

/// Names that Windows opens as a device, whatever stands behind a point.
bool is_device(std::string_view part) {
    std::string name(part.substr(0, part.find('.')));
    while (name.ends_with(' '))
        name.pop_back();
    for (char& c : name)
        if (c >= 'A' && c <= 'Z') c = static_cast<char>(c - 'A' + 'a');
    constexpr std::array<std::string_view, 4> plain{"con", "prn", "aux", "nul"};
    if (std::find(plain.begin(), plain.end(), name) != plain.end()) return true;
    return name.size() == 4 && (name.starts_with("com") || name.starts_with("lpt")) && name[3] >= '1' && name[3] <= '9';
}

}  // namespace

bool stays_inside(std::string_view path) {
    constexpr std::string_view dividers = "/\\";
    if (path.empty() || dividers.find(path.front()) != std::string_view::npos) return false;
    if (path.find(':') != std::string_view::npos || path.find('\0') != std::string_view::npos) return false;
    while (!path.empty()) {
        const std::string_view part = path.substr(0, path.find_first_of(dividers));
        if (part == ".." || is_device(part)) return false;
        path.remove_prefix(std::min(part.size() + 1, path.size()));
    }
    return true;
}

}  // namespace rapido
