#include "rapido/fonts.hpp"

#include <fontconfig/fontconfig.h>
#include <ft2build.h>
#include <hb-ot.h>
#include <hb.h>

#include <algorithm>
#include <array>
#include <string>
#include FT_FREETYPE_H

namespace rapido {
namespace {

template <class T, void (*Destroy)(T*)>
struct Destroyer {
    void operator()(T* thing) const { Destroy(thing); }
};
using HbFont = std::unique_ptr<hb_font_t, Destroyer<hb_font_t, hb_font_destroy>>;
using HbBuffer = std::unique_ptr<hb_buffer_t, Destroyer<hb_buffer_t, hb_buffer_destroy>>;
using FcPatternPtr = std::unique_ptr<FcPattern, Destroyer<FcPattern, FcPatternDestroy>>;
using FcConfigPtr = std::unique_ptr<FcConfig, Destroyer<FcConfig, FcConfigDestroy>>;

struct LoadedFont {
    std::string file;
    int index = 0;
    FT_Face face = nullptr;
    HbFont shaper;
    float units_per_em = 1;
    FontMetrics metrics;
    hb_position_t digit_advance = 0;  ///< of the widest digit
};

constexpr hb_feature_t tabular{HB_TAG('t', 'n', 'u', 'm'), 1, HB_FEATURE_GLOBAL_START, HB_FEATURE_GLOBAL_END};

bool is_digit(char c) {
    return c >= '0' && c <= '9';
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
    std::vector<LoadedFont> fonts;

    State() { FT_Init_FreeType(&freetype); }
    ~State() {
        for (LoadedFont& font : fonts)
            FT_Done_Face(font.face);
        FT_Done_FreeType(freetype);
    }
    State(const State&) = delete;
    State& operator=(const State&) = delete;

    void shape(const LoadedFont& font, std::string_view text) {
        hb_buffer_clear_contents(buffer.get());
        hb_buffer_add_utf8(buffer.get(), text.data(), static_cast<int>(text.size()), 0,
                           static_cast<int>(text.size()));
        hb_buffer_guess_segment_properties(buffer.get());
        hb_shape(font.shaper.get(), buffer.get(), &tabular, 1);
    }

    std::optional<FontId> load(const std::string& file, int index) {
        for (FontId id = 0; id < fonts.size(); ++id)
            if (fonts[id].file == file && fonts[id].index == index) return id;
        LoadedFont font{.file = file, .index = index};
        if (FT_New_Face(freetype, file.c_str(), index, &font.face) != 0) return std::nullopt;
        hb_blob_t* blob = hb_blob_create_from_file(file.c_str());
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
        fonts.push_back(std::move(font));
        return static_cast<FontId>(fonts.size() - 1);
    }
};

Fonts::Fonts() : state_(std::make_unique<State>()) {}
Fonts::~Fonts() = default;

std::optional<FontId> Fonts::find(std::string_view family, int weight) {
    const std::string name(family);
    const FcPatternPtr pattern(FcPatternCreate());
    FcPatternAddString(pattern.get(), FC_FAMILY, reinterpret_cast<const FcChar8*>(name.c_str()));
    FcPatternAddDouble(pattern.get(), FC_WEIGHT, FcWeightFromOpenTypeDouble(weight));
    FcPatternAddInteger(pattern.get(), FC_SLANT, FC_SLANT_ROMAN);
    FcConfigSubstitute(state_->config.get(), pattern.get(), FcMatchPattern);
    FcDefaultSubstitute(pattern.get());
    FcResult result = FcResultNoMatch;
    const FcPatternPtr match(FcFontMatch(state_->config.get(), pattern.get(), &result));
    FcChar8* file = nullptr;
    int index = 0;
    if (match == nullptr || (!is_generic(family) && !has_family(match.get(), name)) ||
        FcPatternGetString(match.get(), FC_FILE, 0, &file) != FcResultMatch)
        return std::nullopt;
    FcPatternGetInteger(match.get(), FC_INDEX, 0, &index);
    return state_->load(reinterpret_cast<const char*>(file), index);
}

FontMetrics Fonts::metrics(FontId font) {
    return state_->fonts[font].metrics;
}

float Fonts::shape(FontId font, float size, std::string_view text, std::vector<Glyph>& glyphs) {
    const LoadedFont& loaded = state_->fonts[font];
    state_->shape(loaded, text);
    hb_buffer_t* const buffer = state_->buffer.get();

    unsigned count = 0;
    const hb_glyph_info_t* const infos = hb_buffer_get_glyph_infos(buffer, &count);
    const hb_glyph_position_t* const positions = hb_buffer_get_glyph_positions(buffer, &count);
    const float scale = size / loaded.units_per_em;
    // The pen counts in font units, so that a long text gathers no rounding.
    std::int64_t pen = 0;
    glyphs.clear();
    for (unsigned i = 0; i < count; ++i) {
        // Every digit stands in the middle of the same room: fonts without the feature, and with a slip in
        // it, too.
        const bool digit = is_digit(text[infos[i].cluster]);
        const hb_position_t advance = digit ? loaded.digit_advance : positions[i].x_advance;
        const std::int64_t x = pen + positions[i].x_offset + (advance - positions[i].x_advance) / 2;
        glyphs.push_back(
            {infos[i].codepoint,
             {static_cast<float>(x) * scale, static_cast<float>(-positions[i].y_offset) * scale}});
        pen += advance;
    }
    return static_cast<float>(pen) * scale;
}

void* Fonts::face(FontId font) const {
    return state_->fonts[font].face;
}

}  // namespace rapido
