// The styles of HUD files.
#include <algorithm>

#include "base/nearest.hpp"
#include "base/utf8.hpp"
#include "element/fields.hpp"
#include "element/kinds.hpp"
#include "file/hud_reader.hpp"
#include "hud/definition_tables.hpp"

namespace rapido {

void HudReader::read_styles(const toml::node& node) {
    const toml::table* const all = node.as_table();
    if (all == nullptr) return reader_.expected(node, "'style'", "tables, [style.NAME]");
    for (const auto& [key, style] : *all) {
        if (const toml::table* const table = style.as_table()) {
            styles_[std::string(key.str())] = {.table = table};
            if (const toml::node* const own = table->get("style"))
                reader_.fail(ProblemCode::unknown_key, *own, "style '" + utf8::shortened(key.str()) + "' names a style",
                             "let the element name both: style = [\"caption\", \"warning\"]");
            read_text_style(key, *table);
        } else {
            reader_.expected(style, "style '" + utf8::shortened(key.str()) + "'", "a table");
        }
    }
}

/// What of a style pieces of texts take. Its faults are told where an element takes them.
void HudReader::read_text_style(const toml::key& key, const toml::table& table) {
    FirstProblems told_elsewhere;
    FieldsReader reader(name_, told_elsewhere);
    if (is_part_ || !definition.themes.empty()) reader.allow_themes();
    TextStyle style;
    Locations locations;
    locations.location = reader.place(key);
    FieldsReader::Owner owner{.name = "style '" + std::string(key.str()) + "'"};
    for (const auto& [field, node] : table)
        if (field.str() == "id" || text_style_table.find(field.str()) == nullptr)
            owner.other_keys.push_back(field.str());
    reader.read(table, text_style_table, &style, owner, locations);
    if (told_elsewhere.count() > 0) damaged_.push_back(locations);
    style.id = key.str();
    const auto included = std::find_if(definition.styles.begin(), definition.styles.end(),
                                       [&](const TextStyle& other) { return other.id == style.id; });
    if (included != definition.styles.end()) {
        definition.style_locations[static_cast<std::size_t>(included - definition.styles.begin())] =
            std::move(locations);
        *included = std::move(style);
        return;
    }
    definition.styles.push_back(std::move(style));
    definition.style_locations.push_back(std::move(locations));
}

/// Nobody uses it, but its words should be right all the same: for the first kind that has them all.
void HudReader::check_style(const std::string& name, const toml::table& table) {
    const std::string owner = "style '" + utf8::shortened(name) + "'";
    const auto& kinds = all_kinds();
    for (const auto& entry : table) {
        const toml::key& key = entry.first;
        if (std::any_of(kinds.begin(), kinds.end(),
                        [&](const Kind* kind) { return kind->table->find(key.str()) != nullptr; }))
            continue;
        std::vector<std::string_view> names;
        for (const Kind* const kind : kinds)
            for (const Field& field : kind->table->fields)
                names.push_back(field.name);
        return reader_.unknown_key(key, std::move(names), owner);
    }
    for (const Kind* const kind : kinds) {
        if (std::any_of(table.begin(), table.end(),
                        [&](const auto& entry) { return !kind->table->find(entry.first.str()); }))
            continue;
        WrittenElement element(*kind);
        Locations locations;
        return reader_.read(table, *kind->table, element.data(), {owner}, locations);
    }
}

bool HudReader::is_style_followed(const toml::table& table, const Table& description) {
    const toml::node* const names = table.get("style");
    return names != nullptr && names->is_table() && description.find("style") != nullptr;
}

/// The fields of the styles that a table names, in their order. Returns the tables.
std::vector<const toml::table*> HudReader::read_styles_of(const toml::table& table, const Table& description,
                                                          void* aggregate, const std::string& name,
                                                          Locations& locations) {
    std::vector<const toml::table*> read;
    const toml::node* const names = table.get("style");
    if (names == nullptr || is_style_followed(table, description)) return read;
    const std::string field = "'style' of " + name;
    const auto read_one = [&](const toml::node& node) {
        const auto word = node.value_exact<std::string>();
        if (!word) return reader_.expected(node, field, "the name of a style, or a list of names");
        const auto style = styles_.find(*word);
        if (style == styles_.end()) {
            std::vector<std::string_view> known;
            for (const auto& [id, other] : styles_)
                known.push_back(id);
            return reader_.fail(ProblemCode::unknown_name, node, field + ": no style '" + utf8::shortened(*word) + "'",
                                did_you_mean(*word, known));
        }
        style->second.is_used = true;
        if (!components_.may_copy(*style->second.table)) {
            if (!std::exchange(is_full_, true))
                reader_.fail(ProblemCode::too_large, node,
                             field + ": components and styles give more than " +
                                 std::to_string(Components::most_copied) + " keys and values in all",
                             "let fewer elements use long styles");
            return;
        }
        read.push_back(style->second.table);
        reader_.read(*style->second.table, description, aggregate,
                     {.name = name, .other_keys = {}, .has_earlier = true, .style = &node}, locations);
    };
    if (const toml::array* const list = names->as_array()) {
        for (const toml::node& item : *list)
            read_one(item);
    } else {
        read_one(*names);
    }
    return read;
}

}  // namespace rapido
