// Numbers are placed from what was shaped before: each is, glyph for glyph, what HarfBuzz makes of it.
#include <gtest/gtest.h>
#include <hb-ot.h>

#include <array>
#include <memory>
#include <random>

#include "rapido/fonts.hpp"

namespace rapido::test {
namespace number_shape_test {

struct File {
    const char* path;
    const char* family;
};
constexpr std::array files{File{"opentype/inter/Inter-Regular.otf", "Inter"},
                           File{"opentype/inter/Inter-BlackItalic.otf", "Inter"},
                           File{"opentype/inter/InterDisplay-Medium.otf", "Inter Display"},
                           File{"truetype/crosextra/Caladea-Bold.ttf", "Caladea"},
                           File{"truetype/crosextra/Caladea-Italic.ttf", "Caladea"},
                           File{"truetype/vlgothic/VL-Gothic-Regular.ttf", "VL Gothic"},
                           File{"truetype/vlgothic/VL-PGothic-Regular.ttf", "VL PGothic"},
                           File{"truetype/dotgothic16/DotGothic16-Regular.ttf", "DotGothic16"},
                           File{"opentype/inter/Inter-Thin.otf", "Inter"},
                           File{"truetype/noto/NotoSansDevanagariUI-Regular.ttf", "Noto Sans Devanagari UI"}};

/// A font as HarfBuzz alone sees it.
class Shaper {
 public:
    explicit Shaper(const std::string& path) {
        hb_blob_t* const blob = hb_blob_create_from_file(path.c_str());
        hb_face_t* const face = hb_face_create(blob, 0);
        font_.reset(hb_font_create(face));
        unit_ = static_cast<double>(hb_face_get_upem(face));
        hb_face_destroy(face);
        hb_blob_destroy(blob);
        for (char digit = '0'; digit <= '9'; ++digit)
            for (const auto& [info, position] : shape(std::string(1, digit)))
                widest_ = std::max(widest_, position.x_advance);
    }
    /// The widest digit is the room of each, in whose middle it stands.
    float glyphs(const std::string& text, float size, std::vector<Glyph>& glyphs) {
        glyphs.clear();
        const double scale = static_cast<double>(size) / unit_;
        std::int64_t pen = 0;
        for (const auto& [info, position] : shape(text)) {
            const bool is_digit = std::isdigit(static_cast<unsigned char>(text[info.cluster])) != 0;
            const int room = is_digit ? widest_ : position.x_advance;
            const std::int64_t x = pen + position.x_offset + (room - position.x_advance) / 2;
            glyphs.push_back(
                {info.codepoint,
                 {static_cast<float>(static_cast<double>(x) * scale), static_cast<float>(-position.y_offset * scale)}});
            pen += room;
        }
        return static_cast<float>(static_cast<double>(pen) * scale);
    }

 private:
    std::vector<std::pair<hb_glyph_info_t, hb_glyph_position_t>> shape(const std::string& text) {
        hb_buffer_clear_contents(buffer_.get());
        hb_buffer_add_utf8(buffer_.get(), text.data(), static_cast<int>(text.size()), 0, -1);
        hb_buffer_guess_segment_properties(buffer_.get());
        const hb_feature_t tabular{HB_TAG('t', 'n', 'u', 'm'), 1, 0, static_cast<unsigned>(-1)};
        hb_shape(font_.get(), buffer_.get(), &tabular, 1);
        unsigned count = 0;
        const hb_glyph_info_t* const infos = hb_buffer_get_glyph_infos(buffer_.get(), &count);
        const hb_glyph_position_t* const positions = hb_buffer_get_glyph_positions(buffer_.get(), &count);
        std::vector<std::pair<hb_glyph_info_t, hb_glyph_position_t>> shaped;
        for (unsigned i = 0; i < count; ++i)
            shaped.emplace_back(infos[i], positions[i]);
        return shaped;
    }

    std::unique_ptr<hb_font_t, decltype(&hb_font_destroy)> font_{nullptr, hb_font_destroy};
    std::unique_ptr<hb_buffer_t, decltype(&hb_buffer_destroy)> buffer_{hb_buffer_create(), hb_buffer_destroy};
    double unit_ = 1;
    int widest_ = 0;
};

/// A number as HUDs write them: signs, groups, decimals, times, units, letters that join or change beside digits.
std::string number(std::mt19937& random) {
    constexpr std::array patterns{"#",         "##",    "-###",    "+#,###",       "#.#",          "##:##",
                                  "##:##.###", "#,###", "###/###", "##%",          "x#",           "#x#",
                                  "#x",        "1/#",   "$#,###",  "###\u00a0000", "#\u00d7#",     "\u2212##.#",
                                  "A:#",       "#ff#",  "fi # fi", "(#) -> ##",    "# 1st",        "T-##",
                                  "AV# #VA",   "To #.", "#,#,#",   "~###~",        "\u00b1#\u00b5"};
    std::string text = patterns[random() % patterns.size()];
    for (char& c : text)
        if (c == '#') c = static_cast<char>('0' + random() % 10);
    return text;
}

TEST(Fonts, place_a_hundred_thousand_numbers_as_they_are_shaped) {
    std::mt19937 random(4711);
    for (const File& file : files) {
        const std::string path = std::string("/usr/share/fonts/") + file.path;
        Fonts fonts;
        ASSERT_TRUE(fonts.add_file(path)) << path;
        const auto font = fonts.find(file.family, 400);
        ASSERT_TRUE(font) << path;
        Shaper shaper(path);
        std::vector<Glyph> ours, theirs;
        int compared = 0;
        for (int i = 0; i < 10'000; ++i) {
            const std::string text = number(random);
            const float size = 10 + static_cast<float>(random() % 400) / 10;
            const float width = fonts.shape(*font, size, text, ours);
            // What a font does not have comes from another one, or from none.
            const float expected = shaper.glyphs(text, size, theirs);
            if (std::any_of(theirs.begin(), theirs.end(), [](const Glyph& glyph) { return glyph.id == 0; })) continue;
            for (Glyph& glyph : theirs)
                glyph.font = *font;
            ASSERT_EQ(ours, theirs) << path << ": " << text;
            ASSERT_EQ(width, expected) << path << ": " << text;
            ++compared;
        }
        EXPECT_GT(compared, 5'000) << path;
    }
}

}  // namespace number_shape_test
}  // namespace rapido::test
