#include "file/hud_reader.hpp"

#include <algorithm>
#include <utility>

#include "assembly/declared_sources.hpp"
#include "base/nearest.hpp"
#include "base/utf8.hpp"
#include "element/fields.hpp"
#include "file/hud_upgrade.hpp"
#include "file/paths.hpp"
#include "file/prescan.hpp"
#include "file/syntax_problem.hpp"
#include "hud/definition_tables.hpp"

namespace rapido {
namespace {

constexpr std::size_t largest_hud = 4'000'000;
constexpr std::size_t most_includes = 64;
constexpr int deepest_include = 16;

bool is_before(const Location& a, const Location& b) {
    return std::pair(a.line, a.column) < std::pair(b.line, b.column);
}

const std::string& name_of(const DeclaredSource& source) {
    return source.name;
}
template <class T>
const std::string& name_of(const T& item) {
    return item.id;
}

/// What a file says replaces what the files that it includes say under the same name: those that stand before `first`.
template <class T>
void replace_included(std::vector<T>& all, std::vector<Locations>& origins, std::size_t first) {
    for (std::size_t i = first; i < all.size();) {
        const auto before = std::find_if(all.begin(), all.begin() + static_cast<std::ptrdiff_t>(first),
                                         [&](const T& other) { return name_of(other) == name_of(all[i]); });
        if (before == all.begin() + static_cast<std::ptrdiff_t>(first)) {
            ++i;
            continue;
        }
        origins[static_cast<std::size_t>(before - all.begin())] = std::move(origins[i]);
        *before = std::move(all[i]);
        all.erase(all.begin() + static_cast<std::ptrdiff_t>(i));
        origins.erase(origins.begin() + static_cast<std::ptrdiff_t>(i));
    }
}

}  // namespace

// --- Files

void HudReader::read() {
    definition.locations.location = {name_, 1, 1};
    definition.files.push_back(name_);
    parse(text_, name_, 0);
    if (problems.count() > 0) return;
    // What elements refer to comes first.
    if (is_part_) reader_.allow_themes();
    for (const Document& document : documents_)
        if (const toml::node* const themes = document.table.get("theme")) read_themes(*themes);
    for (const Document& document : documents_)
        if (const toml::node* const styles = document.table.get("style")) read_styles(*styles);
    for (const Document& document : documents_)
        if (const toml::node* const components = document.table.get("component"))
            components_.read(*components, kind_names());
    for (const Document& document : documents_)
        read_lists(document.table);
    for (const auto& [name, style] : styles_)
        if (!style.is_used) check_style(name, *style.table);
    if (!is_part_) check_panels();
}

void HudReader::parse(std::string_view text, const std::string& name, int depth) {
    size_ += text.size();
    if (size_ > largest_hud)
        return reader_.fail(
            ProblemCode::too_large, Location{name},
            depth == 0 ? "is larger than 4 MB" : "makes the HUD larger than 4 MB, with all that it includes");
    if (const int line = utf8::line_of_fault(text); line > 0)
        return reader_.fail(ProblemCode::syntax, Location{name, line, 0}, "is not valid UTF-8",
                            "save it in this encoding");
    if (auto problem = prescan_toml(text, name, most_keys_of_hud)) return problems.add(*std::move(problem));
    toml::parse_result parsed = toml::parse(text, name);
    if (!parsed) return problems.add(syntax_problem(parsed.error(), text, name));
    toml::table table = std::move(parsed).table();
    if (const toml::node* const list = table.get("include")) parse_includes(*list, depth);
    documents_.push_back({name, std::move(table)});
}

void HudReader::parse_includes(const toml::node& list, int depth) {
    const toml::array* const paths = list.as_array();
    if (paths == nullptr) return reader_.expected(list, "'include'", "a list of HUD files, [\"gauges.toml\"]");
    for (const toml::node& named : *paths) {
        const auto path = named.value_exact<std::string>();
        if (path)
            parse_include(named, *path, depth);
        else
            reader_.expected(named, "'include'", "a list of HUD files, [\"gauges.toml\"]");
    }
}

void HudReader::parse_include(const toml::node& named, const std::string& path, int depth) {
    const std::string what = "'include' of '" + utf8::shortened(path) + "'";
    if (!includes_) return reader_.fail(ProblemCode::unreadable, named, what + ": this HUD is no file in a folder");
    if (inside_.contains(path))
        return reader_.fail(ProblemCode::circle, named, what + ": it includes this file in turn");
    if (!seen_.insert(path).second) return;  // once is enough
    if (depth >= deepest_include || seen_.size() > most_includes)
        return reader_.fail(
            ProblemCode::too_large, named,
            what + ": " +
                (depth >= deepest_include ? "more than " + std::to_string(deepest_include) + " files include each other"
                                          : "at most " + std::to_string(most_includes) + " files are included"));
    // A file that is not there yet is one to look at, too.
    const std::string folder = name_.substr(0, name_.find_last_of(path_dividers) + 1);
    definition.files.push_back(folder + path);
    const Result<std::string> text = includes_(path);
    if (!text)
        return reader_.fail(text.problems().front().code, named, what + ": " + text.problems().front().message,
                            text.problems().front().hint);
    inside_.insert(path);
    parse(*text, folder + path, depth + 1);
    inside_.erase(path);
}

bool HudReader::follows_from_fault(const Problem& problem) const {
    if (is_full_) return true;
    const auto is_of = [&](const Locations& table) {
        const auto is_it = [&](const auto& field) { return field.second == problem.location; };
        return table.location == problem.location || std::any_of(table.fields.begin(), table.fields.end(), is_it);
    };
    const bool is_in_format = problem.code == ProblemCode::bad_format;
    if (!is_in_format && std::any_of(damaged_.begin(), damaged_.end(), is_of)) return true;
    if (problem.code != ProblemCode::unknown_name) return false;
    return std::any_of(dropped_.begin(), dropped_.end(), [&](const std::string& id) {
        if (id.empty()) return false;
        return problem.message.find("'" + id + "'") != std::string::npos ||
               problem.message.find("." + id + "'") != std::string::npos;
    });
}

// --- The whole

void HudReader::read_lists(const toml::table& top) {
    const std::size_t sources = definition.sources.size(), timers = definition.timers.size(),
                      frame_meters = definition.frame_meters.size(), effects = definition.effects.size(),
                      groups = definition.groups.size();
    std::vector<std::string> fonts = std::move(definition.font_files);
    definition.font_files.clear();
    for (const auto& [key, node] : top) {
        const std::string_view word = key.str();
        if (word == "style" || word == "component" || word == "theme" || word == "include") continue;
        if (word == "source")
            read_sources(node);
        else if (word == "element")
            read_list(key, node, [&](const toml::table& table) { read_element(table, {}); });
        else if (word == "timer")
            read_list_of(key, node, timer_table, definition.timers, definition.timer_locations);
        else if (word == "frame_meter")
            read_list_of(key, node, frame_meter_table, definition.frame_meters, definition.frame_meter_locations);
        else if (word == "effect")
            read_list_of(key, node, effect_table, definition.effects, definition.effect_locations);
        else if (word == "accept")
            read_list_of(key, node, accepted_table, definition.accept, definition.accept_locations);
        else if (word == "language")
            read_list_of(key, node, language_table, definition.languages, definition.language_locations);
        else if (word == "group")
            read_list_of(key, node, group_table, definition.groups, definition.group_locations);
        else
            read_option(key, node);
    }
    replace_included(definition.sources, definition.source_locations, sources);
    replace_included(definition.timers, definition.timer_locations, timers);
    replace_included(definition.frame_meters, definition.frame_meter_locations, frame_meters);
    replace_included(definition.effects, definition.effect_locations, effects);
    replace_included(definition.groups, definition.group_locations, groups);
    // Fonts of all files count.
    for (std::string& font : definition.font_files)
        if (std::find(fonts.begin(), fonts.end(), font) == fonts.end()) fonts.push_back(std::move(font));
    definition.font_files = std::move(fonts);
}

template <class Read>
void HudReader::read_list(const toml::key& key, const toml::node& node, Read read) {
    const toml::array* list = node.as_array();
    if (list == nullptr)
        return reader_.fail(
            ProblemCode::wrong_type, key,
            "'" + std::string(key.str()) + "' is " + std::string(type_name(node)) + "; expected a list of tables",
            "write '[[" + std::string(key.str()) + "]]'");
    const std::size_t most = key.str() == "element" ? most_elements : most_others;
    if (list->size() > most)
        return reader_.fail(
            ProblemCode::too_large, key,
            std::to_string(list->size()) + " of '" + std::string(key.str()) + "'; at most " + std::to_string(most));
    read_items(key.str(), *list, read);
}

template <class Aggregate>
void HudReader::read_list_of(const toml::key& key, const toml::node& node, const Table& description,
                             std::vector<Aggregate>& list, std::vector<Locations>& origins) {
    read_list(key, node, [&](const toml::table& table) {
        const FieldsReader::Owner owner{name_of(description.name, table)};
        Locations& locations = origins.emplace_back();
        locations.location = reader_.place(table);
        const std::size_t before = problems.count();
        reader_.read(table, description, &list.emplace_back(), owner, locations);
        reader_.require(std::array{&table}, description, owner);
        if (problems.count() > before) damaged_.push_back(locations);
    });
}

/// A list without a component has panels that are written one by one.
void HudReader::check_panels() {
    std::set<std::string> paths;
    for (const Element& element : definition.elements)
        paths.insert(element.inside() + "." + element.id());
    for (const auto& [first_panel, list, place] : without_component_)
        if (!paths.contains(first_panel))
            reader_.fail(ProblemCode::missing_key, place, list + " has no 'component'",
                         "name the one that shows an entry");
}

void HudReader::read_option(const toml::key& key, const toml::node& node) {
    const FieldsReader::Owner owner{std::string(top_table.name)};
    if (const Field* known = top_table.find(key.str()))
        return reader_.read_field(*known, node, &definition, owner, std::string(key.str()), definition.locations);
    std::vector<std::string_view> names{"element", "timer",     "frame_meter", "effect", "language", "group",
                                        "style",   "component", "theme",       "source", "include",  "accept"};
    for (const Field& field : top_table.fields)
        names.push_back(field.name);
    const std::string_view now = renamed_key(top_table.name, key.str());
    reader_.unknown_key(key, std::move(names), "the HUD", now.empty() ? "" : renamed_hint(now));
}

/// In the order in which they are written: the first one is used first.
void HudReader::read_themes(const toml::node& node) {
    const toml::table* const all = node.as_table();
    if (all == nullptr) return reader_.expected(node, "'theme'", "tables, [theme.NAME.color]");
    reader_.allow_themes();
    std::vector<std::pair<Theme, Locations>> read;
    for (const auto& [key, theme] : *all) {
        const toml::table* const table = theme.as_table();
        if (table == nullptr) {
            reader_.expected(theme, "theme '" + utf8::shortened(key.str()) + "'", "a table");
            continue;
        }
        auto& [made, locations] = read.emplace_back();
        made.id = key.str();
        locations.location = reader_.place(key);
        reader_.read_theme(*table, made, locations);
    }
    std::sort(read.begin(), read.end(),
              [](const auto& a, const auto& b) { return is_before(a.second.location, b.second.location); });
    const std::size_t before = definition.themes.size();
    for (auto& [theme, locations] : read) {
        definition.themes.push_back(std::move(theme));
        definition.theme_locations.push_back(std::move(locations));
    }
    replace_included(definition.themes, definition.theme_locations, before);
}

/// What the HUD expects of the game, in the order in which it is written.
/// A source, or with a prefix a field of its entries.
void HudReader::read_declared(const toml::key& key, const toml::node& node, const std::string& owner,
                              const std::string& prefix, DeclaredSource& source, Locations& locations) {
    const toml::table* const table = node.as_table();
    if (table == nullptr) return reader_.expected(node, owner, "a table");
    source.name = key.str();
    Locations own;
    reader_.read(*table, source_table, &source, {owner, {"fields"}}, own);
    if (prefix.empty())
        locations.location = reader_.place(key);
    else
        locations.fields.emplace_back(prefix.substr(0, prefix.size() - 1), reader_.place(key));
    for (auto& [field, place] : own.fields)
        locations.fields.emplace_back(prefix + field, place);
    for (KeptValue& kept : source.sample)
        if (source.type == SourceType::number && kept.get().is_integer()) kept = KeptValue(Value(kept.get().number()));
    if (table->contains("range") && source.range.low == source.range.high)
        reader_.fail(ProblemCode::out_of_range, *table->get("range"),
                     "'range' of " + owner + " is empty; expected [low, high]");
    const toml::node* const fields = table->get("fields");
    if (fields == nullptr) return;
    locations.fields.emplace_back(prefix + "fields", reader_.place(*fields));
    const std::string fields_of = "'fields' of " + owner;
    const toml::table* const inside = fields->as_table();
    if (inside == nullptr || !prefix.empty())
        return prefix.empty() ? reader_.expected(*fields, fields_of, "tables by name")
                              : reader_.fail(ProblemCode::wrong_type, *fields, fields_of + "; a field has none");
    constexpr std::size_t most_fields = 64;
    if (inside->size() > most_fields)
        return reader_.fail(
            ProblemCode::too_large, *fields,
            fields_of + ": " + std::to_string(inside->size()) + "; at most " + std::to_string(most_fields));
    std::vector<std::pair<Location, DeclaredSource>> read;
    for (const auto& [name, value] : *inside) {
        DeclaredSource field;
        read_declared(name, value, "field '" + utf8::shortened(name.str()) + "' of " + owner,
                      "fields." + std::string(name.str()) + ".", field, locations);
        read.emplace_back(reader_.place(name), std::move(field));
    }
    std::stable_sort(read.begin(), read.end(),
                     [](const auto& a, const auto& b) { return is_before(a.first, b.first); });
    for (auto& [place, field] : read)
        source.fields.push_back(std::move(field));
}

void HudReader::read_sources(const toml::node& node) {
    const toml::table* const all = node.as_table();
    if (all == nullptr) return reader_.expected(node, "'source'", "tables, [source.\"NAME\"]");
    if (all->size() > most_others)
        return reader_.fail(ProblemCode::too_large, node,
                            std::to_string(all->size()) + " of 'source'; at most " + std::to_string(most_others));
    std::vector<std::pair<DeclaredSource, Locations>> read;
    for (const auto& [key, value] : *all) {
        DeclaredSource source;
        Locations locations;
        const std::string owner = "source '" + utf8::shortened(key.str()) + "'";
        const std::size_t before = problems.count();
        read_declared(key, value, owner, "", source, locations);
        if (problems.count() == before) {
            if (std::optional<Problem> problem = fault_of(source, &locations)) problems.add(*std::move(problem));
        }
        if (problems.count() == before) read.emplace_back(std::move(source), std::move(locations));
    }
    std::sort(read.begin(), read.end(),
              [](const auto& a, const auto& b) { return is_before(a.second.location, b.second.location); });
    for (auto& [source, locations] : read) {
        definition.sources.push_back(std::move(source));
        definition.source_locations.push_back(std::move(locations));
    }
}

}  // namespace rapido
