#include "tool/sources.hpp"

#include <algorithm>
#include <map>
#include <nlohmann/json.hpp>
#include <ostream>

#include "hud/definition_tables.hpp"
#include "rapido/hud.hpp"
#include "tool/report.hpp"
#include "tool/sample_entries.hpp"

namespace rapido::tool {
namespace {

struct Name {
    const DeclaredSource* declared = nullptr;
    bool is_wanted = false, is_offered = false;
};

std::string type_of(const DeclaredSource& source) {
    return std::string(choices_of<SourceType>[static_cast<std::size_t>(source.type)]);
}

/// What is offered for each panel of a list has one name for all of them: `board.*.score`.
std::string for_all(const std::string& name) {
    std::string made;
    for (std::size_t begin = 0; begin <= name.size();) {
        const std::size_t end = std::min(name.find('.', begin), name.size());
        const std::string part = name.substr(begin, end - begin);
        const bool is_number = !part.empty() && part.find_first_not_of("0123456789") == std::string::npos;
        made += (begin > 0 ? "." : "") + (is_number ? "*" : part);
        begin = end + 1;
    }
    return made;
}

std::string text_of(const Value& value) {
    if (value.type() == Value::Type::text) return std::string(value.text());
    if (value.type() == Value::Type::flag) return value.flag() ? "true" : "false";
    return plain_number(value.number());
}

std::string state_of(const Name& name) {
    if (name.is_offered) return name.declared != nullptr ? "offered by the HUD, too" : "offered by the HUD";
    if (name.declared == nullptr) return "not declared";
    return name.is_wanted ? "" : "nothing asks for it";
}

std::vector<std::string> cells_of(const std::string& text, const Name& name) {
    if (name.declared == nullptr) return {text, "-", "-", "-", "-", state_of(name)};
    const DeclaredSource& source = *name.declared;
    std::string samples;
    for (const KeptValue& sample : source.sample)
        samples += (samples.empty() ? "" : ", ") + text_of(sample.get());
    const bool has_range = source.range.low < source.range.high;
    return {text,
            type_of(source),
            has_range ? plain_number(source.range.low) + " to " + plain_number(source.range.high) : "-",
            samples.empty() ? "-" : samples,
            source.unit.empty() ? "-" : source.unit,
            state_of(name)};
}

nlohmann::ordered_json json_of(const std::string& text, const Name& name) {
    nlohmann::ordered_json line{{"name", text},
                                {"declared", name.declared != nullptr},
                                {"wanted", name.is_wanted},
                                {"offered", name.is_offered}};
    if (name.declared == nullptr) return line;
    const DeclaredSource& source = *name.declared;
    line["type"] = type_of(source);
    if (source.range.low < source.range.high) line["range"] = {source.range.low, source.range.high};
    for (const KeptValue& kept : source.sample)
        line["sample"].push_back(nlohmann::ordered_json(tool::json_of(kept.get())));
    if (!source.unit.empty()) line["unit"] = source.unit;
    return line;
}

}  // namespace

Exit names(const SourcesOptions& options, std::ostream& out, std::ostream& err) {
    const Result<HudDefinition> definition = read_hud_file(options.hud);
    if (!definition) {
        print_problems(definition.problems(), err);
        return Exit::problems;
    }
    const Hud hud(*definition);
    std::map<std::string, Name> all;
    for (const std::string& name : hud.wanted_sources())
        all[for_all(name)].is_wanted = true;
    for (const std::string& name : hud.offered_sources())
        all[for_all(name)].is_offered = true;
    for (const DeclaredSource& source : definition->sources) {
        Name& known = all[source.name];
        known.declared = &source;
        for (const DeclaredSource& field : source.fields)
            all[source.name + ".*." + field.name] = {&field, known.is_wanted};
    }
    std::vector<std::vector<std::string>> rows{{"name", "type", "range", "sample", "unit", ""}};
    for (const auto& [text, name] : all)
        if (options.json)
            out << json_of(text, name).dump() << '\n';
        else
            rows.push_back(cells_of(text, name));
    if (!options.json) print_columns(rows, false, out);
    // A file that declares what it expects should declare all of it.
    if (definition->sources.empty()) return Exit::fine;
    Problems undeclared;
    for (const Problem& problem : hud.problems())
        if (problem.code == ProblemCode::unknown_source) undeclared.push_back(problem);
    print_problems(undeclared, err);
    return undeclared.empty() ? Exit::fine : Exit::problems;
}

}  // namespace rapido::tool
