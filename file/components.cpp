#include "file/components.hpp"

#include <algorithm>
#include <array>

#include "base/nearest.hpp"
#include "base/utf8.hpp"
#include "element/fields.hpp"
#include "element/kinds.hpp"
#include "rapido/element/panel.hpp"

namespace rapido {
namespace {

/// A long text counts as many values: what is made of it takes as much longer.
constexpr std::size_t bytes_of_value = 8;

/// What a table becomes (a message, a band) has a thousand bytes and more, however little of it is said.
constexpr std::size_t values_of_table = 8;

/// So many values as a node counts.
std::size_t size_of(const toml::node& node) {
    std::size_t size = node.is_table() ? values_of_table : 1;
    if (const toml::table* const table = node.as_table())
        for (const auto& [key, inner] : *table)
            size += size_of(inner);
    else if (const toml::array* const array = node.as_array())
        for (const toml::node& inner : *array)
            size += size_of(inner);
    else if (const auto* const text = node.as_string())
        size += text->get().size() / bytes_of_value;
    return size;
}

constexpr std::array<std::string_view, 6> type_names{"any", "source", "text", "number", "flag", "color"};
constexpr std::array<std::string_view, 6> expected_names{"a value",       "the name of a source, or a constant",
                                                         "a text",        "a number",
                                                         "true or false", "a color as \"#rrggbb\" or \"#rrggbbaa\""};

bool is_name(std::string_view text) {
    const auto is_letter = [](char c) { return (c >= 'a' && c <= 'z') || (c >= 'A' && c <= 'Z') || c == '_'; };
    return !text.empty() && is_letter(text.front()) &&
           std::all_of(text.begin(), text.end(), [&](char c) { return is_letter(c) || (c >= '0' && c <= '9'); });
}

const Table& panel_table() {
    return *kind_of<Panel>().table;
}

}  // namespace

const Parameter* Component::find(std::string_view parameter) const {
    const auto found = std::find_if(parameters.begin(), parameters.end(),
                                    [&](const Parameter& known) { return known.name == parameter; });
    return found != parameters.end() ? &*found : nullptr;
}

std::vector<std::string_view> Component::names() const {
    std::vector<std::string_view> all;
    for (const Parameter& parameter : parameters)
        all.push_back(parameter.name);
    return all;
}

const Component* Components::find(std::string_view name) const {
    const auto found = components_.find(name);
    return found != components_.end() ? &found->second : nullptr;
}

std::vector<std::string_view> Components::names() const {
    std::vector<std::string_view> all;
    for (const auto& [name, component] : components_)
        all.push_back(name);
    return all;
}

void Components::read(const toml::node& node, std::span<const std::string_view> kinds) {
    const toml::table* const all = node.as_table();
    if (all == nullptr) return reader_.expected(node, "'component'", "tables, [component.NAME]");
    for (const auto& [key, component] : *all)
        read_component(key, component, kinds);
}

void Components::read_component(const toml::key& key, const toml::node& node, std::span<const std::string_view> kinds) {
    const std::string owner = "component '" + utf8::shortened(key.str()) + "'";
    if (std::find(kinds.begin(), kinds.end(), key.str()) != kinds.end())
        return reader_.fail(ProblemCode::duplicate, key, owner + " has the name of a kind of element");
    const toml::table* const table = node.as_table();
    if (table == nullptr) return reader_.expected(node, owner, "a table");
    Component& component = components_[std::string(key.str())];
    component = {};  // one of a file that was included is replaced
    component.name = key.str();
    component.table = table;
    for (const auto& [part, value] : *table) {
        if (part.str() == "parameters")
            read_parameters(value, component);
        else if (part.str() == "element" && value.as_array() == nullptr)
            reader_.expected(value, "'element' of " + owner, "a list of tables");
        else if (part.str() != "element" && panel_table().find(part.str()) == nullptr && part.str() != "style") {
            std::vector<std::string_view> names{"parameters", "element", "style"};
            for (const Field& field : panel_table().fields)
                names.push_back(field.name);
            reader_.unknown_key(part, std::move(names), owner);
        }
    }
}

void Components::read_parameters(const toml::node& node, Component& component) {
    const toml::table* const table = node.as_table();
    if (table == nullptr)
        return reader_.expected(node, "'parameters' of component '" + component.name + "'",
                                "a table, { name = \"type\" }");
    for (const auto& [key, value] : *table)
        read_parameter(key, value, component);
}

void Components::read_parameter(const toml::key& key, const toml::node& node, Component& component) {
    const std::string name = "parameter '" + utf8::shortened(key.str()) + "' of component '" + component.name + "'";
    if (!is_name(key.str()))
        return reader_.fail(ProblemCode::bad_id, key, name + " must be made of letters, digits and '_'");
    static constexpr std::array<std::string_view, 3> taken{"kind", "style", "element"};
    if (panel_table().find(key.str()) != nullptr || std::find(taken.begin(), taken.end(), key.str()) != taken.end())
        return reader_.fail(ProblemCode::duplicate, key, name + " has the name of a key of panels");
    Parameter& parameter = component.parameters.emplace_back();
    parameter.name = key.str();
    const toml::node* type = &node;
    if (const toml::table* const table = node.as_table()) {
        type = table->get("type");
        parameter.fallback = table->get("default");
        for (const auto& [part, value] : *table) {
            if (part.str() == "optional") {
                if (const auto flag = value.value_exact<bool>())
                    parameter.is_optional = *flag;
                else
                    reader_.expected(value, "'optional' of " + name, "true or false");
            } else if (part.str() != "type" && part.str() != "default") {
                reader_.unknown_key(part, {"type", "default", "optional"}, name);
            }
        }
        if (type == nullptr) return;
    }
    const auto word = type->value_exact<std::string>();
    if (!word) return reader_.expected(*type, name, one_of(type_names));
    const auto known = std::find(type_names.begin(), type_names.end(), *word);
    if (known == type_names.end())
        return reader_.fail(ProblemCode::unknown_word, *type,
                            name + " is '" + utf8::shortened(*word) + "'; expected " + one_of(type_names),
                            did_you_mean(*word, type_names));
    parameter.type = static_cast<ParameterType>(known - type_names.begin());
}

bool Components::fits(const toml::node& value, ParameterType type) const {
    switch (type) {
        case ParameterType::any:
            return true;
        case ParameterType::source:
            return value.is_string() || value.is_number() || value.is_boolean() || value.is_table();
        case ParameterType::text:
        case ParameterType::color:
            return value.is_string();
        case ParameterType::number:
            return value.is_number();
        case ParameterType::flag:
            return value.is_boolean();
    }
    return false;
}

Components::Values Components::values_of(const Component& component, const toml::table& table, Stamp& stamp,
                                         const std::string& owner) {
    Values values;
    for (const Parameter& parameter : component.parameters) {
        const toml::node* const given = table.get(parameter.name);
        const toml::node* const value = given != nullptr ? given : parameter.fallback;
        if (value == nullptr && !parameter.is_optional) {
            stamp.is_whole = false;
            reader_.fail(ProblemCode::missing_key, table, owner + " has no '" + parameter.name + "'");
        } else if (value != nullptr && !fits(*value, parameter.type)) {
            stamp.is_whole = false;
            reader_.expected(*value, "'" + parameter.name + "' of " + owner,
                             expected_names[static_cast<std::size_t>(parameter.type)]);
        }
        values[parameter.name] = value;
    }
    return values;
}

const Stamp* Components::stamp(const Component& component, const toml::table& table, const std::string& owner) {
    Stamp& stamp = stamps_.emplace_back();
    const Values values = values_of(component, table, stamp, owner);
    if (!stamp.is_whole) return nullptr;
    auto given = std::make_shared<GivenParameters>();
    for (const Parameter& parameter : component.parameters)
        given->emplace(parameter.name,
                       GivenParameter{values.find(parameter.name)->second, parameter.type == ParameterType::text});
    const Copying copying{component, values, stamp, std::move(given)};
    for (const auto& [key, node] : *component.table) {
        if (key.str() == "parameters") continue;
        if (key.str() != "element") {
            copy(node, stamp.panel, key, &copying);
        } else if (const toml::array* const elements = node.as_array()) {
            for (const toml::node& element : *elements)
                copy(element, stamp.elements, &copying);
        }
    }
    // In what the stamp says itself, the scope around it has seen to `$`.
    for (const auto& [key, node] : table)
        if (component.find(key.str()) == nullptr) copy(node, stamp.own, key, nullptr);
    if (*copied_ <= most_copied) return &stamp;
    reader_.fail(ProblemCode::too_large, table, owner + " makes the HUD larger than one can be");
    return nullptr;
}

bool Components::may_copy(const toml::table& table) {
    const auto [known, is_new] = sizes_.try_emplace(&table, 0);
    if (is_new) known->second = size_of(table);
    *copied_ += known->second;
    return *copied_ <= most_copied;
}

void Components::copy(const toml::node& from, toml::table& into, const toml::key& key, const Copying* copying) {
    copy_node(from, copying, [&](auto&& value) -> toml::node& {
        return into.insert_or_assign(key, std::forward<decltype(value)>(value)).first->second;
    });
}

/// Whether a table is left out, as a parameter that it asks for is not given.
bool Components::is_left_out(const toml::node& node, const Copying& copying) {
    const toml::table* const table = node.as_table();
    const toml::node* const asked = table != nullptr ? table->get("when_given") : nullptr;
    if (asked == nullptr) return false;
    const auto name = asked->value_exact<std::string>();
    if (!name) {
        reader_.expected(*asked, "'when_given' of an element of component '" + copying.component.name + "'",
                         "the name of a parameter");
        return false;
    }
    const auto known = copying.values.find(*name);
    if (known != copying.values.end()) return known->second == nullptr;
    reader_.fail(ProblemCode::unknown_name, *asked,
                 "component '" + copying.component.name + "' has no parameter '" + utf8::shortened(*name) + "'",
                 did_you_mean(*name, copying.component.names()));
    return false;
}

void Components::copy(const toml::node& from, toml::array& into, const Copying* copying) {
    if (copying != nullptr && is_left_out(from, *copying)) return;
    copy_node(from, copying, [&](auto&& value) -> toml::node& {
        into.push_back(std::forward<decltype(value)>(value));
        return into.back();
    });
}

/// Copies a node with all in it: `insert` puts a value to where it belongs and returns the copy there.
template <class Insert>
void Components::copy_node(const toml::node& from, const Copying* copying, Insert insert) {
    if (++*copied_ > most_copied) return;
    if (copying == nullptr || !from.is_string()) {
        copy_as_it_is(from, copying, insert);
        return;
    }
    const toml::node* const value = instead_of(from, *copying);
    if (value == nullptr) return;
    const std::string& text = from.as_string()->get();
    if (value == &from) {
        toml::node& copied = copy_as_it_is(from, copying, insert);
        if (text.find('$') != std::string::npos) reader_.set_parameters(copied, copying->given);
        return;
    }
    toml::node& copied = copy_as_it_is(*value, nullptr, insert);
    const Parameter* const whole = copying->component.find(std::string_view(text).substr(1));
    if (whole != nullptr && whole->type == ParameterType::text) reader_.set_is_text(copied);
}

template <class Insert>
toml::node& Components::copy_as_it_is(const toml::node& from, const Copying* copying, Insert insert) {
    if (const toml::table* const table = from.as_table()) {
        toml::node& copied = insert(toml::table{});
        reader_.set_place(copied, reader_.place(from));
        for (const auto& [key, node] : *table)
            if (copying == nullptr || key.str() != "when_given") copy(node, *copied.as_table(), key, copying);
        return copied;
    }
    if (const toml::array* const array = from.as_array()) {
        toml::node& copied = insert(toml::array{});
        reader_.set_place(copied, reader_.place(from));
        for (const toml::node& node : *array)
            copy(node, *copied.as_array(), copying);
        return copied;
    }
    if (const auto* const text = from.as_string()) *copied_ += text->get().size() / bytes_of_value;
    toml::node& copied = insert(from);
    reader_.set_place(copied, reader_.place(from));
    if (copying == nullptr) reader_.copy_parameters(from, copied);
    return copied;
}

const toml::node* Components::made(std::string text, const toml::node& at) {
    toml::node& node = made_.emplace_back(std::move(text));
    reader_.set_place(node, reader_.place(at));
    return &node;
}

const toml::node* Components::instead_of(const toml::node& from, const Copying& copying) {
    const auto text = from.value_exact<std::string>();
    if (!text) return &from;
    if (text->starts_with("$$")) return made(text->substr(1), from);
    const bool is_negated = text->starts_with("!$");
    if (!is_negated && !text->starts_with('$')) return &from;
    const std::string_view rest = std::string_view(*text).substr(is_negated ? 2 : 1);
    const std::string_view name = rest.substr(0, rest.find('.'));
    const std::string_view member = rest.substr(name.size());
    if (!is_name(name)) return &from;
    const Component& component = copying.component;
    if (component.find(name) == nullptr) {
        const std::string hint = did_you_mean(name, component.names());
        reader_.fail(ProblemCode::unknown_name, from,
                     "component '" + component.name + "' has no parameter '" + utf8::shortened(name) + "'",
                     hint.empty() ? "write '$$' for a dollar sign at the beginning of a text" : hint);
        return nullptr;
    }
    const toml::node* const value = copying.values.find(name)->second;
    if (value == nullptr || (!is_negated && member.empty())) return value;
    if (const auto source = value->value_exact<std::string>()) {
        // The opposite of what is computed is computed, too.
        if (is_negated && source->find_first_of(" ()<>=+*/%'") != std::string::npos) return &from;
        const std::string whole = *source + std::string(member);
        if (!is_negated) return made(whole, *value);
        return made(whole.starts_with('!') ? whole.substr(1) : "!" + whole, *value);
    }
    reader_.expected(*value, "'" + std::string(name) + "' of a stamp of component '" + component.name + "'",
                     "the name of a source, for '" + utf8::shortened(*text) + "'");
    return nullptr;
}

}  // namespace rapido
