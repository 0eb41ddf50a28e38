#include "rapido/fonts.hpp"

#include <fontconfig/fontconfig.h>
#include <ft2build.h>
#include <hb-ot.h>
#include <hb.h>
#include <unicode/locid.h>
#include <unicode/ubidi.h>
#include <unicode/ubrk.h>
#include <unicode/unistr.h>
#include <unicode/uscript.h>
#include <unicode/utext.h>
#include <unicode/utf8.h>

#include <algorithm>
#include <array>
#include <cstdlib>
#include <deque>
#include <filesystem>
#include <map>
#include <optional>
#include <set>
#include <string>
#include <utility>
#include FT_FREETYPE_H
#include FT_TRUETYPE_TABLES_H

#include "render/fonts/owner.hpp"

namespace rapido {
namespace {

using HbFont = std::unique_ptr<hb_font_t, Destroyer<hb_font_t, hb_font_destroy>>;
using HbBuffer = std::unique_ptr<hb_buffer_t, Destroyer<hb_buffer_t, hb_buffer_destroy>>;
using LinesPtr = std::unique_ptr<UBreakIterator, Destroyer<UBreakIterator, ubrk_close>>;
void close_text(UText* text) {
    utext_close(text);
}
using UTextPtr = std::unique_ptr<UText, Destroyer<UText, close_text>>;
using BidiPtr = std::unique_ptr<UBiDi, Destroyer<UBiDi, ubidi_close>>;
void done_with_face(FT_Face face) {
    FT_Done_Face(face);
}

using FcPatternPtr = std::unique_ptr<FcPattern, Destroyer<FcPattern, FcPatternDestroy>>;
using FcConfigPtr = std::unique_ptr<FcConfig, Destroyer<FcConfig, FcConfigDestroy>>;

using FacePtr = std::unique_ptr<FT_FaceRec_, Destroyer<FT_FaceRec_, done_with_face>>;

/// One face of one file, read once.
struct LoadedFace {
    FacePtr face;
    HbFont shaper;
    float units_per_em = 1;
    FontMetrics metrics;
    hb_position_t digit_advance = 0;  ///< of the widest digit
};

/// A font that the game has added.
struct AddedFont {
    std::string family;  ///< in lower case
    int weight = 400;
    bool italic = false;
    const LoadedFace* face = nullptr;
};

/// A family, or a list of them: a face, and the fonts for characters that it does not have.
struct LoadedFont {
    const LoadedFace* face = nullptr;
    std::vector<FontId> others;
};

constexpr std::uintmax_t largest_font = 64'000'000;

/// So many families of a list are looked at.
constexpr int most_families = 16;

/// A part of a text in one font, one script and one direction.
struct Run {
    std::size_t begin = 0, end = 0;  ///< bytes
    FontId font = 0;
    UScriptCode script = USCRIPT_COMMON;
    bool right_to_left = false;
};

UChar32 next_character(std::string_view text, std::int32_t& at, std::int32_t end) {
    UChar32 c = 0;
#pragma GCC diagnostic push
#pragma GCC diagnostic ignored "-Wconversion"  // inside ICU's macro
    U8_NEXT_OR_FFFD(text.data(), at, end, c);
#pragma GCC diagnostic pop
    return c;
}

/// Nothing is seen of it, so no font must have it.
bool is_invisible(char32_t c) {
    return c < 0x20 || c == 0x7f || (c >= 0x200b && c <= 0x200f) || (c >= 0x2028 && c <= 0x202e) ||
           (c >= 0x2060 && c <= 0x206f) || (c >= 0xfe00 && c <= 0xfe0f) || c == 0xfeff;
}

/// May be written by any simple font from left to right, one glyph after the other.
bool is_simple(std::string_view text) {
    // Everything before the Hebrew block: Latin, Greek and Cyrillic, in one or two bytes.
    return std::all_of(text.begin(), text.end(), [](char c) { return static_cast<unsigned char>(c) < 0xd6; });
}

constexpr hb_feature_t tabular{HB_TAG('t', 'n', 'u', 'm'), 1, HB_FEATURE_GLOBAL_START, HB_FEATURE_GLOBAL_END};

bool is_digit(char c) {
    return c >= '0' && c <= '9';
}

/// Of the Latin letters, as fontconfig compares families.
std::string lower_case(std::string_view text) {
    std::string lower(text);
    for (char& c : lower)
        if (c >= 'A' && c <= 'Z') c = static_cast<char>(c - 'A' + 'a');
    return lower;
}

bool is_generic(std::string_view family) {
    constexpr std::array<std::string_view, 3> generic{"sans-serif", "serif", "monospace"};
    return std::find(generic.begin(), generic.end(), family) != generic.end();
}

/// Whether fontconfig found the family that was asked for, and not a substitute.
bool has_family(const FcPattern* match, const std::string& family) {
    FcChar8* name = nullptr;
    for (int i = 0; FcPatternGetString(match, FC_FAMILY, i, &name) == FcResultMatch; ++i)
        if (FcStrCmpIgnoreCase(name, reinterpret_cast<const FcChar8*>(family.c_str())) == 0) return true;
    return false;
}

}  // namespace

struct Fonts::State {
    FcConfigPtr config{FcInitLoadConfigAndFonts()};
    FT_Library freetype = nullptr;
    HbBuffer buffer{hb_buffer_create()};
    BidiPtr bidi{ubidi_open()};
    LinesPtr lines;
    UTextPtr utext;
    std::map<std::pair<std::string, int>, LoadedFace> faces;  ///< by file and index
    std::vector<LoadedFont> fonts;
    std::map<std::pair<std::string, int>, std::optional<FontId>>
        known;  ///< by families and weight, as asked for
    std::map<std::pair<std::string, int>, std::optional<FontId>> families;  ///< by one family and its weight
    std::set<std::string, std::less<>> installed;                           ///< families, in lower case
    std::vector<AddedFont> added;                                           ///< by the game
    std::deque<std::vector<std::byte>> added_bytes;                         ///< that faces read from
    std::u32string missing;
    std::vector<Run> runs;
    std::u16string wide;
    std::vector<std::size_t> bytes;  ///< where each unit of `wide` begins in the text, and its end

    State() {
        FT_Init_FreeType(&freetype);
        for (const FcSetName name : {FcSetSystem, FcSetApplication}) {
            const FcFontSet* const all = FcConfigGetFonts(config.get(), name);
            for (int i = 0; all != nullptr && i < all->nfont; ++i) {
                FcChar8* family = nullptr;
                for (int k = 0; FcPatternGetString(all->fonts[i], FC_FAMILY, k, &family) == FcResultMatch;
                     ++k)
                    installed.insert(lower_case(reinterpret_cast<const char*>(family)));
            }
        }
    }
    ~State() {
        faces.clear();
        FT_Done_FreeType(freetype);
    }
    State(const State&) = delete;
    State& operator=(const State&) = delete;

    /// Of text in one direction and script; nothing about it is given for the usual case.
    void shape(const LoadedFace& font, std::string_view text, const Run* run = nullptr) {
        hb_buffer_t* const to = buffer.get();
        hb_buffer_clear_contents(to);
        const std::size_t begin = run != nullptr ? run->begin : 0;
        const std::size_t end = run != nullptr ? run->end : text.size();
        hb_buffer_add_utf8(to, text.data(), static_cast<int>(text.size()), static_cast<unsigned>(begin),
                           static_cast<int>(end - begin));
        if (run != nullptr) {
            hb_buffer_set_direction(to, run->right_to_left ? HB_DIRECTION_RTL : HB_DIRECTION_LTR);
            hb_buffer_set_script(to, hb_script_from_string(uscript_getShortName(run->script), -1));
            hb_buffer_set_language(to, hb_language_from_string("und", -1));
        } else {
            hb_buffer_guess_segment_properties(to);
        }
        hb_shape(font.shaper.get(), to, &tabular, 1);
    }

    bool has(FontId id, char32_t c) const {
        hb_codepoint_t glyph = 0;
        return hb_font_get_nominal_glyph(fonts[id].face->shaper.get(), c, &glyph) != 0;
    }

    /// The first font of a list that has a character; the one before it for what has no look of its own.
    FontId font_of(FontId list, FontId before, char32_t c) {
        if (is_invisible(c)) return before;
        const bool is_mark = (hb_unicode_general_category(hb_unicode_funcs_get_default(), c) ==
                              HB_UNICODE_GENERAL_CATEGORY_NON_SPACING_MARK);
        if (is_mark && has(before, c)) return before;
        if (has(list, c)) return list;
        for (const FontId other : fonts[list].others)
            if (has(other, c)) return other;
        if (missing.find(c) == std::u32string::npos) missing.push_back(c);
        return list;
    }

    /// What was shaped last, at the end of the glyphs; gives where the pen is then.
    double append(FontId id, float size, std::string_view text, double pen, std::vector<Glyph>& glyphs) {
        const LoadedFace& font = *fonts[id].face;
        unsigned count = 0;
        const hb_glyph_info_t* const infos = hb_buffer_get_glyph_infos(buffer.get(), &count);
        const hb_glyph_position_t* const positions = hb_buffer_get_glyph_positions(buffer.get(), &count);
        const double scale = static_cast<double>(size) / static_cast<double>(font.units_per_em);
        // The pen counts in font units, so that a long text gathers no rounding.
        std::int64_t units = 0;
        for (unsigned i = 0; i < count; ++i) {
            // Every digit stands in the middle of the same room: fonts without the feature, and with a slip in
            // it, too.
            const bool digit = is_digit(text[infos[i].cluster]);
            const hb_position_t advance = digit ? font.digit_advance : positions[i].x_advance;
            const std::int64_t x = units + positions[i].x_offset + (advance - positions[i].x_advance) / 2;
            glyphs.push_back({infos[i].codepoint,
                              {static_cast<float>(pen + static_cast<double>(x) * scale),
                               static_cast<float>(-positions[i].y_offset * scale)},
                              id});
            units += advance;
        }
        return pen + static_cast<double>(units) * scale;
    }

    /// The parts of a text in the order in which they stand, from left to right.
    void split(FontId list, std::string_view text) {
        runs.clear();
        wide.clear();
        bytes.clear();
        const auto length = static_cast<std::int32_t>(text.size());
        for (std::int32_t i = 0; i < length;) {
            const auto begin = static_cast<std::size_t>(i);
            UChar32 c = next_character(text, i, length);
            if (c > 0xffff) {
                wide.push_back(U16_LEAD(c));
                bytes.push_back(begin);
                c = U16_TRAIL(c);
            }
            wide.push_back(static_cast<char16_t>(c));
            bytes.push_back(begin);
        }
        bytes.push_back(text.size());
        UErrorCode error = U_ZERO_ERROR;
        ubidi_setPara(bidi.get(), wide.data(), static_cast<std::int32_t>(wide.size()), UBIDI_DEFAULT_LTR,
                      nullptr, &error);
        const std::int32_t count = ubidi_countRuns(bidi.get(), &error);
        for (std::int32_t i = 0; U_SUCCESS(error) && i < count; ++i) {
            std::int32_t start = 0;
            std::int32_t units = 0;
            const bool backwards = ubidi_getVisualRun(bidi.get(), i, &start, &units) == UBIDI_RTL;
            const std::size_t first = runs.size();
            add_runs(list, text, bytes[static_cast<std::size_t>(start)],
                     bytes[static_cast<std::size_t>(start + units)], backwards);
            if (backwards) std::reverse(runs.begin() + static_cast<std::ptrdiff_t>(first), runs.end());
        }
    }

    /// The bytes from `begin` to `end`, which go in one direction, by font and script.
    void add_runs(FontId list, std::string_view text, std::size_t begin, std::size_t end, bool backwards) {
        const std::size_t first = runs.size();
        const auto length = static_cast<std::int32_t>(end);
        for (auto i = static_cast<std::int32_t>(begin); i < length;) {
            const auto at = static_cast<std::size_t>(i);
            UChar32 c = next_character(text, i, length);
            UErrorCode error = U_ZERO_ERROR;
            UScriptCode script = uscript_getScript(c, &error);
            const bool starts = runs.size() == first;
            const FontId font = font_of(list, starts ? list : runs.back().font, static_cast<char32_t>(c));
            const bool any_script = script <= USCRIPT_INHERITED;  // common, inherited
            if (!starts && font == runs.back().font &&
                (any_script || script == runs.back().script || runs.back().script == USCRIPT_COMMON)) {
                if (!any_script) runs.back().script = script;
                runs.back().end = static_cast<std::size_t>(i);
                continue;
            }
            if (any_script) script = USCRIPT_COMMON;
            runs.push_back({at, static_cast<std::size_t>(i), font, script, backwards});
        }
    }

    /// A face of a file; null if it cannot be read.
    const LoadedFace* load(const std::string& file, int index) {
        if (const auto read = faces.find({file, index}); read != faces.end()) return &read->second;
        FT_Face opened = nullptr;
        if (FT_New_Face(freetype, file.c_str(), index, &opened) != 0) return nullptr;
        return keep({file, index}, opened, hb_blob_create_from_file(file.c_str()));
    }

    const LoadedFace* keep(const std::pair<std::string, int>& key, FT_Face opened, hb_blob_t* blob) {
        const int index = key.second;
        LoadedFace& font = faces[key];
        font.face.reset(opened);
        hb_face_t* face = hb_face_create(blob, static_cast<unsigned>(index));
        font.shaper.reset(hb_font_create(face));
        hb_ot_font_set_funcs(font.shaper.get());
        font.units_per_em = static_cast<float>(hb_face_get_upem(face));
        hb_font_extents_t extents{};
        hb_font_get_h_extents(font.shaper.get(), &extents);
        font.metrics = {static_cast<float>(extents.ascender) / font.units_per_em,
                        static_cast<float>(-extents.descender) / font.units_per_em};
        shape(font, "0123456789");
        unsigned count = 0;
        const hb_glyph_position_t* const digits = hb_buffer_get_glyph_positions(buffer.get(), &count);
        for (unsigned i = 0; i < count; ++i)
            font.digit_advance = std::max(font.digit_advance, digits[i].x_advance);
        hb_face_destroy(face);
        hb_blob_destroy(blob);
        return &font;
    }

    FontId add(LoadedFont font) {
        fonts.push_back(std::move(font));
        return static_cast<FontId>(fonts.size() - 1);
    }

    /// The face that fontconfig takes for an installed family.
    const LoadedFace* match(const std::string& name, int weight, bool italic) {
        const FcPatternPtr pattern(FcPatternCreate());
        FcPatternAddString(pattern.get(), FC_FAMILY, reinterpret_cast<const FcChar8*>(name.c_str()));
        FcPatternAddDouble(pattern.get(), FC_WEIGHT, FcWeightFromOpenTypeDouble(weight));
        FcPatternAddInteger(pattern.get(), FC_SLANT, italic ? FC_SLANT_ITALIC : FC_SLANT_ROMAN);
        FcConfigSubstitute(config.get(), pattern.get(), FcMatchPattern);
        FcDefaultSubstitute(pattern.get());
        FcResult result = FcResultNoMatch;
        const FcPatternPtr found(FcFontMatch(config.get(), pattern.get(), &result));
        FcChar8* file = nullptr;
        int index = 0;
        if (found == nullptr || (!is_generic(name) && !has_family(found.get(), name)) ||
            FcPatternGetString(found.get(), FC_FILE, 0, &file) != FcResultMatch)
            return nullptr;
        FcPatternGetInteger(found.get(), FC_INDEX, 0, &index);
        return load(reinterpret_cast<const char*>(file), index);
    }

    /// The face of a font that was added which is nearest to what is asked for; null where none has this family.
    const LoadedFace* match_added(const std::string& lower_name, int weight, bool italic) const {
        const AddedFont* best = nullptr;
        const auto distance = [&](const AddedFont& font) {
            return std::abs(font.weight - weight) + (font.italic != italic ? 10'000 : 0);
        };
        for (const AddedFont& font : added)
            if (font.family == lower_name && (best == nullptr || distance(font) < distance(*best)))
                best = &font;
        return best != nullptr ? best->face : nullptr;
    }

    /// One family. Weights are told apart by steps of ten, so that no file can ask for ever new ones.
    std::optional<FontId> find_one(const std::string& name, int weight, bool italic) {
        const std::string lower = lower_case(name);
        weight = std::clamp((weight + 5) / 10 * 10, 1, 1000);
        const LoadedFace* const own = match_added(lower, weight, italic);
        if (own == nullptr && !is_generic(name) && !installed.contains(lower)) return std::nullopt;
        const auto [known_font, is_new] = families.try_emplace({lower, key_of(weight, italic)});
        if (!is_new) return known_font->second;
        const LoadedFace* face = own != nullptr ? own : match(name, weight, italic);
        // On a machine without fonts, those of the game stand for all others.
        if (face == nullptr && is_generic(name) && !added.empty())
            face = match_added(added.front().family, weight, italic);
        if (face != nullptr) known_font->second = add({face, {}});
        return known_font->second;
    }

    static int key_of(int weight, bool italic) { return weight * 2 + (italic ? 1 : 0); }

    /// Adds an opened face of the game's own under the name of its family.
    Status add_own(const std::string& name, FT_Face opened, hb_blob_t* blob) {
        if (opened->family_name == nullptr || (opened->face_flags & FT_FACE_FLAG_SCALABLE) == 0) {
            FT_Done_Face(opened);
            hb_blob_destroy(blob);
            return Problem{{name}, "is no font with outlines and a family", "", ProblemCode::unreadable};
        }
        const auto* const os2 = static_cast<const TT_OS2*>(FT_Get_Sfnt_Table(opened, FT_SFNT_OS2));
        AddedFont font{.family = lower_case(opened->family_name),
                       .weight = os2 != nullptr ? os2->usWeightClass : 400,
                       .italic = (opened->style_flags & FT_STYLE_FLAG_ITALIC) != 0,
                       .face = nullptr};
        font.face = keep({name, 0}, opened, blob);
        added.push_back(std::move(font));
        known.clear();
        families.clear();
        return {};
    }

    std::optional<FontId> find(std::string_view list, int weight, bool italic) {
        std::vector<FontId> found;
        std::string_view rest = list;
        for (int i = 0; i < most_families && !rest.empty(); ++i) {
            std::string_view family = rest.substr(0, rest.find(','));
            rest.remove_prefix(std::min(family.size() + 1, rest.size()));
            while (family.starts_with(' ') || family.starts_with('"'))
                family.remove_prefix(1);
            while (family.ends_with(' ') || family.ends_with('"'))
                family.remove_suffix(1);
            const auto font = find_one(std::string(family), weight, italic);
            if (font && std::find(found.begin(), found.end(), *font) == found.end()) found.push_back(*font);
        }
        if (found.empty()) return std::nullopt;
        if (found.size() == 1) return found.front();
        return add({fonts[found.front()].face, {found.begin() + 1, found.end()}});
    }
};

Fonts::Fonts() : state_(std::make_unique<State>()) {}
Fonts::~Fonts() = default;

std::optional<FontId> Fonts::find(std::string_view families, int weight, bool italic) {
    const std::pair key(std::string(families), State::key_of(weight, italic));
    const auto known = state_->known.find(key);
    if (known != state_->known.end()) return known->second;
    return state_->known.emplace(key, state_->find(families, weight, italic)).first->second;
}

Status Fonts::add_file(const std::string& path) {
    std::error_code error;
    const std::uintmax_t size = std::filesystem::file_size(path, error);
    if (error) return Problem{{path}, "cannot be read: " + error.message(), "", ProblemCode::unreadable};
    if (size > largest_font) return Problem{{path}, "is larger than 64 MB", "", ProblemCode::too_large};
    FT_Face opened = nullptr;
    if (FT_New_Face(state_->freetype, path.c_str(), 0, &opened) != 0)
        return Problem{
            {path}, "is no font that can be read", "use TrueType or OpenType", ProblemCode::unreadable};
    return state_->add_own(path, opened, hb_blob_create_from_file(path.c_str()));
}

Status Fonts::add_files(const std::string& folder, std::span<const std::string> files) {
    namespace fs = std::filesystem;
    Status first;
    for (const std::string& name : files) {
        std::error_code error, no_folder;
        const fs::path whole = fs::canonical(fs::path(folder) / name, error);
        const fs::path home = fs::canonical(folder, no_folder);
        const fs::path inside = whole.lexically_relative(home);
        const bool leaves = fs::path(name).is_absolute() || inside.empty() || *inside.begin() == "..";
        const Status added =
            error ? Status(Problem{{name}, "cannot be read: " + error.message(), "", ProblemCode::unreadable})
            : leaves ? Status(Problem{{name},
                                      "is not a path inside the folder of the HUD",
                                      "put the font beside the HUD file",
                                      ProblemCode::unreadable})
                     : add_file(whole.string());
        if (!added && first) first = added;
    }
    return first;
}

Status Fonts::add_memory(std::span<const std::byte> bytes) {
    if (bytes.size() > largest_font)
        return Problem{{}, "a font in memory is larger than 64 MB", "", ProblemCode::too_large};
    const std::vector<std::byte>& kept = state_->added_bytes.emplace_back(bytes.begin(), bytes.end());
    const std::string name = "font " + std::to_string(state_->added_bytes.size()) + " in memory";
    FT_Face opened = nullptr;
    if (FT_New_Memory_Face(state_->freetype, reinterpret_cast<const FT_Byte*>(kept.data()),
                           static_cast<FT_Long>(kept.size()), 0, &opened) != 0) {
        state_->added_bytes.pop_back();
        return Problem{{name}, "cannot be read", "use TrueType or OpenType", ProblemCode::unreadable};
    }
    return state_->add_own(
        name, opened,
        hb_blob_create(reinterpret_cast<const char*>(kept.data()), static_cast<unsigned>(kept.size()),
                       HB_MEMORY_MODE_READONLY, nullptr, nullptr));
}

void Fonts::find_line_ends(std::string_view text, std::vector<LineEnd>& ends) {
    UErrorCode error = U_ZERO_ERROR;
    if (state_->lines == nullptr) state_->lines.reset(ubrk_open(UBRK_LINE, "", nullptr, 0, &error));
    const auto length = static_cast<std::int64_t>(text.size());
    state_->utext.reset(utext_openUTF8(state_->utext.release(), text.data(), length, &error));
    ubrk_setUText(state_->lines.get(), state_->utext.get(), &error);
    if (U_FAILURE(error)) return TextMeasurer::find_line_ends(text, ends);
    for (std::int32_t at = ubrk_next(state_->lines.get()); at != UBRK_DONE;
         at = ubrk_next(state_->lines.get()))
        ends.push_back(
            {static_cast<std::size_t>(at), ubrk_getRuleStatus(state_->lines.get()) >= UBRK_LINE_HARD &&
                                               text[static_cast<std::size_t>(at) - 1] != ' '});
    // The end of a text is none that it must have.
    if (!ends.empty() && ends.back().at == text.size() && !text.ends_with('\n')) ends.back().must = false;
}

std::string Fonts::transformed(std::string_view text, TextTransform transform, std::string_view language) {
    if (transform == TextTransform::none) return std::string(text);
    UErrorCode error = U_ZERO_ERROR;
    const icu::Locale locale =
        icu::Locale::forLanguageTag({language.data(), static_cast<std::int32_t>(language.size())}, error);
    icu::UnicodeString letters =
        icu::UnicodeString::fromUTF8({text.data(), static_cast<std::int32_t>(text.size())});
    std::string changed;
    (transform == TextTransform::uppercase ? letters.toUpper(locale) : letters.toLower(locale))
        .toUTF8String(changed);
    return changed;
}

FontMetrics Fonts::metrics(FontId font) {
    return state_->fonts[font].face->metrics;
}

float Fonts::shape(FontId font, float size, std::string_view text, std::vector<Glyph>& glyphs) {
    State& state = *state_;
    glyphs.clear();
    double pen = 0;
    if (is_simple(text)) {
        state.shape(*state.fonts[font].face, text);
        pen = state.append(font, size, text, 0, glyphs);
        const bool all_there =
            std::none_of(glyphs.begin(), glyphs.end(), [](const Glyph& glyph) { return glyph.id == 0; });
        if (all_there) return static_cast<float>(pen);
        glyphs.clear();
        pen = 0;
    }
    state.split(font, text);
    for (const Run& run : state.runs) {
        state.shape(*state.fonts[run.font].face, text, &run);
        pen = state.append(run.font, size, text, pen, glyphs);
    }
    return static_cast<float>(pen);
}

std::u32string Fonts::take_missing() {
    return std::exchange(state_->missing, {});
}

void* Fonts::face(FontId font) const {
    return state_->fonts[font].face->face.get();
}

}  // namespace rapido
