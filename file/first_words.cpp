#include "file/first_words.hpp"

#include <algorithm>
#include <array>
#include <charconv>
#include <cmath>
#include <optional>
#include <utility>
#include <vector>

#include "base/real_number.hpp"
#include "rapido/base/color.hpp"

namespace rapido {
namespace {

using Words = std::pair<std::string_view, std::string_view>;

/// A key, and the one that has its meaning here.
constexpr std::array<Words, 30> keys{{
    {"text", "format"},
    {"label", "format"},
    {"font_size", "size"},
    {"font_family", "font"},
    {"font_weight", "weight"},
    {"src", "image"},
    {"file", "image"},
    {"texture", "image"},
    {"icon", "image"},
    {"picture", "image"},
    {"source", "value"},
    {"bind", "value"},
    {"binding", "value"},
    {"name", "id"},
    {"parent", "inside"},
    {"alpha", "opacity"},
    {"angle", "rotation"},
    {"rotate", "rotation"},
    {"z", "layer"},
    {"z_index", "layer"},
    {"visibility", "visible"},
    {"show", "visible"},
    {"enabled", "visible"},
    {"foreground", "color"},
    {"background_color", "background"},
    {"maximum", "max"},
    {"max_value", "max"},
    {"minimum", "min"},
    {"min_value", "min"},
    {"animation", "motion"},
}};

/// A key, and what is written in its place.
constexpr std::array<Words, 26> phrases{{
    {"width", "write place = { size = [200, 24] }"},
    {"height", "write place = { size = [200, 24] }"},
    {"x", "write place = { anchor = \"top_left\", offset = [24, 20] }"},
    {"y", "write place = { anchor = \"top_left\", offset = [24, 20] }"},
    {"left", "write place = { anchor = \"top_left\", offset = [24, 20] }"},
    {"top", "write place = { anchor = \"top_left\", offset = [24, 20] }"},
    {"right", "write place = { anchor = \"bottom_right\", offset = [24, 20] }"},
    {"bottom", "write place = { anchor = \"bottom_right\", offset = [24, 20] }"},
    {"pos", "write place = { anchor = \"top_left\", offset = [24, 20] }"},
    {"position", "write place = { anchor = \"top_left\", offset = [24, 20] }"},
    {"bold", "write weight = 700"},
    {"hidden", "write visible = \"!name\", with the source that hides it"},
    {"children", "write each as [[element.element]], below its panel"},
    {"elements", "write each as [[element.element]], below its panel"},
    {"effect", "write triggers = [{ on = \"loss\", effect = \"shake\" }], or an effect in a band"},
    {"when", "write visible = \"a > b\", or bands = [{ when = \"a > b\", color = \"#ff7a3c\" }]"},
    {"if", "write visible = \"a > b\", or bands = [{ when = \"a > b\", color = \"#ff7a3c\" }]"},
    {"below", "write bands = [{ below = 0.25, color = \"#ff7a3c\" }]"},
    {"above", "write bands = [{ above = 0.75, color = \"#ff7a3c\" }]"},
    {"threshold", "write bands = [{ below = 0.25, color = \"#ff7a3c\" }]"},
    {"thresholds", "write bands = [{ below = 0.25, color = \"#ff7a3c\" }]"},
    {"prefix", "write it in the format, as in format = \"Score: {}\""},
    {"suffix", "write it in the format, as in format = \"{} km\""},
    {"unit", "write it in the format, as in format = \"{} km\""},
    {"decimals", "write format = \"{:.1f}\""},
    {"precision", "write format = \"{:.1f}\""},
}};

constexpr std::array<Words, 28> kinds{{
    {"label", "text"},   {"number", "text"},      {"counter", "text"},   {"timer", "text"},   {"score", "text"},
    {"progress", "bar"}, {"progress_bar", "bar"}, {"health_bar", "bar"}, {"meter", "bar"},    {"slider", "bar"},
    {"icon", "image"},   {"picture", "image"},    {"sprite", "image"},   {"box", "panel"},    {"group", "panel"},
    {"frame", "panel"},  {"container", "panel"},  {"row", "panel"},      {"column", "panel"}, {"circle", "ring"},
    {"arc", "ring"},     {"gauge", "dial"},       {"compass", "ruler"},  {"chart", "graph"},  {"plot", "graph"},
    {"hearts", "pips"},  {"message", "notice"},   {"toast", "notice"},
}};

/// The basic colors of CSS, and some that are often meant.
constexpr std::array<Words, 22> colors{{
    {"black", "#000000"},  {"silver", "#c0c0c0"}, {"gray", "#808080"},   {"grey", "#808080"},    {"white", "#ffffff"},
    {"maroon", "#800000"}, {"red", "#ff0000"},    {"purple", "#800080"}, {"magenta", "#ff00ff"}, {"fuchsia", "#ff00ff"},
    {"green", "#008000"},  {"lime", "#00ff00"},   {"olive", "#808000"},  {"yellow", "#ffff00"},  {"navy", "#000080"},
    {"blue", "#0000ff"},   {"teal", "#008080"},   {"aqua", "#00ffff"},   {"cyan", "#00ffff"},    {"orange", "#ffa500"},
    {"pink", "#ffc0cb"},   {"gold", "#ffd700"},
}};

template <std::size_t Count>
std::string_view find(const std::array<Words, Count>& words, std::string_view word) {
    for (const auto& [from, to] : words)
        if (from == word) return to;
    return {};
}

std::string written(std::string_view value) {
    return "write " + std::string(value);
}

/// All numbers in a text, whatever stands between them.
std::vector<double> numbers_in(std::string_view text) {
    std::vector<double> numbers;
    while (!text.empty()) {
        double number = 0;
        const auto [end, fault] = read_real(text.data(), text.data() + text.size(), number);
        const bool is_number = fault == std::errc() && end != text.data();
        if (is_number) numbers.push_back(number);
        text.remove_prefix(is_number ? static_cast<std::size_t>(end - text.data()) : 1);
    }
    return numbers;
}

std::string hint_for_color(const toml::node& value) {
    if (const auto number = value.value_exact<std::int64_t>(); number && *number >= 0 && *number <= 0xffffff)
        return written("\"" + to_string(rgb(static_cast<std::uint32_t>(*number))) + "\"");
    const auto text = value.value_exact<std::string>();
    if (!text) return {};
    if (const std::string_view color = find(colors, *text); !color.empty())
        return written("\"" + std::string(color) + "\"");
    const bool is_short = text->size() == 4 && text->starts_with('#');
    if (is_short)
        if (const std::string whole{'#', (*text)[1], (*text)[1], (*text)[2], (*text)[2], (*text)[3], (*text)[3]};
            Color::parse(whole))
            return written("\"" + whole + "\"");
    if (text->starts_with("0x") && Color::parse("#" + text->substr(2))) return written("\"#" + text->substr(2) + "\"");
    if (!text->starts_with("rgb")) return {};
    const std::vector<double> numbers = numbers_in(*text);
    if (numbers.size() < 3) return {};
    const auto channel = [&](std::size_t i) { return static_cast<std::uint8_t>(std::clamp(numbers[i], 0.0, 255.0)); };
    return written("\"" + to_string(Color{channel(0), channel(1), channel(2), 255}) + "\"");
}

/// Of a text where a number is wanted.
std::string hint_for_number(const Field& field, const std::string& text) {
    if (field.name == "weight" && (text == "bold" || text == "normal")) return written(text == "bold" ? "700" : "400");
    const std::vector<double> numbers = numbers_in(text);
    if (numbers.size() != 1 || text.empty() ||
        (std::isdigit(static_cast<unsigned char>(text[0])) == 0 && text[0] != '-'))
        return {};
    const bool is_milliseconds = field.type == FieldType::seconds && text.ends_with("ms");
    const std::string number = plain_number(is_milliseconds ? numbers[0] / 1000 : numbers[0]);
    return written(number + (field.unit.empty() ? ", without quotes" : ": it is in " + std::string(field.unit)));
}

}  // namespace

std::string hint_for_key(std::string_view key, const toml::node& value, const Table& description) {
    if (const toml::array* const items = value.as_array();
        items != nullptr && !items->empty() && items->get(0)->is_table() && find(kinds, key).empty())
        for (const std::string_view kind : {"text", "bar", "ring", "level", "pips", "dial", "ruler", "graph", "image",
                                            "panel", "notice", "list", "markers"})
            if (kind == key) return "write [[element.element]] with kind = \"" + std::string(kind) + "\"";
    // A word that means something else inside of another table comes before that table.
    const std::string_view other = find(keys, key);
    if (!other.empty() && description.find(other) != nullptr) return written("'" + std::string(other) + "'");
    const std::string_view phrase = find(phrases, key);
    const std::size_t written_key = phrase.find(' ') + 1;
    const std::string_view named = phrase.substr(std::min(written_key, phrase.size()));
    const std::string_view asked = named.substr(0, named.find(' '));
    const bool is_possible = description.find(asked) != nullptr || asked == "it" || asked == "each";
    if (is_possible && !phrase.empty()) return std::string(phrase);
    for (const Field& field : description.fields)
        if (field.type == FieldType::table && field.table->find(key) != nullptr)
            return "it stands in '" + std::string(field.name) + "': " + std::string(field.name) + " = { " +
                   std::string(key) + " = ... }";
    return {};
}

std::string hint_for_kind(std::string_view word) {
    const std::string_view kind = find(kinds, word);
    return kind.empty() ? std::string() : written("kind = \"" + std::string(kind) + "\"");
}

std::string hint_for_value(const Field& field, const toml::node& value) {
    const auto text = value.value_exact<std::string>();
    const std::string name(field.name);
    switch (field.type) {
        case FieldType::color:
            return hint_for_color(value);
        case FieldType::integer:
        case FieldType::number:
        case FieldType::themed_number:
        case FieldType::real:
        case FieldType::seconds:
            return text ? hint_for_number(field, *text) : std::string();
        case FieldType::flag:
            return text && (*text == "true" || *text == "false") ? written(*text + ", without quotes") : std::string();
        case FieldType::text:
        case FieldType::themed_text:
            return value.is_number() ? written("it in quotes") : std::string();
        case FieldType::limits: {
            const std::vector<double> numbers = numbers_in(text.value_or(""));
            // What stands between them may be taken for a sign.
            if (numbers.size() != 2) return {};
            return written("[" + plain_number(numbers[0]) + ", " + plain_number(std::abs(numbers[1])) + "]");
        }
        case FieldType::point:
        case FieldType::size:
            return value.is_table() ? written(field.type == FieldType::size ? "[width, height]" : "[x, y]")
                                    : std::string();
        case FieldType::choice:
            if (name == "align" && text == "left") return written("\"start\"");
            if (name == "align" && text == "right") return written("\"end\"");
            return {};
        case FieldType::table:
            return text && field.table->find("kind") != nullptr ? written("{ kind = \"" + *text + "\" }")
                                                                : std::string();
        case FieldType::list:
            return value.is_table() ? written(name + " = [{ ... }], a list of tables") : std::string();
        default:
            return {};
    }
}

}  // namespace rapido
