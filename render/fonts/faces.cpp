#include "render/fonts/faces.hpp"

#include <hb-ot.h>

#include <algorithm>
#ifdef _WIN32
#include <cstring>
#include <fstream>

#include "file/paths.hpp"
#endif
#include <iterator>

namespace rapido {
namespace {

constexpr hb_feature_t tabular{HB_TAG('t', 'n', 'u', 'm'), 1, HB_FEATURE_GLOBAL_START, HB_FEATURE_GLOBAL_END};

}  // namespace

Faces::Faces() {
    FT_Init_FreeType(&freetype_);
}

Faces::~Faces() {
    faces_.clear();
    FT_Done_FreeType(freetype_);
}

#ifdef _WIN32
// The libraries take a path for one of the old code page: the file is read by its path in UTF-8.
Faces::Opened Faces::open(const std::string& file, int index) {
    std::ifstream stream(path_of(file), std::ios::binary);
    const std::vector<char> read{std::istreambuf_iterator<char>(stream), std::istreambuf_iterator<char>()};
    std::vector<std::byte> bytes(read.size());
    std::memcpy(bytes.data(), read.data(), read.size());
    return open(std::move(bytes), index);
}
#else
Faces::Opened Faces::open(const std::string& file, int index) {
    FT_Face face = nullptr;
    if (FT_New_Face(freetype_, file.c_str(), index, &face) != 0) return {};
    return {FacePtr(face), HbBlob(hb_blob_create_from_file(file.c_str()))};
}
#endif

Faces::Opened Faces::open(std::vector<std::byte> bytes, int index) {
    FT_Face face = nullptr;
    if (FT_New_Memory_Face(freetype_, reinterpret_cast<const FT_Byte*>(bytes.data()),
                           static_cast<FT_Long>(bytes.size()), index, &face) != 0)
        return {};
    // What a vector holds stays where it is when the vector is moved.
    bytes_.push_back(std::move(bytes));
    return {FacePtr(face), HbBlob(hb_blob_create(reinterpret_cast<const char*>(bytes_.back().data()),
                                                 static_cast<unsigned>(bytes_.back().size()), HB_MEMORY_MODE_READONLY,
                                                 nullptr, nullptr))};
}

const Face* Faces::load(const std::string& file, int index) {
    if (const auto read = faces_.find({file, index}); read != faces_.end()) return &read->second;
    Opened opened = open(file, index);
    return opened.face != nullptr ? keep({file, index}, std::move(opened)) : nullptr;
}

Result<const Face*> Faces::open_file(const std::string& path) {
    Opened opened = open(path, 0);
    if (opened.face == nullptr)
        return Problem{{path}, "is no font that can be read", "use TrueType or OpenType", ProblemCode::unreadable};
    return keep_own(path, std::move(opened));
}

Result<const Face*> Faces::open_memory(const std::string& name, std::vector<std::byte> bytes) {
    Opened opened = open(std::move(bytes), 0);
    if (opened.face == nullptr)
        return Problem{{name}, "cannot be read", "use TrueType or OpenType", ProblemCode::unreadable};
    return keep_own(name, std::move(opened));
}

Result<const Face*> Faces::keep_own(const std::string& name, Opened opened) {
    if (opened.face->family_name == nullptr || (opened.face->face_flags & FT_FACE_FLAG_SCALABLE) == 0)
        return Problem{{name}, "is no font with outlines and a family", "", ProblemCode::unreadable};
    return keep({name, 0}, std::move(opened));
}

const Face* Faces::keep(const std::pair<std::string, int>& key, Opened opened) {
    const auto [place, is_new] = faces_.try_emplace(key);
    Face& font = place->second;
    if (!is_new) return &font;
    font.face = std::move(opened.face);
    hb_face_t* const face = hb_face_create(opened.blob.get(), static_cast<unsigned>(key.second));
    font.shaper.reset(hb_font_create(face));
    hb_ot_font_set_funcs(font.shaper.get());
    font.units_per_em = static_cast<float>(hb_face_get_upem(face));
    hb_face_destroy(face);
    hb_font_extents_t extents{};
    hb_font_get_h_extents(font.shaper.get(), &extents);
    font.metrics = {static_cast<float>(extents.ascender) / font.units_per_em,
                    static_cast<float>(-extents.descender) / font.units_per_em};
    shape(font, "0123456789");
    unsigned count = 0;
    const hb_glyph_position_t* const digits = hb_buffer_get_glyph_positions(buffer_.get(), &count);
    for (unsigned i = 0; i < count; ++i)
        font.digit_advance = std::max(font.digit_advance, digits[i].x_advance);
    return &font;
}

void Faces::shape(const Face& face, std::string_view text, const Run* run) {
    hb_buffer_t* const to = buffer_.get();
    hb_buffer_clear_contents(to);
    const std::size_t begin = run != nullptr ? run->begin : 0;
    const std::size_t end = run != nullptr ? run->end : text.size();
    hb_buffer_add_utf8(to, text.data(), static_cast<int>(text.size()), static_cast<unsigned>(begin),
                       static_cast<int>(end - begin));
    if (run != nullptr) {
        hb_buffer_set_direction(to, run->right_to_left ? HB_DIRECTION_RTL : HB_DIRECTION_LTR);
        hb_buffer_set_script(to, run->script);
        hb_buffer_set_language(to, hb_language_from_string("und", -1));
    } else {
        hb_buffer_guess_segment_properties(to);
    }
    hb_shape(face.shaper.get(), to, &tabular, 1);
}

}  // namespace rapido
