// The elements of HUD files, and the stamps of components.
#include <algorithm>
#include <utility>

#include "base/nearest.hpp"
#include "base/utf8.hpp"
#include "element/fields.hpp"
#include "file/first_words.hpp"
#include "file/hud_reader.hpp"
#include "file/hud_upgrade.hpp"
#include "rapido/element/panel.hpp"

namespace rapido {
namespace {

constexpr int deepest_stamp = 16;

std::string id_of(const toml::table& table) {
    const toml::node* const id = table.get("id");
    return id != nullptr ? id->value_exact<std::string>().value_or("") : "";
}

/// The paths of what stands inside a stamp, from there.
void gather_paths(const toml::array& elements, const std::string& prefix, StampNames& names) {
    for (const toml::node& item : elements) {
        const toml::table* const table = item.as_table();
        if (table == nullptr) continue;
        const toml::node* const inside = table->get("inside");
        const std::string around = inside != nullptr ? inside->value_exact<std::string>().value_or("") + "." : prefix;
        const std::string path = around + id_of(*table);
        names.paths.insert(path);
        const toml::node* const inner = table->get("element");
        if (inner != nullptr && inner->is_array()) gather_paths(*inner->as_array(), path + ".", names);
    }
}

}  // namespace

std::string HudReader::name_of(std::string_view kind, const toml::table& table) {
    const std::string id = id_of(table);
    return std::string(kind) + (id.empty() ? "" : " '" + utf8::shortened(id) + "'");
}

// --- Elements

void HudReader::read_element(const toml::table& table, const Around& around) {
    if (definition.elements.size() >= most_elements) {
        if (!std::exchange(is_full_, true))
            reader_.fail(ProblemCode::too_large, table, "more than " + std::to_string(most_elements) + " elements");
        return;
    }
    const auto known_kinds = [&] {
        std::vector<std::string_view> names = kind_names();
        for (const std::string_view name : components_.names())
            names.push_back(name);
        return names;
    };
    const toml::node* const node = table.get("kind");
    const auto drop = [&] { dropped_.push_back(id_of(table)); };
    if (node == nullptr) {
        drop();
        return reader_.fail(ProblemCode::missing_key, table,
                            "an element without a 'kind'; expected " + one_of(known_kinds()),
                            table.contains("type") ? "write 'kind' in place of 'type'" : "");
    }
    if (!node->is_string()) {
        drop();
        return reader_.expected(*node, "'kind' of an element", one_of(known_kinds()));
    }
    const std::string name = node->value_or(std::string());
    if (const Component* const component = components_.find(name)) return read_stamp(*component, table, around);
    const Kind* const kind = find_kind(name);
    if (kind == nullptr) {
        drop();
        const std::string_view now = renamed_word("kind", name);
        std::string hint = now.empty() ? hint_for_kind(name) : renamed_hint(now);
        if (hint.empty()) hint = did_you_mean(name, known_kinds());
        return reader_.fail(ProblemCode::unknown_word, *node,
                            "unknown kind '" + utf8::shortened(name) + "'; expected " + one_of(known_kinds()),
                            std::move(hint));
    }
    const Kind& found = *kind;
    std::vector<std::string_view> others{"kind"};
    if (!is_style_followed(table, *found.table)) others.push_back("style");
    if (found.can.holds_children) others.push_back("element");
    if (found.can.tells) others.insert(others.end(), {"component", "with"});
    const FieldsReader::Owner owner{
        .name = name_of(found.name(), table), .other_keys = std::move(others), .has_earlier = table.contains("style")};
    WrittenElement element(found);
    Locations locations;
    locations.location = reader_.place(table);
    const std::size_t before = problems.count();
    std::vector<const toml::table*> tables = read_styles_of(table, *found.table, element.data(), owner.name, locations);
    tables.push_back(&table);
    reader_.read(table, *found.table, element.data(), owner, locations);
    reader_.require(tables, *found.table, owner);
    const std::string path = put_inside(element, table, around, owner.name);
    if (problems.count() > before || around.is_damaged) damaged_.push_back(locations);
    const int panels = found.panels(element.data());
    definition.elements.push_back(element.element());
    definition.element_locations.push_back(std::move(locations));
    if (found.can.holds_children) read_inner(table, {path, false, around.depth, around.is_damaged});
    if (found.can.tells) read_panels(table, panels, owner.name, {path, false, around.depth + 1, around.is_damaged});
}

/// The panels of a list or of markers: stamps of its component, each with the sources of an entry as its parameters.
void HudReader::read_panels(const toml::table& table, int count, const std::string& list, const Around& around) {
    const toml::node* const named = table.get("component");
    if (named == nullptr) {
        without_component_.push_back({around.path + ".1", list, reader_.place(table)});
        return;
    }
    const auto word = named->value_exact<std::string>();
    if (!word) return reader_.expected(*named, "'component' of " + list, "the name of a component");
    const Component* const component = components_.find(*word);
    if (component == nullptr)
        return reader_.fail(ProblemCode::unknown_name, *named,
                            "'component' of " + list + ": no component '" + utf8::shortened(*word) + "'",
                            did_you_mean(*word, components_.names()));
    const toml::node* const node = table.get("with");
    const toml::table* const given = node != nullptr ? node->as_table() : nullptr;
    if (node != nullptr && given == nullptr)
        return reader_.expected(*node, "'with' of " + list, "a table of values by parameter");
    // What is wrong with the component is told once.
    const std::size_t before = problems.count();
    for (int number = 1; number <= count && problems.count() == before; ++number) {
        toml::table& stamp = stamps_of_lists_.emplace_back();
        reader_.set_place(stamp, reader_.place(table));
        const auto put = [&](const toml::key& key, auto&& value) {
            reader_.set_place(stamp.insert_or_assign(key, value).first->second, reader_.place(*named));
        };
        put(toml::key("id"), std::to_string(number));
        for (const Parameter& parameter : component->parameters) {
            const bool is_field = parameter.type == ParameterType::source || parameter.type == ParameterType::any;
            if (is_field)
                put(toml::key(parameter.name), around.path + "." + std::to_string(number) + "." + parameter.name);
            else if (parameter.fallback == nullptr && !parameter.is_optional &&
                     (given == nullptr || !given->contains(parameter.name)))
                return reader_.fail(ProblemCode::missing_key, *named,
                                    "'with' of " + list + " has no '" + parameter.name + "'",
                                    "give it there, or make it a \"source\" in the component: then it is the field of "
                                    "that name of each entry");
        }
        for (const auto& [key, value] : given != nullptr ? *given : toml::table{}) {
            if (component->find(key.str()) == nullptr)
                return reader_.unknown_key(key, component->names(), "'with' of " + list);
            put(key, value);
        }
        read_stamp(*component, stamp, around);
    }
}

/// Sets the panel in which an element stands, and returns the path of the element.
std::string HudReader::put_inside(WrittenElement& element, const toml::table& table, const Around& around,
                                  const std::string& name) {
    std::string& inside = *element.field<std::string>("inside");
    if (!around.path.empty()) {
        if (!inside.empty() && !around.is_stamp) {
            // It may be said by a style.
            const toml::node* const said = table.contains("inside") ? table.get("inside") : table.get("style");
            reader_.fail(ProblemCode::contradiction, said != nullptr ? *said : table,
                         "'inside' of " + name + ": it stands in the list of '" + around.path + "' already",
                         "leave 'inside' away, or take it out of the list");
        }
        inside = around.path + (inside.empty() ? "" : "." + inside);
    }
    return inside + (inside.empty() ? "" : ".") + *element.field<std::string>("id");
}

/// The elements that a table holds itself.
void HudReader::read_inner(const toml::table& table, const Around& around) {
    const toml::node* const inner = table.get("element");
    if (inner == nullptr) return;
    if (const toml::array* const list = inner->as_array())
        return read_items("element", *list, [&](const toml::table& item) { read_element(item, around); });
    reader_.expected(*inner, "'element' of '" + around.path + "'", "a list of tables");
}

void HudReader::read_stamp(const Component& component, const toml::table& table, const Around& around) {
    const std::string name = name_of(component.name, table);
    if (around.depth >= deepest_stamp)
        return reader_.fail(ProblemCode::circle, table,
                            name + " stands inside " + std::to_string(deepest_stamp) + " other components",
                            "a component cannot hold itself");
    const std::size_t before = problems.count();
    const Stamp* const stamp = components_.stamp(component, table, name);
    if (stamp == nullptr) return dropped_.push_back(id_of(table));
    const bool is_damaged = problems.count() > before || around.is_damaged;
    Locations locations;
    locations.location = reader_.place(table);
    WrittenElement element{Panel{.plate = false}};
    const Table& panel = *kind_of<Panel>().table;
    void* const into = element.data();
    const FieldsReader::Owner of_component{
        .name = "component '" + component.name + "'", .other_keys = {"style"}, .has_earlier = true};
    read_styles_of(stamp->panel, panel, into, of_component.name, locations);
    reader_.read(stamp->panel, panel, into, of_component, locations);
    FieldsReader::Owner own{.name = name, .other_keys = component.names(), .has_earlier = true};
    for (const std::string_view other : {"kind", "style", "element"})
        own.other_keys.push_back(other);
    read_styles_of(stamp->own, panel, into, name, locations);
    reader_.read(stamp->own, panel, into, own, locations);
    reader_.require(std::array{&table}, panel, own);
    const std::string path = put_inside(element, table, around, name);
    if (problems.count() > before || is_damaged) damaged_.push_back(locations);
    definition.elements.push_back(element.element());
    definition.element_locations.push_back(std::move(locations));

    StampNames names{path, {}, reader_.names()};
    gather_paths(stamp->elements, "", names);
    reader_.set_names(&names);
    read_items("element", stamp->elements, [&](const toml::table& item) {
        read_element(item, {path, true, around.depth + 1, is_damaged});
    });
    reader_.set_names(names.around);
    read_inner(stamp->own, {path, false, around.depth, around.is_damaged});
}

}  // namespace rapido
