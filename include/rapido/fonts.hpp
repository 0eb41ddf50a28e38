// Fonts of the machine and of the game: found by fontconfig, shaped by HarfBuzz.
#pragma once

#include <cstddef>
#include <memory>
#include <span>
#include <string>
#include <vector>

#include "rapido/base/exported.hpp"
#include "rapido/base/problem.hpp"
#include "rapido/layout/measurer.hpp"

namespace rapido RAPIDO_EXPORTED {

/// A text measurer over the installed fonts and those that the game adds. Families are found by their name, or by one of the generic names
/// `sans-serif`, `serif` and `monospace`; texts are not hinted, so that sizes are linear. Digits are all as
/// wide as the widest one, in the forms of the OpenType feature `tnum` where the font has them. Scripts are shaped with
/// their joins and marks, and ordered by the Unicode bidirectional algorithm (UAX #9). Of a list of families, those
/// that are not installed are passed over, as is what follows the sixteenth; lines are as high as the first. Weights are
/// told apart by steps of ten. The fonts of the machine are looked for when a family is asked for that was not added: a game that names its own alone
/// needs no set-up of fonts, and starts sooner.
///
/// In a build with RAPIDO_SYSTEM_FONTS off there are no fonts but those that are added, and in one with RAPIDO_UNICODE off lines end at spaces alone,
/// only the letters of ASCII change their case, and of texts in two directions only simple ones stand in their order.
///
/// The HUDs that use it belong to one thread; at the same time another one may draw what they have drawn. It must outlive them and the
/// pictures and atlases that use it.
class Fonts final : public TextMeasurer {
 public:
    Fonts();
    ~Fonts() override;
    Fonts(const Fonts&) = delete;
    Fonts& operator=(const Fonts&) = delete;

    /// Adds a font of the game's own, a TrueType or OpenType file of at most 64 MB, under the name of its family; it goes before an
    /// installed one of this name. Where the machine has no fonts at all, the first font that was added stands for the generic
    /// families. To be called before the HUDs are made. A problem if the file cannot be read or is no such font.
    Status add_file(const std::string& path);
    /// The same for the files that a HUD names in `font_files`, inside its folder: a path of theirs may not leave it, and neither may a
    /// link. The first problem; the others are added all the same.
    Status add_files(const std::string& folder, std::span<const std::string> files);
    /// The same for a font in memory, which is copied.
    Status add_memory(std::span<const std::byte> bytes);

    std::optional<FontId> find(std::string_view families, int weight, bool italic = false) override;
    FontMetrics metrics(FontId font) override;
    float shape(FontId font, float size, std::string_view text, std::vector<Glyph>& glyphs) override;
    /// By the line breaking rules of Unicode (UAX #14), and by words where a script has no spaces.
    void find_line_ends(std::string_view text, std::vector<LineEnd>& ends) override;
    /// By grapheme clusters of Unicode (UAX #29).
    void find_character_ends(std::string_view text, std::vector<std::size_t>& ends) override;
    std::string transformed(std::string_view text, TextTransform transform, std::string_view language) override;
    std::u32string take_missing() override;

    /// The FreeType face (`FT_Face`) of the font of a glyph, for a renderer; it belongs to this object.
    void* face(FontId font) const;

 private:
    struct State;
    std::unique_ptr<State> state_;
};

}  // namespace rapido
