// The fonts that are installed on the machine. A build with RAPIDO_SYSTEM_FONTS off knows none, and needs no fontconfig.
#pragma once

#include <memory>
#include <optional>
#include <string>
#include <string_view>

namespace rapido {

/// The letters of ASCII in lower case, as families are compared.
std::string lower_case(std::string_view text);
/// Whether a family is one of the generic names of CSS: `sans-serif`, `serif`, `monospace`.
bool is_generic(std::string_view family);

struct FontFile {
    std::string path;
    int index = 0;
};

/// Looks for the fonts when it is first asked: a program that names its own alone never does.
class InstalledFonts {
 public:
    InstalledFonts();
    ~InstalledFonts();
    InstalledFonts(const InstalledFonts&) = delete;
    InstalledFonts& operator=(const InstalledFonts&) = delete;

    /// Whether a family, in lower case, is installed.
    bool has(const std::string& lower_family) const;
    /// The file for a family, or for a generic name; nothing where it is not installed.
    std::optional<FontFile> match(const std::string& family, int weight, bool italic) const;

 private:
    struct State;
    const State& state() const;
    mutable std::unique_ptr<State> state_;
};

}  // namespace rapido
