#include <fontconfig/fontconfig.h>

#include <set>

#include "render/fonts/faces.hpp"
#include "render/fonts/installed_fonts.hpp"

namespace rapido {
namespace {

using FcPatternPtr = std::unique_ptr<FcPattern, Destroyer<FcPattern, FcPatternDestroy>>;
using FcConfigPtr = std::unique_ptr<FcConfig, Destroyer<FcConfig, FcConfigDestroy>>;

/// Whether fontconfig found the family that was asked for, and not a substitute.
bool has_family(const FcPattern* match, const std::string& family) {
    FcChar8* name = nullptr;
    for (int i = 0; FcPatternGetString(match, FC_FAMILY, i, &name) == FcResultMatch; ++i)
        if (FcStrCmpIgnoreCase(name, reinterpret_cast<const FcChar8*>(family.c_str())) == 0) return true;
    return false;
}

}  // namespace

struct InstalledFonts::State {
    FcConfigPtr config{FcInitLoadConfigAndFonts()};
    std::set<std::string> families;  ///< in lower case

    State() {
        for (const FcSetName name : {FcSetSystem, FcSetApplication}) {
            const FcFontSet* const all = FcConfigGetFonts(config.get(), name);
            for (int i = 0; all != nullptr && i < all->nfont; ++i) {
                FcChar8* family = nullptr;
                for (int k = 0; FcPatternGetString(all->fonts[i], FC_FAMILY, k, &family) == FcResultMatch; ++k)
                    families.insert(lower_case(reinterpret_cast<const char*>(family)));
            }
        }
    }
};

InstalledFonts::InstalledFonts() = default;

InstalledFonts::~InstalledFonts() = default;

const InstalledFonts::State& InstalledFonts::state() const {
    if (state_ == nullptr) state_ = std::make_unique<State>();
    return *state_;
}

bool InstalledFonts::has(const std::string& lower_family) const {
    return state().families.contains(lower_family);
}

std::optional<FontFile> InstalledFonts::match(const std::string& family, int weight, bool italic) const {
    const FcPatternPtr pattern(FcPatternCreate());
    FcPatternAddString(pattern.get(), FC_FAMILY, reinterpret_cast<const FcChar8*>(family.c_str()));
    FcPatternAddDouble(pattern.get(), FC_WEIGHT, FcWeightFromOpenTypeDouble(weight));
    FcPatternAddInteger(pattern.get(), FC_SLANT, italic ? FC_SLANT_ITALIC : FC_SLANT_ROMAN);
    FcConfigSubstitute(state().config.get(), pattern.get(), FcMatchPattern);
    FcDefaultSubstitute(pattern.get());
    FcResult result = FcResultNoMatch;
    const FcPatternPtr found(FcFontMatch(state().config.get(), pattern.get(), &result));
    FcChar8* path = nullptr;
    if (found == nullptr || (!is_generic(family) && !has_family(found.get(), family)) ||
        FcPatternGetString(found.get(), FC_FILE, 0, &path) != FcResultMatch)
        return std::nullopt;
    FontFile file{reinterpret_cast<const char*>(path), 0};
    FcPatternGetInteger(found.get(), FC_INDEX, 0, &file.index);
    return file;
}

}  // namespace rapido
