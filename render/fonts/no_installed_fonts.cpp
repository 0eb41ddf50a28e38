// For games that ship their fonts, and count the libraries that they need.
#include "render/fonts/installed_fonts.hpp"

namespace rapido {

struct InstalledFonts::State {};

InstalledFonts::InstalledFonts() = default;
InstalledFonts::~InstalledFonts() = default;

bool InstalledFonts::has(const std::string& /*lower_family*/) const {
    return false;
}

std::optional<FontFile> InstalledFonts::match(const std::string& /*family*/, int /*weight*/, bool /*italic*/) const {
    return std::nullopt;
}

}  // namespace rapido
