// The text of a TOML file, taken apart at its statements, with the comments, which the TOML library does not keep.
#pragma once

#include <cstdint>
#include <string>
#include <string_view>
#include <vector>

namespace rapido::toml_text {

/// Something that is written, with the comments that belong to it.
struct Item;
struct TextValue {
    enum class Kind : std::uint8_t { plain, list, table };
    Kind kind = Kind::plain;
    std::string text{};  ///< of a plain one, as it stands there
    std::vector<Item> items;
    std::vector<std::string> last_comments{};  ///< behind the last item
    bool is_tall = false;                      ///< it stood over several lines

    /// Whether it, or a list inside of it, stands over several lines, or must.
    bool stands_tall() const;
};
struct Item {
    std::vector<std::string> comments{};  ///< lines above it
    std::string key{};                    ///< of a table, as it stands there
    TextValue value{};
    std::string comment{};  ///< behind it, on its line
    int blank_lines = 0;    ///< above it and its comments
};

/// A `[table]` or `[[list]]`, and what is set below it; the first has no header.
struct Section {
    std::vector<std::string> comments{};
    int blank_lines = 0;
    std::string header{};  ///< as it stands there
    std::string comment{};
    std::vector<Item> items{};
};

/// A whole file.
struct Text {
    std::vector<Section> sections;
    std::vector<std::string> last_comments;  ///< behind all sections
    int last_blank_lines = 0;                ///< above them
};

/// Takes a text apart that is known to be TOML.
Text take_apart(std::string_view text);

/// A text in quotes that holds nothing special, or a bare one.
std::string_view bare(std::string_view text);
/// The parts of a dotted key, or of what stands between the brackets of a header, each as it is written.
std::vector<std::string_view> parts_of(std::string_view key);
/// The value of a key; null where it is not there.
const TextValue* find(const std::vector<Item>& items, std::string_view key);

}  // namespace rapido::toml_text
