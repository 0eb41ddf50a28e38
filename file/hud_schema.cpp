// The JSON Schema of HUD files, out of the descriptions that the reader uses.
#include <map>
#include <nlohmann/json.hpp>
#include <set>

#include "element/kinds.hpp"
#include "hud/definition_tables.hpp"
#include "rapido/file.hpp"

namespace rapido {
namespace {

using Json = nlohmann::ordered_json;

/// A range of a field that is one, and not the default of all.
bool has_range(const Field& field) {
    return field.min > std::numeric_limits<double>::lowest() || field.max < std::numeric_limits<double>::max();
}

Json number_of(const Field& field, bool is_integer = false) {
    Json made{{"type", is_integer ? "integer" : "number"}};
    if (!has_range(field)) return made;
    made["minimum"] = field.min;
    made["maximum"] = field.max;
    return made;
}

Json list_of(Json items, std::size_t least, std::size_t most) {
    return {{"type", "array"}, {"items", std::move(items)}, {"minItems", least}, {"maxItems", most}};
}

Json any_of(std::initializer_list<Json> choices) {
    return {{"anyOf", Json(std::vector<Json>(choices))}};
}

Json text() {
    return {{"type", "string"}};
}

/// A name of the theme is any text that is no color.
Json color() {
    return {{"type", "string"}, {"pattern", "^(#[0-9A-Fa-f]{6}([0-9A-Fa-f]{2})?|[^#].*)$"}};
}

/// The name of a live value, and a table around one.
Json scaled_source() {
    return {{"type", "object"},
            {"properties",
             {{"source", {{"type", {"string", "number", "boolean"}}}},
              {"scale", {{"type", "number"}}},
              {"offset", {{"type", "number"}}},
              {"time_left", {{"type", "boolean"}}}}},
            {"required", {"source"}},
            {"additionalProperties", false}};
}
/// The same, or a constant.
Json source() {
    return any_of({Json{{"type", {"string", "number", "boolean"}}}, scaled_source()});
}
/// Where a number has a range of its own.
Json live_source() {
    return any_of({Json{{"type", "string"}}, scaled_source()});
}

/// What stands where a value would: it comes from a source.
Json followed() {
    return {{"type", "object"},
            {"properties", {{"source", {{"type", "string"}}}}},
            {"required", {"source"}},
            {"additionalProperties", false}};
}

class SchemaWriter {
 public:
    std::string write() {
        Json properties = properties_of(top_table);
        properties["include"] = described(list_of(text(), 0, 64), "HUD files in this folder that are read first.");
        properties["theme"] = described(map_of(theme()), "Colors, fonts and radii by name.");
        properties["source"] =
            described(map_of(reference("declared", declared())), "What the game will offer, by name.");
        properties["style"] = described(map_of(reference("style", style())), "Fields that elements share, by name.");
        const auto tables = [&](const char* key, const Table& table, const char* help) {
            properties[key] = described(list_of(reference(table), 0, 1000), help);
        };
        tables("timer", timer_table, "Timers that the HUD advances.");
        tables("frame_meter", frame_meter_table, "FrameMeters of frames.");
        tables("effect", effect_table, "Effects by name.");
        tables("group", group_table, "Elements that are shown, hidden and dimmed together.");
        tables("language", language_table, "What differs in a language.");
        tables("accept", accepted_table, "What a check may find, as it is meant so.");
        properties["element"] = described(list_of(reference("element", element()), 0, 4000),
                                          "What the HUD shows, in the order of drawing.");
        properties["component"] =
            described(map_of(reference("component", component())), "Elements with parameters, by name.");
        const Json whole{{"$schema", "http://json-schema.org/draft-07/schema#"},
                         {"title", "A HUD file of Rapido"},
                         {"type", "object"},
                         {"properties", properties},
                         {"additionalProperties", false},
                         {"definitions", definitions_}};
        return whole.dump(2) + "\n";
    }

 private:
    static Json described(Json schema, std::string_view help) {
        schema["description"] = help;
        return schema;
    }

    static Json map_of(Json values) { return {{"type", "object"}, {"additionalProperties", std::move(values)}}; }

    Json declared() {
        Json made = object_of(source_table);
        made["properties"]["fields"] = described(map_of(reference(source_table)), "What each entry has, by name.");
        return made;
    }

    Json reference(const std::string& name, const Json& definition) {
        definitions_[name] = definition;
        return {{"$ref", "#/definitions/" + name}};
    }

    Json reference(const Table& table) {
        const auto known = names_.find(&table);
        if (known != names_.end()) return {{"$ref", "#/definitions/" + known->second}};
        // Two tables may have one name.
        std::string name(table.name);
        for (int number = 2; definitions_.contains(name); ++number)
            name = std::string(table.name) + "_" + std::to_string(number);
        names_[&table] = name;
        definitions_[name] = Json::object();  // taken, before what stands inside asks for it
        definitions_[name] = object_of(table);
        return {{"$ref", "#/definitions/" + name}};
    }

    Json object_of(const Table& table) {
        Json made{{"type", "object"}, {"properties", properties_of(table)}, {"additionalProperties", false}};
        Json required = Json::array();
        for (const Field& field : table.fields)
            if (field.required) required.push_back(field.name);
        if (!required.empty()) made["required"] = required;
        return made;
    }

    Json properties_of(const Table& table) {
        Json properties = Json::object();
        for (const Field& field : table.fields)
            properties[std::string(field.name)] = schema_of(field);
        return properties;
    }

    Json schema_of(const Field& field) {
        std::string help(field.help);
        if (!field.unit.empty()) help += " In " + std::string(field.unit) + ".";
        return described(plain_schema_of(field), help);
    }

    Json plain_schema_of(const Field& field) {
        switch (field.type) {
            case FieldType::flag:
                return {{"type", "boolean"}};
            case FieldType::integer:
                return number_of(field, true);
            case FieldType::number:
            case FieldType::real:
            case FieldType::seconds:
                return number_of(field);
            case FieldType::text:
            case FieldType::easing:
                return text();
            case FieldType::color:
                return any_of({color(), reference("followed", followed())});
            case FieldType::image:
                return any_of({text(), reference("followed", followed())});
            case FieldType::themed_text: {
                const Json named{{"type", "object"},
                                 {"properties", {{"theme", text()}}},
                                 {"required", {"theme"}},
                                 {"additionalProperties", false}};
                return any_of({text(), named, reference("followed", followed())});
            }
            case FieldType::themed_number:
                return any_of({number_of(field), text(), reference("followed", followed())});
            case FieldType::point:
            case FieldType::size:
            case FieldType::limits:
                return list_of(number_of(field), 2, 2);
            case FieldType::insets:
                return any_of({number_of(field), list_of(number_of(field), 2, 2), list_of(number_of(field), 4, 4)});
            case FieldType::choice: {
                Json words = Json::array();
                for (const std::string_view word : field.choices)
                    words.push_back(word);
                return {{"enum", words}};
            }
            case FieldType::source:
                return reference("a_source", source());
            case FieldType::amount:
                return any_of({number_of(field), reference("live_source", live_source())});
            case FieldType::amounts:
                return list_of(any_of({number_of(field), reference("live_source", live_source())}), 2, 2);
            case FieldType::value:
                return {{"type", {"string", "number", "boolean"}}};
            case FieldType::points:
                return list_of(list_of(Json{{"type", "number"}}, 2, 2), 0, field.most);
            case FieldType::texts:
                return list_of(text(), 0, field.most);
            case FieldType::values: {
                const Json value{{"type", {"string", "number", "boolean"}}};
                return any_of({value, list_of(value, 0, field.most)});
            }
            case FieldType::sources:
                return map_of(reference("a_source", source()));
            case FieldType::table:
                return reference(*field.table);
            case FieldType::list: {
                const Field& first = field.table->fields.front();
                const bool takes_numbers =
                    first.required && (first.type == FieldType::seconds || first.type == FieldType::real);
                const Json item = reference(*field.table);
                return list_of(takes_numbers ? any_of({item, number_of(first)}) : item, 0, field.most);
            }
            case FieldType::natural:
            case FieldType::nanoseconds:
            case FieldType::numbers:
                return list_of(number_of(field), field.most, field.most);
            case FieldType::part:
                break;  // only calls have such fields
        }
        return Json::object();
    }

    static Json theme() {
        const Json radius{{"type", "number"}, {"minimum", 0}, {"maximum", 10000}};
        Json opaque = color();
        opaque["pattern"] = "^#[0-9A-Fa-f]{6}([0-9A-Fa-f]{2})?$";
        return {{"type", "object"},
                {"properties", {{"color", map_of(opaque)}, {"font", map_of(text())}, {"radius", map_of(radius)}}},
                {"additionalProperties", false}};
    }

    static Json styles() { return any_of({text(), list_of(text(), 0, 100)}); }

    /// The fields of all kinds: where two kinds have other types for one name, any of them.
    Json style() {
        std::map<std::string, std::vector<Json>> all;
        std::vector<std::string> order;
        for (const Kind* const kind : all_kinds())
            for (const Field& field : kind->table->fields) {
                if (field.name == "style") continue;
                std::vector<Json>& known = all[std::string(field.name)];
                if (known.empty()) order.emplace_back(field.name);
                Json made = plain_schema_of(field);
                if (std::find(known.begin(), known.end(), made) == known.end()) known.push_back(std::move(made));
            }
        Json properties = Json::object();
        for (const std::string& name : order)
            properties[name] = all[name].size() == 1 ? all[name].front() : Json{{"anyOf", all[name]}};
        return {{"type", "object"}, {"properties", properties}, {"additionalProperties", false}};
    }

    /// An element is told by its kind; any other kind is a component of the file.
    Json element() {
        Json kinds = Json::array(), rules = Json::array();
        for (const Kind* const kind : all_kinds()) {
            const std::string name(kind->name());
            kinds.push_back(name);
            Json properties{{"kind", {{"const", name}}}, {"style", styles()}};
            if (kind->can.holds_children)
                properties["element"] = list_of(Json{{"$ref", "#/definitions/element"}}, 0, 4000);
            if (kind->can.tells) {
                properties["component"] = text();
                properties["with"] = Json{{"type", "object"}};
            }
            const Json fields = properties_of(*kind->table);
            for (const auto& [key, value] : fields.items())
                properties[key] = key == "style" ? any_of({styles(), value}) : value;
            Json required{"kind", "id"};
            const Json made{{"type", "object"},
                            {"properties", properties},
                            {"additionalProperties", false},
                            {"required", required}};
            rules.push_back({{"if", {{"properties", {{"kind", {{"const", name}}}}}, {"required", {"kind"}}}},
                             {"then", reference("element_" + name, made)}});
        }
        return {{"type", "object"},
                {"properties",
                 {{"kind",
                   {{"description", "What it is: a kind, or a component of this file."},
                    {"anyOf", {Json{{"enum", kinds}}, text()}}}}}},
                {"required", {"kind", "id"}},
                {"allOf", rules}};
    }

    /// A stand-in for any value inside a component: `$tint`, `!$is_low`.
    Json parameter_name() { return reference("parameter", Json{{"type", "string"}, {"pattern", "^!?\\$[^$]"}}); }

    /// The same schema where any value may be a parameter. Texts take one as they are.
    Json or_parameter(const Json& value) {
        Json made = with_parameters(value);
        const bool is_text = value.contains("type") && value["type"] == "string" && !value.contains("pattern");
        if (is_text) return made;
        Json help = made.contains("description") ? made["description"] : Json();
        made.erase("description");
        Json either = any_of({made, parameter_name()});
        if (!help.is_null()) either["description"] = help;
        return either;
    }

    Json with_parameters(const Json& given) {
        Json made = given;
        if (given.contains("$ref")) {
            const std::string name = given["$ref"].get<std::string>().substr(std::string("#/definitions/").size());
            const std::string own = name + "_in_component";
            if (!definitions_.contains(own)) {
                definitions_[own] = Json::object();  // taken, before what stands inside asks for it
                const Json definition = definitions_[name];
                definitions_[own] = with_parameters(definition);
            }
            made["$ref"] = "#/definitions/" + own;
        }
        if (given.contains("properties"))
            for (const auto& [key, value] : given["properties"].items())
                made["properties"][key] = key == "kind" || key == "id" ? value : or_parameter(value);
        for (const char* const key : {"items", "additionalProperties"})
            if (given.contains(key) && given[key].is_object()) made[key] = or_parameter(given[key]);
        for (const char* const key : {"anyOf", "allOf"})
            if (given.contains(key))
                for (std::size_t i = 0; i < given[key].size(); ++i)
                    made[key][i] = with_parameters(given[key][i]);
        if (given.contains("then")) made["then"] = with_parameters(given["then"]);
        return made;
    }

    /// To be asked for when the elements are known.
    Json component() {
        Json properties = Json::object();
        for (const Field& field : kind_of<Panel>().table->fields)
            if (field.name != "id") properties[std::string(field.name)] = or_parameter(schema_of(field));
        properties["style"] = styles();
        properties["element"] = list_of(with_parameters(Json{{"$ref", "#/definitions/element"}}), 0, 4000);
        const Json type{{"enum", {"any", "source", "text", "number", "flag", "color"}}};
        const Json parameter{
            {"type", "object"},
            {"properties", {{"type", type}, {"default", Json::object()}, {"optional", {{"type", "boolean"}}}}},
            {"additionalProperties", false}};
        properties["parameters"] = map_of(any_of({type, parameter}));
        return {{"type", "object"}, {"properties", properties}, {"additionalProperties", false}};
    }

    Json definitions_ = Json::object();
    std::map<const Table*, std::string> names_;
};

}  // namespace

std::string hud_schema() {
    return SchemaWriter().write();
}

}  // namespace rapido
