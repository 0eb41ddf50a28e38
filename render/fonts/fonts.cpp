#include "rapido/fonts.hpp"

#include <algorithm>
#include <array>
#include <cstdlib>
#include <filesystem>
#include <map>
#include <mutex>
#include <optional>
#include <string>
#include <utility>

#include "base/inside_path.hpp"
#include "base/utf8.hpp"
#include "file/paths.hpp"
#include "render/fonts/faces.hpp"
#include "render/fonts/installed_fonts.hpp"
#include "render/fonts/patterns.hpp"
#include "render/fonts/unicode_rules.hpp"
#include FT_TRUETYPE_TABLES_H

namespace rapido {
namespace {

/// A font that the game has added.
struct AddedFont {
    std::string family;  ///< in lower case
    int weight = 400;
    bool italic = false;
    const Face* face = nullptr;
};

/// A family, or a list of them: a face, and the fonts for characters that it does not have.
struct LoadedFont {
    const Face* face = nullptr;
    std::vector<FontId> others;
};

constexpr std::uintmax_t largest_font = 64'000'000;

/// So many families of a list are looked at.
constexpr int most_families = 16;

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

}  // namespace

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

struct Fonts::State {
    Faces faces;
    InstalledFonts installed;
    UnicodeRules rules;
    mutable std::mutex mutex;  ///< while `fonts` grows, another thread may ask for a face to draw with
    std::vector<LoadedFont> fonts;
    std::map<std::pair<std::string, int>, std::optional<FontId>> known;     ///< by families and weight, as asked for
    std::map<std::pair<std::string, int>, std::optional<FontId>> families;  ///< by one family and its weight
    std::vector<AddedFont> added;                                           ///< by the game
    int added_from_memory = 0;
    std::u32string missing;
    std::vector<Run> runs;
    Patterns patterns{faces};

    /// The first font of a list that has a character; the one before it for what has no look of its own.
    FontId font_of(FontId list, FontId before, char32_t c) {
        if (is_invisible(c)) return before;
        const bool is_mark = (hb_unicode_general_category(hb_unicode_funcs_get_default(), c) ==
                              HB_UNICODE_GENERAL_CATEGORY_NON_SPACING_MARK);
        if (is_mark && fonts[before].face->has(c)) return before;
        if (fonts[list].face->has(c)) return list;
        for (const FontId other : fonts[list].others)
            if (fonts[other].face->has(c)) return other;
        if (missing.find(c) == std::u32string::npos) missing.push_back(c);
        return list;
    }

    /// What was shaped last, at the end of the glyphs; gives where the pen is then.
    double append(FontId id, float size, std::string_view text, double pen, std::vector<Glyph>& glyphs) {
        const Face& font = *fonts[id].face;
        unsigned count = 0;
        const hb_glyph_info_t* const infos = hb_buffer_get_glyph_infos(faces.shaped(), &count);
        const hb_glyph_position_t* const positions = hb_buffer_get_glyph_positions(faces.shaped(), &count);
        const double scale = static_cast<double>(size) / static_cast<double>(font.units_per_em);
        // The pen counts in font units, so that a long text gathers no rounding.
        std::int64_t units = 0;
        for (unsigned i = 0; i < count; ++i) {
            units = Faces::place(font, text, infos[i], positions[i], units, [&](std::int64_t x, std::int32_t y) {
                glyphs.push_back(
                    {infos[i].codepoint,
                     {static_cast<float>(pen + static_cast<double>(x) * scale), static_cast<float>(-y * scale)},
                     id});
            });
        }
        return pen + static_cast<double>(units) * scale;
    }

    /// The parts of a text in the order in which they stand, from left to right.
    void split(FontId list, std::string_view text) {
        runs.clear();
        for (const DirectedPart& part : rules.order(text)) {
            const std::size_t first = runs.size();
            add_runs(list, text, part);
            if (part.right_to_left) std::reverse(runs.begin() + static_cast<std::ptrdiff_t>(first), runs.end());
        }
    }

    /// A part that goes in one direction, by font and script.
    void add_runs(FontId list, std::string_view text, const DirectedPart& part) {
        const std::size_t first = runs.size();
        for (std::size_t at = part.begin; at < part.end;) {
            const char32_t c = utf8::front(text.substr(at));
            const std::size_t next = at + utf8::front_length(text.substr(at));
            const hb_script_t script = hb_unicode_script(hb_unicode_funcs_get_default(), c);
            const bool any_script = script == HB_SCRIPT_COMMON || script == HB_SCRIPT_INHERITED;
            const bool starts = runs.size() == first;
            const FontId font = font_of(list, starts ? list : runs.back().font, c);
            if (!starts && font == runs.back().font &&
                (any_script || script == runs.back().script || runs.back().script == HB_SCRIPT_COMMON)) {
                if (!any_script) runs.back().script = script;
                runs.back().end = next;
            } else {
                runs.push_back({at, next, font, any_script ? HB_SCRIPT_COMMON : script, part.right_to_left});
            }
            at = next;
        }
    }

    FontId add(LoadedFont font) {
        const std::lock_guard lock(mutex);
        fonts.push_back(std::move(font));
        return static_cast<FontId>(fonts.size() - 1);
    }

    /// The face of a font that was added which is nearest to what is asked for; null where none has this family.
    const Face* match_added(const std::string& lower_name, int weight, bool italic) const {
        const AddedFont* best = nullptr;
        const auto distance = [&](const AddedFont& font) {
            return std::abs(font.weight - weight) + (font.italic != italic ? 10'000 : 0);
        };
        for (const AddedFont& font : added)
            if (font.family == lower_name && (best == nullptr || distance(font) < distance(*best))) best = &font;
        return best != nullptr ? best->face : nullptr;
    }

    /// One family. Weights are told apart by steps of ten, so that no file can ask for ever new ones.
    std::optional<FontId> find_one(const std::string& name, int weight, bool italic) {
        const std::string lower = lower_case(name);
        weight = std::clamp((weight + 5) / 10 * 10, 1, 1000);
        const Face* const own = match_added(lower, weight, italic);
        if (own == nullptr && !is_generic(name) && !installed.has(lower)) return std::nullopt;
        const auto [known_font, is_new] = families.try_emplace({lower, key_of(weight, italic)});
        if (!is_new) return known_font->second;
        const Face* face = own;
        if (own == nullptr)
            if (const auto file = installed.match(name, weight, italic)) face = faces.load(file->path, file->index);
        // On a machine without fonts, those of the game stand for all others.
        if (face == nullptr && is_generic(name) && !added.empty())
            face = match_added(added.front().family, weight, italic);
        if (face != nullptr) known_font->second = add({face, {}});
        return known_font->second;
    }

    static int key_of(int weight, bool italic) { return weight * 2 + (italic ? 1 : 0); }

    /// Adds a face of the game's own under the name of its family.
    Status add_own(const Result<const Face*>& opened) {
        if (!opened) return opened.problems().front();
        const FT_Face face = (*opened)->face.get();
        const auto* const os2 = static_cast<const TT_OS2*>(FT_Get_Sfnt_Table(face, FT_SFNT_OS2));
        added.push_back({.family = lower_case(face->family_name),
                         .weight = os2 != nullptr ? os2->usWeightClass : 400,
                         .italic = (face->style_flags & FT_STYLE_FLAG_ITALIC) != 0,
                         .face = *opened});
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
    const std::uintmax_t size = std::filesystem::file_size(path_of(path), error);
    if (error) return Problem{{path}, "cannot be read: " + error.message(), "", ProblemCode::unreadable};
    if (size > largest_font) return Problem{{path}, "is larger than 64 MB", "", ProblemCode::too_large};
    return state_->add_own(state_->faces.open_file(path));
}

Status Fonts::add_files(const std::string& folder, std::span<const std::string> files) {
    namespace fs = std::filesystem;
    Status first;
    for (const std::string& name : files) {
        std::error_code error, no_folder;
        const fs::path whole = fs::canonical(path_of(folder) / path_of(name), error);
        const fs::path home = fs::canonical(path_of(folder), no_folder);
        const bool leaves = !stays_inside(name) || no_folder || !is_within(whole, home);
        const Status added =
            error    ? Status(Problem{{name}, "cannot be read: " + error.message(), "", ProblemCode::unreadable})
            : leaves ? Status(Problem{{name},
                                      "is not a path inside the folder of the HUD",
                                      "put the font beside the HUD file",
                                      ProblemCode::unreadable})
                     : add_file(text_of(whole));
        if (!added && first) first = added;
    }
    return first;
}

Status Fonts::add_memory(std::span<const std::byte> bytes) {
    if (bytes.size() > largest_font)
        return Problem{{}, "a font in memory is larger than 64 MB", "", ProblemCode::too_large};
    const std::string name = "font " + std::to_string(++state_->added_from_memory) + " in memory";
    return state_->add_own(state_->faces.open_memory(name, {bytes.begin(), bytes.end()}));
}

void Fonts::find_line_ends(std::string_view text, std::vector<LineEnd>& ends) {
    if (!state_->rules.find_line_ends(text, ends)) TextMeasurer::find_line_ends(text, ends);
}

void Fonts::find_character_ends(std::string_view text, std::vector<std::size_t>& ends) {
    const bool is_plain =
        std::all_of(text.begin(), text.end(), [](char c) { return static_cast<unsigned char>(c) < 0x80; });
    if (is_plain || !state_->rules.find_character_ends(text, ends)) TextMeasurer::find_character_ends(text, ends);
}

std::string Fonts::transformed(std::string_view text, TextTransform transform, std::string_view language) {
    if (transform == TextTransform::none) return std::string(text);
    std::string changed = state_->rules.transformed(text, transform, language);
    return !changed.empty() ? changed : TextMeasurer::transformed(text, transform, language);
}

// A list that was measured with other fonts may name one that is not here: it has no characters.

FontMetrics Fonts::metrics(FontId font) {
    if (font >= state_->fonts.size()) return {};
    return state_->fonts[font].face->metrics;
}

float Fonts::shape(FontId font, float size, std::string_view text, std::vector<Glyph>& glyphs) {
    State& state = *state_;
    glyphs.clear();
    if (font >= state.fonts.size()) return 0;
    double pen = 0;
    if (is_simple(text)) {
        const Face& face = *state.fonts[font].face;
        if (const Patterns::Pattern* const pattern = state.patterns.find(font, face, text)) {
            const double scale = static_cast<double>(size) / static_cast<double>(face.units_per_em);
            Patterns::place(*pattern, text, [&](const Patterns::Placed& one) {
                glyphs.push_back(
                    {one.id, {static_cast<float>(one.x * scale), static_cast<float>(-one.y * scale)}, font});
            });
            return static_cast<float>(static_cast<double>(pattern->width) * scale);
        }
        state.faces.shape(*state.fonts[font].face, text);
        pen = state.append(font, size, text, 0, glyphs);
        const bool all_there =
            std::none_of(glyphs.begin(), glyphs.end(), [](const Glyph& glyph) { return glyph.id == 0; });
        if (all_there) return static_cast<float>(pen);
        glyphs.clear();
        pen = 0;
    }
    state.split(font, text);
    for (const Run& run : state.runs) {
        state.faces.shape(*state.fonts[run.font].face, text, &run);
        pen = state.append(run.font, size, text, pen, glyphs);
    }
    return static_cast<float>(pen);
}

std::u32string Fonts::take_missing() {
    return std::exchange(state_->missing, {});
}

void* Fonts::face(FontId font) const {
    const std::lock_guard lock(state_->mutex);
    return font < state_->fonts.size() ? state_->fonts[font].face->face.get() : nullptr;
}

}  // namespace rapido
