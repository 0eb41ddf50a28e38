// Paths as texts: UTF-8 on every system, also where the library takes a text for one of the old code page.
#pragma once

#include <filesystem>
#include <string>

#include "rapido/base/exported.hpp"

namespace rapido RAPIDO_EXPORTED {

inline std::filesystem::path path_of(const std::string& text) {
    return std::filesystem::path(std::u8string(text.begin(), text.end()));
}

inline std::string text_of(const std::filesystem::path& path) {
    const std::u8string text = path.u8string();
    return {text.begin(), text.end()};
}

}  // namespace rapido
