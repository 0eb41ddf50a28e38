// Faces of font files, each read once, and the shaping of a text in one of them.
#pragma once

#include <ft2build.h>
#include <hb.h>

#include <cstddef>
#include <cstdint>
#include <deque>
#include <map>
#include <memory>
#include <string>
#include <string_view>
#include <utility>
#include <vector>
#include FT_FREETYPE_H

#include "rapido/base/problem.hpp"
#include "rapido/layout/measurer.hpp"
#include "render/fonts/owner.hpp"

namespace rapido {

inline void done_with_face(FT_Face face) {
    FT_Done_Face(face);
}
using FacePtr = std::unique_ptr<FT_FaceRec_, Destroyer<FT_FaceRec_, done_with_face>>;
using HbFont = std::unique_ptr<hb_font_t, Destroyer<hb_font_t, hb_font_destroy>>;
using HbBuffer = std::unique_ptr<hb_buffer_t, Destroyer<hb_buffer_t, hb_buffer_destroy>>;
using HbBlob = std::unique_ptr<hb_blob_t, Destroyer<hb_blob_t, hb_blob_destroy>>;

/// A part of a text in one font, one script and one direction.
struct Run {
    std::size_t begin = 0, end = 0;  ///< bytes
    FontId font = 0;
    hb_script_t script = HB_SCRIPT_COMMON;
    bool right_to_left = false;
};

/// One face of one file.
struct Face {
    FacePtr face;
    HbFont shaper;
    float units_per_em = 1;
    FontMetrics metrics;
    hb_position_t digit_advance = 0;  ///< of the widest digit

    bool has(char32_t c) const {
        hb_codepoint_t glyph = 0;
        return hb_font_get_nominal_glyph(shaper.get(), c, &glyph) != 0;
    }
};

/// Opens faces and keeps them; shapes texts in them.
class Faces {
 public:
    Faces();
    ~Faces();
    Faces(const Faces&) = delete;
    Faces& operator=(const Faces&) = delete;

    /// A face of a file; null if it cannot be read.
    const Face* load(const std::string& file, int index);
    /// A font that the game ships, or why it is none.
    Result<const Face*> open_file(const std::string& path);
    Result<const Face*> open_memory(const std::string& name, std::vector<std::byte> bytes);

    /// Shapes a text in one direction and script, which the buffer then holds; nothing about it is given for the usual case.
    void shape(const Face& face, std::string_view text, const Run* run = nullptr);
    hb_buffer_t* shaped() const { return buffer_.get(); }
    /// Adds a shaped glyph at the pen, in units of the font, and returns where the pen is then. Every digit stands in the middle of the same
    /// room: in fonts without the feature, and with a slip in it, too.
    template <class Add>
    static std::int64_t place(const Face& face, std::string_view text, const hb_glyph_info_t& glyph,
                              const hb_glyph_position_t& position, std::int64_t pen, Add add) {
        const char first = text[glyph.cluster];
        const hb_position_t advance = first >= '0' && first <= '9' ? face.digit_advance : position.x_advance;
        add(pen + position.x_offset + (advance - position.x_advance) / 2, position.y_offset);
        return pen + advance;
    }

 private:
    struct Opened {
        FacePtr face;  ///< null where it cannot be read
        HbBlob blob;
    };
    Opened open(const std::string& file, int index);
    Opened open(std::vector<std::byte> bytes, int index);
    const Face* keep(const std::pair<std::string, int>& key, Opened opened);
    Result<const Face*> keep_own(const std::string& name, Opened opened);

    FT_Library freetype_ = nullptr;
    HbBuffer buffer_{hb_buffer_create()};
    std::deque<std::vector<std::byte>> bytes_;           ///< that faces read from
    std::map<std::pair<std::string, int>, Face> faces_;  ///< by file and index
};

}  // namespace rapido
