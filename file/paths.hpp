// Paths as texts: UTF-8 on every system, also where the library takes a text for one of the old code page.
#pragma once

#include <algorithm>
#include <filesystem>
#include <string>
#include <string_view>

#include "rapido/base/exported.hpp"

namespace rapido RAPIDO_EXPORTED {

inline std::filesystem::path path_of(const std::string& text) {
    return std::filesystem::path(std::u8string(text.begin(), text.end()));
}

inline std::string text_of(const std::filesystem::path& path) {
    const std::u8string text = path.u8string();
    return {text.begin(), text.end()};
}

/// What stands between the folders of a path as it is written.
#ifdef _WIN32
inline constexpr std::string_view path_dividers = "/\\";
#else
inline constexpr std::string_view path_dividers = "/";
#endif

/// Whether a path leads into a folder; both without links.
inline bool is_within(const std::filesystem::path& path, const std::filesystem::path& folder) {
    return std::mismatch(folder.begin(), folder.end(), path.begin(), path.end()).first == folder.end();
}

}  // namespace rapido
