// Where there is no fontconfig: the folders in which Windows keeps the fonts of the machine and of its user.
#include <ft2build.h>
#include FT_FREETYPE_H
#include FT_MULTIPLE_MASTERS_H
#include FT_TRUETYPE_TABLES_H

#include <cstdlib>
#include <filesystem>
#include <fstream>
#include <map>
#include <vector>

#include "file/paths.hpp"
#include "render/fonts/faces.hpp"
#include "render/fonts/installed_fonts.hpp"

namespace rapido {
namespace {

struct Candidate {
    FontFile file;
    int weight = 400;
    bool is_italic = false;
};

/// How far a weight is from the one that is wanted, by the font matching of CSS Fonts 4: from 400 to 500 first what lies up to 500, then the
/// lighter ones; a light one has the lighter ones first, a heavy one the heavier ones.
int distance(int wanted, int weight) {
    constexpr int last = 10000;
    if (weight == wanted) return 0;
    if (wanted >= 400 && wanted <= 500 && weight > wanted && weight <= 500) return weight - wanted;
    const bool is_first = wanted <= 500 ? weight < wanted : weight > wanted;
    return std::abs(weight - wanted) + (is_first ? 1000 : last);
}

/// The folders of Windows, by its own variables.
std::vector<std::filesystem::path> folders() {
    std::vector<std::filesystem::path> all;
    for (const auto& [variable, inside] :
         {std::pair{L"WINDIR", "Fonts"}, std::pair{L"LOCALAPPDATA", "Microsoft/Windows/Fonts"}})
        if (const wchar_t* const root = _wgetenv(variable)) all.push_back(std::filesystem::path(root) / inside);
    return all;
}

/// What Windows has for the generic families of CSS, the first that is installed; where there is none of them, any.
const std::map<std::string, std::vector<std::string>, std::less<>> generic_families{
    {"sans-serif", {"segoe ui", "tahoma", "arial"}},
    {"serif", {"cambria", "times new roman"}},
    {"monospace", {"consolas", "courier new"}}};

/// Reads a file for FreeType as it asks, so that no more of a font is read than what says its names.
unsigned long read_some(FT_Stream stream, unsigned long offset, unsigned char* into, unsigned long count) {
    auto& file = *static_cast<std::ifstream*>(stream->descriptor.pointer);
    file.clear();
    file.seekg(static_cast<std::streamoff>(offset));
    if (count == 0) return file ? 0 : 1;
    file.read(reinterpret_cast<char*>(into), static_cast<std::streamsize>(count));
    return static_cast<unsigned long>(file.gcount());
}

}  // namespace

struct InstalledFonts::State {
    std::map<std::string, std::vector<Candidate>, std::less<>> families;  ///< in lower case

    State() {
        FT_Library library = nullptr;
        if (FT_Init_FreeType(&library) != 0) return;
        for (const std::filesystem::path& folder : folders()) {
            std::error_code error;
            const auto options = std::filesystem::directory_options::skip_permission_denied |
                                 std::filesystem::directory_options::follow_directory_symlink;
            for (std::filesystem::recursive_directory_iterator at(folder, options, error), end; !error && at != end;
                 at.increment(error)) {
                const std::string ending = lower_case(text_of(at->path().extension()));
                if (ending == ".ttf" || ending == ".otf" || ending == ".ttc" || ending == ".otc")
                    add(library, at->path());
            }
        }
        FT_Done_FreeType(library);
    }

    void add(FT_Library library, const std::filesystem::path& path) {
        std::error_code error;
        std::ifstream file(path, std::ios::binary);
        FT_StreamRec stream{};
        stream.size = static_cast<unsigned long>(std::filesystem::file_size(path, error));
        stream.descriptor.pointer = &file;
        stream.read = read_some;
        FT_Open_Args from{};
        from.flags = FT_OPEN_STREAM;
        from.stream = &stream;
        FT_Long count = 1;
        for (FT_Long index = 0; index < count; ++index) {
            FT_Face face = nullptr;
            if (error || FT_Open_Face(library, &from, index, &face) != 0) return;
            count = face->num_faces;
            if (face->family_name != nullptr && FT_IS_SCALABLE(face)) {
                Candidate font{.file = {text_of(path), static_cast<int>(index)},
                               .weight = (face->style_flags & FT_STYLE_FLAG_BOLD) != 0 ? 700 : 400,
                               .is_italic = (face->style_flags & FT_STYLE_FLAG_ITALIC) != 0};
                if (const auto* const os2 = static_cast<const TT_OS2*>(FT_Get_Sfnt_Table(face, FT_SFNT_OS2)))
                    if (os2->version != 0xFFFF && os2->usWeightClass >= 100) font.weight = os2->usWeightClass;
                add(lower_case(face->family_name), face, font);
            }
            FT_Done_Face(face);
        }
    }

    /// A variable font gives its named instances, each with its weight.
    void add(const std::string& family, FT_Face face, Candidate font) {
        std::vector<Candidate>& all = families[family];
        all.push_back(font);
        FT_MM_Var* variations = nullptr;
        if (!FT_HAS_MULTIPLE_MASTERS(face) || FT_Get_MM_Var(face, &variations) != 0) return;
        const int plain = font.file.index;
        for (FT_UInt i = 0; i < variations->num_namedstyles; ++i)
            for (FT_UInt axis = 0; axis < variations->num_axis; ++axis)
                if (variations->axis[axis].tag == FT_MAKE_TAG('w', 'g', 'h', 't')) {
                    font.file.index = plain | static_cast<int>((i + 1) << 16);
                    font.weight = static_cast<int>(variations->namedstyle[i].coords[axis] >> 16);
                    all.push_back(font);
                }
        FT_Done_MM_Var(face->glyph->library, variations);
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
    const auto& families = state().families;
    auto found = families.find(lower_case(family));
    if (const auto generic = generic_families.find(lower_case(family)); generic != generic_families.end()) {
        for (const std::string& name : generic->second)
            if (found == families.end()) found = families.find(name);
        if (found == families.end()) found = families.begin();
    }
    if (found == families.end()) return std::nullopt;
    const Candidate* best = nullptr;
    const auto rank = [&](const Candidate& font) {
        return distance(weight, font.weight) + (font.is_italic == italic ? 0 : 100000);
    };
    for (const Candidate& font : found->second)
        if (best == nullptr || rank(font) < rank(*best)) best = &font;
    return best->file;
}

}  // namespace rapido
